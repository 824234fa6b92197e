import { drawBetween, drawNormal } from "../random";

/** An indicator carried round a bore or boss by hand: four readings, pressed in = larger. */
export const SWEEP_RANGE_MM = 0.8;
/** What an eye reads of its dial, mm. */
const READS_TO_MM = 0.001;

/** The dial stands within this of its zero when it is brought round, mm. */
const DIAL_STANDS_MM = 0.35;

/** Nobody has turned the dial to zero: it shows where it happens to stand, and halves of differences tell. */
const dialStandsMm = (seed: string): number => drawBetween(-DIAL_STANDS_MM, DIAL_STANDS_MM, seed, "indicator", "dial");

/** Readings at both ends of a face that stands out by so much at each, mm; null beyond the indicator's range. */
export function readEnds(
  outMm: readonly [number, number],
  seed: string,
  number: number,
): readonly [number, number] | null {
  if (Math.max(...outMm.map(Math.abs)) > SWEEP_RANGE_MM) return null;
  const read = (mm: number, end: number) => {
    const shown = dialStandsMm(seed) + mm + drawNormal(0, 1, seed, "indicator", "end", number, end) / 1000;
    return Math.round(Math.round(shown / READS_TO_MM) * READS_TO_MM * 1000) / 1000 || 0;
  };
  return [read(outMm[0], 0), read(outMm[1], 1)];
}

/**
 * Readings at +X, +Y, −X, −Y for an axis that stands `off` from the feature's axis; null beyond the indicator's range.
 */
export function sweepReadings(
  off: readonly [number, number],
  kind: "bore" | "boss",
  seed: string,
  number: number,
): [number, number, number, number] | null {
  if (Math.hypot(...off) > SWEEP_RANGE_MM) return null;
  const sign = kind === "bore" ? 1 : -1;
  const standsMm = dialStandsMm(seed);
  const read = (mm: number, quarter: number) =>
    Math.round((standsMm + sign * mm + drawNormal(0, 1, seed, "indicator", number, quarter) / 1000) / READS_TO_MM) *
    READS_TO_MM;
  const tidy = (mm: number) => Math.round(mm * 1000) / 1000 || 0;
  return [tidy(read(off[0], 0)), tidy(read(off[1], 1)), tidy(read(-off[0], 2)), tidy(read(-off[1], 3))];
}
