import { sceneBoxes, type Surface, type Truth } from "../exercises";
import { firstContact, signedGapMm, type BoxMm, type PointMm, type UprightCylinder } from "../geometry";
import {
  drawApproach, drawBendMm, EDGE_FINDER_TIP_HEIGHT_MM, feelAt, hasKicked, lateOnEdgeBreakMm, overTravel, shapes, wobbleAt,
  type Shape,
} from "../instruments";
import { drawBetween } from "../random";
import type { Axis, AxisCounts } from "../registers";
import { countsFromMm, mmFromCounts } from "../units";
import { surfaceBelow } from "./eye";
import { jogSizesMm, type JogSize } from "./commands";
import { Draft } from "./draft";
import type { LaneEvent } from "./events";
import { bench } from "./machine";
import { axes, seesKick, type LaneState } from "./state";

const SURFACES: readonly Surface[] = ["stock", "frontJaw", "backJaw", "table"];
/** A tip may lean on metal this far, at the finest clicks, before something gives, mm. */
const LEAN_MM = 0.02;
/** Depths below this are touching, not pressing, mm. */
const TOUCH_MM = 1e-7;

const pointOf = (position: AxisCounts): PointMm =>
  ({ x: mmFromCounts(position.x), y: mmFromCounts(position.y), z: mmFromCounts(position.z) });

const solid = new WeakMap<Truth, Record<Surface, BoxMm>>();

/** The boxes as they are. A lane's truth never changes, so they are worked out once for it. */
function trueBoxes({ setup, truth }: LaneState): Record<Surface, BoxMm> {
  const known = solid.get(truth);
  if (known) return known;
  const boxes = sceneBoxes(setup, truth.datumMm, truth.stockSizeMm);
  solid.set(truth, boxes);
  return boxes;
}

/** True length of what the spindle holds, mm; 0 for the bare nose. */
function trueLengthMm({ holds, truth, shorterMm }: LaneState): number {
  if (holds === null) return 0;
  return truth.lengthsMm[holds] - (holds === "edgeFinder" ? 0 : shorterMm[holds]);
}

function shapeOf(state: LaneState): Shape {
  const { holds, setup } = state;
  const lengthMm = trueLengthMm(state);
  switch (holds) {
    case "edgeFinder": return shapes.edgeFinder(lengthMm, setup.tipDiameterMm);
    case "pointedTool": return shapes.pointedTool(lengthMm);
    case "tool1": return shapes.tool1(lengthMm, setup.tool1DiameterMm);
    case null: return shapes.nose();
  }
}

const tipPoint = (state: LaneState, position: AxisCounts): PointMm => {
  const at = pointOf(position);
  return { ...at, z: at.z - trueLengthMm(state) };
};

/** How deep the shape stands in a box, mm; 0 or less when it is clear. */
function depthIn(tip: PointMm, cylinder: UprightCylinder, box: BoxMm): number {
  const below = box.high.z - (tip.z + cylinder.fromMm);
  const above = tip.z + cylinder.toMm - box.low.z;
  return Math.min(below, above, cylinder.radiusMm - signedGapMm(tip.x, tip.y, box));
}

function deepest(cylinders: readonly UprightCylinder[], tip: PointMm, boxes: Record<Surface, BoxMm>): { mm: number; on: Surface } {
  let worst = { mm: -Infinity, on: "stock" as Surface };
  for (const on of SURFACES) {
    for (const cylinder of cylinders) {
      const mm = depthIn(tip, cylinder, boxes[on]);
      if (mm > worst.mm) worst = { mm, on };
    }
  }
  return worst;
}

/** The parts that meet things hard. An edge finder's tip gives way sideways to the blank, and to nothing else. */
function hardParts(state: LaneState, shape: Shape, isQuick: boolean, isDown: boolean): UprightCylinder[] {
  if (state.holds !== "edgeFinder") return [...shape.rigid];
  const tip = { radiusMm: shape.tipRadiusMm, fromMm: 0, toMm: EDGE_FINDER_TIP_HEIGHT_MM };
  return isQuick || isDown ? [tip, ...shape.rigid] : [...shape.rigid];
}

function strike(draft: Draft, on: Surface): void {
  const { state } = draft;
  const { seed } = state.truth;
  const turn = state.incidents.length;
  const common = { type: "incidentHappened" as const, on, stopsMachine: true, isSilent: false, failsOutright: false };
  if (state.holds === "edgeFinder") draft.emit({ ...common, code: "finderBroken", thing: "edgeFinder" });
  else if (state.holds === null) draft.emit({ ...common, code: "noseStruck", failsOutright: true });
  else {
    const shorterMm = Math.round(drawBetween(0.05, 0.3, seed, "chip", turn) * 1e4) / 1e4;
    draft.emit({ ...common, code: "toolChipped", thing: state.holds, shorterMm });
  }
}

/** Hard contact after one small step. Returns true when something was felt. */
function senseHard(draft: Draft, from: AxisCounts, clickMm: number): boolean {
  const { state } = draft;
  const shape = shapeOf(state);
  const boxes = trueBoxes(state);
  const isDown = state.position.z < from.z;
  const parts = hardParts(state, shape, false, isDown);
  const now = deepest(parts, tipPoint(state, state.position), boxes);
  if (now.mm <= TOUCH_MM) {
    if (state.resting) draft.emit({ type: "leftHard" });
    return false;
  }
  const before = deepest(parts, tipPoint(state, from), boxes);
  if (now.mm <= before.mm + TOUCH_MM) return false;
  if (clickMm > shape.survivesClickMm || now.mm > LEAN_MM) {
    strike(draft, now.on);
    return true;
  }
  if (state.resting) return false;
  draft.emit({ type: "touchedHard", on: now.on });
  return true;
}

/** Gap between the edge finder's tip and the blank as the tip meets it, and where its parts come from; null above the blank. */
function finderGap(state: LaneState): { gapMm: number; axis: "x" | "y"; approach: 1 | -1; burrMm: number; lateMm: number } | null {
  const { stock } = trueBoxes(state);
  const tip = tipPoint(state, state.position);
  const depthMm = stock.high.z - tip.z;
  if (depthMm <= 0 || tip.z + EDGE_FINDER_TIP_HEIGHT_MM < stock.low.z) return null;
  const dx = Math.max(stock.low.x - tip.x, tip.x - stock.high.x);
  const dy = Math.max(stock.low.y - tip.y, tip.y - stock.high.y);
  const axis = dx >= dy ? "x" : "y";
  const middle = (stock.low[axis] + stock.high[axis]) / 2;
  const burrMm = state.isBurrDressed ? 0 : state.truth.burrMm[axis];
  const lateMm = lateOnEdgeBreakMm(depthMm, state.truth.edgeBreakMm);
  const gapMm =
    signedGapMm(tip.x, tip.y, stock) - burrMm + lateMm - state.setup.tipDiameterMm / 2 - state.finder.bendMm;
  return { gapMm, axis, approach: tip[axis] < middle ? 1 : -1, burrMm, lateMm };
}

/** What the edge finder shows after a step. Returns true when the student would see something change. */
function senseFinder(draft: Draft, clickMm: number): boolean {
  if (draft.state.holds !== "edgeFinder" || draft.state.finder.condition === "broken") return false;
  const met = finderGap(draft.state);
  const { seed } = draft.state.truth;
  const gapMm = met?.gapMm ?? Infinity;
  let { finder } = draft.state;
  if (finder.approach === null) {
    const next = drawApproach(seed, finder.copy, finder.approachesMade + 1, finder.ownKickMm);
    if (gapMm > (next.thresholdsMm[0] ?? 0)) return false;
    draft.emit({ type: "approachBegan", approach: { ...next, thresholdsMm: [...next.thresholdsMm] } });
    finder = draft.state.finder;
  } else if (gapMm > finder.approach.overMm) {
    draft.emit({ type: "approachEnded" });
    return finder.tip === "wobbling" && draft.state.spindle.isOn;
  }
  const { approach } = finder;
  if (!approach || !met) return false;
  const travel = overTravel(gapMm, draft.state.setup.tipDiameterMm / 2);
  if (travel === "broken") {
    strike(draft, "stock");
    return true;
  }
  if (travel === "bent" && finder.condition === "sound") {
    draft.emit({
      type: "incidentHappened", code: "finderBent", isSilent: true, failsOutright: false, stopsMachine: false, thing: "edgeFinder",
      bendMm: Math.round(drawBendMm(seed, finder.copy, draft.state.incidents.length) * 1e4) / 1e4,
    });
  }
  const { spindle, sight } = draft.state;
  if (!spindle.isOn || finder.tip === "aside") return false;
  if (hasKicked(gapMm, approach.kickPastMm, spindle.rpm)) {
    const isSeen = seesKick(sight, met.axis);
    const wasTrue = finder.wobble === "true" || finder.tip === "still";
    draft.emit({
      type: "kicked", axis: met.axis, approach: met.approach, atCounts: draft.state.position[met.axis], isSeen,
      parts: {
        kickPastMm: approach.kickPastMm, burrMm: met.burrMm, lateMm: met.lateMm, bendMm: draft.state.finder.bendMm, clickMm,
      },
    });
    return isSeen || !wasTrue;
  }
  const wobble = wobbleAt(gapMm, approach.thresholdsMm);
  if (finder.tip !== "wobbling" || wobble === finder.wobble) return false;
  draft.emit({ type: "wobbleChanged", wobble });
  return true;
}

/** Gap under the tip down to a surface, mm. */
export function gapOverMm(state: LaneState, on: Surface): number {
  return tipPoint(state, state.position).z - trueBoxes(state)[on].high.z;
}

/** What the fingers feel after a step with paper in place. */
function sensePaper(draft: Draft, clickMm: number): boolean {
  const { paper, truth, position } = draft.state;
  if (!paper) return false;
  const on = surfaceBelow(draft.state) ?? paper.on;
  const feel = feelAt(gapOverMm(draft.state, on), truth.sheetMm);
  if (feel === "torn") {
    draft.emit({ type: "paperFelt", on, feel, machineZ: position.z, clickMm });
    draft.emit({ type: "incidentHappened", code: "paperTorn", isSilent: false, failsOutright: false, stopsMachine: false, on });
    draft.emit({ type: "paperPulled" });
    return true;
  }
  if (feel === paper.feel && feel === "slides") return false;
  const isChange = feel !== paper.feel;
  draft.emit({ type: "paperFelt", on, feel, machineZ: position.z, clickMm });
  return isChange;
}

function senseAll(draft: Draft, from: AxisCounts, clickMm: number): boolean {
  const incidentsBefore = draft.state.incidents.length;
  const paper = sensePaper(draft, clickMm);
  const hard = senseHard(draft, from, clickMm);
  if (draft.state.incidents.length > incidentsBefore && draft.state.isStopped) return true;
  return senseFinder(draft, clickMm) || hard || paper;
}

/** True when a position lies inside the machine's travel on that axis. */
export const isInTravel = (axis: Axis, counts: number): boolean =>
  counts >= bench.travelCounts[axis][0] && counts <= bench.travelCounts[axis][1];

/**
 * Clicks on one axis, one after another; stops after the click at which something is first felt or seen, and before travel
 * ends. A click is never divided: a contact made within it is late by what was left of it.
 */
export function jog(draft: Draft, axis: Axis, direction: 1 | -1, clicks: number, size: JogSize): void {
  const clickMm = jogSizesMm[size];
  const stepCounts = direction * countsFromMm(clickMm);
  let done = 0;
  let to = draft.state.position;
  const flush = () => {
    if (done > 0) draft.emit({ type: "jogged", axis, size, direction, clicks: done, to });
    done = 0;
  };
  for (let click = 0; click < clicks; click++) {
    const from = to;
    const next = { ...from, [axis]: from[axis] + stepCounts };
    if (!isInTravel(axis, next[axis])) break;
    to = next;
    done += 1;
    const probe = new Draft({ ...draft.state, position: to });
    const isFelt = size === "rapid" ? senseQuick(probe, from, to) : senseAll(probe, from, clickMm);
    if (probe.events.length === 0) continue;
    if (isFelt && size === "rapid" && probe.state.isStopped) to = probe.state.position;
    flush();
    for (const event of probe.events) if (event.type !== "moved") draft.emit(event);
    if (isFelt) break;
  }
  flush();
}

/** A rapid click: the tip is hard to everything; a strike stops the machine where it happens. */
function senseQuick(draft: Draft, from: AxisCounts, to: AxisCounts): boolean {
  const hit = quickContact(draft.state, from, to);
  if (hit) {
    draft.emit({ type: "moved", to: hit.at, isRapid: true });
    if (draft.state.paper) draft.emit({ type: "paperPulled" });
    strike(draft, hit.on);
    return true;
  }
  return sensePaper(draft, 1) || senseFinder(draft, 1);
}

function quickContact(state: LaneState, from: AxisCounts, to: AxisCounts): { on: Surface; at: AxisCounts } | null {
  const boxes = trueBoxes(state);
  const [a, b] = [tipPoint(state, from), tipPoint(state, to)];
  const whole = hardParts(state, shapeOf(state), true, true);
  // what already leans on something (a kicked tip, a resting tool) may slide along it and leave it, and go no deeper
  const leaning = Math.max(0, deepest(whole, a, boxes).mm) + TOUCH_MM;
  const parts = whole.map((part) => ({ radiusMm: part.radiusMm - leaning, fromMm: part.fromMm + leaning, toMm: part.toMm }));
  let first: { t: number; on: Surface } | null = null;
  for (const on of SURFACES) {
    for (const part of parts) {
      const t = firstContact(a, b, part, boxes[on]);
      if (t !== null && (first === null || t < first.t)) first = { t, on };
    }
  }
  if (!first) return null;
  const { t } = first;
  const at = Object.fromEntries(axes.map((axis) => [axis, Math.round(from[axis] + (to[axis] - from[axis]) * t)])) as Record<Axis, number>;
  return { on: first.on, at };
}

/** A straight typed move, all axes together. */
export function moveStraight(draft: Draft, to: AxisCounts, isRapid: boolean): void {
  const from = draft.state.position;
  const hit = quickContact(draft.state, from, to);
  draft.emit({ type: "moved", to: hit?.at ?? to, isRapid });
  if (hit) {
    if (draft.state.paper) draft.emit({ type: "paperPulled" });
    strike(draft, hit.on);
    return;
  }
  if (draft.state.resting) draft.emit({ type: "leftHard" });
  sensePaper(draft, 1);
  senseFinder(draft, 1);
}

/** What changes when the spindle starts, stops or the tip is nudged, without a move. */
export function senseInPlace(draft: Draft): LaneEvent[] {
  senseFinder(draft, 0);
  return draft.events;
}
