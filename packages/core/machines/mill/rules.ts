import { EDGE_FINDER_THROWN_RPM, neverTurns } from "../../instruments";
import type { LaneRules } from "../../lane/rules";
import { senseFinder } from "./acts/edgeFinder/act";
import { answerShowsOnMill, coversOnMill, lookedOnMill, standsOverZero } from "./checking";
import type { MillDraft, MillLane } from "./lane";
import { millOffers } from "./offers";
import { clearedOnMill, millStanding } from "./registers";

/** The spindle of a mill will not run faster than this while the door is open, rev/min. */
export const MILL_DOOR_LIMIT_RPM = 700;

/** What hangs in the spindle, and what stands in the gap, when it begins to turn. */
function spindleStarted(draft: MillDraft, rpm: number): void {
  const { holds, paper, block, finder } = draft.state;
  const happened = { type: "incidentHappened" as const, isSilent: false, failsOutright: false, stopsMachine: false };
  const gap = paper ?? block;
  if (gap) {
    draft.emit({ ...happened, code: "paperUnderTurningTool", failsOutright: true, on: gap.on });
    draft.emit(paper ? { type: "paperPulled" } : { type: "blockPulled" });
  }
  if (holds && neverTurns(holds)) {
    draft.emit({ ...happened, code: "startedWithInstrument", stopsMachine: true, rpm, thing: holds });
    return;
  }
  const isThrown = holds === "edgeFinder" && finder.condition !== "broken" && rpm > EDGE_FINDER_THROWN_RPM;
  if (isThrown) draft.emit({ ...happened, code: "finderThrown", rpm, thing: "edgeFinder" });
  senseFinder(draft, 0);
}

/** What a mill says to the lane. */
export const millRules: LaneRules<MillLane> = {
  hasRegister: (_setup, register) => millOffers.has(register),
  captured: (state, register, as) => millOffers.captured(millStanding(state), register, as),
  clearedBy: clearedOnMill,
  standsAt: ({ position }, axis) => position[axis],
  answerShows: answerShowsOnMill,
  looked: lookedOnMill,
  covers: coversOnMill,
  isOverZero: standsOverZero,
  doorLimitRpm: MILL_DOOR_LIMIT_RPM,
  speedProblem: ({ setup, holds }) =>
    setup.settings.spindleGuard === "refuses" && holds && neverTurns(holds)
      ? { code: "mustNotTurn", thing: holds }
      : null,
  spindleStarted,
  droppedByReset: ({ modal, setup }) =>
    modal.lengthRow !== null && setup.settings.resetDropsLength
      ? [{ type: "modalChanged", lengthRow: null, calledLength: null }]
      : [],
};
