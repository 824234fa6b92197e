import type { IncidentCode } from "../machines/events";
import type { AxisCounts } from "../registers";
import type { Counts, LengthUnit } from "../units";
import { lengthInUse, type LaneBase } from "./state";
import { guardCounts, travelCounts } from "./travel";
import type { ProgramSeen } from "../machines/program/observe";

/**
 * What may be seen of every lane before hand-in. Places are at the precision of an eye; instruments read what they
 * read.
 */
export interface SeenBase extends Pick<
  LaneBase,
  | "isCoachOn"
  | "isHomed"
  | "isDoorOpen"
  | "isStopped"
  | "sight"
  | "spindle"
  | "rememberedRpm"
  | "modal"
  | "registers"
  | "areBlocksWiped"
  | "tasksDone"
  | "isHandUp"
  | "isHandedIn"
  | "checking"
> {
  readonly machine: AxisCounts;
  readonly counter: AxisCounts;
  readonly travelCounts: (typeof travelCounts)[LengthUnit];
  readonly guardCounts: Counts;
  readonly lengthCounts: Counts;
  readonly lastUndo: LaneBase["desk"]["undo"][number] | null;
  readonly readings: LaneBase["desk"]["readings"];
  readonly ledger: LaneBase["desk"]["ledger"];
  readonly check: LaneBase["desk"]["check"];
  readonly verdict: LaneBase["desk"]["verdict"];
  readonly incidents: readonly IncidentCode[];
  /** Programs, where the lane has any. */
  readonly program?: ProgramSeen;
}

/** What may be seen of a lane whatever its machine. An instructor also sees the incidents that say nothing. */
export function seenBase(state: LaneBase, viewer: "student" | "instructor"): SeenBase {
  const { position, counterZero, setup, desk } = state;
  return {
    isCoachOn: state.isCoachOn,
    machine: position,
    counter: { x: position.x - counterZero.x, y: position.y - counterZero.y, z: position.z - counterZero.z },
    travelCounts: travelCounts[setup.unit],
    isHomed: state.isHomed,
    isDoorOpen: state.isDoorOpen,
    isStopped: state.isStopped,
    sight: state.sight,
    spindle: state.spindle,
    rememberedRpm: state.rememberedRpm,
    guardCounts: guardCounts[setup.unit],
    modal: state.modal,
    lengthCounts: lengthInUse(state),
    registers: state.registers,
    lastUndo: desk.undo.at(-1) ?? null,
    areBlocksWiped: state.areBlocksWiped,
    tasksDone: state.tasksDone,
    isHandUp: state.isHandUp,
    isHandedIn: state.isHandedIn,
    readings: desk.readings,
    ledger: desk.ledger,
    check: desk.check,
    verdict: desk.verdict,
    checking: state.checking,
    incidents: state.incidents.filter(({ isSilent }) => viewer === "instructor" || !isSilent).map(({ code }) => code),
  };
}
