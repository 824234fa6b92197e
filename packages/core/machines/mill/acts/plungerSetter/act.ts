import { show } from "../cycles";
import type * as schema from "./schema";
import { type MillAct, type MillDraft } from "../../lane";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { STILL_TEETH_MM, goOver, heldTool, mayMeasure, seatedTop } from "../cycles";
import { accept, refuse } from "../../../../result";
import { parseLengthMm } from "../../../../units/parse";
import {
  SETTER_RADIUS_MM,
  SETTER_TRAVEL_MM,
  SETTER_WINDOW_MM,
  drawSetterApproach,
  setterMissMm,
} from "../../../../instruments/plungerSetter";
import { toCounts, toMm } from "../../../../units/scale";
import { setterTriggerMm } from "../../cards";
import { strike } from "../../contact";
import { trueScene } from "../../solids";
import { pressedMm, sensePlunger } from "../plungers";
import { lengthOf, setterOff, touchOf } from "../plungers";

/**
 * Plunger setter by cycle: comes down from a window above where the stated length says, touches coarsely, then finely,
 * and answers with the trigger and the length by the card's calibration. Too long: driven into it. Too short: no
 * trigger.
 */
function askSetter(draft: MillDraft, command: CommandOf<"askSetter">): Decision {
  const { state } = draft;
  const { setter: card, unit } = state.setup;
  const tool = heldTool(state);
  if (!card || !state.truth.setter) return refuse({ code: "instrumentNotHere", instrument: "plungerSetter" });
  if (!tool) return refuse({ code: "setterNeedsTool" });
  const about = parseLengthMm(command.about, unit);
  const offset = parseLengthMm(command.offset.trim() === "" ? "0" : command.offset, unit);
  if (!about.ok) return refuse({ code: "text", problem: about.error });
  if (!offset.ok) return refuse({ code: "text", problem: offset.error });
  const isLength = command.what === "length";
  if (!goOver(draft, card.xMm + (isLength ? offset.value : 0), card.yMm)) return accept(draft.events);
  const number = state.setter.touches + 1;
  const errorMm = drawSetterApproach(state.truth.seed, number);
  const topMm = seatedTop(state);
  const cardMm = setterTriggerMm(state);
  const expectedMm = cardMm + about.value;
  const miss = setterMissMm(tool.kind, tool.trueDiameterMm, isLength ? offset.value : 0, command.isTurning);
  const trueTrigger = topMm + tool.lengthMm + (miss ?? 0);
  const base = { instrument: "plungerSetter" as const, tool: tool.number };
  const what = isLength ? "length" : "diameter";
  if (miss === null || trueTrigger < expectedMm - SETTER_WINDOW_MM)
    return accept(show(draft, { ...base, what, values: {}, outcome: "missed" }));
  if (trueTrigger > expectedMm + SETTER_WINDOW_MM) {
    draft.emit({
      type: "moved",
      to: { ...draft.state.position, z: toCounts(trueTrigger, state.scale) },
      isRapid: true,
    });
    strike(draft, "setter");
    return accept(show(draft, { ...base, what, values: {}, outcome: "driven" }));
  }
  if (isLength) {
    const at = { ...draft.state.position, z: toCounts(trueTrigger + errorMm, state.scale) };
    draft.emit({ type: "moved", to: at, isRapid: false });
    draft.emit({
      type: "touchBegan",
      by: "plungerSetter",
      axis: "z",
      approach: -1,
      at,
      number,
      errorMm: Math.round(errorMm * 1e5) / 1e5,
      clickMm: 0,
    });
    draft.emit({ type: "touchEnded", by: "plungerSetter" });
    draft.emit({ type: "moved", to: { ...at, z: 0 }, isRapid: false });
    const triggerMm = toMm(at.z, state.scale);
    return accept(
      show(draft, {
        ...base,
        what,
        values: { trigger: triggerMm, length: Math.round((triggerMm - cardMm) * 1e4) / 1e4 },
        outcome: "found",
      }),
    );
  }
  const across = tool.trueDiameterMm - (command.isTurning ? 0 : STILL_TEETH_MM);
  const centerMm = card.xMm + state.truth.setter.centerErrorMm.x;
  const reach = SETTER_RADIUS_MM + across / 2;
  const round = (mm: number) => toMm(toCounts(mm, state.scale), state.scale);
  const [low, high] = [
    round(centerMm - reach + errorMm),
    round(centerMm + reach + drawSetterApproach(state.truth.seed, number + 1)),
  ];
  const values: Record<string, number> =
    command.what === "diameterBoth"
      ? { low, high, diameter: Math.round((high - low - card.widthMm) * 1e4) / 1e4 }
      : { high, diameter: Math.round((2 * (high - card.xMm) - card.widthMm) * 1e4) / 1e4 };
  draft.emit({ type: "moved", to: { ...draft.state.position, z: 0 }, isRapid: false });
  return accept(show(draft, { ...base, what, values, outcome: "found" }));
}

function ask(draft: MillDraft, command: CommandOf<"askSetter">): Decision {
  const problem = mayMeasure(draft.state, "plungerSetter");
  return problem ? refuse(problem) : askSetter(draft, command);
}

/** A plunger that triggers at its stated place, by cycle or with a tool let down on it by hand. */
export const plungerSetter: MillAct<typeof schema> = {
  decide: { askSetter: ask },
  evolve: {},
  tells: {
    touchBegan: (before, at, event) =>
      event.by === "plungerSetter" ? { touches: [touchOf(before, at, event, "setter", 0, setterOff(before))] } : {},
    readingShown: (before, at, event) =>
      event.instrument === "plungerSetter"
        ? lengthOf(at, event, { isHeld: true, isByCycle: true, known: setterOff(before) })
        : {},
  },
  needsPower: ["askSetter"],
  senses: (draft, _fromStep, clickMm) => {
    const { setter } = trueScene(draft.state);
    return (
      setter !== undefined &&
      sensePlunger(
        draft,
        "plungerSetter",
        pressedMm(draft.state, setter, SETTER_TRAVEL_MM),
        clickMm,
        drawSetterApproach,
      )
    );
  },
  retracted: (draft) => {
    if (draft.state.setter.touch) draft.emit({ type: "touchEnded", by: "plungerSetter" });
  },
};
