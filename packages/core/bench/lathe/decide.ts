import { drawTry, feelAt, goesUnder, isFelt, readByHand, sweepReadings, type Feel } from "../../instruments";
import { drawNormal } from "../../random";
import type { Axis, AxisCounts } from "../../registers";
import { accept, refuse, type Result } from "../../result";
import { parseLengthMm, toCounts, toMm } from "../../units";
import { jogClicks, jogMm, type CommandOf, type JogSize } from "../commands";
import { Draft } from "../draft";
import type { LaneEvent } from "../events";
import { isInTravel } from "../motion";
import type { Refusal } from "../refusals";
import type { LaneState } from "../state";
import {
  acrossMm,
  coneRoomMm,
  controlOf,
  cutHere,
  depthMm,
  depthOfCutMm,
  gapMm,
  heightNowMm,
  isInJaws,
  latheOf,
  pipHere,
  tipAt,
  toolAt,
  wouldCut,
} from "./contact";
import { seenGapMm, seenTip } from "./eye";
import { decideAxisHeight } from "./axisHeight";
import { runCone } from "./conePass";
import { decideGang, slideAcross } from "./gang";
import { mayReach } from "./hands";
import { decideReadout } from "./readout";
import { lastCut, material, stepAt } from "./outline";
import type { HeldFace } from "./state";

type Decision = Result<LaneEvent[], Refusal>;

/** Deepest cut that an insert takes, mm. */
const DEEPEST_MM = 3;
/** A tip that is pressed further than this into metal that stands still chips, mm. */
const SURVIVES_MM = 0.012;
/** Room for a hand with a micrometer, and for the turret to swing, by eye, mm. */
const ROOM_TO_MEASURE_MM = 15;
const ROOM_TO_INDEX_MM = 40;
/** Paper is brought under a tip that stands no further away than this, by eye, mm. */
const NEAR_MM = 4;
/** What a hand leaning on the post gives way by, mm. */
const LEAN_MM = { mean: 0.03, deviation: 0.006, least: 0.018 } as const;
/** The arm's sensor is a cube of this edge, mm. */
const ARM_CUBE_MM = 10;

const chip = (draft: Draft): void =>
  draft.emit({
    type: "incidentHappened",
    code: "insertChipped",
    isSilent: false,
    failsOutright: false,
    stopsMachine: true,
  });

/** A straight edge held on the face: light shows, none shows, then the tool pushes it away. */
function againstEdge(between: number): Feel {
  if (between > 0.002) return "slides";
  if (between > -0.012) return "drags";
  if (between > -0.03) return "held";
  return between > -0.06 ? "pinched" : "torn";
}

/** What the hands feel after a step with paper, a feeler or a straight edge in place; true when it changed. */
function senseGap(draft: Draft, clickMm: number): boolean {
  const { gap } = latheOf(draft.state);
  if (!gap) return false;
  const daylight = gapMm(draft.state, gap.on);
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
    code: "paperTorn",
    isSilent: false,
    failsOutright: false,
    stopsMachine: false,
  });
  draft.emit({ type: "turretGapPulled" });
  return true;
}

/**
 * Where the tip stands from the arm's sensor: the plane that it would meet moving this way, mm; null when it passes
 * beside it.
 */
function armGapMm(state: LaneState, axis: Axis): number | null {
  const arm = state.truth.lathe?.arm;
  if (!arm || !latheOf(state).arm.isDown) return null;
  const { radiusMm, zMm } = tipAt(state);
  const isBeside = (mm: number) => mm < 0 && mm > -ARM_CUBE_MM;
  if (axis === "x") return isBeside(zMm - arm.zMm) ? radiusMm - arm.xMm / 2 : null;
  return isBeside(radiusMm - arm.xMm / 2) ? zMm - arm.zMm : null;
}

/** The axis stops by itself where the arm is tripped; too fast for that, and the arm is struck. */
function tripArm(draft: Draft, axis: "x" | "z", direction: 1 | -1, size: JogSize): boolean {
  const past = armGapMm(draft.state, axis);
  if (past === null || past > 0 || direction === 1 || latheOf(draft.state).arm.isTripped) return false;
  if (size === "rapid" || size === "coarse") {
    draft.emit({
      type: "incidentHappened",
      code: "armStruck",
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
    });
    return true;
  }
  const { state } = draft;
  const number = latheOf(state).arm.trips + 1;
  const errorMm = Math.round(drawNormal(0, 0.002, state.truth.seed, "arm", number) * 1e5) / 1e5;
  const at: AxisCounts = {
    ...state.position,
    [axis]: toCounts(toMm(state.position[axis], state.scale) - (axis === "x" ? 2 : 1) * past + errorMm, state.scale),
  };
  draft.emit({ type: "moved", to: at, isRapid: false });
  draft.emit({ type: "armTripped", axis, at, number, errorMm });
  draft.emit({
    type: "readingShown",
    number: state.desk.readingsMade + 1,
    instrument: "setterArm",
    what: axis === "x" ? "armX" : "armZ",
    tool: latheOf(state).station,
    values: { [axis]: toMm(at[axis], state.scale) },
  });
  return true;
}

/** What a step that has just been made meets; true when the hands stop. */
function sense(draft: Draft, axis: "x" | "z", direction: 1 | -1, size: JogSize, clickMm: number): boolean {
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
  const lathe = latheOf(state);
  if (lathe.arm.isTripped && direction === 1) draft.emit({ type: "armLeft" });
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
      on:
        (coneRoomMm(state) ?? 1) < 0
          ? "cone"
          : axis === "z"
            ? "face"
            : toolAt(state).kind === "boring"
              ? "bore"
              : "diameter",
      at: state.position,
      clickMm,
    });
  return true;
}

/**
 * Clicks of a hand wheel. With the spindle running the tool cuts; standing still, what is in the way is met. X counts
 * diameters.
 */
function jog(state: LaneState, { axis, direction, clicks, size }: CommandOf<"jog">): Decision {
  if (axis === "y") return refuse({ code: "notOnThisMachine" });
  if (size === "rapid" && state.isDoorOpen) return refuse({ code: "doorOpenRapid" });
  const draft = new Draft(state);
  const clickMm = jogMm(state.setup.unit, size);
  const stepCounts = direction * jogClicks[state.setup.unit][size];
  let done = 0;
  let to = state.position;
  let isCutting = false;
  const flush = () => {
    if (done > 0) draft.emit({ type: "jogged", axis, size, direction, clicks: done, to });
    done = 0;
    if (isCutting) emitCut(draft, axis, clickMm);
    isCutting = false;
  };
  for (let click = 0; click < clicks; click++) {
    const next = { ...to, [axis]: to[axis] + stepCounts };
    if (!isInTravel(state, axis, next[axis])) break;
    to = next;
    done += 1;
    const trial = new Draft({ ...draft.state, position: to });
    const stops = sense(trial, axis, direction, size, clickMm);
    if (!stops && draft.state.spindle.isOn && depthMm(trial.state) > 0) {
      if (depthOfCutMm(trial.state, axis) > DEEPEST_MM || size === "rapid") {
        flush();
        chip(draft);
        return accept(draft.events);
      }
      isCutting = true;
    }
    if (trial.events.length === 0) continue;
    flush();
    for (const event of trial.events) draft.emit(event);
    if (stops) break;
  }
  flush();
  return draft.events.length === 0 ? refuse({ code: "pastTravel", axis }) : accept(draft.events);
}

function emitCut(draft: Draft, axis: "x" | "z", clickMm: number): void {
  const pip = pipHere(draft.state, axis);
  if (!wouldCut(draft.state, axis)) return;
  const number = latheOf(draft.state).cuts + 1;
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

/**
 * The turret swings another tool in, clear of part and chuck. `withOffset` calls its row as well, as a tool word does.
 */
export function index(state: LaneState, station: number, row: number | null): Decision {
  if (!state.setup.lathe?.tools.some(({ number }) => number === station))
    return refuse({ code: "toolNotHere", tool: station });
  const { gap, block, arm } = latheOf(state);
  if (gap) return refuse({ code: "paperInGap" });
  if (block) return refuse({ code: "blockInGap" });
  if (arm.isDown) return refuse({ code: "armIsDown" });
  if (latheOf(state).loose !== null) return refuse({ code: "clampLoose" });
  if (station !== latheOf(state).station) {
    const isByHand = controlOf(state) === "readout";
    const problem = isByHand ? mayReach(state) : null;
    if (problem) return refuse(problem);
    if (state.isDoorOpen && !isByHand) return refuse({ code: "doorOpenMotion" });
    if (controlOf(state) === "gang") return slideAcross(state, station, row);
    const { radiusMm, zMm, partRadiusMm, faceMm } = seenTip(state);
    if (zMm < faceMm + ROOM_TO_INDEX_MM && radiusMm < partRadiusMm + ROOM_TO_INDEX_MM)
      return refuse({ code: "noRoomToIndex" });
  }
  return accept([{ type: "turretIndexed", station, row: controlOf(state) === "readout" ? latheOf(state).row : row }]);
}

const thingOf = (state: LaneState, id: string) =>
  id === "straightEdge" && state.setup.instruments.includes("straightEdge")
    ? { id, kind: "paper" as const, nominalMm: 0 }
    : state.setup.gaps.find((gap) => gap.id === id && state.setup.instruments.includes(gap.kind));

/** Paper, a feeler or a straight edge between the tip and the part. */
function placeGap(state: LaneState, { id, on, hand }: CommandOf<"placeGap">): Decision {
  const problem =
    mayReach(state) ??
    (latheOf(state).gap
      ? ({ code: "paperInPlace" } as const)
      : latheOf(state).block
        ? ({ code: "blockInGap" } as const)
        : null);
  if (problem) return refuse(problem);
  const thing = thingOf(state, id);
  if (!thing || (id !== "straightEdge" && !isFelt(thing.kind)) || (id === "straightEdge" && on !== "face"))
    return refuse({ code: "gapThingNotHere", id });
  const far = farProblem(state, on);
  if (far) return refuse(far);
  if (hand === "post" && controlOf(state) !== "readout") return refuse({ code: "notOnThisMachine" });
  if (on === "face" && toolAt(state).kind === "threading" && controlOf(state) === "readout")
    return refuse({ code: "pointMeetsNoFace" });
  const between = gapMm(state, on) ?? Infinity;
  if (between < (state.truth.gapsMm[id] ?? 0)) return refuse({ code: "paperDoesNotGoUnder" });
  const leanMm =
    hand === "post"
      ? Math.round(
          Math.max(
            LEAN_MM.least,
            drawNormal(LEAN_MM.mean, LEAN_MM.deviation, state.truth.seed, "lean", latheOf(state).gapsPlaced),
          ) * 1e4,
        ) / 1e4
      : 0;
  return accept([{ type: "turretGapPlaced", id, on, feel: "slides", ...(leanMm === 0 ? {} : { leanMm }) }]);
}

function farProblem(state: LaneState, on: HeldFace): Refusal | null {
  const seen = seenGapMm(state, on);
  if (seen === null) return { code: "noSuchFaceHere", on };
  return seen > NEAR_MM + (on === "face" ? 30 : 0) ? { code: "tipTooFar" } : null;
}

/** A block or pin tried in the gap as it is now. */
function tryGap(state: LaneState, { id, on }: CommandOf<"tryGap">): Decision {
  const problem =
    mayReach(state) ??
    (latheOf(state).gap
      ? ({ code: "paperInPlace" } as const)
      : latheOf(state).block
        ? ({ code: "blockInGap" } as const)
        : null);
  if (problem) return refuse(problem);
  const thing = thingOf(state, id);
  if (!thing || isFelt(thing.kind)) return refuse({ code: "gapThingNotHere", id });
  const far = farProblem(state, on);
  if (far) return refuse(far);
  const number = latheOf(state).tries + 1;
  const dirtMm = state.blocks.areWiped ? 0 : state.truth.dirtMm;
  const goes = goesUnder(
    gapMm(state, on) ?? -1,
    state.truth.gapsMm[id] ?? thing.nominalMm,
    drawTry(state.truth.seed, number),
    dirtMm,
  );
  const before = latheOf(state).lastTry;
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

function pullGap(state: LaneState): Decision {
  const { gap, block } = latheOf(state);
  if (!gap && !block) return refuse({ code: "paperNotPlaced" });
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  return accept([{ type: "turretGapPulled" }]);
}

function swingArm(state: LaneState, isDown: boolean): Decision {
  if (!state.setup.lathe?.arm) return refuse({ code: "instrumentNotHere", instrument: "setterArm" });
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  const { radiusMm, zMm, partRadiusMm, faceMm } = seenTip(state);
  if (isDown && zMm < faceMm + ROOM_TO_INDEX_MM && radiusMm < partRadiusMm + ROOM_TO_INDEX_MM)
    return refuse({ code: "noRoomToIndex" });
  return accept([{ type: "armSwung", isDown }]);
}

/** A micrometer over a turned diameter or a bore gauge in it: a hand goes in where the chuck may still turn. */
function measureTurned(state: LaneState, command: CommandOf<"measureTurned">): Decision {
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
  const draft = new Draft(state);
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
  const lathe = latheOf(state);
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

/** A typed move in X and Z: at rapid nothing may be met; at feed, along one axis, the tool cuts. */
export function moveTurret(draft: Draft, to: AxisCounts, isRapid: boolean): Refusal | null {
  const from = draft.state.position;
  const SAMPLES = 400;
  const at = (share: number): AxisCounts => ({
    ...from,
    x: Math.round(from.x + (to.x - from.x) * share),
    z: Math.round(from.z + (to.z - from.z) * share),
  });
  const isMetAt = (position: AxisCounts) => depthMm({ ...draft.state, position }) > 0;
  const isOneAxis = from.x === to.x || from.z === to.z;
  let end = to;
  for (let n = 1; n <= SAMPLES; n++) {
    const position = at(n / SAMPLES);
    const trial = { ...draft.state, position };
    const isArm = latheOf(trial).arm.isDown && ((armGapMm(trial, "x") ?? 1) < 0 || (armGapMm(trial, "z") ?? 1) < 0);
    if (
      isInJaws(trial) ||
      isArm ||
      (isMetAt(position) &&
        (isRapid || !trial.spindle.isOn || depthOfCutMm(trial, from.x === to.x ? "z" : "x") > DEEPEST_MM))
    ) {
      end = position;
      draft.emit({ type: "moved", to: end, isRapid });
      draft.emit({
        type: "incidentHappened",
        code: isInJaws(trial) ? "jawStruck" : isArm ? "armStruck" : "insertChipped",
        isSilent: false,
        failsOutright: false,
        stopsMachine: true,
      });
      return null;
    }
    if (isMetAt(position) && !isOneAxis) return { code: "cutOneAxis" };
  }
  draft.emit({ type: "moved", to: end, isRapid });
  if (latheOf(draft.state).isResting) draft.emit({ type: "metalLeft" });
  if (latheOf(draft.state).arm.isTripped) draft.emit({ type: "armLeft" });
  if (draft.state.spindle.isOn && isMetAt(end)) emitCut(draft, from.x === to.x ? "z" : "x", 0.001);
  return null;
}

/** Shims come in this much at most, mm. */
const SHIMS_MM = 1;

/** Shims put under the holder in the working position, or taken out: it stands higher by the stated amount. */
function shimTool(state: LaneState, { text }: CommandOf<"shimTool">): Decision {
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  const { station } = latheOf(state);
  // a gang slide has a register for it
  if (controlOf(state) === "gang" || !state.setup.lathe?.targets.height.includes(station))
    return refuse({ code: "noShimsHere" });
  const read = parseLengthMm(text, state.setup.unit);
  if (!read.ok) return refuse({ code: "text", problem: read.error });
  if (Math.abs(read.value) > SHIMS_MM) return refuse({ code: "shimTooMuch", limitMm: SHIMS_MM });
  return accept([{ type: "toolShimmed", tool: station, byMm: read.value }]);
}

/** An indicator carried on the chuck droops: what it reads above and below carries this, mm. */
const SAG_MM = 0.018;
const SWEEP_REACH_MM = 60;

/** The indicator on the chuck carried round a shank by hand, chuck and all: at the back, above, in front, below. */
function sweepShank(state: LaneState): Decision {
  if (!state.setup.instruments.includes("indicator"))
    return refuse({ code: "instrumentNotHere", instrument: "indicator" });
  if (toolAt(state).kind !== "drill") return refuse({ code: "nothingToSweep" });
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  const seen = seenTip(state);
  if (Math.abs(seen.radiusMm) > 3 || seen.zMm - seen.faceMm > SWEEP_REACH_MM)
    return refuse({ code: "shankOutOfReach" });
  const { radiusMm } = tipAt(state);
  const number = state.desk.readingsMade + 1;
  // what the indicator goes round is a boss, and the axis that carries it is the chuck's
  const read = sweepReadings(
    [-radiusMm, -heightNowMm(state, latheOf(state).station)],
    "boss",
    state.truth.seed,
    number,
  );
  const values: Record<string, number> = read
    ? {
        at0: read[0],
        at90: Math.round((read[1] + SAG_MM) * 1000) / 1000,
        at180: read[2],
        at270: Math.round((read[3] - SAG_MM) * 1000) / 1000,
      }
    : {};
  return accept([
    {
      type: "readingShown",
      number,
      instrument: "indicator",
      what: "shank",
      tool: latheOf(state).station,
      values,
      outcome: read ? "found" : "missed",
    },
  ]);
}

/** Off and on again: the machine forgets where it is, which row was called, and what was declared. */
function switchOff(state: LaneState): Decision {
  if (!state.setup.lathe?.start) return refuse({ code: "notOnThisMachine" });
  if (latheOf(state).gap) return refuse({ code: "paperInGap" });
  if (latheOf(state).block) return refuse({ code: "blockInGap" });
  const draft = new Draft(state);
  for (const axis of ["x", "z"] as const) {
    const from = state.registers.common[axis];
    if (from !== 0)
      draft.emit({
        type: "registerChanged",
        register: `common.${axis}`,
        from,
        to: 0,
        how: "cleared",
        machine: state.position,
      });
  }
  draft.emit({ type: "switchedOff" });
  return accept(draft.events);
}

type LatheCommand = CommandOf<
  | "jog"
  | "index"
  | "placeGap"
  | "tryGap"
  | "pullGap"
  | "swingArm"
  | "turnChuck"
  | "measureTurned"
  | "shimTool"
  | "sweep"
  | "recall"
  | "sightEdge"
  | "changeTool"
  | "loosenTool"
  | "slideTool"
  | "tightenTool"
  | "turnFeed"
  | "runCone"
  | "switchOff"
  | "stateFit"
  | "tryStack"
  | "zeroGauge"
  | "readGauge"
  | "stateHeight"
>;

export function decideLathe(state: LaneState, command: LatheCommand): Decision {
  switch (command.type) {
    case "jog":
      return jog(state, command);
    case "index":
      return index(state, command.station, command.withOffset ? command.station : null);
    case "recall":
    case "sightEdge":
      return decideReadout(state, command);
    case "changeTool":
    case "loosenTool":
    case "slideTool":
    case "tightenTool":
    case "turnFeed":
      return decideGang(state, command);
    case "runCone":
      return runCone(state, command.isHeld);
    case "switchOff":
      return switchOff(state);
    case "tryStack":
    case "zeroGauge":
    case "readGauge":
    case "stateHeight":
      return decideAxisHeight(state, command);
    case "stateFit":
      return state.setup.lathe?.targets.fit?.includes(command.tool)
        ? accept([{ type: "fitStated", tool: command.tool, fits: command.fits }])
        : refuse({ code: "toolNotHere", tool: command.tool });
    case "placeGap":
      return placeGap(state, command);
    case "tryGap":
      return tryGap(state, command);
    case "pullGap":
      return pullGap(state);
    case "swingArm":
      return swingArm(state, command.isDown);
    case "turnChuck": {
      const problem = mayReach(state) ?? (latheOf(state).gap ? ({ code: "paperInPlace" } as const) : null);
      return problem ? refuse(problem) : accept([{ type: "chuckTurned", quarter: (latheOf(state).quarter + 1) % 4 }]);
    }
    case "measureTurned":
      return measureTurned(state, command);
    case "shimTool":
      return shimTool(state, command);
    case "sweep":
      return sweepShank(state);
  }
}
