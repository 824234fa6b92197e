/**
 * The simulated bench: decide(state, command) → events | refusal; evolve(state, event) → state; observe(state) → what a
 * student may see. A lane is its log: `replay(events)`. Reading order: commands, events, state, decide, observe, gates,
 * coach; then `sensing/` (what each step by hand is felt as), `cycles/` (what moves by itself), `hands` and
 * `measuring`.
 */
export {
  checkNames,
  commandSchema,
  jogClicks,
  jogMm,
  jogSizeNames,
  sides,
  termNames,
  type CheckName,
  type Command,
  type CommandOf,
  type JogSize,
  type Measurable,
  type Side,
  type TermName,
} from "./commands";
export { eventSchema, upgradeEvent, type IncidentCode, type LaneEvent } from "./events";
export { evolve, foldFrom, replay, type LaneState, type LedgerLine, type Reading } from "./state";
export { decide, openLane } from "./decide";
export type { Refusal } from "./refusals";
export { nowOf, observe, type Observation, type ObservationNow, type TipSeen } from "./observe";
export { gatesOf, type Gate, type GateKind } from "./gates";
export { type CoachStep } from "./coach";
export { seenScene } from "./eye";
export { probeNeeds } from "./cycles/probe";
export { bench } from "./machine";
export { hasRegister } from "./machineRegisters";
