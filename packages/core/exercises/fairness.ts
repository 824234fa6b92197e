import { standardUncertainty } from "../desk/uncertainty";
import { countsFromMm } from "../units";
import type { Exercise, Marking } from "./schema";

export interface MethodBias { biasMm: number; uMm: number }
export interface FairnessWarning { axis: "x" | "y" | "z"; toleranceMm: number; leastFairMm: number }

/** The finest click, mm: a contact is found late by half of it on average. */
const FINEST_CLICK_MM = 0.001;

/** Edge finder: b = s(κ̄ + δ/2), own kick σ 2 µm and approach σ 0.7 µm. Paper: felt at 0.85–1.00 of t, b = −(0.075 t + δ/2), sheet σ 3 µm. */
export function methodBias(
  setup: { paperMm: number; edges: { x: { approach: 1 | -1 }; y: { approach: 1 | -1 } } }, axis: "x" | "y" | "z",
): MethodBias {
  const step = { kind: "resolution" as const, value: FINEST_CLICK_MM };
  if (axis === "z") {
    return {
      biasMm: -(0.075 * setup.paperMm + FINEST_CLICK_MM / 2),
      uMm: standardUncertainty([{ kind: "normal", value: 0.003 }, { kind: "uniform", value: 0.075 * setup.paperMm }, step]),
    };
  }
  return {
    biasMm: setup.edges[axis].approach * (0.005 + FINEST_CLICK_MM / 2),
    uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, { kind: "normal", value: 0.0007 }, step]),
  };
}

/** Where a tolerance is narrower than the method can hold, |b| + 3u, for the thickest paper the exercise may draw; empty when it is fair. */
export function fairness(exercise: Exercise, marking: Marking): FairnessWarning[] {
  const worst = { paperMm: Math.max(...exercise.paperMm), edges: exercise.edges };
  return (["x", "y", "z"] as const).flatMap((axis) => {
    const { biasMm, uMm } = methodBias(worst, axis);
    const leastFairMm = countsFromMm(Math.abs(biasMm) + 3 * uMm) / 1000;
    const toleranceMm = marking.tolerancesMm[axis];
    return toleranceMm < leastFairMm ? [{ axis, toleranceMm, leastFairMm }] : [];
  });
}
