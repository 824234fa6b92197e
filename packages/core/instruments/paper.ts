/** A sheet of paper or a feeler between a standing tool and a surface; felt by the fingers, spindle stopped. */
export const feelNames = ["slides", "drags", "held", "pinched", "torn"] as const;
export type Feel = (typeof feelNames)[number];

/**
 * What the fingers tell from gap over thickness: over 1 slides, over the last third drags, more and more; below it is
 * held tighter and tighter, at 0 torn.
 */
export function feelAt(gapMm: number, sheetMm: number): Feel {
  const ratio = gapMm / sheetMm;
  if (ratio > 1) return "slides";
  if (ratio > 0.7) return "drags";
  if (ratio > 0.4) return "held";
  return ratio > 0 ? "pinched" : "torn";
}
