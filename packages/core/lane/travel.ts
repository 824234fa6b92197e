import type { Machine } from "../exercises/schools";
import type { Axis } from "../registers";
import { scales, toCounts, type Counts, type LengthUnit } from "../units";

/** How far the slides of the bench machines go, mm; home is 0. */
const TRAVEL_MM: Record<Axis, [number, number]> = { x: [-500, 0], y: [-350, 0], z: [-420, 0] };
/** A typed value that moves a register further than this asks once more, mm. */
const GUARD_MM = 10;
/** Speeds that the spindles of the bench take, by machine, rev/min. */
export const spindleRanges: Readonly<Record<Machine, { lowestRpm: number; highestRpm: number }>> = {
  mill: { lowestRpm: 50, highestRpm: 8000 },
  turret: { lowestRpm: 50, highestRpm: 4500 },
  readout: { lowestRpm: 45, highestRpm: 2000 },
  gang: { lowestRpm: 200, highestRpm: 8000 },
};

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

/** True when a position lies inside the machine's travel on that axis. */
export function isInTravel(unit: LengthUnit, axis: Axis, counts: number): boolean {
  const [low, high] = travelCounts[unit][axis];
  return counts >= low && counts <= high;
}
