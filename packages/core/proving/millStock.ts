import { type MillBodies } from "./millTool";
import { atHeights, both, type Box, type Cylinder, nearPoint, placeOn, type Shares, type Way } from "./solids";

/** Side of a cell, mm: what is found is told to a fifth of a millimetre. */
const CELL_MM = 0.2;
const MOST_CELLS = 2_000_000;

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

  constructor(readonly box: Box) {
    const [sx, sy] = [box.max[0] - box.min[0], box.max[1] - box.min[1]];
    this.cell = Math.max(CELL_MM, Math.sqrt((sx * sy) / MOST_CELLS));
    this.across = Math.max(1, Math.ceil(sx / this.cell));
    this.along = Math.max(1, Math.ceil(sy / this.cell));
    this.low = new Float64Array(this.across * this.along).fill(box.min[2]);
    this.high = new Float64Array(this.across * this.along).fill(box.max[2]);
  }

  /** Calls `visit` for each column whose middle comes within `radius` of the way. */
  private visit(
    way: Way,
    radius: number,
    visit: (index: number, x: number, y: number, near: readonly [number, number]) => void,
  ): void {
    const { box, cell, across, along } = this;
    const span = (axis: 0 | 1, count: number): [number, number] => [
      Math.max(0, Math.floor((Math.min(way.from[axis], way.to[axis]) - radius - box.min[axis]) / cell)),
      Math.min(count - 1, Math.floor((Math.max(way.from[axis], way.to[axis]) + radius - box.min[axis]) / cell)),
    ];
    const [[x0, x1], [y0, y1]] = [span(0, across), span(1, along)];
    for (let j = y0; j <= y1; j++) {
      const y = box.min[1] + (j + 0.5) * cell;
      for (let i = x0; i <= x1; i++) {
        const x = box.min[0] + (i + 0.5) * cell;
        const near = nearPoint(way, x, y, radius);
        if (near) visit(j * across + i, x, y, near);
      }
    }
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

  /** Takes away what a tool's edges pass on a straight way. */
  cut(way: Way, tool: MillBodies): void {
    if (Math.min(way.from[2], way.to[2]) >= this.box.max[2]) return;
    const isLevel = way.from[2] === way.to[2];
    const climb = way.to[2] - way.from[2];
    const isFlat = tool.underside(tool.radius) === 0;
    this.visit(way, tool.radius, (index, x, y, near) => {
      const tip = (share: number): number => way.from[2] + climb * share;
      const over = (share: number): number => {
        const [px, py] = placeOn(way, share);
        return tip(share) + tool.underside(Math.hypot(x - px, y - py));
      };
      const bottom = isFlat
        ? Math.min(tip(near[0]), tip(near[1]))
        : Math.min(over(near[0]), over((near[0] + near[1]) / 2), over(near[1]));
      const top = (isLevel ? way.from[2] : Math.max(tip(near[0]), tip(near[1]))) + tool.fluteLength;
      this.clear(index, bottom, top);
    });
  }

  /** The first share of a straight way at which a cylinder over the tip is in what is left; null where it never is. */
  firstMeeting(way: Way, cylinder: Cylinder): number | null {
    if (cylinder.radius <= 0 || cylinder.high <= cylinder.low) return null;
    if (Math.min(way.from[2], way.to[2]) + cylinder.low >= this.box.max[2]) return null;
    let first: number | null = null;
    this.visit(way, cylinder.radius, (index, _x, _y, near) => {
      if (first !== null && near[0] >= first) return;
      for (const [low, high] of this.stretches(index)) {
        const shares: Shares = both(near, atHeights(way, cylinder, low, high));
        if (shares && (first === null || shares[0] < first)) first = shares[0];
      }
    });
    return first;
  }
}
