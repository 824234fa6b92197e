import type { EventOf, IncidentCode } from "../machines/events";
import type { MotionMode } from "../gcode";
import type { MillLengthSchool, SetupTask } from "../exercises/schools";
import type { Setup, Truth } from "../exercises/setup";
import {
  isRegisterId,
  lengthSum,
  writeRegister,
  type Axis,
  type AxisCounts,
  type RegisterId,
  type Registers,
  type WorkOffsetName,
} from "../registers";
import { scales, toCounts, type Counts, type Scale } from "../units";
import { lookedAfterRegister, setAfterKept, noProgram, type ProgramDesk } from "./programDesk";
import type { CheckName, Side, TermName } from "./names";

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

export type Reading = Omit<EventOf<"readingShown">, "type">;

/** A check under way: said, then looked at, then judged. */
interface CheckState {
  readonly check: CheckName;
  readonly expectedMm: number;
  readonly tool: number | null;
  readonly looked: boolean;
  readonly seenMm: number | null;
  /** Where the machine stood, and how many readings there were, when it was said. */
  readonly from: AxisCounts;
  readonly readingsBefore: number;
}

/** A check that was answered, and what it vouches for until one of those registers changes. */
interface CheckMade {
  readonly check: CheckName;
  readonly covers: readonly RegisterId[];
}

/** Checks as they stand: those made, and those that a later change of a register has withdrawn, by its name. */
export interface Checking {
  readonly made: readonly CheckMade[];
  readonly withdrawn: readonly { readonly check: CheckName; readonly register: RegisterId }[];
}

/** The student's papers: what can be taken back, the ledger, what instruments have shown, a check under way. */
export interface DeskState {
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

/** What a control counts with until it is told otherwise. */
interface Modal {
  readonly motion: MotionMode;
  readonly distance: "absolute" | "incremental";
  readonly workOffset: WorkOffsetName;
  readonly lengthRow: number | null;
  readonly calledLength: Counts | null;
  readonly feedMmPerMin: number | null;
  readonly tool: number | null;
  readonly rotationDeg: number;
}

/**
 * What every lane has come to, whatever its machine. What is seldom changed stands in groups of its own: a fold copies
 * the outermost object at every click, and the fewer fields it has the faster that is.
 */
export interface LaneBase {
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
  readonly modal: Modal;
  readonly counterZero: AxisCounts;
  readonly registers: Registers;
  readonly areBlocksWiped: boolean;
  readonly tasksDone: readonly SetupTask[];
  readonly isStopped: boolean;
  readonly isHandUp: boolean;
  readonly isHandedIn: boolean;
  readonly desk: DeskState;
  readonly incidents: readonly { readonly code: IncidentCode; readonly isSilent: boolean }[];
  readonly checking: Checking;
  readonly program: ProgramDesk;
}

const HOME: AxisCounts = { x: 0, y: 0, z: 0 };
/** Where the job before left the machine, before the reference return, mm. */
const PARKED_MM = { x: -40, y: -30, z: -15 };
/** Register changes that can be taken back, and readings that stay on the list: as much as a page of paper. */
const UNDO_DEPTH = 20;
const READINGS_KEPT = 40;

/** What every lane begins with, less what its machine makes of setup and truth. */
export function openedBase<S extends Setup, T extends Truth>(
  { setup, truth, isCoachOn }: { setup: S; truth: T; isCoachOn: boolean },
  emptyRegisters: Registers,
): LaneBase & { readonly setup: S; readonly truth: T } {
  const scale = scales[setup.unit];
  const registers = setup.leftovers.reduce(
    (at, { register, mm }) => (isRegisterId(register) ? writeRegister(at, register, toCounts(mm, scale)) : at),
    emptyRegisters,
  );
  const ledger = (setup.handover?.ledger ?? []).map(({ mm, ...line }, place): LedgerLine => ({
    ...line,
    line: place + 1,
    counts: toCounts(mm, scale),
    isHandedOver: true,
  }));
  return {
    setup,
    truth,
    scale,
    isCoachOn,
    position: {
      x: toCounts(PARKED_MM.x, scale),
      y: toCounts(PARKED_MM.y, scale),
      z: toCounts(PARKED_MM.z, scale),
    },
    isHomed: false,
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
    areBlocksWiped: false,
    tasksDone: [],
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
    incidents: [],
    checking: { made: [], withdrawn: [] },
    program: noProgram,
  };
}

/**
 * The length that the display takes off Z now, counts: as the row stands, or as it stood when it was called, by the
 * machine's setting.
 */
export function lengthInUse({ registers, modal, setup }: Pick<LaneBase, "registers" | "modal" | "setup">): Counts {
  if (modal.lengthRow === null) return 0;
  return setup.settings.rowActs === "whenCalled" && modal.calledLength !== null
    ? modal.calledLength
    : lengthSum(registers, modal.lengthRow);
}

/** What can be taken back after a register was changed. */
function undoAfter(
  undo: LaneBase["desk"]["undo"],
  { register, from, how }: EventOf<"registerChanged">,
): LaneBase["desk"]["undo"] {
  if (how === "byProgram" || how === "takenBack") return undo;
  return how === "undone" ? undo.slice(0, -1) : [...undo, { register, counts: from }].slice(-UNDO_DEPTH);
}

function withRegister<S extends LaneBase>(state: S, event: EventOf<"registerChanged">): S {
  const { register, from, to, how } = event;
  // what a program writes while it runs is part of it: it takes nothing back, and is no step of the student's
  const isSame = from === to || how === "byProgram";
  const program = isSame ? state.program : lookedAfterRegister(state.program, register);
  return {
    ...state,
    registers: writeRegister(state.registers, register, to),
    desk: { ...state.desk, undo: undoAfter(state.desk.undo, event) },
    checking: isSame ? state.checking : withdrawnBy(state.checking, register),
    program: how === "byProgram" ? program : setAfterKept(program, register),
  };
}

/** What a register's change leaves of the checks that were made. */
function withdrawnBy(checking: Checking, register: RegisterId): Checking {
  const lost = checking.made.filter(({ covers }) => covers.includes(register));
  return lost.length === 0
    ? checking
    : {
        made: checking.made.filter((one) => !lost.includes(one)),
        withdrawn: [...checking.withdrawn, ...lost.map(({ check }) => ({ check, register }))],
      };
}

/** A check answered stands anew, and what was withdrawn of its kind is made good. */
const withCheckMade = ({ made, withdrawn }: Checking, one: CheckMade): Checking => ({
  made: [...made, one],
  withdrawn: withdrawn.filter(({ check }) => check !== one.check),
});

function withReading<S extends LaneBase>(state: S, { type: _type, ...reading }: EventOf<"readingShown">): S {
  return {
    ...state,
    desk: {
      ...state.desk,
      readings: [...state.desk.readings, reading].slice(-READINGS_KEPT),
      readingsMade: reading.number,
    },
  };
}

function withIncident<S extends LaneBase>(state: S, { code, isSilent, stopsMachine }: EventOf<"incidentHappened">): S {
  return {
    ...state,
    isStopped: state.isStopped || stopsMachine,
    spindle: stopsMachine ? { ...state.spindle, isOn: false, rpm: 0 } : state.spindle,
    incidents: [...state.incidents, { code, isSilent }],
  };
}

/** What facts of every lane change in it. A machine lays its own over the ones that mean more on it. */
export function laneEvolves<S extends LaneBase>() {
  const onDesk = (state: S, change: Partial<DeskState>): S => ({ ...state, desk: { ...state.desk, ...change } });
  return {
    homed: (state: S): S => ({ ...state, position: HOME, isHomed: true }),
    jogged: (state: S, { to }: EventOf<"jogged">): S => ({ ...state, position: to }),
    moved: (state: S, { to }: EventOf<"moved">): S => ({ ...state, position: to }),
    spindleStarted: (state: S, { direction, rpm }: EventOf<"spindleStarted">): S => ({
      ...state,
      spindle: { isOn: true, direction, rpm },
      rememberedRpm: rpm,
    }),
    spindleStopped: (state: S): S => ({ ...state, spindle: { ...state.spindle, isOn: false, rpm: 0 } }),
    speedSet: (state: S, { rpm }: EventOf<"speedSet">): S => ({
      ...state,
      rememberedRpm: rpm,
      spindle: state.spindle.isOn ? { ...state.spindle, rpm } : state.spindle,
    }),
    doorSet: (state: S, { isOpen }: EventOf<"doorSet">): S => ({ ...state, isDoorOpen: isOpen }),
    lookedFrom: (state: S, { side }: EventOf<"lookedFrom">): S => ({ ...state, sight: side }),
    blocksWiped: (state: S): S => ({ ...state, areBlocksWiped: true }),
    readingShown: withReading<S>,
    counterZeroed: (state: S, { axis, at }: EventOf<"counterZeroed">): S => ({
      ...state,
      counterZero: { ...state.counterZero, [axis]: at },
    }),
    registerChanged: withRegister<S>,
    modalChanged: (state: S, { type: _type, ...change }: EventOf<"modalChanged">): S => ({
      ...state,
      modal: { ...state.modal, ...change },
    }),
    incidentHappened: withIncident<S>,
    machineReset: (state: S): S => ({ ...state, isStopped: false }),
    lineWritten: (state: S, { line, register, kind, term, counts, from }: EventOf<"lineWritten">): S =>
      onDesk(state, {
        linesWritten: line,
        ledger: [...state.desk.ledger, { line, register, kind, term, counts, from }],
      }),
    lineStruck: (state: S, event: EventOf<"lineStruck">): S =>
      onDesk(state, { ledger: state.desk.ledger.filter(({ line }) => line !== event.line) }),
    checkExpected: (state: S, { check, mm, tool }: EventOf<"checkExpected">): S =>
      onDesk(state, {
        check: {
          check,
          expectedMm: mm,
          tool: tool ?? null,
          looked: false,
          seenMm: null,
          from: state.position,
          readingsBefore: state.desk.readingsMade,
        },
      }),
    checkLooked: (state: S, { seenMm }: EventOf<"checkLooked">): S =>
      onDesk(state, { check: state.desk.check ? { ...state.desk.check, looked: true, seenMm } : null }),
    checkJudged: (state: S, { covers = [] }: EventOf<"checkJudged">): S => {
      const { check } = state.desk;
      const after = onDesk(state, { check: null });
      return check?.looked
        ? { ...after, checking: withCheckMade(state.checking, { check: check.check, covers }) }
        : after;
    },
    setupJudged: (state: S, { isSound }: EventOf<"setupJudged">): S =>
      onDesk(state, { verdict: isSound ? "sound" : "faulty" }),
    handRaised: (state: S): S => ({ ...state, isHandUp: true }),
    handLowered: (state: S): S => ({ ...state, isHandUp: false }),
    handedIn: (state: S, { school }: EventOf<"handedIn">): S => ({
      ...onDesk(state, { namedSchool: school ?? null }),
      isHandedIn: true,
      isHandUp: false,
    }),
    blockRan: (state: S): S => state,
    commandRefused: (state: S): S => state,
  };
}

export const axes: readonly Axis[] = ["x", "y", "z"];
