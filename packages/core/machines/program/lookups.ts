import { interpret, programFacts, readProgram, type Move, type Program, type ProgramFacts } from "../../gcode";
import { isByMaster } from "../../exercises/schools";
import { type LaneBase } from "../../lane/state";
import { type RegisterId } from "../../registers";
import { parseLengthMm, toMm } from "../../units";
import { type Ask } from "../../lane/programDesk";
import { type AskKind } from "../../lane/programNames";
import { type ProgramPorts } from "./ports";

/** A figure that was read off a screen may be rounded, mm. */
const READ_WITHIN_MM = 0.0015;

/** What a program and the registers say to something that is looked up, and what that hangs on. */
export interface Answer {
  /** Whether what was said is what stands there. */
  isRight(said: string): boolean;
  /** As it stands there: lengths in mm. */
  readonly stands: string;
  readonly reads: readonly RegisterId[];
  readonly lines: readonly number[];
  /** Whether what stands there is as it should be. */
  readonly isAsItShould: boolean;
}

/** What a tool is sent along Z with, or along anything on a lathe. */
interface Called {
  readonly rows: Set<number>;
  spindle: Move["spindle"];
  speed: number;
}

interface Read {
  readonly program: Program;
  readonly facts: ProgramFacts;
  readonly called: ReadonlyMap<number, Called>;
}

const readings = new WeakMap<readonly string[], Read>();

/** Rows and spindle of every tool, from the first move that goes by its row on. */
function calledIn(program: Program, unit: "mm" | "inch"): Map<number, Called> {
  const called = new Map<number, Called>();
  const byRow = program.dialect === "mill" ? BY_Z : BY_ANY;
  for (const step of interpret(program, { startUnits: unit, figures: "mm", keepsPlaces: true, isExpanding: true })) {
    if (step.type !== "move" || step.tool === null || step.isMachineFrame || step.isReturn) continue;
    const one: Called = called.get(step.tool) ?? { rows: new Set(), spindle: "stopped", speed: 0 };
    called.set(step.tool, one);
    if ((step.named & byRow) === 0) continue;
    if (step.row !== null) one.rows.add(step.row);
    if (one.spindle === "stopped") one.spindle = step.spindle;
    if (one.speed === 0) one.speed = step.speed?.value ?? 0;
  }
  return called;
}
/** Bits of the axes that a row acts on: Z of a mill, both of a lathe. */
const [BY_Z, BY_ANY] = [4, 3] as const;

/** A held program, read once for as long as its lines stand. */
export function readHeld<S extends LaneBase>(ports: ProgramPorts<S>, state: S): Read | null {
  const { held } = state.program;
  if (!held) return null;
  const known = readings.get(held.lines);
  if (known) return known;
  const text = held.lines.join("\n");
  const options = { startUnits: state.setup.unit, figures: "mm" as const, isExpanding: true };
  const program = readProgram(text, ports.dialect);
  const called = calledIn(program, state.setup.unit);
  const read = { program, called, facts: programFacts(text, ports.dialect, options) };
  readings.set(held.lines, read);
  return read;
}

/** Everything to be looked up of a program: once, or once for each tool that it calls. */
export function asksOf<S extends LaneBase>(ports: ProgramPorts<S>, state: S): Ask[] {
  const read = readHeld(ports, state);
  if (!read) return [];
  const once = (["program", "units", "offset", "lift", "wear", "matters"] as const).map((ask) => ({ ask, tool: null }));
  const each = toolsOf(read).flatMap((tool) =>
    (["rows", "held", "spindle", "deepest"] as const).map((ask) => ({ ask, tool })),
  );
  return [...once, ...each];
}

const toolsOf = ({ called }: Read): number[] => [...called.keys()].sort((a, b) => a - b);

/** Lines whose words say this code. */
const linesWith = ({ program }: Read, letter: string, codes: readonly number[]): number[] =>
  program.blocks.flatMap(({ line, letters, values }) =>
    [...letters].some((one, at) => one === letter && codes.includes(values[at] as number)) ? [line] : [],
  );

/** From a tool's first line to the last before the next tool's. */
function linesOf({ program, facts }: Read, tool: number): number[] {
  const starts = facts.calls.map(({ tool: number, firstLine }) => ({ number, firstLine }));
  return program.blocks.flatMap(({ line }) =>
    starts.findLast(({ firstLine }) => firstLine <= line)?.number === tool ? [line] : [],
  );
}

const words = (said: string): string[] =>
  said
    .toUpperCase()
    .split(/[\s,;+]+/)
    .filter((word) => word !== "");

const sameWords = (said: string, wanted: readonly string[]): boolean =>
  [...words(said)].sort().join() === [...wanted].sort().join();

/** Numbers out of "H2", "2, 5" or "none", in order. */
const numbers = (said: string): string =>
  [...said.matchAll(/\d+/g)]
    .map(([digits]) => Number(digits))
    .sort((a, b) => a - b)
    .join();

function figure<S extends LaneBase>(state: S, mm: number | null): Pick<Answer, "isRight" | "stands"> {
  return {
    stands: mm === null ? "none" : String(Math.round(mm * 1e4) / 1e4 || 0),
    isRight: (said) => {
      const read = parseLengthMm(said, state.setup.unit);
      return mm !== null && read.ok && Math.abs(read.value - mm) <= READ_WITHIN_MM;
    },
  };
}

/** The work offset that exercises with a program are set in. */
const SET_OFFSET = "G54";
const isBlockInWear = ({ setup }: LaneBase): boolean =>
  "lengthSchools" in setup && setup.lengthSchools.includes("block-in-wear");
/** The master's own row stays zero by right; so does every row that is its only reference. */
const countsFromZero = ({ setup }: LaneBase, tool: number): boolean =>
  "lengthSchools" in setup
    ? setup.lengthSchools.includes("master") && Math.min(...setup.targets.lengths) === tool
    : setup.lathe.schools.some(isByMaster) && setup.lathe.targets.z[0] === tool;

const operationOf = ({ setup }: LaneBase, tool: number) => setup.operations?.find((one) => one.tool === tool);
/** No deeper and no less deep than the drawing wants it; what no drawing says is as it is. */
const isAsDrawn = (state: LaneBase, tool: number, deepest: number | null): boolean => {
  const wanted = operationOf(state, tool)?.deepestMm;
  return wanted === undefined || deepest === null || Math.abs(deepest - wanted) <= READ_WITHIN_MM;
};

const UNIT_CODES = [20, 21];
const FRAME_CODES = [54, 55, 56, 57, 58, 59];

function unitsIn(read: Read, unit: "mm" | "inch"): "mm" | "inch" {
  const last = read.program.blocks
    .flatMap(({ letters, values }) => [...letters].flatMap((letter, at) => (letter === "G" ? [values[at]] : [])))
    .find((code) => code === 20 || code === 21);
  if (last === undefined) return unit;
  return last === 20 ? "inch" : "mm";
}

/** The lowest that a tool is sent to, in programmed figures, mm. */
export function deepestMm({ facts }: Read, tool: number): number | null {
  const lows = facts.calls.flatMap((call) => (call.tool === tool && call.reach?.z ? [call.reach.z[0]] : []));
  return lows.length === 0 ? null : Math.min(...lows);
}

/** Tools that are fed lowest over what holds the part, and as low as one another: those to look at beside it. */
export function matteringTools<S extends LaneBase>(ports: ProgramPorts<S>, state: S): number[] {
  const calls = readHeld(ports, state)?.facts.calls ?? [];
  const over = calls.flatMap(({ tool, reach }) =>
    reach?.cutZ && ports.comesOverFixture(state, reach) ? [{ tool, lowMm: reach.cutZ[0] }] : [],
  );
  const lowest = Math.min(...over.map(({ lowMm }) => lowMm));
  return [...new Set(over.flatMap(({ tool, lowMm }) => (lowMm <= lowest + READ_WITHIN_MM ? [tool] : [])))];
}

/** What a program and the registers say to an ask; null where there is no program, or it has no such tool. */
export function answerTo<S extends LaneBase>(ports: ProgramPorts<S>, state: S, { ask, tool }: Ask): Answer | null {
  const read = readHeld(ports, state);
  if (!read) return null;
  const none = { reads: [], lines: [] };
  if (tool === null) return answerOnce(ports, state, ask, read);
  if (!toolsOf(read).includes(tool)) return null;
  const lines = linesOf(read, tool);
  const called = read.called.get(tool);
  const wanted = [...(called?.rows ?? [])].sort((a, b) => a - b);
  if (ask === "rows") {
    return {
      ...none,
      lines,
      stands: wanted.length === 0 ? "none" : wanted.join(", "),
      isRight: (said) => numbers(said) === wanted.join(),
      isAsItShould: wanted.join() === String(tool),
    };
  }
  if (ask === "held") {
    const row = wanted[0] ?? null;
    return {
      ...figure(state, row === null ? null : ports.rowMm(state, row)),
      reads: row === null ? [] : ports.rowRegisters(row),
      lines,
      // an empty row is a fault, unless the school counts from it
      isAsItShould: row !== null && (ports.rowMm(state, row) !== 0 || countsFromZero(state, tool)),
    };
  }
  if (ask === "spindle") {
    const { spindle: turning = "stopped", speed = 0 } = called ?? {};
    const stands = turning === "stopped" ? "stopped" : `${turning} ${speed}`;
    return {
      ...none,
      lines,
      stands,
      isRight: (said) => sameWords(said, words(stands)),
      isAsItShould: turning === "forward" && speed === (operationOf(state, tool)?.rpm ?? speed),
    };
  }
  return ask === "deepest"
    ? {
        ...figure(state, deepestMm(read, tool)),
        reads: [],
        lines,
        isAsItShould: isAsDrawn(state, tool, deepestMm(read, tool)),
      }
    : null;
}

function answerOnce<S extends LaneBase>(ports: ProgramPorts<S>, state: S, ask: AskKind, read: Read): Answer | null {
  const none = { reads: [], lines: [] };
  if (ask === "program") {
    const [named] = read.program.named.keys();
    return {
      ...none,
      stands: String(named ?? "none"),
      isRight: (said) => numbers(said) === String(named ?? ""),
      isAsItShould: state.setup.program === undefined || named === state.setup.program,
    };
  }
  if (ask === "units") {
    const units = unitsIn(read, state.setup.unit);
    return {
      ...none,
      lines: linesWith(read, "G", UNIT_CODES),
      stands: units,
      isRight: (said) => said.trim().toLowerCase() === units,
      isAsItShould: units === state.setup.unit,
    };
  }
  if (ask === "offset") {
    const frames = [...new Set(read.facts.calls.map(({ frame }) => frame))];
    return {
      ...none,
      lines: linesWith(read, "G", FRAME_CODES),
      stands: frames.join(", "),
      isRight: (said) => sameWords(said, frames),
      isAsItShould: frames.join() === SET_OFFSET,
    };
  }
  if (ask === "lift")
    return {
      ...figure(state, toMm(state.registers.common.z, state.scale)),
      reads: ["common.z"],
      lines: [],
      isAsItShould: state.registers.common.z === 0,
    };
  if (ask === "matters") {
    const tools = matteringTools(ports, state);
    return {
      ...none,
      lines: read.program.blocks.map(({ line }) => line),
      stands: tools.length === 0 ? "none" : tools.join(", "),
      isRight: (said) =>
        tools.length === 0 ? /\bnone\b/i.test(said) : tools.some((tool) => numbers(said) === String(tool)),
      isAsItShould: true,
    };
  }
  if (ask === "wear") {
    const rows = ports.wearRows(state);
    return {
      stands: rows.length === 0 ? "none" : rows.join(", "),
      isRight: (said) => numbers(said) === rows.join() && (rows.length > 0 || /\bnone\b|^0$/i.test(said.trim())),
      reads: ports.wearRegisters(state),
      lines: [],
      isAsItShould: rows.length === 0 || isBlockInWear(state),
    };
  }
  return null;
}
