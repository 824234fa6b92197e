/**
 * The simulated bench: decide(state, command) → events | refusal; evolve(state, event) → state; observe(state) → what a
 * student may see. A lane is its log: `replay(events)`. What every lane has stands in `lane/`, what a machine has in
 * `machines/`; here a lane goes to the kit of its machine.
 */
export { commandSchema, type Command, type CommandOf } from "../machines/commands";
export {
  eventSchema,
  incidentCosts,
  upgradeEvent,
  type EventOf,
  type IncidentCode,
  type LaneEvent,
} from "../machines/events";
export type { LaneState, Observation } from "../machines/kits";
export type { MillLane } from "../machines/mill/lane";
export type { MillSeen, TipSeen } from "../machines/mill/observe";
export type { TurnedFace } from "../machines/lathe/faces";
export type { TurningLane } from "../machines/lathe/lane";
export type { LatheSeen, TurningSeen } from "../machines/lathe/observe";
export { evolve, foldFrom, replay } from "./fold";
export { correctedParts, type Corrected } from "./corrected";
export { decide, openLane } from "./decide";
export { firstPart, type FeatureCut } from "../machines/firstPart";
export { cutsOf } from "../machines/program/parts";
export { partPicture, partsCut, stillCut, type PartCut, type PartPicture } from "../machines/parts";
export { provableIn, proveProgram, type ProgramProof } from "../machines/proving";
export { drawnOf, gatesOf, nowOf, observe, type ObservationNow } from "./observe";
