import { drawNormal, drawUnit } from "../random";

/**
 * Lever taster: a dial with two hands that reads zero when the spindle axis stands over the face, so that no radius is
 * left to count. It must be trued first, and BOTH hands must stand at zero.
 */
export const TASTER_BALL_RADIUS_MM = 2;
/** Travel of one turn of the large hand, mm. */
export const TASTER_TURN_MM = 1;
/** It rests this far before zero (two turns short) and survives this far past it, mm. */
export const TASTER_REST_MM = -2;
export const TASTER_BREAKS_MM = 1.2;
/** What an eye reads of its dial, mm: a fifth of a division of 0.01. */
const READS_TO_MM = 0.002;

/** Own runout until it is trued, mm, with the quarter toward which it leans. */
export const drawTasterRunout = (seed: string): { runoutMm: number; leansTo: number } => ({
  runoutMm: 0.02 + 0.04 * drawUnit(seed, "taster", "runout"),
  leansTo: Math.floor(4 * drawUnit(seed, "taster", "leans")),
});

/** What an approach brings, mm: N(0, 2 µm). */
export const drawTasterApproach = (seed: string, number: number): number =>
  drawNormal(0, 2, seed, "taster", "approach", number) / 1000;

/** Share of the runout along a direction (0 = +X, 1 = +Y, 2 = −X, 3 = −Y) when the spindle is turned by `quarter`. */
export function runoutAlong(runoutMm: number, leansTo: number, quarter: number, direction: number): number {
  const apart = (((leansTo + quarter - direction) % 4) + 4) % 4;
  if (apart === 0) return runoutMm;
  return apart === 2 ? -runoutMm : 0;
}

/**
 * The dial for how far the spindle axis stands past the face, mm (below zero: before it), at the precision of an eye.
 */
export function tasterDial(pastMm: number): number {
  const dial = Math.max(TASTER_REST_MM, pastMm);
  return Math.round(Math.round(dial / READS_TO_MM) * READS_TO_MM * 1000) / 1000;
}
