import { type MillDraft } from "../../lane";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { isBroken } from "../../evidence";
import { tipPoint, trueScene } from "../../solids";
import { planGap } from "../../../../geometry/solid";
import { sweepReadings } from "../../../../instruments/sweep";
import { type MillAct } from "../../lane";
import { sweepError } from "../../../../registers/sweep";
import { toCounts, toMm } from "../../../../units/scale";

/** The tip must stand this far inside a bore, or beside a boss, to be carried round it, mm. */
const SWEEP_DEPTH_MM = 1;

/** The indicator carried round the bore or boss by hand: four readings, or a word that it does not reach. */
export function sweep(draft: MillDraft): Decision {
  const { state } = draft;
  if (state.holds !== "indicator") return refuse({ code: "notHeld", thing: "indicator" });
  if (isBroken(state, "indicator")) return refuse({ code: "instrumentBroken", thing: "indicator" });
  if (state.spindle.isOn) return refuse({ code: "spindleTurning" });
  if (!state.isDoorOpen) return refuse({ code: "doorShutReach" });
  const { feature } = state.setup;
  const scene = trueScene(state);
  const round = feature?.kind === "boss" ? scene.boss?.plan : scene.stock.hole;
  if (!feature || !round || feature.kind === "pocket") return refuse({ code: "nothingToSweep" });
  const tip = tipPoint(state, state.position);
  const topMm = feature.kind === "boss" ? (scene.boss?.highZ ?? 0) : scene.stock.highZ;
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

/** Where the axis of the round thing stands by four readings round it. */
export const indicator: Pick<MillAct<never>, "tells"> = {
  tells: {
    readingShown: ({ position, scale, setup }, at, { instrument, values }) => {
      const { at0, at90, at180, at270 } = values;
      const isWhole = at0 !== undefined && at90 !== undefined && at180 !== undefined && at270 !== undefined;
      if (instrument !== "indicator" || !isWhole) return {};
      const { move } = sweepError([at0, at90, at180, at270], setup.feature?.kind === "boss" ? "boss" : "bore");
      const place = (axis: "x" | "y", by: number) => ({
        ...at,
        axis,
        atCounts: toCounts(toMm(position[axis], scale) + by, scale),
        by: "indicator" as const,
      });
      return { places: [place("x", move[0]), place("y", move[1])] };
    },
  },
};
