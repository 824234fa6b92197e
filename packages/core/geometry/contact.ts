/** A point in mm, in the machine frame unless said otherwise. */
export interface PointMm { readonly x: number; readonly y: number; readonly z: number }

/** An axis-parallel box: a stock, a jaw, the table. */
export interface BoxMm { readonly low: PointMm; readonly high: PointMm }

/** A cylinder about the spindle axis, its ends given as heights above the tip. */
export interface UprightCylinder { readonly radiusMm: number; readonly fromMm: number; readonly toMm: number }

/** Distance of (x, y) from the box seen from above; negative inside (distance to the nearest side). */
export function signedGapMm(x: number, y: number, box: BoxMm): number {
  const dx = Math.max(box.low.x - x, x - box.high.x);
  const dy = Math.max(box.low.y - y, y - box.high.y);
  return dx > 0 && dy > 0 ? Math.hypot(dx, dy) : Math.max(dx, dy);
}

/** The part [0, 1] of a move in which a linear value lies below `limit`, or null. */
function spanBelow(from: number, to: number, limit: number): [number, number] | null {
  const change = to - from;
  if (Math.abs(change) < 1e-12) return from < limit ? [0, 1] : null;
  const crossing = (limit - from) / change;
  return clip(change < 0 ? [crossing, 1] : [0, crossing]);
}

function clip([start, end]: [number, number]): [number, number] | null {
  const low = Math.max(0, start);
  const high = Math.min(1, end);
  return low < high ? [low, high] : null;
}

const BISECTIONS = 50;

/** The part of a move during which the circle overlaps the box seen from above: the gap is convex along a line, so it is one span. */
function spanOverlapping(from: PointMm, to: PointMm, radiusMm: number, box: BoxMm): [number, number] | null {
  const gap = (t: number) => signedGapMm(from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t, box) - radiusMm;
  let left = 0;
  let right = 1;
  for (let i = 0; i < BISECTIONS * 2; i++) {
    const a = left + (right - left) / 3;
    const b = right - (right - left) / 3;
    if (gap(a) <= gap(b)) right = b;
    else left = a;
  }
  const lowest = (left + right) / 2;
  if (gap(lowest) >= 0) return null;
  const cross = (outside: number): number => {
    if (gap(outside) < 0) return outside;
    let a = outside;
    let b = lowest;
    for (let i = 0; i < BISECTIONS; i++) {
      const middle = (a + b) / 2;
      if (gap(middle) < 0) b = middle;
      else a = middle;
    }
    return (a + b) / 2;
  };
  return [cross(0), cross(1)];
}

/**
 * How far along a straight move of the tip (0 start, 1 end) the cylinder first enters the box; null when it stays out.
 * Touching without entering is not contact.
 */
export function firstContact(from: PointMm, to: PointMm, cylinder: UprightCylinder, box: BoxMm): number | null {
  const below = spanBelow(from.z + cylinder.fromMm, to.z + cylinder.fromMm, box.high.z);
  const above = spanBelow(-(from.z + cylinder.toMm), -(to.z + cylinder.toMm), -box.low.z);
  if (!below || !above) return null;
  const isOutside =
    Math.min(from.x, to.x) - cylinder.radiusMm >= box.high.x || Math.max(from.x, to.x) + cylinder.radiusMm <= box.low.x ||
    Math.min(from.y, to.y) - cylinder.radiusMm >= box.high.y || Math.max(from.y, to.y) + cylinder.radiusMm <= box.low.y;
  if (isOutside) return null;
  const beside = spanOverlapping(from, to, cylinder.radiusMm, box);
  if (!beside) return null;
  const start = Math.max(below[0], above[0], beside[0]);
  const end = Math.min(below[1], above[1], beside[1]);
  return start < end ? start : null;
}
