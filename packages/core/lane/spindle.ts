import type { Draft } from "./draft";
import type { Refusal } from "./refusals";
import type { LaneRules } from "./rules";
import type { LaneBase } from "./state";
import { spindleRanges } from "./travel";

/**
 * Starts the spindle; without a stated speed it comes up at the one remembered. What it holds decides what happens
 * then.
 */
export function startSpindle<S extends LaneBase>(
  rules: Pick<LaneRules<S>, "spindleStarted">,
  draft: Draft<S>,
  start: { direction: "forward" | "reverse"; rpm: number; isStated: boolean },
): void {
  draft.emit({ type: "spindleStarted", ...start });
  rules.spindleStarted(draft, start.rpm);
}

/** Why the spindle cannot run at a speed now, on this machine; null when it can. */
export function speedProblem<S extends LaneBase>(
  rules: Pick<LaneRules<S>, "speedProblem" | "doorLimitRpm">,
  state: S,
  rpm: number,
): Refusal | null {
  const { lowestRpm, highestRpm } = spindleRanges[state.setup.kind];
  if (rpm < lowestRpm || rpm > highestRpm) return { code: "spindleOutOfRange", lowestRpm, highestRpm };
  const problem = rules.speedProblem(state, rpm);
  if (problem) return problem;
  const limitRpm = rules.doorLimitRpm;
  return state.isDoorOpen && rpm > limitRpm ? { code: "doorOpenSpeed", rpm, limitRpm } : null;
}
