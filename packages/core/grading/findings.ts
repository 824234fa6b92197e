import type { IncidentCode } from "../bench/events";
import type { LaneTrace } from "../diagnosis";

export const methodSteps = [
  "homedFirst", "burrBeforeTouch", "speedStated", "twoKicksX", "twoKicksY", "finestX", "finestY", "finestPaper", "lookedTwoSides",
] as const;
export type MethodStep = (typeof methodSteps)[number];

/** One reason for a mark: what was done or missed, or what happened, with its place in the log. */
export type Finding =
  | { readonly code: "stepDone" | "stepMissed"; readonly step: MethodStep; readonly marks: number; readonly outOf: number; readonly seq: number | null }
  | {
      readonly code: "incident"; readonly incident: IncidentCode; readonly cost: number; readonly failsOutright: boolean;
      readonly seq: number; readonly atMs: number; readonly rpm?: number | undefined;
    }
  | { readonly code: "noIncident"; readonly marks: number };

/** How near two kicks must fall to agree, counts. */
const AGREE_COUNTS = 6;
const FINEST_MM = 0.001;

const EDGE = { X: "x", Y: "y" } as const;

/** Kicks on one axis that were made before its register was last set. */
function kicksUsed(trace: LaneTrace, axis: "x" | "y") {
  const lastSet = trace.changes.findLast(({ event }) => event.register === `G54.${axis}`);
  return lastSet ? trace.kicks.filter(({ event, seq }) => event.axis === axis && seq < lastSet.seq) : [];
}

function twoKicks(trace: LaneTrace, axis: "x" | "y"): number | null {
  const [last, before] = kicksUsed(trace, axis).toReversed();
  return last && before && Math.abs(last.event.atCounts - before.event.atCounts) <= AGREE_COUNTS ? last.seq : null;
}

function finestKick(trace: LaneTrace, axis: "x" | "y"): number | null {
  const last = kicksUsed(trace, axis).at(-1);
  return last && last.event.parts.clickMm <= FINEST_MM ? last.seq : null;
}

function firstContactSeq({ log }: LaneTrace): number {
  return log.find(({ event }) => event.type === "approachBegan" || event.type === "kicked")?.seq ?? Infinity;
}

/** Where in the log each step was done; null when it was not. */
const DONE: Record<MethodStep, (trace: LaneTrace) => number | null> = {
  homedFirst: ({ log }) => {
    const homed = log.find(({ event }) => event.type === "homed");
    const jogged = log.find(({ event }) => event.type === "jogged" || event.type === "blockRan");
    return homed && homed.seq < (jogged?.seq ?? Infinity) ? homed.seq : null;
  },
  burrBeforeTouch: (trace) => {
    const dressed = trace.log.find(({ event }) => event.type === "burrDressed");
    return dressed && dressed.seq < firstContactSeq(trace) ? dressed.seq : null;
  },
  speedStated: ({ log }) => {
    const starts = log.filter(({ event }) => event.type === "spindleStarted");
    return starts.length > 0 && starts.every(({ event }) => event.type === "spindleStarted" && event.isStated)
      ? (starts[0]?.seq ?? null) : null;
  },
  twoKicksX: (trace) => twoKicks(trace, EDGE.X),
  twoKicksY: (trace) => twoKicks(trace, EDGE.Y),
  finestX: (trace) => finestKick(trace, EDGE.X),
  finestY: (trace) => finestKick(trace, EDGE.Y),
  finestPaper: ({ touches, changes }) => {
    const lastSet = changes.findLast(({ event }) => event.register.endsWith("z") || event.register.startsWith("H"));
    const touch = touches.findLast(({ by, holds, seq, feel }) => by === "paper" && holds === "tool1" && feel !== "torn" && seq < (lastSet?.seq ?? 0));
    return touch && touch.clickMm <= FINEST_MM ? touch.seq : null;
  },
  lookedTwoSides: ({ log, final }) => {
    const { sidesOverZero } = final.evidence;
    const isFromTwo = sidesOverZero.some((side) => side === "front" || side === "back") && sidesOverZero.some((side) => side === "left" || side === "right");
    return isFromTwo ? (log.findLast(({ event }) => event.type === "lookedFrom" && event.isOverZero)?.seq ?? null) : null;
  },
};

/** Each required step, with an equal share of the strand. */
export function methodFindings(trace: LaneTrace, outOf: number): Finding[] {
  const share = outOf / methodSteps.length;
  return methodSteps.map((step) => {
    const seq = DONE[step](trace);
    return { code: seq === null ? "stepMissed" : "stepDone", step, marks: seq === null ? 0 : share, outOf: share, seq };
  });
}

/** Share of the safety strand that each incident costs. */
const COST: Record<IncidentCode, number> = {
  finderThrown: 0.4, finderBent: 0.2, finderBroken: 0.4, toolChipped: 0.4, noseStruck: 1, paperUnderTurningTool: 1, paperTorn: 0.1,
};

export function safetyFindings({ log }: LaneTrace, outOf: number): Finding[] {
  const incidents = log.flatMap(({ seq, atMs, event }): Finding[] =>
    event.type === "incidentHappened"
      ? [{ code: "incident", incident: event.code, cost: COST[event.code] * outOf, failsOutright: event.failsOutright, seq, atMs, rpm: event.rpm }]
      : []);
  return incidents.length > 0 ? incidents : [{ code: "noIncident", marks: outOf }];
}
