import type * as schema from "./schema";
import { type LatheAct, type LatheDraft } from "../../lane";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { faceMm, kxNowMm, reachNowMm, toolAt } from "../../contact";
import { turretSum } from "../../../../registers/turret";
import { toCounts, toMm } from "../../../../units/scale";
import { coneNormal, coneRadiusMm, noseTip, withCone } from "./cone";
import { drawNormal } from "../../../../random";
import { type AxisCounts } from "../../../../registers/mill";
import { onLathe } from "../../evidence";

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
 * stand: the cone is cut where those put the nose. Held halfway, the tool stays at the middle of the wanted.
 */
function runCone(draft: LatheDraft, { isHeld }: CommandOf<"runCone">): Decision {
  const { state } = draft;
  const wanted = state.setup.lathe.cone;
  if (!wanted) return refuse({ code: "notOnThisMachine" });
  const lathe = state.lathe;
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
    z: toMm(sum("z"), scale) - face - reachNowMm(state, tool.number),
  };
  const n = coneNormal(wanted);
  const number = lathe.cuts + 1;
  const spring = drawNormal(0.0015, 0.0006, truth.seed, "cone", tool.number, number);
  const offMm = Math.round(((n.x * off.x) / 2 + n.z * off.z + spring) * 1e5) / 1e5;
  // before the first pass the blank stands out past the drawing everywhere
  const before = lathe.cone?.offMm ?? Infinity;
  const takesMm = before - offMm;
  const looks = takesMm > SKIMS_MM ? "cuts" : takesMm > -SKIMS_MM / 2 ? "skims" : "air";
  const middle = {
    radiusMm: coneRadiusMm(wanted, wanted.atMm - wanted.lengthMm / 2),
    zMm: wanted.atMm - wanted.lengthMm / 2,
  };
  const tipOn = noseTip(tool, {
    radiusMm: middle.radiusMm + n.x * tool.noseRadiusMm,
    zMm: middle.zMm + n.z * tool.noseRadiusMm,
  });
  const at = (radiusMm: number, zMm: number): AxisCounts => ({
    ...state.position,
    x: toCounts(2 * radiusMm, scale) + sum("x"),
    z: toCounts(zMm, scale) + sum("z"),
  });
  const end = isHeld ? at(tipOn.radiusMm, tipOn.zMm) : at(state.setup.lathe.stock.diameterMm / 2 + CLEAR_MM, CLEAR_MM);
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
    cone: { ...wanted },
  });
  return accept(draft.events);
}

/** The pass along a cone by a tool's registers, whole or held halfway. */
export const cone: LatheAct<typeof schema> = {
  decide: { runCone },
  evolve: { coneRan: onLathe(withCone) },
};
