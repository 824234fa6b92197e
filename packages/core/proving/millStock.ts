import { type MillBodies } from "./millTool";
import { atHeights, both, type Box, type Cylinder, nearPoint, type Shares, type Way } from "./solids";

/** Side of a cell, mm: what is found is told to a fifth of a millimetre. */
const CELL_MM = 0.2;
const MOST_CELLS = 2_000_000;
/** Columns along the side of a patch whose highest one is known. */
const PATCH = 16;

/**
 * What is left of a block: upright columns, each with the heights between which there is material. One stretch a column
 * is kept in two arrays; columns that were cut under have a list.
 */
export class MillStock {
  private readonly cell: number;
  private readonly across: number;
  private readonly along: number;
  private readonly low: Float64Array;
  private readonly high: Float64Array;
  private readonly more = new Map<number, [number, number][]>();
  private readonly patches: number;
  private readonly tops: Float64Array;
  private readonly isStale: Uint8Array;

  constructor(readonly box: Box) {
    const [sx, sy] = [box.max[0] - box.min[0], box.max[1] - box.min[1]];
    this.cell = Math.max(CELL_MM, Math.sqrt((sx * sy) / MOST_CELLS));
    this.across = Math.max(1, Math.ceil(sx / this.cell));
    this.along = Math.max(1, Math.ceil(sy / this.cell));
    this.patches = Math.ceil(this.across / PATCH);
    this.tops = new Float64Array(this.patches * Math.ceil(this.along / PATCH));
    this.isStale = new Uint8Array(this.tops.length).fill(1);
    this.low = new Float64Array(this.across * this.along).fill(box.min[2]);
    this.high = new Float64Array(this.across * this.along).fill(box.max[2]);
  }

  /** Another block, cut as far as this one is. */
  copy(): MillStock {
    const other = new MillStock(this.box);
    other.low.set(this.low);
    other.high.set(this.high);
    for (const [index, stretches] of this.more) other.more.set(index, [...stretches]);
    return other;
  }

  /** First and last column, along one axis, whose middle may come within `radius` of a way. */
  private span(way: Way, axis: 0 | 1, radius: number): readonly [number, number] {
    const count = axis === 0 ? this.across : this.along;
    const at = (mm: number): number => (mm - this.box.min[axis]) / this.cell;
    return [
      Math.max(0, Math.floor(at(Math.min(way.from[axis], way.to[axis]) - radius))),
      Math.min(count - 1, Math.floor(at(Math.max(way.from[axis], way.to[axis]) + radius))),
    ];
  }

  private stretches(index: number): readonly (readonly [number, number])[] {
    const [low = 0, high = 0] = [this.low[index], this.high[index]];
    return this.more.get(index) ?? (high > low ? [[low, high]] : []);
  }

  private clear(index: number, from: number, to: number): void {
    const list = this.more.get(index);
    const [low = 0, high = 0] = [this.low[index], this.high[index]];
    if (!list) {
      if (to <= low || from >= high) return;
      if (to >= high) this.high[index] = Math.max(low, from);
      else if (from <= low) this.low[index] = to;
      else
        this.more.set(index, [
          [low, from],
          [to, high],
        ]);
      return;
    }
    const left = list.flatMap(([a, b]): [number, number][] => {
      const parts: [number, number][] = [
        [a, Math.min(b, from)],
        [Math.max(a, to), b],
      ];
      return parts.filter(([c, d]) => d > c);
    });
    this.more.set(index, left);
  }

  /**
   * Takes away what a tool's edges pass on a straight way. Written out as one loop over plain numbers: it is what a
   * long program spends its time in.
   */
  cut(way: Way, tool: MillBodies): void {
    const [x0, y0, z0] = way.from;
    const lowest = Math.min(z0, way.to[2]);
    if (lowest >= this.box.max[2]) return;
    const [dx, dy, dz] = [way.to[0] - x0, way.to[1] - y0, way.to[2] - z0];
    const a = dx * dx + dy * dy;
    const { radius, underside, fluteLength } = tool;
    const square = radius * radius;
    const isFlat = underside(radius) === 0;
    const { cell, across, low, high, box, more } = this;
    const [i0, i1] = this.span(way, 0, radius);
    const [j0, j1] = this.span(way, 1, radius);
    const hasLists = more.size > 0;
    for (let j = j0; j <= j1; j++) {
      const py = y0 - (box.min[1] + (j + 0.5) * cell);
      for (let i = i0, index = j * across + i0; i <= i1; i++, index++) {
        // nothing stands there that this way could reach
        if ((high[index] ?? 0) <= lowest && !(hasLists && more.has(index))) continue;
        const px = x0 - (box.min[0] + (i + 0.5) * cell);
        const c = px * px + py * py - square;
        let first = 0;
        let last = 1;
        if (a === 0) {
          if (c >= 0) continue;
        } else {
          const b = px * dx + py * dy;
          const under = b * b - a * c;
          if (under <= 0) continue;
          const root = Math.sqrt(under);
          first = Math.max(0, (-b - root) / a);
          last = Math.min(1, (-b + root) / a);
          if (first > last) continue;
        }
        const [atFirst, atLast] = [z0 + dz * first, z0 + dz * last];
        let bottom = Math.min(atFirst, atLast);
        if (!isFlat) {
          const over = (share: number): number =>
            z0 + dz * share + underside(Math.hypot(px + dx * share, py + dy * share));
          bottom = Math.min(over(first), over((first + last) / 2), over(last));
        }
        const top = Math.max(atFirst, atLast) + fluteLength;
        const isList = hasLists && more.has(index);
        if (isList || bottom < (high[index] ?? 0)) {
          if (!isList && top >= (high[index] ?? 0)) high[index] = Math.max(low[index] ?? 0, bottom);
          else this.clear(index, bottom, top);
        }
      }
    }
    for (let row = Math.floor(j0 / PATCH); row <= Math.floor(j1 / PATCH); row++)
      this.isStale.fill(
        1,
        row * this.patches + Math.floor(i0 / PATCH),
        row * this.patches + Math.floor(i1 / PATCH) + 1,
      );
  }

  /** The highest that stands in a patch of columns; looked up anew where something was cut since. */
  private topOf(row: number, column: number): number {
    const patch = row * this.patches + column;
    if (this.isStale[patch] === 0) return this.tops[patch] ?? 0;
    let top = -Infinity;
    for (let j = row * PATCH; j < Math.min(this.along, (row + 1) * PATCH); j++)
      for (let i = column * PATCH; i < Math.min(this.across, (column + 1) * PATCH); i++) {
        const index = j * this.across + i;
        top = Math.max(top, this.more.get(index)?.at(-1)?.[1] ?? this.high[index] ?? 0);
      }
    this.tops[patch] = top;
    this.isStale[patch] = 0;
    return top;
  }

  /** The first share of a straight way at which a cylinder over the tip is in what is left; null where it never is. */
  firstMeeting(way: Way, cylinder: Cylinder): number | null {
    if (cylinder.radius <= 0 || cylinder.high <= cylinder.low) return null;
    const lowest = Math.min(way.from[2], way.to[2]) + cylinder.low;
    if (lowest >= this.box.max[2]) return null;
    const { cell, box } = this;
    const [i0, i1] = this.span(way, 0, cylinder.radius);
    const [j0, j1] = this.span(way, 1, cylinder.radius);
    if (i0 > i1 || j0 > j1) return null;
    let first: number | null = null;
    for (let j = j0; j <= j1; j++) {
      const row = Math.floor(j / PATCH);
      for (let i = i0; i <= i1; i++) {
        if (this.topOf(row, Math.floor(i / PATCH)) <= lowest) {
          i += PATCH - 1 - (i % PATCH);
          continue;
        }
        const index = j * this.across + i;
        if ((this.high[index] ?? 0) <= lowest && !this.more.has(index)) continue;
        const near = nearPoint(way, box.min[0] + (i + 0.5) * cell, box.min[1] + (j + 0.5) * cell, cylinder.radius);
        if (!near || (first !== null && near[0] >= first)) continue;
        for (const [from, to] of this.stretches(index)) {
          const shares: Shares = both(near, atHeights(way, cylinder, from, to));
          if (shares && (first === null || shares[0] < first)) first = shares[0];
        }
      }
    }
    return first;
  }
}
