import type { Setup, Truth } from "../../exercises";
import type { Feel } from "../../instruments";
import type { AxisCounts } from "../../registers";
import type { Counts } from "../../units";
import type { EventOf, LaneEvent } from "../events";
import { carve, type Outline } from "./outline";

/** Where a tool meets the part. */
export type TurnedFace = "face" | "diameter" | "bore";

/** What was touched and set with each tool: gates and coach read this, never whether it is right. */
interface TurretEvidence {
  readonly xTouched: Readonly<Record<number, number>>;
  readonly zTouched: Readonly<Record<number, number>>;
  readonly isXSet: Readonly<Record<number, boolean>>;
  readonly isZSet: Readonly<Record<number, boolean>>;
  readonly isNoseSet: Readonly<Record<number, boolean>>;
  readonly pipsSeen: Readonly<Record<number, number>>;
  readonly isShimmed: Readonly<Record<number, boolean>>;
  readonly isFaced: boolean;
  readonly workTouches: number;
  readonly isWorkSet: boolean;
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
  readonly gap: { readonly id: string; readonly on: TurnedFace; readonly feel: Feel } | null;
  readonly block: { readonly id: string; readonly on: TurnedFace } | null;
  readonly tries: number;
  readonly lastTry: { readonly id: string; readonly goes: boolean; readonly at: AxisCounts } | null;
  readonly arm: { readonly isDown: boolean; readonly trips: number; readonly isTripped: boolean };
  readonly isResting: boolean;
  /** What shims under each holder raise it by, mm. */
  readonly shimsMm: Readonly<Record<number, number>>;
  /** What the last facing cut past the middle left there: nothing, a pip that stands, one that was rubbed. */
  readonly pip: { readonly tool: number; readonly diameterMm: number; readonly looks: "none" | "standing" | "rubbed" } | null;
  readonly evidence: TurretEvidence;
}

export function openedLathe(setup: Setup, truth: Truth): LatheState | null {
  const lathe = truth.lathe;
  if (!setup.lathe || !lathe) return null;
  const { skinMm, jawMm, stock, handed } = lathe;
  // as far out as the blank comes anywhere while it turns
  const blank: Outline = [{ fromMm: jawMm, toMm: skinMm, radiusMm: stock.diameterMm / 2 + stock.runoutMm + stock.ovalMm / 2, cut: 0 }];
  const outer = handed ? carve(carve(blank, "outer", handed.faceMm, skinMm + 1, 0, 1), "outer", handed.faceMm - handed.bandMm, handed.faceMm, handed.bandRadiusMm, 2) : blank;
  return {
    station: setup.lathe.tools[0]?.number ?? 1, row: null, outer,
    bore: stock.boreMm === null ? [{ fromMm: jawMm, toMm: skinMm, radiusMm: 0, cut: 0 }] : [{ fromMm: jawMm, toMm: skinMm, radiusMm: stock.boreMm / 2, cut: 0 }],
    cuts: handed ? 2 : 0, lastBy: null, quarter: 0, gap: null, block: null, tries: 0, lastTry: null, arm: { isDown: false, trips: 0, isTripped: false }, isResting: false, shimsMm: {}, pip: null,
    evidence: { xTouched: {}, zTouched: {}, isXSet: {}, isZSet: {}, isNoseSet: {}, pipsSeen: {}, isShimmed: {}, isFaced: false, workTouches: 0, isWorkSet: false },
  };
}

type LatheEvent = Extract<LaneEvent, { type: "turretIndexed" | "turned" | "turretGapPlaced" | "turretFelt" | "turretTried" | "turretGapPulled" | "chuckTurned" | "armSwung" | "armTripped" | "armLeft" | "metalTouched" | "metalLeft" | "toolShimmed" }>;

/** Cut to this radius the face is clean to the middle, mm. */
const TO_THE_MIDDLE_MM = 0.02;
const counted = (record: Readonly<Record<number, number>>, tool: number): Readonly<Record<number, number>> => ({ ...record, [tool]: (record[tool] ?? 0) + 1 });

function touched(state: LatheState, on: TurnedFace): TurretEvidence {
  const { evidence, station } = state;
  return on === "face" ? { ...evidence, zTouched: counted(evidence.zTouched, station), workTouches: evidence.workTouches + 1 } : { ...evidence, xTouched: counted(evidence.xTouched, station) };
}

/** A facing cut that left nothing to touch in the middle: to the axis, past it (a pip says so), or to the edge of the hole. */
export function isFacedToMiddle({ bore }: LatheState, { kind, axis, radiusMm, pip }: EventOf<"turned">): boolean {
  return kind === "outer" && axis === "x" && (pip !== undefined || radiusMm <= Math.max(TO_THE_MIDDLE_MM, bore.at(-1)?.radiusMm ?? 0));
}

function withTurned(state: LatheState, event: EventOf<"turned">): LatheState {
  const { kind, axis, fromMm, toMm, radiusMm, number, pip } = event;
  const isToMiddle = isFacedToMiddle(state, event);
  const evidence = axis === "x" && kind === "outer" ? touched(state, "face") : state.evidence;
  return {
    ...state, cuts: number, lastBy: { tool: state.station, axis }, [kind]: carve(state[kind], kind, fromMm, toMm, radiusMm, number),
    ...(pip ? { pip: { tool: state.station, ...pip } } : {}),
    evidence: isToMiddle ? { ...evidence, isFaced: true, ...(pip ? { pipsSeen: counted(evidence.pipsSeen, state.station) } : {}) } : evidence,
  };
}

export function evolveLathe(state: LatheState, event: LatheEvent): LatheState {
  switch (event.type) {
    case "turretIndexed": return { ...state, station: event.station, row: event.row, isResting: false };
    case "turned": return withTurned(state, event);
    case "turretGapPlaced": return { ...state, gap: { id: event.id, on: event.on, feel: event.feel } };
    case "turretFelt": return {
      ...state, gap: state.gap ? { ...state.gap, feel: event.feel } : null, evidence: event.feel === "drags" || event.feel === "held" ? touched(state, event.on) : state.evidence,
    };
    case "turretTried": return {
      ...state, block: event.goes ? { id: event.id, on: event.on } : null, tries: event.number, lastTry: { id: event.id, goes: event.goes, at: event.at },
      evidence: event.goes && event.isOpened ? touched(state, event.on) : state.evidence,
    };
    case "turretGapPulled": return { ...state, gap: null, block: null };
    case "chuckTurned": return { ...state, quarter: event.quarter };
    case "armSwung": return { ...state, arm: { ...state.arm, isDown: event.isDown, isTripped: false } };
    case "armTripped": return {
      ...state, arm: { ...state.arm, trips: event.number, isTripped: true },
      evidence: event.axis === "x" ? { ...state.evidence, xTouched: counted(state.evidence.xTouched, state.station) } : { ...state.evidence, zTouched: counted(state.evidence.zTouched, state.station) },
    };
    case "armLeft": return { ...state, arm: { ...state.arm, isTripped: false } };
    case "metalTouched": return { ...state, isResting: true, evidence: touched(state, event.on) };
    case "toolShimmed": return {
      ...state, shimsMm: { ...state.shimsMm, [event.tool]: (state.shimsMm[event.tool] ?? 0) + event.byMm }, evidence: { ...state.evidence, isShimmed: { ...state.evidence.isShimmed, [event.tool]: true } },
    };
    case "metalLeft": return { ...state, isResting: false };
  }
}

/** A measured diameter counts for the tool that turned it. */
export function withMeasured(state: LatheState, what: string, isFound: boolean): LatheState {
  if (what === "shank" && isFound) return { ...state, evidence: { ...state.evidence, xTouched: counted(state.evidence.xTouched, state.station) } };
  if ((what !== "turned" && what !== "bored") || state.lastBy?.axis !== "z") return state;
  return { ...state, evidence: { ...state.evidence, xTouched: counted(state.evidence.xTouched, state.lastBy.tool) } };
}

/** A register of the tool table, or a work offset, was set: which gate that counts for. */
export function withTurretSet(state: LatheState, register: string, _to: Counts): LatheState {
  const { evidence } = state;
  const row = Number(/\d+$/.exec(register)?.[0] ?? 0);
  const set = (field: "isXSet" | "isZSet" | "isNoseSet") => ({ ...state, evidence: { ...evidence, [field]: { ...evidence[field], [row]: true } } });
  if (/^XW?\d/.test(register)) return (evidence.xTouched[row] ?? 0) > 0 ? set("isXSet") : state;
  if (/^ZW?\d/.test(register)) return (evidence.zTouched[row] ?? 0) > 0 ? set("isZSet") : state;
  if (/^[RQ]\d/.test(register)) return set("isNoseSet");
  return register.endsWith(".z") && evidence.workTouches > 0 ? { ...state, evidence: { ...evidence, isWorkSet: true } } : state;
}
