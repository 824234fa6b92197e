/** What machines offer to a student's desk, for server and browser alike; what they do is `bench`'s. */
import type { Machine } from "../exercises/schools";
import { latheOffers } from "./lathe/offers";
import { millOffers } from "./mill/offers";
import type { Offers } from "./offers";

export type { Offers, Standing } from "./offers";
export { setterMasters, setterOf } from "./mill/acts/calibration/names";
export { probeNeeds } from "./mill/acts/probe/needs";

const offers = { mill: millOffers, ...latheOffers } satisfies Record<Machine, unknown>;

/** What the machine of a sheet offers. */
export const offersOf = (kind: Machine): Offers => offers[kind];
