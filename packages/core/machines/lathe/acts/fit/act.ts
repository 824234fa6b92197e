import type * as schema from "./schema";
import { type LatheAct } from "../../lane";
import { accept, refuse } from "../../../../result";
import { onLathe } from "../../evidence";

/** What a student says of a tool against the part: it fits or it does not. */
export const fit: LatheAct<typeof schema> = {
  decide: {
    stateFit: ({ state }, { tool, fits }) =>
      state.setup.lathe.targets.fit?.includes(tool)
        ? accept([{ type: "fitStated", tool, fits }])
        : refuse({ code: "toolNotHere", tool }),
  },
  evolve: {
    fitStated: onLathe((lathe, { tool, fits }) => ({ ...lathe, fits: { ...lathe.fits, [tool]: fits } })),
  },
};
