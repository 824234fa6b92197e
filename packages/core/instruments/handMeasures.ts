import { drawBetween, drawNormal } from "../random";

/** Caliper, micrometer and rule: what each tells of a length that hands can reach. */
export const handMeasures = ["caliper", "micrometer", "rule"] as const;
export type HandMeasure = (typeof handMeasures)[number];

const READS_TO_MM: Record<HandMeasure, number> = { caliper: 0.01, micrometer: 0.001, rule: 0.5 };
/** Standard deviation of one reading, mm. */
const DEVIATION_MM: Record<HandMeasure, number> = { caliper: 0.012, micrometer: 0.002, rule: 0.2 };

/**
 * One reading. What an instrument misses by is the same for one thing at one place however often it is read, so that
 * nothing averages out. `what` names thing and place by the lane, never by what a client sent.
 */
export function readByHand(trueMm: number, by: HandMeasure, seed: string, what: string): number {
  const raw = trueMm + drawNormal(0, DEVIATION_MM[by], seed, by, what);
  return Math.round(Math.round(raw / READS_TO_MM[by]) * READS_TO_MM[by] * 1e4) / 1e4;
}

/** Presetter beside the machine: length from the gauge line and diameter, N(0, 2 µm) for each tool and figure. */
export const readPresetter = (trueMm: number, seed: string, what: string): number =>
  Math.round((trueMm + drawNormal(0, 0.002, seed, "presetter", what)) * 1000) / 1000;
/** Dirt between taper and spindle, mm, until it is wiped. */
export const drawTaperDirt = (seed: string): number =>
  Math.round(drawBetween(0.025, 0.06, seed, "taper dirt") * 1e4) / 1e4;
