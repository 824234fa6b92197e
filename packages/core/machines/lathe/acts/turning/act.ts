import type * as schema from "./schema";
import { type LatheAct, type LatheDraft, type LatheState } from "../../lane";
import { acrossMm, cutHere, pipHere, wouldCut } from "../../contact";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { seenTip } from "../../eye";
import { readByHand } from "../../../../instruments/handMeasures";
import { carve, lastCut, material, stepAt } from "../../outline";
import { type EventOf } from "../../../events";
import { counted, isFacedToMiddle, onLathe, touched } from "../../evidence";
import { contactHere } from "../../contactBase";
import { cleanRadiusMm } from "../../contact";

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

export function emitCut(draft: LatheDraft, axis: "x" | "z", clickMm: number): void {
  const pip = pipHere(draft.state, axis);
  if (!wouldCut(draft.state, axis)) return;
  const number = draft.state.lathe.cuts + 1;
  draft.emit({
    type: "turned",
    ...cutHere(draft.state, axis),
    number,
    axis,
    at: draft.state.position,
    clickMm,
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
      values: { diameter: readByHand(lathe.pip.diameterMm, "caliper", state.truth.seed, `pip ${lathe.cuts}`, made) },
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
  draft.emit({
    type: "readingShown",
    number,
    instrument: command.by,
    what: isBore ? "bored" : "turned",
    values: { diameter: readByHand(trueMm, by, state.truth.seed, `turned ${step.cut}`, number) },
  });
  return accept(draft.events);
}

function withTurned(state: LatheState, event: EventOf<"turned">): LatheState {
  const { kind, axis, fromMm, toMm, radiusMm, number, pip } = event;
  const isToMiddle = isFacedToMiddle(state, event);
  const evidence = axis === "x" && kind === "outer" ? touched(state, "face") : state.evidence;
  return {
    ...state,
    cuts: number,
    lastBy: { tool: state.station, axis, atZ: event.at.z },
    [kind]: carve(state[kind], kind, fromMm, toMm, radiusMm, number),
    ...(pip ? { pip: { tool: state.station, ...pip } } : {}),
    evidence: isToMiddle
      ? { ...evidence, isFaced: true, ...(pip ? { pipsSeen: counted(evidence.pipsSeen, state.station) } : {}) }
      : evidence,
  };
}

/** Metal cut, and what gauges tell of it. */
export const turning: LatheAct<typeof schema> = {
  decide: { measureTurned },
  evolve: { turned: onLathe(withTurned) },
  tells: {
    turned: (before, at, event, clickMm) => {
      const { axis, kind, fromMm, radiusMm } = event;
      const base = {
        ...contactHere(before, at, clickMm),
        by: "cut",
        at: event.at,
        clickMm: event.clickMm,
        radiusMm,
      } as const;
      if (axis === "x")
        return {
          turret: [{ ...base, axis: "z", on: "face", faceMm: fromMm, isClean: isFacedToMiddle(before.lathe, event) }],
        };
      const isBore = kind === "bore";
      return {
        turret: [
          {
            ...base,
            axis: "x",
            on: isBore ? "bore" : "diameter",
            isClean: isBore || radiusMm <= cleanRadiusMm(before),
          },
        ],
      };
    },
  },
};
