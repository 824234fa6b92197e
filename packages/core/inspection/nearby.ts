import Flatbush from "flatbush";
import { type Flat } from "../gcode/compensation";
import { inRectangle } from "./rays";

interface Bounds {
  readonly low: Flat;
  readonly high: Flat;
}
/** A thing with the rectangle that it keeps within. */
export interface Placed<T> extends Bounds {
  readonly thing: T;
}

/** Fewer than this are looked through one by one. */
const WORTH_INDEXING = 24;

/** Things that lie in a plane, found by where a ray may meet them. */
export class Nearby<T> {
  private readonly index: Flatbush | null;
  private readonly placed: readonly Placed<T>[];
  constructor(things: readonly T[], boundsOf: (thing: T) => Bounds) {
    this.placed = things.map((thing) => ({ thing, ...boundsOf(thing) }));
    this.index = things.length < WORTH_INDEXING ? null : new Flatbush(things.length);
    if (!this.index) return;
    for (const { low, high } of this.placed) this.index.add(low[0], low[1], high[0], high[1]);
    this.index.finish();
  }

  /** Places in the list of those that reach into a rectangle. */
  within(low: Flat, high: Flat): readonly number[] {
    return this.index?.search(low[0], low[1], high[0], high[1]) ?? this.placed.map((_, at) => at);
  }

  along(from: Flat, way: Flat): readonly Placed<T>[] {
    const { index, placed } = this;
    if (!index) return placed;
    const { minX, minY, maxX, maxY } = index;
    const range = inRectangle(from, way, [minX, minY], [maxX, maxY]);
    if (!range || range[1] < 0) return [];
    // a ray that runs upright stays where it is
    const far = Number.isFinite(range[1]) ? range[1] : 0;
    const [x, y] = [from[0] + way[0] * far, from[1] + way[1] * far];
    return index
      .search(Math.min(from[0], x), Math.min(from[1], y), Math.max(from[0], x), Math.max(from[1], y))
      .map((at) => placed[at])
      .filter((one) => one !== undefined);
  }
}

const known = new WeakMap<object, Nearby<unknown>>();

/** Those of a list that a ray may meet; what is made of the list is kept as long as the list itself. */
export function nearRay<T>(
  things: readonly T[],
  boundsOf: (thing: T) => Bounds,
  from: Flat,
  way: Flat,
): readonly Placed<T>[] {
  const found = (known.get(things) as Nearby<T> | undefined) ?? new Nearby(things, boundsOf);
  known.set(things, found);
  return found.along(from, way);
}
