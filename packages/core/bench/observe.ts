import { sceneBoxes, type Scene, type Setup, type Surface } from "../exercises";
import type { BoxMm } from "../geometry";
import { shapes, TASTER_REST_MM, toolNumber, type Shape, type Thing, type Wobble } from "../instruments";
import { displayCounts, type AxisCounts, type Registers } from "../registers";
import type { Counts, LengthUnit } from "../units";
import { coachStep, type CoachStep } from "./coach";
import { standsOverZero } from "./checking";
import type { Side } from "./commands";
import { seenLengthMm, seenScene, surfaceBelow } from "./eye";
import type { IncidentCode } from "./events";
import { gatesOf, type Gate } from "./gates";
import { turretDisplay } from "./lathe/display";
import { latheSeen, sheetSeen, type LatheSeen } from "./lathe/observe";
import { guardCounts, travelCounts } from "./machine";
import { doorLimitRpm } from "./spindle";
import { tasterReads } from "./sensing";
import { shapeFor } from "./solids";
import { lengthInUse, seesKick, type LaneState, type LedgerLine, type Reading } from "./state";

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

/**
 * Everything that leaves the server about a lane before hand-in. Places are at the precision of an eye; instruments
 * read what they read.
 */
export interface Observation {
  readonly sheet: Setup;
  readonly isCoachOn: boolean;
  readonly machine: AxisCounts;
  readonly work: AxisCounts;
  readonly counter: AxisCounts;
  readonly travelCounts: (typeof travelCounts)[LengthUnit];
  readonly isHomed: boolean;
  readonly isDoorOpen: boolean;
  readonly isStopped: boolean;
  readonly sight: Side;
  readonly spindle: LaneState["spindle"];
  readonly quarter: number;
  readonly rememberedRpm: number;
  readonly doorLimitRpm: number;
  readonly guardCounts: Counts;
  readonly modal: LaneState["modal"];
  readonly lengthCounts: Counts;
  readonly registers: Registers;
  readonly lastUndo: LaneState["desk"]["undo"][number] | null;
  readonly holds: Thing | null;
  readonly isLoadedByChanger: boolean;
  readonly tip: TipSeen | null;
  readonly resting: Surface | null;
  readonly paper: LaneState["paper"];
  readonly block: LaneState["block"];
  readonly lastTry: LaneState["blocks"]["last"];
  readonly areBlocksWiped: boolean;
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
  readonly tasksDone: LaneState["tasksDone"];
  readonly isBurrDressed: boolean;
  readonly isHandUp: boolean;
  readonly isHandedIn: boolean;
  readonly readings: readonly Reading[];
  readonly ledger: readonly LedgerLine[];
  readonly check: LaneState["desk"]["check"];
  readonly verdict: LaneState["desk"]["verdict"];
  readonly isOverZero: boolean;
  readonly incidents: readonly IncidentCode[];
  readonly evidence: LaneState["evidence"];
  /** Only on a lathe. */
  readonly lathe: LatheSeen | null;
  readonly gates: readonly Gate[];
  readonly coach: CoachStep | null;
}

/** What never changes while a lane is worked: sent once, when it is opened. */
export type ObservationNow = Omit<
  Observation,
  "sheet" | "travelCounts" | "isCoachOn" | "doorLimitRpm" | "guardCounts" | "solids" | "boxes"
> &
  Partial<Pick<Observation, "solids" | "boxes">>;

/**
 * An observation without what never changes; the solids only when the blank or a gauge may have moved since `before`.
 */
export function nowOf(observation: Observation, before?: Scene): ObservationNow {
  const {
    sheet: _sheet,
    travelCounts: _travel,
    isCoachOn: _coach,
    doorLimitRpm: _door,
    guardCounts: _guard,
    solids,
    boxes,
    ...now
  } = observation;
  return before === solids ? now : { ...now, solids, boxes };
}

function tipSeen(state: LaneState): TipSeen | null {
  const { holds, finder, spindle, sight } = state;
  if (holds === "taster") {
    if (state.taster.isBroken) return { kind: "destroyed" };
    return {
      kind: "dial",
      readsMm: state.taster.touch ? tasterReads(state) : TASTER_REST_MM,
      isTouching: state.taster.touch !== null,
      isTrued: state.taster.isTrued,
    };
  }
  if (holds === "probe")
    return state.probe.isBroken ? { kind: "destroyed" } : { kind: "probe", isTriggered: state.probe.touch !== null };
  if (holds === "indicator") return state.harm.isIndicatorBroken ? { kind: "destroyed" } : null;
  if (holds !== "edgeFinder") return null;
  if (finder.condition === "broken") return { kind: "destroyed" };
  if (finder.tip === "aside" && finder.kickAxis && seesKick(sight, finder.kickAxis)) return { kind: "aside" };
  if (!spindle.isOn) return { kind: "still" };
  return { kind: "running", wobble: finder.tip === "wobbling" ? finder.wobble : "true" };
}

const boxesOf = new WeakMap<Scene, Observation["boxes"]>();
function boxesFor(scene: Scene): Observation["boxes"] {
  const known = boxesOf.get(scene);
  if (known) return known;
  const boxes = sceneBoxes(scene);
  boxesOf.set(scene, boxes);
  return boxes;
}

const outlines = new Map<string, Shape>();
/** The outline of what is held at the precision of an eye; kept, because it is asked for after every click. */
function outlineOf(state: LaneState): Shape {
  const lengthMm = seenLengthMm(state, state.holds);
  const key = `${state.holds ?? ""}|${lengthMm}|${state.setup.tipDiameterMm}|${state.setup.tools.find(({ number }) => number === toolNumber(state.holds))?.diameterMm ?? 0}|${state.setup.exerciseId}`;
  const known = outlines.get(key);
  if (known) return known;
  if (outlines.size > 400) outlines.clear();
  const shape = state.holds === null ? shapes.nose() : shapeFor(state.setup, state.holds, lengthMm);
  outlines.set(key, shape);
  return shape;
}

/** The work display; on a lathe less the offset row in use. */
function workCounts(state: LaneState, lengthCounts: Counts): AxisCounts {
  const work = displayCounts(state.registers, state.position, state.modal.workOffset, lengthCounts);
  return state.lathe ? { ...work, x: turretDisplay(state, "x"), z: turretDisplay(state, "z") } : work;
}

/** What may be seen of a lane. An instructor also sees the incidents that say nothing. */
export function observe(state: LaneState, viewer: "student" | "instructor"): Observation {
  const { registers, position, modal, counterZero, setup } = state;
  const lengthCounts = lengthInUse(state);
  const solids = seenScene(state);
  const seen: Omit<Observation, "coach"> = {
    sheet: sheetSeen(setup),
    isCoachOn: state.isCoachOn,
    machine: position,
    work: workCounts(state, lengthCounts),
    counter: { x: position.x - counterZero.x, y: position.y - counterZero.y, z: position.z - counterZero.z },
    travelCounts: travelCounts[setup.unit],
    isHomed: state.isHomed,
    isDoorOpen: state.isDoorOpen,
    isStopped: state.isStopped,
    sight: state.sight,
    spindle: state.spindle,
    quarter: state.carried.quarter,
    rememberedRpm: state.rememberedRpm,
    doorLimitRpm: doorLimitRpm(state),
    guardCounts: guardCounts[setup.unit],
    modal,
    lengthCounts,
    registers,
    lastUndo: state.desk.undo.at(-1) ?? null,
    holds: state.holds,
    isLoadedByChanger: state.carried.isByChanger,
    tip: tipSeen(state),
    resting: state.resting,
    paper: state.paper,
    block: state.block,
    lastTry: state.blocks.last,
    areBlocksWiped: state.blocks.areWiped,
    lamp: state.seat.lamp ? { on: state.seat.lamp.on, isLit: state.lamp.touch !== null } : null,
    isSetterTriggered: state.setter.touch !== null,
    isTipBlown: state.holds !== null && state.blocks.blown.includes(state.holds),
    below: surfaceBelow(state),
    solids,
    boxes: boxesFor(solids),
    heldLengthMm: seenLengthMm(state, state.holds),
    heldShape: outlineOf(state),
    tasksDone: state.tasksDone,
    isBurrDressed: state.isBurrDressed,
    isHandUp: state.isHandUp,
    isHandedIn: state.isHandedIn,
    readings: state.desk.readings,
    ledger: state.desk.ledger,
    check: state.desk.check,
    verdict: state.desk.verdict,
    isOverZero: standsOverZero(state),
    incidents: state.incidents.filter(({ isSilent }) => viewer === "instructor" || !isSilent).map(({ code }) => code),
    evidence: state.evidence,
    lathe: latheSeen(state),
    gates: gatesOf(state),
  };
  return { ...seen, coach: state.isCoachOn ? coachStep(seen) : null };
}
