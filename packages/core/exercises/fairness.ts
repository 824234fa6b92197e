import { countsFromMm } from "../units";
import type { FairnessWarning, Weigh } from "./bias";
import { latheFairness } from "./machines/latheFairness";
import { millFairness } from "./machines/millFairness";
import { machineOf, type Exercise, type Marking } from "./schema";

/** A mistake that would go unseen: what it leaves lies inside the tolerance. mm. */
export interface HiddenMistake {
  readonly id: "feelerOnce" | "paperForgotten";
  readonly axis: "x" | "z";
  readonly leavesMm: number;
  readonly toleranceMm: number;
}

/**
 * Papers so thin that counting one wrongly hides inside the tolerance: on a lathe's X the one of two that is left out,
 * in Z and on a mill the whole. Empty when every such mistake shows.
 */
export function hiddenMistakes(exercise: Exercise, { tolerancesMm }: Marking): HiddenMistake[] {
  const { instruments, paperMm, lathe, targets, touching } = exercise;
  // where it need not be counted, leaving it out is no mistake that could hide
  if (!instruments.includes("paper") || touching.paper !== "counted") return [];
  const leavesMm = Math.min(...paperMm);
  const isX = lathe !== undefined && lathe.targets.x.length > 1;
  const isZ = lathe === undefined && targets.lengths.length > 0;
  return [
    ...(isX && leavesMm <= tolerancesMm.x
      ? [{ id: "feelerOnce" as const, axis: "x" as const, leavesMm, toleranceMm: tolerancesMm.x }]
      : []),
    ...(isZ && leavesMm <= tolerancesMm.z
      ? [{ id: "paperForgotten" as const, axis: "z" as const, leavesMm, toleranceMm: tolerancesMm.z }]
      : []),
  ];
}

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
