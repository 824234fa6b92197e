import { surfaces, type Surface } from "../../exercises";
import { planGap } from "../../geometry";
import { drawProbeApproach, PROBE_OVERTRAVEL_MM } from "../../instruments";
import type { Axis, AxisCounts } from "../../registers";
import { strike } from "../contact";
import type { Draft } from "../draft";
import { burrNowMm, tipPoint, trueScene } from "../solids";
import type { LaneState } from "../state";

/** Ball less pre-travel, plus what the stylus runs out toward this side, mm: where the trigger comes. */
export function effectiveRadiusMm(state: LaneState, axis: "x" | "y", approach: 1 | -1): number {
  const { setup, truth, probe } = state;
  // a burr meets the ball before the face does
  return (
    burrNowMm(state, axis) +
    (setup.probe?.ballDiameterMm ?? 6) / 2 -
    truth.probe.pretravelMm +
    approach * truth.probe.runoutMm[axis] +
    probe.bendMm
  );
}

/** How far past its trigger the ball stands at the nearest wall or top, mm; below zero it is free. */
function pushedMm(state: LaneState, axis: Axis, approach: 1 | -1): { mm: number; on: Surface } {
  const scene = trueScene(state);
  const tip = tipPoint(state, state.position);
  const ball = (state.setup.probe?.ballDiameterMm ?? 6) / 2;
  let worst = { mm: -Infinity, on: "stock" as Surface };
  for (const on of surfaces) {
    const solid = scene[on];
    if (!solid) continue;
    const side = axis === "z" ? -Infinity : effectiveRadiusMm(state, axis, approach) - planGap(solid, tip.x, tip.y);
    const below = solid.highZ - tip.z;
    const isOver = planGap(solid, tip.x, tip.y) < 0;
    const isBeside = tip.z + ball < solid.highZ && tip.z + ball > solid.lowZ;
    const mm = isOver && below < ball ? below : isBeside ? side : -Infinity;
    if (mm > worst.mm) worst = { mm, on };
  }
  return worst;
}

/** The probe after a step by hand. Returns true when its lamp comes on or goes out. */
export function senseProbe(draft: Draft, from: AxisCounts, clickMm: number): boolean {
  const { state } = draft;
  if (state.holds !== "probe" || state.probe.isBroken) return false;
  const moved: Axis = state.position.x !== from.x ? "x" : state.position.y !== from.y ? "y" : "z";
  const axis = state.probe.touch?.axis ?? moved;
  const approach = state.probe.touch?.approach ?? (state.position[moved] >= from[moved] ? 1 : -1);
  const { mm, on } = pushedMm(state, axis, approach);
  if (mm > PROBE_OVERTRAVEL_MM) {
    strike(draft, on);
    return true;
  }
  const number = state.probe.touches + 1;
  const errorMm = state.probe.touch?.errorMm ?? Math.round(drawProbeApproach(state.truth.seed, number) * 1e5) / 1e5;
  const isOn = mm >= errorMm;
  if (isOn === (state.probe.touch !== null)) return false;
  if (!isOn) {
    draft.emit({ type: "touchEnded", by: "probe" });
    return true;
  }
  draft.emit({ type: "touchBegan", by: "probe", axis, approach, at: state.position, number, errorMm, clickMm });
  return true;
}
