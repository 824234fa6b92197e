import { countsFromMm } from "../units";
import type { FairnessWarning, Weigh } from "./bias";
import { latheFairness } from "./machines/latheFairness";
import { millFairness } from "./machines/millFairness";
import { machineOf, type Exercise, type Marking } from "./schema";

/**
 * Where a tolerance is narrower than a method it allows can hold, |b| + 3u, at its thickest paper; empty when it is
 * fair.
 */
export function fairness(exercise: Exercise, marking: Marking): FairnessWarning[] {
  const warnings: FairnessWarning[] = [];
  const weigh: Weigh = (axis, method, { biasMm, uMm }) => {
    const toleranceMm = marking.tolerancesMm[axis];
    const leastFairMm = countsFromMm(Math.abs(biasMm) + 3 * uMm) / 1000;
    if (toleranceMm < leastFairMm) warnings.push({ axis, method, toleranceMm, leastFairMm });
  };
  if (machineOf(exercise) === "mill") millFairness(exercise, weigh);
  else latheFairness(exercise, weigh);
  return warnings;
}
