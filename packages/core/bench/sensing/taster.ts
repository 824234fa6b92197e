import { surfaces } from "../../exercises";
import { planGap } from "../../geometry";
import {
  drawTasterApproach,
  runoutAlong,
  TASTER_BALL_RADIUS_MM,
  TASTER_BREAKS_MM,
  TASTER_REST_MM,
  tasterDial,
} from "../../instruments";
import type { Axis, AxisCounts } from "../../registers";
import { strike } from "../contact";
import type { Draft } from "../draft";
import { burrNowMm, tipPoint, trueScene } from "../solids";
import type { LaneState } from "../state";

/**
 * How far the spindle axis stands past the face that the ball leans on, mm (below zero: before it); null when nothing
 * is near.
 */
function pastFaceMm(state: LaneState): number | null {
  const scene = trueScene(state);
  const tip = tipPoint(state, state.position);
  const gaps = surfaces.flatMap((name) => {
    const solid = scene[name];
    const isBeside = solid && tip.z < solid.highZ - 0.2 && tip.z + TASTER_BALL_RADIUS_MM * 2 > solid.lowZ;
    const axis = state.taster.touch?.axis === "y" ? "y" : "x";
    return isBeside ? [planGap(solid, tip.x, tip.y) - (name === "stock" ? burrNowMm(state, axis) : 0)] : [];
  });
  return gaps.length > 0 ? -Math.min(...gaps) : null;
}

const directionOf = (axis: Axis, approach: 1 | -1): number => (axis === "x" ? 0 : 1) + (approach === 1 ? 0 : 2);

/** How far the ball runs out toward the face it leans on, mm; 0 once it is trued. */
export function tasterRunoutMm({ truth, taster, carried: { quarter } }: LaneState): number {
  if (!taster.touch || taster.isTrued) return 0;
  return runoutAlong(
    truth.taster.runoutMm,
    truth.taster.leansTo,
    quarter,
    directionOf(taster.touch.axis, taster.touch.approach),
  );
}

/** What the dial adds of its own: the runout until it is trued, and what the approach brought. */
const ownMm = (state: LaneState): number =>
  state.taster.touch ? tasterRunoutMm(state) + state.taster.touch.errorMm : 0;

/**
 * The dial as an eye reads it, mm before (−) or past (+) zero: one turn of the large hand is 1 mm, the small hand
 * counts turns.
 */
export function tasterReads(state: LaneState): number {
  if (!state.taster.touch) return TASTER_REST_MM;
  return tasterDial((pastFaceMm(state) ?? TASTER_REST_MM) + ownMm(state));
}

/** The dial after a step. Returns true when it begins to move, or comes to rest. */
export function senseTaster(draft: Draft, from: AxisCounts, clickMm: number): boolean {
  const { state } = draft;
  if (state.holds !== "taster" || state.taster.isBroken) return false;
  const past = pastFaceMm(state) ?? -Infinity;
  if (past > TASTER_BREAKS_MM) {
    strike(draft, "stock");
    return true;
  }
  const isTouching = past > TASTER_REST_MM;
  if (isTouching === (state.taster.touch !== null)) return false;
  if (!isTouching) {
    draft.emit({ type: "touchEnded", by: "taster" });
    return true;
  }
  const axis: Axis = state.position.x !== from.x ? "x" : state.position.y !== from.y ? "y" : "z";
  const number = state.taster.touches + 1;
  draft.emit({
    type: "touchBegan",
    by: "taster",
    axis,
    approach: state.position[axis] >= from[axis] ? 1 : -1,
    at: state.position,
    number,
    errorMm: Math.round(drawTasterApproach(state.truth.seed, number) * 1e5) / 1e5,
    clickMm,
  });
  return true;
}
