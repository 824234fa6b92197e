import { drawBetween, drawNormal } from "../random";

/** Caliper, micrometer and rule: what each tells of a length that hands can reach. */
export const handMeasures = ["caliper", "micrometer", "rule"] as const;
export type HandMeasure = (typeof handMeasures)[number];

const READS_TO_MM: Record<HandMeasure, number> = { caliper: 0.01, micrometer: 0.001, rule: 0.5 };
/** Standard deviation of one reading, mm. */
const DEVIATION_MM: Record<HandMeasure, number> = { caliper: 0.012, micrometer: 0.002, rule: 0.2 };

/**
 * One reading. What caliper and rule miss by is the same for one thing however often it is read, so that nothing
 * averages out; a micrometer is set anew each time.
 */
export function readByHand(trueMm: number, by: HandMeasure, seed: string, what: string, number: number): number {
  const raw = trueMm + drawNormal(0, DEVIATION_MM[by], seed, by, by === "micrometer" ? number : what);
  return Math.round(Math.round(raw / READS_TO_MM[by]) * READS_TO_MM[by] * 1e4) / 1e4;
}

/**
 * Presetter beside the machine: length from the gauge line and diameter, N(0, 2 µm), and what the holder's seat adds
 * each time.
 */
export const readPresetter = (trueMm: number, seed: string, number: number): number =>
  Math.round((trueMm + drawNormal(0, 0.002, seed, "presetter", number)) * 1000) / 1000;
/** Dirt between taper and spindle, mm, until it is wiped. */
export const drawTaperDirt = (seed: string): number =>
  Math.round(drawBetween(0.025, 0.06, seed, "taper dirt") * 1e4) / 1e4;
