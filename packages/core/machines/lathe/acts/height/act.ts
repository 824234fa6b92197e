import type * as schema from "./schema";
import { type LatheAct, type LatheDraft } from "../../lane";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { mayReach } from "../../hands";
import { accept, refuse } from "../../../../result";
import { parseLengthMm } from "../../../../units/parse";
import { ownHeightMm } from "../../contact";
import { seenTip } from "../../eye";
import { drawNormal } from "../../../../random";
import { onLathe } from "../../evidence";

/** Shims come in this much at most, mm. */
const SHIMS_MM = 1;

/** Shims put under the holder in the working position, or taken out: it stands higher by the stated amount. */
function shimTool({ state }: LatheDraft, { text }: CommandOf<"shimTool">): Decision {
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  const { station } = state.lathe;
  // a gang slide has a register for it
  if (state.kind === "gang" || !state.setup.lathe.targets.height.includes(station))
    return refuse({ code: "noShimsHere" });
  const read = parseLengthMm(text, state.setup.unit);
  if (!read.ok) return refuse({ code: "text", problem: read.error });
  if (Math.abs(read.value) > SHIMS_MM) return refuse({ code: "shimTooMuch", limitMm: SHIMS_MM });
  return accept([{ type: "toolShimmed", tool: station, byMm: read.value }]);
}

/** Raised to the gauge and locked it stands this well; let down onto it, it sinks by the slack when locked, mm. */
const RAISED_MM = 0.004;
const SLACK_MM = { least: 0.05, mean: 0.08, deviation: 0.015 } as const;
/** Room for the gauge beside the tip, by eye, mm. */
const ROOM_MM = 8;

/** The post's screw turned until the tip meets the setting gauge, and locked. */
function raiseToGauge({ state }: LatheDraft, { from }: CommandOf<"raiseToGauge">): Decision {
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  if (state.setup.lathe.hasHeightGauge !== true) return refuse({ code: "noGaugeHere" });
  const tip = seenTip(state);
  if (tip.zMm - tip.faceMm < ROOM_MM && tip.radiusMm - tip.partRadiusMm < ROOM_MM)
    return refuse({ code: "noRoomAtClamp" });
  const { station, heightsSet } = state.lathe;
  const { seed } = state.truth;
  const restMm = drawNormal(0, RAISED_MM, seed, "height gauge", station, heightsSet);
  const slackMm =
    from === "below"
      ? 0
      : Math.max(SLACK_MM.least, drawNormal(SLACK_MM.mean, SLACK_MM.deviation, seed, "slack", station, heightsSet));
  const byMm = Math.round((restMm - slackMm - ownHeightMm(state, station)) * 1e4) / 1e4 || 0;
  return accept([{ type: "toolRaised", tool: station, byMm, from }]);
}

/** Height by shims under a holder, or by the screw of a post and the shop's setting gauge. */
export const height: LatheAct<typeof schema> = {
  decide: { shimTool, raiseToGauge },
  evolve: {
    toolRaised: onLathe((lathe, { tool, byMm }) => ({
      ...lathe,
      raisedMm: { ...lathe.raisedMm, [tool]: (lathe.raisedMm[tool] ?? 0) + byMm },
      heightsSet: lathe.heightsSet + 1,
      evidence: { ...lathe.evidence, isShimmed: { ...lathe.evidence.isShimmed, [tool]: true } },
    })),
    toolShimmed: onLathe((lathe, { tool, byMm }) => ({
      ...lathe,
      shimsMm: { ...lathe.shimsMm, [tool]: (lathe.shimsMm[tool] ?? 0) + byMm },
      evidence: { ...lathe.evidence, isShimmed: { ...lathe.evidence.isShimmed, [tool]: true } },
    })),
  },
};
