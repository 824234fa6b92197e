import { drawNormal } from "../random";

/** A sheet of paper between a standing tool and a surface; felt by the fingers, spindle stopped. */
export const feelNames = ["slides", "drags", "held", "pinched", "torn"] as const;
export type Feel = (typeof feelNames)[number];

const SHEET_DEVIATION_MM = 0.003;

/** True thickness of the lane's sheet: N(t, 3 µm), fixed for the lane. */
export const drawSheetMm = (nominalMm: number, seed: string): number =>
  Math.max(nominalMm / 2, drawNormal(nominalMm, SHEET_DEVIATION_MM, seed, "paper"));

/** What the fingers tell from gap over thickness: over 1 slides, to 0.92 drags, below it is held tighter and tighter, at 0 torn. */
export function feelAt(gapMm: number, sheetMm: number): Feel {
  const ratio = gapMm / sheetMm;
  if (ratio > 1) return "slides";
  if (ratio > 0.92) return "drags";
  if (ratio > 0.6) return "held";
  return ratio > 0 ? "pinched" : "torn";
}
