import { drawNormal } from "../../random";
import { turretSum, type AxisCounts } from "../../registers";
import { accept, refuse, type Result } from "../../result";
import { toCounts, toMm } from "../../units";
import { Draft } from "../draft";
import type { LaneEvent } from "../events";
import type { Refusal } from "../refusals";
import type { LaneState } from "../state";
import { coneNormal, coneRadiusMm, noseTip } from "./cone";
import { faceMm, kxNowMm, latheOf, toolAt, truthOf } from "./contact";

/**
 * A pass that takes off no more than this only skims; what it would take off deeper than that at one go breaks the
 * insert, mm.
 */
const SKIMS_MM = 0.012;
const DEEPEST_MM = 2.5;
/** After a pass the tool stands clear of the face by this, mm, and outside the part by it. */
const CLEAR_MM = 12;

/**
 * The finishing program of the cone on the sheet with the tool here, nose compensation on, by its registers as they
 * stand: the cone is cut where those put the nose. Held halfway, the tool stays at the middle of the cone.
 */
export function runCone(state: LaneState, isHeld: boolean): Result<LaneEvent[], Refusal> {
  const cone = state.setup.lathe?.cone;
  if (!cone) return refuse({ code: "notOnThisMachine" });
  const lathe = latheOf(state);
  const tool = toolAt(state);
  if (tool.kind !== "turning" && tool.kind !== "neutral") return refuse({ code: "cannotTurnCone" });
  if (!state.isHomed) return refuse({ code: "notHomed" });
  if (state.isDoorOpen) return refuse({ code: "doorOpenMotion" });
  if (lathe.gap) return refuse({ code: "paperInGap" });
  if (lathe.block) return refuse({ code: "blockInGap" });
  if (lathe.row !== tool.number) return refuse({ code: "callOffsetFirst", tool: tool.number });
  if (!state.spindle.isOn) return refuse({ code: "startSpindleFirst" });
  const { registers, scale, modal, truth } = state;
  const face = faceMm(state) ?? 0;
  const sum = (axis: "x" | "z") =>
    registers.common[axis] + registers.work[modal.workOffset][axis] + turretSum(registers.turret, axis, tool.number);
  const off = {
    x: toMm(sum("x"), scale) - kxNowMm(state, tool.number),
    z: toMm(sum("z"), scale) - face - (truthOf(state).tools[tool.number]?.qMm ?? 0),
  };
  const n = coneNormal(cone);
  const number = lathe.cuts + 1;
  const spring = drawNormal(0.0015, 0.0006, truth.seed, "cone", tool.number, number);
  const offMm = Math.round(((n.x * off.x) / 2 + n.z * off.z + spring) * 1e5) / 1e5;
  // before the first pass the blank stands out past the drawing everywhere
  const before = lathe.cone?.offMm ?? Infinity;
  const takesMm = before - offMm;
  const looks = takesMm > SKIMS_MM ? "cuts" : takesMm > -SKIMS_MM / 2 ? "skims" : "air";
  const draft = new Draft(state);
  const middle = { radiusMm: coneRadiusMm(cone, cone.atMm - cone.lengthMm / 2), zMm: cone.atMm - cone.lengthMm / 2 };
  const tipOn = noseTip(tool, {
    radiusMm: middle.radiusMm + n.x * tool.noseRadiusMm,
    zMm: middle.zMm + n.z * tool.noseRadiusMm,
  });
  const at = (radiusMm: number, zMm: number): AxisCounts => ({
    ...state.position,
    x: toCounts(2 * radiusMm, scale) + sum("x"),
    z: toCounts(zMm, scale) + sum("z"),
  });
  const end = isHeld
    ? at(tipOn.radiusMm, tipOn.zMm)
    : at(state.setup.lathe ? state.setup.lathe.stock.diameterMm / 2 + CLEAR_MM : 0, CLEAR_MM);
  // far too deep: the pass would run into part, jaws or more than an insert takes
  if (offMm < -DEEPEST_MM || (Number.isFinite(before) && takesMm > DEEPEST_MM)) {
    draft.emit({ type: "moved", to: at(tipOn.radiusMm, tipOn.zMm), isRapid: false });
    draft.emit({
      type: "incidentHappened",
      code: "insertChipped",
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
    });
    return accept(draft.events);
  }
  draft.emit({ type: "moved", to: end, isRapid: false });
  draft.emit({
    type: "coneRan",
    tool: tool.number,
    isHeld,
    looks,
    offMm: Math.min(before, offMm),
    number,
    at: end,
    faceMm: face,
    cone: { ...cone },
  });
  return accept(draft.events);
}
