/** A point in mm, in the machine frame unless said otherwise. */
export interface PointMm {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** An axis-parallel box: what is drawn of a stock, a jaw, the table. */
export interface BoxMm {
  readonly low: PointMm;
  readonly high: PointMm;
}

/** A cylinder about the spindle axis, its ends given as heights above the tip. */
export interface UprightCylinder {
  readonly radiusMm: number;
  readonly fromMm: number;
  readonly toMm: number;
}

/** Distance of (x, y) from the box seen from above; negative inside (distance to the nearest side). */
export function signedGapMm(x: number, y: number, box: BoxMm): number {
  const dx = Math.max(box.low.x - x, x - box.high.x);
  const dy = Math.max(box.low.y - y, y - box.high.y);
  return dx > 0 && dy > 0 ? Math.hypot(dx, dy) : Math.max(dx, dy);
}
