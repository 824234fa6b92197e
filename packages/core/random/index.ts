/**
 * Draws keyed by words: the same seed and keys always give the same number, and no draw shifts another.
 * The result of every draw is stored in an event, so changing this file never changes a lane that exists.
 */

/** A 32-bit hash of a text (FNV-1a, then two avalanche rounds so that near keys fall far apart). */
function hash32(text: string, basis: number): number {
  let h = basis >>> 0;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}

/** Uniform on (0, 1), never 0 or 1. */
export function drawUnit(seed: string, ...keys: (string | number)[]): number {
  const text = `${seed}|${keys.join("|")}`;
  const high = hash32(text, 0x811c9dc5);
  const low = hash32(text, 0x9e3779b9) >>> 11;
  return (high * 2 ** 21 + low + 0.5) / 2 ** 53;
}

/** Uniform between two bounds. */
export const drawBetween = (low: number, high: number, seed: string, ...keys: (string | number)[]): number =>
  low + (high - low) * drawUnit(seed, ...keys);

/** Normal with the stated mean and deviation (Box and Muller's transform of two uniform draws). */
export function drawNormal(mean: number, deviation: number, seed: string, ...keys: (string | number)[]): number {
  const u = drawUnit(seed, ...keys, "u");
  const v = drawUnit(seed, ...keys, "v");
  return mean + deviation * Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * v);
}

/** Normal, drawn again until it is not below zero. */
export function drawNormalNotNegative(
  mean: number,
  deviation: number,
  seed: string,
  ...keys: (string | number)[]
): number {
  for (let turn = 0; turn < 100; turn++) {
    const value = drawNormal(mean, deviation, seed, ...keys, turn);
    if (value >= 0) return value;
  }
  return Math.max(mean, 0);
}

/** One of a list, each as likely as the other. */
export function drawOne<T>(list: readonly [T, ...T[]], seed: string, ...keys: (string | number)[]): T {
  return list[Math.floor(drawUnit(seed, ...keys) * list.length)] ?? list[0];
}
