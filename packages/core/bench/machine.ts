import type { Axis } from "../registers";
import { scales, toCounts, type Counts, type LengthUnit } from "../units";

const TRAVEL_MM: Record<Axis, [number, number]> = { x: [-500, 0], y: [-350, 0], z: [-420, 0] };
/** A typed value that moves a register further than this asks once more, mm. */
const GUARD_MM = 10;

/** The bench mill: travel (home is 0, everything below is negative), speeds, and its settings. */
export const bench = {
  highestRpm: 8000,
  lowestRpm: 50,
  /** The spindle will not run faster than this while the door is open. */
  doorLimitRpm: 700,
} as const;

const travelOf = (unit: LengthUnit): Record<Axis, [Counts, Counts]> => {
  const span = (axis: Axis): [Counts, Counts] => [
    toCounts(TRAVEL_MM[axis][0], scales[unit]),
    toCounts(TRAVEL_MM[axis][1], scales[unit]),
  ];
  return { x: span("x"), y: span("y"), z: span("z") };
};

/** Travel in the machine's counts. */
export const travelCounts: Readonly<Record<LengthUnit, Record<Axis, [Counts, Counts]>>> = {
  mm: travelOf("mm"),
  inch: travelOf("inch"),
};
export const guardCounts: Readonly<Record<LengthUnit, Counts>> = {
  mm: toCounts(GUARD_MM, scales.mm),
  inch: toCounts(GUARD_MM, scales.inch),
};
