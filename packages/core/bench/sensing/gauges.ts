import {
  drawLampApproach,
  drawSetterApproach,
  FACE_MILL_RING_MM,
  LAMP_GAUGE_TRAVEL_MM,
  SETTER_TRAVEL_MM,
} from "../../instruments";
import { planGap, type Solid } from "../../geometry";
import type { Draft } from "../draft";
import { heldShape, tipPoint, trueScene } from "../solids";
import type { LaneState } from "../state";
import { recessMm } from "./gap";

/** How far the tip stands below the top of a gauge's plunger, mm; null when it is not over it. */
function pressedMm(state: LaneState, solid: Solid | undefined, travelMm: number): number | null {
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

function sense(
  draft: Draft,
  by: "lampGauge" | "plungerSetter",
  pressed: number | null,
  clickMm: number,
  draw: (seed: string, number: number) => number,
): boolean {
  const { state } = draft;
  const { touch, touches } = by === "lampGauge" ? state.lamp : state.setter;
  const number = touches + 1;
  const errorMm = touch?.errorMm ?? Math.round(draw(state.truth.seed, number) * 1e5) / 1e5;
  const isOn = pressed !== null && pressed >= errorMm;
  if (isOn === (touch !== null)) return false;
  if (!isOn) draft.emit({ type: "touchEnded", by });
  else draft.emit({ type: "touchBegan", by, axis: "z", approach: -1, at: state.position, number, errorMm, clickMm });
  return true;
}

/**
 * Lamp of the height gauge, and the trigger of the plunger setter, after a step by hand. Returns true when one comes on
 * or goes out.
 */
export function senseGauges(draft: Draft, clickMm: number): boolean {
  const scene = trueScene(draft.state);
  const lampTop = scene.lampGauge && { ...scene.lampGauge, highZ: scene.lampGauge.highZ - draft.state.lamp.lowMm };
  const lamp =
    lampTop || draft.state.lamp.touch
      ? sense(draft, "lampGauge", pressedMm(draft.state, lampTop, LAMP_GAUGE_TRAVEL_MM), clickMm, drawLampApproach)
      : false;
  const setter = scene.setter
    ? sense(draft, "plungerSetter", pressedMm(draft.state, scene.setter, SETTER_TRAVEL_MM), clickMm, drawSetterApproach)
    : false;
  return lamp || setter;
}
