import { drawBetween } from "../random";

/** What an eye tells apart, mm, and of angles, degrees. */
const EYE_STEP_MM = 0.5;

/**
 * A hidden length at the precision of an eye: on a grid that is shifted once for the lane, so that nothing averages
 * out.
 */
export const seen = (mm: number, offsetMm: number): number =>
  Math.round((Math.round((mm - offsetMm) / EYE_STEP_MM) * EYE_STEP_MM + offsetMm) * 1000) / 1000;

const shifts = new WeakMap<object, Map<string, number>>();

/**
 * The secret shift of the grid on which an eye judges one hidden quantity of a lane, mm. Every independent quantity has
 * its own, so that where one flips tells nothing of another, nor of itself.
 */
export function eyeShiftMm(truth: { readonly seed: string }, ...keys: readonly (string | number)[]): number {
  const known = shifts.get(truth) ?? new Map<string, number>();
  shifts.set(truth, known);
  const key = keys.join(" ");
  const shift = known.get(key) ?? drawBetween(0, EYE_STEP_MM, truth.seed, "eye", ...keys);
  known.set(key, shift);
  return shift;
}

/** A hidden length at the precision of an eye, on its own grid. */
export const seenAs = (mm: number, truth: { readonly seed: string }, ...keys: readonly (string | number)[]): number =>
  seen(mm, eyeShiftMm(truth, ...keys));
