import { interpret, programFacts, readProgram, type Move, type Program, type ProgramFacts } from "../../gcode";
import { isByMaster } from "../../exercises/schools";
import { type LaneBase } from "../../lane/state";
import { type Axis, type RegisterId } from "../../registers";
import { mmPerUnit, parseLengthMm, scales, toMm } from "../../units";
import { type Ask } from "../../lane/programDesk";
import { type AskKind, type RestPlace } from "../../lane/programNames";
import { UnknownRegister } from "../../proving";
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
  const atMachine = [
    ...(ports.carried(state) ? (["pockets", "hangs"] as const) : []),
    ...(ports.swings ? (["swing"] as const) : []),
  ];
  const inProgram = gaugings(read).length > 0 ? (["gaugedWay"] as const) : [];
  const once = (
    ["program", "units", "offset", "lift", "wear", "travel", ...atMachine, "matters", ...inProgram] as const
  ).map((ask) => ({ ask, tool: null }));
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

const [CALLS, CORRECTS] = [65, 9501] as const;
/** Gaugings that write wear, by their line, with the numbers of the ways that they name. */
function gaugings({ program }: Read): { readonly line: number; readonly way: number }[] {
  return program.blocks.flatMap(({ line, letters, values }) => {
    const isCall = [...letters].some((letter, at) => letter === "G" && values[at] === CALLS);
    const way = values[letters.indexOf("Q")];
    return isCall && values[letters.indexOf("P")] === CORRECTS && typeof way === "number" ? [{ line, way }] : [];
  });
}

const SHIFTS = 52;
/** What a program shifts Z by itself (G52), the first time that it does, mm. */
function shiftMm(read: Read, unit: "mm" | "inch"): number {
  const perUnit = mmPerUnit(scales[unitsIn(read, unit)]);
  const shifts = read.program.blocks.flatMap(({ letters, values }) => {
    const isShift = [...letters].some((one, at) => one === "G" && values[at] === SHIFTS);
    const z = values[letters.indexOf("Z")];
    return isShift && letters.includes("Z") && typeof z === "number" && z !== 0 ? [z * perUnit] : [];
  });
  return shifts[0] ?? 0;
}

/** A row stands in the last two figures of a lathe's tool word. */
const ROWS_OF_WORD = 100;

/** Lines between a word of this tool and the next of another, each time that it is called. */
function linesOf({ program }: Read, tool: number): number[] {
  let current: number | null = null;
  return program.blocks.flatMap(({ line, letters, values }) => {
    const word = letters.includes("T") ? values[letters.indexOf("T")] : null;
    if (typeof word === "number") current = program.dialect === "lathe" ? Math.trunc(word / ROWS_OF_WORD) : word;
    return current === tool ? [line] : [];
  });
}

const words = (said: string): string[] =>
  said
    .toUpperCase()
    .split(/[\s,;+]+/)
    .filter((word) => word !== "");

const sameWords = (said: string, wanted: readonly string[]): boolean =>
  [...words(said)].sort().join() === [...wanted].sort().join();

/** "None", in any case, and no number beside it. */
const saysNone = (said: string): boolean => /\bnone\b/i.test(said) && !/\d/.test(said);

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

/** As fast as the sheet has it; what must not turn stands. */
const isTurningAsDrawn = (turning: Move["spindle"], speed: number, rpm: number = speed): boolean =>
  rpm === 0 ? turning === "stopped" : turning === "forward" && speed === rpm;

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

/** Tools that are fed lowest over what holds the part, and as low as one another, with what they stand over. */
export function matteringTools<S extends LaneBase>(ports: ProgramPorts<S>, state: S): Map<number, Set<RestPlace>> {
  const calls = readHeld(ports, state)?.facts.calls ?? [];
  const over = calls.flatMap(({ tool, reach }) => {
    const places = reach?.cutZ ? ports.comesOver(state, reach) : [];
    return reach?.cutZ && places.length > 0 ? [{ tool, lowMm: reach.cutZ[0], places }] : [];
  });
  const lowest = Math.min(...over.map(({ lowMm }) => lowMm));
  const found = new Map<number, Set<RestPlace>>();
  for (const { tool, places } of over.filter(({ lowMm }) => lowMm <= lowest + READ_WITHIN_MM))
    found.set(tool, new Set([...(found.get(tool) ?? []), ...places]));
  return found;
}

const BEYOND_MM = 1e-6;

/** Machine = place + this; of registers that are not there nothing. */
const offsetOf =
  <S extends LaneBase>(ports: ProgramPorts<S>, state: S) =>
  (frame: string, row: number | null, sign: 1 | -1): readonly number[] => {
    try {
      return ports.offset(state, frame, row, sign);
    } catch (error) {
      if (error instanceof UnknownRegister) return ports.axes.map(() => 0);
      throw error;
    }
  };

/** What a program does from home, with the registers as they stand. */
function stepsFromHome<S extends LaneBase>(ports: ProgramPorts<S>, state: S, program: Program) {
  const home = ports.axes.map(() => 0);
  return interpret(program, {
    startUnits: state.setup.unit,
    figures: "mm",
    isExpanding: true,
    registers: { at: home, home, offset: offsetOf(ports, state) },
  });
}

/** Axes that leave their travel anywhere, with the registers as they stand, and what they hang on. */
function pastTravel<S extends LaneBase>(ports: ProgramPorts<S>, state: S, { program }: Read) {
  const { min, max } = ports.travel(state);
  const past = new Set<Axis>();
  const reads = new Set<RegisterId>(ports.axes.map((axis): RegisterId => `common.${axis}`));
  const ways = ports.ways(() => state, stepsFromHome(ports, state, program));
  for (let step = ways.next(); !step.done; step = ways.next()) {
    if (step.value.type !== "way") continue;
    const { move, path } = step.value;
    if (!move.isMachineFrame && /^G5[4-9]$/.test(move.frame))
      for (const axis of ports.axes) reads.add(`${move.frame}.${axis}` as RegisterId);
    if (move.row !== null) for (const register of ports.rowRegisters(move.row)) reads.add(register);
    for (const place of path)
      ports.axes.forEach((axis, at) => {
        const mm = place[at] ?? 0;
        if (mm < (min[at] ?? 0) - BEYOND_MM || mm > (max[at] ?? 0) + BEYOND_MM) past.add(axis);
      });
  }
  return { past: [...past], reads: [...reads] };
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
      isAsItShould: isTurningAsDrawn(turning, speed, operationOf(state, tool)?.rpm),
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
      // another program under the number of the sheet is another program
      isAsItShould:
        state.setup.program === undefined ||
        (named === state.setup.program && [0, state.setup.program].includes(state.program.held?.number ?? 0)),
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
  if (ask === "lift") {
    const liftMm = toMm(state.registers.common.z, state.scale) + shiftMm(read, state.setup.unit);
    return {
      ...figure(state, liftMm),
      reads: ["common.z"],
      lines: linesWith(read, "G", [SHIFTS]),
      isAsItShould: Math.abs(liftMm) < READ_WITHIN_MM,
    };
  }
  if (ask === "matters") {
    const tools = matteringTools(ports, state);
    return {
      ...none,
      lines: read.program.blocks.map(({ line }) => line),
      stands: [...tools].map(([tool, places]) => `${tool} ${[...places].join(", ")}`).join(" · ") || "none",
      isRight: (said) => {
        const [, tool = "", place = ""] = /^(\d+) (\w+)$/.exec(said) ?? [];
        return tools.size === 0 ? said === "none" : (tools.get(Number(tool))?.has(place as RestPlace) ?? false);
      },
      isAsItShould: true,
    };
  }
  if (ask === "gaugedWay") {
    const ways = [...new Set(gaugings(read).map(({ way }) => way))].sort((a, b) => a - b).join(", ");
    return {
      ...none,
      lines: gaugings(read).map(({ line }) => line),
      stands: ways || "none",
      isRight: (said) => (ways === "" ? saysNone(said) : numbers(said) === ways.replaceAll(" ", "")),
      isAsItShould: ways === String(state.setup.gauging?.way ?? ""),
    };
  }
  if (ask === "travel") {
    const { past, reads } = pastTravel(ports, state, read);
    return {
      stands: past.length === 0 ? "none" : past.join(", "),
      isRight: (said) => sameWords(said, past.length === 0 ? ["NONE"] : words(past.join(" "))),
      reads,
      lines: read.program.blocks.map(({ line }) => line),
      isAsItShould: past.length === 0,
    };
  }
  if (ask === "swing") {
    const { leastMm, reads } = swingingIn(ports, state, read);
    return {
      ...figure(state, leastMm),
      ...(leastMm === null ? { isRight: saysNone } : {}),
      reads,
      lines: read.program.blocks.map(({ line }) => line),
      isAsItShould: leastMm === null || leastMm > 0,
    };
  }
  if (ask === "pockets" || ask === "hangs") return answerAtMachine(ports, state, ask, read);
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

/**
 * How far before the zero of Z the tip stands that swings in, where it stands least far, by the registers; null where
 * only one tool is called.
 */
function swingingIn<S extends LaneBase>(ports: ProgramPorts<S>, state: S, { program }: Read) {
  const along = ports.axes.indexOf("z");
  let at: { readonly machine: readonly number[]; readonly frame: string } | null = null;
  const found: number[] = [];
  const reads = new Set<RegisterId>();
  for (const step of stepsFromHome(ports, state, program)) {
    if (step.type === "move" && step.machine) at = { machine: step.machine.to, frame: step.frame };
    if (step.type !== "tool" || !at) continue;
    found.push((at.machine[along] ?? 0) - (offsetOf(ports, state)(at.frame, step.row, 1)[along] ?? 0));
    if (step.row !== null) for (const register of ports.rowRegisters(step.row)) reads.add(register);
    if (/^G5[4-9]$/.test(at.frame)) reads.add(`${at.frame}.z` as RegisterId);
  }
  return { leastMm: found.length === 0 ? null : Math.min(...found), reads: [...reads] };
}

/** What sits in the pockets that the program calls, and what hangs in the spindle: looked at, not read. */
function answerAtMachine<S extends LaneBase>(
  ports: ProgramPorts<S>,
  state: S,
  ask: "pockets" | "hangs",
  read: Read,
): Answer | null {
  const carried = ports.carried(state);
  if (!carried) return null;
  const none = { reads: [], lines: [] };
  if (ask === "hangs")
    return {
      ...none,
      stands: carried.hangs,
      isRight: (said) => said === carried.hangs,
      isAsItShould: carried.hangs !== "instrument",
    };
  const swapped = carried.swapped.filter((tool) => toolsOf(read).includes(tool));
  return {
    ...none,
    lines: read.program.blocks.flatMap(({ line, letters }) => (letters.includes("T") ? [line] : [])),
    stands: swapped.join(", ") || "none",
    isRight: (said) => (swapped.length === 0 ? saysNone(said) : numbers(said) === swapped.join()),
    isAsItShould: swapped.length === 0,
  };
}
