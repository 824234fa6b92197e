import { EDGE_FINDER_HIGHEST_RPM } from "../instruments";
import type { Draft } from "./draft";
import { bench } from "./machine";
import { senseInPlace } from "./sensing";
import type { Refusal } from "./refusals";
import type { LaneState } from "./state";

/** Things that must never turn under power. */
const NEVER_TURNS = new Set(["taster", "probe", "indicator"]);
export const neverTurns = (thing: string | null): boolean => thing !== null && NEVER_TURNS.has(thing);

/** A chuck with work in it turns no faster than this by an open door, rev/min. */
const LATHE_DOOR_LIMIT_RPM = 60;
export const doorLimitRpm = ({ lathe }: Pick<LaneState, "lathe">): number =>
  lathe ? LATHE_DOOR_LIMIT_RPM : bench.doorLimitRpm;

/**
 * Starts the spindle; without a stated speed it comes up at the one remembered. What it holds decides what happens
 * then.
 */
export function startSpindle(draft: Draft, direction: "forward" | "reverse", rpm: number, isStated: boolean): void {
  draft.emit({ type: "spindleStarted", direction, rpm, isStated });
  const { holds, paper, block, finder, lathe } = draft.state;
  if (lathe) {
    if (lathe.gap ?? lathe.block) {
      draft.emit({
        type: "incidentHappened",
        code: "paperUnderTurningTool",
        isSilent: false,
        failsOutright: true,
        stopsMachine: false,
      });
      draft.emit({ type: "turretGapPulled" });
    }
    if (lathe.arm.isDown)
      draft.emit({
        type: "incidentHappened",
        code: "armStruck",
        isSilent: false,
        failsOutright: false,
        stopsMachine: true,
      });
    return;
  }
  const gap = paper ?? block;
  if (gap) {
    draft.emit({
      type: "incidentHappened",
      code: "paperUnderTurningTool",
      isSilent: false,
      failsOutright: true,
      stopsMachine: false,
      on: gap.on,
    });
    draft.emit(paper ? { type: "paperPulled" } : { type: "blockPulled" });
  }
  if (holds && neverTurns(holds)) {
    draft.emit({
      type: "incidentHappened",
      code: "startedWithInstrument",
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
      rpm,
      thing: holds,
    });
    return;
  }
  if (holds === "edgeFinder" && finder.condition !== "broken" && rpm > EDGE_FINDER_HIGHEST_RPM) {
    draft.emit({
      type: "incidentHappened",
      code: "finderThrown",
      isSilent: false,
      failsOutright: false,
      stopsMachine: false,
      rpm,
      thing: "edgeFinder",
    });
  }
  senseInPlace(draft);
}

export function speedProblem(state: LaneState, rpm: number): Refusal | null {
  if (rpm < bench.lowestRpm || rpm > bench.highestRpm) {
    return { code: "spindleOutOfRange", lowestRpm: bench.lowestRpm, highestRpm: bench.highestRpm };
  }
  if (state.setup.settings.spindleGuard === "refuses" && state.holds && neverTurns(state.holds))
    return { code: "mustNotTurn", thing: state.holds };
  if (state.lathe && state.lathe.loose !== null) return { code: "clampLoose" };
  return state.isDoorOpen && rpm > doorLimitRpm(state)
    ? { code: "doorOpenSpeed", rpm, limitRpm: doorLimitRpm(state) }
    : null;
}
