import { interpret, type Move, type Program } from "../gcode";
import { type Flat } from "../gcode/compensation";
import { millOffset, type MillRegisters, millWays, type Stretch, UnknownTool } from "../proving";
import { type End, boundsOf, isPassed, type Sweep } from "./sweep";
import { nearRay } from "./nearby";
import { clearLength, type Cleared, inRectangle } from "./rays";

type Triple = readonly [number, number, number];

/** What really cuts: where the datum lies on the machine, and each tool's length and end. One length unit. */
export interface CuttingTruth {
  readonly datum: Triple;
  /** Null of what cuts nothing. */
  readonly tools: ReadonlyMap<number, { readonly length: number; readonly end: End } | null>;
}

export interface Ray<P> {
  readonly from: P;
  /** Any length but 0. */
  readonly to: P;
}

/** Farther than this no room of a program reaches. */
const FAR = 1e5;

/** What stands wrong in a program while it is cut. */
export interface CutProblem {
  readonly line: number;
  readonly code: string;
}

/** Only what is fed toward the part clears anything. */
export const isCutting = ({ kind, isMachineFrame, isReturn }: Move): boolean =>
  kind !== "rapid" && !isMachineFrame && !isReturn;

/** What stretches of a tool's way clear, as sweeps in the part frame. */
export const sweptByMill = (
  stretches: readonly Stretch[],
  { length, end }: { readonly length: number; readonly end: End },
  datum: Triple,
): Sweep[] =>
  stretches.map(({ piece, from, to }) => {
    const moved = ([x, y]: Flat): Flat => [x - datum[0], y - datum[1]];
    return {
      piece: { ...piece, from: moved(piece.from), to: moved(piece.to), center: piece.center && moved(piece.center) },
      end,
      fromZ: from - datum[2] - length,
      toZ: to - datum[2] - length,
    };
  });

/**
 * All that the fed moves of a program clear, run with these registers on a true machine that begins at (0, 0, 0):
 * `radii` is the compensation radius of each row. Throws `UnknownTool` and `UnknownRegister`.
 */
export function millSweeps(
  program: Program,
  registers: MillRegisters,
  radii: ReadonlyMap<number, number>,
  truth: CuttingTruth,
  startUnits: "mm" | "inch",
): { readonly sweeps: readonly Sweep[]; readonly problems: readonly CutProblem[] } {
  const sweeps: Sweep[] = [];
  const problems: CutProblem[] = [];
  const home = [0, 0, 0];
  const offset = (frame: string, row: number | null, sign: 1 | -1) => millOffset(registers, frame, row, sign);
  const steps = interpret(program, { startUnits, registers: { at: home, home, offset } });
  for (const step of millWays(steps, (row) => radii.get(row) ?? 0)) {
    if (step.type === "wrong") problems.push({ line: step.line, code: step.code });
    if (step.type !== "way" || !isCutting(step.move)) continue;
    const { tool: number, line } = step.move;
    const tool = number === null ? undefined : truth.tools.get(number);
    if (tool === undefined) throw new UnknownTool(number ?? 0, line);
    if (tool) sweeps.push(...sweptByMill(step.exact(), tool, truth.datum));
  }
  return { sweeps, problems };
}

/** Where along a ray it is over a floor; null where it never is. */
function over(floor: number, z: number, dz: number): readonly [number, number] | null {
  if (dz === 0) return z < floor ? null : [-Infinity, Infinity];
  const at = (floor - z) / dz;
  return dz > 0 ? [at, Infinity] : [-Infinity, at];
}

const roundOf = ({ piece, end }: Sweep) => boundsOf(piece, end.radius);

/** How far a ray in the part frame runs through what was cleared; null where it never leaves it. */
export function millRay(sweeps: readonly Sweep[], { from, to }: Ray<Triple>): number | null {
  const size = Math.hypot(...to);
  const way: Triple = [to[0] / size, to[1] / size, to[2] / size];
  const near = nearRay(sweeps, roundOf, [from[0], from[1]], [way[0], way[1]]);
  const rooms = near.map(({ thing: sweep, low, high }): Cleared => {
    const across = inRectangle([from[0], from[1]], [way[0], way[1]], low, high);
    const upward = over(Math.min(sweep.fromZ, sweep.toZ), from[2], way[2]);
    const range =
      across && upward ? ([Math.max(across[0], upward[0], 0), Math.min(across[1], upward[1], FAR)] as const) : null;
    return {
      range: range && range[0] <= range[1] ? range : null,
      // a straight way of a tool that is convex is convex
      isConvex: sweep.piece.center === null,
      isIn: (along) => isPassed(sweep, from[0] + way[0] * along, from[1] + way[1] * along, from[2] + way[2] * along),
    };
  });
  return clearLength(rooms, FAR / 2);
}
