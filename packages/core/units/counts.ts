/** An integer number of least increments of a machine (metric bench: 1 count = 0.001 mm). */
export type Counts = number;

const COUNTS_PER_MM = 1000;
const MINUS = "\u2212";

/** The nearest whole count, half away from zero; the only place where a length is rounded into a register. */
export function countsFromMm(mm: number): Counts {
  if (!Number.isFinite(mm)) throw new Error(`countsFromMm: length must be finite: ${mm}`);
  // 1e-6 counts absorb the binary error of decimals such as 1.0005
  const counts = Math.sign(mm) * Math.floor(Math.abs(mm) * COUNTS_PER_MM + 0.5 + 1e-6);
  return counts === 0 ? 0 : counts;
}

/** Exact to the display: 12345 counts are 12.345 mm. */
export const mmFromCounts = (counts: Counts): number => counts / COUNTS_PER_MM;

/** Text with three decimals and a true minus sign, trailing zeros kept: -329672 becomes "−329.672". */
export const formatCounts = (counts: Counts): string => formatMm(counts / COUNTS_PER_MM);

/** As `formatCounts`, with "+" before what is above zero. */
export const formatSignedCounts = (counts: Counts): string => (counts > 0 ? "+" : "") + formatCounts(counts);

/** A length in mm to the stated decimals, with a true minus sign and no negative zero. */
export function formatMm(mm: number, decimals = 3): string {
  const text = Math.abs(mm).toFixed(decimals);
  return mm < 0 && Number(text) !== 0 ? MINUS + text : text;
}

/** A length in whole micrometres with its sign: 0.0061 mm becomes "+6". */
export function formatUm(mm: number): string {
  const um = Math.round(mm * 1000);
  if (um === 0) return "0";
  return um > 0 ? `+${um}` : MINUS + String(-um);
}
