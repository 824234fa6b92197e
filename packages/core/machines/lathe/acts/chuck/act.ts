import type * as schema from "./schema";
import { type LatheAct, type LatheDraft } from "../../lane";
import { type Decision } from "../../../act";
import { mayReach } from "../../hands";
import { accept, refuse } from "../../../../result";
import { onLathe } from "../../evidence";

function turnChuck({ state }: LatheDraft): Decision {
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  const { gap, quarter } = state.lathe;
  return gap ? refuse({ code: "paperInPlace" }) : accept([{ type: "chuckTurned", quarter: (quarter + 1) % 4 }]);
}

/** The chuck turned by hand, a quarter at a time. */
export const chuck: LatheAct<typeof schema> = {
  decide: { turnChuck },
  evolve: { chuckTurned: onLathe((lathe, { quarter }) => ({ ...lathe, quarter })) },
};
