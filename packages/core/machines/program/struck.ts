import type { ContactKind } from "../../proving";
import type { incidents } from "./schema";

/** What a contact of a run is as an incident: what holds the part, the block, a spindle that does not turn, an end. */
export const struckAs: Readonly<Record<ContactKind, keyof typeof incidents>> = {
  "past-travel": "ranPastTravel",
  "tool-in-fixture": "ranIntoFixture",
  "holder-in-fixture": "ranIntoFixture",
  "tool-in-chuck": "ranIntoFixture",
  "rapid-in-stock": "ranIntoStock",
  "shank-in-stock": "ranIntoStock",
  "holder-in-stock": "ranIntoStock",
  "fed-with-spindle-stopped": "ranStill",
  "wrong-direction": "ranStill",
};
