import type { Setup, Truth } from "../../exercises";
import type { Feel } from "../../instruments";
import type { AxisCounts } from "../../registers";
import type { Counts } from "../../units";
import type { conePasses, EventOf, LaneEvent, sightings } from "../events";
import { withCone } from "./cone";
import { carve, type Outline } from "./outline";

/** Where a tool meets the part. */
export type TurnedFace = "face" | "diameter" | "bore" | "cone";
/** Faces that something can be held at. */
export type HeldFace = Exclude<TurnedFace, "cone">;

/** What was touched and set with each tool: gates and coach read this, never whether it is right. */
interface TurretEvidence {
  readonly xTouched: Readonly<Record<number, number>>;
  readonly zTouched: Readonly<Record<number, number>>;
  readonly isXSet: Readonly<Record<number, boolean>>;
  readonly isZSet: Readonly<Record<number, boolean>>;
  readonly isNoseSet: Readonly<Record<number, boolean>>;
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
  /** Which tool made the last cut, and along which axis. */
  readonly lastBy: { readonly tool: number; readonly axis: "x" | "z" } | null;
  /** Quarters by which the chuck was turned by hand. */
  readonly quarter: number;
  /** `leanMm`: how far a hand on the post presses the tip toward the part. Hidden. */
  readonly gap: { readonly id: string; readonly on: HeldFace; readonly feel: Feel; readonly leanMm: number } | null;
  readonly gapsPlaced: number;
  readonly block: { readonly id: string; readonly on: HeldFace } | null;
  readonly tries: number;
  readonly lastTry: { readonly id: string; readonly goes: boolean; readonly at: AxisCounts } | null;
  readonly arm: { readonly isDown: boolean; readonly trips: number; readonly isTripped: boolean };
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
  /** Tools that were changed for new ones, with the overhang that was set by rule, mm. */
  readonly changed: Readonly<Record<number, number>>;
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

export function openedLathe(setup: Setup, truth: Truth): LatheState | null {
  const lathe = truth.lathe;
  if (!setup.lathe || !lathe) return null;
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
    arm: { isDown: false, trips: 0, isTripped: false },
    isResting: false,
    shimsMm: {},
    pip: null,
    movedMm: {},
    raisedMm: {},
    changed: {},
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

type LatheEvent = Extract<
  LaneEvent,
  {
    type:
      | "turretIndexed"
      | "turned"
      | "turretGapPlaced"
      | "turretFelt"
      | "turretTried"
      | "turretGapPulled"
      | "chuckTurned"
      | "armSwung"
      | "armTripped"
      | "armLeft"
      | "metalTouched"
      | "metalLeft"
      | "toolShimmed"
      | "edgeSighted"
      | "toolChanged"
      | "toolLoosened"
      | "toolSlid"
      | "toolTightened"
      | "feedTurned"
      | "coneRan"
      | "switchedOff"
      | "fitStated"
      | "stackTried"
      | "gaugeZeroed"
      | "gaugeRead"
      | "heightStated";
  }
>;

/** Cut to this radius the face is clean to the middle, mm. */
const TO_THE_MIDDLE_MM = 0.02;
const counted = (record: Readonly<Record<number, number>>, tool: number): Readonly<Record<number, number>> => ({
  ...record,
  [tool]: (record[tool] ?? 0) + 1,
});

function touched(state: LatheState, on: TurnedFace): TurretEvidence {
  const { evidence, station } = state;
  return on === "face" || on === "cone"
    ? { ...evidence, zTouched: counted(evidence.zTouched, station), workTouches: evidence.workTouches + 1 }
    : { ...evidence, xTouched: counted(evidence.xTouched, station) };
}

/** What was set before the nose lay on the cone was a rough Z: it has to be set from here. */
function touchedCone(state: LatheState): TurretEvidence {
  const evidence = touched(state, "cone");
  return {
    ...evidence,
    coneTouched: counted(evidence.coneTouched, state.station),
    isZSet: { ...evidence.isZSet, [state.station]: false },
  };
}

/**
 * A facing cut that left nothing to touch in the middle: to the axis, past it (a pip says so), or to the edge of the
 * hole.
 */
export function isFacedToMiddle({ bore }: LatheState, { kind, axis, radiusMm, pip }: EventOf<"turned">): boolean {
  return (
    kind === "outer" &&
    axis === "x" &&
    (pip !== undefined || radiusMm <= Math.max(TO_THE_MIDDLE_MM, bore.at(-1)?.radiusMm ?? 0))
  );
}

function withTurned(state: LatheState, event: EventOf<"turned">): LatheState {
  const { kind, axis, fromMm, toMm, radiusMm, number, pip } = event;
  const isToMiddle = isFacedToMiddle(state, event);
  const evidence = axis === "x" && kind === "outer" ? touched(state, "face") : state.evidence;
  return {
    ...state,
    cuts: number,
    lastBy: { tool: state.station, axis },
    [kind]: carve(state[kind], kind, fromMm, toMm, radiusMm, number),
    ...(pip ? { pip: { tool: state.station, ...pip } } : {}),
    evidence: isToMiddle
      ? { ...evidence, isFaced: true, ...(pip ? { pipsSeen: counted(evidence.pipsSeen, state.station) } : {}) }
      : evidence,
  };
}

export function evolveLathe(state: LatheState, event: LatheEvent): LatheState {
  switch (event.type) {
    case "turretIndexed":
      return { ...state, station: event.station, row: event.row, isResting: false };
    case "turned":
      return withTurned(state, event);
    case "turretGapPlaced":
      return {
        ...state,
        gap: { id: event.id, on: event.on, feel: event.feel, leanMm: event.leanMm ?? 0 },
        gapsPlaced: state.gapsPlaced + 1,
      };
    case "turretFelt":
      return {
        ...state,
        gap: state.gap ? { ...state.gap, feel: event.feel } : null,
        evidence: event.feel === "drags" || event.feel === "held" ? touched(state, event.on) : state.evidence,
      };
    case "turretTried":
      return {
        ...state,
        block: event.goes ? { id: event.id, on: event.on } : null,
        tries: event.number,
        lastTry: { id: event.id, goes: event.goes, at: event.at },
        evidence: event.goes && event.isOpened ? touched(state, event.on) : state.evidence,
      };
    case "turretGapPulled":
      return { ...state, gap: null, block: null };
    case "chuckTurned":
      return { ...state, quarter: event.quarter };
    case "armSwung":
      return { ...state, arm: { ...state.arm, isDown: event.isDown, isTripped: false } };
    case "armTripped":
      return {
        ...state,
        arm: { ...state.arm, trips: event.number, isTripped: true },
        evidence:
          event.axis === "x"
            ? { ...state.evidence, xTouched: counted(state.evidence.xTouched, state.station) }
            : { ...state.evidence, zTouched: counted(state.evidence.zTouched, state.station) },
      };
    case "armLeft":
      return { ...state, arm: { ...state.arm, isTripped: false } };
    case "metalTouched":
      return {
        ...state,
        isResting: true,
        evidence: event.on === "cone" ? touchedCone(state) : touched(state, event.on),
      };
    case "toolShimmed":
      return {
        ...state,
        shimsMm: { ...state.shimsMm, [event.tool]: (state.shimsMm[event.tool] ?? 0) + event.byMm },
        evidence: { ...state.evidence, isShimmed: { ...state.evidence.isShimmed, [event.tool]: true } },
      };
    case "metalLeft":
      return { ...state, isResting: false };
    case "edgeSighted":
      return {
        ...state,
        sighted: { looks: event.looks, at: event.at },
        evidence:
          event.looks === "over"
            ? { ...state.evidence, zTouched: counted(state.evidence.zTouched, event.tool) }
            : state.evidence,
      };
    case "toolChanged":
      return {
        ...state,
        changed: { ...state.changed, [event.tool]: event.overhangMm },
        movedMm: { ...state.movedMm, [event.tool]: event.xMm },
        raisedMm: { ...state.raisedMm, [event.tool]: event.heightMm },
        // a new edge: what the old one touched and left says nothing of it
        pip: state.pip?.tool === event.tool ? null : state.pip,
        evidence: withoutTool(state.evidence, event.tool),
      };
    case "toolLoosened":
      return { ...state, loose: event.tool, ...shifted(state, event.tool, event.xMm) };
    case "toolSlid":
      return {
        ...state,
        ...shifted(state, event.tool, event.xMm),
        evidence: {
          ...state.evidence,
          xTouched: counted(state.evidence.xTouched, event.tool),
          isXSet: { ...state.evidence.isXSet, [event.tool]: true },
        },
      };
    case "toolTightened":
      return { ...state, loose: null, ...shifted(state, event.tool, event.xMm) };
    case "feedTurned":
      return { ...state, isFeedLow: event.isLow };
    case "coneRan":
      return withCone(state, event);
    case "fitStated":
      return { ...state, fits: { ...state.fits, [event.tool]: event.fits } };
    case "stackTried":
      return {
        ...state,
        stacksTried: event.number,
        stacks: [...state.stacks, { blocks: event.blocks, under: event.under, goes: event.goes }].slice(-STACKS_KEPT),
      };
    case "gaugeZeroed":
      return { ...state, isGaugeZeroed: true };
    // brought down from the slide and up to the pin it has to be zeroed anew for the next
    case "gaugeRead":
      return { ...state, gaugeReads: event.number, isGaugeZeroed: false };
    case "heightStated":
      return { ...state, stated: { ...state.stated, [event.what]: event.mm } };
    case "switchedOff":
      return { ...state, row: null, starts: state.starts + 1, evidence: { ...state.evidence, isDeclaredAgain: false } };
  }
}

const STACKS_KEPT = 12;

const shifted = ({ movedMm }: LatheState, tool: number, xMm: number): Pick<LatheState, "movedMm"> => ({
  movedMm: { ...movedMm, [tool]: (movedMm[tool] ?? 0) + xMm },
});

function withoutTool(evidence: TurretEvidence, tool: number): TurretEvidence {
  const { [tool]: _x, ...xTouched } = evidence.xTouched;
  const { [tool]: _p, ...pipsSeen } = evidence.pipsSeen;
  return {
    ...evidence,
    xTouched,
    pipsSeen,
    isXSet: { ...evidence.isXSet, [tool]: false },
    isHeightSet: { ...evidence.isHeightSet, [tool]: false },
  };
}

/** A measured diameter counts for the tool that turned it. */
export function withMeasured(state: LatheState, what: string, isFound: boolean): LatheState {
  if (what === "shank" && isFound)
    return { ...state, evidence: { ...state.evidence, xTouched: counted(state.evidence.xTouched, state.station) } };
  if ((what !== "turned" && what !== "bored") || state.lastBy?.axis !== "z") return state;
  return { ...state, evidence: { ...state.evidence, xTouched: counted(state.evidence.xTouched, state.lastBy.tool) } };
}

/** A register of the tool table, or a work offset, was set: which gate that counts for. */
export function withTurretSet(before: LatheState, register: string, _to: Counts): LatheState {
  const state =
    register.startsWith("common") && before.starts > 0
      ? { ...before, evidence: { ...before.evidence, isDeclaredAgain: true } }
      : before;
  const { evidence } = state;
  const row = Number(/\d+$/.exec(register)?.[0] ?? 0);
  const set = (field: "isXSet" | "isZSet" | "isNoseSet" | "isHeightSet") => ({
    ...state,
    evidence: { ...evidence, [field]: { ...evidence[field], [row]: true } },
  });
  if (/^Y\d/.test(register)) return (evidence.pipsSeen[row] ?? 0) > 0 ? set("isHeightSet") : state;
  if (/^L?XW?\d/.test(register)) return (evidence.xTouched[row] ?? 0) > 0 ? set("isXSet") : state;
  if (/^L?ZW?\d/.test(register)) return (evidence.zTouched[row] ?? 0) > 0 ? set("isZSet") : state;
  if (/^[RQ]\d/.test(register)) return set("isNoseSet");
  // a readout's zero of X is taken where a band was just cut, or where one is felt
  if (register.endsWith(".x") && (state.lastBy?.axis === "z" || (evidence.xTouched[state.station] ?? 0) > 0))
    return { ...state, evidence: { ...evidence, isZeroXSet: true } };
  return register.endsWith(".z") && evidence.workTouches > 0
    ? { ...state, evidence: { ...evidence, isWorkSet: true } }
    : state;
}
