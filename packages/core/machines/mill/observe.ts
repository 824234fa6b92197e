import { type Wobble } from "../../instruments/edgeFinder";
import { type MillEvidence, type MillLane } from "./lane";
import { isBroken } from "./evidence";
import { tasterReads } from "./acts/taster/act";
import { TASTER_REST_MM } from "../../instruments/taster";
import { seesKick } from "./acts/edgeFinder/act";
import { sceneBoxes, type Scene, type Surface } from "../../exercises/scene";
import { shapes, toolNumber, type Shape, type Thing } from "../../instruments/things";
import { seenLengthMm, seenScene, surfaceBelow } from "./eye";
import { shapeFor } from "./solids";
import { seenBase, type SeenBase } from "../../lane/observe";
import { type MillSetup } from "../../exercises/setup";
import { displayCounts, type AxisCounts } from "../../registers/mill";
import { type BoxMm } from "../../geometry/contact";
import { type Gate } from "../../lane/gates";
import { millGates, type MillGateKind } from "./gates";
import { type CoachStep } from "../../lane/coach";
import { MILL_DOOR_LIMIT_RPM } from "./rules";
import { standsOverZero } from "./checking";
import { programSeen } from "../program/observe";
import { millProgramPorts } from "./program";
/** What eyes and fingers tell of the tip of an instrument from where the student stands. */
export type TipSeen =
  | { readonly kind: "still" }
  | { readonly kind: "running"; readonly wobble: Wobble }
  | { readonly kind: "aside" }
  | { readonly kind: "destroyed" }
  /**
   * The taster's dial, mm: the small hand counts turns of 1, the large hand the rest; `touches` when the ball leans on
   * something.
   */
  | { readonly kind: "dial"; readonly readsMm: number; readonly isTouching: boolean; readonly isTrued: boolean }
  /** The probe's lamp. */
  | { readonly kind: "probe"; readonly isTriggered: boolean };

function tipSeen(state: MillLane): TipSeen | null {
  const { holds, finder, spindle, sight } = state;
  if (holds === "taster") {
    if (isBroken(state, "taster")) return { kind: "destroyed" };
    return {
      kind: "dial",
      readsMm: state.taster.touch ? tasterReads(state) : TASTER_REST_MM,
      isTouching: state.taster.touch !== null,
      isTrued: state.taster.isTrued,
    };
  }
  if (holds === "probe")
    return isBroken(state, "probe")
      ? { kind: "destroyed" }
      : { kind: "probe", isTriggered: state.probe.touch !== null };
  if (holds === "indicator") return isBroken(state, "indicator") ? { kind: "destroyed" } : null;
  if (holds !== "edgeFinder") return null;
  if (finder.condition === "broken") return { kind: "destroyed" };
  if (finder.tip === "aside" && finder.kickAxis && seesKick(sight, finder.kickAxis)) return { kind: "aside" };
  if (!spindle.isOn) return { kind: "still" };
  return { kind: "running", wobble: finder.tip === "wobbling" ? finder.wobble : "true" };
}

const boxesOf = new WeakMap<Scene, MillSeen["boxes"]>();

function boxesFor(scene: Scene): MillSeen["boxes"] {
  const known = boxesOf.get(scene);
  if (known) return known;
  const boxes = sceneBoxes(scene);
  boxesOf.set(scene, boxes);
  return boxes;
}

const outlines = new Map<string, Shape>();

/** The outline of what is held at the precision of an eye; kept, because it is asked for after every click. */
function outlineOf(state: MillLane): Shape {
  const lengthMm = seenLengthMm(state, state.holds);
  const key = `${state.holds ?? ""}|${lengthMm}|${state.setup.tipDiameterMm}|${state.setup.tools.find(({ number }) => number === toolNumber(state.holds))?.diameterMm ?? 0}|${state.setup.exerciseId}`;
  const known = outlines.get(key);
  if (known) return known;
  if (outlines.size > 400) outlines.clear();
  const shape = state.holds === null ? shapes.nose() : shapeFor(state.setup, state.holds, lengthMm);
  outlines.set(key, shape);
  return shape;
}

/** What may be seen of a lane on a mill. */
export interface MillSeen extends SeenBase {
  readonly kind: "mill";
  readonly sheet: MillSetup;
  readonly work: AxisCounts;
  readonly doorLimitRpm: number;
  readonly quarter: number;
  readonly holds: Thing | null;
  readonly isLoadedByChanger: boolean;
  readonly tip: TipSeen | null;
  readonly resting: Surface | null;
  readonly paper: MillLane["paper"];
  readonly block: MillLane["block"];
  readonly lastTry: MillLane["blocks"]["last"];
  /** The height gauge: where it stands and whether its lamp is lit; the setter's trigger. */
  readonly lamp: { readonly on: Surface; readonly isLit: boolean } | null;
  readonly isSetterTriggered: boolean;
  readonly isTipBlown: boolean;
  readonly below: Surface | null;
  /** Everything solid, placed as an eye sees it. */
  readonly solids: Scene;
  readonly boxes: Readonly<Partial<Record<Surface, BoxMm>> & Record<"stock" | "table", BoxMm>>;
  /** From the gauge line to the tip, as an eye sees it, mm, and the outline of what hangs there. */
  readonly heldLengthMm: number;
  readonly heldShape: Shape;
  /** What stands for the cards of the sheet: a successor's own, or what was calibrated, mm. */
  readonly cards: MillLane["cards"];
  /** Points that the control keeps. */
  readonly points: MillLane["points"];
  readonly isBurrDressed: boolean;
  readonly isOverZero: boolean;
  readonly evidence: MillEvidence;
  readonly gates: readonly Gate<MillGateKind>[];
  readonly coach: CoachStep<string> | null;
}

/** What may be seen of a lane on a mill, without what the coach makes of it. */
export function millSeen(state: MillLane, viewer: "student" | "instructor"): Omit<MillSeen, "coach"> {
  const solids = seenScene(state);
  const base = seenBase(state, viewer);
  return {
    kind: "mill",
    sheet: state.setup,
    ...base,
    ...programSeen(millProgramPorts, state),
    work: displayCounts(state.registers, state.position, state.modal.workOffset, base.lengthCounts),
    doorLimitRpm: MILL_DOOR_LIMIT_RPM,
    quarter: state.carried.quarter,
    holds: state.holds,
    isLoadedByChanger: state.carried.isByChanger,
    tip: tipSeen(state),
    resting: state.resting,
    paper: state.paper,
    block: state.block,
    lastTry: state.blocks.last,
    lamp: state.seat.lamp ? { on: state.seat.lamp.on, isLit: state.lamp.touch !== null } : null,
    isSetterTriggered: state.setter.touch !== null,
    isTipBlown: state.holds !== null && state.blocks.blown.includes(state.holds),
    below: surfaceBelow(state),
    solids,
    boxes: boxesFor(solids),
    heldLengthMm: seenLengthMm(state, state.holds),
    heldShape: outlineOf(state),
    cards: state.cards,
    points: state.points,
    isBurrDressed: state.isBurrDressed,
    isOverZero: standsOverZero(state),
    evidence: state.evidence,
    gates: millGates(state),
  };
}
