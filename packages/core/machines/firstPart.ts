import { programFacts, readProgram, type Dialect } from "../gcode";
import { readWhereItLies, verdictOf, type PartVerdict, type RunsClear } from "../inspection";
import { writeRegister, readRegister, turretRows, lengthRows, type RegisterId } from "../registers";
import { toCounts } from "../units";
import { type LaneState } from "./kits";
import { cutOnLathe } from "./lathe/firstPart";
import { latheProgramPorts } from "./lathe/program";
import { cutOnMill } from "./mill/firstPart";
import { millProgramPorts } from "./mill/program";
import { proveProgram, provableIn } from "./proving";

/** One feature of a part that was cut: what it measures, and which registers move it, by how much for each mm. */
export interface FeatureCut {
  readonly name: string;
  readonly nominalMm: number;
  readonly toleranceMm: readonly [number, number];
  readonly actualMm: number | null;
  readonly verdict: PartVerdict;
  readonly movedBy: readonly { readonly register: RegisterId; readonly factor: number }[];
}

/**
 * A register is moved by so much to see what it moves, mm. A factor below the second is none: a ray that no longer goes
 * through the middle of a hole reads it a little smaller, and that is the ray's doing.
 */
const NUDGE_MM = 0.02;
const LEAST_FACTOR = 0.15;
/** Factors are told to this: spring and noses make none of them finer. */
const FACTOR_STEP = 0.01;

const AXES = { mill: ["x", "y", "z"], lathe: ["x", "z"] } as const;

/** Registers that a program counts with: its work offsets, and the rows that it calls. */
function registersOf(state: LaneState, text: string, dialect: Dialect): RegisterId[] {
  const { calls } = programFacts(text, dialect, { startUnits: state.setup.unit, figures: "mm", isExpanding: true });
  const frames = [...new Set(calls.map(({ frame }) => frame))].filter((frame) => /^G5[4-9]$/.test(frame));
  const rows = [...new Set(calls.flatMap((call) => call.rows))].filter((row) => row !== null);
  const diameters = [...new Set(calls.flatMap(({ diameterRows }) => diameterRows))];
  const has = (list: readonly number[]) => (row: number) => list.includes(row);
  const ofRow = {
    mill: (row: number) => [`H${row}`],
    lathe: (row: number) => [`X${row}`, `Z${row}`],
  }[dialect];
  return [
    ...frames.flatMap((frame) => AXES[dialect].map((axis) => `${frame}.${axis}`)),
    ...rows.filter(has(dialect === "mill" ? lengthRows : turretRows)).flatMap(ofRow),
    ...diameters.filter(has(lengthRows)).map((row) => `D${row}`),
  ] as RegisterId[];
}

const cutter = (state: LaneState, text: string, dialect: Dialect): RunsClear | null => {
  const program = readProgram(text, dialect);
  return state.kind === "mill" ? cutOnMill(state, program) : cutOnLathe(state, program);
};

/**
 * Rays that begin a little before the wall that was found there, of a part that differs by no more than a nudge: what
 * lies before it was looked through already.
 */
function nearWalls(runs: RunsClear, known: ReadonlyMap<string, number>): RunsClear {
  return (from, way) => {
    const clear = known.get(rayKey(from, way));
    const skippedMm = (clear ?? 0) - BEFORE_WALL_MM;
    if (skippedMm <= 0) return runs(from, way);
    const near = from.map((at, i) => at + (way[i] ?? 0) * skippedMm * (from.length === 2 && i === 0 ? 2 : 1));
    const rest = runs(near, way);
    if (rest === null) return null;
    return rest > 0 ? rest + skippedMm : runs(from, way);
  };
}
const BEFORE_WALL_MM = 0.2;
const rayKey = (from: readonly number[], way: readonly number[]): string => `${from.join()} ${way.join()}`;

/** How far beside its place the part is cut, by the first work offset that the program calls, mm. */
function putsOff(state: LaneState, text: string, dialect: Dialect): readonly number[] {
  const [call] = programFacts(text, dialect, { startUnits: state.setup.unit }).calls;
  if (!call || !/^G5[4-9]$/.test(call.frame)) return [];
  return state.kind === "mill"
    ? millProgramPorts.putsOff(state, call.frame)
    : latheProgramPorts.putsOff(state, call.frame);
}

const round = (value: number, step: number): number => Math.round(value / step) * step;

/**
 * The part that a program cuts with the registers of a lane and its true tools, feature by feature; null where the
 * sheet names none, or where the run would not come to its end. Nothing springs, wears or warms. Reads the truth: for
 * lanes that were handed in.
 */
export function firstPart(state: LaneState, text: string): FeatureCut[] | null {
  const { features = [] } = state.setup;
  const dialect = provableIn(state);
  if (features.length === 0 || dialect === null) return null;
  if (
    proveProgram(state, text)?.kind !== "clear" ||
    programFacts(text, dialect, { startUnits: state.setup.unit }).writes.length > 0
  )
    return null;
  return featuresBy(state, text, (of) => cutter(of, text, dialect));
}

/**
 * Features of a part by the rays through what is cut with the registers of a lane, and what moves each. Nothing
 * springs, wears or warms in `raysOf`.
 */
export function featuresBy(state: LaneState, text: string, raysOf: (of: LaneState) => RunsClear | null): FeatureCut[] {
  const { features = [] } = state.setup;
  const dialect = state.kind === "mill" ? "mill" : "lathe";
  const known = new Map<string, number>();
  const off = putsOff(state, text, dialect);
  const read = (of: LaneState, look: (runs: RunsClear) => RunsClear): (number | null)[] => {
    const runs = raysOf(of);
    return features.map((feature) => (runs ? readWhereItLies(feature, AXES[dialect], look(runs), off) : null));
  };
  const actual = read(state, (runs) => (from, way) => {
    const clear = runs(from, way);
    if (clear !== null) known.set(rayKey(from, way), clear);
    return clear;
  });
  const by = toCounts(NUDGE_MM, state.scale);
  const moved = registersOf(state, text, dialect).map((register) => {
    const registers = writeRegister(state.registers, register, readRegister(state.registers, register) + by);
    return { register, values: read({ ...state, registers }, (runs) => nearWalls(runs, known)) };
  });
  return features.map((feature, at) => {
    const actualMm = actual[at] ?? null;
    return {
      name: feature.name,
      nominalMm: feature.nominalMm,
      toleranceMm: feature.toleranceMm,
      actualMm: actualMm === null ? null : round(actualMm, 1e-4),
      verdict: verdictOf(feature, actualMm),
      movedBy: moved.flatMap(({ register, values }) => {
        const after = values[at];
        if (actualMm === null || after == null) return [];
        const factor = round((after - actualMm) / NUDGE_MM, FACTOR_STEP);
        return Math.abs(factor) < LEAST_FACTOR ? [] : [{ register, factor }];
      }),
    };
  });
}
