import { drawNormal, drawBetween } from "../random";

/** Beam setter: searches from above without knowing the length, and measures at working speed. */
export const drawBeamApproach = (seed: string, number: number): number =>
  drawNormal(0, 1, seed, "beam setter", number) / 1000;
/** Length that a chip or a drop on the tip adds until it is blown off, mm. */
export const drawChip = (seed: string, thing: string): number =>
  Math.round(drawBetween(0.03, 0.09, seed, "chip on", thing) * 1e4) / 1e4;
