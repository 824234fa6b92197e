import type { Refusal } from "../refusals";
import type { LaneState } from "../state";

/** Why hands cannot go in now; null when they can. */
export const mayReach = (state: LaneState): Refusal | null => {
  if (!state.isDoorOpen) return { code: "doorShutReach" };
  return state.spindle.isOn ? { code: "spindleTurning" } : null;
};
