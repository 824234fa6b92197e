import { decide, evolve, openLane, commandSchema, type Command, type LaneState } from "@probe-lane/core/bench";
import { interpret, programFacts, readBlock, readProgram, type Dialect } from "@probe-lane/core/gcode";
import { readRegisters } from "@probe-lane/core/exchange";
import { parseLengthMm } from "@probe-lane/core/units";
import { beginsWithHeadings, columnsBy } from "../../apps/server/areas/roster/columns";
import { readRoster } from "../../apps/server/areas/roster/readRoster";
import { decoded, readText } from "../../apps/server/areas/roster/readTable";
import { demoExercises } from "../../demo";
import { report } from "../../bench/measure";

/** The same run for the same seed: a failure names its turn. */
function pickerOf(seed: number): () => number {
  let at = seed >>> 0;
  return () => {
    at = (Math.imul(at, 1_664_525) + 1_013_904_223) >>> 0;
    return at / 4_294_967_296;
  };
}
const PIECES = [
  "G0",
  "G1",
  "G53",
  "G10",
  "L2",
  "P1",
  "P-1",
  "X",
  "Z-",
  "1e999",
  "0x10",
  "3/64",
  "-",
  "−",
  "+",
  ".",
  ",",
  ";",
  "\t",
  "\n",
  "\r\n",
  "\u0000",
  "\ud800",
  "\u202e",
  "é",
  "１",
  "in",
  "mm",
  "µm",
  "(",
  ")",
  "%",
  "#",
  "T0303",
  "S",
  "999999999999999999999",
  "constructor",
  "__proto__",
  "NaN",
  "Infinity",
  "login,name",
  '"',
  "'",
  "M6",
  "G54.1",
  "R",
  "Q",
  "Å",
  " ",
  "  ",
  "\ufeff",
] as const;

/** Texts over every reader: no throw, none that takes longer than a tenth of a second. */
export function fuzzReaders(texts: number): boolean {
  const next = pickerOf(texts);
  const modal = { motion: "rapid", feedMmPerMin: null, tool: null } as const;
  const readers: [string, (text: string) => unknown][] = [
    ["length", (text) => parseLengthMm(text, "mm")],
    ["inch length", (text) => parseLengthMm(text, "inch")],
    ["mill block", (text) => readBlock(text, modal, "mm", "mill")],
    ["lathe block", (text) => readBlock(text, modal, "inch", "lathe")],
    ["registers", (text) => readRegisters(text, ["G54.x", "H1", "X1"], "mill", "mm")],
    ["lathe registers", (text) => readRegisters(text, ["X1", "Z1", "Q1"], "lathe", "inch")],
    [
      "roster",
      (text) => {
        const table = readText(decoded(Buffer.from(text, "utf8")));
        return readRoster(table, columnsBy(table.rows[0]?.cells ?? []), beginsWithHeadings(table));
      },
    ],
  ];
  let worst = { ms: 0, reader: "", text: "" };
  let throws = 0;
  for (let turn = 0; turn < texts; turn++) {
    const text = Array.from({ length: 1 + Math.floor(next() * 14) }, () => {
      const pick = next();
      return pick < 0.6
        ? (PIECES[Math.floor(next() * PIECES.length)] ?? "")
        : String.fromCharCode(Math.floor(next() * (pick < 0.9 ? 128 : 65_536)));
    }).join("");
    const [reader, read] = readers[turn % readers.length] ?? readers[0]!;
    const start = performance.now();
    try {
      read(text);
    } catch (error) {
      throws += 1;
      if (throws < 4) process.stdout.write(`${reader} threw on ${JSON.stringify(text)}: ${String(error)}\n`);
    }
    const ms = performance.now() - start;
    if (ms > worst.ms) worst = { ms, reader, text };
  }
  report(
    `${texts.toLocaleString("en")} texts over ${readers.length} readers`,
    `${throws} throws`,
    "goal 0",
    `longest ${worst.ms.toFixed(1)} ms (${worst.reader})`,
  );
  // a pause of the machine is no fault of a reader: the longest is read again
  const [, slowest] = readers.find(([name]) => name === worst.reader) ?? [];
  const again = Math.min(
    ...[1, 2, 3].map(() => {
      const start = performance.now();
      slowest?.(worst.text);
      return performance.now() - start;
    }),
  );
  return throws === 0 && again < 100;
}

/** Pieces of programs: what a control reads, and what only looks like it. */
const PROGRAM_PIECES = [
  ..."GMXYZIJKRFTHDPQLNOSUW#[]()/%;+-*.=".split(""),
  "\n",
  "\n",
  "\nG0X1Y1Z1",
  "\nG1X2F100",
  "\nG2X0Y0I1",
  "\nG3X5R-9",
  "\nG81X1Y1Z-2R1F9L99999",
  "\nT0101",
  "\nG71P1Q2",
  "\nG70P1Q2",
  "\nN1",
  "\nN2",
  "\nGOTO1",
  "\nIF[#1LT9]GOTO1",
  "\nWHILE[#1LT9]DO1",
  "\nEND1",
  "\n#1=#1+1",
  "\nM98P1L9999",
  "\nG65P1A1B2",
  "\nM99",
  "\nO1",
  "\nG68X0Y0R30",
  "\nG28X0",
  "SQRT[",
  "ATAN[1]/[0]",
  "[[[[[[[[[[",
  "1e999",
  "999999999999999999",
  "\u2028",
  "\ud800",
] as const;
/** Blocks that a program may run here after a jump back. */
const STEPS = 3000;
const SPARE_MS = 50;

/**
 * Programs made of pieces, read, run and looked through: no throw, and none longer than three times its blocks at the
 * pace of plain ones, and a pause.
 */
export function fuzzPrograms(texts: number): boolean {
  const next = pickerOf(texts + 1);
  const programs = (number: number) => (number === 1 ? "G0X#1\n#1=#1+1\nM99" : null);
  const run = (text: string, dialect: Dialect): number => {
    const program = readProgram(text, dialect);
    const options = { startUnits: "mm", programs, stepLimit: STEPS } as const;
    let steps = 0;
    for (const step of interpret(program, options)) steps += step.type === "move" ? 1 : 0;
    programFacts(text, dialect, options);
    return Math.max(program.blocks.length, steps, STEPS);
  };
  const plain = Array.from({ length: 20_000 }, (_, i) => `G1 X${i % 50} Y${i % 30} F100`).join("\n");
  run(plain, "mill");
  const from = performance.now();
  run(plain, "mill");
  const msPerBlock = (performance.now() - from) / 20_000;
  let throws = 0;
  let late = 0;
  let longest = 0;
  for (let turn = 0; turn < texts; turn++) {
    const pieces = Array.from({ length: 1 + Math.floor(next() * 24) }, () => {
      const piece = PROGRAM_PIECES[Math.floor(next() * PROGRAM_PIECES.length)] ?? "";
      return next() < 0.3 ? `${piece}${Math.floor(next() * 40) - 5}` : piece;
    });
    const text = pieces.join("");
    const dialect = turn % 2 === 0 ? "mill" : "lathe";
    const start = performance.now();
    try {
      const blocks = run(text, dialect);
      const allowed = SPARE_MS + 3 * 3 * blocks * msPerBlock;
      const ms = performance.now() - start;
      longest = Math.max(longest, ms);
      // a pause of the machine is no fault of the reader: what was late is run again
      if (ms > allowed) {
        const again = performance.now();
        run(text, dialect);
        if (performance.now() - again > allowed) {
          late += 1;
          if (late < 4) process.stdout.write(`late by ${(ms - allowed).toFixed(0)} ms: ${JSON.stringify(text)}\n`);
        }
      }
    } catch (error) {
      throws += 1;
      if (throws < 4) process.stdout.write(`threw on ${JSON.stringify(text)}: ${String(error)}\n`);
    }
  }
  report(
    `${texts.toLocaleString("en")} programs read, run, looked through`,
    `${throws} throws, ${late} late`,
    "goal 0, 0",
    `longest ${longest.toFixed(1)} ms, plain blocks ${(msPerBlock * 1000).toFixed(1)} µs each`,
  );
  return throws === 0 && late === 0;
}

/** Values that a client may put into any field. */
const VALUES = [
  null,
  true,
  false,
  0,
  1,
  -1,
  7,
  1e9,
  -1e9,
  0.5,
  NaN,
  "",
  "x",
  "y",
  "z",
  "tool1",
  "G54.x",
  "H1",
  "X1",
  "constructor",
  "1e999",
  "-310.4",
  "face",
  "diameter",
  "length",
  "paper",
  "edgeFinder",
  "probe",
  [],
  {},
  ["x"],
  "forward",
  "coarse",
  "fine",
  "G0 X1 Z1",
  "G1 X-5 Z-5 F80",
] as const;

/** Whole commands against the bench of every machine: what the schema lets through may be refused, and never throws. */
export function fuzzCommands(turns: number): boolean {
  const next = pickerOf(turns + 1);
  const shapes = commandSchema.options as readonly { shape: Record<string, unknown> }[];
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)] as T;
  let [throws, tried, done] = [0, 0, 0];
  const opened = (exercise: (typeof demoExercises)[number]["exercise"], seed: string): LaneState => {
    const state = evolve(null, openLane(exercise, seed, false));
    const home = decide(state, { type: "home" });
    return home.ok ? home.value.reduce<LaneState>(evolve, state) : state;
  };
  const lanes = demoExercises.map(({ exercise }) => {
    let state = opened(exercise, `fuzz ${turns}`);
    let asked = 0;
    return {
      id: exercise.id,
      ask: (command: Command) => {
        // a lane that is handed in or has struck something answers little more: another one is begun
        if (state.isHandedIn || state.isStopped || ++asked % 400 === 0) state = opened(exercise, `fuzz ${asked}`);
        const decided = decide(state, command);
        if (!decided.ok) return;
        done += 1;
        state = decided.value.reduce<LaneState>(evolve, state);
      },
    };
  });
  for (let turn = 0; turn < turns; turn++) {
    const { shape } = pick(shapes);
    const type = (shape["type"] as { value?: string }).value;
    const raw = Object.fromEntries(
      Object.keys(shape).map((key) => [key, key === "type" ? type : valueFor(shape[key], pick)]),
    );
    const parsed = commandSchema.safeParse(raw);
    if (!parsed.success) continue;
    tried += 1;
    const lane = pick(lanes);
    try {
      lane.ask(parsed.data);
    } catch (error) {
      throws += 1;
      if (throws < 6) process.stdout.write(`${lane.id} threw on ${JSON.stringify(raw)}: ${String(error)}\n`);
    }
  }
  report(
    `${tried.toLocaleString("en")} commands, ${lanes.length} benches`,
    `${throws} throws`,
    "goal 0",
    `${done.toLocaleString("en")} of them did something`,
  );
  return throws === 0 && tried > turns / 50;
}

/** A value for a field: one of its own choices where it has such, and anything else otherwise. */
function valueFor(schema: unknown, pick: <T>(list: readonly T[]) => T): unknown {
  const held = schema as { options?: readonly unknown[]; values?: Iterable<unknown>; def?: { innerType?: unknown } };
  if (held.def?.innerType) return pick([undefined, valueFor(held.def.innerType, pick)]);
  const own = Array.isArray(held.options) ? held.options.filter((one) => typeof one === "string") : [];
  return own.length > 0 && pick([true, true, false]) ? pick(own) : pick(VALUES);
}
