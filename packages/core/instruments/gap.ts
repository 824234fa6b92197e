import { drawNormal } from "../random";

/**
 * Things that go between a standing tool and a surface: paper and feelers are felt, blocks and pins go or do not go.
 */
export const gapKinds = ["paper", "feeler", "block", "pin"] as const;
export type GapKind = (typeof gapKinds)[number];

/** Dirt under a block that was not wiped, mm. */
export const DIRT_MM = { low: 0.01, high: 0.03 } as const;
const BLOCK_DEVIATION_MM = 0.0005;

/** True thickness: paper and feelers N(t, 3 µm), blocks and pins N(t, 0.5 µm); own to the lane. */
export const drawThicknessMm = (kind: GapKind, nominalMm: number, seed: string, id: string): number =>
  kind === "paper" || kind === "feeler"
    ? Math.max(nominalMm / 2, drawNormal(nominalMm, 0.003, seed, id))
    : drawNormal(nominalMm, BLOCK_DEVIATION_MM, seed, id);

export const isFelt = (kind: GapKind): boolean => kind === "paper" || kind === "feeler";

/** What one try of a block brings, mm: N(0, 1 µm). */
export const drawTry = (seed: string, number: number): number => drawNormal(0, 1, seed, "block", "try", number) / 1000;
/** A block goes when the gap, as it is now, is not less than it. */
export const goesUnder = (gapMm: number, thicknessMm: number, tryErrorMm: number, dirtMm: number): boolean =>
  gapMm >= thicknessMm + dirtMm + tryErrorMm;
