import type { Calibrated } from "./acts/calibration/names";
import type { Surface } from "../../exercises/scene";
import type { MillSetup, MillTruth } from "../../exercises/setup";
import type { EdgeFinderApproach, Feel, Thing, Wobble } from "../../instruments";
import type { Draft } from "../../lane/draft";
import type { Side } from "../../lane/names";
import { openedBase, type LaneBase } from "../../lane/state";
import { emptyMillRegisters, type Axis, type AxisCounts } from "../../registers";
import type { SetupTask } from "../../exercises/schools";
import type { Counts } from "../../units";
import type { Act, ActSchema } from "../act";

export interface FinderState {
  readonly copy: number;
  readonly ownKickMm: number;
  readonly condition: "sound" | "bent" | "broken";
  readonly bendMm: number;
  readonly tip: "still" | "wobbling" | "aside";
  /** The axis on which the last kick was made; the tip then stands aside along the other one. */
  readonly kickAxis: "x" | "y" | null;
  readonly isKickSeen: boolean;
  /** The side from which the face was met that it kicked at. */
  readonly approachFrom: 1 | -1 | null;
  readonly approach: EdgeFinderApproach | null;
  readonly approachesMade: number;
  readonly wobble: Wobble;
}

/** What is touched by something that gives way and tells. */
export interface Touch {
  readonly axis: Axis;
  readonly approach: 1 | -1;
  readonly at: AxisCounts;
  readonly errorMm: number;
  readonly number: number;
}

/** What gates and coach look at: what was done, never whether it is right. */
export interface MillEvidence {
  /** Contacts seen on X and Y, by any instrument. */
  readonly kicks: Readonly<Record<"x" | "y", number>>;
  readonly isSetAfterKick: Readonly<Record<"x" | "y", boolean>>;
  /** Touches in Z or length readings with each tool. */
  readonly touches: Readonly<Record<number, number>>;
  readonly isLengthSet: Readonly<Record<number, boolean>>;
  readonly isWearSet: Readonly<Record<number, boolean>>;
  /** Whether a tool was last touched on the part itself. */
  readonly isOnPart: Readonly<Record<number, boolean>>;
  readonly workTouches: number;
  readonly isWorkZSet: boolean;
  readonly diameterReadings: Readonly<Record<number, number>>;
  readonly isDiameterSet: Readonly<Record<number, boolean>>;
  readonly angleReadings: number;
  readonly isAngleSet: boolean;
  readonly sidesOverZero: readonly Side[];
}

/** How the blank lies: a new object only when it changes, so that solids can be kept by it. */
export interface Seat {
  readonly isAtStop: boolean;
  readonly isTapped: boolean;
  readonly isJawTrue: boolean;
  /** How much higher than on its first parallels the blank stands, mm. */
  readonly raisedMm: number;
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

/** What incidents left behind: how much shorter each solid tool is, mm, and which instruments are broken. */
interface Harm {
  readonly shorterMm: Readonly<Partial<Record<Thing, number>>>;
  readonly broken: readonly Thing[];
}

/** Blocks tried in the gap, and what was blown clean. */
interface BlocksState {
  readonly tries: number;
  readonly last: { readonly id: string; readonly goes: boolean; readonly machineZ: Counts } | null;
  readonly blown: readonly Thing[];
}

/** A contact that the control keeps: where the axis stood, from which side, with how large a tip, mm. */
export interface Point {
  readonly axis: "x" | "y";
  readonly approach: 1 | -1;
  readonly atMm: number;
  readonly radiusMm: number;
}

/** A lane on a mill. */
export interface MillLane extends LaneBase {
  readonly kind: "mill";
  readonly setup: MillSetup;
  readonly truth: MillTruth;
  readonly holds: Thing | null;
  readonly carried: Carried;
  readonly finder: FinderState;
  readonly taster: { readonly isTrued: boolean; readonly touch: Touch | null; readonly touches: number };
  readonly probe: {
    readonly bendMm: number;
    /** How much longer than the first one, and how much deeper it triggers, mm: a successor's own. */
    readonly longerMm: number;
    readonly deeperMm: number;
    readonly touch: Touch | null;
    readonly touches: number;
  };
  readonly lamp: { readonly touch: Touch | null; readonly touches: number; readonly lowMm: number };
  readonly setter: { readonly touch: Touch | null; readonly touches: number; readonly shiftMm: number };
  readonly harm: Harm;
  /** Figures of probe and setter that stand for those of the sheet: a successor's card, or what was calibrated, mm. */
  readonly points: readonly Point[];
  readonly cards: Readonly<Partial<Record<Calibrated, number>>>;
  readonly resting: Surface | null;
  readonly paper: { readonly id: string; readonly on: Surface; readonly feel: Feel } | null;
  readonly block: { readonly id: string; readonly on: Surface } | null;
  readonly blocks: BlocksState;
  readonly seat: Seat;
  readonly isBurrDressed: boolean;
  readonly evidence: MillEvidence;
}

export type MillDraft = Draft<MillLane>;

/** What is noticed after a step by hand; true when something was. `fromStep` is where the step began. */
export type Senses = (draft: MillDraft, fromStep: AxisCounts, clickMm: number) => boolean;

/**
 * An act on a mill: besides deciding and folding, what it senses after a step, and what ends when the axes are
 * retracted.
 */
export interface MillAct<A extends ActSchema> extends Act<MillLane, A> {
  readonly senses?: Senses;
  readonly retracted?: (draft: MillDraft) => void;
}

export const newFinder = (copy: number, ownKickMm: number): FinderState => ({
  copy,
  ownKickMm,
  condition: "sound",
  bendMm: 0,
  tip: "still",
  kickAxis: null,
  isKickSeen: false,
  approachFrom: null,
  approach: null,
  approachesMade: 0,
  wobble: "wide",
});

export function openedMill(opening: {
  setup: MillSetup;
  truth: MillTruth;
  isCoachOn: boolean;
  finderOwnKickMm: number;
}): MillLane {
  const { setup, truth, finderOwnKickMm } = opening;
  const has = (task: SetupTask) => setup.tasks.includes(task);
  // what is handed over was seated once; a fault may have moved it since
  const isAtStop = setup.handover ? truth.offStopMm === 0 : !has("pushToStop");
  return {
    ...openedBase(opening, emptyMillRegisters()),
    kind: "mill",
    holds: null,
    carried: { seatMm: 0, isByChanger: false, quarter: 0, pockets: { ...setup.pockets, ...truth.pockets } },
    finder: newFinder(1, finderOwnKickMm),
    taster: { isTrued: false, touch: null, touches: 0 },
    probe: { bendMm: 0, longerMm: 0, deeperMm: 0, touch: null, touches: 0 },
    lamp: { touch: null, touches: 0, lowMm: 0 },
    setter: { touch: null, touches: 0, shiftMm: 0 },
    harm: { shorterMm: {}, broken: [] },
    points: [],
    cards: {},
    resting: null,
    paper: null,
    block: null,
    blocks: { tries: 0, last: null, blown: [] },
    seat: {
      isAtStop,
      isTapped: !has("tapDown"),
      isJawTrue: !has("sweepJaw"),
      raisedMm: 0,
      shiftMm: { x: 0, y: 0 },
      skewDeg: truth.skewDeg,
      lamp: null,
    },
    isBurrDressed: !has("dressBurr"),
    evidence: {
      kicks: { x: 0, y: 0 },
      isSetAfterKick: { x: false, y: false },
      touches: {},
      isLengthSet: {},
      isWearSet: {},
      isOnPart: {},
      workTouches: 0,
      isWorkZSet: false,
      diameterReadings: {},
      isDiameterSet: {},
      angleReadings: 0,
      isAngleSet: false,
      sidesOverZero: [],
    },
  };
}

/** The tip is pushed back true when it is taken out; a kicked tip stays aside only while it hangs in the spindle. */
export const tipAtRest = ({ finder }: MillLane): FinderState => ({
  ...finder,
  tip: "still",
  kickAxis: null,
  isKickSeen: false,
  approach: null,
  wobble: "wide",
});
