import { Wrong } from "./diagnostics";
import { type Plane } from "./moves";

const RADIUS_TOLERANCE_MM = 0.005;
const ENDS_TOLERANCE_MM = 0.01;

/** The two axes of a plane, as places in X Y Z, so that the first turned to the second is counter-clockwise. */
export const planeAxes: Record<Plane, readonly [number, number]> = { 17: [0, 1], 18: [2, 0], 19: [1, 2] };

export interface ArcWords {
  /** From the start to the center along the first and the second axis; null where not written. */
  readonly steps: readonly [number | null, number | null];
  readonly radius: number | null;
}

/**
 * Center of an arc from `start` to `end` in its plane (first, second axis; radii, not diameters). R above 0 takes up to
 * half a turn, below 0 the rest. `unitMm` is the length of one unit, mm. Throws `Wrong`: `arc-without-center`,
 * `arc-radius` (too small for its ends by over 0.005 mm, or ends that are one place), `arc-ends-differ` (radii at the
 * two ends differ by over 0.01 mm).
 */
export function arcCenter(
  start: readonly [number, number],
  end: readonly [number, number],
  words: ArcWords,
  isClockwise: boolean,
  unitMm: number,
): [number, number] {
  const { radius, steps } = words;
  const [du, dv] = [end[0] - start[0], end[1] - start[1]];
  if (radius !== null) {
    const chord = Math.hypot(du, dv);
    if (chord * unitMm < 1e-9) throw new Wrong("arc-radius");
    const half = chord / 2;
    if ((half - Math.abs(radius)) * unitMm > RADIUS_TOLERANCE_MM) throw new Wrong("arc-radius");
    const off = Math.sqrt(Math.max(0, radius * radius - half * half));
    // counter-clockwise and short: the center lies to the left of the way from start to end
    const side = isClockwise === radius < 0 ? 1 : -1;
    return [start[0] + du / 2 - (side * off * dv) / chord, start[1] + dv / 2 + (side * off * du) / chord];
  }
  if (steps[0] === null && steps[1] === null) throw new Wrong("arc-without-center");
  const center: [number, number] = [start[0] + (steps[0] ?? 0), start[1] + (steps[1] ?? 0)];
  const atStart = Math.hypot(start[0] - center[0], start[1] - center[1]);
  const atEnd = Math.hypot(end[0] - center[0], end[1] - center[1]);
  if (Math.abs(atStart - atEnd) * unitMm > ENDS_TOLERANCE_MM) throw new Wrong("arc-ends-differ");
  return center;
}

/** How far an arc turns from start to end about its center, radians, above 0; a whole turn where the ends are one. */
export function arcTurn(
  start: readonly [number, number],
  end: readonly [number, number],
  center: readonly [number, number],
  isClockwise: boolean,
): number {
  const isWhole = Math.hypot(end[0] - start[0], end[1] - start[1]) < 1e-9;
  if (isWhole) return 2 * Math.PI;
  const from = Math.atan2(start[1] - center[1], start[0] - center[0]);
  const to = Math.atan2(end[1] - center[1], end[0] - center[0]);
  const turn = isClockwise ? from - to : to - from;
  return turn <= 0 ? turn + 2 * Math.PI : turn;
}
