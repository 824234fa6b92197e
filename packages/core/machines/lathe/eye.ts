import { type TurningLane } from "./lane";
import type { HeldFace } from "./faces";
import { seen, seenAs } from "../../lane/eye";
import { material } from "./outline";
import { toMm } from "../../units/scale";
import { kxNowMm, reachNowMm, toolAt } from "./contact";

/** What stands up in the middle of a face and is no wider than this is a pip, mm. */
const PIP_RADIUS_MM = 0.3;

/** A stretch of the part as an eye draws it, mm in the slide's frame. */
export interface SeenStep {
  readonly fromMm: number;
  readonly toMm: number;
  readonly radiusMm: number;
  readonly isTurned: boolean;
  readonly isCone?: boolean;
}

/** The lathe as an eye sees it: part, jaws, tip and arm, all from the slide's frame and the axis, mm. */
export interface SeenTurning {
  readonly radiusMm: number;
  readonly zMm: number;
  readonly partRadiusMm: number;
  readonly faceMm: number;
  readonly jawMm: number;
}

const seenPlace = ({ truth, setup }: TurningLane) => {
  const lathe = truth.lathe;
  // part and jaws hang on one place, so that no second rounding tells more
  const skinMm = seen(lathe?.skinMm ?? 0, truth.eyeOffsetMm.z);
  return { skinMm, shiftMm: skinMm - (lathe?.skinMm ?? 0), jawMm: skinMm - (setup.lathe.stock.stickOutMm ?? 0) };
};

export function seenTip(state: TurningLane): SeenTurning {
  const { outer, bore, station } = state.lathe;
  const { truth, scale, position } = state;
  const { shiftMm, jawMm } = seenPlace(state);
  const there = material(outer, bore);
  return {
    radiusMm: (toMm(position.x, scale) - seenAs(kxNowMm(state, station), truth, "x", station)) / 2,
    zMm: toMm(position.z, scale) - seenAs(reachNowMm(state, station), truth, "reach", station),
    partRadiusMm: seenAs(Math.max(...there.map(({ radiusMm }) => radiusMm), 0), truth, "radius"),
    faceMm: seen(
      Math.max(...there.filter(({ radiusMm }) => radiusMm > PIP_RADIUS_MM).map(({ toMm: end }) => end)) + shiftMm,
      truth.eyeOffsetMm.z,
    ),
    jawMm,
  };
}

/** Neighboring stretches that look alike are one: a pass made in many turns of the wheel is one band. */
function joined(steps: readonly SeenStep[]): SeenStep[] {
  return steps.reduce<SeenStep[]>((list, step) => {
    const last = list.at(-1);
    return last &&
      last.toMm === step.fromMm &&
      last.radiusMm === step.radiusMm &&
      last.isTurned === step.isTurned &&
      last.isCone === step.isCone
      ? [...list.slice(0, -1), { ...last, toMm: step.toMm }]
      : [...list, step];
  }, []);
}

/** The part as it is drawn: every radius and every end at the precision of an eye. */
export function seenOutline(state: TurningLane): { outer: SeenStep[]; bore: SeenStep[] } {
  const { outer, bore } = state.lathe;
  const { shiftMm } = seenPlace(state);
  const draw = (steps: typeof outer, of: "radius" | "bore"): SeenStep[] =>
    joined(
      steps
        .filter(({ radiusMm }) => radiusMm > 0)
        .map(({ fromMm, toMm: end, radiusMm, cut, isCone }) => ({
          fromMm: seen(fromMm + shiftMm, state.truth.eyeOffsetMm.z),
          toMm: seen(end + shiftMm, state.truth.eyeOffsetMm.z),
          radiusMm: seenAs(radiusMm, state.truth, of),
          isTurned: cut > 0,
          ...(isCone ? { isCone } : {}),
        })),
    );
  const there = material(outer, bore);
  const endMm = Math.max(...there.map(({ toMm: end }) => end));
  // no bore is drawn where the part has been cut away
  return {
    outer: draw(there, "radius"),
    bore: draw(
      bore.filter(({ fromMm }) => fromMm < endMm).map((hole) => ({ ...hole, toMm: Math.min(hole.toMm, endMm) })),
      "bore",
    ),
  };
}

/** Daylight between tip and part as an eye judges it, mm; null where an eye finds no such face. */
export function seenGapMm(state: TurningLane, on: HeldFace): number | null {
  const tip = seenTip(state);
  const { outer, bore } = seenOutline(state);
  const { sideMm = 0 } = toolAt(state);
  if (on === "face") return tip.radiusMm < tip.partRadiusMm + 0.5 && tip.zMm > tip.jawMm ? tip.zMm - tip.faceMm : null;
  const at = (steps: readonly SeenStep[]) =>
    steps.find(({ fromMm, toMm: end }) => tip.zMm + sideMm + 0.5 > fromMm && tip.zMm + sideMm < end);
  const step = on === "bore" ? at(bore) : at(outer);
  if (!step) return null;
  return on === "bore" ? step.radiusMm - tip.radiusMm : tip.radiusMm - step.radiusMm;
}

/** Tips of all tools on a gang slide, how far out from the axis, by eye, mm; empty elsewhere. */
export function seenNeighbors(state: TurningLane): { number: number; radiusMm: number }[] {
  if (state.kind !== "gang") return [];
  const x = toMm(state.position.x, state.scale);
  return (state.setup.lathe.tools ?? []).map(({ number }) => ({
    number,
    radiusMm: (x - seenAs(kxNowMm(state, number), state.truth, "x", number)) / 2,
  }));
}

/** Where the setter arm's sensor is drawn: radius and Z of its corner, mm; null when it is folded away. */
export function seenArm({ truth, lathe }: TurningLane): { radiusMm: number; zMm: number } | null {
  const arm = truth.lathe.arm;
  return arm && lathe?.arm.isDown
    ? { radiusMm: seenAs(arm.xMm / 2, truth, "arm x"), zMm: seenAs(arm.zMm, truth, "arm z") }
    : null;
}
