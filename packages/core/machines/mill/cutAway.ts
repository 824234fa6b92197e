import { toolNumber } from "../../instruments/things";
import { type AxisCounts } from "../../registers/mill";
import { toMm } from "../../units/scale";
import { seenLengthMm } from "./eye";
import { type MillLane } from "./lane";
import { type Relief } from "./partPicture";
import { shapeFor } from "./solids";

/** This near to where metal was taken away, an eye does not tell which side it is on, mm. */
const NEAR_MM = 1;

/** Whether what the spindle holds stands below the blank's top, where metal is gone; going up leaves it. */
export function isOverCut(from: AxisCounts, state: MillLane, relief: Relief): boolean {
  const { position, holds, setup, scale } = state;
  if (position.x === from.x && position.y === from.y && position.z >= from.z) return false;
  const lengthMm = seenLengthMm(state, holds);
  const onSheet = setup.tools.find(({ number }) => number === toolNumber(holds))?.diameterMm;
  const { rigid, tip } = shapeFor(setup, holds, lengthMm, onSheet);
  const [x, y] = [toMm(position.x, scale), toMm(position.y, scale)];
  const tipMm = toMm(position.z, scale) - lengthMm;
  return (tip ? [tip, ...rigid] : rigid).some(
    ({ radiusMm, fromMm }) => tipMm + fromMm < relief.highMm + NEAR_MM && isCutWithin(relief, x, y, radiusMm + NEAR_MM),
  );
}

/** Whether any metal is gone within a distance of a place, machine frame, mm. */
function isCutWithin({ low, cellMm, columns, depths }: Relief, x: number, y: number, reachMm: number): boolean {
  return depths.some((depth, place) => {
    if (depth === 0) return false;
    const column = place % columns;
    const row = (place - column) / columns;
    return Math.hypot(low[0] + (column + 0.5) * cellMm - x, low[1] + (row + 0.5) * cellMm - y) <= reachMm;
  });
}
