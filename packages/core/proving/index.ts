/** A program run on a machine as it really is: the first contact that must not happen, and where. */
export { MOST_MOVES, TooManyMoves, type Contact, type ContactKind } from "./contact";
export { latheOffset, LatheProof, proveLathe, type LatheRegisters, type LatheWorld, type TurningTool } from "./lathe";
export {
  millOffset,
  MillProof,
  proveMill,
  type MetOnPath,
  UnknownRegister,
  UnknownTool,
  type MillRegisters,
  type MillWorld,
} from "./mill";
export { type MillTool } from "./millTool";
export { latheWays, millWays, type Stretch, type Way, type WayStep } from "./ways";
export { type HalfPlace } from "./latheStock";
export { undersideOf } from "./millTool";
export { toldWrites, type FollowOptions, type Write } from "./run";
