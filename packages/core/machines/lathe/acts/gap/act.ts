import type * as schema from "./schema";
import { feelAt, type Feel } from "../../../../instruments/paper";
import { type LatheAct, type LatheDraft, type TurningLane } from "../../lane";
import type { HeldFace } from "../../faces";
import { faceMm, gapMm, tipAt, toolAt } from "../../contact";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { mayReach } from "../../hands";
import { accept, refuse } from "../../../../result";
import { drawTry, goesUnder, isFelt } from "../../../../instruments/gap";
import { drawNormal } from "../../../../random";
import { type Refusal } from "../../../../lane/refusals";
import { seenGapMm, seenTip } from "../../eye";
import { toMm } from "../../../../units/scale";
import { onLathe, touched, touchedCone } from "../../evidence";
import { type At } from "../../../told";
import { type EventOf } from "../../../events";
import { contactHere } from "../../contactBase";

/** Paper is brought under a tip that stands no further away than this, by eye, mm. */
const NEAR_MM = 4;

/** What a hand leaning on the post gives way by, mm. */
const LEAN_MM = { mean: 0.03, deviation: 0.006, least: 0.018 } as const;

/** A straight edge held on the face: light shows, none shows, then the tool pushes it away. */
function againstEdge(between: number): Feel {
  if (between > 0.002) return "slides";
  if (between > -0.012) return "drags";
  if (between > -0.03) return "held";
  return between > -0.06 ? "pinched" : "torn";
}

/** What the hands feel after a step with paper, a feeler or a straight edge in place; true when it changed. */
export function senseGap(draft: LatheDraft, clickMm: number): boolean {
  const { gap } = draft.state.lathe;
  if (!gap) return false;
  const daylight = gap.isBehind ? behindMm(draft.state) : gapMm(draft.state, gap.on);
  // a hand that leans on the post presses the tip toward the part
  const between = daylight === null ? null : daylight - gap.leanMm;
  const thickness = draft.state.truth.gapsMm[gap.id] ?? 0.1;
  const feel =
    between === null ? "slides" : gap.id === "straightEdge" ? againstEdge(between) : feelAt(between, thickness);
  if (feel === gap.feel && feel === "slides") return false;
  draft.emit({ type: "turretFelt", id: gap.id, on: gap.on, feel, at: draft.state.position, clickMm });
  if (feel !== "torn") return feel !== gap.feel;
  draft.emit({
    type: "incidentHappened",
    code: gap.id === "straightEdge" ? "edgePushedOff" : "paperTorn",
    isSilent: false,
    failsOutright: false,
    stopsMachine: false,
  });
  draft.emit({ type: "turretGapPulled" });
  return true;
}

/** How far the far edge of a blade stands behind the plane of the face, mm. */
function behindMm(state: TurningLane): number | null {
  const { bladeMm } = toolAt(state);
  const face = faceMm(state);
  return bladeMm === undefined || face === null ? null : face - (tipAt(state).zMm + bladeMm);
}

/** Out beyond the diameter and behind the face, near enough to a straight edge that lies on it, by eye. */
function behindProblem(state: TurningLane): Refusal | null {
  const { bladeMm } = toolAt(state);
  if (bladeMm === undefined) return { code: "notBehind" };
  const tip = seenTip(state);
  const isOut = tip.radiusMm > tip.partRadiusMm;
  const behind = tip.faceMm - (tip.zMm + bladeMm);
  if (!isOut || behind < -0.5) return { code: "notBehind" };
  return behind > NEAR_MM ? { code: "tipTooFar" } : null;
}

const thingOf = (state: TurningLane, id: string) =>
  id === "straightEdge" && state.setup.instruments.includes("straightEdge")
    ? { id, kind: "paper" as const, nominalMm: 0 }
    : state.setup.gaps.find((gap) => gap.id === id && state.setup.instruments.includes(gap.kind));

/** Paper, a feeler or a straight edge between the tip and the part. */
function placeGap({ state }: LatheDraft, { id, on, hand, side }: CommandOf<"placeGap">): Decision {
  const problem =
    mayReach(state) ??
    (state.lathe.gap
      ? ({ code: "paperInPlace" } as const)
      : state.lathe.block
        ? ({ code: "blockInGap" } as const)
        : null);
  if (problem) return refuse(problem);
  const thing = thingOf(state, id);
  if (!thing || (id !== "straightEdge" && !isFelt(thing.kind)) || (id === "straightEdge" && on !== "face"))
    return refuse({ code: "gapThingNotHere", id });
  const isBehind = side === "behind";
  if (isBehind && id !== "straightEdge") return refuse({ code: "gapThingNotHere", id });
  const far = isBehind ? behindProblem(state) : farProblem(state, on);
  if (far) return refuse(far);
  if (hand === "post" && state.kind !== "readout") return refuse({ code: "notOnThisMachine" });
  if (on === "face" && toolAt(state).kind === "threading" && state.kind === "readout")
    return refuse({ code: "pointMeetsNoFace" });
  const between = (isBehind ? behindMm(state) : gapMm(state, on)) ?? Infinity;
  // that it does not go between is felt, and no refusal: what hands find out is in the log
  if (between < (state.truth.gapsMm[id] ?? 0))
    return accept([
      {
        type: "turretTried",
        id,
        on,
        goes: false,
        at: state.position,
        number: state.lathe.tries + 1,
        dirtMm: 0,
        isOpened: false,
        clickMm: 0,
      },
    ]);
  const leanMm =
    hand === "post"
      ? Math.round(
          Math.max(
            LEAN_MM.least,
            drawNormal(LEAN_MM.mean, LEAN_MM.deviation, state.truth.seed, "lean", state.lathe.gapsPlaced),
          ) * 1e4,
        ) / 1e4
      : 0;
  return accept([
    {
      type: "turretGapPlaced",
      id,
      on,
      feel: "slides",
      ...(leanMm === 0 ? {} : { leanMm }),
      ...(isBehind ? { isBehind } : {}),
    },
  ]);
}

function farProblem(state: TurningLane, on: HeldFace): Refusal | null {
  const seen = seenGapMm(state, on);
  if (seen === null) return { code: "noSuchFaceHere", on };
  return seen > NEAR_MM + (on === "face" ? 30 : 0) ? { code: "tipTooFar" } : null;
}

/** A block or pin tried in the gap as it is now. */
function tryGap({ state }: LatheDraft, { id, on }: CommandOf<"tryGap">): Decision {
  const problem =
    mayReach(state) ??
    (state.lathe.gap
      ? ({ code: "paperInPlace" } as const)
      : state.lathe.block
        ? ({ code: "blockInGap" } as const)
        : null);
  if (problem) return refuse(problem);
  const thing = thingOf(state, id);
  if (!thing || isFelt(thing.kind)) return refuse({ code: "gapThingNotHere", id });
  const far = farProblem(state, on);
  if (far) return refuse(far);
  const number = state.lathe.tries + 1;
  const dirtMm = state.areBlocksWiped ? 0 : state.truth.dirtMm;
  const goes = goesUnder(
    gapMm(state, on) ?? -1,
    state.truth.gapsMm[id] ?? thing.nominalMm,
    drawTry(state.truth.seed, number),
    dirtMm,
  );
  const before = state.lathe.lastTry;
  const axis = on === "face" ? "z" : "x";
  const isOpened =
    goes && before !== null && before.id === id && !before.goes && before.at[axis] < state.position[axis];
  return accept([
    {
      type: "turretTried",
      id,
      on,
      goes,
      at: state.position,
      number,
      dirtMm,
      isOpened,
      clickMm: isOpened && before ? toMm(state.position[axis] - before.at[axis], state.scale) : 0,
    },
  ]);
}

function pullGap({ state }: LatheDraft): Decision {
  const { gap, block } = state.lathe;
  if (!gap && !block) return refuse({ code: "paperNotPlaced" });
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  return accept([{ type: "turretGapPulled" }]);
}

/** A contact at a face of the part, where the machine stood. */
function onPart(
  before: TurningLane,
  at: At,
  { on, at: where, clickMm }: EventOf<"turretFelt" | "turretTried" | "metalTouched">,
) {
  return {
    ...contactHere(before, at, clickMm),
    axis: on === "face" || on === "cone" ? ("z" as const) : ("x" as const),
    on,
    at: where,
    leanMm: before.lathe.gap?.leanMm ?? 0,
  };
}

/** Something held between tip and part, and the bare tip against standing metal. */
export const gap: LatheAct<typeof schema> = {
  decide: { placeGap, tryGap, pullGap },
  evolve: {
    turretGapPlaced: onLathe((lathe, { id, on, feel, leanMm = 0, isBehind }) => ({
      ...lathe,
      gap: { id, on, feel, leanMm, ...(isBehind ? { isBehind } : {}) },
      gapsPlaced: lathe.gapsPlaced + 1,
    })),
    turretFelt: onLathe((lathe, { on, feel }) => ({
      ...lathe,
      gap: lathe.gap ? { ...lathe.gap, feel } : null,
      evidence: feel === "drags" || feel === "held" ? touched(lathe, on) : lathe.evidence,
    })),
    turretTried: onLathe((lathe, { id, on, goes, number, at, isOpened }) => ({
      ...lathe,
      block: goes ? { id, on } : null,
      tries: number,
      lastTry: { id, goes, at },
      evidence: goes && isOpened ? touched(lathe, on) : lathe.evidence,
    })),
    turretGapPulled: onLathe((lathe) => ({ ...lathe, gap: null, block: null })),
    metalTouched: onLathe((lathe, { on }) => ({
      ...lathe,
      isResting: true,
      evidence: on === "cone" ? touchedCone(lathe) : touched(lathe, on),
    })),
    metalLeft: onLathe((lathe) => ({ ...lathe, isResting: false })),
  },
  tells: {
    turretFelt: (before, at, event) => {
      const { id, feel } = event;
      if (feel === "slides" || feel === "torn") return {};
      const thing = before.setup.gaps.find((one) => one.id === id);
      const by = id === "straightEdge" ? "straightEdge" : (thing?.kind ?? "paper");
      const isFarEdge = before.lathe.gap?.isBehind === true;
      return {
        turret: [{ ...onPart(before, at, event), by, thicknessMm: thing?.nominalMm ?? 0, feel, isFarEdge }],
      };
    },
    turretTried: (before, at, event) => {
      if (!event.goes || !event.isOpened) return {};
      const thing = before.setup.gaps.find((one) => one.id === event.id);
      return {
        turret: [{ ...onPart(before, at, event), by: thing?.kind ?? "block", thicknessMm: thing?.nominalMm ?? 0 }],
      };
    },
    metalTouched: (before, at, event) => ({ turret: [{ ...onPart(before, at, event), by: "metal" }] }),
  },
};
