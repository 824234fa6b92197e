import { type Flat } from "../gcode/compensation";
import { boundsOf, heightOver, type Sweep } from "./sweep";

/** The tops of a block over a grid of cells, rows from the front; each taken in the middle of its cell. */
export interface Tops {
  readonly columns: number;
  readonly rows: number;
  readonly tops: Float64Array;
}

/**
 * What sweeps leave of a block between two corners, its bottom and its top, in cells of this size. Each sweep looks at
 * the cells that it may reach and at no others.
 */
export function topsAfter(
  sweeps: readonly Sweep[],
  low: readonly [number, number, number],
  high: readonly [number, number, number],
  cell: number,
): Tops {
  const count = (axis: 0 | 1): number => Math.max(1, Math.round((high[axis] - low[axis]) / cell));
  const [columns, rows] = [count(0), count(1)];
  const tops = new Float64Array(columns * rows).fill(high[2]);
  const first = (at: number, axis: 0 | 1): number => Math.max(0, Math.ceil((at - low[axis]) / cell - 0.5));
  const last = (at: number, axis: 0 | 1): number =>
    Math.min((axis === 0 ? columns : rows) - 1, Math.floor((at - low[axis]) / cell - 0.5));
  for (const sweep of sweeps) {
    const reach = boundsOf(sweep.piece, sweep.end.radius);
    const floor = Math.max(low[2], Math.min(sweep.fromZ, sweep.toZ));
    for (let row = first(reach.low[1], 1); row <= last(reach.high[1], 1); row++)
      for (let column = first(reach.low[0], 0); column <= last(reach.high[0], 0); column++) {
        const place = row * columns + column;
        // what is lower already than this tool ever comes stays as it is
        if ((tops[place] ?? 0) <= floor) continue;
        const middle: Flat = [low[0] + (column + 0.5) * cell, low[1] + (row + 0.5) * cell];
        const height = heightOver(sweep, middle);
        if (height < (tops[place] ?? 0)) tops[place] = Math.max(low[2], height);
      }
  }
  return { columns, rows, tops };
}
