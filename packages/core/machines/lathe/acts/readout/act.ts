import type * as schema from "./schema";
import { type LatheAct, type LatheDraft } from "../../lane";
import { type Decision } from "../../../act";
import { faceMm, tipAt, toolAt } from "../../contact";
import { accept, refuse } from "../../../../result";
import { seenTip } from "../../eye";
import { drawNormal } from "../../../../random";
import { type CommandOf } from "../../../commands";
import { counted, onLathe } from "../../evidence";
import { contactHere } from "../../contactBase";

/**
 * An eye that sights a point over an edge: off by so much (its own, the same each time with one tool, and never more
 * than an eye can be), and content within so much, mm.
 */
const SIGHT_MM = { own: 0.07, ownMost: 0.18, content: 0.1 } as const;

/** The point must stand this near to the corner, by eye, to be sighted over it, mm. */
const NEAR_CORNER_MM = 4;

/** The point sighted over the edge of the face: before it, over it, behind it. */
function sightEdge({ state }: LatheDraft): Decision {
  const { kind, number } = toolAt(state);
  if (kind !== "threading") return refuse({ code: "nothingToSight" });
  if (state.spindle.isOn) return refuse({ code: "spindleTurning" });
  const seen = seenTip(state);
  if (Math.abs(seen.radiusMm - seen.partRadiusMm) > NEAR_CORNER_MM || Math.abs(seen.zMm - seen.faceMm) > NEAR_CORNER_MM)
    return refuse({ code: "tipTooFar" });
  const drawn = drawNormal(0, SIGHT_MM.own, state.truth.seed, "sight", number);
  const errorMm = Math.round(Math.max(-SIGHT_MM.ownMost, Math.min(SIGHT_MM.ownMost, drawn)) * 1e4) / 1e4;
  const between = tipAt(state).zMm - (faceMm(state) ?? 0) - errorMm;
  const looks = Math.abs(between) <= SIGHT_MM.content ? "over" : between > 0 ? "before" : "behind";
  return accept([{ type: "edgeSighted", tool: number, looks, at: state.position, errorMm }]);
}

function recall({ state }: LatheDraft, { row }: CommandOf<"recall">): Decision {
  const isThere = row === null || state.setup.lathe.tools.some(({ number }) => number === row);
  if (!isThere) return refuse({ code: "toolNotHere", tool: row });
  return accept([{ type: "turretIndexed", station: state.lathe.station, row }]);
}

/** A hand-wound lathe's own: a row of the library recalled or none, a point sighted over an edge. */
export const readout: LatheAct<typeof schema> = {
  decide: { recall, sightEdge },
  evolve: {
    edgeSighted: onLathe((lathe, { tool, looks, at }) => ({
      ...lathe,
      sighted: { looks, at },
      evidence:
        looks === "over" ? { ...lathe.evidence, zTouched: counted(lathe.evidence.zTouched, tool) } : lathe.evidence,
    })),
  },
  tells: {
    edgeSighted: (before, at, { looks, at: where }) =>
      looks === "over"
        ? { turret: [{ ...contactHere(before, at, 0), axis: "z", on: "edge", by: "eye", at: where }] }
        : {},
  },
};
