import {
  drawBeamApproach,
  drawSetterApproach,
  readPresetter,
  setterMissMm,
  SETTER_RADIUS_MM,
  SETTER_WINDOW_MM,
  toolName,
  toolNumber,
  FACE_MILL_RECESS_MM,
} from "../../instruments";
import { accept, refuse, type Result } from "../../result";
import { parseLengthMm, toCounts, toMm } from "../../units";
import { strike } from "../contact";
import type { CommandOf } from "../commands";
import { Draft } from "../draft";
import type { LaneEvent } from "../events";
import type { Refusal } from "../refusals";
import { trueLengthMm } from "../solids";
import type { LaneState } from "../state";
import { countsOf, positionTo } from "./travel";

type Decision = Result<LaneEvent[], Refusal>;

/** Teeth of a cutter that stands still do not stand at its widest place, mm. */
const STILL_TEETH_MM = 0.03;

function heldTool(state: LaneState) {
  const number = toolNumber(state.holds);
  const tool = state.setup.tools.find((one) => one.number === number);
  return tool
    ? {
        ...tool,
        trueDiameterMm: state.truth.diametersMm[tool.number] ?? tool.diameterMm,
        lengthMm: trueLengthMm(state),
      }
    : null;
}

const seatedTop = ({ truth, setter }: LaneState): number => (truth.setter?.topMm ?? 0) + setter.shiftMm;

/** Up to the top, then over the gauge. */
function goOver(draft: Draft, x: number, y: number): boolean {
  const { state } = draft;
  return (
    positionTo(draft, { ...state.position, z: 0 }) && positionTo(draft, { ...countsOf(state, { x, y, z: 0 }), z: 0 })
  );
}

function show(
  draft: Draft,
  reading: Omit<Extract<LaneEvent, { type: "readingShown" }>, "type" | "number">,
): LaneEvent[] {
  draft.emit({ type: "readingShown", number: draft.state.desk.readingsMade + 1, ...reading });
  return draft.events;
}

/**
 * Plunger setter by cycle: comes down from a window above where the stated length says, touches coarsely, then finely,
 * and answers with the trigger and the length by the card's calibration. Too long: driven into it. Too short: no
 * trigger.
 */
export function askSetter(draft: Draft, command: CommandOf<"askSetter">): Decision {
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
  const expectedMm = card.noseTriggerMm + about.value;
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
        values: { trigger: triggerMm, length: Math.round((triggerMm - card.noseTriggerMm) * 1e4) / 1e4 },
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

/**
 * Beam setter: searches from above without a stated length, at speed or still; what hangs on the tip is measured with
 * it.
 */
export function askBeam(draft: Draft, { what, rpm, isAtEdge }: CommandOf<"askBeam">): Decision {
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
  const round = (mm: number) => toMm(toCounts(mm, state.scale), state.scale);
  const values: Record<string, number> =
    what === "length"
      ? { rpm, length: round(tool.lengthMm - growth - recess - point + chipMm + errorMm) }
      : { rpm, diameter: round(tool.trueDiameterMm - (rpm === 0 && isFlat ? STILL_TEETH_MM : 0) + errorMm) };
  draft.emit({ type: "moved", to: { ...draft.state.position, z: 0 }, isRapid: false });
  return accept(show(draft, { instrument: "beamSetter", what, tool: tool.number, values, outcome: "found" }));
}

/** Presetter beside the machine: both figures of a tool that does not hang in the spindle. */
export function askPresetter(state: LaneState, tool: number): Decision {
  const thing = toolName(tool);
  const nominal = state.setup.tools.find(({ number }) => number === tool);
  if (!nominal) return refuse({ code: "toolNotHere", tool });
  if (state.holds === thing) return refuse({ code: "spindleHolds", thing });
  const draft = new Draft(state);
  const { seed, lengthsMm, diametersMm, presetterErrorMm } = state.truth;
  const lengthMm = (lengthsMm[thing] ?? 0) - (state.harm.shorterMm[thing] ?? 0) + presetterErrorMm;
  return accept(
    show(draft, {
      instrument: "presetter",
      what: "lengthAndDiameter",
      tool,
      values: {
        length: readPresetter(lengthMm, seed, state.desk.readingsMade + 1),
        diameter: readPresetter(diametersMm[tool] ?? nominal.diameterMm, seed, state.desk.readingsMade + 501),
      },
    }),
  );
}
