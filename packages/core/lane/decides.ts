import { schoolsOf } from "../exercises/setup";
import { accept, refuse } from "../result";
import type { Decides } from "../machines/act";
import type { Command } from "../machines/commands";
import type { LaneEvent } from "../machines/events";
import { expectCheck, judgeCheck, lookCheck } from "./checks";
import { changeRegister, setCounter, takeInRegisters, writeLedger } from "./desk";
import type { LaneRules } from "./rules";
import { speedProblem, startSpindle } from "./spindle";
import type { LaneBase } from "./state";

/** Commands that every lane answers alike, by what its machine says of itself. */
type Shared = Extract<
  Command["type"],
  | "startSpindle"
  | "stopSpindle"
  | "setDoor"
  | "lookFrom"
  | "wipeBlocks"
  | "zeroCounter"
  | "captureRegister"
  | "typeRegister"
  | "takeInRegisters"
  | "undoRegister"
  | "reset"
  | "takeReading"
  | "writeTerm"
  | "writeSum"
  | "strikeLine"
  | "expectCheck"
  | "lookCheck"
  | "judgeCheck"
  | "judgeSetup"
  | "raiseHand"
  | "lowerHand"
  | "handIn"
>;

/** What every lane answers, for a machine with these rules. */
export function laneDecides<S extends LaneBase>(rules: LaneRules<S>): Decides<S, Shared> {
  return {
    startSpindle: (draft, { direction, rpm: stated }) => {
      const rpm = stated ?? draft.state.rememberedRpm;
      const problem = speedProblem(rules, draft.state, rpm);
      if (problem) return refuse(problem);
      startSpindle(rules, draft, { direction, rpm, isStated: stated !== undefined });
      return accept(draft.events);
    },
    stopSpindle: () => accept([{ type: "spindleStopped" }]),
    setDoor: ({ state: { spindle } }, { isOpen }) => {
      const limitRpm = rules.doorLimitRpm;
      return isOpen && spindle.isOn && spindle.rpm > limitRpm
        ? refuse({ code: "doorOpenSpeed", rpm: spindle.rpm, limitRpm })
        : accept([{ type: "doorSet", isOpen }]);
    },
    lookFrom: ({ state }, { side }) => accept([{ type: "lookedFrom", side, isOverZero: rules.isOverZero(state) }]),
    wipeBlocks: () => accept([{ type: "blocksWiped" }]),
    zeroCounter: ({ state }, command) => setCounter(state, command),
    captureRegister: (draft, command) => changeRegister(rules, draft.state, command),
    typeRegister: (draft, command) => changeRegister(rules, draft.state, command),
    undoRegister: (draft, command) => changeRegister(rules, draft.state, command),
    takeInRegisters: (draft, command) => takeInRegisters(rules, draft, command),
    reset: ({ state }) => {
      const stopped: LaneEvent[] = state.spindle.isOn ? [{ type: "spindleStopped" }] : [];
      const { run } = state.program;
      const left: LaneEvent[] = run ? [{ type: "runEnded", why: "reset", line: run.line }] : [];
      return accept([{ type: "machineReset" }, ...left, ...stopped, ...rules.droppedByReset(state)]);
    },
    takeReading: (draft, command) => writeLedger(rules, draft.state, command),
    writeTerm: (draft, command) => writeLedger(rules, draft.state, command),
    writeSum: (draft, command) => writeLedger(rules, draft.state, command),
    strikeLine: (draft, command) => writeLedger(rules, draft.state, command),
    expectCheck: ({ state }, command) => expectCheck(rules, state, command),
    lookCheck: ({ state }) => lookCheck(rules, state),
    judgeCheck: ({ state }, { isAsExpected }) => judgeCheck(rules, state, isAsExpected),
    judgeSetup: ({ state }, { isSound }) =>
      state.setup.handover ? accept([{ type: "setupJudged", isSound }]) : refuse({ code: "nothingHandedOver" }),
    raiseHand: ({ state }) => (state.isHandUp ? refuse({ code: "handUpAlready" }) : accept([{ type: "handRaised" }])),
    lowerHand: ({ state }) => (state.isHandUp ? accept([{ type: "handLowered" }]) : refuse({ code: "handNotUp" })),
    handIn: ({ state: { setup } }, { school }) => {
      if (school === undefined) return accept([{ type: "handedIn" }]);
      return schoolsOf(setup).includes(school)
        ? accept([{ type: "handedIn", school }])
        : refuse({ code: "schoolNotHere" });
    },
  };
}
