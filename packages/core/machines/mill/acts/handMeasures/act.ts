import type * as schema from "./schema";
import { type CommandOf } from "../../../commands";
import { type MillAct, type MillDraft, type MillLane } from "../../lane";
import { trueLengthMm } from "../../solids";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { toolName } from "../../../../instruments/things";
import { readByHand } from "../../../../instruments/handMeasures";

/** Which hand instrument can be put to what: a rule tells no diameter, a micrometer no bore. */
const FITS: Record<CommandOf<"measure">["what"], readonly CommandOf<"measure">["by"][]> = {
  toolDiameter: ["caliper", "micrometer"],
  toolReach: ["rule", "caliper"],
  gapThing: ["caliper", "micrometer"],
  stockX: ["caliper", "rule"],
  stockY: ["caliper", "rule"],
  stockZ: ["caliper", "rule", "micrometer"],
  feature: ["caliper", "rule"],
};

function trueSizeMm(state: MillLane, { what, id, tool }: CommandOf<"measure">): { mm: number; tool?: number } | null {
  const { truth, setup } = state;
  switch (what) {
    case "toolDiameter":
      return tool !== undefined && truth.diametersMm[tool] !== undefined ? { mm: truth.diametersMm[tool], tool } : null;
    case "toolReach":
      return state.holds === null ? null : { mm: trueLengthMm(state) };
    case "gapThing":
      return id !== undefined && truth.gapsMm[id] !== undefined ? { mm: truth.gapsMm[id] } : null;
    case "stockX":
      return { mm: truth.stockSizeMm[0] };
    case "stockY":
      return { mm: truth.stockSizeMm[1] };
    case "stockZ":
      return { mm: truth.stockSizeMm[2] };
    case "feature":
      return truth.feature && setup.feature ? { mm: truth.feature.diameterMm } : null;
  }
}

const WHAT: Record<CommandOf<"measure">["what"], string> = {
  toolDiameter: "diameter",
  toolReach: "reach",
  gapThing: "thickness",
  stockX: "sizeX",
  stockY: "sizeY",
  stockZ: "sizeZ",
  feature: "across",
};

/** What a reading is called: a sheet or block by its own name, a tool by its number, all else by what it is. */
function nameOf({ what, id }: CommandOf<"measure">, tool: number | undefined): string {
  if (what === "gapThing" && id !== undefined) return id;
  return tool === undefined ? WHAT[what] : toolName(tool);
}

/** Caliper, micrometer or rule put to something that hands can reach, spindle still. */
function measure(draft: MillDraft, command: CommandOf<"measure">): Decision {
  const { state } = draft;
  if (state.spindle.isOn) return refuse({ code: "spindleTurning" });
  if (!state.isDoorOpen) return refuse({ code: "doorShutReach" });
  if (!state.setup.instruments.includes(command.by))
    return refuse({ code: "instrumentNotHere", instrument: command.by });
  if (!FITS[command.what].includes(command.by)) return refuse({ code: "doesNotMeasureThat", by: command.by });
  const size = trueSizeMm(state, command);
  if (!size) return refuse({ code: "nothingToMeasure" });
  const number = state.desk.readingsMade + 1;
  const name = nameOf(command, size.tool);
  // by what is measured and nothing else: what hangs in the spindle matters only where that is what is measured
  const of = command.what === "toolReach" ? `reach of ${state.holds}` : name;
  draft.emit({
    type: "readingShown",
    number,
    instrument: command.by,
    what: WHAT[command.what],
    ...(size.tool === undefined ? {} : { tool: size.tool }),
    values: { [name]: readByHand(size.mm, command.by, state.truth.seed, of) },
  });
  return accept(draft.events);
}

/** Caliper, micrometer and rule. */
export const handMeasures: MillAct<typeof schema> = { decide: { measure }, evolve: {} };
