import { accept, refuse, type Result } from "../result";
import { type EventOf, type LaneEvent } from "../machines/events";
import { type Refusal } from "./refusals";
import { type CommandOf } from "../machines/commands";
import { type LaneBase } from "./state";
import { readRegister, registerAxis, registerKind, type RegisterId } from "../registers/mill";
import { type Counts } from "../units/counts";
import { turretPlace } from "../registers/turret";
import { parseLengthMm } from "../units/parse";
import { toCounts } from "../units/scale";
import { type LaneRules } from "./rules";
import { guardCounts } from "./travel";
import { type Draft } from "./draft";

type Decision = Result<LaneEvent[], Refusal>;

type LedgerCommand = CommandOf<"takeReading" | "writeTerm" | "writeSum" | "strikeLine">;

/** The widest value a register holds, counts. */
export const REGISTER_LIMIT_COUNTS = 999_999;

const LEDGER_LIMIT = 120;

function countsTyped(state: LaneBase, text: string, register?: RegisterId): Result<Counts, Refusal> {
  // a tip code is a choice of ten and no length: the same digit on a metric and an inch machine
  if (register !== undefined && turretPlace(register)?.column === "q")
    return /^\d$/.test(text.trim())
      ? accept(Number(text) * state.scale.countsPerUnit)
      : refuse({ code: "tipCodeOnly" });
  const read = parseLengthMm(text, state.setup.unit);
  return read.ok ? accept(toCounts(read.value, state.scale)) : refuse({ code: "text", problem: read.error });
}

type How = EventOf<"registerChanged">["how"];

const change = (state: LaneBase, register: RegisterId, to: Counts, how: How, as?: Counts): LaneEvent => ({
  type: "registerChanged",
  register,
  from: readRegister(state.registers, register),
  to,
  how,
  ...(as === undefined ? {} : { as }),
  machine: state.position,
});

function changed(state: LaneBase, register: RegisterId, to: Counts, how: How, as?: Counts): Decision {
  return Math.abs(to) > REGISTER_LIMIT_COUNTS
    ? refuse({ code: "registerOutOfRange", register })
    : accept([change(state, register, to, how, as)]);
}

/** Capture, type or undo: one register, its old value kept in the event. */
export function changeRegister<S extends LaneBase>(
  rules: Pick<LaneRules<S>, "hasRegister" | "captured" | "clearedBy">,
  state: S,
  command: CommandOf<"captureRegister" | "typeRegister" | "undoRegister">,
): Decision {
  if (command.type !== "undoRegister" && !rules.hasRegister(state.setup, command.register))
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
    const solved = rules.captured(state, register, typed.value);
    if (!solved.ok) return solved;
    const captured = changed(state, register, solved.value, "captured", typed.value);
    if (!captured.ok) return captured;
    const cleared = rules
      .clearedBy(state, register)
      .filter((one) => readRegister(state.registers, one) !== 0)
      .map((one) => change(state, one, 0, "cleared"));
    return accept([...captured.value, ...cleared]);
  }
  const from = readRegister(state.registers, register);
  const to = command.how === "add" ? from + typed.value : typed.value;
  if (Math.abs(to - from) > guardCounts[state.setup.unit] && !command.isConfirmed)
    return refuse({ code: "registerGuard", register, from, to, unit: state.setup.unit });
  return changed(state, register, to, command.how === "add" ? "added" : "typed");
}

/** Many registers at once, from a table or a program that was shown beforehand: all of them or none. */
export function takeInRegisters<S extends LaneBase>(
  rules: Pick<LaneRules<S>, "hasRegister">,
  draft: Draft<S>,
  { rows }: Pick<CommandOf<"takeInRegisters">, "rows">,
): Decision {
  const { state } = draft;
  for (const { register, text } of rows) {
    if (!rules.hasRegister(state.setup, register)) return refuse({ code: "notOnThisMachine" });
    const typed = countsTyped(state, text, register);
    if (!typed.ok) return typed;
    if (Math.abs(typed.value) > REGISTER_LIMIT_COUNTS) return refuse({ code: "registerOutOfRange", register });
    if (typed.value !== readRegister(draft.state.registers, register))
      draft.emit(change(draft.state, register, typed.value, "takenIn"));
  }
  return draft.events.length > 0 ? accept(draft.events) : refuse({ code: "nothingChanges" });
}

/** Zeroes an axis counter, or presets it so that it reads what was typed. */
export function setCounter(state: LaneBase, { axis, text }: CommandOf<"zeroCounter">): Decision {
  const preset = text === undefined ? accept(0) : countsTyped(state, text);
  return preset.ok ? accept([{ type: "counterZeroed", axis, at: state.position[axis] - preset.value }]) : preset;
}

/** The figure of a reading that belongs in a register's line: the one that the register is about. */
function readingCounts(state: LaneBase, register: RegisterId, number: number): Counts | null {
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
export function writeLedger<S extends LaneBase>(
  rules: Pick<LaneRules<S>, "standsAt">,
  state: S,
  command: LedgerCommand,
): Decision {
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
        { type: "lineWritten", line, register, kind: "reading", counts: rules.standsAt(state, registerAxis(register)) },
      ]);
    }
    const of = state.desk.readings.find(({ number }) => number === command.from)?.what;
    // what was measured is of one thing: a pip is no band and no bar
    if (of === "pip" && !register.startsWith("Y")) return refuse({ code: "readingOfOther" });
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
