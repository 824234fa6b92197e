import { type MillDraft, type MillLane } from "../lane";
import { planGap, type Solid } from "../../../geometry/solid";
import { heldShape, tipPoint } from "../solids";
import { FACE_MILL_RING_MM } from "../../../instruments/things";
import { seatedTop } from "./cycles";
import { TOUCH_KEPT_IN, type Touching } from "./touch/schema";
import { recessMm } from "./gapUnder";
import { type At, type KnownFault, type MeasuredLength, type SurfaceTouch } from "../../told";
import { type EventOf } from "../../events";

/** How far the tip stands below the top of a gauge's plunger, mm; null when it is not over it. */
export function pressedMm(state: MillLane, solid: Solid | undefined, travelMm: number): number | null {
  if (!solid) return null;
  const tip = tipPoint(state, state.position);
  // the plunger meets whatever of the tool's face is over it
  const { tipRadiusMm } = heldShape(state);
  const offMm = planGap(solid, tip.x, tip.y);
  if (offMm > tipRadiusMm) return null;
  // a face mill over the middle of the plunger meets it with its recessed middle only
  const recess =
    solid.plan.kind === "disc" && offMm + 2 * solid.plan.radiusMm < tipRadiusMm - FACE_MILL_RING_MM
      ? recessMm(state)
      : 0;
  return solid.highZ + travelMm - (tip.z + recess);
}

/** A plunger after a step by hand: what is pressed far enough answers. Returns true when that began or ended. */
export function sensePlunger(
  draft: MillDraft,
  by: Touching,
  pressed: number | null,
  clickMm: number,
  draw: (seed: string, number: number) => number,
): boolean {
  const { state } = draft;
  const { touch, touches } = state[TOUCH_KEPT_IN[by]];
  const number = touches + 1;
  const errorMm = touch?.errorMm ?? Math.round(draw(state.truth.seed, number) * 1e5) / 1e5;
  const isOn = pressed !== null && pressed >= errorMm;
  if (isOn === (touch !== null)) return false;
  if (!isOn) draft.emit({ type: "touchEnded", by });
  else draft.emit({ type: "touchBegan", by, axis: "z", approach: -1, at: state.position, number, errorMm, clickMm });
  return true;
}

/** A touch in Z by something that gives way and tells. */
export function touchOf(
  before: MillLane,
  at: At,
  { by, at: where, clickMm }: EventOf<"touchBegan">,
  on: string,
  thicknessMm: number,
  known: readonly KnownFault[] = [],
): SurfaceTouch {
  const { holds, carried } = before;
  const how = by === "taster" ? "metal" : by;
  const { seatMm } = carried;
  return { ...at, machineZ: where.z, on, by: how, thicknessMm, clickMm, feel: "lit", holds, seatMm, known };
}

/** A tool's length as an instrument said it: with what of it is known to be wrong. */
export function lengthOf(
  at: At,
  { tool, values }: EventOf<"readingShown">,
  how: Pick<MeasuredLength, "isHeld" | "isByCycle" | "known">,
): { lengths?: readonly MeasuredLength[] } {
  return tool === undefined || values.length === undefined
    ? {}
    : { lengths: [{ ...at, tool, mm: values.length, ...how }] };
}

/** By how much a setter stands off its card: moved before the lane began, or hit since, mm. */
export function setterOff(state: MillLane): KnownFault[] {
  const { truth, setter, cards } = state;
  // a calibration found it where it stands now, to a micrometre or two that are its own
  if (cards.setter !== undefined) return [{ id: "setterMoved", mm: beyondOwn(seatedTop(state) - cards.setter) }];
  return [
    { id: "setterMoved", mm: truth.doubt?.of === "setter" ? -truth.doubt.byMm : 0 },
    { id: "gaugeHit", mm: setter.shiftMm },
  ];
}

/** What a calibration misses by itself is no move of the setter, mm. */
const OWN_MM = 0.006;
const beyondOwn = (mm: number): number => (Math.abs(mm) <= OWN_MM ? 0 : mm);
