import { type MillLane } from "./lane";
import { displayCounts } from "../../registers/mill";
import { toCounts, toMm } from "../../units/scale";
import { seenLengthMm, seenRoomMm, seenScene, surfaceBelow } from "./eye";
import { boxOf } from "../../geometry/solid";
import { lowCorner } from "../../exercises/scene";
import { toHalf } from "../../lane/checks";

/** Well above the part, by eye, mm. */
const WELL_ABOVE_MM = 10;

/** Over zero, by the display, mm. */
const OVER_ZERO_MM = 0.01;

/** The display says zero in X and Y, with the pointed tool well above the part. */
export function standsOverZero(state: MillLane): boolean {
  const { registers, position, modal, scale } = state;
  const display = displayCounts(registers, position, modal.workOffset, 0);
  const near = toCounts(OVER_ZERO_MM, scale);
  return (
    state.holds === "pointedTool" &&
    Math.abs(display.x) <= near &&
    Math.abs(display.y) <= near &&
    seenRoomMm(state, "pointedTool") >= WELL_ABOVE_MM
  );
}

/** How far the spindle axis stands, by eye, from where the drawing has its zero, mm; on the drawn scene only. */
function offZeroMm(state: MillLane): number {
  const { setup, position, scale } = state;
  const { stock } = seenScene(state);
  const box = boxOf(stock);
  const zero = {
    x: box.low.x - lowCorner(setup, setup.partSizeMm, "x"),
    y: box.low.y - lowCorner(setup, setup.partSizeMm, "y"),
  };
  return toHalf(Math.hypot(toMm(position.x, scale) - zero.x, toMm(position.y, scale) - zero.y));
}

/** Height of the tip over what is below, as a rule beside it reads on the drawn scene, mm; null over nothing. */
function heightMm(state: MillLane): number | null {
  const on = surfaceBelow(state);
  const solid = on && seenScene(state)[on];
  return solid ? toHalf(toMm(state.position.z, state.scale) - seenLengthMm(state, state.holds) - solid.highZ) : null;
}

/** What a look tells on a mill; null where the figure stands in the log already (a touch, a sum, a lifted move). */
export function lookedOnMill(state: MillLane): number | null {
  switch (state.desk.check?.check) {
    case "overZero":
      return offZeroMm(state);
    case "knownHeight":
      return heightMm(state);
    case "ruleBeside":
      return state.holds ? seenLengthMm(state, state.holds) : null;
    case "sameEdge":
    case "liftedMove":
    case "sumByHand":
    case "recalled":
    case "clearance":
    case undefined:
      return null;
  }
}
