import type { Exercise } from "../exercises";
import { drawLane } from "../exercises";
import { drawOwnKickMm, feelAt, type Thing } from "../instruments";
import { displayCounts } from "../registers";
import { accept, assertNever, refuse, type Result } from "../result";
import { runBlock } from "./block";
import type { Command, Side } from "./commands";
import { Draft } from "./draft";
import type { LaneEvent } from "./events";
import { seenRoomMm, surfaceBelow } from "./eye";
import { bench } from "./machine";
import { gapOverMm, isInTravel, jog, senseInPlace } from "./motion";
import type { Refusal } from "./refusals";
import { changeRegister, writeLedger } from "./registerDesk";
import { speedProblem, startSpindle } from "./spindle";
import type { LaneState } from "./state";

type Decision = Result<LaneEvent[], Refusal>;

/** The first event of a lane: the sheet and the truth drawn for this seed, stored for good. */
export function openLane(exercise: Exercise, seed: string, isCoachOn: boolean): LaneEvent {
  return { type: "laneOpened", isCoachOn, ...drawLane(exercise, seed), finderOwnKickMm: drawOwnKickMm(seed, 1) };
}

/** The command needs hands in the machine: door open, spindle still. */
function reachIn(state: LaneState): Refusal | null {
  if (!state.isDoorOpen) return { code: "doorShutReach" };
  return state.spindle.isOn ? { code: "spindleTurning" } : null;
}

const ROOM_TO_LOAD_MM = 5;

function load(state: LaneState, thing: Thing): Decision {
  const problem = reachIn(state) ?? (state.paper ? { code: "paperInPlace" as const } : null);
  if (problem) return refuse(problem);
  if (state.holds !== null) return refuse({ code: "spindleHolds", thing: state.holds });
  if (seenRoomMm(state, thing) < ROOM_TO_LOAD_MM) return refuse({ code: "noRoomToLoad" });
  const draft = new Draft(state);
  if (thing === "edgeFinder" && state.finder.condition === "broken") {
    const copy = state.finder.copy + 1;
    draft.emit({ type: "finderReplaced", copy, ownKickMm: drawOwnKickMm(state.truth.seed, copy) });
  }
  draft.emit({ type: "loaded", thing });
  return accept(draft.events);
}

/** Well above the part, by eye, mm. */
const WELL_ABOVE_MM = 10;
/** Over zero, by the display, counts. */
const OVER_ZERO_COUNTS = 10;

function standsOverZero(state: LaneState): boolean {
  const { registers, position, modal } = state;
  const display = displayCounts(registers, position, modal.workOffset, null);
  return state.holds === "pointedTool" && Math.abs(display.x) <= OVER_ZERO_COUNTS && Math.abs(display.y) <= OVER_ZERO_COUNTS &&
    seenRoomMm(state, "pointedTool") >= WELL_ABOVE_MM;
}

const look = (state: LaneState, side: Side): LaneEvent[] => [{ type: "lookedFrom", side, isOverZero: standsOverZero(state) }];

function setWobbling(state: LaneState): Decision {
  if (state.holds !== "edgeFinder") return refuse({ code: "noEdgeFinder" });
  if (state.finder.condition === "broken") return refuse({ code: "finderDestroyed" });
  if (state.finder.tip === "aside" && state.finder.approach !== null) return refuse({ code: "notWithdrawn" });
  const draft = new Draft(state);
  draft.emit({ type: "setWobbling" });
  return accept(senseInPlace(draft));
}

function placePaper(state: LaneState): Decision {
  if (state.paper) return refuse({ code: "paperInPlace" });
  if (state.holds === null || state.holds === "edgeFinder") return refuse({ code: "paperNeedsTool" });
  if (!state.isDoorOpen) return refuse({ code: "doorShutReach" });
  const on = surfaceBelow(state);
  if (!on) return refuse({ code: "paperNothingBelow" });
  if (state.spindle.isOn) {
    return accept([{
      type: "incidentHappened", code: "paperUnderTurningTool", isSilent: false, failsOutright: true, stopsMachine: false, on,
    }]);
  }
  const feel = feelAt(gapOverMm(state, on), state.truth.sheetMm);
  return feel === "slides" ? accept([{ type: "paperPlaced", on, feel }]) : refuse({ code: "paperDoesNotGoUnder" });
}

function feelPaper(state: LaneState): Decision {
  const { paper, position, truth } = state;
  if (!paper) return refuse({ code: "paperNotPlaced" });
  const feel = feelAt(gapOverMm(state, paper.on), truth.sheetMm);
  return accept([{ type: "paperFelt", on: paper.on, feel, machineZ: position.z, clickMm: 0 }]);
}

function pullPaper(state: LaneState): Decision {
  if (!state.paper) return refuse({ code: "paperNotPlaced" });
  const pulled: LaneEvent = { type: "paperPulled" };
  if (state.paper.feel !== "pinched") return accept([pulled]);
  return accept([
    { type: "incidentHappened", code: "paperTorn", isSilent: false, failsOutright: false, stopsMachine: false, on: state.paper.on },
    pulled,
  ]);
}

/** Room that a hand with a file wants between tip and part, mm. */
const ROOM_FOR_A_FILE_MM = 30;

function dressBurr(state: LaneState): Decision {
  if (state.isBurrDressed) return refuse({ code: "burrDressedAlready" });
  const problem = reachIn(state);
  if (problem) return refuse(problem);
  return seenRoomMm(state, state.holds) < ROOM_FOR_A_FILE_MM ? refuse({ code: "spindleInTheWay" }) : accept([{ type: "burrDressed" }]);
}

function decideJog(state: LaneState, command: Extract<Command, { type: "jog" }>): Decision {
  const { axis, direction, clicks, size } = command;
  if (size === "rapid" && state.isDoorOpen) return refuse({ code: "doorOpenRapid" });
  const draft = new Draft(state);
  jog(draft, axis, direction, clicks, size);
  return draft.events.length === 0 ? refuse({ code: "pastTravel", axis }) : accept(draft.events);
}

function home(state: LaneState): Decision {
  if (state.paper) return refuse({ code: "paperInGap" });
  const up = { ...state.position, z: 0 };
  const draft = new Draft(state);
  if (state.position.z !== 0 && isInTravel("z", 0)) draft.emit({ type: "moved", to: up, isRapid: true });
  if (draft.state.finder.approach !== null) draft.emit({ type: "approachEnded" });
  if (draft.state.resting) draft.emit({ type: "leftHard" });
  draft.emit({ type: "homed" });
  return accept(draft.events);
}

/** Commands that stay possible while the machine is stopped after a strike. */
const WHILE_STOPPED = new Set<Command["type"]>([
  "reset", "raiseHand", "lowerHand", "lookFrom", "setDoor", "handIn", "takeReading", "writeTerm", "writeSum", "strikeLine", "unload",
]);
/** Commands that need a machine that knows where it is. */
const NEEDS_HOME = new Set<Command["type"]>(["captureRegister", "takeReading"]);

/**
 * What a command leads to: facts, or one refusal that says why and gives away nothing that could not be observed.
 * A refused command changes nothing.
 */
export function decide(state: LaneState, command: Command): Decision {
  if (state.isHandedIn) return refuse({ code: "handedInAlready" });
  if (state.isStopped && !WHILE_STOPPED.has(command.type)) return refuse({ code: "machineStopped" });
  if (!state.isHomed && NEEDS_HOME.has(command.type)) return refuse({ code: "notHomed" });
  switch (command.type) {
    case "home": return home(state);
    case "jog": return decideJog(state, command);
    case "load": return load(state, command.thing);
    case "unload": {
      const problem = reachIn(state) ?? (state.holds === null ? { code: "spindleEmpty" as const } : state.paper ? { code: "paperInPlace" as const } : null);
      return problem ? refuse(problem) : accept([{ type: "unloaded" }]);
    }
    case "startSpindle": {
      const rpm = command.rpm ?? state.rememberedRpm;
      const problem = speedProblem(state, rpm);
      if (problem) return refuse(problem);
      const draft = new Draft(state);
      startSpindle(draft, command.direction, rpm, command.rpm !== undefined);
      return accept(draft.events);
    }
    case "stopSpindle": return accept([{ type: "spindleStopped" }]);
    case "setDoor":
      return command.isOpen && state.spindle.isOn && state.spindle.rpm > bench.doorLimitRpm
        ? refuse({ code: "doorOpenSpeed", rpm: state.spindle.rpm, limitRpm: bench.doorLimitRpm })
        : accept([{ type: "doorSet", isOpen: command.isOpen }]);
    case "lookFrom": return accept(look(state, command.side));
    case "setWobbling": return setWobbling(state);
    case "placePaper": return placePaper(state);
    case "feelPaper": return feelPaper(state);
    case "pullPaper": return pullPaper(state);
    case "dressBurr": return dressBurr(state);
    case "zeroCounter": return accept([{ type: "counterZeroed", axis: command.axis, at: state.position[command.axis] }]);
    case "captureRegister":
    case "typeRegister":
    case "undoRegister": return changeRegister(state, command);
    case "takeReading":
    case "writeTerm":
    case "writeSum":
    case "strikeLine": return writeLedger(state, command);
    case "runBlock": return runBlock(state, command.text);
    case "reset": return accept(reset(state));
    case "raiseHand": return state.isHandUp ? refuse({ code: "handUpAlready" }) : accept([{ type: "handRaised" }]);
    case "lowerHand": return state.isHandUp ? accept([{ type: "handLowered" }]) : refuse({ code: "handNotUp" });
    case "handIn": return accept([{ type: "handedIn" }]);
    default: return assertNever(command, "decide");
  }
}

/** A reset stops everything and drops the active length, as this machine's setting says. */
function reset(state: LaneState): LaneEvent[] {
  const events: LaneEvent[] = [{ type: "machineReset" }];
  if (state.spindle.isOn) events.push({ type: "spindleStopped" });
  if (state.modal.lengthRow !== null) events.push({ type: "modalChanged", lengthRow: null });
  return events;
}
