import { between, both, nearPoint, type Shares } from "./solids";

/** A place in the half plane of a lathe: radius from the axis, and z. mm. */
export type HalfPlace = readonly [number, number];

/** A straight way of a nose's center. */
export interface NoseWay {
  readonly from: HalfPlace;
  readonly to: HalfPlace;
}

/** A nose circle about its center, and a strip from there on: away from the axis, or away from the chuck. */
export interface NoseShape {
  readonly radius: number;
  /** Reaches of the strip from the center: in r and z, ±Infinity where it has no end. */
  readonly r: readonly [number, number];
  readonly z: readonly [number, number];
}

export interface Ring {
  readonly r: readonly [number, number];
  readonly z: readonly [number, number];
}

const CELL_MM = 0.1;
const MOST_CELLS = 2_000_000;

/** Shares at which a point lies in the circle or in the strip: both are convex and touch, so the whole is taken. */
function shares(way: NoseWay, shape: NoseShape, r: number, z: number): Shares {
  const [dr, dz] = [way.to[0] - way.from[0], way.to[1] - way.from[1]];
  const strip = both(
    between(way.from[0], dr, r - shape.r[1], r - shape.r[0]),
    between(way.from[1], dz, z - shape.z[1], z - shape.z[0]),
  );
  const circle = nearPoint(way, r, z, shape.radius);
  if (!strip || !circle) return strip ?? circle;
  return [Math.min(strip[0], circle[0]), Math.max(strip[1], circle[1])];
}

/** The first share at which a nose or its strip is in a ring that is not cut; null where it never is. */
export function firstInRing(way: NoseWay, shape: NoseShape, ring: Ring): number | null {
  const [dr, dz] = [way.to[0] - way.from[0], way.to[1] - way.from[1]];
  const strip = both(
    between(way.from[0], dr, ring.r[0] - shape.r[1], ring.r[1] - shape.r[0]),
    between(way.from[1], dz, ring.z[0] - shape.z[1], ring.z[1] - shape.z[0]),
  );
  const parts: Shares[] = [
    strip,
    both(
      between(way.from[0], dr, ring.r[0] - shape.radius, ring.r[1] + shape.radius),
      between(way.from[1], dz, ring.z[0], ring.z[1]),
    ),
    both(
      between(way.from[0], dr, ring.r[0], ring.r[1]),
      between(way.from[1], dz, ring.z[0] - shape.radius, ring.z[1] + shape.radius),
    ),
    ...ring.r.flatMap((r) => ring.z.flatMap((z) => (Number.isFinite(z) ? [nearPoint(way, r, z, shape.radius)] : []))),
  ];
  const found = parts.filter((part) => part !== null);
  return found.length === 0 ? null : Math.min(...found.map(([first]) => first));
}

/** What is left of a bar: cells of the half plane. */
export class LatheStock {
  private readonly cell: number;
  private readonly rows: number;
  private readonly columns: number;
  private readonly isThere: Uint8Array;

  constructor(readonly ring: Ring) {
    const [sr, sz] = [ring.r[1] - ring.r[0], ring.z[1] - ring.z[0]];
    this.cell = Math.max(CELL_MM, Math.sqrt((sr * sz) / MOST_CELLS));
    this.rows = Math.max(1, Math.ceil(sr / this.cell));
    this.columns = Math.max(1, Math.ceil(sz / this.cell));
    this.isThere = new Uint8Array(this.rows * this.columns).fill(1);
  }

  /** Takes away what stands between two radii and two places along Z. */
  clear(r: HalfPlace, z: HalfPlace): void {
    for (let row = 0; row < this.rows; row++)
      for (let column = 0; column < this.columns; column++) {
        const [atR, atZ] = [this.ring.r[0] + (row + 0.5) * this.cell, this.ring.z[0] + (column + 0.5) * this.cell];
        if (atR > r[0] && atR < r[1] && atZ > z[0] && atZ < z[1]) this.isThere[row * this.columns + column] = 0;
      }
  }

  /** Another bar, cut as far as this one is. */
  copy(): LatheStock {
    const other = new LatheStock(this.ring);
    other.isThere.set(this.isThere);
    return other;
  }

  private visit(way: NoseWay, shape: NoseShape, visit: (index: number, near: readonly [number, number]) => void): void {
    const reach = (axis: 0 | 1, low: number, high: number, count: number): [number, number] => {
      const origin = axis === 0 ? this.ring.r[0] : this.ring.z[0];
      return [
        Math.max(0, Math.floor((Math.min(way.from[axis], way.to[axis]) + low - origin) / this.cell)),
        Math.min(count - 1, Math.floor((Math.max(way.from[axis], way.to[axis]) + high - origin) / this.cell)),
      ];
    };
    const { radius } = shape;
    const [r0, r1] = reach(0, Math.min(-radius, shape.r[0]), Math.max(radius, shape.r[1]), this.rows);
    const [z0, z1] = reach(1, Math.min(-radius, shape.z[0]), Math.max(radius, shape.z[1]), this.columns);
    for (let i = r0; i <= r1; i++) {
      const r = this.ring.r[0] + (i + 0.5) * this.cell;
      for (let j = z0; j <= z1; j++) {
        const index = i * this.columns + j;
        if (this.isThere[index] === 0) continue;
        const near = shares(way, shape, r, this.ring.z[0] + (j + 0.5) * this.cell);
        if (near) visit(index, near);
      }
    }
  }

  cut(way: NoseWay, shape: NoseShape): void {
    this.visit(way, shape, (index) => {
      this.isThere[index] = 0;
    });
  }

  firstMeeting(way: NoseWay, shape: NoseShape): number | null {
    let first: number | null = null;
    this.visit(way, shape, (_, near) => {
      if (first === null || near[0] < first) first = near[0];
    });
    return first;
  }
}
