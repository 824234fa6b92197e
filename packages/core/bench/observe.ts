import type { Setup, Surface } from "../exercises";
import type { BoxMm } from "../geometry";
import type { Feel, Thing, Wobble } from "../instruments";
import { displayCounts, type AxisCounts, type MillRegisters } from "../registers";
import { coachStep, type CoachStep } from "./coach";
import type { Side } from "./commands";
import { seenBoxes, seenLengthMm, surfaceBelow } from "./eye";
import type { IncidentCode } from "./events";
import { gatesOf, type Gate } from "./gates";
import { bench } from "./machine";
import { seesKick, type LaneState, type LedgerLine } from "./state";

/** What eyes and fingers tell of the edge finder's tip from where the student stands. */
type TipSeen =
  | { readonly kind: "still" }
  | { readonly kind: "running"; readonly wobble: Wobble }
  | { readonly kind: "aside" }
  | { readonly kind: "destroyed" };

/** Everything that leaves the server about a lane before hand-in. Places are at the precision of an eye; instruments read what they read. */
export interface Observation {
  readonly sheet: Setup;
  readonly isCoachOn: boolean;
  readonly machine: AxisCounts;
  readonly work: AxisCounts;
  readonly counter: AxisCounts;
  readonly travelCounts: typeof bench.travelCounts;
  readonly isHomed: boolean;
  readonly isDoorOpen: boolean;
  readonly isStopped: boolean;
  readonly sight: Side;
  readonly spindle: LaneState["spindle"];
  readonly rememberedRpm: number;
  readonly doorLimitRpm: number;
  readonly guardCounts: number;
  readonly modal: LaneState["modal"];
  readonly registers: MillRegisters;
  readonly lastUndo: LaneState["undo"][number] | null;
  readonly holds: Thing | null;
  readonly tip: TipSeen | null;
  readonly resting: Surface | null;
  readonly paper: { readonly on: Surface; readonly feel: Feel } | null;
  readonly below: Surface | null;
  /** Everything solid, placed as an eye sees it. */
  readonly boxes: Readonly<Record<Surface, BoxMm>>;
  /** From the gauge line to the tip, as an eye sees it, mm. */
  readonly heldLengthMm: number;
  readonly isBurrDressed: boolean;
  readonly isHandUp: boolean;
  readonly isHandedIn: boolean;
  readonly ledger: readonly LedgerLine[];
  readonly incidents: readonly IncidentCode[];
  readonly evidence: LaneState["evidence"];
  readonly gates: readonly Gate[];
  readonly coach: CoachStep | null;
}

/** What never changes while a lane is worked: sent once, when it is opened. */
export type ObservationNow = Omit<Observation, "sheet" | "boxes" | "travelCounts" | "isCoachOn" | "doorLimitRpm" | "guardCounts">;

/** An observation without what never changes. */
export function nowOf(observation: Observation): ObservationNow {
  const { sheet: _sheet, boxes: _boxes, travelCounts: _travel, isCoachOn: _coach, doorLimitRpm: _door, guardCounts: _guard, ...now } = observation;
  return now;
}

function tipSeen({ holds, finder, spindle, sight }: LaneState): TipSeen | null {
  if (holds !== "edgeFinder") return null;
  if (finder.condition === "broken") return { kind: "destroyed" };
  if (finder.tip === "aside" && finder.kickAxis && seesKick(sight, finder.kickAxis)) return { kind: "aside" };
  if (!spindle.isOn) return { kind: "still" };
  return { kind: "running", wobble: finder.tip === "wobbling" ? finder.wobble : "true" };
}

/** What may be seen of a lane. An instructor also sees the incidents that say nothing. */
export function observe(state: LaneState, viewer: "student" | "instructor"): Observation {
  const { registers, position, modal, counterZero } = state;
  const seen: Omit<Observation, "coach"> = {
    sheet: state.setup,
    isCoachOn: state.isCoachOn,
    machine: position,
    work: displayCounts(registers, position, modal.workOffset, modal.lengthRow),
    counter: { x: position.x - counterZero.x, y: position.y - counterZero.y, z: position.z - counterZero.z },
    travelCounts: bench.travelCounts,
    isHomed: state.isHomed,
    isDoorOpen: state.isDoorOpen,
    isStopped: state.isStopped,
    sight: state.sight,
    spindle: state.spindle,
    rememberedRpm: state.rememberedRpm,
    doorLimitRpm: bench.doorLimitRpm,
    guardCounts: bench.guardCounts,
    modal,
    registers,
    lastUndo: state.undo.at(-1) ?? null,
    holds: state.holds,
    tip: tipSeen(state),
    resting: state.resting,
    paper: state.paper,
    below: surfaceBelow(state),
    boxes: seenBoxes(state),
    heldLengthMm: seenLengthMm(state, state.holds),
    isBurrDressed: state.isBurrDressed,
    isHandUp: state.isHandUp,
    isHandedIn: state.isHandedIn,
    ledger: state.ledger,
    incidents: state.incidents.filter(({ isSilent }) => viewer === "instructor" || !isSilent).map(({ code }) => code),
    evidence: state.evidence,
    gates: gatesOf(state),
  };
  return { ...seen, coach: state.isCoachOn ? coachStep(seen) : null };
}
