/**
 * The simulated bench: decide(state, command) → events | refusal; evolve(state, event) → state; observe(state) → what a
 * student may see. A lane is its log: `replay(events)`. Reading order: commands, events, state, decide, observe, gates, coach.
 */
export { commandSchema, jogSizesMm, jogSizeNames, sides, termNames, type Command, type JogSize, type Side, type TermName } from "./commands";
export { eventSchema, upgradeEvent, type IncidentCode, type LaneEvent } from "./events";
export { evolve, foldFrom, replay, type LaneState, type LedgerLine } from "./state";
export { decide, openLane } from "./decide";
export type { Refusal } from "./refusals";
export { nowOf, observe, type Observation, type ObservationNow } from "./observe";
export { gateNames, gatesOf, type Gate, type GateName } from "./gates";
export { type CoachStep } from "./coach";
export { bench } from "./machine";
