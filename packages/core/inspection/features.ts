import type { FeatureReads, FeatureSide } from "../exercises/schools";

/** A feature of a drawing: where it is looked along from, and what is read there. mm; a lathe's X a diameter. */
export interface Feature {
  readonly reads: FeatureReads;
  readonly from: readonly number[];
  readonly toward: FeatureSide;
  /** Of a land: a place in the room on its other side. */
  readonly across?: readonly number[] | undefined;
  readonly nominalMm: number;
  readonly toleranceMm: readonly [number, number];
}

/** How far a ray runs through what was cleared, a true length; null where it never leaves, 0 where nothing is cut. */
export type RunsClear = (from: readonly number[], way: readonly number[]) => number | null;

/** Nearer than this to its own start a ray has left at once: nothing is cut there. */
const NONE_MM = 1e-6;

/**
 * What is read of a feature on a part that was cut: null where nothing is cut there, or no wall is met. `axes` are the
 * letters of a place in their order; a lathe's X is a diameter, its rays are radii.
 */
export function readFeature(
  { reads, from, toward, across }: Feature,
  axes: readonly string[],
  runs: RunsClear,
): number | null {
  const axis = axes.indexOf(toward.charAt(0));
  const start = from[axis] ?? 0;
  const perMm = axes.length === 2 && axis === 0 ? 2 : 1;
  const along = (sign: 1 | -1, place = from): number | null => {
    const clear = runs(
      place,
      axes.map((_, i) => (i === axis ? sign : 0)),
    );
    return clear === null || clear < NONE_MM ? null : clear;
  };
  const sign = toward.charAt(1) === "+" ? 1 : -1;
  const clear = along(sign);
  if (clear === null) return null;
  if (reads === "wall") return start + sign * clear * perMm;
  if (reads === "depth") return -(start + sign * clear * perMm);
  const back = sign === 1 ? -1 : 1;
  const other = along(back, reads === "land" ? across : from);
  if (other === null) return null;
  if (reads === "land") {
    const near = start + sign * clear * perMm;
    return sign * ((across?.[axis] ?? start) + back * other * perMm - near);
  }
  return reads === "width" ? (clear + other) * perMm : start + ((sign * (clear - other)) / 2) * perMm;
}

/**
 * What is read of a feature where the drawing has it, or, where the whole part was cut so far beside its place, there:
 * a feature that stands elsewhere is still one.
 */
export function readWhereItLies(
  feature: Feature,
  axes: readonly string[],
  runs: RunsClear,
  off: readonly number[],
): number | null {
  const moved = (at: readonly number[]): number[] => at.map((mm, axis) => mm + (off[axis] ?? 0));
  const { from, across } = feature;
  return (
    readFeature(feature, axes, runs) ??
    readFeature({ ...feature, from: moved(from), ...(across ? { across: moved(across) } : {}) }, axes, runs)
  );
}

/** Good, or what is to be done with it: metal that is still there can be cut, metal that is gone cannot be put back. */
export type PartVerdict = "good" | "rework" | "scrap" | "notCut";

export function verdictOf({ reads, toward, nominalMm, toleranceMm }: Feature, actualMm: number | null): PartVerdict {
  if (actualMm === null) return "notCut";
  const offMm = actualMm - nominalMm;
  const [low, high] = toleranceMm;
  if (offMm >= low - NONE_MM && offMm <= high + NONE_MM) return "good";
  if (reads === "middle") return "scrap";
  // cut further than it should be, the way that is looked along; what is left of a land, or of a length that is looked
  // at from its far end, is the less for it
  const isUp = toward.charAt(1) === "+";
  const furtherMm = reads === "land" || (reads === "wall" && !isUp) || (reads === "depth" && isUp) ? -offMm : offMm;
  return furtherMm > 0 ? "scrap" : "rework";
}
