import type * as schema from "./schema";
import { type MillAct, type MillDraft, type MillLane } from "../../lane";
import { type Axis, type AxisCounts } from "../../../../registers/mill";
import { surfaces, type Surface } from "../../../../exercises/scene";
import { tipPoint, trueScene } from "../../solids";
import { ballBeside } from "./trigger";
import { planGap } from "../../../../geometry/solid";
import { probeLengthMm, probeRadiusMm } from "../../cards";
import { edgeOf } from "../../../../exercises/setup";
import { writeOffset } from "../writes";
import { isBroken } from "../../evidence";
import { PROBE_OVERTRAVEL_MM, drawProbeApproach } from "../../../../instruments/probe";
import { strike } from "../../contact";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { mayCycle } from "../cycles";
import { askProbe } from "./cycle";
import { type At, type PlaceReading } from "../../../told";
import { type EventOf } from "../../../events";
import { toCounts } from "../../../../units/scale";
import { touchOf } from "../plungers";
import { burrNowMm } from "../../solids";

/** How far past its trigger the ball stands at the nearest wall or top, mm; below zero it is free. */
function pushedMm(state: MillLane, axis: Axis, approach: 1 | -1): { mm: number; on: Surface } {
  const scene = trueScene(state);
  const tip = tipPoint(state, state.position);
  const ball = (state.setup.probe?.ballDiameterMm ?? 6) / 2;
  let worst = { mm: -Infinity, on: "stock" as Surface };
  for (const on of surfaces) {
    const solid = scene[on];
    if (!solid) continue;
    const gap = planGap(solid, tip.x, tip.y);
    const below = solid.highZ - tip.z;
    const part = axis === "z" ? null : ballBeside(state, solid, tip.z, axis, approach);
    const side = part && tip.z + ball > solid.lowZ ? part.radiusMm - gap : -Infinity;
    const mm = gap < 0 && below < ball ? below : side;
    if (mm > worst.mm) worst = { mm, on };
  }
  return worst;
}

/** The probe after a step by hand. Returns true when its lamp comes on or goes out. */
function senseProbe(draft: MillDraft, from: AxisCounts, clickMm: number): boolean {
  const { state } = draft;
  if (state.holds !== "probe" || isBroken(state, "probe")) return false;
  const moved: Axis = state.position.x !== from.x ? "x" : state.position.y !== from.y ? "y" : "z";
  const axis = state.probe.touch?.axis ?? moved;
  const approach = state.probe.touch?.approach ?? (state.position[moved] >= from[moved] ? 1 : -1);
  const { mm, on } = pushedMm(state, axis, approach);
  if (mm > PROBE_OVERTRAVEL_MM) {
    strike(draft, on);
    return true;
  }
  const number = state.probe.touches + 1;
  const errorMm = state.probe.touch?.errorMm ?? Math.round(drawProbeApproach(state.truth.seed, number) * 1e5) / 1e5;
  const isOn = mm >= errorMm;
  if (isOn === (state.probe.touch !== null)) return false;
  if (!isOn) {
    draft.emit({ type: "touchEnded", by: "probe" });
    return true;
  }
  draft.emit({ type: "touchBegan", by: "probe", axis, approach, at: state.position, number, errorMm, clickMm });
  return true;
}

function ask(draft: MillDraft, command: CommandOf<"askProbe">): Decision {
  const { state } = draft;
  if (state.holds !== "probe") return refuse({ code: "notHeld", thing: "probe" });
  if (isBroken(state, "probe")) return refuse({ code: "instrumentBroken", thing: "probe" });
  const problem = mayCycle(state);
  if (problem) return refuse(problem);
  const { into } = command;
  if (into !== undefined && !state.setup.settings.probeWrites) return refuse({ code: "cyclesDoNotWrite" });
  const asked = askProbe(draft, command);
  const last = draft.state.desk.readings.at(-1);
  if (!asked.ok || into === undefined || last?.outcome !== "found") return asked;
  writeOffset(draft, into, placesIn(draft.state, last, command.direction ?? 1));
  return accept(draft.events);
}

/** What an answer says of a work offset, mm: a middle as it stands, an edge by the ball, a surface by the stylus. */
function placesIn(
  state: MillLane,
  { what, values }: MillLane["desk"]["readings"][number],
  approach: 1 | -1,
): readonly (readonly ["x" | "y" | "z", number])[] {
  const { at = 0, middle = 0, x = 0, y = 0 } = values;
  const edge = (axis: "x" | "y") => {
    const o = edgeOf(state.setup, axis)?.edgeWorkMm ?? 0;
    return [axis, at + approach * probeRadiusMm(state) - o] as const;
  };
  switch (what) {
    case "middleX":
      return [["x", middle]];
    case "middleY":
      return [["y", middle]];
    case "round":
    case "corner":
      return [
        ["x", x],
        ["y", y],
      ];
    case "faceX":
      return [edge("x")];
    case "faceY":
      return [edge("y")];
    case "surface":
      return [["z", at - probeLengthMm(state)]];
    default:
      return [];
  }
}

function placesOf({ scale }: MillLane, at: At, { what, values }: EventOf<"readingShown">): PlaceReading[] {
  const place = (axis: "x" | "y", mm: number | undefined): PlaceReading[] =>
    mm === undefined ? [] : [{ ...at, axis, atCounts: toCounts(mm, scale), by: "probe" }];
  if (what === "middleX") return place("x", values.middle);
  if (what === "middleY") return place("y", values.middle);
  return what === "round" || what === "corner" ? [...place("x", values.x), ...place("y", values.y)] : [];
}

/** A spindle probe, asked by questions or jogged by hand. */
export const probe: MillAct<typeof schema> = {
  decide: { askProbe: ask },
  evolve: {},
  tells: {
    touchBegan: (before, at, event) => {
      if (event.by !== "probe") return {};
      const { axis, approach, clickMm } = event;
      if (axis === "z") return { touches: [touchOf(before, at, event, "stock", 0)] };
      return {
        contacts: [
          {
            ...at,
            axis,
            approach,
            atCounts: event.at[axis],
            radiusMm: probeRadiusMm(before),
            by: "probe",
            clickMm,
            kickMm: 0,
            isTooFast: false,
            known: [{ id: "burr", mm: -approach * burrNowMm(before, axis) }],
          },
        ],
      };
    },
    readingShown: (before, at, event) => (event.instrument === "probe" ? { places: placesOf(before, at, event) } : {}),
  },
  needsPower: ["askProbe"],
  senses: senseProbe,
  retracted: (draft) => {
    if (draft.state.probe.touch) draft.emit({ type: "touchEnded", by: "probe" });
  },
};
