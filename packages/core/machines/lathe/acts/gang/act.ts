import type * as schema from "./schema";
import { type LatheAct, type LatheDraft, type LatheState, type TurningLane } from "../../lane";
import { type Decision } from "../../../act";
import { seenGapMm, seenTip } from "../../eye";
import { accept, refuse } from "../../../../result";
import { toMm } from "../../../../units/scale";
import { gapMm, kxNowMm, toolAt } from "../../contact";
import { type CommandOf } from "../../../commands";
import { mayReach } from "../../hands";
import { parseLengthMm } from "../../../../units/parse";
import { drawNewTool } from "../../../../exercises/machines/lathe";
import { type Refusal } from "../../../../lane/refusals";
import { drawNormal } from "../../../../random";
import { counted, onLathe, withoutTool } from "../../evidence";
import { contactHere } from "../../contactBase";

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

const barRadiusMm = ({ truth }: TurningLane): number => (truth.lathe.stock.diameterMm ?? 0) / 2;

/** An eye tells the clearance to half a millimetre, mm. */
const BY_EYE_MM = 0.6;

/** The slide moves across, so that another tool comes over the bar: every tip that passes must clear it. */
export function slideAcross(draft: LatheDraft, station: number, row: number | null): Decision {
  const { state } = draft;
  const clearanceMm = state.setup.lathe.gang?.clearanceMm ?? 0;
  const seen = seenTip(state);
  const here = state.lathe.station;
  if (seen.radiusMm - seen.partRadiusMm < clearanceMm - BY_EYE_MM) return refuse({ code: "noRoomToIndex" });
  const [low, high] = [Math.min(here, station), Math.max(here, station)];
  const passing = (state.setup.lathe.tools ?? [])
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
function changeTool({ state }: LatheDraft, { tool, overhang }: CommandOf<"changeTool">): Decision {
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
  const times = Object.keys(state.lathe.changed).length;
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

const clampProblem = (state: TurningLane): Refusal | null =>
  state.lathe.loose === null ? null : { code: "clampLoose" };

/** The tool in its loosened clamp slid until it rests on the bar. */
function slideTool({ state }: LatheDraft): Decision {
  const reach = mayReach(state);
  if (reach) return refuse(reach);
  const { station, loose, movedMm } = state.lathe;
  if (loose !== station) return refuse({ code: "clampNotLoose" });
  const seen = seenGapMm(state, "diameter");
  const gap = gapMm(state, "diameter");
  if (seen === null || gap === null) return refuse({ code: "noSuchFaceHere", on: "diameter" });
  if (Math.abs(seen) > SLIDES_MM) return refuse({ code: "tipTooFar" });
  const errorMm = drawNormal(0, RESTS_MM, state.truth.seed, "slid", station, movedMm[station] ?? 0);
  return accept([{ type: "toolSlid", tool: station, xMm: round(2 * gap + errorMm), at: state.position }]);
}

function tightenTool({ state }: LatheDraft, { how }: CommandOf<"tightenTool">): Decision {
  const reach = mayReach(state);
  if (reach) return refuse(reach);
  const { loose } = state.lathe;
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
          state.lathe.movedMm[loose] ?? 0,
        );
  return accept([{ type: "toolTightened", tool: loose, how, xMm: round(shift) }]);
}

function loosenTool({ state }: LatheDraft): Decision {
  const reach = mayReach(state);
  if (reach) return refuse(reach);
  if (state.lathe.gap) return refuse({ code: "paperInGap" });
  const problem = clampProblem(state);
  return problem
    ? refuse(problem)
    : accept([{ type: "toolLoosened", tool: state.lathe.station, xMm: -2 * PUSHED_BACK_MM }]);
}

const shifted = ({ movedMm }: LatheState, tool: number, xMm: number): Pick<LatheState, "movedMm"> => ({
  movedMm: { ...movedMm, [tool]: (movedMm[tool] ?? 0) + xMm },
});

/** A gang slide's own: a tool changed, a tool put where its register says, the feed turned down. */
export const gang: LatheAct<typeof schema> = {
  decide: {
    changeTool,
    loosenTool,
    slideTool,
    tightenTool,
    turnFeed: (_draft, { isLow }) => accept([{ type: "feedTurned", isLow }]),
  },
  evolve: {
    toolChanged: onLathe((lathe, { tool, overhangMm, xMm, heightMm }) => ({
      ...lathe,
      changed: { ...lathe.changed, [tool]: overhangMm },
      movedMm: { ...lathe.movedMm, [tool]: xMm },
      raisedMm: { ...lathe.raisedMm, [tool]: heightMm },
      // a new edge: what the old one touched and left says nothing of it
      pip: lathe.pip?.tool === tool ? null : lathe.pip,
      evidence: withoutTool(lathe.evidence, tool),
    })),
    toolLoosened: onLathe((lathe, { tool, xMm }) => ({ ...lathe, loose: tool, ...shifted(lathe, tool, xMm) })),
    toolSlid: onLathe((lathe, { tool, xMm }) => ({
      ...lathe,
      ...shifted(lathe, tool, xMm),
      evidence: {
        ...lathe.evidence,
        xTouched: counted(lathe.evidence.xTouched, tool),
        isXSet: { ...lathe.evidence.isXSet, [tool]: true },
      },
    })),
    toolTightened: onLathe((lathe, { tool, xMm }) => ({ ...lathe, loose: null, ...shifted(lathe, tool, xMm) })),
    feedTurned: onLathe((lathe, { isLow }) => ({ ...lathe, isFeedLow: isLow })),
  },
  tells: {
    toolSlid: (before, at, { at: where }) => ({
      turret: [{ ...contactHere(before, at, 0), axis: "x", on: "diameter", by: "slid", at: where }],
    }),
  },
};
