import { type TurningLane } from "./lane";
import { type Refusal } from "../../lane/refusals";

/** Why hands cannot go in now; null when they can. */
export const mayReach = (state: TurningLane): Refusal | null => {
  if (!state.isDoorOpen) return { code: "doorShutReach" };
  return state.spindle.isOn ? { code: "spindleTurning" } : null;
};

export const ROOM_TO_INDEX_MM = 40;
