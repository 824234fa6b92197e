import { show } from "../cycles";
import type * as schema from "./schema";
import { type MillAct, type MillDraft } from "../../lane";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { STILL_TEETH_MM, goOver, heldTool, mayMeasure, seatedTop } from "../cycles";
import { accept, refuse } from "../../../../result";
import { drawBeamApproach } from "../../../../instruments/beamSetter";
import { FACE_MILL_RECESS_MM, toolName } from "../../../../instruments/things";
import { toCounts, toMm } from "../../../../units/scale";
import { reachIn } from "../gapUnder";
import { setterTriggerMm } from "../../cards";
import { lengthOf, setterOff } from "../plungers";

/**
 * Beam setter: searches from above without a stated length, at speed or still; what hangs on the tip is measured with
 * it.
 */
function askBeam(draft: MillDraft, { what, rpm, isAtEdge }: CommandOf<"askBeam">): Decision {
  const { state } = draft;
  const { setter: card, tools } = state.setup;
  const tool = heldTool(state);
  if (!card) return refuse({ code: "instrumentNotHere", instrument: "beamSetter" });
  if (!tool) return refuse({ code: "setterNeedsTool" });
  if (!goOver(draft, card.xMm, card.yMm)) return accept(draft.events);
  const number = draft.state.desk.readingsMade + 1;
  const errorMm = drawBeamApproach(state.truth.seed, number);
  const chipMm = state.holds && !state.blocks.blown.includes(state.holds) ? (state.truth.chipsMm[state.holds] ?? 0) : 0;
  const isFlat = tools.some(
    ({ number: one, kind }) => one === tool.number && (kind === "faceMill" || kind === "endMill"),
  );
  const recess = tool.kind === "faceMill" && !isAtEdge ? FACE_MILL_RECESS_MM : 0;
  const point = !isFlat && isAtEdge ? (tool.kind === "drill" ? 0.6 : 1) * (tool.diameterMm / 2) : 0;
  const growth = (state.truth.growthMmPer1000 * rpm) / 1000;
  // the beam hangs as high as it hangs, and is counted with as high as its card says
  const offCardMm = seatedTop(state) - setterTriggerMm(state);
  const round = (mm: number) => toMm(toCounts(mm, state.scale), state.scale);
  const values: Record<string, number> =
    what === "length"
      ? { rpm, length: round(tool.lengthMm - growth - recess - point + chipMm + offCardMm + errorMm) }
      : { rpm, diameter: round(tool.trueDiameterMm - (rpm === 0 && isFlat ? STILL_TEETH_MM : 0) + errorMm) };
  draft.emit({ type: "moved", to: { ...draft.state.position, z: 0 }, isRapid: false });
  return accept(show(draft, { instrument: "beamSetter", what, tool: tool.number, values, outcome: "found" }));
}

function blowTip({ state }: MillDraft): Decision {
  if (state.holds === null) return refuse({ code: "spindleEmpty" });
  const problem = reachIn(state);
  return problem ? refuse(problem) : accept([{ type: "tipBlown", thing: state.holds }]);
}

function ask(draft: MillDraft, command: CommandOf<"askBeam">): Decision {
  const problem = mayMeasure(draft.state, "beamSetter");
  return problem ? refuse(problem) : askBeam(draft, command);
}

/** A beam that measures length and diameter at working speed; chips on the tip add to it. */
export const beamSetter: MillAct<typeof schema> = {
  decide: { askBeam: ask, blowTip },
  evolve: {
    tipBlown: (state, { thing }) =>
      state.blocks.blown.includes(thing)
        ? state
        : { ...state, blocks: { ...state.blocks, blown: [...state.blocks.blown, thing] } },
  },
  tells: {
    readingShown: (before, at, event) => {
      if (event.instrument !== "beamSetter") return {};
      const { truth, blocks } = before;
      const thing = toolName(event.tool ?? 0);
      const chipMm = blocks.blown.includes(thing) ? 0 : (truth.chipsMm[thing] ?? 0);
      const grownMm = (truth.growthMmPer1000 * (event.values.rpm ?? 0)) / 1000;
      return lengthOf(at, event, {
        isHeld: true,
        isByCycle: true,
        known: [{ id: "chipOnTip", mm: chipMm }, { id: "spindleGrowth", mm: -grownMm }, ...setterOff(before)],
      });
    },
  },
  needsPower: ["askBeam"],
};
