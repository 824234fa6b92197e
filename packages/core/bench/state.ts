import { assertNever } from "../result";
import { emptyMillRegisters, writeRegister, type Axis, type AxisCounts, type MillRegisterId, type MillRegisters, type WorkOffsetName } from "../registers";
import { countsFromMm, type Counts } from "../units";
import type { Setup, Surface, Truth } from "../exercises";
import type { EdgeFinderApproach, Feel, Thing, Wobble } from "../instruments";
import type { MotionMode } from "../gcode";
import type { Side, TermName } from "./commands";
import type { EventOf, IncidentCode, LaneEvent } from "./events";

export interface LedgerLine {
  readonly line: number;
  readonly register: MillRegisterId;
  readonly kind: "reading" | "term" | "sum";
  readonly term?: TermName | undefined;
  readonly counts: Counts;
}

interface FinderState {
  readonly copy: number;
  readonly ownKickMm: number;
  readonly condition: "sound" | "bent" | "broken";
  readonly bendMm: number;
  readonly tip: "still" | "wobbling" | "aside";
  /** The axis on which the last kick was made; the tip then stands aside along the other one. */
  readonly kickAxis: "x" | "y" | null;
  readonly isKickSeen: boolean;
  readonly approach: EdgeFinderApproach | null;
  readonly approachesMade: number;
  readonly wobble: Wobble;
}

/** What gates and coach look at: what was done, never whether it is right. */
interface Evidence {
  readonly kicks: Readonly<Record<"x" | "y", number>>;
  readonly isSetAfterKick: Readonly<Record<"x" | "y", boolean>>;
  readonly paperFelt: number;
  readonly isZSetAfterPaper: boolean;
  readonly sidesOverZero: readonly Side[];
}

export interface LaneState {
  readonly setup: Setup;
  readonly truth: Truth;
  readonly isCoachOn: boolean;
  readonly position: AxisCounts;
  readonly isHomed: boolean;
  readonly isDoorOpen: boolean;
  readonly sight: Side;
  readonly spindle: { readonly isOn: boolean; readonly direction: "forward" | "reverse"; readonly rpm: number };
  readonly rememberedRpm: number;
  readonly modal: {
    readonly motion: MotionMode; readonly distance: "absolute" | "incremental"; readonly workOffset: WorkOffsetName;
    readonly lengthRow: number | null; readonly feedMmPerMin: number | null; readonly tool: number | null;
  };
  readonly counterZero: AxisCounts;
  readonly registers: MillRegisters;
  readonly undo: readonly { readonly register: MillRegisterId; readonly counts: Counts }[];
  readonly holds: Thing | null;
  readonly finder: FinderState;
  /** How much shorter an incident made each solid tool, mm. */
  readonly shorterMm: Readonly<Record<"pointedTool" | "tool1", number>>;
  readonly resting: Surface | null;
  readonly paper: { readonly on: Surface; readonly feel: Feel } | null;
  readonly isBurrDressed: boolean;
  readonly isStopped: boolean;
  readonly isHandUp: boolean;
  readonly isHandedIn: boolean;
  readonly ledger: readonly LedgerLine[];
  readonly linesWritten: number;
  readonly incidents: readonly { readonly code: IncidentCode; readonly isSilent: boolean }[];
  readonly evidence: Evidence;
}

const HOME: AxisCounts = { x: 0, y: 0, z: 0 };
/** Where the job before left the machine, before the reference return. */
const PARKED: AxisCounts = { x: -40_000, y: -30_000, z: -15_000 };
const UNDO_DEPTH = 20;

function opened(event: EventOf<"laneOpened">): LaneState {
  const { setup, truth, isCoachOn, finderOwnKickMm } = event;
  return {
    setup, truth, isCoachOn,
    position: PARKED, isHomed: false, isDoorOpen: false, sight: "front",
    spindle: { isOn: false, direction: "forward", rpm: 0 },
    rememberedRpm: setup.rememberedRpm,
    modal: { motion: "rapid", distance: "absolute", workOffset: "G54", lengthRow: null, feedMmPerMin: null, tool: null },
    counterZero: HOME,
    registers: writeRegister(emptyMillRegisters(), "G54.z", countsFromMm(setup.leftoverWorkZMm)),
    undo: [], holds: null,
    finder: newFinder(1, finderOwnKickMm),
    shorterMm: { pointedTool: 0, tool1: 0 },
    resting: null, paper: null, isBurrDressed: false, isStopped: false, isHandUp: false, isHandedIn: false,
    ledger: [], linesWritten: 0, incidents: [],
    evidence: { kicks: { x: 0, y: 0 }, isSetAfterKick: { x: false, y: false }, paperFelt: 0, isZSetAfterPaper: false, sidesOverZero: [] },
  };
}

const newFinder = (copy: number, ownKickMm: number): FinderState => ({
  copy, ownKickMm, condition: "sound", bendMm: 0, tip: "still", kickAxis: null, isKickSeen: false, approach: null, approachesMade: 0, wobble: "wide",
});

function withRegister(state: LaneState, event: EventOf<"registerChanged">): LaneState {
  const { register, from, to, how } = event;
  const { evidence, modal } = state;
  const undo = how === "undone" ? state.undo.slice(0, -1) : [...state.undo, { register, counts: from }].slice(-UNDO_DEPTH);
  const axis = register.endsWith(".x") ? "x" : register.endsWith(".y") ? "y" : "z";
  const isInUse = register.startsWith(modal.workOffset) || register.startsWith("common") || register.startsWith("H");
  const next =
    !isInUse ? evidence
    : axis === "z" ? (evidence.paperFelt > 0 ? { ...evidence, isZSetAfterPaper: true } : evidence)
    : evidence.kicks[axis] > 0 ? { ...evidence, isSetAfterKick: { ...evidence.isSetAfterKick, [axis]: true } } : evidence;
  return { ...state, registers: writeRegister(state.registers, register, to), undo, evidence: next };
}

function withKick(state: LaneState, { axis, isSeen }: EventOf<"kicked">): LaneState {
  const { evidence } = state;
  return {
    ...state,
    finder: { ...state.finder, tip: "aside", kickAxis: axis, isKickSeen: isSeen, wobble: "true" },
    evidence: isSeen ? withKickSeen(evidence, axis) : evidence,
  };
}

const withKickSeen = (evidence: Evidence, axis: "x" | "y"): Evidence =>
  ({ ...evidence, kicks: { ...evidence.kicks, [axis]: evidence.kicks[axis] + 1 } });

/**
 * Whether a tip that stands aside can be told from this side. The part drags the tip along its face, so a kick met on X
 * goes along Y and is hardly seen by who looks along Y.
 */
export const seesKick = (side: Side, kickAxis: "x" | "y"): boolean =>
  (kickAxis === "x") === (side === "left" || side === "right");

function withIncident(state: LaneState, event: EventOf<"incidentHappened">): LaneState {
  const { code, isSilent, stopsMachine, bendMm = 0, shorterMm = 0, thing } = event;
  const { finder } = state;
  const hurtFinder =
    code === "finderBent" ? { ...finder, condition: "bent" as const, bendMm: finder.bendMm + bendMm }
    : code === "finderThrown" || code === "finderBroken" ? { ...finder, condition: "broken" as const, tip: "still" as const }
    : finder;
  return {
    ...state,
    finder: hurtFinder,
    shorterMm: thing === "tool1" || thing === "pointedTool"
      ? { ...state.shorterMm, [thing]: state.shorterMm[thing] + shorterMm } : state.shorterMm,
    isStopped: state.isStopped || stopsMachine,
    spindle: stopsMachine ? { ...state.spindle, isOn: false, rpm: 0 } : state.spindle,
    incidents: [...state.incidents, { code, isSilent }],
  };
}

function withModal(state: LaneState, { type: _type, ...change }: EventOf<"modalChanged">): LaneState {
  return { ...state, modal: { ...state.modal, ...change } };
}

/** The tip is pushed back true when it is taken out; a kicked tip stays aside only while it hangs in the spindle. */
const tipAtRest = (state: LaneState): FinderState => ({ ...state.finder, tip: "still", kickAxis: null, isKickSeen: false, approach: null, wobble: "wide" });

/** The state after one fact. Pure; may not refuse. The first fact of a lane is `laneOpened`. */
export function evolve(state: LaneState | null, event: LaneEvent): LaneState {
  if (event.type === "laneOpened") {
    if (state) throw new Error("evolve: laneOpened must be the first event");
    return opened(event);
  }
  if (!state) throw new Error(`evolve: a lane must begin with laneOpened: ${event.type}`);
  switch (event.type) {
    case "homed": return { ...state, position: HOME, isHomed: true };
    case "jogged": return { ...state, position: event.to };
    case "moved": return { ...state, position: event.to };
    case "loaded": return { ...state, holds: event.thing };
    case "finderReplaced": return { ...state, finder: newFinder(event.copy, event.ownKickMm) };
    case "unloaded": return { ...state, holds: null, finder: tipAtRest(state), resting: null };
    case "spindleStarted":
      return { ...state, spindle: { isOn: true, direction: event.direction, rpm: event.rpm }, rememberedRpm: event.rpm };
    case "spindleStopped": return { ...state, spindle: { ...state.spindle, isOn: false, rpm: 0 } };
    case "speedSet":
      return {
        ...state, rememberedRpm: event.rpm,
        spindle: state.spindle.isOn ? { ...state.spindle, rpm: event.rpm } : state.spindle,
      };
    case "doorSet": return { ...state, isDoorOpen: event.isOpen };
    case "lookedFrom": return withLook(state, event);
    case "setWobbling": return { ...state, finder: { ...state.finder, tip: "wobbling", kickAxis: null, isKickSeen: false, wobble: "wide" } };
    case "approachBegan":
      return { ...state, finder: { ...state.finder, approach: event.approach, approachesMade: event.approach.number } };
    case "approachEnded": return { ...state, finder: { ...state.finder, approach: null, wobble: "wide" } };
    case "wobbleChanged": return { ...state, finder: { ...state.finder, wobble: event.wobble } };
    case "kicked": return withKick(state, event);
    case "touchedHard": return { ...state, resting: event.on };
    case "leftHard": return { ...state, resting: null };
    case "paperPlaced": return { ...state, paper: { on: event.on, feel: event.feel } };
    case "paperFelt": return withFeel(state, event);
    case "paperPulled": return { ...state, paper: null };
    case "burrDressed": return { ...state, isBurrDressed: true };
    case "counterZeroed": return { ...state, counterZero: { ...state.counterZero, [event.axis]: event.at } };
    case "registerChanged": return withRegister(state, event);
    case "modalChanged": return withModal(state, event);
    case "incidentHappened": return withIncident(state, event);
    case "machineReset": return { ...state, isStopped: false };
    case "lineWritten":
      return {
        ...state, linesWritten: event.line,
        ledger: [...state.ledger, { line: event.line, register: event.register, kind: event.kind, term: event.term, counts: event.counts }],
      };
    case "lineStruck": return { ...state, ledger: state.ledger.filter(({ line }) => line !== event.line) };
    case "handRaised": return { ...state, isHandUp: true };
    case "handLowered": return { ...state, isHandUp: false };
    case "handedIn": return { ...state, isHandedIn: true, isHandUp: false };
    case "blockRan":
    case "commandRefused": return state;
    default: return assertNever(event, "evolve");
  }
}

function withLook(state: LaneState, { side, isOverZero }: EventOf<"lookedFrom">): LaneState {
  const { finder } = state;
  const isNewlySeen = finder.tip === "aside" && finder.kickAxis !== null && !finder.isKickSeen && seesKick(side, finder.kickAxis);
  const evidence = isNewlySeen && finder.kickAxis ? withKickSeen(state.evidence, finder.kickAxis) : state.evidence;
  const isNew = isOverZero && !evidence.sidesOverZero.includes(side);
  return {
    ...state, sight: side, finder: isNewlySeen ? { ...finder, isKickSeen: true } : finder,
    evidence: isNew ? { ...evidence, sidesOverZero: [...evidence.sidesOverZero, side] } : evidence,
  };
}

function withFeel(state: LaneState, { on, feel }: EventOf<"paperFelt">): LaneState {
  const { evidence } = state;
  const isContact = feel === "drags" || feel === "held";
  return {
    ...state, paper: { on, feel },
    evidence: isContact ? { ...evidence, paperFelt: evidence.paperFelt + 1 } : evidence,
  };
}

/** State after a whole log. */
export function replay(events: readonly LaneEvent[]): LaneState {
  const [first, ...rest] = events;
  if (!first) throw new Error("replay: an empty log has no state");
  return foldFrom(evolve(null, first), rest);
}

export const foldFrom = (state: LaneState, events: readonly LaneEvent[]): LaneState =>
  events.reduce<LaneState>((at, event) => evolve(at, event), state);

export const axes: readonly Axis[] = ["x", "y", "z"];
