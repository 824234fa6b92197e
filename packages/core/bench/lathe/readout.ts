import { drawNormal } from "../../random";
import { accept, refuse, type Result } from "../../result";
import type { CommandOf } from "../commands";
import type { LaneEvent } from "../events";
import type { Refusal } from "../refusals";
import type { LaneState } from "../state";
import { controlOf, faceMm, latheOf, tipAt, toolAt } from "./contact";
import { seenTip } from "./eye";

type Decision = Result<LaneEvent[], Refusal>;

/**
 * An eye that sights a point over an edge: off by so much (its own, the same each time with one tool), and content
 * within so much, mm.
 */
const SIGHT_MM = { own: 0.07, content: 0.1 } as const;
/** The point must stand this near to the corner, by eye, to be sighted over it, mm. */
const NEAR_CORNER_MM = 4;

/** The point sighted over the edge of the face: before it, over it, behind it. */
function sightEdge(state: LaneState): Decision {
  const { kind, number } = toolAt(state);
  if (kind !== "threading") return refuse({ code: "nothingToSight" });
  if (state.spindle.isOn) return refuse({ code: "spindleTurning" });
  const seen = seenTip(state);
  if (Math.abs(seen.radiusMm - seen.partRadiusMm) > NEAR_CORNER_MM || Math.abs(seen.zMm - seen.faceMm) > NEAR_CORNER_MM)
    return refuse({ code: "tipTooFar" });
  const errorMm = Math.round(drawNormal(0, SIGHT_MM.own, state.truth.seed, "sight", number) * 1e4) / 1e4;
  const between = tipAt(state).zMm - (faceMm(state) ?? 0) - errorMm;
  const looks = Math.abs(between) <= SIGHT_MM.content ? "over" : between > 0 ? "before" : "behind";
  return accept([{ type: "edgeSighted", tool: number, looks, at: state.position, errorMm }]);
}

/** A hand-wound lathe's own: a row of the library recalled or none, a point sighted over an edge. */
export function decideReadout(state: LaneState, command: CommandOf<"recall" | "sightEdge">): Decision {
  if (controlOf(state) !== "readout") return refuse({ code: "notOnThisMachine" });
  if (command.type === "sightEdge") return sightEdge(state);
  const { row } = command;
  if (row !== null && !state.setup.lathe?.tools.some(({ number }) => number === row))
    return refuse({ code: "toolNotHere", tool: row });
  return accept([{ type: "turretIndexed", station: latheOf(state).station, row }]);
}
