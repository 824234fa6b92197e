/** What machines offer to a student's desk, for server and browser alike; what they do is `bench`'s. */
import type { Machine } from "../exercises/schools";
import type { CoachMark } from "../lane/coach";
import type { Gate } from "../lane/gates";
export { CHUCK_MM } from "./lathe/chuckBody";
import { latheMarks } from "./lathe/marks";
import { latheOffers } from "./lathe/offers";
import { millMarks } from "./mill/marks";
import { millOffers } from "./mill/offers";
import type { MillSeen } from "./mill/observe";
import type { TurningSeen } from "./lathe/observe";
import type { Offers } from "./offers";

export type { Offers, Standing } from "./offers";
export { setterMasters, setterOf } from "./mill/acts/calibration/names";
export { probeNeeds } from "./mill/acts/probe/needs";

const offers = { mill: millOffers, ...latheOffers } satisfies Record<Machine, unknown>;

/** What the machine of a sheet offers. */
export const offersOf = (kind: Machine): Offers => offers[kind];

/** The parts of a gate, each with whether the log has it; empty where a gate is one thing. */
export const marksOf = (seen: MillSeen | TurningSeen, gate: Gate): CoachMark[] =>
  seen.kind === "mill" ? millMarks(seen, gate) : latheMarks(seen, gate);
