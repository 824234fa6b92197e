import {
  captureLength,
  captureOffset,
  readRegister,
  registerAxis,
  registerKind,
  turretPlace,
  turretSum,
  type Axis,
  type RegisterId,
} from "../registers";
import { accept, refuse, type Result } from "../result";
import { parseLengthMm, toCounts, type Counts } from "../units";
import type { CommandOf } from "./commands";
import { Draft } from "./draft";
import type { EventOf, LaneEvent } from "./events";
import { guardCounts } from "./machine";
import { hasRegister } from "./machineRegisters";
import type { Refusal } from "./refusals";
import { readsAt } from "./lathe/display";
import { lengthInUse, type LaneState } from "./state";

type Decision = Result<LaneEvent[], Refusal>;
type LedgerCommand = CommandOf<"takeReading" | "writeTerm" | "writeSum" | "strikeLine">;

/** The widest value a register holds, counts. */
export const REGISTER_LIMIT_COUNTS = 999_999;
const LEDGER_LIMIT = 120;

function countsTyped(state: LaneState, text: string, register?: RegisterId): Result<Counts, Refusal> {
  // a tip code is a choice of ten and no length: the same digit on a metric and an inch machine
  if (register !== undefined && /^Q\d/.test(register))
    return /^\d$/.test(text.trim())
      ? accept(Number(text) * state.scale.countsPerUnit)
      : refuse({ code: "tipCodeOnly" });
  const read = parseLengthMm(text, state.setup.unit);
  return read.ok ? accept(toCounts(read.value, state.scale)) : refuse({ code: "text", problem: read.error });
}

type How = EventOf<"registerChanged">["how"];
const change = (state: LaneState, register: RegisterId, to: Counts, how: How, as?: Counts): LaneEvent => ({
  type: "registerChanged",
  register,
  from: readRegister(state.registers, register),
  to,
  how,
  ...(as === undefined ? {} : { as }),
  machine: state.position,
});

function changed(state: LaneState, register: RegisterId, to: Counts, how: How, as?: Counts): Decision {
  return Math.abs(to) > REGISTER_LIMIT_COUNTS
    ? refuse({ code: "registerOutOfRange", register })
    : accept([change(state, register, to, how, as)]);
}

/** The value that a capture of `register` as `as` would store now, counts; length rows follow the machine's rule. */
function capturedCounts(state: LaneState, register: RegisterId, as: Counts): Counts {
  const { registers, position, modal, counterZero, setup, lathe } = state;
  if (lathe) {
    const axis = registerAxis(register) === "x" ? "x" : "z";
    const place = turretPlace(register);
    const offsets = registers.common[axis] + registers.work[modal.workOffset][axis];
    if (!place)
      return (
        position[axis] -
        (register.startsWith("common") ? registers.work[modal.workOffset][axis] : registers.common[axis]) -
        turretSum(registers.turret, axis, lathe.row) -
        as
      );
    // the other half of the same row stays: wear under a new geometry, geometry under a new wear
    const other = registers.turret?.[place.column.length === 2 ? axis : axis === "x" ? "xw" : "zw"][place.row] ?? 0;
    return position[axis] - offsets - other - as;
  }
  if (register.startsWith("HW")) return position.z - as;
  if (registerKind(register) === "length") {
    return captureLength(registers, Number(register.slice(1)), setup.settings.lengthCapture, {
      machineZ: position.z,
      counterZ: position.z - counterZero.z,
      work: modal.workOffset,
      as,
    });
  }
  return captureOffset(registers, register, position[registerAxis(register)], as, modal.workOffset, lengthInUse(state));
}

/** Capture, type or undo: one register, its old value kept in the event. */
export function changeRegister(
  state: LaneState,
  command: CommandOf<"captureRegister" | "typeRegister" | "undoRegister">,
): Decision {
  if (command.type !== "undoRegister" && !hasRegister(state.setup, command.register))
    return refuse({ code: "notOnThisMachine" });
  if (command.type === "undoRegister") {
    const last = state.desk.undo.at(-1);
    return last ? changed(state, last.register, last.counts, "undone") : refuse({ code: "nothingToUndo" });
  }
  const typed = countsTyped(
    state,
    command.type === "captureRegister" ? command.asText : command.text,
    command.register,
  );
  if (!typed.ok) return typed;
  const { register } = command;
  if (command.type === "captureRegister") {
    if (registerKind(register) === "diameter" || /^[RQY]\d/.test(register))
      return refuse({ code: "diameterIsTyped", register });
    if (/^L[XZ]\d/.test(register)) return refuse({ code: "libraryIsTyped" });
    const captured = changed(state, register, capturedCounts(state, register, typed.value), "captured", typed.value);
    const wear: RegisterId = `HW${Number(register.slice(1))}`;
    const clears =
      captured.ok &&
      /^H\d/.test(register) &&
      state.setup.settings.captureClearsWear &&
      readRegister(state.registers, wear) !== 0;
    return clears ? accept([...captured.value, change(state, wear, 0, "cleared")]) : captured;
  }
  const from = readRegister(state.registers, register);
  const to = command.how === "add" ? from + typed.value : typed.value;
  if (Math.abs(to - from) > guardCounts[state.setup.unit] && !command.isConfirmed)
    return refuse({ code: "registerGuard", register, from, to, unit: state.setup.unit });
  return changed(state, register, to, command.how === "add" ? "added" : "typed");
}

/** Many registers at once, from a table or a program that was shown beforehand: all of them or none. */
export function takeInRegisters(state: LaneState, { rows }: CommandOf<"takeInRegisters">): Decision {
  const draft = new Draft(state);
  for (const { register, text } of rows) {
    if (!hasRegister(state.setup, register)) return refuse({ code: "notOnThisMachine" });
    const typed = countsTyped(state, text, register);
    if (!typed.ok) return typed;
    if (Math.abs(typed.value) > REGISTER_LIMIT_COUNTS) return refuse({ code: "registerOutOfRange", register });
    if (typed.value !== readRegister(draft.state.registers, register))
      draft.emit(change(draft.state, register, typed.value, "takenIn"));
  }
  return draft.events.length > 0 ? accept(draft.events) : refuse({ code: "nothingChanges" });
}

/** Zeroes an axis counter, or presets it so that it reads what was typed. */
export function setCounter(state: LaneState, { axis, text }: CommandOf<"zeroCounter">): Decision {
  const preset = text === undefined ? accept(0) : countsTyped(state, text);
  return preset.ok ? accept([{ type: "counterZeroed", axis, at: state.position[axis] - preset.value }]) : preset;
}

/** What a student reads off the machine on an axis. */
const standsAt = (state: LaneState, axis: Axis): Counts =>
  state.lathe && axis !== "y" ? readsAt(state, axis) : state.position[axis];

/** The figure of a reading that belongs in a register's line: the one that the register is about. */
function readingCounts(state: LaneState, register: RegisterId, number: number): Counts | null {
  const reading = state.desk.readings.find((one) => one.number === number);
  if (!reading) return null;
  const { values } = reading;
  const axis = registerAxis(register);
  const order =
    registerKind(register) === "diameter"
      ? ["diameter", ...Object.keys(values)]
      : registerKind(register) === "length"
        ? ["length", "trigger", "at", ...Object.keys(values)]
        : [axis, "middle", "at", ...Object.keys(values)];
  const name = order.find((one) => values[one] !== undefined);
  return name === undefined ? null : toCounts(values[name] ?? 0, state.scale);
}

/**
 * The student's own working: readings come from the machine or an instrument as they stand, terms and sums as typed.
 */
export function writeLedger(state: LaneState, command: LedgerCommand): Decision {
  if (command.type === "strikeLine") {
    const isThere = state.desk.ledger.some(({ line }) => line === command.line);
    return isThere
      ? accept([{ type: "lineStruck", line: command.line }])
      : refuse({ code: "noSuchLine", line: command.line });
  }
  if (state.desk.ledger.length >= LEDGER_LIMIT) return refuse({ code: "ledgerFull" });
  const { register } = command;
  const line = state.desk.linesWritten + 1;
  if (command.type === "takeReading") {
    if (command.from === undefined) {
      if (registerKind(register) === "diameter") return refuse({ code: "noSuchReading" });
      return accept([
        { type: "lineWritten", line, register, kind: "reading", counts: standsAt(state, registerAxis(register)) },
      ]);
    }
    const counts = readingCounts(state, register, command.from);
    return counts === null
      ? refuse({ code: "noSuchReading" })
      : accept([{ type: "lineWritten", line, register, kind: "reading", counts, from: command.from }]);
  }
  const typed = countsTyped(state, command.text);
  if (!typed.ok) return typed;
  const what =
    command.type === "writeTerm" ? ({ kind: "term", term: command.term } as const) : ({ kind: "sum" } as const);
  return accept([{ type: "lineWritten", line, register, ...what, counts: typed.value }]);
}
