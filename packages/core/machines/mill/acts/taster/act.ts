import type * as schema from "./schema";
import { type MillAct, type MillDraft, type MillLane } from "../../lane";
import { burrNowMm, tipPoint, trueScene } from "../../solids";
import { surfaces } from "../../../../exercises/scene";
import {
  TASTER_BALL_RADIUS_MM,
  TASTER_BREAKS_MM,
  TASTER_REST_MM,
  drawTasterApproach,
  runoutAlong,
  tasterDial,
} from "../../../../instruments/taster";
import { planGap } from "../../../../geometry/solid";
import { type Axis, type AxisCounts } from "../../../../registers/mill";
import { isBroken } from "../../evidence";
import { strike } from "../../contact";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { reachIn } from "../gapUnder";
import { touchOf } from "../plungers";
import { type At, type EdgeContact, type SurfaceTouch } from "../../../told";
import { toCounts } from "../../../../units/scale";

/**
 * How far the spindle axis stands past the face that the ball leans on, mm (below zero: before it); null when nothing
 * is near.
 */
function pastFaceMm(state: MillLane): number | null {
  const scene = trueScene(state);
  const tip = tipPoint(state, state.position);
  if (state.taster.touch?.axis === "z") return pastTopMm(state);
  const gaps = surfaces.flatMap((name) => {
    const solid = scene[name];
    const isBeside = solid && tip.z < solid.highZ - 0.2 && tip.z + TASTER_BALL_RADIUS_MM * 2 > solid.lowZ;
    const axis = state.taster.touch?.axis === "y" ? "y" : "x";
    return isBeside ? [planGap(solid, tip.x, tip.y) - (name === "stock" ? burrNowMm(state, axis) : 0)] : [];
  });
  return gaps.length > 0 ? -Math.min(...gaps) : null;
}

/** How far the ball stands below the top of what it is over, mm; null when it is over nothing. */
function pastTopMm(state: MillLane): number | null {
  const scene = trueScene(state);
  const tip = tipPoint(state, state.position);
  const tops = surfaces.flatMap((name) => {
    const solid = scene[name];
    return solid && planGap(solid, tip.x, tip.y) < 0 ? [solid.highZ] : [];
  });
  return tops.length > 0 ? Math.max(...tops) - tip.z : null;
}

const directionOf = (axis: Axis, approach: 1 | -1): number => (axis === "x" ? 0 : 1) + (approach === 1 ? 0 : 2);

/** How far the ball runs out toward the face it leans on, mm; 0 once it is trued. */
function tasterRunoutMm({ truth, taster, carried: { quarter } }: MillLane): number {
  // a ball that leans to one side is met from above at its own height
  if (!taster.touch || taster.isTrued || taster.touch.axis === "z") return 0;
  return runoutAlong(
    truth.taster.runoutMm,
    truth.taster.leansTo,
    quarter,
    directionOf(taster.touch.axis, taster.touch.approach),
  );
}

/** What the dial adds of its own: the runout until it is trued, and what the approach brought. */
const ownMm = (state: MillLane): number =>
  state.taster.touch ? tasterRunoutMm(state) + state.taster.touch.errorMm : 0;

/**
 * The dial as an eye reads it, mm before (−) or past (+) zero: one turn of the large hand is 1 mm, the small hand
 * counts turns.
 */
export function tasterReads(state: MillLane): number {
  if (!state.taster.touch) return TASTER_REST_MM;
  return tasterDial((pastFaceMm(state) ?? TASTER_REST_MM) + ownMm(state));
}

/** The dial after a step. Returns true when it begins to move, or comes to rest. */
function senseTaster(draft: MillDraft, from: AxisCounts, clickMm: number): boolean {
  const { state } = draft;
  if (state.holds !== "taster" || isBroken(state, "taster")) return false;
  const isDown = state.position.z < from.z && state.taster.touch === null;
  const past = (isDown ? pastTopMm(state) : pastFaceMm(state)) ?? -Infinity;
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

/** The taster's ball is set true to the spindle with its screws; only free of everything, by hand. */
function trueTaster({ state }: MillDraft): Decision {
  if (state.holds !== "taster") return refuse({ code: "notHeld", thing: "taster" });
  if (isBroken(state, "taster")) return refuse({ code: "instrumentBroken", thing: "taster" });
  const problem = reachIn(state) ?? (state.taster.touch ? ({ code: "tasterTouches" } as const) : null);
  return problem ? refuse(problem) : accept([{ type: "tasterTrued" }]);
}

/** Over a surface the dial tells how far the ball is pushed up: the surface is where it would read zero. */
function surfaceNow(state: MillLane, at: At): SurfaceTouch[] {
  const { touch } = state.taster;
  if (state.holds !== "taster" || touch?.axis !== "z") return [];
  const z = state.position.z + toCounts(tasterReads(state), state.scale);
  const where = { ...state.position, z };
  return [touchOf(state, at, { type: "touchBegan", by: "taster", ...touch, at: where, clickMm: 0 }, "stock", 0)];
}

/** The taster stands at its dial's reading: the face is where it would read zero. */
function contactNow(state: MillLane, at: At): EdgeContact[] {
  const { touch } = state.taster;
  if (state.holds !== "taster" || !touch || touch.axis === "z") return [];
  const past = toCounts(tasterReads(state), state.scale);
  return [
    {
      ...at,
      axis: touch.axis,
      approach: touch.approach,
      atCounts: state.position[touch.axis] - touch.approach * past,
      radiusMm: 0,
      by: "taster",
      clickMm: 0,
      kickMm: 0,
      isTooFast: false,
      known: [
        { id: "tasterNotTrued", mm: -touch.approach * tasterRunoutMm(state) },
        { id: "burr", mm: -touch.approach * burrNowMm(state, touch.axis) },
      ],
    },
  ];
}

/** A ball on a lever with a dial: both its hands must stand at zero. */
export const taster: MillAct<typeof schema> = {
  decide: { trueTaster },
  evolve: { tasterTrued: (state) => ({ ...state, taster: { ...state.taster, isTrued: true } }) },
  tells: {
    // it is read when a register is set by it, or when its reading is taken into the ledger
    registerChanged: (before, { seq, atMs }) => ({
      contacts: contactNow(before, { seq: seq - 0.5, atMs }),
      touches: surfaceNow(before, { seq: seq - 0.5, atMs }),
    }),
    lineWritten: (before, at, { kind }) =>
      kind === "reading" ? { contacts: contactNow(before, at), touches: surfaceNow(before, at) } : {},
  },
  senses: senseTaster,
  retracted: (draft) => {
    if (draft.state.taster.touch) draft.emit({ type: "touchEnded", by: "taster" });
  },
};
