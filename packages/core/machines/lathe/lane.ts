import type { CutLook } from "./acts/turning/names";
import type { HeldFace } from "./faces";
import type { LatheKind } from "../../exercises/schools";
import type { TurningSetup, TurningTruth } from "../../exercises/setup";
import type { Draft } from "../../lane/draft";
import { openedBase, type LaneBase } from "../../lane/state";
import type { Act, ActSchema } from "../act";
import type { conePasses } from "./acts/cone/names";
import type { sightings } from "./acts/readout/names";
import { emptyMillRegisters, emptyTurret } from "../../registers";
import { carve, type Outline } from "./outline";
import { type Feel } from "../../instruments/paper";
import { type AxisCounts } from "../../registers/mill";
import { type Counts } from "../../units/counts";

/** What was touched and set with each tool: gates and coach read this, never whether it is right. */
export interface TurretEvidence {
  readonly xTouched: Readonly<Record<number, number>>;
  readonly zTouched: Readonly<Record<number, number>>;
  readonly isXSet: Readonly<Record<number, boolean>>;
  readonly isZSet: Readonly<Record<number, boolean>>;
  readonly isNoseSet: Readonly<Record<number, boolean>>;
  readonly isTipSet: Readonly<Record<number, boolean>>;
  readonly pipsSeen: Readonly<Record<number, number>>;
  readonly isShimmed: Readonly<Record<number, boolean>>;
  readonly isHeightSet: Readonly<Record<number, boolean>>;
  readonly isFaced: boolean;
  readonly workTouches: number;
  readonly isWorkSet: boolean;
  /** The zero of X was set: what a readout counts from. */
  readonly isZeroXSet: boolean;
  readonly conePasses: Readonly<Record<number, number>>;
  readonly coneTouched: Readonly<Record<number, number>>;
  /** A position was declared since the machine was switched on again. */
  readonly isDeclaredAgain: boolean;
}

/** What a lathe adds to a lane: turret, part as it is turned, what is held between tool and part, the setter arm. */
export interface LatheState {
  /** What stands in the working position, and whose offset row the control counts with. */
  readonly station: number;
  readonly row: number | null;
  readonly outer: Outline;
  readonly bore: Outline;
  readonly cuts: number;
  /** Which tool made the last cut, along which axis, and where Z stood. */
  readonly lastBy: { readonly tool: number; readonly axis: "x" | "z"; readonly atZ: Counts } | null;
  /** Quarters by which the chuck was turned by hand. */
  readonly quarter: number;
  /** `leanMm`: how far a hand on the post presses the tip toward the part. Hidden. */
  readonly gap: {
    readonly id: string;
    readonly on: HeldFace;
    readonly feel: Feel;
    readonly leanMm: number;
    /** Met from behind, by the far edge of a blade. */
    readonly isBehind?: boolean;
  } | null;
  readonly gapsPlaced: number;
  readonly block: { readonly id: string; readonly on: HeldFace } | null;
  readonly tries: number;
  readonly lastTry: { readonly id: string; readonly goes: boolean; readonly at: AxisCounts } | null;
  readonly arm: {
    readonly isDown: boolean;
    readonly trips: number;
    readonly isTripped: boolean;
    /** The axis that it holds, or held last. */
    readonly axis: "x" | "z" | null;
  };
  readonly isResting: boolean;
  /** What shims under each holder raise it by, mm. */
  readonly shimsMm: Readonly<Record<number, number>>;
  /** What the last facing cut past the middle left there: nothing, a pip that stands, one that was rubbed. */
  readonly pip: {
    readonly tool: number;
    readonly diameterMm: number;
    readonly looks: "none" | "standing" | "rubbed";
  } | null;
  /**
   * By how much each tool stands elsewhere in its clamp than it did when the lane began: along X, a diameter, and in
   * height, mm.
   */
  readonly movedMm: Readonly<Record<number, number>>;
  readonly raisedMm: Readonly<Record<number, number>>;
  /** How often a height was set by the gauge. */
  readonly heightsSet: number;
  /** Tools that were changed for new ones, with the overhang that was set by rule, mm. */
  readonly changed: Readonly<Record<number, number>>;
  /** Inserts that are chipped, how often each was changed, and how much further along Z it sits than the first, mm. */
  readonly chipped: readonly number[];
  readonly inserts: Readonly<Record<number, number>>;
  readonly insertZMm: Readonly<Record<number, number>>;
  /** What the last cut sounded and looked like, and where the machine stood then. */
  readonly heard: { readonly looks: CutLook; readonly at: AxisCounts } | null;
  readonly loose: number | null;
  readonly isFeedLow: boolean;
  /** What was said: which tools fit the part, how high the axis stands, by how much the setting gauge is off. */
  readonly fits: Readonly<Record<number, boolean>>;
  readonly stated: Readonly<Partial<Record<"axisHeight" | "gaugeError", number>>>;
  /** Stacks tried, newest last, and whether the setting gauge stands zeroed on the slide. */
  readonly stacks: readonly {
    readonly blocks: readonly number[];
    readonly under: "spindle" | "tailstock";
    readonly goes: boolean;
  }[];
  readonly stacksTried: number;
  readonly isGaugeZeroed: boolean;
  readonly gaugeReads: number;
  /** How often the machine was switched off and on again. */
  readonly starts: number;
  /** How the point looked over the edge, when that was looked at last. */
  readonly sighted: { readonly looks: (typeof sightings)[number]; readonly at: AxisCounts } | null;
  /**
   * The cone: how far its surface stands off where the drawing has it, mm along its normal, and how the last pass
   * looked.
   */
  readonly cone: {
    readonly offMm: number;
    readonly looks: (typeof conePasses)[number];
    readonly isHeld: boolean;
  } | null;
  readonly evidence: TurretEvidence;
}

function openedLathe(setup: TurningSetup, { lathe }: TurningTruth): LatheState {
  const { skinMm, jawMm, stock, handed } = lathe;
  // as far out as the blank comes anywhere while it turns
  const blank: Outline = [
    { fromMm: jawMm, toMm: skinMm, radiusMm: stock.diameterMm / 2 + stock.runoutMm + stock.ovalMm / 2, cut: 0 },
  ];
  const outer = handed
    ? carve(
        carve(blank, "outer", handed.faceMm, skinMm + 1, 0, 1),
        "outer",
        handed.faceMm - handed.bandMm,
        handed.faceMm,
        handed.bandRadiusMm,
        2,
      )
    : blank;
  return {
    station: setup.lathe.tools[0]?.number ?? 1,
    row: null,
    outer,
    bore:
      stock.boreMm === null
        ? [{ fromMm: jawMm, toMm: skinMm, radiusMm: 0, cut: 0 }]
        : [{ fromMm: jawMm, toMm: skinMm, radiusMm: stock.boreMm / 2, cut: 0 }],
    cuts: handed ? 2 : 0,
    lastBy: null,
    quarter: 0,
    gap: null,
    gapsPlaced: 0,
    block: null,
    tries: 0,
    lastTry: null,
    arm: { isDown: false, trips: 0, isTripped: false, axis: null },
    isResting: false,
    shimsMm: {},
    pip: null,
    movedMm: {},
    raisedMm: {},
    heightsSet: 0,
    changed: {},
    chipped: [],
    inserts: {},
    insertZMm: {},
    heard: null,
    loose: null,
    isFeedLow: false,
    starts: 0,
    fits: {},
    stated: {},
    stacks: [],
    stacksTried: 0,
    isGaugeZeroed: false,
    gaugeReads: 0,
    sighted: null,
    cone: null,
    evidence: {
      xTouched: {},
      zTouched: {},
      isXSet: {},
      isZSet: {},
      isNoseSet: {},
      isTipSet: {},
      pipsSeen: {},
      isShimmed: {},
      isHeightSet: {},
      isFaced: handed !== undefined,
      workTouches: 0,
      isWorkSet: false,
      isZeroXSet: false,
      conePasses: {},
      coneTouched: {},
      isDeclaredAgain: false,
    },
  };
}

/** A lane on a lathe. */
export interface TurningLane extends LaneBase {
  readonly kind: LatheKind;
  readonly setup: TurningSetup;
  readonly truth: TurningTruth;
  readonly lathe: LatheState;
}

export type LatheDraft = Draft<TurningLane>;
export type LatheAct<A extends ActSchema> = Act<TurningLane, A>;

export function openedTurning(opening: { setup: TurningSetup; truth: TurningTruth; isCoachOn: boolean }): TurningLane {
  const { setup, truth } = opening;
  return {
    ...openedBase(opening, { ...emptyMillRegisters(), turret: emptyTurret }),
    kind: setup.kind,
    // a hand-wound lathe knows no other place than where it stands
    isHomed: setup.kind === "readout",
    lathe: openedLathe(setup, truth),
  };
}
