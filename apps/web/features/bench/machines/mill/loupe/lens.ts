import type { MillSeen } from "@probe-lane/core/bench";
import type { AxisCounts } from "@probe-lane/core/registers";
import { across, placeOf } from "../view";

export const SIZE = 196;
export const MID = SIZE / 2;

/** On which side of the tip the blank lies in this view: -1 left, 1 right, 0 behind or in front of it. */
export function partSide(seen: MillSeen, machine: AxisCounts): -1 | 0 | 1 {
  const { stock } = seen.boxes;
  const { x, y } = placeOf(seen, machine);
  const [a, b] = [across(seen.sight, stock.low.x, stock.low.y), across(seen.sight, stock.high.x, stock.high.y)];
  const at = across(seen.sight, x, y);
  if (at <= Math.min(a, b) + 0.5) return 1;
  return at >= Math.max(a, b) - 0.5 ? -1 : 0;
}
