import { EDGE_FINDER_HIGHEST_RPM } from "../instruments";
import type { Draft } from "./draft";
import { bench } from "./machine";
import { senseInPlace } from "./motion";
import type { Refusal } from "./refusals";
import type { LaneState } from "./state";

/** Starts the spindle; without a stated speed it comes up at the one remembered. What it holds decides what happens then. */
export function startSpindle(draft: Draft, direction: "forward" | "reverse", rpm: number, isStated: boolean): void {
  draft.emit({ type: "spindleStarted", direction, rpm, isStated });
  const { holds, paper, finder } = draft.state;
  if (paper) {
    draft.emit({
      type: "incidentHappened", code: "paperUnderTurningTool", isSilent: false, failsOutright: true, stopsMachine: false, on: paper.on,
    });
    draft.emit({ type: "paperPulled" });
  }
  if (holds === "edgeFinder" && finder.condition !== "broken" && rpm > EDGE_FINDER_HIGHEST_RPM) {
    draft.emit({
      type: "incidentHappened", code: "finderThrown", isSilent: false, failsOutright: false, stopsMachine: false, rpm, thing: "edgeFinder",
    });
  }
  senseInPlace(draft);
}

export function speedProblem(state: LaneState, rpm: number): Refusal | null {
  if (rpm < bench.lowestRpm || rpm > bench.highestRpm) {
    return { code: "spindleOutOfRange", lowestRpm: bench.lowestRpm, highestRpm: bench.highestRpm };
  }
  return state.isDoorOpen && rpm > bench.doorLimitRpm ? { code: "doorOpenSpeed", rpm, limitRpm: bench.doorLimitRpm } : null;
}
