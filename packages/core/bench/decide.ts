import type { Exercise } from "../exercises";
import { drawLane } from "../exercises";
import { drawOwnKickMm } from "../instruments";
import { accept, assertNever, refuse, type Result } from "../result";
import { runBlock } from "./block";
import { expectCheck, judgeCheck, lookCheck, standsOverZero } from "./checking";
import type { Command, CommandOf, Side } from "./commands";
import { askProbe } from "./cycles/probe";
import { askBeam, askPresetter, askSetter } from "./cycles/setters";
import { Draft } from "./draft";
import type { LaneEvent } from "./events";
import * as hands from "./hands";
import { measure, sweep } from "./measuring";
import { jog } from "./motion";
import { referenceReturn } from "./reference";
import type { Refusal } from "./refusals";
import { changeRegister, setCounter, takeInRegisters, writeLedger } from "./registerDesk";
import { runTurretBlock } from "./lathe/block";
import { decideLathe } from "./lathe/decide";
import { doorLimitRpm, speedProblem, startSpindle } from "./spindle";
import type { LaneState } from "./state";

type Decision = Result<LaneEvent[], Refusal>;

/** The first event of a lane: the sheet and the truth drawn for this seed, stored for good. */
export function openLane(exercise: Exercise, seed: string, isCoachOn: boolean): LaneEvent {
  return { type: "laneOpened", isCoachOn, ...drawLane(exercise, seed), finderOwnKickMm: drawOwnKickMm(seed, 1) };
}

const look = (state: LaneState, side: Side): LaneEvent[] => [
  { type: "lookedFrom", side, isOverZero: standsOverZero(state) },
];

/** The machine is held: its stop is still pressed from the shift before. */
const stopIsHeld = ({ setup, tasksDone }: LaneState): boolean =>
  setup.tasks.includes("releaseStop") && !tasksDone.includes("releaseStop");

function decideJog(state: LaneState, command: CommandOf<"jog">): Decision {
  const { axis, direction, clicks, size } = command;
  if (size === "rapid" && state.isDoorOpen) return refuse({ code: "doorOpenRapid" });
  const draft = new Draft(state);
  jog(draft, axis, direction, clicks, size);
  return draft.events.length === 0 ? refuse({ code: "pastTravel", axis }) : accept(draft.events);
}

/**
 * A cycle moves by itself: it wants a machine that knows where it is, nothing in the gap, and the instrument where it
 * belongs.
 */
function mayCycle(state: LaneState): Refusal | null {
  if (!state.isHomed) return { code: "notHomed" };
  if (state.isDoorOpen) return { code: "doorOpenMotion" };
  if (state.spindle.isOn) return { code: "spindleTurning" };
  if (state.block) return { code: "blockInGap" };
  return state.paper ? { code: "paperInGap" } : null;
}

function decideProbe(state: LaneState, command: CommandOf<"askProbe">): Decision {
  if (state.holds !== "probe") return refuse({ code: "notHeld", thing: "probe" });
  if (state.probe.isBroken) return refuse({ code: "instrumentBroken", thing: "probe" });
  const problem = mayCycle(state);
  return problem ? refuse(problem) : askProbe(new Draft(state), command);
}

function decideSetter(state: LaneState, command: CommandOf<"askSetter" | "askBeam">): Decision {
  const instrument = command.type === "askSetter" ? "plungerSetter" : "beamSetter";
  if (!state.setup.instruments.includes(instrument)) return refuse({ code: "instrumentNotHere", instrument });
  const problem = mayCycle(state);
  if (problem) return refuse(problem);
  return command.type === "askSetter" ? askSetter(new Draft(state), command) : askBeam(new Draft(state), command);
}

/** Commands that stay possible while the machine is stopped after a strike. */
const WHILE_STOPPED = new Set<Command["type"]>([
  "reset",
  "raiseHand",
  "lowerHand",
  "lookFrom",
  "setDoor",
  "handIn",
  "takeReading",
  "writeTerm",
  "writeSum",
  "strikeLine",
  "unload",
  "judgeCheck",
  "judgeSetup",
]);
/** What only a mill has, and what only a lathe has. */
const NOT_ON_LATHE = new Set<Command["type"]>([
  "load",
  "unload",
  "swapPockets",
  "setWobbling",
  "trueTaster",
  "turnSpindle",
  "placePaper",
  "feelPaper",
  "pullPaper",
  "tryBlock",
  "pullBlock",
  "standLamp",
  "takeLamp",
  "blowTip",
  "askProbe",
  "askSetter",
  "askBeam",
  "askPresetter",
  "measure",
  "dressBurr",
  "tapPart",
  "doTask",
]);
const ONLY_ON_LATHE = new Set<Command["type"]>([
  "index",
  "placeGap",
  "tryGap",
  "pullGap",
  "swingArm",
  "turnChuck",
  "measureTurned",
  "shimTool",
  "recall",
  "sightEdge",
  "changeTool",
  "loosenTool",
  "slideTool",
  "tightenTool",
  "turnFeed",
  "runCone",
  "switchOff",
  "stateFit",
  "tryStack",
  "zeroGauge",
  "readGauge",
  "stateHeight",
]);
/** What a hand-wound lathe has not: it does not know where it is, and nothing but hands moves it. */
const NOT_BY_HAND = new Set<Command["type"]>(["home", "runBlock"]);
/** Commands that need a machine that knows where it is. */
const NEEDS_HOME = new Set<Command["type"]>(["captureRegister", "takeReading"]);
/** Commands that move or turn something under power. */
const NEEDS_POWER = new Set<Command["type"]>([
  "home",
  "jog",
  "runBlock",
  "startSpindle",
  "askProbe",
  "askSetter",
  "askBeam",
]);

/**
 * What a command leads to: facts, or one refusal that says why and gives away nothing that could not be observed.
 * A refused command changes nothing.
 */
export function decide(state: LaneState, command: Command): Decision {
  if (state.isHandedIn) return refuse({ code: "handedInAlready" });
  if (state.isStopped && !WHILE_STOPPED.has(command.type)) return refuse({ code: "machineStopped" });
  if (stopIsHeld(state) && NEEDS_POWER.has(command.type)) return refuse({ code: "stopIsHeld" });
  if (!state.isHomed && NEEDS_HOME.has(command.type)) return refuse({ code: "notHomed" });
  if (state.lathe ? NOT_ON_LATHE.has(command.type) : ONLY_ON_LATHE.has(command.type))
    return refuse({ code: "notOnThisMachine" });
  if (state.setup.lathe?.control === "readout" && NOT_BY_HAND.has(command.type))
    return refuse({ code: "notOnThisMachine" });
  switch (command.type) {
    case "index":
    case "placeGap":
    case "tryGap":
    case "pullGap":
    case "swingArm":
    case "turnChuck":
    case "measureTurned":
    case "shimTool":
    case "recall":
    case "sightEdge":
    case "changeTool":
    case "loosenTool":
    case "slideTool":
    case "tightenTool":
    case "turnFeed":
    case "runCone":
    case "switchOff":
    case "stateFit":
    case "tryStack":
    case "zeroGauge":
    case "readGauge":
    case "stateHeight":
      return decideLathe(state, command);
    case "home":
      return referenceReturn(state);
    case "doTask":
      return hands.doTask(state, command.task);
    case "jog":
      return state.lathe ? decideLathe(state, command) : decideJog(state, command);
    case "load":
      return hands.load(state, command.thing);
    case "unload":
      return hands.unload(state);
    case "swapPockets":
      return hands.swapPockets(state, command.a, command.b);
    case "startSpindle": {
      const rpm = command.rpm ?? state.rememberedRpm;
      const problem = speedProblem(state, rpm);
      if (problem) return refuse(problem);
      const draft = new Draft(state);
      startSpindle(draft, command.direction, rpm, command.rpm !== undefined);
      return accept(draft.events);
    }
    case "stopSpindle":
      return accept([{ type: "spindleStopped" }]);
    case "setDoor":
      return command.isOpen && state.spindle.isOn && state.spindle.rpm > doorLimitRpm(state)
        ? refuse({ code: "doorOpenSpeed", rpm: state.spindle.rpm, limitRpm: doorLimitRpm(state) })
        : accept([{ type: "doorSet", isOpen: command.isOpen }]);
    case "lookFrom":
      return accept(look(state, command.side));
    case "setWobbling":
      return hands.setWobbling(state);
    case "trueTaster":
      return hands.trueTaster(state);
    case "turnSpindle":
      return hands.turnSpindle(state);
    case "placePaper":
      return hands.placePaper(state, command.id ?? "paper");
    case "feelPaper":
      return hands.feelPaper(state);
    case "pullPaper":
      return hands.pullPaper(state);
    case "tryBlock":
      return hands.tryBlock(state, command.id);
    case "pullBlock":
      return hands.pullBlock(state);
    case "wipeBlocks":
      return accept([{ type: "blocksWiped" }]);
    case "standLamp":
      return hands.standLamp(state);
    case "takeLamp":
      return hands.takeLamp(state);
    case "blowTip":
      return hands.blowTip(state);
    case "askProbe":
      return decideProbe(state, command);
    case "askSetter":
    case "askBeam":
      return decideSetter(state, command);
    case "askPresetter":
      return state.setup.instruments.includes("presetter")
        ? askPresetter(state, command.tool)
        : refuse({ code: "instrumentNotHere", instrument: "presetter" });
    case "sweep":
      return state.lathe ? decideLathe(state, command) : sweep(state);
    case "measure":
      return measure(state, command);
    case "dressBurr":
      return hands.dressBurr(state);
    case "tapPart":
      return hands.tapPart(state, command);
    case "zeroCounter":
      return setCounter(state, command);
    case "captureRegister":
    case "typeRegister":
    case "undoRegister":
      return changeRegister(state, command);
    case "takeInRegisters":
      return takeInRegisters(state, command);
    case "takeReading":
    case "writeTerm":
    case "writeSum":
    case "strikeLine":
      return writeLedger(state, command);
    case "runBlock":
      return state.lathe ? runTurretBlock(state, command.text) : runBlock(state, command.text);
    case "reset":
      return accept(reset(state));
    case "expectCheck":
      return expectCheck(state, command);
    case "lookCheck":
      return lookCheck(state);
    case "judgeCheck":
      return judgeCheck(state, command.isAsExpected);
    case "judgeSetup":
      return state.setup.handover
        ? accept([{ type: "setupJudged", isSound: command.isSound }])
        : refuse({ code: "nothingHandedOver" });
    case "raiseHand":
      return state.isHandUp ? refuse({ code: "handUpAlready" }) : accept([{ type: "handRaised" }]);
    case "lowerHand":
      return state.isHandUp ? accept([{ type: "handLowered" }]) : refuse({ code: "handNotUp" });
    case "handIn": {
      const { school } = command;
      if (school !== undefined && !state.setup.lengthSchools.includes(school)) return refuse({ code: "schoolNotHere" });
      return accept([{ type: "handedIn", ...(school === undefined ? {} : { school }) }]);
    }
    default:
      return assertNever(command, "decide");
  }
}

/** A reset stops everything, and drops the active length where the machine's setting says so. */
function reset(state: LaneState): LaneEvent[] {
  const events: LaneEvent[] = [{ type: "machineReset" }];
  if (state.spindle.isOn) events.push({ type: "spindleStopped" });
  if (state.lathe && state.lathe.row !== null && state.setup.settings.resetDropsLength)
    events.push({ type: "turretIndexed", station: state.lathe.station, row: null });
  if (state.modal.lengthRow !== null && state.setup.settings.resetDropsLength)
    events.push({ type: "modalChanged", lengthRow: null, calledLength: null });
  return events;
}
