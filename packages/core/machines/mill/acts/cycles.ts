import { type MillDraft, type MillLane } from "../lane";
import { toolNumber, type InstrumentName } from "../../../instruments/things";
import { trueLengthMm, trueScene } from "../solids";
import { type LaneEvent } from "../../events";
import { type PointMm, type UprightCylinder } from "../../../geometry/contact";
import { type AxisCounts } from "../../../registers/mill";
import { toCounts } from "../../../units/scale";
import { quickContact, strike } from "../contact";
import { surfaces, type Surface } from "../../../exercises/scene";
import { firstContact, type Solid } from "../../../geometry/solid";
import { type Refusal } from "../../../lane/refusals";

/** Teeth of a cutter that stands still do not stand at its widest place, mm. */
export const STILL_TEETH_MM = 0.03;

export function heldTool(state: MillLane) {
  const number = toolNumber(state.holds);
  const tool = state.setup.tools.find((one) => one.number === number);
  return tool
    ? {
        ...tool,
        trueDiameterMm: state.truth.diametersMm[tool.number] ?? tool.diameterMm,
        lengthMm: trueLengthMm(state),
      }
    : null;
}

export const seatedTop = ({ truth, setter }: MillLane): number => (truth.setter?.topMm ?? 0) + setter.shiftMm;

/** Up to the top, then over the gauge. */
export function goOver(draft: MillDraft, x: number, y: number): boolean {
  const { state } = draft;
  return (
    positionTo(draft, { ...state.position, z: 0 }) && positionTo(draft, { ...countsOf(state, { x, y, z: 0 }), z: 0 })
  );
}

export function show(
  draft: MillDraft,
  reading: Omit<Extract<LaneEvent, { type: "readingShown" }>, "type" | "number">,
): LaneEvent[] {
  draft.emit({ type: "readingShown", number: draft.state.desk.readingsMade + 1, ...reading });
  return draft.events;
}

/** Machine counts of a place of the gauge point, mm. */
export const countsOf = ({ scale }: MillLane, at: PointMm): AxisCounts => ({
  x: toCounts(at.x, scale),
  y: toCounts(at.y, scale),
  z: toCounts(at.z, scale),
});

/**
 * A positioning move inside a cycle. True when it arrived; what stands in the way is driven into, because a cycle
 * believes the figures it was given.
 */
export function positionTo(draft: MillDraft, to: AxisCounts): boolean {
  const hit = quickContact(draft.state, draft.state.position, to);
  draft.emit({ type: "moved", to: hit?.at ?? to, isRapid: true });
  if (!hit) return true;
  strike(draft, hit.on);
  return false;
}

/** How far along a slow move a part of what is held first meets anything, 0…1, and what; null when it meets nothing. */
export function meets(
  state: MillLane,
  from: PointMm,
  to: PointMm,
  part: UprightCylinder | ((wall: Solid) => UprightCylinder | null),
): { t: number; on: Surface } | null {
  const scene = trueScene(state);
  let first: { t: number; on: Surface } | null = null;
  for (const on of surfaces) {
    const solid = scene[on];
    if (!solid) continue;
    const meeting = typeof part === "function" ? part(solid) : part;
    const t = meeting && firstContact(from, to, meeting, solid);
    if (t !== null && (first === null || t < first.t)) first = { t, on };
  }
  return first;
}

/**
 * A cycle moves by itself: it wants a machine that knows where it is, nothing in the gap, and the instrument where it
 * belongs.
 */
export function mayCycle(state: MillLane): Refusal | null {
  if (!state.isHomed) return { code: "notHomed" };
  if (state.isDoorOpen) return { code: "doorOpenMotion" };
  if (state.spindle.isOn) return { code: "spindleTurning" };
  if (state.block) return { code: "blockInGap" };
  return state.paper ? { code: "paperInGap" } : null;
}

/** Why an instrument that measures tools cannot be asked now; null when it can. */
export function mayMeasure(state: MillLane, instrument: InstrumentName): Refusal | null {
  return state.setup.instruments.includes(instrument) ? mayCycle(state) : { code: "instrumentNotHere", instrument };
}
