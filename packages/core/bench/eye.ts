import { sceneBoxes, type Surface, type Truth } from "../exercises";
import { signedGapMm, type BoxMm } from "../geometry";
import type { Thing } from "../instruments";
import { mmFromCounts } from "../units";
import type { LaneState } from "./state";

/** What an eye tells apart, mm. */
const EYE_STEP_MM = 0.5;

/** A hidden length at the precision of an eye: on a grid that is shifted once for the lane, so that nothing averages out. */
const seen = (mm: number, offsetMm: number): number =>
  Math.round((Math.round((mm - offsetMm) / EYE_STEP_MM) * EYE_STEP_MM + offsetMm) * 1000) / 1000;

/** Where an eye puts the datum. Everything drawn hangs on this one place, so that no second rounding tells more. */
function seenDatum({ datumMm, eyeOffsetMm }: Truth): Truth["datumMm"] {
  return { x: seen(datumMm.x, eyeOffsetMm.x), y: seen(datumMm.y, eyeOffsetMm.y), z: seen(datumMm.z, eyeOffsetMm.z) };
}

/** The length of what the spindle holds as an eye sees it, mm; 0 for the bare nose. */
export function seenLengthMm({ truth }: LaneState, thing: Thing | null): number {
  return thing === null ? 0 : seen(truth.lengthsMm[thing], 0);
}

const drawn = new WeakMap<Truth, Record<Surface, BoxMm>>();

/** The boxes as an eye places them. A lane's truth never changes, so they are worked out once for it. */
export function seenBoxes({ setup, truth }: LaneState): Record<Surface, BoxMm> {
  const known = drawn.get(truth);
  if (known) return known;
  const boxes = sceneBoxes(setup, seenDatum(truth), setup.partSizeMm);
  drawn.set(truth, boxes);
  return boxes;
}

/** The surface that an eye finds under the spindle axis. */
export function surfaceBelow(state: LaneState): Surface | null {
  const boxes = seenBoxes(state);
  const [x, y] = [mmFromCounts(state.position.x), mmFromCounts(state.position.y)];
  const order: Surface[] = ["stock", "frontJaw", "backJaw", "table"];
  return order.find((surface) => signedGapMm(x, y, boxes[surface]) <= 0) ?? null;
}

/** Room under the tip of `thing` down to the highest thing within reach of a holder, as an eye judges it, mm. */
export function seenRoomMm(state: LaneState, thing: Thing | null): number {
  const REACH_MM = 35;
  const tip = mmFromCounts(state.position.z) - seenLengthMm(state, thing);
  const [x, y] = [mmFromCounts(state.position.x), mmFromCounts(state.position.y)];
  const near = Object.values(seenBoxes(state)).filter((box) => signedGapMm(x, y, box) < REACH_MM);
  return Math.min(...near.map((box) => tip - box.high.z), Infinity);
}
