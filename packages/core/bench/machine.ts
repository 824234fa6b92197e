import type { Counts } from "../units";
import type { Axis } from "../registers";

/** The bench mill: travel in counts (home is 0, everything below is negative), speeds, and its settings. */
export const bench = {
  travelCounts: { x: [-500_000, 0], y: [-350_000, 0], z: [-420_000, 0] } satisfies Record<Axis, [Counts, Counts]>,
  highestRpm: 8000,
  lowestRpm: 50,
  /** The spindle will not run faster than this while the door is open. */
  doorLimitRpm: 700,
  /** A typed value that moves a register further than this asks once more. */
  guardCounts: 10_000,
} as const;
