import { interpret, movePoints, type Move, type Program } from "../gcode";
import { courses, type Flat, type Piece } from "../gcode/compensation";
import { millOffset, type MillRegisters, UnknownTool } from "../proving";
import { type End, boundsOf, isPassed, type Sweep } from "./sweep";
import { clearLength, type Cleared, inRectangle } from "./rays";

type Triple = readonly [number, number, number];

/** What really cuts: where the datum lies on the machine, and each tool's length and end. One length unit. */
export interface CuttingTruth {
  readonly datum: Triple;
  readonly tools: ReadonlyMap<number, { readonly length: number; readonly end: End }>;
}

export interface Ray<P> {
  readonly from: P;
  /** Any length but 0. */
  readonly to: P;
}

/** How near chords keep to an arc that does not lie in X Y: less than a tenth of a micrometre. */
const CHORD = 5e-5;
/** Farther than this no room of a program reaches. */
const FAR = 1e5;

/** What stands wrong in a program while it is cut. */
export interface CutProblem {
  readonly line: number;
  readonly code: string;
}

const flat = (place: readonly number[]): Flat => [place[0] ?? 0, place[1] ?? 0];

function pieceOf(move: Move): Piece {
  const isRound = move.center !== null && move.plane === 17;
  return {
    from: flat(move.from),
    to: flat(move.to),
    center: isRound ? move.center : null,
    isClockwise: move.kind === "cw",
  };
}

/** What one move and the roll before it clear, as sweeps in the part frame. */
function sweepsOf(
  move: Move,
  pieces: readonly { readonly piece: Piece; readonly from: number; readonly to: number }[],
  truth: CuttingTruth,
): Sweep[] {
  const tool = move.tool === null ? undefined : truth.tools.get(move.tool);
  if (!tool) throw new UnknownTool(move.tool ?? 0, move.line);
  const { machine, from } = move;
  if (!machine) return [];
  const shift = machine.from.map((at, axis) => at - (from[axis] ?? 0) - (truth.datum[axis] ?? 0));
  const moved = ([x, y]: Flat): Flat => [x + (shift[0] ?? 0), y + (shift[1] ?? 0)];
  const height = (z: number): number => z + (shift[2] ?? 0) - tool.length;
  return pieces.map(({ piece, from: low, to: high }) => ({
    piece: { ...piece, from: moved(piece.from), to: moved(piece.to), center: piece.center && moved(piece.center) },
    end: tool.end,
    fromZ: height(low),
    toZ: height(high),
  }));
}

/** An arc in a plane that stands upright, as chords. */
function uprightChords(move: Move): { piece: Piece; from: number; to: number }[] {
  const points = movePoints(move, false, CHORD);
  return points.slice(1).map((to, i) => {
    const from = points[i] ?? to;
    const piece = { from: flat(from), to: flat(to), center: null, isClockwise: false };
    return { piece, from: from[2] ?? 0, to: to[2] ?? 0 };
  });
}

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
  const moves: Move[] = [];
  const problems: CutProblem[] = [];
  const home = [0, 0, 0];
  const offset = (frame: string, row: number | null, sign: 1 | -1) => millOffset(registers, frame, row, sign);
  for (const step of interpret(program, { startUnits, registers: { at: home, home, offset } })) {
    if (step.type === "wrong") problems.push({ line: step.line, code: step.code });
    if (step.type === "move" && !step.isMachineFrame && !step.isReturn) moves.push(step);
  }
  const radiusOf = ({ diameterRow }: Move): number => (diameterRow === null ? 0 : (radii.get(diameterRow) ?? 0));
  const followed = courses(moves, pieceOf, radiusOf);
  const sweeps = followed.courses.flatMap(({ move, roll, own }) => {
    if (move.kind === "rapid") return [];
    const [low = 0, high = 0] = [move.from[2], move.to[2]];
    if (move.center && move.plane !== 17) return sweepsOf(move, uprightChords(move), truth);
    const pieces = [...(roll ? [{ piece: roll, from: low, to: low }] : []), { piece: own, from: low, to: high }];
    return sweepsOf(move, pieces, truth);
  });
  return { sweeps, problems: [...problems, ...followed.problems] };
}

/** How far a ray in the part frame runs through what was cleared; null where it never leaves it. */
export function millRay(sweeps: readonly Sweep[], { from, to }: Ray<Triple>): number | null {
  const size = Math.hypot(...to);
  const way: Triple = [to[0] / size, to[1] / size, to[2] / size];
  const rooms = sweeps.map((sweep): Cleared => {
    const { low, high } = boundsOf(sweep.piece, sweep.end.radius);
    const across = inRectangle([from[0], from[1]], [way[0], way[1]], low, high);
    const floor = Math.min(sweep.fromZ, sweep.toZ);
    const upward = inRectangle([from[2], 0], [way[2], 0], [floor, 0], [FAR, 0]);
    const range =
      across && upward ? ([Math.max(across[0], upward[0], 0), Math.min(across[1], upward[1], FAR)] as const) : null;
    return {
      range: range && range[0] <= range[1] ? range : null,
      isIn: (along) => isPassed(sweep, from[0] + way[0] * along, from[1] + way[1] * along, from[2] + way[2] * along),
    };
  });
  return clearLength(rooms, FAR / 2);
}
