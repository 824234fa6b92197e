import type * as schema from "./schema";
import { type MillAct, type MillDraft, type MillLane, type Point } from "../../lane";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { toMm } from "../../../../units/scale";
import { edgeOf } from "../../../../exercises/setup";
import { probeRadiusMm } from "../../cards";
import { tasterReads } from "../taster/act";
import { writeOffset } from "../writes";

/** The control keeps so many points. */
const KEPT = 12;

/** The contact that is in force now, as the control can know it; null where nothing that tells is in contact. */
function pointNow(state: MillLane): Point | null {
  const { finder, taster, probe, position, scale, setup } = state;
  const at = (axis: "x" | "y") => toMm(position[axis], scale);
  if (state.holds === "edgeFinder" && finder.tip === "aside" && finder.isKickSeen && finder.kickAxis)
    return {
      axis: finder.kickAxis,
      approach: finder.approachFrom ?? 1,
      atMm: at(finder.kickAxis),
      radiusMm: setup.tipDiameterMm / 2,
    };
  const touch = state.holds === "taster" ? taster.touch : state.holds === "probe" ? probe.touch : null;
  if (!touch || touch.axis === "z") return null;
  const { axis, approach } = touch;
  return state.holds === "taster"
    ? { axis, approach, atMm: at(axis) - approach * tasterReads(state), radiusMm: 0 }
    : { axis, approach, atMm: at(axis), radiusMm: probeRadiusMm(state) };
}

function keepPoint({ state }: MillDraft): Decision {
  if (!state.setup.settings.keepsPoints) return refuse({ code: "keepsNoPoints" });
  const point = pointNow(state);
  return point ? accept([{ type: "pointKept", ...point }]) : refuse({ code: "contactFirst" });
}

/** Edge or middle from the points kept last: the radius is counted once at an edge, and cancels over a middle. */
function setFromPoints(draft: MillDraft, { what, axis, into }: CommandOf<"setFromPoints">): Decision {
  const { state } = draft;
  if (!state.setup.settings.keepsPoints) return refuse({ code: "keepsNoPoints" });
  const on = state.points.filter((point) => point.axis === axis);
  const last = on.at(-1);
  const other = on.findLast(({ approach }) => approach === (last?.approach === 1 ? -1 : 1));
  if (!last || (what === "middle" && !other)) return refuse({ code: "pointsMissing", what });
  const edgeMm = ({ atMm, approach, radiusMm }: Point) => atMm + approach * radiusMm;
  const o = edgeOf(state.setup, axis)?.edgeWorkMm ?? 0;
  const placeMm = what === "middle" && other ? (edgeMm(last) + edgeMm(other)) / 2 : edgeMm(last) - o;
  writeOffset(draft, into, [[axis, placeMm]]);
  return accept(draft.events);
}

/** Points of contacts made by hand, kept by the control, and work offsets set from them. */
export const points: MillAct<typeof schema> = {
  decide: { keepPoint, setFromPoints },
  evolve: {
    pointKept: (state, { type: _type, ...point }) => ({ ...state, points: [...state.points, point].slice(-KEPT) }),
  },
};
