import { show } from "../cycles";
import type * as schema from "./schema";
import { type MillAct, type MillDraft } from "../../lane";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { toolName } from "../../../../instruments/things";
import { lengthOf } from "../plungers";
import { readPresetter } from "../../../../instruments/handMeasures";

/** Presetter beside the machine: both figures of a tool that does not hang in the spindle. */
function askPresetter(draft: MillDraft, { tool }: CommandOf<"askPresetter">): Decision {
  const { state } = draft;
  if (!state.setup.instruments.includes("presetter"))
    return refuse({ code: "instrumentNotHere", instrument: "presetter" });
  const thing = toolName(tool);
  const nominal = state.setup.tools.find(({ number }) => number === tool);
  if (!nominal) return refuse({ code: "toolNotHere", tool });
  if (state.holds === thing) return refuse({ code: "spindleHolds", thing });
  const { seed, lengthsMm, diametersMm, presetterErrorMm } = state.truth;
  const lengthMm = (lengthsMm[thing] ?? 0) - (state.harm.shorterMm[thing] ?? 0) + presetterErrorMm;
  return accept(
    show(draft, {
      instrument: "presetter",
      what: "lengthAndDiameter",
      tool,
      values: {
        length: readPresetter(lengthMm, seed, `length of ${thing}`),
        diameter: readPresetter(diametersMm[tool] ?? nominal.diameterMm, seed, `diameter of ${thing}`),
      },
    }),
  );
}

/** A presetter beside the machine. */
export const presetter: MillAct<typeof schema> = {
  decide: { askPresetter },
  evolve: {},
  tells: {
    readingShown: ({ truth: { doubt } }, at, event) =>
      event.instrument === "presetter"
        ? lengthOf(at, event, {
            isHeld: false,
            isByCycle: false,
            known: [{ id: "presetterOff", mm: doubt?.of === "presetter" ? doubt.byMm : 0 }],
          })
        : {},
  },
};
