import type * as schema from "./schema";
import { carvedBy } from "./slant";
import { cutLook, SCRAPES_BELOW_MM } from "./look";
import { type LatheAct, type LatheDraft, type LatheState, type TurningLane, type TurretEvidence } from "../../lane";
import type { TurnedFace } from "../../faces";
import {
  acrossMm,
  cleanRadiusMm,
  coneRoomMm,
  cutHere,
  depthOfCutMm,
  isScratch,
  pipHere,
  toolAt,
  wouldCut,
} from "../../contact";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { seenTip } from "../../eye";
import { readByHand } from "../../../../instruments/handMeasures";
import { carve, lastCut, material, stepAt } from "../../outline";
import { type EventOf } from "../../../events";
import { counted, isFacedToMiddle, onLathe, touched, touchedCone } from "../../evidence";
import { contactHere } from "../../contactBase";

/** Room for a hand with a micrometer, and for the turret to swing, by eye, mm. */
const ROOM_TO_MEASURE_MM = 15;

export const chip = (draft: LatheDraft): void =>
  draft.emit({
    type: "incidentHappened",
    code: "insertChipped",
    isSilent: false,
    failsOutright: false,
    stopsMachine: true,
  });

/** A click no larger than this is one with which a surface is felt for, mm. */
export const FEELING_MM = 0.026;

/** What a turning part's face that an edge comes to is called. */
function surfaceOf(state: TurningLane, axis: "x" | "z"): TurnedFace {
  if ((coneRoomMm(state) ?? 1) < 0) return "cone";
  if (axis === "z") return "face";
  return toolAt(state).kind === "boring" ? "bore" : "diameter";
}

/** Metal met with the chuck turning: a scratch that tells where it is, or a cut. */
export function emitCut(draft: LatheDraft, axis: "x" | "z", clickMm: number): void {
  const { state } = draft;
  const on = surfaceOf(state, axis);
  const onConeMm = -(coneRoomMm(state) ?? 0);
  const looks = cutLook(state, on === "cone" ? onConeMm : depthOfCutMm(state));
  const at = { axis, at: state.position, clickMm, looks } as const;
  const isFelt = clickMm <= FEELING_MM && (on === "cone" ? onConeMm <= SCRAPES_BELOW_MM : isScratch(state, axis));
  if (looks === "rubs" || isFelt) {
    draft.emit({ type: "scratched", on, ...at });
    return;
  }
  if (on === "cone") {
    draft.emit({ type: "coneDug", depthMm: Math.round(onConeMm * 1e5) / 1e5, at: state.position, looks });
    return;
  }
  const pip = pipHere(state, axis);
  if (!wouldCut(state, axis)) return;
  draft.emit({
    type: "turned",
    ...cutHere(state, axis),
    number: state.lathe.cuts + 1,
    ...at,
    ...(pip ? { pip } : {}),
  });
}

/** A micrometer over a turned diameter or a bore gauge in it: a hand goes in where the chuck may still turn. */
function measureTurned(draft: LatheDraft, command: CommandOf<"measureTurned">): Decision {
  const { state } = draft;
  if (!state.setup.instruments.includes(command.by))
    return refuse({ code: "instrumentNotHere", instrument: command.by });
  const isBore = command.what === "bored";
  const isPip = command.what === "pip";
  if (isPip && command.by !== "caliper") return refuse({ code: "doesNotMeasureThat", by: command.by });
  if (isBore ? command.by !== "boreGauge" : command.by !== "micrometer" && command.by !== "caliper")
    return refuse({ code: "doesNotMeasureThat", by: command.by });
  if (!state.isDoorOpen) return refuse({ code: "doorShutReach" });
  const { radiusMm, zMm, partRadiusMm, faceMm } = seenTip(state);
  if (zMm < faceMm + ROOM_TO_MEASURE_MM && radiusMm < partRadiusMm + ROOM_TO_MEASURE_MM)
    return refuse({ code: "toolInTheWay" });
  if (state.spindle.isOn) {
    draft.emit({
      type: "incidentHappened",
      code: "handAtChuck",
      isSilent: false,
      failsOutright: true,
      stopsMachine: true,
    });
    return accept(draft.events);
  }
  const lathe = state.lathe;
  if (isPip) {
    if (!lathe.pip || lathe.pip.diameterMm <= 0) return refuse({ code: "nothingToMeasure" });
    const made = state.desk.readingsMade + 1;
    draft.emit({
      type: "readingShown",
      number: made,
      instrument: "caliper",
      what: "pip",
      tool: lathe.pip.tool,
      values: { diameter: readByHand(lathe.pip.diameterMm, "caliper", state.truth.seed, `pip ${lathe.cuts}`) },
    });
    return accept(draft.events);
  }
  const there = material(lathe.outer, lathe.bore);
  const step =
    lastCut(isBore ? lathe.bore : there) ?? (isBore ? stepAt(lathe.bore, lathe.bore.at(-1)?.toMm ?? 0) : there.at(-1));
  if (!step || step.radiusMm <= 0) return refuse({ code: "nothingToMeasure" });
  const number = state.desk.readingsMade + 1;
  const trueMm = isBore ? 2 * step.radiusMm : acrossMm(state, step, lathe.quarter);
  const by = command.by === "caliper" ? "caliper" : "micrometer";
  // a cut part is another part, and two points repeat after half a turn
  const place = `${isBore ? "bored" : "turned"} ${step.cut} ${lathe.quarter % 2}`;
  draft.emit({
    type: "readingShown",
    number,
    instrument: command.by,
    what: isBore ? "bored" : "turned",
    values: { diameter: readByHand(trueMm, by, state.truth.seed, place) },
  });
  return accept(draft.events);
}

function withTurned(state: LatheState, event: EventOf<"turned">): LatheState {
  const { kind, axis, fromMm, toMm, radiusMm, number, pip, at, looks = "cuts" } = event;
  // what an edge tore is no face and no band to count from
  const isTorn = looks === "chatters";
  const isToMiddle = !isTorn && isFacedToMiddle(state, event);
  const evidence = axis === "x" && kind === "outer" && !isTorn ? touched(state, "face") : state.evidence;
  return {
    ...state,
    cuts: number,
    heard: { looks, at },
    lastBy: isTorn ? null : { tool: state.station, axis, atZ: at.z },
    [kind]: carve(state[kind], kind, fromMm, toMm, radiusMm, number),
    ...(pip ? { pip: { tool: state.station, ...pip } } : {}),
    evidence: isToMiddle
      ? { ...evidence, isFaced: true, ...(pip ? { pipsSeen: counted(evidence.pipsSeen, state.station) } : {}) }
      : evidence,
  };
}

const scratchedOn = (lathe: LatheState, on: TurnedFace): TurretEvidence =>
  on === "cone" ? touchedCone(lathe) : touched(lathe, on);

/** Metal cut, and what gauges tell of it. */
export const turning: LatheAct<typeof schema> = {
  decide: { measureTurned },
  evolve: {
    turned: onLathe(withTurned),
    scratched: onLathe((lathe, { on, at, looks }) => ({
      ...lathe,
      heard: { looks, at },
      evidence: looks === "scrapes" ? scratchedOn(lathe, on) : lathe.evidence,
    })),
    // a slope is no face and no band: it opens nothing, and what was cut there before is gone
    turnedAslant: onLathe((lathe, { kind, treads, number, at, looks }) => ({
      ...lathe,
      cuts: number,
      heard: { looks, at },
      lastBy: null,
      [kind]: carvedBy(lathe[kind], kind, treads, number),
    })),
    coneDug: onLathe((lathe, { depthMm, at, looks }) => ({
      ...lathe,
      heard: { looks, at },
      cone: lathe.cone ? { ...lathe.cone, offMm: lathe.cone.offMm - depthMm } : null,
    })),
  },
  tells: {
    scratched: (before, at, { on, axis, at: where, clickMm, looks }) =>
      looks === "scrapes"
        ? {
            turret: [
              {
                ...contactHere(before, at, clickMm),
                by: "scratch",
                axis: on === "cone" ? "z" : axis,
                on,
                at: where,
              },
            ],
          }
        : {},
    turned: (before, at, event, clickMm) => {
      const { axis, kind, fromMm, radiusMm, looks } = event;
      const isTorn = looks === "chatters";
      const base = {
        ...contactHere(before, at, clickMm),
        by: "cut",
        at: event.at,
        clickMm: event.clickMm,
        radiusMm,
      } as const;
      if (axis === "x")
        return {
          turret: [
            {
              ...base,
              axis: "z",
              on: "face",
              faceMm: fromMm,
              isClean: !isTorn && isFacedToMiddle(before.lathe, event),
            },
          ],
        };
      const isBore = kind === "bore";
      return {
        turret: [
          {
            ...base,
            axis: "x",
            on: isBore ? "bore" : "diameter",
            isClean: !isTorn && (isBore || radiusMm <= cleanRadiusMm(before)),
          },
        ],
      };
    },
  },
};
