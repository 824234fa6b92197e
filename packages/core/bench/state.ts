import { assertNever } from "../result";
import {
  emptyMillRegisters,
  emptyTurret,
  isRegisterId,
  lengthSum,
  registerKind,
  writeRegister,
  type Axis,
  type AxisCounts,
  type RegisterId,
  type Registers,
  type WorkOffsetName,
} from "../registers";
import { scales, toCounts, type Counts, type Scale } from "../units";
import type { MillLengthSchool, Setup, SetupTask, Surface, Truth } from "../exercises";
import { evolveLathe, openedLathe, withMeasured, withTurretSet, type LatheState } from "./lathe/state";
import { toolNumber, type EdgeFinderApproach, type Feel, type Thing, type Wobble } from "../instruments";
import type { MotionMode } from "../gcode";
import type { CheckName, Side, TermName } from "./commands";
import type { EventOf, IncidentCode, LaneEvent } from "./events";

export interface LedgerLine {
  readonly line: number;
  readonly register: RegisterId;
  readonly kind: "reading" | "term" | "sum";
  readonly term?: TermName | undefined;
  readonly counts: Counts;
  /** It came with the setup that was handed over. */
  readonly isHandedOver?: boolean | undefined;
  /** The number of the instrument reading it was taken from, when not the machine's own position. */
  readonly from?: number | undefined;
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

/** What is touched by something that gives way and tells. */
interface Touch {
  readonly axis: Axis;
  readonly approach: 1 | -1;
  readonly at: AxisCounts;
  readonly errorMm: number;
  readonly number: number;
}

export type Reading = Omit<EventOf<"readingShown">, "type">;

/** What gates and coach look at: what was done, never whether it is right. */
interface Evidence {
  /** Contacts seen on X and Y, by any instrument. */
  readonly kicks: Readonly<Record<"x" | "y", number>>;
  readonly isSetAfterKick: Readonly<Record<"x" | "y", boolean>>;
  /** Touches in Z or length readings with each tool. */
  readonly touches: Readonly<Record<number, number>>;
  readonly isLengthSet: Readonly<Record<number, boolean>>;
  readonly workTouches: number;
  readonly isWorkZSet: boolean;
  readonly diameterReadings: Readonly<Record<number, number>>;
  readonly isDiameterSet: Readonly<Record<number, boolean>>;
  readonly angleReadings: number;
  readonly isAngleSet: boolean;
  readonly sidesOverZero: readonly Side[];
  readonly checksJudged: readonly CheckName[];
}

/** A check under way: said, then looked at, then judged. */
interface CheckState {
  readonly check: CheckName;
  readonly expectedMm: number;
  readonly tool: number | null;
  readonly looked: boolean;
  readonly seenMm: number | null;
}

/** How the blank lies: a new object only when it changes, so that solids can be kept by it. */
export interface Seat {
  readonly isAtStop: boolean;
  readonly isTapped: boolean;
  readonly isJawTrue: boolean;
  readonly shiftMm: { readonly x: number; readonly y: number };
  readonly skewDeg: number;
  readonly lamp: { readonly on: Surface; readonly x: number; readonly y: number; readonly footMm: number } | null;
}

/** How what hangs in the spindle got there, and which way round it hangs. */
interface Carried {
  /** How much lower the held thing stands for dirt in its taper, mm. */
  readonly seatMm: number;
  readonly isByChanger: boolean;
  /** Quarters by which the spindle was turned by hand. */
  readonly quarter: number;
  readonly pockets: Readonly<Record<number, number>>;
}

/** What incidents left behind: how much shorter each solid tool is, mm, and a broken indicator. */
interface Harm {
  readonly shorterMm: Readonly<Partial<Record<Thing, number>>>;
  readonly isIndicatorBroken: boolean;
}

/** Blocks tried in the gap, and what was wiped or blown clean. */
interface BlocksState {
  readonly tries: number;
  readonly last: { readonly id: string; readonly goes: boolean; readonly machineZ: Counts } | null;
  readonly areWiped: boolean;
  readonly blown: readonly Thing[];
}

/** The student's papers: what can be taken back, the ledger, what instruments have shown, a check under way. */
interface DeskState {
  readonly undo: readonly { readonly register: RegisterId; readonly counts: Counts }[];
  readonly ledger: readonly LedgerLine[];
  readonly linesWritten: number;
  readonly readings: readonly Reading[];
  readonly readingsMade: number;
  readonly check: CheckState | null;
  /** What the student says of a setup that was handed over. */
  readonly verdict: "sound" | "faulty" | null;
  /** The school of lengths that the student named at hand-in; it counts where the log does not tell one. */
  readonly namedSchool: MillLengthSchool | null;
}

/**
 * Everything a lane has come to. What is seldom changed stands in groups of its own: a fold copies the outermost object
 * at every click, and the fewer fields it has the faster that is.
 */
export interface LaneState {
  readonly setup: Setup;
  readonly truth: Truth;
  readonly scale: Scale;
  readonly isCoachOn: boolean;
  readonly position: AxisCounts;
  readonly isHomed: boolean;
  readonly isDoorOpen: boolean;
  readonly sight: Side;
  readonly spindle: { readonly isOn: boolean; readonly direction: "forward" | "reverse"; readonly rpm: number };
  readonly rememberedRpm: number;
  readonly modal: {
    readonly motion: MotionMode;
    readonly distance: "absolute" | "incremental";
    readonly workOffset: WorkOffsetName;
    readonly lengthRow: number | null;
    readonly calledLength: Counts | null;
    readonly feedMmPerMin: number | null;
    readonly tool: number | null;
    readonly rotationDeg: number;
  };
  readonly counterZero: AxisCounts;
  readonly registers: Registers;
  readonly holds: Thing | null;
  readonly carried: Carried;
  readonly finder: FinderState;
  readonly taster: {
    readonly isTrued: boolean;
    readonly isBroken: boolean;
    readonly touch: Touch | null;
    readonly touches: number;
  };
  readonly probe: {
    readonly isBroken: boolean;
    readonly bendMm: number;
    readonly touch: Touch | null;
    readonly touches: number;
  };
  readonly lamp: { readonly touch: Touch | null; readonly touches: number; readonly lowMm: number };
  readonly setter: { readonly touch: Touch | null; readonly touches: number; readonly shiftMm: number };
  readonly harm: Harm;
  readonly resting: Surface | null;
  readonly paper: { readonly id: string; readonly on: Surface; readonly feel: Feel } | null;
  readonly block: { readonly id: string; readonly on: Surface } | null;
  readonly blocks: BlocksState;
  readonly seat: Seat;
  readonly tasksDone: readonly SetupTask[];
  readonly isBurrDressed: boolean;
  readonly isStopped: boolean;
  readonly isHandUp: boolean;
  readonly isHandedIn: boolean;
  readonly desk: DeskState;
  /** Only on a lathe. */
  readonly lathe: LatheState | null;
  readonly incidents: readonly { readonly code: IncidentCode; readonly isSilent: boolean }[];
  readonly evidence: Evidence;
}

const HOME: AxisCounts = { x: 0, y: 0, z: 0 };
/** Where the job before left the machine, before the reference return, mm. */
const PARKED_MM = { x: -40, y: -30, z: -15 };
const UNDO_DEPTH = 20;
const READINGS_KEPT = 40;

function opened(event: EventOf<"laneOpened">): LaneState {
  const { setup, truth, isCoachOn, finderOwnKickMm } = event;
  const scale = scales[setup.unit];
  const registers = setup.leftovers.reduce(
    (at, { register, mm }) => (isRegisterId(register) ? writeRegister(at, register, toCounts(mm, scale)) : at),
    setup.lathe ? { ...emptyMillRegisters(), turret: emptyTurret } : emptyMillRegisters(),
  );
  const has = (task: SetupTask) => setup.tasks.includes(task);
  const ledger = (setup.handover?.ledger ?? []).map(({ mm, ...line }, place): LedgerLine => ({
    ...line,
    line: place + 1,
    counts: toCounts(mm, scale),
    isHandedOver: true,
  }));
  // what is handed over was seated once; a fault may have moved it since
  const isAtStop = setup.handover ? truth.offStopMm === 0 : !has("pushToStop");
  return {
    setup,
    truth,
    scale,
    isCoachOn,
    position: { x: toCounts(PARKED_MM.x, scale), y: toCounts(PARKED_MM.y, scale), z: toCounts(PARKED_MM.z, scale) },
    isHomed: setup.lathe?.control === "readout",
    isDoorOpen: false,
    sight: "front",
    spindle: { isOn: false, direction: "forward", rpm: 0 },
    rememberedRpm: setup.rememberedRpm,
    modal: {
      motion: "rapid",
      distance: "absolute",
      workOffset: "G54",
      lengthRow: null,
      calledLength: null,
      feedMmPerMin: null,
      tool: null,
      rotationDeg: 0,
    },
    counterZero: HOME,
    registers,
    holds: null,
    carried: { seatMm: 0, isByChanger: false, quarter: 0, pockets: { ...setup.pockets, ...truth.pockets } },
    finder: newFinder(1, finderOwnKickMm),
    taster: { isTrued: false, isBroken: false, touch: null, touches: 0 },
    probe: { isBroken: false, bendMm: 0, touch: null, touches: 0 },
    lamp: { touch: null, touches: 0, lowMm: 0 },
    setter: { touch: null, touches: 0, shiftMm: 0 },
    harm: { shorterMm: {}, isIndicatorBroken: false },
    resting: null,
    paper: null,
    block: null,
    blocks: { tries: 0, last: null, areWiped: false, blown: [] },
    seat: {
      isAtStop,
      isTapped: !has("tapDown"),
      isJawTrue: !has("sweepJaw"),
      shiftMm: { x: 0, y: 0 },
      skewDeg: truth.skewDeg,
      lamp: null,
    },
    tasksDone: [],
    isBurrDressed: !has("dressBurr"),
    isStopped: false,
    isHandUp: false,
    isHandedIn: false,
    desk: {
      undo: [],
      ledger,
      linesWritten: ledger.length,
      readings: [],
      readingsMade: 0,
      check: null,
      verdict: null,
      namedSchool: null,
    },
    lathe: openedLathe(setup, truth),
    incidents: [],
    evidence: {
      kicks: { x: 0, y: 0 },
      isSetAfterKick: { x: false, y: false },
      touches: {},
      isLengthSet: {},
      workTouches: 0,
      isWorkZSet: false,
      diameterReadings: {},
      isDiameterSet: {},
      angleReadings: 0,
      isAngleSet: false,
      sidesOverZero: [],
      checksJudged: [],
    },
  };
}

const newFinder = (copy: number, ownKickMm: number): FinderState => ({
  copy,
  ownKickMm,
  condition: "sound",
  bendMm: 0,
  tip: "still",
  kickAxis: null,
  isKickSeen: false,
  approach: null,
  approachesMade: 0,
  wobble: "wide",
});

/**
 * The length that the display takes off Z now, counts: as the row stands, or as it stood when it was called, by the
 * machine's setting.
 */
export function lengthInUse({ registers, modal, setup }: Pick<LaneState, "registers" | "modal" | "setup">): Counts {
  if (modal.lengthRow === null) return 0;
  return setup.settings.rowActs === "whenCalled" && modal.calledLength !== null
    ? modal.calledLength
    : lengthSum(registers, modal.lengthRow);
}

function withRegister(state: LaneState, event: EventOf<"registerChanged">): LaneState {
  const { register, from, to, how } = event;
  const { evidence } = state;
  const undo =
    how === "undone"
      ? state.desk.undo.slice(0, -1)
      : [...state.desk.undo, { register, counts: from }].slice(-UNDO_DEPTH);
  const after = { ...state, registers: writeRegister(state.registers, register, to), desk: { ...state.desk, undo } };
  if (after.lathe) return { ...after, lathe: withTurretSet(after.lathe, register, to) };
  const kind = registerKind(register);
  const row = Number(/\d+$/.exec(register)?.[0] ?? 0);
  if (kind === "diameter")
    return (evidence.diameterReadings[row] ?? 0) > 0
      ? { ...after, evidence: { ...evidence, isDiameterSet: { ...evidence.isDiameterSet, [row]: true } } }
      : after;
  if (kind === "length")
    return (evidence.touches[row] ?? 0) > 0
      ? { ...after, evidence: { ...evidence, isLengthSet: { ...evidence.isLengthSet, [row]: true } } }
      : after;
  const axis = register.endsWith(".x") ? "x" : register.endsWith(".y") ? "y" : "z";
  if (axis !== "z") {
    return evidence.kicks[axis] > 0
      ? { ...after, evidence: { ...evidence, isSetAfterKick: { ...evidence.isSetAfterKick, [axis]: true } } }
      : after;
  }
  // a work Z in the school of one offset per tool sets that tool
  const place = Number(register.slice(1, 3)) - 54;
  const tool = state.setup.lengthSchools.includes("offset-per-tool") ? state.setup.tools[place]?.number : undefined;
  const isLengthSet =
    tool !== undefined && (evidence.touches[tool] ?? 0) > 0
      ? { ...evidence.isLengthSet, [tool]: true }
      : evidence.isLengthSet;
  return {
    ...after,
    evidence: { ...evidence, isLengthSet, isWorkZSet: evidence.isWorkZSet || evidence.workTouches > 0 },
  };
}

function withKick(state: LaneState, { axis, isSeen }: EventOf<"kicked">): LaneState {
  const { evidence } = state;
  return {
    ...state,
    finder: { ...state.finder, tip: "aside", kickAxis: axis, isKickSeen: isSeen, wobble: "true" },
    evidence: isSeen ? withContactSeen(evidence, axis) : evidence,
  };
}

const withContactSeen = (evidence: Evidence, axis: "x" | "y"): Evidence => ({
  ...evidence,
  kicks: { ...evidence.kicks, [axis]: evidence.kicks[axis] + 1 },
});

/**
 * A touch in Z, or a length read, with what hangs in the spindle: it counts for that tool, and for work Z when on the
 * part.
 */
function withLengthTouch(evidence: Evidence, thing: Thing | null, on: Surface | null): Evidence {
  const tool = toolNumber(thing);
  const isOnPart = on === "stock" || on === "boss";
  return {
    ...evidence,
    touches: tool === null ? evidence.touches : { ...evidence.touches, [tool]: (evidence.touches[tool] ?? 0) + 1 },
    workTouches: evidence.workTouches + (isOnPart ? 1 : 0),
  };
}

/**
 * Whether a tip that stands aside can be told from this side. The part drags the tip along its face, so a kick met on X
 * goes along Y and is hardly seen by who looks along Y.
 */
export const seesKick = (side: Side, kickAxis: "x" | "y"): boolean =>
  (kickAxis === "x") === (side === "left" || side === "right");

function withIncident(state: LaneState, event: EventOf<"incidentHappened">): LaneState {
  const { code, isSilent, stopsMachine, bendMm = 0, shorterMm = 0, shiftMm = 0, thing } = event;
  const { finder } = state;
  const hurtFinder: FinderState =
    code === "finderBent"
      ? { ...finder, condition: "bent", bendMm: finder.bendMm + bendMm }
      : code === "finderThrown" || code === "finderBroken"
        ? {
            ...finder,
            condition: "broken",
            approach: null,
            tip: "still",
            kickAxis: null,
            isKickSeen: false,
            wobble: "wide",
          }
        : finder;
  const isLost = (name: Thing) => thing === name && (code === "startedWithInstrument" || code === "changerStruck");
  return {
    ...state,
    finder: hurtFinder,
    taster:
      code === "tasterBroken" || isLost("taster") ? { ...state.taster, isBroken: true, touch: null } : state.taster,
    probe: code === "probeBroken" || isLost("probe") ? { ...state.probe, isBroken: true, touch: null } : state.probe,
    lamp: code === "gaugeDamaged" ? { ...state.lamp, lowMm: state.lamp.lowMm + shiftMm } : state.lamp,
    setter: code === "setterDamaged" ? { ...state.setter, shiftMm: state.setter.shiftMm + shiftMm } : state.setter,
    harm: {
      isIndicatorBroken: state.harm.isIndicatorBroken || code === "indicatorBroken" || isLost("indicator"),
      shorterMm:
        thing && shorterMm > 0
          ? { ...state.harm.shorterMm, [thing]: (state.harm.shorterMm[thing] ?? 0) + shorterMm }
          : state.harm.shorterMm,
    },
    isStopped: state.isStopped || stopsMachine,
    spindle: stopsMachine ? { ...state.spindle, isOn: false, rpm: 0 } : state.spindle,
    incidents: [...state.incidents, { code, isSilent }],
  };
}

function withModal(state: LaneState, { type: _type, ...change }: EventOf<"modalChanged">): LaneState {
  const evidence =
    change.rotationDeg !== undefined && state.evidence.angleReadings > 0
      ? { ...state.evidence, isAngleSet: true }
      : state.evidence;
  return { ...state, evidence, modal: { ...state.modal, ...change } };
}

/** The tip is pushed back true when it is taken out; a kicked tip stays aside only while it hangs in the spindle. */
const tipAtRest = (state: LaneState): FinderState => ({
  ...state.finder,
  tip: "still",
  kickAxis: null,
  isKickSeen: false,
  approach: null,
  wobble: "wide",
});

function withTask(state: LaneState, { task }: EventOf<"taskDone">): LaneState {
  const { seat } = state;
  const lies: Partial<Seat> =
    task === "pushToStop"
      ? { isAtStop: true }
      : task === "tapDown"
        ? { isTapped: true }
        : task === "sweepJaw"
          ? { isJawTrue: true }
          : {};
  return {
    ...state,
    tasksDone: state.tasksDone.includes(task) ? state.tasksDone : [...state.tasksDone, task],
    seat: Object.keys(lies).length > 0 ? { ...seat, ...lies } : seat,
  };
}

function withTouch(state: LaneState, event: EventOf<"touchBegan">): LaneState {
  const { by, axis, approach, at, errorMm, number } = event;
  const touch: Touch = { axis, approach, at, errorMm, number };
  const { evidence } = state;
  switch (by) {
    case "taster":
      return {
        ...state,
        taster: { ...state.taster, touch, touches: number },
        evidence: axis === "z" ? evidence : withContactSeen(evidence, axis),
      };
    case "probe":
      return {
        ...state,
        probe: { ...state.probe, touch, touches: number },
        evidence: axis === "z" ? withLengthTouch(evidence, state.holds, "stock") : withContactSeen(evidence, axis),
      };
    case "lampGauge":
      return {
        ...state,
        lamp: { ...state.lamp, touch, touches: number },
        evidence: withLengthTouch(evidence, state.holds, state.seat.lamp?.on ?? null),
      };
    case "plungerSetter":
      return {
        ...state,
        setter: { ...state.setter, touch, touches: number },
        evidence: withLengthTouch(evidence, state.holds, "setter"),
      };
  }
}

function withTouchEnded(state: LaneState, by: EventOf<"touchEnded">["by"]): LaneState {
  switch (by) {
    case "taster":
      return { ...state, taster: { ...state.taster, touch: null } };
    case "probe":
      return { ...state, probe: { ...state.probe, touch: null } };
    case "lampGauge":
      return { ...state, lamp: { ...state.lamp, touch: null } };
    case "plungerSetter":
      return { ...state, setter: { ...state.setter, touch: null } };
  }
}

/** Which gates a reading counts for: what it is a reading of, never what it says. */
function evidenceOfReading(evidence: Evidence, { what, tool, outcome }: Reading): Evidence {
  if (outcome !== undefined && outcome !== "found") return evidence;
  const counted = (record: Readonly<Record<number, number>>) =>
    tool === undefined ? record : { ...record, [tool]: (record[tool] ?? 0) + 1 };
  switch (what) {
    case "length":
      return { ...evidence, touches: counted(evidence.touches) };
    case "diameter":
      return { ...evidence, diameterReadings: counted(evidence.diameterReadings) };
    case "lengthAndDiameter":
      return { ...evidence, touches: counted(evidence.touches), diameterReadings: counted(evidence.diameterReadings) };
    case "faceX":
    case "middleX":
      return withContactSeen(evidence, "x");
    case "faceY":
    case "middleY":
      return withContactSeen(evidence, "y");
    case "round":
    case "corner": {
      const seen = withContactSeen(withContactSeen(evidence, "x"), "y");
      return what === "corner" ? { ...seen, angleReadings: seen.angleReadings + 1 } : seen;
    }
    case "angle":
      return { ...evidence, angleReadings: evidence.angleReadings + 1 };
    case "surface":
      return { ...evidence, workTouches: evidence.workTouches + 1 };
    default:
      return evidence;
  }
}

function withReading(state: LaneState, { type: _type, ...reading }: EventOf<"readingShown">): LaneState {
  return {
    ...state,
    ...(state.lathe
      ? { lathe: withMeasured(state.lathe, reading.what, reading.outcome === undefined || reading.outcome === "found") }
      : {}),
    desk: {
      ...state.desk,
      readings: [...state.desk.readings, reading].slice(-READINGS_KEPT),
      readingsMade: reading.number,
    },
    evidence: evidenceOfReading(state.evidence, reading),
  };
}

function withUnloaded(state: LaneState): LaneState {
  return {
    ...state,
    holds: null,
    carried: { ...state.carried, seatMm: 0, isByChanger: false },
    finder: tipAtRest(state),
    resting: null,
    taster: { ...state.taster, touch: null },
    probe: { ...state.probe, touch: null },
    lamp: { ...state.lamp, touch: null },
    setter: { ...state.setter, touch: null },
  };
}

/** The state after one fact. Pure; may not refuse. The first fact of a lane is `laneOpened`. */
export function evolve(state: LaneState | null, event: LaneEvent): LaneState {
  if (event.type === "laneOpened") {
    if (state) throw new Error("evolve: laneOpened must be the first event");
    return opened(event);
  }
  if (!state) throw new Error(`evolve: a lane must begin with laneOpened: ${event.type}`);
  switch (event.type) {
    case "homed":
      return { ...state, position: HOME, isHomed: true };
    case "taskDone":
      return withTask(state, event);
    case "jogged":
      return { ...state, position: event.to };
    case "moved":
      return { ...state, position: event.to };
    case "loaded":
      return {
        ...state,
        holds: event.thing,
        carried: { ...state.carried, seatMm: event.seatMm ?? 0, isByChanger: event.isByChanger ?? false },
      };
    case "finderReplaced":
      return { ...state, finder: newFinder(event.copy, event.ownKickMm) };
    case "instrumentReplaced":
      if (event.thing === "taster") return { ...state, taster: { ...state.taster, isBroken: false, isTrued: false } };
      return event.thing === "probe"
        ? { ...state, probe: { ...state.probe, isBroken: false, bendMm: 0 } }
        : { ...state, harm: { ...state.harm, isIndicatorBroken: false } };
    case "unloaded":
      return withUnloaded(state);
    case "pocketsSwapped": {
      const { pockets } = state.carried;
      return {
        ...state,
        carried: {
          ...state.carried,
          pockets: { ...pockets, [event.a]: pockets[event.b] ?? 0, [event.b]: pockets[event.a] ?? 0 },
        },
      };
    }
    case "spindleStarted":
      return {
        ...state,
        spindle: { isOn: true, direction: event.direction, rpm: event.rpm },
        rememberedRpm: event.rpm,
      };
    case "spindleStopped":
      return { ...state, spindle: { ...state.spindle, isOn: false, rpm: 0 } };
    case "spindleTurned":
      return { ...state, carried: { ...state.carried, quarter: event.quarter } };
    case "speedSet":
      return {
        ...state,
        rememberedRpm: event.rpm,
        spindle: state.spindle.isOn ? { ...state.spindle, rpm: event.rpm } : state.spindle,
      };
    case "doorSet":
      return { ...state, isDoorOpen: event.isOpen };
    case "lookedFrom":
      return withLook(state, event);
    case "setWobbling":
      return {
        ...state,
        finder: { ...state.finder, tip: "wobbling", kickAxis: null, isKickSeen: false, wobble: "wide" },
      };
    case "approachBegan":
      return { ...state, finder: { ...state.finder, approach: event.approach, approachesMade: event.approach.number } };
    case "approachEnded":
      return { ...state, finder: { ...state.finder, approach: null, wobble: "wide" } };
    case "wobbleChanged":
      return { ...state, finder: { ...state.finder, wobble: event.wobble } };
    case "kicked":
      return withKick(state, event);
    case "tasterTrued":
      return { ...state, taster: { ...state.taster, isTrued: true } };
    case "touchBegan":
      return withTouch(state, event);
    case "touchEnded":
      return withTouchEnded(state, event.by);
    case "touchedHard":
      return { ...state, resting: event.on };
    case "leftHard":
      return { ...state, resting: null };
    case "paperPlaced":
      return { ...state, paper: { id: event.id ?? "paper", on: event.on, feel: event.feel } };
    case "paperFelt":
      return withFeel(state, event);
    case "paperPulled":
      return { ...state, paper: null };
    case "blockTried":
      return {
        ...state,
        block: event.goes ? { id: event.id, on: event.on } : null,
        blocks: {
          ...state.blocks,
          tries: event.number,
          last: { id: event.id, goes: event.goes, machineZ: event.machineZ },
        },
        evidence:
          event.goes && event.isOpened ? withLengthTouch(state.evidence, state.holds, event.on) : state.evidence,
      };
    case "blockPulled":
      return { ...state, block: null };
    case "blocksWiped":
      return { ...state, blocks: { ...state.blocks, areWiped: true } };
    case "lampStood":
      return {
        ...state,
        seat: { ...state.seat, lamp: { on: event.on, x: event.x, y: event.y, footMm: event.footMm } },
      };
    case "lampTaken":
      return { ...state, seat: { ...state.seat, lamp: null }, lamp: { ...state.lamp, touch: null } };
    case "tipBlown":
      return state.blocks.blown.includes(event.thing)
        ? state
        : { ...state, blocks: { ...state.blocks, blown: [...state.blocks.blown, event.thing] } };
    case "readingShown":
      return withReading(state, event);
    case "burrDressed":
      return { ...state, isBurrDressed: true, tasksDone: [...state.tasksDone, "dressBurr"] };
    case "partTapped":
      return {
        ...state,
        seat: { ...state.seat, skewDeg: event.skewDeg, shiftMm: event.shiftMm },
        evidence: state.evidence.angleReadings > 0 ? { ...state.evidence, isAngleSet: true } : state.evidence,
      };
    case "counterZeroed":
      return { ...state, counterZero: { ...state.counterZero, [event.axis]: event.at } };
    case "registerChanged":
      return withRegister(state, event);
    case "modalChanged":
      return withModal(state, event);
    case "incidentHappened":
      return withIncident(state, event);
    case "machineReset":
      return { ...state, isStopped: false };
    case "lineWritten":
    case "lineStruck":
    case "checkExpected":
    case "checkLooked":
    case "setupJudged":
      return { ...state, desk: onDesk(state.desk, event) };
    case "checkJudged": {
      const { check } = state.desk;
      const evidence = check?.looked
        ? { ...state.evidence, checksJudged: [...state.evidence.checksJudged, check.check] }
        : state.evidence;
      return { ...state, desk: { ...state.desk, check: null }, evidence };
    }
    case "turretIndexed":
    case "turned":
    case "turretGapPlaced":
    case "turretFelt":
    case "turretTried":
    case "turretGapPulled":
    case "chuckTurned":
    case "armSwung":
    case "armTripped":
    case "armLeft":
    case "metalTouched":
    case "metalLeft":
    case "toolShimmed":
    case "edgeSighted":
    case "toolChanged":
    case "toolLoosened":
    case "toolSlid":
    case "toolTightened":
    case "feedTurned":
    case "coneRan":
    case "switchedOff":
    case "fitStated":
    case "stackTried":
    case "gaugeZeroed":
    case "gaugeRead":
    case "heightStated":
      if (!state.lathe) throw new Error(`evolve: ${event.type} on a mill`);
      return {
        ...(event.type === "switchedOff" ? withoutPower(state) : state),
        lathe: evolveLathe(state.lathe, event),
      };
    case "handRaised":
      return { ...state, isHandUp: true };
    case "handLowered":
      return { ...state, isHandUp: false };
    case "handedIn":
      return {
        ...state,
        isHandedIn: true,
        isHandUp: false,
        desk: { ...state.desk, namedSchool: event.school ?? null },
      };
    case "blockRan":
    case "commandRefused":
      return state;
    default:
      return assertNever(event, "evolve");
  }
}

/**
 * What a machine forgets when it is switched off: where it is, what was in force; nothing from before can be taken
 * back.
 */
const withoutPower = (state: LaneState): LaneState => ({
  ...state,
  isHomed: false,
  spindle: { ...state.spindle, isOn: false, rpm: 0 },
  desk: { ...state.desk, undo: [] },
  modal: { ...state.modal, motion: "rapid", distance: "absolute", workOffset: "G54", feedMmPerMin: null },
});

function onDesk(
  desk: DeskState,
  event: EventOf<"lineWritten" | "lineStruck" | "checkExpected" | "checkLooked" | "setupJudged">,
): DeskState {
  switch (event.type) {
    case "lineWritten":
      return {
        ...desk,
        linesWritten: event.line,
        ledger: [
          ...desk.ledger,
          {
            line: event.line,
            register: event.register,
            kind: event.kind,
            term: event.term,
            counts: event.counts,
            from: event.from,
          },
        ],
      };
    case "lineStruck":
      return { ...desk, ledger: desk.ledger.filter(({ line }) => line !== event.line) };
    case "checkExpected":
      return {
        ...desk,
        check: { check: event.check, expectedMm: event.mm, tool: event.tool ?? null, looked: false, seenMm: null },
      };
    case "setupJudged":
      return { ...desk, verdict: event.isSound ? "sound" : "faulty" };
    case "checkLooked":
      return { ...desk, check: desk.check ? { ...desk.check, looked: true, seenMm: event.seenMm } : null };
  }
}

function withLook(state: LaneState, { side, isOverZero }: EventOf<"lookedFrom">): LaneState {
  const { finder } = state;
  const isNewlySeen =
    finder.tip === "aside" && finder.kickAxis !== null && !finder.isKickSeen && seesKick(side, finder.kickAxis);
  const evidence = isNewlySeen && finder.kickAxis ? withContactSeen(state.evidence, finder.kickAxis) : state.evidence;
  const isNew = isOverZero && !evidence.sidesOverZero.includes(side);
  return {
    ...state,
    sight: side,
    finder: isNewlySeen ? { ...finder, isKickSeen: true } : finder,
    evidence: isNew ? { ...evidence, sidesOverZero: [...evidence.sidesOverZero, side] } : evidence,
  };
}

function withFeel(state: LaneState, { on, feel }: EventOf<"paperFelt">): LaneState {
  const { evidence, paper } = state;
  const isContact = feel === "drags" || feel === "held";
  return {
    ...state,
    paper: { id: paper?.id ?? "paper", on, feel },
    evidence: isContact ? withLengthTouch(evidence, state.holds, on) : evidence,
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
