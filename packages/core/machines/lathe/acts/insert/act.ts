import type * as schema from "./schema";
import { type LatheAct, type LatheDraft, type LatheState } from "../../lane";
import { type Decision } from "../../../act";
import { type EventOf } from "../../../events";
import { accept, refuse } from "../../../../result";
import { toolAt } from "../../contact";
import { mayReach } from "../../hands";
import { seenTip } from "../../eye";
import { onLathe, withoutTool } from "../../evidence";
import { drawNormal } from "../../../../random";

/** A pocket seats another insert, or the same one turned, this far from where the last one sat, mm; X a diameter. */
const SEATS_MM = { least: 0.02, mean: 0.045, deviation: 0.012 } as const;
/** Room for a hand with a key, by eye, mm. */
const ROOM_MM = 8;
/** Tools that carry no insert. */
const SOLID = new Set(["drill", "endMill"]);

/** The insert of the tool in position turned to a fresh edge or replaced: it cuts again, and sits elsewhere. */
function changeInsert({ state }: LatheDraft): Decision {
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  const { gap, block, station, inserts } = state.lathe;
  if (gap) return refuse({ code: "paperInGap" });
  if (block) return refuse({ code: "blockInGap" });
  if (SOLID.has(toolAt(state).kind)) return refuse({ code: "noInsertHere" });
  const tip = seenTip(state);
  if (tip.zMm - tip.faceMm < ROOM_MM && tip.radiusMm - tip.partRadiusMm < ROOM_MM)
    return refuse({ code: "noRoomAtClamp" });
  const number = (inserts[station] ?? 0) + 1;
  const sits = (axis: "x" | "z") => {
    const { seed } = state.truth;
    const size = Math.max(
      SEATS_MM.least,
      drawNormal(SEATS_MM.mean, SEATS_MM.deviation, seed, "insert", station, number, axis),
    );
    const sign = drawNormal(0, 1, seed, "insert side", station, number, axis) < 0 ? -1 : 1;
    return Math.round(sign * size * 1e4) / 1e4;
  };
  return accept([{ type: "insertChanged", tool: station, number, xMm: 2 * sits("x"), zMm: sits("z") }]);
}

const withInsert = (lathe: LatheState, { tool, number, xMm, zMm }: EventOf<"insertChanged">): LatheState => ({
  ...lathe,
  inserts: { ...lathe.inserts, [tool]: number },
  chipped: lathe.chipped.filter((one) => one !== tool),
  movedMm: { ...lathe.movedMm, [tool]: (lathe.movedMm[tool] ?? 0) + xMm },
  insertZMm: { ...lathe.insertZMm, [tool]: (lathe.insertZMm[tool] ?? 0) + zMm },
  pip: lathe.pip?.tool === tool ? null : lathe.pip,
  lastBy: lathe.lastBy?.tool === tool ? null : lathe.lastBy,
  heard: null,
  // a new edge: what the old one touched and left says nothing of it
  evidence: withoutTool(lathe.evidence, tool),
});

/** An insert turned to a fresh edge, or replaced. */
export const insert: LatheAct<typeof schema> = {
  decide: { changeInsert },
  evolve: { insertChanged: onLathe(withInsert) },
};
