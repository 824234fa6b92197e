import { drawNormal } from "../random";

/**
 * Height gauge with a lamp: stands on a surface; the lamp lights when what comes down presses its plunger to the stated
 * height.
 */
export const LAMP_GAUGE_RADIUS_MM = 20;
/** How far below its height the plunger gives way before the gauge is damaged, mm. */
export const LAMP_GAUGE_TRAVEL_MM = 2;
/** What an approach brings, mm: N(0, 1 µm). */
export const drawLampApproach = (seed: string, number: number): number =>
  drawNormal(0, 1, seed, "lamp gauge", number) / 1000;
