import type * as schema from "./schema";
import { type LatheAct, type LatheDraft, type TurningLane } from "../../lane";
import { type Axis, type AxisCounts } from "../../../../registers/mill";
import { tipAt } from "../../contact";
import { type JogSize } from "../../../../lane/names";
import { drawNormal } from "../../../../random";
import { toCounts, toMm } from "../../../../units/scale";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { ROOM_TO_INDEX_MM, mayReach } from "../../hands";
import { seenTip } from "../../eye";
import { counted, onLathe } from "../../evidence";
import { contactHere } from "../../contactBase";

/** The arm's sensor is a cube of this edge, mm. */
const ARM_CUBE_MM = 10;

/**
 * Where the tip stands from the arm's sensor: the plane that it would meet moving this way, mm; null when it passes
 * beside it.
 */
function armGapMm(state: TurningLane, axis: Axis): number | null {
  const arm = state.truth.lathe.arm;
  if (!arm || !state.lathe.arm.isDown) return null;
  const { radiusMm, zMm } = tipAt(state);
  const isBeside = (mm: number) => mm < 0 && mm > -ARM_CUBE_MM;
  if (axis === "x") return isBeside(zMm - arm.zMm) ? radiusMm - arm.xMm / 2 : null;
  return isBeside(radiusMm - arm.xMm / 2) ? zMm - arm.zMm : null;
}

/** How far the arm's sensor stands from the tip, whichever way it comes, mm; below zero it is in it. */
export function armRoomMm(state: TurningLane, position: AxisCounts): number {
  const sensor = state.truth.lathe.arm;
  if (!sensor || !state.lathe.arm.isDown) return Infinity;
  const { radiusMm, zMm } = tipAt(state, position);
  const beside = (mm: number) => Math.max(mm, -ARM_CUBE_MM - mm);
  return Math.max(beside(radiusMm - sensor.xMm / 2), beside(zMm - sensor.zMm));
}

/** The axis stops by itself where the arm is tripped; too fast for that, and the arm is struck. */
export function tripArm(draft: LatheDraft, axis: "x" | "z", direction: 1 | -1, size: JogSize): boolean {
  const past = armGapMm(draft.state, axis);
  if (past === null || past > 0 || direction === 1 || draft.state.lathe.arm.isTripped) return false;
  if (size === "rapid" || size === "coarse") {
    draft.emit({
      type: "incidentHappened",
      code: "armStruck",
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
    });
    return true;
  }
  const { state } = draft;
  const number = state.lathe.arm.trips + 1;
  const errorMm = Math.round(drawNormal(0, 0.002, state.truth.seed, "arm", number) * 1e5) / 1e5;
  const at: AxisCounts = {
    ...state.position,
    [axis]: toCounts(toMm(state.position[axis], state.scale) - (axis === "x" ? 2 : 1) * past + errorMm, state.scale),
  };
  draft.emit({ type: "moved", to: at, isRapid: false });
  draft.emit({ type: "armTripped", axis, at, number, errorMm });
  draft.emit({
    type: "readingShown",
    number: state.desk.readingsMade + 1,
    instrument: "setterArm",
    what: axis === "x" ? "armX" : "armZ",
    tool: state.lathe.station,
    values: { [axis]: toMm(at[axis], state.scale) },
  });
  return true;
}

function swingArm({ state }: LatheDraft, { isDown }: CommandOf<"swingArm">): Decision {
  if (!state.setup.lathe.arm) return refuse({ code: "instrumentNotHere", instrument: "setterArm" });
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  const { radiusMm, zMm, partRadiusMm, faceMm } = seenTip(state);
  if (isDown && zMm < faceMm + ROOM_TO_INDEX_MM && radiusMm < partRadiusMm + ROOM_TO_INDEX_MM)
    return refuse({ code: "noRoomToIndex" });
  return accept([{ type: "armSwung", isDown }]);
}

/** The swing-down setter arm: it holds the axis by itself, and what it reads stands in the list. */
export const arm: LatheAct<typeof schema> = {
  decide: { swingArm },
  evolve: {
    armSwung: onLathe((lathe, { isDown }) => ({ ...lathe, arm: { ...lathe.arm, isDown, isTripped: false } })),
    armTripped: onLathe((lathe, { number, axis }) => {
      const touchedBy = axis === "x" ? "xTouched" : "zTouched";
      return {
        ...lathe,
        arm: { ...lathe.arm, trips: number, isTripped: true, axis: axis === "x" ? "x" : "z" },
        evidence: { ...lathe.evidence, [touchedBy]: counted(lathe.evidence[touchedBy], lathe.station) },
      };
    }),
    armLeft: onLathe((lathe) => ({ ...lathe, arm: { ...lathe.arm, isTripped: false } })),
  },
  tells: {
    armTripped: (before, at, { axis, at: where }) => ({
      turret: [{ ...contactHere(before, at, 0), axis, on: "arm", by: "arm", at: where }],
    }),
  },
};
