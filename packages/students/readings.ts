import type { Reading } from "@probe-lane/core/lane";
import type { Bench } from "./bench";

/** What an instrument showed last. */
export const lastReading = (lane: Bench): Reading => {
  const reading = lane.seen.readings.at(-1);
  if (!reading) throw new Error("lastReading: no instrument has shown anything");
  return reading;
};
