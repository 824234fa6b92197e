import type * as schema from "./schema";
import { type LatheAct, type LatheDraft } from "../../lane";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { ROOM_TO_INDEX_MM, mayReach } from "../../hands";
import { slideAcross } from "../gang/act";
import { seenTip } from "../../eye";
import { onLathe } from "../../evidence";

/**
 * The turret swings another tool in, clear of part and chuck; on a hand-wound lathe a hand puts it on the post. `row`
 * is what the control counts with then, as a tool word calls it.
 */
export function swing(draft: LatheDraft, station: number, row: number | null): Decision {
  const { state } = draft;
  if (!state.setup.lathe.tools.some(({ number }) => number === station))
    return refuse({ code: "toolNotHere", tool: station });
  const { gap, block, arm } = state.lathe;
  if (gap) return refuse({ code: "paperInGap" });
  if (block) return refuse({ code: "blockInGap" });
  if (arm.isDown) return refuse({ code: "armIsDown" });
  if (state.lathe.loose !== null) return refuse({ code: "clampLoose" });
  if (station !== state.lathe.station) {
    const isByHand = state.kind === "readout";
    const problem = isByHand ? mayReach(state) : null;
    if (problem) return refuse(problem);
    if (state.isDoorOpen && !isByHand) return refuse({ code: "doorOpenMotion" });
    if (state.kind === "gang") return slideAcross(draft, station, row);
    const { radiusMm, zMm, partRadiusMm, faceMm } = seenTip(state);
    if (zMm < faceMm + ROOM_TO_INDEX_MM && radiusMm < partRadiusMm + ROOM_TO_INDEX_MM)
      return refuse({ code: "noRoomToIndex" });
  }
  return accept([{ type: "turretIndexed", station, row: state.kind === "readout" ? state.lathe.row : row }]);
}

/** What stands in the working position, and whose row is called. */
export const station: LatheAct<typeof schema> = {
  decide: {
    index: (draft, { station: to, withOffset }) => swing(draft, to, withOffset ? to : null),
  },
  evolve: {
    // what was felt, tried and sighted was so of the tool that is gone
    turretIndexed: onLathe((lathe, { station: to, row }) =>
      to === lathe.station
        ? { ...lathe, row, isResting: false }
        : { ...lathe, station: to, row, isResting: false, lastTry: null, sighted: null, heard: null },
    ),
  },
};
