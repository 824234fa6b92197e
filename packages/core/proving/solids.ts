/** Upright cylinders, boxes, and straight ways: when the one first meets the other. mm, part frame, z up. */
export type Triple = readonly [number, number, number];

export interface Box {
  readonly min: Triple;
  readonly max: Triple;
}

/** A straight way of a tool's tip, from share 0 to share 1. */
export interface Way {
  readonly from: Triple;
  readonly to: Triple;
}

/** A cylinder that stands over the tip of a tool: from `low` to `high` above it. */
export interface Cylinder {
  readonly radius: number;
  readonly low: number;
  readonly high: number;
}

/** Shares of a way, from first to last; null where there are none. */
export type Shares = readonly [number, number] | null;

export const placeOn = ({ from, to }: Way, share: number): Triple => [
  from[0] + (to[0] - from[0]) * share,
  from[1] + (to[1] - from[1]) * share,
  from[2] + (to[2] - from[2]) * share,
];

/** Shares that lie in both stretches. */
export const both = (a: Shares, b: Shares): Shares => {
  if (!a || !b) return null;
  const [from, to] = [Math.max(a[0], b[0]), Math.min(a[1], b[1])];
  return from <= to ? [from, to] : null;
};

/** Shares at which `at + share × by` lies strictly between two values. */
export function between(at: number, by: number, low: number, high: number): Shares {
  if (by === 0) return at > low && at < high ? [0, 1] : null;
  const [a, b] = [(low - at) / by, (high - at) / by];
  return both([Math.min(a, b), Math.max(a, b)], [0, 1]);
}

/** A straight way in a plane: of a tip in X Y, of a nose's center in radius and z. */
export interface FlatWay {
  readonly from: readonly [number, number, ...number[]];
  readonly to: readonly [number, number, ...number[]];
}

/** Shares at which a point on a straight way is nearer to a place than `radius`. */
export function nearPoint(way: FlatWay, x: number, y: number, radius: number): Shares {
  const [px, py] = [way.from[0] - x, way.from[1] - y];
  const [dx, dy] = [way.to[0] - way.from[0], way.to[1] - way.from[1]];
  const a = dx * dx + dy * dy;
  const c = px * px + py * py - radius * radius;
  if (a === 0) return c < 0 ? [0, 1] : null;
  const b = px * dx + py * dy;
  const under = b * b - a * c;
  if (under <= 0) return null;
  const root = Math.sqrt(under);
  return both([(-b - root) / a, (-b + root) / a], [0, 1]);
}

/** Shares at which a disc on a straight way in X Y overlaps a rectangle: a convex set, so one stretch. */
function discOnRectangle(way: Way, { min, max }: Box, radius: number): Shares {
  const [px, py] = way.from;
  const [dx, dy] = [way.to[0] - px, way.to[1] - py];
  const parts: Shares[] = [
    both(between(px, dx, min[0] - radius, max[0] + radius), between(py, dy, min[1], max[1])),
    both(between(px, dx, min[0], max[0]), between(py, dy, min[1] - radius, max[1] + radius)),
    ...[min[0], max[0]].flatMap((x) => [min[1], max[1]].map((y) => nearPoint(way, x, y, radius))),
  ];
  const found = parts.filter((part) => part !== null);
  return found.length === 0
    ? null
    : [Math.min(...found.map(([first]) => first)), Math.max(...found.map(([, last]) => last))];
}

/** Shares at which a cylinder over a tip on a straight way overlaps heights from `low` to `high`. */
export function atHeights(way: Way, cylinder: Cylinder, low: number, high: number): Shares {
  return between(way.from[2], way.to[2] - way.from[2], low - cylinder.high, high - cylinder.low);
}

/** True where the room that is passed on the whole way is clear of a box: what is asked first, because it mostly is. */
function isApart({ from, to }: Way, { radius, low, high }: Cylinder, { min, max }: Box): boolean {
  return (
    Math.min(from[0], to[0]) - radius >= max[0] ||
    Math.max(from[0], to[0]) + radius <= min[0] ||
    Math.min(from[1], to[1]) - radius >= max[1] ||
    Math.max(from[1], to[1]) + radius <= min[1] ||
    Math.min(from[2], to[2]) + low >= max[2] ||
    Math.max(from[2], to[2]) + high <= min[2]
  );
}

/** The first share of a straight way at which a cylinder over the tip is in a box; null where it never is. */
export function firstInBox(way: Way, cylinder: Cylinder, box: Box): number | null {
  if (cylinder.radius <= 0 || cylinder.high <= cylinder.low || isApart(way, cylinder, box)) return null;
  const heights = atHeights(way, cylinder, box.min[2], box.max[2]);
  return (heights && both(heights, discOnRectangle(way, box, cylinder.radius))?.[0]) ?? null;
}

/** The first share at which one of a way's figures leaves its limits; null where it stays within. */
export function firstPast(from: number, to: number, low: number, high: number): number | null {
  if (to >= low && to <= high) return from >= low && from <= high ? null : 0;
  if (from < low || from > high) return 0;
  return to > high ? (high - from) / (to - from) : (low - from) / (to - from);
}
