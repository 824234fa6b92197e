import type { LatheKind } from "../../exercises/schools";
import type { LaneRules } from "../../lane/rules";
import { answerShowsOnLathe, coversOnLathe, lookedAtLathe } from "./checking";
import { readsAt } from "./display";
import type { LatheDraft, TurningLane } from "./lane";
import { latheOffers } from "./offers";
import { latheStanding } from "./registers";

/** A chuck with work in it turns no faster than this by an open door, rev/min. */
export const LATHE_DOOR_LIMIT_RPM = 60;

/** What still stands in the gap, or hangs down, when the chuck begins to turn. */
function spindleStarted(draft: LatheDraft): void {
  const { gap, block, arm } = draft.state.lathe;
  const happened = { type: "incidentHappened" as const, isSilent: false };
  if (gap ?? block) {
    draft.emit({ ...happened, code: "paperUnderTurningTool", failsOutright: true, stopsMachine: false });
    draft.emit({ type: "turretGapPulled" });
  }
  if (arm.isDown) draft.emit({ ...happened, code: "armStruck", failsOutright: false, stopsMachine: true });
}

/** What a lathe of a kind says to the lane. */
export const latheRules = (kind: LatheKind): LaneRules<TurningLane> => ({
  hasRegister: (_setup, register) => latheOffers[kind].has(register),
  captured: (state, register, as) => latheOffers[kind].captured(latheStanding(state), register, as),
  clearedBy: () => [],
  standsAt: (state, axis) => (axis === "y" ? state.position.y : readsAt(state, axis)),
  answerShows: answerShowsOnLathe,
  looked: lookedAtLathe,
  covers: coversOnLathe,
  isOverZero: () => false,
  doorLimitRpm: LATHE_DOOR_LIMIT_RPM,
  speedProblem: ({ lathe }) => (lathe.loose === null ? null : { code: "clampLoose" }),
  spindleStarted,
  droppedByReset: ({ lathe: { row, station }, setup }) =>
    row !== null && setup.settings.resetDropsLength ? [{ type: "turretIndexed", station, row: null }] : [],
});
