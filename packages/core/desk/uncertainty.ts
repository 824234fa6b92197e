export interface UncertaintyTerm {
  kind: "normal" | "uniform" | "resolution";
  value: number;
  sensitivity?: number;
}

const DIVISOR = { normal: 1, uniform: Math.sqrt(3), resolution: Math.sqrt(12) } as const;

/**
 * u = √Σ(ci·ui)²: normal takes σ as it is, uniform a half-width a as a/√3, resolution a step δ as δ/√12. Expanded U is
 * 2u.
 */
export function standardUncertainty(terms: readonly UncertaintyTerm[]): number {
  return Math.sqrt(
    terms.reduce((sum, { kind, value, sensitivity = 1 }) => sum + ((sensitivity * value) / DIVISOR[kind]) ** 2, 0),
  );
}
