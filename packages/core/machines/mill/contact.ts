import { type MillDraft, type MillLane } from "./lane";
import { surfaces, type Surface } from "../../exercises/scene";
import { type PointMm, type UprightCylinder } from "../../geometry/contact";
import { INDICATOR_ARM_MM, heldAs } from "../../instruments/things";
import { heldShape, tipPoint, trueScene } from "./solids";
import { firstContact, solidGap } from "../../geometry/solid";
import { drawBetween } from "../../random";
import { type Axis, type AxisCounts } from "../../registers/mill";
import { axes } from "../../lane/state";

/** A tip may lean on metal this far, at the finest clicks, before something gives, mm. */
const LEAN_MM = 0.02;

/** Depths below this are touching, not pressing, mm. */
const TOUCH_MM = 1e-7;

/** An indicator's lever is carried round a boss on its arm: standing over the boss it meets nothing below the arm. */
const passesBy = ({ holds }: MillLane, on: Surface, { fromMm }: UprightCylinder): boolean =>
  holds === "indicator" && on === "boss" && fromMm < INDICATOR_ARM_MM;

/** How deep the deepest of some cylinders stands in any solid, mm (below zero: clear), and in which. */
function deepest(state: MillLane, cylinders: readonly UprightCylinder[], tip: PointMm): { mm: number; on: Surface } {
  const scene = trueScene(state);
  let worst = { mm: -Infinity, on: "stock" as Surface };
  for (const on of surfaces) {
    const solid = scene[on];
    if (!solid) continue;
    for (const cylinder of cylinders) {
      if (passesBy(state, on, cylinder)) continue;
      const mm = -solidGap(solid, tip, cylinder);
      if (mm > worst.mm) worst = { mm, on };
    }
  }
  return worst;
}

/**
 * The parts that meet things hard. A tip that gives way sideways to what it senses is hard to quick moves and from
 * above.
 */
function hardParts(state: MillLane, isQuick: boolean, isDown: boolean): UprightCylinder[] {
  const { rigid, tip } = heldShape(state);
  const isSoftFromAbove = state.holds === "probe";
  return tip && (isQuick || (isDown && !isSoftFromAbove)) ? [tip, ...rigid] : [...rigid];
}

/** Something was driven into something: what gives way depends on what the spindle holds. */
export function strike(draft: MillDraft, on: Surface): void {
  const { state } = draft;
  const { seed } = state.truth;
  const turn = state.incidents.length;
  const common = { type: "incidentHappened" as const, on, stopsMachine: true, isSilent: false, failsOutright: false };
  const code = state.holds ? heldAs(state.holds)?.brokenAs : undefined;
  if (state.holds === null) draft.emit({ ...common, code: "noseStruck", failsOutright: true });
  else if (code) draft.emit({ ...common, code, thing: state.holds });
  else {
    const shorterMm = Math.round(drawBetween(0.05, 0.3, seed, "chip", turn) * 1e4) / 1e4;
    draft.emit({ ...common, code: "toolChipped", thing: state.holds, shorterMm });
  }
  if (on === "setter") {
    draft.emit({
      ...common,
      code: "setterDamaged",
      isSilent: true,
      stopsMachine: false,
      shiftMm: -Math.round(drawBetween(0.04, 0.12, seed, "setter hit", turn) * 1e4) / 1e4,
    });
  }
  if (on === "lampGauge") {
    draft.emit({
      ...common,
      code: "gaugeDamaged",
      isSilent: true,
      stopsMachine: false,
      shiftMm: Math.round(drawBetween(0.03, 0.09, seed, "gauge hit", turn) * 1e4) / 1e4,
    });
  }
}

/** Hard contact after one small step. Returns true when something was felt. */
export function senseHard(draft: MillDraft, from: AxisCounts, clickMm: number): boolean {
  const { state } = draft;
  const parts = hardParts(state, false, state.position.z < from.z);
  const now = deepest(state, parts, tipPoint(state, state.position));
  if (now.mm <= TOUCH_MM) {
    if (state.resting) draft.emit({ type: "leftHard" });
    return false;
  }
  const before = deepest(state, parts, tipPoint(state, from));
  if (now.mm <= before.mm + TOUCH_MM) return false;
  if (clickMm > heldShape(state).survivesClickMm + 1e-9 || now.mm > LEAN_MM) {
    strike(draft, now.on);
    return true;
  }
  if (state.resting) return false;
  draft.emit({ type: "touchedHard", on: now.on });
  return true;
}

/** Where a quick straight move first meets something hard; null when it stays clear. */
export function quickContact(
  state: MillLane,
  from: AxisCounts,
  to: AxisCounts,
): { on: Surface; at: AxisCounts } | null {
  const scene = trueScene(state);
  const [a, b] = [tipPoint(state, from), tipPoint(state, to)];
  const whole = hardParts(state, true, true);
  // what already leans on something (a kicked tip, a resting tool) may slide along it and leave it, and go no deeper
  const leaning = Math.max(0, deepest(state, whole, a).mm) + TOUCH_MM;
  const parts = whole.map((part) => ({
    radiusMm: part.radiusMm - leaning,
    fromMm: part.fromMm + leaning,
    toMm: part.toMm,
  }));
  let first: { t: number; on: Surface } | null = null;
  for (const on of surfaces) {
    const solid = scene[on];
    if (!solid) continue;
    for (const part of parts) {
      if (passesBy(state, on, part)) continue;
      const t = firstContact(a, b, part, solid);
      if (t !== null && (first === null || t < first.t)) first = { t, on };
    }
  }
  if (!first) return null;
  const { t } = first;
  const at = Object.fromEntries(
    axes.map((axis) => [axis, Math.round(from[axis] + (to[axis] - from[axis]) * t)]),
  ) as Record<Axis, number>;
  return { on: first.on, at };
}
