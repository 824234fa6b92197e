import { type LatheState, type TurningLane, type TurretEvidence } from "./lane";
import type { TurnedFace } from "./faces";
import { type EventOf } from "../events";
/** What gates and coach look at: what was done with each tool, never whether it is right. */

export const counted = (record: Readonly<Record<number, number>>, tool: number): Readonly<Record<number, number>> => ({
  ...record,
  [tool]: (record[tool] ?? 0) + 1,
});

export function touched(state: LatheState, on: TurnedFace): TurretEvidence {
  const { evidence, station } = state;
  return on === "face" || on === "cone"
    ? { ...evidence, zTouched: counted(evidence.zTouched, station), workTouches: evidence.workTouches + 1 }
    : { ...evidence, xTouched: counted(evidence.xTouched, station) };
}

/** What was set before the nose lay on the cone was a rough Z: it has to be set from here. */
export function touchedCone(state: LatheState): TurretEvidence {
  const evidence = touched(state, "cone");
  return {
    ...evidence,
    coneTouched: counted(evidence.coneTouched, state.station),
    isZSet: { ...evidence.isZSet, [state.station]: false },
  };
}

/** Cut to this radius the face is clean to the middle, mm. */
const TO_THE_MIDDLE_MM = 0.02;

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

export function withoutTool(evidence: TurretEvidence, tool: number): TurretEvidence {
  const { [tool]: _x, ...xTouched } = evidence.xTouched;
  const { [tool]: _z, ...zTouched } = evidence.zTouched;
  const { [tool]: _set, ...isZSet } = evidence.isZSet;
  const { [tool]: _p, ...pipsSeen } = evidence.pipsSeen;
  return {
    ...evidence,
    xTouched,
    zTouched,
    pipsSeen,
    isXSet: { ...evidence.isXSet, [tool]: false },
    isZSet,
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
export function withTurretSet(before: LatheState, register: string): LatheState {
  const state =
    register.startsWith("common") && before.starts > 0
      ? { ...before, evidence: { ...before.evidence, isDeclaredAgain: true } }
      : before;
  const { evidence } = state;
  const row = Number(/\d+$/.exec(register)?.[0] ?? 0);
  const set = (field: "isXSet" | "isZSet" | "isNoseSet" | "isTipSet" | "isHeightSet") => ({
    ...state,
    evidence: { ...evidence, [field]: { ...evidence[field], [row]: true } },
  });
  if (/^Y\d/.test(register)) return (evidence.pipsSeen[row] ?? 0) > 0 ? set("isHeightSet") : state;
  if (/^L?XW?\d/.test(register)) return (evidence.xTouched[row] ?? 0) > 0 ? set("isXSet") : state;
  if (/^L?ZW?\d/.test(register)) return (evidence.zTouched[row] ?? 0) > 0 ? set("isZSet") : state;
  if (/^R\d/.test(register)) return set("isNoseSet");
  if (/^Q\d/.test(register)) return set("isTipSet");
  // a readout's zero of X is taken where a band was just cut, or where one is felt
  if (register.endsWith(".x") && (state.lastBy?.axis === "z" || (evidence.xTouched[state.station] ?? 0) > 0))
    return { ...state, evidence: { ...evidence, isZeroXSet: true } };
  return register.endsWith(".z") && evidence.workTouches > 0
    ? { ...state, evidence: { ...evidence, isWorkSet: true } }
    : state;
}

/** A fact that changes what a lathe adds to its lane. */
export const onLathe =
  <E>(change: (lathe: LatheState, event: E) => LatheState) =>
  (state: TurningLane, event: E): TurningLane => ({ ...state, lathe: change(state.lathe, event) });
