import { planGap } from "../../geometry";
import {
  drawApproach,
  drawBendMm,
  EDGE_FINDER_TIP_HEIGHT_MM,
  hasKicked,
  lateOnEdgeBreakMm,
  overTravel,
  wobbleAt,
} from "../../instruments";
import { strike } from "../contact";
import type { Draft } from "../draft";
import { burrNowMm, tipPoint, trueBoxes, trueScene } from "../solids";
import { seesKick, type LaneState } from "../state";

/**
 * Gap between the edge finder's tip and the blank as the tip meets it, and where its parts come from; null above the
 * blank.
 */
function finderGap(
  state: LaneState,
): { gapMm: number; axis: "x" | "y"; approach: 1 | -1; burrMm: number; lateMm: number } | null {
  const { stock } = trueScene(state);
  const box = trueBoxes(state).stock;
  const tip = tipPoint(state, state.position);
  const depthMm = stock.highZ - tip.z;
  if (depthMm <= 0 || tip.z + EDGE_FINDER_TIP_HEIGHT_MM < stock.lowZ) return null;
  const dx = Math.max(box.low.x - tip.x, tip.x - box.high.x);
  const dy = Math.max(box.low.y - tip.y, tip.y - box.high.y);
  const axis = dx >= dy ? "x" : "y";
  const middle = (box.low[axis] + box.high[axis]) / 2;
  const burrMm = burrNowMm(state, axis);
  const lateMm = lateOnEdgeBreakMm(depthMm, state.truth.edgeBreakMm);
  const gapMm =
    planGap({ ...stock, hole: undefined }, tip.x, tip.y) -
    burrMm +
    lateMm -
    state.setup.tipDiameterMm / 2 -
    state.finder.bendMm;
  return { gapMm, axis, approach: tip[axis] < middle ? 1 : -1, burrMm, lateMm };
}

/** What the edge finder shows after a step. Returns true when the student would see something change. */
export function senseFinder(draft: Draft, clickMm: number): boolean {
  if (draft.state.holds !== "edgeFinder" || draft.state.finder.condition === "broken") return false;
  const met = finderGap(draft.state);
  const { seed } = draft.state.truth;
  const gapMm = met?.gapMm ?? Infinity;
  let { finder } = draft.state;
  if (finder.approach === null) {
    const next = drawApproach(seed, finder.copy, finder.approachesMade + 1, finder.ownKickMm);
    if (gapMm > (next.thresholdsMm[0] ?? 0)) return false;
    draft.emit({ type: "approachBegan", approach: { ...next, thresholdsMm: [...next.thresholdsMm] } });
    finder = draft.state.finder;
  } else if (gapMm > finder.approach.overMm) {
    draft.emit({ type: "approachEnded" });
    return finder.tip === "wobbling" && draft.state.spindle.isOn;
  }
  const { approach } = finder;
  if (!approach || !met) return false;
  const travel = overTravel(gapMm, draft.state.setup.tipDiameterMm / 2);
  if (travel === "broken") {
    strike(draft, "stock");
    return true;
  }
  if (travel === "bent" && finder.condition === "sound") {
    draft.emit({
      type: "incidentHappened",
      code: "finderBent",
      isSilent: true,
      failsOutright: false,
      stopsMachine: false,
      thing: "edgeFinder",
      bendMm: Math.round(drawBendMm(seed, finder.copy, draft.state.incidents.length) * 1e4) / 1e4,
    });
  }
  const { spindle, sight } = draft.state;
  if (!spindle.isOn || finder.tip === "aside") return false;
  if (hasKicked(gapMm, approach.kickPastMm, spindle.rpm)) {
    const isSeen = seesKick(sight, met.axis);
    const wasTrue = finder.wobble === "true" || finder.tip === "still";
    draft.emit({
      type: "kicked",
      axis: met.axis,
      approach: met.approach,
      atCounts: draft.state.position[met.axis],
      isSeen,
      parts: {
        kickPastMm: approach.kickPastMm,
        burrMm: met.burrMm,
        lateMm: met.lateMm,
        bendMm: draft.state.finder.bendMm,
        clickMm,
      },
    });
    return isSeen || !wasTrue;
  }
  const wobble = wobbleAt(gapMm, approach.thresholdsMm);
  if (finder.tip !== "wobbling" || wobble === finder.wobble) return false;
  draft.emit({ type: "wobbleChanged", wobble });
  return true;
}
