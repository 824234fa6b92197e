import { captureLength, captureOffset, readRegister, registerAxis, type MillRegisterId } from "../registers";
import { accept, refuse, type Result } from "../result";
import { countsFromMm, parseLengthMm, type Counts } from "../units";
import type { Command } from "./commands";
import type { EventOf, LaneEvent } from "./events";
import { bench } from "./machine";
import type { Refusal } from "./refusals";
import type { LaneState } from "./state";

type Decision = Result<LaneEvent[], Refusal>;
type RegisterCommand = Extract<Command, { type: "captureRegister" | "typeRegister" | "undoRegister" }>;
type LedgerCommand = Extract<Command, { type: "takeReading" | "writeTerm" | "writeSum" | "strikeLine" }>;

/** The widest value a register holds, counts. */
const REGISTER_LIMIT_COUNTS = 999_999;
const LEDGER_LIMIT = 80;

function countsTyped(text: string): Result<Counts, Refusal> {
  const read = parseLengthMm(text);
  return read.ok ? accept(countsFromMm(read.value)) : refuse({ code: "text", problem: read.error });
}

function changed(
  state: LaneState, register: MillRegisterId, to: Counts, how: EventOf<"registerChanged">["how"], as?: Counts,
): Decision {
  if (Math.abs(to) > REGISTER_LIMIT_COUNTS) return refuse({ code: "registerOutOfRange", register });
  const from = readRegister(state.registers, register);
  return accept([{ type: "registerChanged", register, from, to, how, ...(as === undefined ? {} : { as }), machine: state.position }]);
}

/** The value that a capture of `register` as `as` would store now, counts; length rows follow the machine's rule. */
function capturedCounts(state: LaneState, register: MillRegisterId, as: Counts): Counts {
  const { registers, position, modal, counterZero, setup } = state;
  const axis = registerAxis(register);
  if (register.startsWith("HW")) return position.z - as;
  if (register.startsWith("H")) {
    return captureLength(registers, Number(register.slice(1)), setup.lengthCapture, {
      machineZ: position.z, counterZ: position.z - counterZero.z, work: modal.workOffset, as,
    });
  }
  return captureOffset(registers, register, position[axis], as, modal.workOffset, modal.lengthRow);
}

/** Capture, type or undo: one register, its old value kept in the event. */
export function changeRegister(state: LaneState, command: RegisterCommand): Decision {
  if (command.type === "undoRegister") {
    const last = state.undo.at(-1);
    return last ? changed(state, last.register, last.counts, "undone") : refuse({ code: "nothingToUndo" });
  }
  const typed = countsTyped(command.type === "captureRegister" ? command.asText : command.text);
  if (!typed.ok) return typed;
  const { register } = command;
  if (command.type === "captureRegister") {
    return changed(state, register, capturedCounts(state, register, typed.value), "captured", typed.value);
  }
  const from = readRegister(state.registers, register);
  const to = command.how === "add" ? from + typed.value : typed.value;
  if (Math.abs(to - from) > bench.guardCounts && !command.isConfirmed) return refuse({ code: "registerGuard", register, from, to });
  return changed(state, register, to, command.how === "add" ? "added" : "typed");
}

/** The student's own working: readings come from the machine as it stands, terms and sums as typed. */
export function writeLedger(state: LaneState, command: LedgerCommand): Decision {
  if (command.type === "strikeLine") {
    const isThere = state.ledger.some(({ line }) => line === command.line);
    return isThere ? accept([{ type: "lineStruck", line: command.line }]) : refuse({ code: "noSuchLine", line: command.line });
  }
  if (state.ledger.length >= LEDGER_LIMIT) return refuse({ code: "ledgerFull" });
  const { register } = command;
  const line = state.linesWritten + 1;
  if (command.type === "takeReading") {
    return accept([{ type: "lineWritten", line, register, kind: "reading", counts: state.position[registerAxis(register)] }]);
  }
  const typed = countsTyped(command.text);
  if (!typed.ok) return typed;
  const what = command.type === "writeTerm" ? ({ kind: "term", term: command.term } as const) : ({ kind: "sum" } as const);
  return accept([{ type: "lineWritten", line, register, ...what, counts: typed.value }]);
}
