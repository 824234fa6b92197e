import type { Machine } from "../exercises/schools";
import type { Kit } from "./kit";
import { latheKits } from "./lathe/kit";
import type { TurningLane } from "./lathe/lane";
import type { TurningSeen } from "./lathe/observe";
import { millKit } from "./mill/kit";
import type { MillLane } from "./mill/lane";
import type { MillSeen } from "./mill/observe";

/** Everything a lane has come to: a union on the kind of its machine. */
export type LaneState = MillLane | TurningLane;

/**
 * Everything that leaves the server about a lane before hand-in. Places are at the precision of an eye; instruments
 * read what they read.
 */
export type Observation = MillSeen | TurningSeen;

const kits = { mill: millKit, ...latheKits } satisfies Record<Machine, unknown>;

/** The kit of a lane's machine. A state goes only to the kit of its own kind, so one cast says so here for all. */
export const kitFor = (kind: Machine): Kit<LaneState, Observation> =>
  kits[kind] as unknown as Kit<LaneState, Observation>;
