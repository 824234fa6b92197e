import type { SetupTask } from "../exercises";
import { drawOwnKickMm, drawTry, feelAt, goesUnder, isFelt, toolNumber, type Thing } from "../instruments";
import { drawBetween } from "../random";
import { accept, refuse, type Result } from "../result";
import { toMm } from "../units";
import { jogMm, type CommandOf } from "./commands";
import { Draft } from "./draft";
import type { LaneEvent } from "./events";
import { seenRoomMm, seenScene, surfaceBelow } from "./eye";
import type { Refusal } from "./refusals";
import { gapOverMm, senseInPlace } from "./sensing";
import { trueScene } from "./solids";
import type { LaneState } from "./state";

type Decision = Result<LaneEvent[], Refusal>;

/** The command needs hands in the machine: door open, spindle still. */
function reachIn(state: LaneState): Refusal | null {
  if (!state.isDoorOpen) return { code: "doorShutReach" };
  return state.spindle.isOn ? { code: "spindleTurning" } : null;
}

const inGap = (state: LaneState): Refusal | null => {
  if (state.paper) return { code: "paperInPlace" };
  return state.block ? { code: "blockInGap" } : null;
};
const ROOM_TO_LOAD_MM = 5;

const isBroken = (state: LaneState, thing: Thing): boolean => {
  if (thing === "taster") return state.taster.isBroken;
  return thing === "probe" ? state.probe.isBroken : thing === "indicator" && state.harm.isIndicatorBroken;
};

/** Dirt in the taper holds a tool lower until the taper is wiped, mm. */
export const seatNowMm = (state: LaneState): number =>
  state.tasksDone.includes("wipeTaper") ? 0 : state.truth.taperDirtMm;

export function load(state: LaneState, thing: Thing): Decision {
  const problem = reachIn(state) ?? inGap(state);
  if (problem) return refuse(problem);
  const number = toolNumber(thing);
  const isHere =
    number === null
      ? state.setup.instruments.some((name) => name === thing)
      : state.setup.tools.some((tool) => tool.number === number);
  if (!isHere)
    return refuse(
      number === null ? { code: "instrumentNotHere", instrument: thing } : { code: "toolNotHere", tool: number },
    );
  if (state.holds !== null) return refuse({ code: "spindleHolds", thing: state.holds });
  if (seenRoomMm(state, thing) < ROOM_TO_LOAD_MM) return refuse({ code: "noRoomToLoad" });
  const draft = new Draft(state);
  if (thing === "edgeFinder" && state.finder.condition === "broken") {
    const copy = state.finder.copy + 1;
    draft.emit({ type: "finderReplaced", copy, ownKickMm: drawOwnKickMm(state.truth.seed, copy) });
  }
  if (isBroken(state, thing)) draft.emit({ type: "instrumentReplaced", thing });
  draft.emit({ type: "loaded", thing, seatMm: seatNowMm(state) });
  return accept(draft.events);
}

export function unload(state: LaneState): Decision {
  const problem = reachIn(state) ?? (state.holds === null ? ({ code: "spindleEmpty" } as const) : inGap(state));
  return problem ? refuse(problem) : accept([{ type: "unloaded" }]);
}

export function setWobbling(state: LaneState): Decision {
  if (state.holds !== "edgeFinder") return refuse({ code: "noEdgeFinder" });
  if (state.finder.condition === "broken") return refuse({ code: "finderDestroyed" });
  if (state.finder.tip === "aside" && state.finder.approach !== null) return refuse({ code: "notWithdrawn" });
  const draft = new Draft(state);
  draft.emit({ type: "setWobbling" });
  return accept(senseInPlace(draft));
}

/** The taster's ball is set true to the spindle with its screws; only free of everything, by hand. */
export function trueTaster(state: LaneState): Decision {
  if (state.holds !== "taster") return refuse({ code: "notHeld", thing: "taster" });
  if (state.taster.isBroken) return refuse({ code: "instrumentBroken", thing: "taster" });
  const problem = reachIn(state) ?? (state.taster.touch ? ({ code: "tasterTouches" } as const) : null);
  return problem ? refuse(problem) : accept([{ type: "tasterTrued" }]);
}

export function turnSpindle(state: LaneState): Decision {
  const problem = reachIn(state);
  return problem ? refuse(problem) : accept([{ type: "spindleTurned", quarter: (state.carried.quarter + 1) % 4 }]);
}

const needsSolidTip = ({ holds }: LaneState): boolean =>
  holds !== "edgeFinder" && holds !== "taster" && holds !== "probe" && holds !== "indicator";

/** Paper or a feeler laid under the tip, or under the bare nose. */
export function placePaper(state: LaneState, id: string): Decision {
  const problem = inGap(state);
  if (problem) return refuse(problem);
  if (!needsSolidTip(state)) return refuse({ code: "paperNeedsTool" });
  const sheet = state.setup.gaps.find((gap) => gap.id === id);
  if (!sheet || !isFelt(sheet.kind)) return refuse({ code: "gapThingNotHere", id });
  if (!state.isDoorOpen) return refuse({ code: "doorShutReach" });
  const on = surfaceBelow(state, "lampGauge");
  if (!on) return refuse({ code: "paperNothingBelow" });
  if (state.spindle.isOn) {
    return accept([
      {
        type: "incidentHappened",
        code: "paperUnderTurningTool",
        isSilent: false,
        failsOutright: true,
        stopsMachine: false,
        on,
      },
    ]);
  }
  const feel = feelAt(gapOverMm(state, on), state.truth.gapsMm[id] ?? sheet.nominalMm);
  return feel === "slides" ? accept([{ type: "paperPlaced", on, feel, id }]) : refuse({ code: "paperDoesNotGoUnder" });
}

export function feelPaper(state: LaneState): Decision {
  const { paper, position, truth } = state;
  if (!paper) return refuse({ code: "paperNotPlaced" });
  const feel = feelAt(gapOverMm(state, paper.on), truth.gapsMm[paper.id] ?? 0.1);
  return accept([{ type: "paperFelt", on: paper.on, feel, machineZ: position.z, clickMm: 0 }]);
}

export function pullPaper(state: LaneState): Decision {
  if (!state.paper) return refuse({ code: "paperNotPlaced" });
  const pulled: LaneEvent = { type: "paperPulled" };
  if (state.paper.feel !== "pinched") return accept([pulled]);
  return accept([
    {
      type: "incidentHappened",
      code: "paperTorn",
      isSilent: false,
      failsOutright: false,
      stopsMachine: false,
      on: state.paper.on,
    },
    pulled,
  ]);
}

/**
 * A block or pin tried in the gap as it is now. The gap counts as opened when the try before, lower down, did not go.
 */
export function tryBlock(state: LaneState, id: string): Decision {
  const block = state.setup.gaps.find((gap) => gap.id === id);
  if (!block || isFelt(block.kind)) return refuse({ code: "gapThingNotHere", id });
  const problem = inGap(state) ?? reachIn(state);
  if (problem) return refuse(problem);
  if (!needsSolidTip(state)) return refuse({ code: "paperNeedsTool" });
  const on = surfaceBelow(state, "lampGauge");
  if (!on) return refuse({ code: "paperNothingBelow" });
  const number = state.blocks.tries + 1;
  const dirtMm = state.blocks.areWiped ? 0 : state.truth.dirtMm;
  const goes = goesUnder(
    gapOverMm(state, on),
    state.truth.gapsMm[id] ?? block.nominalMm,
    drawTry(state.truth.seed, number),
    dirtMm,
  );
  const {
    position,
    blocks: { last: lastTry },
  } = state;
  const isOpened = goes && lastTry !== null && lastTry.id === id && !lastTry.goes && lastTry.machineZ < position.z;
  const clickMm = isOpened ? toMm(position.z - lastTry.machineZ, state.scale) : jogMm(state.setup.unit, "rapid");
  return accept([{ type: "blockTried", id, on, goes, machineZ: position.z, number, dirtMm, clickMm, isOpened }]);
}

export const pullBlock = (state: LaneState): Decision =>
  state.block ? accept([{ type: "blockPulled" }]) : refuse({ code: "blockNotInGap" });

/** The height gauge is stood under the spindle, on whatever is there. */
export function standLamp(state: LaneState): Decision {
  if (!state.setup.instruments.includes("lampGauge"))
    return refuse({ code: "instrumentNotHere", instrument: "lampGauge" });
  if (state.seat.lamp) return refuse({ code: "lampStandsAlready" });
  const problem = reachIn(state);
  if (problem) return refuse(problem);
  const on = surfaceBelow(state);
  if (!on || on === "setter") return refuse({ code: "paperNothingBelow" });
  const seenTop = seenScene(state)[on]?.highZ ?? 0;
  const roomMm = seenRoomMm(state, state.holds);
  if (roomMm < state.setup.lampGaugeMm + 1 && Number.isFinite(seenTop))
    return refuse({ code: "noRoomForGauge", heightMm: state.setup.lampGaugeMm });
  return accept([
    {
      type: "lampStood",
      on,
      x: toMm(state.position.x, state.scale),
      y: toMm(state.position.y, state.scale),
      footMm: trueScene(state)[on]?.highZ ?? 0,
    },
  ]);
}

export function takeLamp(state: LaneState): Decision {
  if (!state.seat.lamp) return refuse({ code: "lampNotStanding" });
  const problem = reachIn(state) ?? (state.lamp.touch ? ({ code: "lampPressed" } as const) : null);
  return problem ? refuse(problem) : accept([{ type: "lampTaken" }]);
}

export function blowTip(state: LaneState): Decision {
  if (state.holds === null) return refuse({ code: "spindleEmpty" });
  const problem = reachIn(state);
  return problem ? refuse(problem) : accept([{ type: "tipBlown", thing: state.holds }]);
}

/** Room that a hand with a file or a hammer wants between tip and part, mm. */
const ROOM_FOR_A_HAND_MM = 30;
const roomForHand = (state: LaneState): Refusal | null =>
  seenRoomMm(state, state.holds) < ROOM_FOR_A_HAND_MM ? { code: "spindleInTheWay" } : null;

export function dressBurr(state: LaneState): Decision {
  if (state.isBurrDressed) return refuse({ code: "burrDressedAlready" });
  const problem = reachIn(state) ?? roomForHand(state);
  return problem ? refuse(problem) : accept([{ type: "burrDressed" }]);
}

const NEEDS_HANDS: Record<SetupTask, boolean> = {
  releaseStop: false,
  lowRapid: false,
  wipeTaper: true,
  seatOnParallels: true,
  pushToStop: true,
  tapDown: true,
  dressBurr: true,
  sweepJaw: true,
};

/** Something that gets machine, vise or blank ready. Order matters: what lies on dirt is not seated by tapping. */
export function doTask(state: LaneState, task: SetupTask): Decision {
  if (task === "dressBurr") return dressBurr(state);
  if (!state.setup.tasks.includes(task)) return refuse({ code: "taskNotHere" });
  if (state.tasksDone.includes(task)) return refuse({ code: "taskDoneAlready" });
  if (NEEDS_HANDS[task]) {
    const problem = reachIn(state) ?? (task === "wipeTaper" ? null : roomForHand(state));
    if (problem) return refuse(problem);
  }
  if (task === "wipeTaper" && state.holds !== null) return refuse({ code: "spindleHolds", thing: state.holds });
  if (task === "sweepJaw" && state.holds !== "indicator") return refuse({ code: "notHeld", thing: "indicator" });
  if (
    task === "tapDown" &&
    state.setup.tasks.includes("seatOnParallels") &&
    !state.tasksDone.includes("seatOnParallels")
  )
    return refuse({ code: "seatFirst" });
  return accept([{ type: "taskDone", task }]);
}

/**
 * A tap with the hammer turns the blank about its corner, by a share that nobody knows beforehand, and moves it a
 * little.
 */
export function tapPart(state: LaneState, { direction, strength }: CommandOf<"tapPart">): Decision {
  if (state.setup.fixture.kind !== "plate") return refuse({ code: "partIsGripped" });
  const problem = reachIn(state) ?? roomForHand(state);
  if (problem) return refuse(problem);
  const { seat, truth } = state;
  const turn = state.desk.linesWritten + state.desk.readingsMade * 7 + Math.round(seat.skewDeg * 1e4);
  const range: [number, number] = strength === "hard" ? [0.12, 0.2] : [0.008, 0.016];
  const byDeg = drawBetween(...range, truth.seed, "tap", turn) * direction;
  const tidy = (mm: number) => Math.round(mm * 1e4) / 1e4 || 0;
  const along = (axis: "x" | "y") =>
    tidy(
      seat.shiftMm[axis] +
        drawBetween(-0.1, 0.1, truth.seed, "tap shift", axis, turn) * (strength === "hard" ? 1 : 0.2),
    );
  return accept([
    { type: "partTapped", skewDeg: tidy(seat.skewDeg + byDeg), shiftMm: { x: along("x"), y: along("y") } },
  ]);
}

/** Tools change places beside the machine, door open. */
export function swapPockets(state: LaneState, a: number, b: number): Decision {
  if (state.carried.pockets[a] === undefined || state.carried.pockets[b] === undefined || a === b)
    return refuse({ code: "toolNotHere", tool: state.carried.pockets[a] === undefined ? a : b });
  const problem = reachIn(state);
  return problem ? refuse(problem) : accept([{ type: "pocketsSwapped", a, b }]);
}
