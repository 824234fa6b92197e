import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";
import { interpret, readProgram, listMoves } from "@probe-lane/core/gcode";
import { partsCut, replay } from "@probe-lane/core/bench";
import { millRay, millSweeps, topsAfter, type Ray, type Sweep } from "@probe-lane/core/inspection";
import { proveMill, type MillWorld } from "@probe-lane/core/proving";
import { latheLane, millLane, workLane } from "@probe-lane/students";
import { clearLength } from "../packages/core/inspection/rays";
import { isPassed } from "../packages/core/inspection/sweep";
import { findDemoExercise } from "../demo";
import { medianMs, quantile, report } from "./measure";

setFlagsFromString("--expose_gc");
/** Leaves on the heap only what is held. */
const collect = runInNewContext("gc") as () => void;

/** Plain blocks of about a millimetre, as a surface is written by a program that writes programs. */
export function plainBlocks(count: number): string {
  const lines = ["%", "O1 (bench)", "G21 G17 G90 G94", "T1 M6", "M3 S3000", "G0 X0 Y0", "G43 H1 Z2", "G1 Z-1 F400"];
  for (let i = 0; i < count; i++) {
    const row = Math.floor(i / 60);
    const step = i % 60;
    const x = 10 + (row % 2 === 0 ? step : 60 - step);
    lines.push(
      `X${(x + 0.001 * (i % 7)).toFixed(3)} Y${(5 + (row % 40)).toFixed(3)} Z${(-1 - (i % 11) / 100).toFixed(3)}`,
    );
  }
  lines.push("G0 Z40", "M30", "%");
  return lines.join("\n");
}

/** The same over a plate of 160 by 110, row beside row. */
function surfaceBlocks(count: number): string {
  const lines = ["%", "O2 (bench)", "G21 G17 G90 G94", "T1 M6", "M3 S3000", "G54 G0 X5 Y5", "G43 H1 Z2", "G1 Z-1 F400"];
  for (let i = 0; i < count; i++) {
    const row = Math.floor(i / 150);
    const x = row % 2 === 0 ? i % 150 : 150 - (i % 150);
    lines.push(`X${5 + x} Y${(5 + row * 0.3).toFixed(3)} Z${(-1 - (i % 11) / 100).toFixed(3)}`);
  }
  return [...lines, "G0 Z40", "M30", "%"].join("\n");
}

const WORDS = /([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))/g;

/** As little as can be done with a program: every word told apart by one regular expression, and counted. */
function splitWords(text: string): number {
  let count = 0;
  for (const line of text.split("\n")) for (const match of line.matchAll(WORDS)) count += match.length > 0 ? 1 : 0;
  return count;
}

const seconds = (run: () => unknown): number => {
  const start = performance.now();
  run();
  return (performance.now() - start) / 1000;
};
const best = (times: number, run: () => unknown): number =>
  Math.min(...Array.from({ length: times }, () => seconds(run)));

function runAll(text: string): number {
  let moves = 0;
  for (const step of interpret(readProgram(text, "mill"), { startUnits: "mm" })) if (step.type === "move") moves += 1;
  return moves;
}

const world: MillWorld = {
  datum: [-300, -200, -400],
  tools: new Map([
    [
      1,
      {
        length: 100,
        diameter: 10,
        shape: "flat",
        fluteLength: 25,
        shankDiameter: 10,
        holder: { diameter: 40, length: 50 },
      },
    ],
  ]),
  stock: { min: [0, 0, -20], max: [80, 50, 0] },
  solids: [
    { id: "jaw-back", min: [-20, 50, -60], max: [100, 76, -10] },
    { id: "jaw-front", min: [-20, -26, -60], max: [100, 0, -10] },
    { id: "parallel-front", min: [-5, 3, -40], max: [85, 9, -20] },
    { id: "parallel-back", min: [-5, 41, -40], max: [85, 47, -20] },
    { id: "vise-bed", min: [-20, -26, -100], max: [100, 76, -40] },
    { id: "table", min: [-260, -160, -140], max: [360, 260, -100] },
  ],
  travel: { min: [-650, -420, -500], max: [2, 2, 2] },
  home: [0, 0, 0],
};

/** A lane whose program runs: how long a quarter second of it takes the server, beside a jog of the same lane. */
function benchRun(): void {
  const { exercise } = findDemoExercise("plate-program-top");
  const sound = Array.from({ length: 60 }, (_, i) => `bench ${i}`).find(
    (seed) => millLane(exercise, seed).state.truth.programFault === null,
  );
  const lane = millLane(exercise, sound ?? "bench");
  workLane(lane, { stopsAfter: "zero" });
  for (const command of [
    { type: "runBlock", text: "G53 G0 Z0" },
    { type: "setDoor", isOpen: true },
    { type: "unload" },
    { type: "setDoor", isOpen: false },
  ] as const)
    lane.do(command);
  const jog = medianMs(40, () => lane.do({ type: "jog", axis: "x", direction: 1, clicks: 1, size: "coarse" }));
  lane.do({ type: "loadProgram", number: 2041, isConfirmed: false });
  lane.do({ type: "startCycle" });
  const slices: number[] = [];
  while (lane.state.program.run) {
    const from = performance.now();
    lane.do({ type: "runOn", ms: 250 });
    slices.push(performance.now() - from);
  }
  if (lane.state.program.last?.why !== "end") throw new Error("bench: the program did not come to its end");
  report(
    "a quarter second of a run",
    `${quantile(slices, 0.5).toFixed(2)} ms, p95 ${quantile(slices, 0.95).toFixed(1)}, most ${Math.max(...slices).toFixed(0)}`,
    "no goal",
    `${(quantile(slices, 0.5) / jog).toFixed(1)} × a jog, ${slices.length} slices`,
  );
}

/** Sixty rays through what 50,000 moves cleared, beside the same rays past every one of them; and their relief. */
function benchInspection(): void {
  const text = surfaceBlocks(50_000);
  const registers = {
    common: [0, 0, 0] as const,
    work: new Map([["G54", [-300, -200, -400] as const]]),
    lengths: new Map([[1, 100]]),
  };
  const truth = {
    datum: [-300, -200, -400] as const,
    tools: new Map([[1, { length: 100, end: { radius: 3, underside: () => 0 } }]]),
  };
  const { sweeps } = millSweeps(readProgram(text, "mill"), registers, new Map(), truth, "mm");
  const rays = Array.from({ length: 60 }, (_, i) => ({
    from: [15 + (i % 10) * 13, 8 + Math.floor(i / 10) * 15, -1.05] as const,
    to:
      (
        [
          [0, 0, -1],
          [1, 0, 0],
          [0, 1, 0],
        ] as const
      )[i % 3] ?? ([0, 0, -1] as const),
  }));
  const found = seconds(() => rays.forEach((ray) => millRay(sweeps, ray)));
  const linear = seconds(() => rays.slice(0, 6).forEach((ray) => linearRay(sweeps, ray))) * (rays.length / 6);
  report(
    "50,000 moves × 60 rays",
    `${found.toFixed(2)} s`,
    "goal 1.5 s; 20 × a linear scan",
    `${(linear / found).toFixed(0)} × a linear scan`,
  );
  const start = performance.now();
  const { tops } = topsAfter(sweeps, [0, 0, -20], [160, 110, 0], 0.25);
  const took = (performance.now() - start) / 1000;
  const fill = best(5, () => new Float64Array(tops.length).fill(1).reduce((sum, one) => sum + one, 0));
  report(
    "relief 160 × 110 at 0.25 mm",
    `${took.toFixed(2)} s`,
    "goal 3 s",
    `${tops.length} cells, ${(took / fill).toFixed(0)} × filling and summing them`,
  );
}

/** A ray past every sweep, whichever it can meet. */
function linearRay(sweeps: readonly Sweep[], { from, to }: Ray<readonly [number, number, number]>): number | null {
  const rooms = sweeps.map((sweep) => ({
    range: [0, 200] as const,
    isConvex: true,
    isIn: (along: number) => isPassed(sweep, from[0] + to[0] * along, from[1] + to[1] * along, from[2] + to[2] * along),
  }));
  return clearLength(rooms, 1e4);
}

/** A turned part, every feature of it, from its run. */
function benchTurnedPart(): void {
  const { exercise } = findDemoExercise("knob-first-part");
  const lane = latheLane(exercise, "bench");
  workLane(lane, { corrects: "nothing" });
  const log = lane.log.map(({ event }) => event);
  const replayed = medianMs(5, () => replay(log));
  const cut = medianMs(5, () => partsCut(replay(log)));
  report(
    "a turned part, seven features",
    `${(cut - replayed).toFixed(0)} ms`,
    "goal 200 ms",
    `${((cut - replayed) / replayed).toFixed(1)} × folding its lane`,
  );
}

/** Reading, running and proving a long program. */
export function benchProgram(): void {
  benchRun();
  benchTurnedPart();
  const text = plainBlocks(50_000);
  runAll(text);
  splitWords(text);
  const split = best(5, () => splitWords(text));
  const read = best(5, () => runAll(text));
  report(
    "read and run 50,000 plain blocks",
    `${Math.round(((50_000 / read) * 60) / 1000) / 1000} million a minute`,
    "goal 3 million; 0.05 × splitting into words",
    `${(split / read).toFixed(2)} × splitting`,
  );
  const long = plainBlocks(200_000);
  collect();
  const before = process.memoryUsage().heapUsed;
  const program = readProgram(long, "mill");
  collect();
  const held = (process.memoryUsage().heapUsed - before) / 2 ** 20;
  report("200,000 blocks held", `${held.toFixed(0)} MB`, "goal 300 MB", `${program.blocks.length} blocks`);
  const registers = {
    common: [0, 0, 0] as const,
    work: new Map([["G54", [-300, -200, -400] as const]]),
    lengths: new Map([[1, 100]]),
  };
  const moves = listMoves(text, "mill", { startUnits: "mm" });
  const checked = seconds(() => {
    const found = proveMill(readProgram(text, "mill"), registers, world, "mm");
    if (found) throw new Error(`bench: ${JSON.stringify(found)}`);
  });
  report(
    "50,000 moves against stock and six solids",
    `${checked.toFixed(2)} s`,
    "goal 3 s",
    `${"moves" in moves ? moves.moves.length : 0} moves, ${(checked / read).toFixed(1)} × reading and running them`,
  );
  benchInspection();
}
