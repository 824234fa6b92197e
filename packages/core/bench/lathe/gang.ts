import { drawNewTool } from "../../exercises";
import { drawNormal } from "../../random";
import { accept, refuse, type Result } from "../../result";
import { parseLengthMm, toMm } from "../../units";
import type { CommandOf } from "../commands";
import { Draft } from "../draft";
import type { LaneEvent } from "../events";
import type { Refusal } from "../refusals";
import type { LaneState } from "../state";
import { controlOf, gapMm, kxNowMm, latheOf, toolAt } from "./contact";
import { seenGapMm, seenTip } from "./eye";
import { mayReach } from "./hands";

type Decision = Result<LaneEvent[], Refusal>;

const OVERHANG_MM = { low: 5, high: 60 } as const;
/**
 * A tool slid against the bar rests on it this well; one clamp screw turned right down before the other shifts it by so
 * much, mm of X.
 */
const RESTS_MM = 0.002;
const UNEVEN_MM = { mean: 0.05, deviation: 0.01 } as const;
/**
 * Loosened, a tool is pushed back in its clamp by this, so that the slide can be sent where its edge should meet the
 * bar, mm.
 */
const PUSHED_BACK_MM = 3;
/** A clamp gives this much room to slide, by eye, mm. */
const SLIDES_MM = 8;
/** Room to work at a clamp, by eye, mm. */
const ROOM_MM = 8;

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4 || 0;
const barRadiusMm = ({ truth }: LaneState): number => (truth.lathe?.stock.diameterMm ?? 0) / 2;

/** An eye tells the clearance to half a millimetre, mm. */
const BY_EYE_MM = 0.6;

/** The slide moves across, so that another tool comes over the bar: every tip that passes must clear it. */
export function slideAcross(state: LaneState, station: number, row: number | null): Decision {
  const clearanceMm = state.setup.lathe?.gang?.clearanceMm ?? 0;
  const seen = seenTip(state);
  const here = latheOf(state).station;
  if (seen.radiusMm - seen.partRadiusMm < clearanceMm - BY_EYE_MM) return refuse({ code: "noRoomToIndex" });
  const draft = new Draft(state);
  const [low, high] = [Math.min(here, station), Math.max(here, station)];
  const passing = (state.setup.lathe?.tools ?? [])
    .map(({ number }) => number)
    .filter((number) => number >= low && number <= high);
  const isStruck = passing.some(
    (number) => (toMm(state.position.x, state.scale) - kxNowMm(state, number)) / 2 < barRadiusMm(state),
  );
  if (isStruck) {
    draft.emit({
      type: "incidentHappened",
      code: "neighborStruck",
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
    });
    return accept(draft.events);
  }
  draft.emit({ type: "turretIndexed", station, row });
  return accept(draft.events);
}

/** A worn tool out, a new one in, its overhang set by rule. */
function changeTool(state: LaneState, { tool, overhang }: CommandOf<"changeTool">): Decision {
  const { gang } = state.setup.lathe ?? {};
  if (!gang?.changed.includes(tool)) return refuse({ code: "toolIsGood", tool });
  const problem = mayReach(state) ?? clampProblem(state);
  if (problem) return refuse(problem);
  const { radiusMm, partRadiusMm } = seenTip(state);
  if (radiusMm - partRadiusMm < ROOM_MM) return refuse({ code: "noRoomAtClamp" });
  const read = parseLengthMm(overhang, state.setup.unit);
  if (!read.ok) return refuse({ code: "text", problem: read.error });
  if (read.value < OVERHANG_MM.low || read.value > OVERHANG_MM.high)
    return refuse({ code: "overhangNotPossible", lowMm: OVERHANG_MM.low, highMm: OVERHANG_MM.high });
  const times = Object.keys(latheOf(state).changed).length;
  // what sticks out further lies on the axis from further back, on a diameter by twice as much
  const drawn = drawNewTool(state.truth.seed, tool, times);
  return accept([
    {
      type: "toolChanged",
      tool,
      overhangMm: read.value,
      xMm: round(2 * (read.value - gang.overhangMm) + drawn.xMm),
      heightMm: toolAt(state, tool).kind === "endMill" ? 0 : drawn.heightMm,
    },
  ]);
}

const clampProblem = (state: LaneState): Refusal | null =>
  latheOf(state).loose === null ? null : { code: "clampLoose" };

/** The tool in its loosened clamp slid until it rests on the bar. */
function slideTool(state: LaneState): Decision {
  const { station, loose, movedMm } = latheOf(state);
  if (loose !== station) return refuse({ code: "clampNotLoose" });
  const seen = seenGapMm(state, "diameter");
  const gap = gapMm(state, "diameter");
  if (seen === null || gap === null) return refuse({ code: "noSuchFaceHere", on: "diameter" });
  if (Math.abs(seen) > SLIDES_MM) return refuse({ code: "tipTooFar" });
  const errorMm = drawNormal(0, RESTS_MM, state.truth.seed, "slid", station, movedMm[station] ?? 0);
  return accept([{ type: "toolSlid", tool: station, xMm: round(2 * gap + errorMm), at: state.position }]);
}

function tightenTool(state: LaneState, { how }: CommandOf<"tightenTool">): Decision {
  const { loose } = latheOf(state);
  if (loose === null) return refuse({ code: "clampNotLoose" });
  const shift =
    how === "inTurn"
      ? 0
      : drawNormal(
          UNEVEN_MM.mean,
          UNEVEN_MM.deviation,
          state.truth.seed,
          "clamp",
          loose,
          latheOf(state).movedMm[loose] ?? 0,
        );
  return accept([{ type: "toolTightened", tool: loose, how, xMm: round(shift) }]);
}

/** A gang slide's own: a tool changed, a tool put where its register says, the feed turned down. */
export function decideGang(
  state: LaneState,
  command: CommandOf<"changeTool" | "loosenTool" | "slideTool" | "tightenTool" | "turnFeed">,
): Decision {
  if (controlOf(state) !== "gang") return refuse({ code: "notOnThisMachine" });
  if (command.type === "turnFeed") return accept([{ type: "feedTurned", isLow: command.isLow }]);
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  switch (command.type) {
    case "changeTool":
      return changeTool(state, command);
    case "loosenTool": {
      if (latheOf(state).gap) return refuse({ code: "paperInGap" });
      return clampProblem(state)
        ? refuse({ code: "clampLoose" })
        : accept([{ type: "toolLoosened", tool: latheOf(state).station, xMm: -2 * PUSHED_BACK_MM }]);
    }
    case "slideTool":
      return slideTool(state);
    case "tightenTool":
      return tightenTool(state, command);
  }
}
