import { EDGE_FINDER_HIGHEST_RPM } from "../instruments";
import type { Draft } from "./draft";
import { bench } from "./machine";
import { senseInPlace } from "./sensing";
import type { Refusal } from "./refusals";
import type { LaneState } from "./state";

/** Things that must never turn under power. */
const NEVER_TURNS = new Set(["taster", "probe", "indicator"]);
export const neverTurns = (thing: string | null): boolean => thing !== null && NEVER_TURNS.has(thing);

/** Starts the spindle; without a stated speed it comes up at the one remembered. What it holds decides what happens then. */
export function startSpindle(draft: Draft, direction: "forward" | "reverse", rpm: number, isStated: boolean): void {
  draft.emit({ type: "spindleStarted", direction, rpm, isStated });
  const { holds, paper, block, finder } = draft.state;
  const gap = paper ?? block;
  if (gap) {
    draft.emit({
      type: "incidentHappened", code: "paperUnderTurningTool", isSilent: false, failsOutright: true, stopsMachine: false, on: gap.on,
    });
    draft.emit(paper ? { type: "paperPulled" } : { type: "blockPulled" });
  }
  if (holds && neverTurns(holds)) {
    draft.emit({ type: "incidentHappened", code: "startedWithInstrument", isSilent: false, failsOutright: false, stopsMachine: true, rpm, thing: holds });
    return;
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
  if (state.setup.settings.spindleGuard === "refuses" && state.holds && neverTurns(state.holds)) return { code: "mustNotTurn", thing: state.holds };
  return state.isDoorOpen && rpm > bench.doorLimitRpm ? { code: "doorOpenSpeed", rpm, limitRpm: bench.doorLimitRpm } : null;
}
