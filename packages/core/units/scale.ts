import type { Counts } from "./counts";
import { formatMm } from "./counts";

export type LengthUnit = "mm" | "inch";

/** What one least increment of a machine is, and how its figures are shown. */
export interface Scale {
  readonly unit: LengthUnit;
  readonly countMm: number;
  readonly countsPerUnit: number;
  readonly decimals: number;
}

/** Metric machine: 1 count = 0.001 mm. Inch machine: 1 count = 0.0001 in. */
export const scales: Readonly<Record<LengthUnit, Scale>> = {
  mm: { unit: "mm", countMm: 0.001, countsPerUnit: 1000, decimals: 3 },
  inch: { unit: "inch", countMm: 0.00254, countsPerUnit: 10_000, decimals: 4 },
};

const MM_PER_INCH = 25.4;
export const mmPerUnit = ({ unit }: Scale): number => (unit === "mm" ? 1 : MM_PER_INCH);

/** The nearest whole count of this machine, half away from zero. */
export function toCounts(mm: number, scale: Scale): Counts {
  if (!Number.isFinite(mm)) throw new Error(`toCounts: length must be finite: ${mm}`);
  const counts = Math.sign(mm) * Math.floor((Math.abs(mm) / mmPerUnit(scale)) * scale.countsPerUnit + 0.5 + 1e-6);
  return counts === 0 ? 0 : counts;
}

export const toMm = (counts: Counts, scale: Scale): number => (counts / scale.countsPerUnit) * mmPerUnit(scale);

/** A machine figure in the machine's own unit: −329.672 mm, or −12.9792 in. */
export const showCounts = (counts: Counts, scale: Scale): string =>
  formatMm(counts / scale.countsPerUnit, scale.decimals);
export const showSignedCounts = (counts: Counts, scale: Scale): string =>
  (counts > 0 ? "+" : "") + showCounts(counts, scale);
/** A length in mm as the machine would show it. */
export const showLength = (mm: number, scale: Scale, decimals = scale.decimals): string =>
  formatMm(mm / mmPerUnit(scale), decimals);
