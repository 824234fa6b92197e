import { planGap } from "../geometry";
import { readByHand, sweepReadings, toolName } from "../instruments";
import { accept, refuse, type Result } from "../result";
import type { CommandOf } from "./commands";
import { Draft } from "./draft";
import type { LaneEvent } from "./events";
import type { Refusal } from "./refusals";
import { tipPoint, trueLengthMm, trueScene } from "./solids";
import type { LaneState } from "./state";

type Decision = Result<LaneEvent[], Refusal>;

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

function trueSizeMm(state: LaneState, { what, id, tool }: CommandOf<"measure">): { mm: number; tool?: number } | null {
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

/** Caliper, micrometer or rule put to something that hands can reach, spindle still. */
export function measure(state: LaneState, command: CommandOf<"measure">): Decision {
  if (state.spindle.isOn) return refuse({ code: "spindleTurning" });
  if (!state.isDoorOpen) return refuse({ code: "doorShutReach" });
  if (!state.setup.instruments.includes(command.by))
    return refuse({ code: "instrumentNotHere", instrument: command.by });
  if (!FITS[command.what].includes(command.by)) return refuse({ code: "doesNotMeasureThat", by: command.by });
  const size = trueSizeMm(state, command);
  if (!size) return refuse({ code: "nothingToMeasure" });
  const draft = new Draft(state);
  const number = state.desk.readingsMade + 1;
  const name = command.id ?? (size.tool === undefined ? WHAT[command.what] : toolName(size.tool));
  draft.emit({
    type: "readingShown",
    number,
    instrument: command.by,
    what: WHAT[command.what],
    ...(size.tool === undefined ? {} : { tool: size.tool }),
    values: { [name]: readByHand(size.mm, command.by, state.truth.seed, name + (state.holds ?? ""), number) },
  });
  return accept(draft.events);
}

/** The tip must stand this far inside a bore, or beside a boss, to be carried round it, mm. */
const SWEEP_DEPTH_MM = 1;

/** The indicator carried round the bore or boss by hand: four readings, or a word that it does not reach. */
export function sweep(state: LaneState): Decision {
  if (state.holds !== "indicator") return refuse({ code: "notHeld", thing: "indicator" });
  if (state.harm.isIndicatorBroken) return refuse({ code: "instrumentBroken", thing: "indicator" });
  if (state.spindle.isOn) return refuse({ code: "spindleTurning" });
  if (!state.isDoorOpen) return refuse({ code: "doorShutReach" });
  const { feature } = state.setup;
  const scene = trueScene(state);
  const round = feature?.kind === "boss" ? scene.boss?.plan : scene.stock.hole;
  if (!feature || !round || feature.kind === "pocket") return refuse({ code: "nothingToSweep" });
  const tip = tipPoint(state, state.position);
  const topMm = feature.kind === "boss" ? (scene.boss?.highZ ?? 0) : scene.stock.highZ;
  const draft = new Draft(state);
  const number = state.desk.readingsMade + 1;
  const isDeep = tip.z <= topMm - SWEEP_DEPTH_MM && (feature.kind === "boss" || planGap(scene.stock, tip.x, tip.y) > 0);
  const readings = isDeep
    ? sweepReadings([tip.x - round.x, tip.y - round.y], feature.kind, state.truth.seed, number)
    : null;
  draft.emit({
    type: "readingShown",
    number,
    instrument: "indicator",
    what: "round",
    values: readings ? { at0: readings[0], at90: readings[1], at180: readings[2], at270: readings[3] } : {},
    outcome: readings ? "found" : "missed",
  });
  return accept(draft.events);
}
