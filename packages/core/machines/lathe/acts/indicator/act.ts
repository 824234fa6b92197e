import { type LatheDraft } from "../../lane";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { heightNowMm, tipAt, toolAt } from "../../contact";
import { mayReach } from "../../hands";
import { seenTip } from "../../eye";
import { sweepReadings } from "../../../../instruments/sweep";
import { type LatheAct } from "../../lane";
import { sweepError } from "../../../../registers/sweep";
import { toCounts } from "../../../../units/scale";
import { contactHere } from "../../contactBase";

/** An indicator carried on the chuck droops: what it reads above and below carries this, mm. */
const SAG_MM = 0.018;

const SWEEP_REACH_MM = 60;

/** The indicator on the chuck carried round a shank by hand, chuck and all: at the back, above, in front, below. */
export function sweepShank({ state }: LatheDraft): Decision {
  if (!state.setup.instruments.includes("indicator"))
    return refuse({ code: "instrumentNotHere", instrument: "indicator" });
  if (toolAt(state).kind !== "drill") return refuse({ code: "nothingToSweep" });
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  const seen = seenTip(state);
  if (Math.abs(seen.radiusMm) > 3 || seen.zMm - seen.faceMm > SWEEP_REACH_MM)
    return refuse({ code: "shankOutOfReach" });
  const { radiusMm } = tipAt(state);
  const number = state.desk.readingsMade + 1;
  // what the indicator goes round is a boss, and the axis that carries it is the chuck's
  const read = sweepReadings([-radiusMm, -heightNowMm(state, state.lathe.station)], "boss", state.truth.seed, number);
  const values: Record<string, number> = read
    ? {
        at0: read[0],
        at90: Math.round((read[1] + SAG_MM) * 1000) / 1000,
        at180: read[2],
        at270: Math.round((read[3] - SAG_MM) * 1000) / 1000,
      }
    : {};
  return accept([
    {
      type: "readingShown",
      number,
      instrument: "indicator",
      what: "shank",
      tool: state.lathe.station,
      values,
      outcome: read ? "found" : "missed",
    },
  ]);
}

/**
 * A shank that is swept: the tool moves by plus the error, on a diameter by twice that; there it stands on the axis.
 */
export const indicator: Pick<LatheAct<never>, "tells"> = {
  tells: {
    readingShown: (before, at, { what, values }) => {
      const { at0, at90, at180, at270 } = values;
      const isWhole = at0 !== undefined && at90 !== undefined && at180 !== undefined && at270 !== undefined;
      if (what !== "shank" || !isWhole) return {};
      const { error } = sweepError([at0, at90, at180, at270], "boss");
      const where = { ...before.position, x: before.position.x + toCounts(2 * error[0], before.scale) };
      return { turret: [{ ...contactHere(before, at, 0), axis: "x", on: "shank", by: "indicator", at: where }] };
    },
  },
};
