import { type LatheDraft, type TurningLane } from "./lane";
import type { TurnedFace } from "./faces";
import { coneRoomMm, DEEPEST_MM, depthMm, depthOfCutMm, isInJaws, jawRoomMm, metalRoomMm, toolAt } from "./contact";
import { jogMm, type JogSize } from "../../lane/names";
import { armRoomMm, tripArm } from "./acts/arm/act";
import { senseGap } from "./acts/gap/act";
import { chip, emitCut, FEELING_MM } from "./acts/turning/act";
import { cutAslant } from "./acts/turning/slant";
import { type CommandOf } from "../commands";
import { type Decision } from "../act";
import { accept, refuse } from "../../result";
import { turnWheel } from "../../motion/clicks";
import { type IncidentCode } from "../events";
import { type AxisCounts, type RegisterId } from "../../registers/mill";
import { type Refusal } from "../../lane/refusals";
import { toMm } from "../../units/scale";
import { advance } from "../../motion/advance";

/** Heel first an edge only rubs, and breaks when it is driven further than this, mm. */
const HEEL_MM = 0.1;
const deepestMm = ({ spindle }: TurningLane): number => (spindle.direction === "reverse" ? HEEL_MM : DEEPEST_MM);

/** A typed feed move ends where it is told, to a thousandth, mm. */
const FINE_MM = 0.001;

/** A tip that is pressed further than this into metal that stands still chips, mm. */
const SURVIVES_MM = 0.012;

/** Which face of the part a tip meets that moves along an axis. */
function metOn(state: TurningLane, axis: "x" | "z"): TurnedFace {
  if ((coneRoomMm(state) ?? 1) < 0) return "cone";
  if (axis === "z") return "face";
  return toolAt(state).kind === "boring" ? "bore" : "diameter";
}

/** What a step that has just been made meets; true when the hands stop. */
function sense(draft: LatheDraft, axis: "x" | "z", direction: 1 | -1, size: JogSize, clickMm: number): boolean {
  const { state } = draft;
  if (isInJaws(state)) {
    draft.emit({
      type: "incidentHappened",
      code: "jawStruck",
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
    });
    return true;
  }
  if (tripArm(draft, axis, direction, size)) return true;
  const lathe = state.lathe;
  if (lathe.arm.isTripped && direction === 1 && axis === lathe.arm.axis) draft.emit({ type: "armLeft" });
  if (lathe.block && direction === -1) {
    draft.emit({
      type: "incidentHappened",
      code: "blockCrushed",
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
    });
    draft.emit({ type: "turretGapPulled" });
    return true;
  }
  if (lathe.gap) return senseGap(draft, clickMm);
  if (state.spindle.isOn) return false;
  const depth = depthMm(state);
  if (depth <= 0) {
    if (lathe.isResting) draft.emit({ type: "metalLeft" });
    return false;
  }
  if (depth > SURVIVES_MM) chip(draft);
  else if (!lathe.isResting)
    draft.emit({
      type: "metalTouched",
      on: metOn(state, axis),
      at: state.position,
      clickMm,
    });
  return true;
}

/**
 * Clicks of a hand wheel. With the spindle running the tool cuts; standing still, what is in the way is met. X counts
 * diameters.
 */
export function jog(draft: LatheDraft, command: CommandOf<"jog">): Decision {
  const { axis, direction, size } = command;
  if (axis === "y") return refuse({ code: "notOnThisMachine" });
  if (size === "rapid" && draft.state.isDoorOpen) return refuse({ code: "doorOpenRapid" });
  const { arm } = draft.state.lathe;
  if (arm.isTripped && arm.axis === axis && direction === -1) return refuse({ code: "armHolds" });
  const clickMm = jogMm(draft.state.setup.unit, size);
  let isCutting = false;
  const cut = () => {
    if (isCutting) emitCut(draft, axis, clickMm);
    isCutting = false;
  };
  turnWheel(
    draft,
    command,
    (trial, from) => {
      const isFelt = sense(trial, axis, direction, size, clickMm);
      if (isFelt || !draft.state.spindle.isOn || depthMm(trial.state) === 0) return { events: trial.events, isFelt };
      const isTooMuch = depthOfCutMm(trial.state) > deepestMm(trial.state) || size === "rapid";
      if (isTooMuch) chip(trial);
      else isCutting = true;
      // who feels for a surface by small clicks stops at the first scrape
      const isHeard = clickMm <= FEELING_MM && depthMm(trial.state, from) === 0;
      return { events: trial.events, isFelt: isTooMuch || isHeard };
    },
    cut,
  );
  return draft.events.length === 0 ? refuse({ code: "pastTravel", axis }) : accept(draft.events);
}

/** What a typed move drives the tool into first: the jaws, the arm, or metal that it does not cut. */
type Struck = Extract<IncidentCode, "jawStruck" | "armStruck" | "insertChipped">;

/**
 * A typed move in X and Z. At rapid, or with the chuck standing still, nothing may be met; at feed along one axis the
 * tool cuts, as deep as an insert takes.
 */
export function moveTurret(
  draft: LatheDraft,
  to: AxisCounts,
  how: { readonly isRapid: boolean; readonly reads?: RegisterId[] | undefined },
): Refusal | null {
  const { state } = draft;
  const { isRapid } = how;
  const from = state.position;
  const isOneAxis = from.x === to.x || from.z === to.z;
  const along = from.x === to.x ? "z" : "x";
  const cuts = !isRapid && state.spindle.isOn;
  const at = (share: number): AxisCounts => ({
    ...from,
    x: Math.round(from.x + (to.x - from.x) * share),
    z: Math.round(from.z + (to.z - from.z) * share),
  });
  const rooms: [Struck, (position: AxisCounts) => number][] = [
    ["jawStruck", (position) => jawRoomMm(state, position)],
    ["armStruck", (position) => armRoomMm(state, position)],
  ];
  // a slope is cut as far as an insert takes it; a tip laid on still metal by microns stops nothing
  const isSlope = cuts && !isOneAxis;
  if (!isSlope)
    rooms.push([
      "insertChipped",
      (position) =>
        (cuts ? 0 : SURVIVES_MM) + metalRoomMm(state, position, cuts ? { along, deepestMm: deepestMm(state) } : null),
    ]);
  const lengthMm = Math.hypot(toMm(to.x - from.x, state.scale) / 2, toMm(to.z - from.z, state.scale));
  const met = rooms.flatMap(([code, roomMm]) => {
    // a tip that stands pressed into something may leave it, and comes no deeper
    const pressedMm = Math.max(0, -roomMm(from));
    const share = advance(lengthMm, (part) => roomMm(at(part)) + pressedMm);
    return share === null ? [] : [{ code, share }];
  });
  const first = met.sort((a, b) => a.share - b.share)[0];
  const upTo = first?.share ?? 1;
  const slope = isSlope ? cutAslant(draft, (share) => at(share * upTo), lengthMm * upTo, deepestMm(state)) : null;
  draft.emit({ type: "moved", to: slope?.end ?? (first ? at(first.share) : to), ...how });
  for (const fact of slope?.facts ?? []) draft.emit(fact);
  const struck = slope?.isBroken ? "insertChipped" : first?.code;
  if (struck) {
    draft.emit({
      type: "incidentHappened",
      code: struck,
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
    });
    return null;
  }
  if (draft.state.lathe.isResting) draft.emit({ type: "metalLeft" });
  if (draft.state.lathe.arm.isTripped) draft.emit({ type: "armLeft" });
  if (slope || depthMm(draft.state) === 0) return null;
  if (draft.state.spindle.isOn) emitCut(draft, along, FINE_MM);
  else draft.emit({ type: "metalTouched", on: metOn(draft.state, along), at: draft.state.position, clickMm: FINE_MM });
  return null;
}

/** The reference return: up first, away from everything, then home. */
export function referenceReturn(draft: LatheDraft): Decision {
  const { state } = draft;
  if (state.lathe.block) return refuse({ code: "blockInGap" });
  if (state.lathe.gap) return refuse({ code: "paperInGap" });
  if (state.position.z !== 0) draft.emit({ type: "moved", to: { ...state.position, z: 0 }, isRapid: true });
  draft.emit({ type: "homed" });
  return accept(draft.events);
}
