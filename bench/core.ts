import { nowOf, replay, type LaneEvent, type MillSeen } from "@probe-lane/core/bench";
import { infer, type Candidate, type LoggedEvent } from "@probe-lane/core/diagnosis";
import { rule } from "@probe-lane/core/grading";
import { reviewOf } from "@probe-lane/core/review";
import { millLane, type LaneDriver, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../demo";
import { medianMs, report } from "./measure";

const EVENTS = 3000;

/**
 * A lane of exactly so many events: worked carefully, then clicked on in the air until the log is long enough, and
 * handed in.
 */
function longLane(length: number): LoggedEvent[] {
  const { exercise } = findDemoExercise("roller-bracket-back-right");
  const lane = millLane(exercise, "bench");
  workLane(lane, { stopsAfter: "zero" });
  for (let turn = 0; lane.log.length < length - 1; turn++) {
    lane.do({ type: "jog", axis: turn % 2 ? "x" : "y", direction: turn % 4 < 2 ? -1 : 1, clicks: 1, size: "fine" });
  }
  lane.do({ type: "handIn" });
  return lane.log;
}

/** The least that any fold of this log could do: copy a state of as many fields, once an event. */
function bareFold(events: readonly LaneEvent[], fields: number): number {
  let state: Record<string, number> = Object.fromEntries(Array.from({ length: fields }, (_, i) => [`field${i}`, i]));
  for (const event of events) state = { ...state, field0: (state["field0"] ?? 0) + event.type.length };
  return state["field0"] ?? 0;
}

/**
 * A lane with eight tools, after the longest exercise of the pack has been worked in it; with one tool and nothing done
 * for comparison.
 */
function workedBench(isFull: boolean): LaneDriver<MillSeen> {
  const { exercise } = findDemoExercise(isFull ? "five-tools-block-in-wear" : "focuser-plate-lower-left");
  const [first] = exercise.tools;
  const eight =
    isFull && first
      ? Array.from({ length: 8 }, (_, i) => exercise.tools[i] ?? { ...first, number: i + 1 })
      : exercise.tools;
  const lane = millLane({ ...exercise, tools: eight }, "bench", { isCoachOn: true });
  workLane(lane, { stopsAfter: isFull ? "z" : "dressed" });
  return lane;
}

/** One fine click as the server answers it: decided, folded, observed, written out; ms a click. */
function clickMs(lane: LaneDriver<MillSeen>): number {
  const CLICKS = 400;
  let turn = 0;
  return (
    medianMs(20, () => {
      for (let click = 0; click < CLICKS; click++) {
        lane.do({ type: "jog", axis: "z", direction: turn++ % 2 ? 1 : -1, clicks: 1, size: "fine" });
        JSON.stringify(nowOf(lane.seen, lane.seen.solids));
      }
    }) / CLICKS
  );
}

const CANDIDATES = 60;

/** Sixty mistakes over 60 mm, and a closure that one of the pairs explains. */
function diagnosisMs(): { inferMs: number; sumMs: number } {
  const candidates = Array.from({ length: CANDIDATES }, (_, i): Candidate => ({
    id: `mistake${i}`,
    predicted: ((i * 37) % CANDIDATES) - 29.5 + i / 97,
    prior: 0.01,
  }));
  const closure = (candidates[7]?.predicted ?? 0) + (candidates[41]?.predicted ?? 0);
  /** The least that any diagnosis of all pairs could do: add two predictions and weigh the rest by a normal curve. */
  const bareSum = () => {
    let total = 0;
    for (const [i, first] of candidates.entries())
      for (let j = i; j < candidates.length; j++)
        total += Math.exp(-0.5 * (closure - first.predicted - (candidates[j]?.predicted ?? 0)) ** 2);
    return total;
  };
  return {
    inferMs: medianMs(60, () => infer({ closure, u: 0.004, none: 0.5, candidates, other: { prior: 0.02, span: 200 } })),
    sumMs: medianMs(60, bareSum),
  };
}

const FRAME_MS = 1000 / 60;

export function benchCore(): void {
  const log = longLane(EVENTS);
  const { marking } = findDemoExercise("roller-bracket-back-right");
  const events = log.map(({ event }) => event);
  const fields = Object.keys(replay(events)).length;
  const bareMs = medianMs(40, () => bareFold(events, fields));
  const replayMs = medianMs(40, () => replay(events));
  const rulingMs = medianMs(20, () => rule(log, marking));
  report(
    "replay",
    `${Math.round((EVENTS / replayMs) * 1000).toLocaleString("en")} events/s`,
    "goal ≥ 500,000",
    `${(replayMs / bareMs).toFixed(1)} × a fold that only copies the state`,
  );
  const plainMs = clickMs(workedBench(false));
  const fullMs = clickMs(workedBench(true));
  report(
    "a click, eight tools, longest lane",
    `${(fullMs * 1000).toFixed(0)} µs`,
    `goal < one frame (${FRAME_MS.toFixed(1)} ms)`,
    `${(fullMs / plainMs).toFixed(1)} × a click with one tool and nothing done`,
  );
  report(
    `ruling of ${EVENTS} events`,
    `${rulingMs.toFixed(1)} ms`,
    "goal < 15",
    `${(rulingMs / replayMs).toFixed(1)} × one replay of the same log`,
  );
  const { inferMs, sumMs } = diagnosisMs();
  report(
    `diagnosis, ${CANDIDATES} candidates, all pairs`,
    `${inferMs.toFixed(2)} ms`,
    "goal < 5",
    `${(inferMs / sumMs).toFixed(1)} × weighing the bare sums`,
  );
  const reviewMs = medianMs(5, () => JSON.stringify(reviewOf(log)));
  report(
    `replay for a page, ${EVENTS} events`,
    `${reviewMs.toFixed(0)} ms, ${(JSON.stringify(reviewOf(log)).length / 1e6).toFixed(1)} MB`,
    "goal < 300",
    `${(reviewMs / rulingMs).toFixed(1)} × the ruling of the same log`,
  );
}
