import type { Observation } from "@probe-lane/core/bench";
import { programFacts, type Dialect } from "@probe-lane/core/gcode";
import { linesSeen, type AskSeen, type RestPlace } from "@probe-lane/core/machines/program";
import { toolName } from "@probe-lane/core/instruments";
import { lengthSum, turretSum } from "@probe-lane/core/registers";
import { scales, toMm } from "@probe-lane/core/units";
import type { Bench } from "./bench";
import { workParts, type PartHabits } from "./parts";
import { door, machineMm, moveTo, reachIn, text } from "./moves";

/** What somebody proves otherwise than a careful student. */
export interface ProvingHabits extends PartHabits {
  /** Looks nothing up, and calls everything sound. */
  looksNothingUp?: boolean;
  /** Does not look at the deepest point, nor hold the run near the part. */
  justRuns?: boolean;
  /** Leaves the program where it is. */
  runsNothing?: boolean;
}

/** A gap further from the display than this does not agree with it, by eye, mm. */
const ALIKE_MM = 1.6;
/** A jaw or chuck this little over the tip, by eye, is one that would be hit, mm. */
const NEAR_MM = 0.6;
/** So far beside the blank a tool is let down, mm. */
const BESIDE_MM = 40;
/** Where a run is held to look at the gap, mm over the part. */
const HELD_BELOW_MM = 60;
/** So much of a run at a time, up to its first approach and after it. */
const SLOW_MS = 1000;
const FAST_MS = 20_000;
const MOST_TURNS = 4000;

const dialectOf = ({ kind }: Observation): Dialect => (kind === "mill" ? "mill" : "lathe");

function linesOf({ program, sheet }: Observation): readonly string[] {
  return program ? linesSeen(program, sheet.programs) : [];
}

/** Which row a tool is called with, as it stands in the program; null where none is. */
function rowIn(seen: Observation, tool: number): number | null {
  const lines = linesOf(seen);
  if (seen.kind !== "mill") {
    const word = lines.map((line) => new RegExp(`T0?${tool}(\\d\\d)\\b`).exec(line)?.[1]).find(Boolean);
    return word === undefined ? null : Number(word) || null;
  }
  const from = lines.findIndex((line) => new RegExp(`\\bT${tool}\\b`).test(line));
  const called = lines.slice(from).find((line) => /\bG43\b/.test(line));
  return from === -1 || !called ? null : Number(/H(\d+)/.exec(called)?.[1] ?? 0) || null;
}

function rowMm({ kind, registers, sheet }: Observation, row: number | null): number {
  if (row === null) return 0;
  const counts = kind === "mill" ? lengthSum(registers, row) : turretSum(registers.turret, "z", row);
  return toMm(counts, scales[sheet.unit]);
}

/** The speed that stands nearest after a tool's word. */
function spindleIn(seen: Observation, tool: number): string {
  const lines = linesOf(seen);
  const word = seen.kind === "mill" ? new RegExp(`\\bT${tool}\\b`) : new RegExp(`T0?${tool}\\d\\d\\b`);
  const from = lines.findIndex((line) => word.test(line));
  const line = lines.slice(Math.max(0, from)).find((one) => /M0?[34]\b/.test(one) || /\bG65\b/.test(one)) ?? "";
  if (!/M0?[34]\b/.test(line)) return "stopped";
  return `${/M0?4\b/.test(line) ? "reverse" : "forward"} ${/S(\d+)/.exec(line)?.[1] ?? "0"}`;
}

const unitOf: Readonly<Record<string, "mm" | "inch">> = { "0": "inch", "1": "mm" };

const wearRows = ({ registers, kind }: Observation): number[] =>
  [1, 2, 3, 4, 5, 6, 7, 8].filter((row) =>
    kind === "mill"
      ? (registers.lengthWear[row] ?? 0) !== 0
      : (registers.turret?.xw[row] ?? 0) !== 0 || (registers.turret?.zw[row] ?? 0) !== 0,
  );

/** Tool words after the first: the line of the last Z before each, and how far before Z 0 the next tip stands there. */
function swings(seen: Observation): { at: number; mm: number }[] {
  const found: { at: number; mm: number }[] = [];
  let last: { at: number; z: number; row: number } | null = null;
  let row = 0;
  for (const [at, line] of linesOf(seen).entries()) {
    const words = line.replace(/\(.*\)/, "");
    const next = /\bT0?\d(\d\d)\b/.exec(words)?.[1];
    if (next !== undefined) {
      if (last) found.push({ at: last.at, mm: last.z + rowMm(seen, last.row) - rowMm(seen, Number(next)) });
      row = Number(next);
    }
    const z = /\bZ(-?[\d.]+)/.exec(words)?.[1];
    if (z !== undefined) last = { at, z: Number(z), row };
  }
  return found;
}

/** What a careful reader reads for an ask, and whether it is as the sheet wants it. */
function answer(lane: Bench, { ask, tool }: Pick<AskSeen, "ask" | "tool">): { text: string; isSound: boolean } {
  const { seen } = lane;
  const { sheet, registers } = seen;
  const lines = linesOf(seen);
  const facts = programFacts(lines.join("\n"), dialectOf(seen), { startUnits: sheet.unit, figures: "mm" });
  const operation = sheet.operations?.find((one) => one.tool === tool);
  switch (ask) {
    case "program": {
      const number = Number(/O(\d+)/.exec(lines.join("\n"))?.[1] ?? 0);
      return { text: `O${number}`, isSound: sheet.program === undefined || number === sheet.program };
    }
    case "units": {
      const said = lines.map((line) => /G2([01])\b/.exec(line)?.[1]).find(Boolean);
      const unit = unitOf[said ?? ""] ?? sheet.unit;
      return { text: unit, isSound: unit === sheet.unit };
    }
    case "offset": {
      const frames = [...new Set(facts.calls.map(({ frame }) => frame))];
      return { text: frames.join(", "), isSound: frames.join() === "G54" };
    }
    case "lift": {
      const shift = Number(lines.map((line) => /\bG52\b.*?Z(-?[\d.]+)/.exec(line)?.[1]).find(Boolean) ?? 0);
      const liftMm = toMm(registers.common.z, scales[sheet.unit]) + shift;
      return { text: text(lane, liftMm), isSound: liftMm === 0 };
    }
    case "swing": {
      const least = Math.min(...swings(seen).map(({ mm }) => mm));
      return Number.isFinite(least) ? { text: text(lane, least), isSound: least > 0 } : { text: "none", isSound: true };
    }
    case "travel":
    case "pockets":
      return { text: "none", isSound: true };
    case "hangs": {
      const isTool = seen.kind !== "mill" || seen.holds === null || /^tool/.test(seen.holds);
      return { text: isTool ? "none" : "instrument", isSound: isTool };
    }
    case "wear": {
      const rows = wearRows(seen);
      const isMeant = seen.kind === "mill" && seen.sheet.lengthSchools.includes("block-in-wear");
      return { text: rows.length === 0 ? "none" : rows.join(", "), isSound: rows.length === 0 || isMeant };
    }
    case "rows": {
      const row = rowIn(seen, tool ?? 0);
      return { text: row === null ? "none" : String(row), isSound: row === tool };
    }
    case "held": {
      const row = rowIn(seen, tool ?? 0);
      const mm = rowMm(seen, row);
      return { text: text(lane, mm), isSound: mm !== 0 };
    }
    case "spindle": {
      const said = spindleIn(seen, tool ?? 0);
      return { text: said, isSound: said === (operation?.rpm === 0 ? "stopped" : `forward ${operation?.rpm ?? 0}`) };
    }
    case "gaugedWay": {
      const ways = [...new Set(lines.flatMap((line) => /\bP9501\b.*?Q(\d+)/.exec(line)?.[1] ?? []))];
      return { text: ways.join(", ") || "none", isSound: ways.join() === String(sheet.gauging?.way ?? "") };
    }
    case "matters": {
      const mattering = matteringTool(lane);
      return { text: mattering ? `${mattering.tool} ${mattering.over}` : "none", isSound: true };
    }
    case "deepest": {
      const deepest = Math.min(
        ...facts.calls.flatMap((call) => (call.tool === tool && call.reach?.z ? [call.reach.z[0]] : [])),
      );
      return {
        text: text(lane, deepest),
        isSound: operation === undefined || Math.abs(deepest - operation.deepestMm) < 0.001,
      };
    }
  }
}

function lookUpAll(lane: Bench): void {
  for (const { ask, tool } of (lane.seen.program?.asks ?? []).filter(({ said }) => said === null))
    lane.do({ type: "lookUp", ask, ...(tool === null ? {} : { tool }), ...answer(lane, { ask, tool }) });
}

/** Words of a program's remark that tell a kind of tool. */
const KINDS_SAID: Readonly<Record<string, RegExp>> = {
  endMill: /END MILL/,
  drill: /^DRILL/,
  spotDrill: /SPOT DRILL/,
  turning: /TURNING/,
  boring: /BORING/,
  parting: /PARTING/,
};

/** The tool of the sheet that a line's remark names; null where it names none. */
function toolSaid(seen: Observation, line: string): number | null {
  const remark = /\((.*)\)/.exec(line)?.[1];
  if (remark === undefined) return null;
  const tools: readonly { number: number; kind: string; size: number | null }[] =
    seen.kind === "mill"
      ? seen.sheet.tools.map(({ number, kind, diameterMm }) => ({ number, kind, size: diameterMm }))
      : seen.sheet.lathe.tools.map(({ number, kind }) => ({ number, kind, size: null }));
  const size = Number(/([\d.]+)$/.exec(remark)?.[1] ?? NaN);
  const found = tools.find(
    (tool) => KINDS_SAID[tool.kind]?.test(remark) && (tool.size === null || Math.abs(tool.size - size) < 1e-6),
  );
  return found?.number ?? null;
}

/** A line as it should stand, where a reader sees what is wrong with it; null where nothing is. */
function mendedLine(seen: Observation, line: string, tool: number | null): string | null {
  const { sheet } = seen;
  const units = sheet.unit === "mm" ? /\bG20\b/ : /\bG21\b/;
  if (units.test(line)) return line.replace(units, sheet.unit === "mm" ? "G21" : "G20");
  if (/\bG52\b/.test(line)) return line.replace(/\bG52\b.*/, "").trim();
  if (/\bP9501\b/.test(line)) return line.replace(/\bQ\d+/, `Q${sheet.gauging?.way ?? ""}`);
  if (/\bG5[5-9]\b/.test(line)) return line.replace(/\bG5[5-9]\b/, "G54");
  const operation = sheet.operations?.find((one) => one.tool === tool);
  const row = seen.kind === "mill" ? /\bH(\d+)/.exec(line)?.[1] : /T0?(\d)0?(\d)\b/.exec(line)?.[2];
  if (tool !== null && row !== undefined && Number(row) !== tool)
    return seen.kind === "mill"
      ? line.replace(/\bH\d+/, `H${tool}`)
      : line.replace(/T0?(\d)0?\d\b/, `T0${tool}0${tool}`);
  const depth = /Z(-\d+\.?\d*)/.exec(line)?.[1];
  if (depth === undefined || operation === undefined || /G53/.test(line)) return null;
  if (Number(depth) < operation.deepestMm - 0.001) return line.replace(`Z${depth}`, `Z${operation.deepestMm}.`);
  // down into the part in rapid is fed instead
  return /\bG0\b/.test(line) ? `${line.replace(/\bG0\b/, "G1")} F${seen.kind === "mill" ? 120 : 0.1}` : null;
}

function mendAll(lane: Bench): void {
  for (const { at, mm } of lane.seen.kind === "mill" ? [] : swings(lane.seen))
    if (mm <= 0) lane.do({ type: "mendLine", line: at + 1, text: "X150. Z100." });
  let tool: number | null = null;
  for (const [at, line] of linesOf(lane.seen).entries()) {
    const word = lane.seen.kind === "mill" ? /\bT(\d)\b/ : /\bT0?(\d)\d\d\b/;
    const called = Number(word.exec(line)?.[1] ?? 0) || null;
    const meant = called === null ? null : toolSaid(lane.seen, line);
    tool = meant ?? called ?? tool;
    if (meant !== null && meant !== called && lane.seen.kind === "mill") {
      lane.do({ type: "mendLine", line: at + 1, text: line.replace(word, `T${meant}`).trim() });
      continue;
    }
    const mended = mendedLine(lane.seen, line.replace(/\(.*\)/, ""), tool);
    if (mended !== null && mended.trim() !== line.trim())
      lane.do({ type: "mendLine", line: at + 1, text: mended.trim() });
  }
}

/** How far the tip stands over the part's zero, by eye, mm. */
function gapSeen({ seen }: Bench): number {
  if (seen.kind === "mill")
    return toMm(seen.machine.z, scales[seen.sheet.unit]) - seen.heldLengthMm - seen.solids.stock.highZ;
  return seen.lathe.tip.zMm - seen.lathe.tip.faceMm;
}

const displayZ = ({ seen }: Bench): number => toMm(seen.work.z, scales[seen.sheet.unit]);

/** The tool that is fed deepest where it stands over a jaw by its own radius, or nearest to the chuck. */
function matteringTool({ seen }: Bench): { tool: number; lowMm: number; over: RestPlace } | null {
  const facts = programFacts(linesOf(seen).join("\n"), dialectOf(seen), { startUnits: seen.sheet.unit, figures: "mm" });
  const over = (tool: number, cutY: readonly [number, number] | null): RestPlace | null => {
    if (seen.kind !== "mill") return "chuck";
    const { datum, partSizeMm, tools, fixture } = seen.sheet;
    const radius = (tools.find(({ number }) => number === tool)?.diameterMm ?? 0) / 2;
    const depth = partSizeMm[1];
    const edge = datum.kind === "corner" ? datum.edges.y : null;
    const front = edge ? edge.edgeWorkMm - (edge.approach === 1 ? 0 : depth) : -depth / 2;
    if (cutY === null || fixture.kind !== "vise") return null;
    const isFixedBehind = fixture.fixedJaw === "back";
    if (cutY[1] + radius > front + depth) return isFixedBehind ? "fixedJaw" : "movingJaw";
    if (cutY[0] - radius < front) return isFixedBehind ? "movingJaw" : "fixedJaw";
    return null;
  };
  const [deepest] = facts.calls
    .flatMap(({ tool, reach }) => {
      const place = reach ? over(tool, reach.cutY) : null;
      return reach?.cutZ && place ? [{ tool, lowMm: reach.cutZ[0], over: place }] : [];
    })
    .sort((a, b) => a.lowMm - b.lowMm);
  return deepest ?? null;
}

function lookBeside(lane: Bench): void {
  const mattering = matteringTool(lane);
  if (!mattering) return;
  const { tool, lowMm } = mattering;
  if (lane.seen.kind === "mill") {
    moveTo(lane, { z: 0 });
    if (lane.seen.kind === "mill" && lane.seen.holds !== toolName(tool))
      lane.do({ type: "runBlock", text: `T${tool} M6` });
    const { low, high } = lane.seen.boxes.stock;
    moveTo(lane, { x: low.x - BESIDE_MM, y: (low.y + high.y) / 2 });
    lane.do({ type: "runBlock", text: `G43 H${tool} G1 Z${text(lane, lowMm)} F500` });
  } else {
    moveTo(lane, { x: 0, z: 0 });
    lane.do({ type: "runBlock", text: `T0${tool}0${tool}` });
    lane.do({ type: "runBlock", text: `G0 X${text(lane, lane.seen.sheet.partSizeMm[1] + 40)}` });
    lane.do({ type: "runBlock", text: `G0 Z${text(lane, lowMm)}` });
  }
  lane.do({ type: "judgeDeepest", tool, outcome: wouldHit(lane) ? "wouldHit" : "clear" });
  moveTo(lane, lane.seen.kind === "mill" ? { z: 0 } : { x: 0, z: 0 });
}

/** Whether the tip, looked at from the side, stands lower than what holds the part. */
function wouldHit(lane: Bench): boolean {
  const { seen } = lane;
  if (seen.kind !== "mill") return seen.lathe.tip.zMm <= seen.lathe.tip.jawMm + NEAR_MM;
  const tip = machineMm(lane, "z") - seen.heldLengthMm;
  const jaw = Math.max(seen.solids.backJaw?.highZ ?? -Infinity, seen.solids.frontJaw?.highZ ?? -Infinity);
  return tip < jaw + NEAR_MM;
}

function runOn(lane: Bench, ms: number): void {
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const run = lane.seen.program?.run;
    if (!run || run.held) return;
    lane.do({ type: "runOn", ms });
  }
}

/** The whole program lifted clear, and the lift taken off again. */
function runInAir(lane: Bench): void {
  const lift = (text: string) =>
    lane.do({ type: "typeRegister", register: "common.z", text, how: "set", isConfirmed: true });
  lift("30");
  door(lane, false);
  lane.do({ type: "startCycle" });
  runOn(lane, FAST_MS);
  lift("0");
}

/** Block by block and slowly to the first approach, the gap beside the display, then on to the end. */
function runIt(lane: Bench, { justRuns }: ProvingHabits): void {
  door(lane, false);
  const looks = !justRuns && (lane.seen.sheet.proving ?? []).includes("gapCompared");
  if (looks) lane.do({ type: "setPace", isSingle: true, rapidPercent: 25 });
  lane.do({ type: "startCycle" });
  for (let block = 0; looks && block < MOST_TURNS; block++) {
    runOn(lane, SLOW_MS);
    if (!lane.seen.program?.run) return;
    if (displayZ(lane) <= HELD_BELOW_MM && gapSeen(lane) < HELD_BELOW_MM * 2) {
      const gap = gapSeen(lane);
      lane.do({ type: "sayGap", text: text(lane, gap), isAlike: Math.abs(gap - displayZ(lane)) <= ALIKE_MM });
      lane.do({ type: "setPace", isSingle: false, rapidPercent: 100 });
      break;
    }
    lane.do({ type: "resumeCycle" });
  }
  if (lane.seen.program?.run?.held) lane.do({ type: "resumeCycle" });
  runOn(lane, FAST_MS);
}

/** Takes the program of the part, proves it as the sheet asks, and runs it; nothing where there is none. */
export function proveProgram(lane: Bench, habits: ProvingHabits): void {
  const { program, proving = [] } = lane.seen.sheet;
  if (program === undefined || lane.seen.isStopped || habits.runsNothing) return;
  if (lane.seen.kind === "mill") {
    moveTo(lane, { z: 0 });
    if (lane.seen.kind === "mill" && lane.seen.holds !== null) {
      reachIn(lane);
      lane.do({ type: "unload" });
    }
  } else moveTo(lane, { x: 0, z: 0 });
  if (lane.seen.program?.number !== program) lane.do({ type: "loadProgram", number: program, isConfirmed: false });
  if (proving.includes("lookedUp") && !habits.looksNothingUp) {
    lookUpAll(lane);
    mendAll(lane);
    lookUpAll(lane);
  }
  if (proving.includes("airRun") && !habits.justRuns) {
    runInAir(lane);
    lookUpAll(lane);
  }
  if (proving.includes("deepestBeside") && !habits.justRuns) {
    door(lane, false);
    lookBeside(lane);
  }
  runIt(lane, habits);
  workParts(lane, habits, () => {
    // what a correction took back is looked up again
    if (proving.includes("lookedUp") && !habits.looksNothingUp) lookUpAll(lane);
    // an alarm leaves it where it gauged
    if (lane.seen.kind === "mill") moveTo(lane, { z: 0 });
    lane.do({ type: "startCycle" });
    runOn(lane, FAST_MS);
  });
}
