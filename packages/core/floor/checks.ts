/** One reading of the instructor's, with its standard uncertainty, mm. */
export interface CheckReading {
  readonly id: string;
  readonly mm: number;
  readonly uMm: number;
}
export interface Combined {
  /** Weighted by 1/u². */
  readonly mm: number;
  /** Expanded uncertainty of it, 2u; widened when the readings scatter more than they say. */
  readonly expandedMm: number;
  /** Readings that stand off from the others by more than three of their deviations. */
  readonly outliers: readonly string[];
}

const OUTLIER_DEVIATIONS = 3;

function weighted(readings: readonly CheckReading[]): { mm: number; uMm: number } {
  const weight = readings.reduce((sum, { uMm }) => sum + 1 / uMm ** 2, 0);
  return { mm: readings.reduce((sum, { mm, uMm }) => sum + mm / uMm ** 2, 0) / weight, uMm: Math.sqrt(1 / weight) };
}

/**
 * The truth of a floor lane: check readings combined by weight. Null without readings. An outlier is pointed out, not
 * left out.
 */
export function combineChecks(readings: readonly CheckReading[]): Combined | null {
  if (readings.length === 0) return null;
  const { mm, uMm } = weighted(readings);
  const chi =
    readings.length > 1
      ? readings.reduce((sum, one) => sum + ((one.mm - mm) / one.uMm) ** 2, 0) / (readings.length - 1)
      : 0;
  return { mm, expandedMm: 2 * uMm * Math.sqrt(Math.max(1, chi)), outliers: outliersOf(readings) };
}

/** The worst reading first, against what is left of the others, until the rest agree; of two that disagree, both. */
function outliersOf(readings: readonly CheckReading[]): string[] {
  if (readings.length < 2) return [];
  const worst = readings
    .map((one) => {
      const rest = weighted(readings.filter((other) => other !== one));
      return { one, deviations: Math.abs(one.mm - rest.mm) / Math.hypot(one.uMm, rest.uMm) };
    })
    .sort((a, b) => b.deviations - a.deviations)[0];
  if (!worst || worst.deviations <= OUTLIER_DEVIATIONS) return [];
  return readings.length === 2
    ? readings.map(({ id }) => id)
    : [worst.one.id, ...outliersOf(readings.filter((one) => one !== worst.one))];
}
