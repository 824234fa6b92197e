import { toMm } from "../../units";
import { seen } from "../eye";
import type { LaneState } from "../state";
import { latheOf } from "./contact";
import { material } from "./outline";
import type { TurnedFace } from "./state";

/** A stretch of the part as an eye draws it, mm in the slide's frame. */
export interface SeenStep { readonly fromMm: number; readonly toMm: number; readonly radiusMm: number; readonly isTurned: boolean }
/** The lathe as an eye sees it: part, jaws, tip and arm, all from the slide's frame and the axis, mm. */
export interface SeenTurning {
  readonly radiusMm: number; readonly zMm: number; readonly partRadiusMm: number; readonly faceMm: number; readonly jawMm: number;
}

const seenPlace = ({ truth, setup }: LaneState) => {
  const lathe = truth.lathe;
  // part and jaws hang on one place, so that no second rounding tells more
  const skinMm = seen(lathe?.skinMm ?? 0, truth.eyeOffsetMm.z);
  return { skinMm, shiftMm: skinMm - (lathe?.skinMm ?? 0), jawMm: skinMm - (setup.lathe?.stock.stickOutMm ?? 0) };
};

export function seenTip(state: LaneState): SeenTurning {
  const { outer, bore, station } = latheOf(state);
  const { truth, scale, position } = state;
  const tool = truth.lathe?.tools[station] ?? { kxMm: 0, qMm: 0 };
  const { shiftMm, jawMm } = seenPlace(state);
  const there = material(outer, bore);
  return {
    radiusMm: (toMm(position.x, scale) - seen(tool.kxMm, truth.eyeOffsetMm.x)) / 2, zMm: toMm(position.z, scale) - seen(tool.qMm, 0) ,
    partRadiusMm: seen(Math.max(...there.map(({ radiusMm }) => radiusMm), 0), 0), faceMm: seen(Math.max(...there.map(({ toMm: end }) => end)) + shiftMm, truth.eyeOffsetMm.z), jawMm,
  };
}

/** The part as it is drawn: every radius and every end at the precision of an eye. */
export function seenOutline(state: LaneState): { outer: SeenStep[]; bore: SeenStep[] } {
  const { outer, bore } = latheOf(state);
  const { shiftMm } = seenPlace(state);
  const draw = (steps: typeof outer): SeenStep[] => steps.filter(({ radiusMm }) => radiusMm > 0)
    .map(({ fromMm, toMm: end, radiusMm, cut }) => ({ fromMm: seen(fromMm + shiftMm, state.truth.eyeOffsetMm.z), toMm: seen(end + shiftMm, state.truth.eyeOffsetMm.z), radiusMm: seen(radiusMm, 0), isTurned: cut > 0 }));
  const there = material(outer, bore);
  const endMm = Math.max(...there.map(({ toMm: end }) => end));
  // no bore is drawn where the part has been cut away
  return { outer: draw(there), bore: draw(bore.filter(({ fromMm }) => fromMm < endMm).map((hole) => ({ ...hole, toMm: Math.min(hole.toMm, endMm) }))) };
}

/** Daylight between tip and part as an eye judges it, mm; null where an eye finds no such face. */
export function seenGapMm(state: LaneState, on: TurnedFace): number | null {
  const tip = seenTip(state);
  const { outer, bore } = seenOutline(state);
  if (on === "face") return tip.radiusMm < tip.partRadiusMm + 0.5 && tip.zMm > tip.jawMm ? tip.zMm - tip.faceMm : null;
  const at = (steps: readonly SeenStep[]) => steps.find(({ fromMm, toMm: end }) => tip.zMm + 0.5 > fromMm && tip.zMm < end);
  const step = on === "bore" ? at(bore) : at(outer);
  if (!step) return null;
  return on === "bore" ? step.radiusMm - tip.radiusMm : tip.radiusMm - step.radiusMm;
}

/** Where the setter arm's sensor is drawn: radius and Z of its corner, mm; null when it is folded away. */
export function seenArm({ truth, lathe }: LaneState): { radiusMm: number; zMm: number } | null {
  const arm = truth.lathe?.arm;
  return arm && lathe?.arm.isDown ? { radiusMm: seen(arm.xMm / 2, 0), zMm: seen(arm.zMm, truth.eyeOffsetMm.z) } : null;
}
