import type * as schema from "./schema";
import { newFinder, type FinderState, type MillAct, type MillDraft, type MillLane } from "../../lane";
import { burrNowMm, tipPoint, trueBoxes, trueScene } from "../../solids";
import { EDGE_FINDER_TIP_HEIGHT_MM } from "../../../../instruments/things";
import {
  EDGE_FINDER_HIGHEST_RPM,
  drawApproach,
  drawBendMm,
  hasKicked,
  kickPastAt,
  lateOnEdgeBreakMm,
  overTravel,
  slowByMm,
  wobbleAt,
} from "../../../../instruments/edgeFinder";
import { planGap } from "../../../../geometry/solid";
import { strike } from "../../contact";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { type EventOf } from "../../../events";
import { withContactSeen } from "../../evidence";
import { type Side } from "../../../../lane/names";

/**
 * Gap between the edge finder's tip and the blank as the tip meets it, and where its parts come from; null above the
 * blank.
 */
function finderGap(
  state: MillLane,
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
export function senseFinder(draft: MillDraft, clickMm: number): boolean {
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
  if (hasKicked(gapMm, kickPastAt(approach, spindle.rpm), spindle.rpm)) {
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
        scatterMm: kickPastAt(approach, spindle.rpm) - approach.kickPastMm,
      },
    });
    return isSeen || !wasTrue;
  }
  const wobble = wobbleAt(gapMm, approach.thresholdsMm);
  if (finder.tip !== "wobbling" || wobble === finder.wobble) return false;
  draft.emit({ type: "wobbleChanged", wobble });
  return true;
}

function setWobbling(draft: MillDraft): Decision {
  const { state } = draft;
  if (state.holds !== "edgeFinder") return refuse({ code: "noEdgeFinder" });
  if (state.finder.condition === "broken") return refuse({ code: "finderDestroyed" });
  if (state.finder.tip === "aside" && state.finder.approach !== null) return refuse({ code: "notWithdrawn" });
  draft.emit({ type: "setWobbling" });
  senseFinder(draft, 0);
  return accept(draft.events);
}

/** What an incident does to the edge finder. */
export function finderAfter({ finder }: MillLane, { code, bendMm = 0 }: EventOf<"incidentHappened">): FinderState {
  if (code === "finderBent") return { ...finder, condition: "bent", bendMm: finder.bendMm + bendMm };
  if (code !== "finderThrown" && code !== "finderBroken") return finder;
  return {
    ...finder,
    condition: "broken",
    approach: null,
    tip: "still",
    kickAxis: null,
    isKickSeen: false,
    wobble: "wide",
  };
}

/** A tip that runs eccentric and is straightened by the face, until it kicks aside. */
export const edgeFinder: MillAct<typeof schema> = {
  decide: { setWobbling },
  evolve: {
    finderReplaced: (state, { copy, ownKickMm }) => ({ ...state, finder: newFinder(copy, ownKickMm) }),
    setWobbling: (state) => ({
      ...state,
      finder: { ...state.finder, tip: "wobbling", kickAxis: null, isKickSeen: false, wobble: "wide" },
    }),
    approachBegan: (state, { approach }) => ({
      ...state,
      finder: { ...state.finder, approach, approachesMade: approach.number },
    }),
    approachEnded: (state) => ({ ...state, finder: { ...state.finder, approach: null, wobble: "wide" } }),
    wobbleChanged: (state, { wobble }) => ({ ...state, finder: { ...state.finder, wobble } }),
    kicked: (state, { axis, approach, isSeen }) => ({
      ...state,
      finder: {
        ...state.finder,
        tip: "aside",
        kickAxis: axis,
        approachFrom: approach,
        isKickSeen: isSeen,
        wobble: "true",
      },
      evidence: isSeen ? withContactSeen(state.evidence, axis) : state.evidence,
    }),
  },
  tells: {
    kicked: (before, at, { axis, approach, atCounts, parts }) => ({
      contacts: [
        {
          ...at,
          axis,
          approach,
          atCounts,
          radiusMm: before.setup.tipDiameterMm / 2,
          by: "edgeFinder",
          clickMm: parts.clickMm,
          kickMm: parts.kickPastMm,
          isTooFast: before.spindle.rpm > EDGE_FINDER_HIGHEST_RPM,
          known: [
            { id: "burr", mm: -approach * parts.burrMm },
            { id: "edgeBreak", mm: approach * parts.lateMm },
            { id: "bentFinder", mm: -approach * parts.bendMm },
            { id: "kickScattered", mm: approach * (parts.scatterMm ?? 0) },
            { id: "slowSpindle", mm: approach * slowByMm(parts.kickPastMm, before.spindle.rpm) },
          ],
        },
      ],
    }),
  },
  senses: (draft, _fromStep, clickMm) => senseFinder(draft, clickMm),
  retracted: (draft) => {
    if (draft.state.finder.approach !== null) draft.emit({ type: "approachEnded" });
  },
};

/**
 * Whether a tip that stands aside can be told from this side. The part drags the tip along its face, so a kick met on X
 * goes along Y and is hardly seen by who looks along Y.
 */
export const seesKick = (side: Side, kickAxis: "x" | "y"): boolean =>
  (kickAxis === "x") === (side === "left" || side === "right");
