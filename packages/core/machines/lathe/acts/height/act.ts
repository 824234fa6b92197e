import type * as schema from "./schema";
import { type LatheAct, type LatheDraft } from "../../lane";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { mayReach } from "../../hands";
import { accept, refuse } from "../../../../result";
import { parseLengthMm } from "../../../../units/parse";
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

/** Shims under a holder. */
export const height: LatheAct<typeof schema> = {
  decide: { shimTool },
  evolve: {
    toolShimmed: onLathe((lathe, { tool, byMm }) => ({
      ...lathe,
      shimsMm: { ...lathe.shimsMm, [tool]: (lathe.shimsMm[tool] ?? 0) + byMm },
      evidence: { ...lathe.evidence, isShimmed: { ...lathe.evidence.isShimmed, [tool]: true } },
    })),
  },
};
