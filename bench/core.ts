import { replay, type LaneEvent } from "@probe-lane/core/bench";
import type { LoggedEvent } from "@probe-lane/core/diagnosis";
import { rule } from "@probe-lane/core/grading";
import { findDemoExercise, LaneDriver, workLane } from "../demo";
import { medianMs, report } from "./measure";

const EVENTS = 3000;

/** A lane of exactly so many events: worked carefully, then clicked on in the air until the log is long enough, and handed in. */
function longLane(length: number): LoggedEvent[] {
  const { exercise } = findDemoExercise("roller-bracket-back-right");
  const lane = new LaneDriver(exercise, "bench");
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

export function benchCore(): void {
  const log = longLane(EVENTS);
  const { marking } = findDemoExercise("roller-bracket-back-right");
  const events = log.map(({ event }) => event);
  const fields = Object.keys(replay(events)).length;
  const bareMs = medianMs(40, () => bareFold(events, fields));
  const replayMs = medianMs(40, () => replay(events));
  const rulingMs = medianMs(20, () => rule(log, marking));
  report("replay", `${Math.round((EVENTS / replayMs) * 1000).toLocaleString("en")} events/s`, "goal ≥ 300,000", `${(replayMs / bareMs).toFixed(1)} × a fold that only copies the state`);
  report(`ruling of ${EVENTS} events`, `${rulingMs.toFixed(1)} ms`, "goal < 30", `${(rulingMs / replayMs).toFixed(1)} × one replay of the same log`);
}
