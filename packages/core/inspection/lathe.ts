import { interpret, type Move, type Program } from "../gcode";
import { courses, type Flat, type Piece } from "../gcode/compensation";
import { type HalfPlace, latheOffset, type LatheRegisters, UnknownTool } from "../proving";
import { tipDirection, type TipCode } from "../registers/nose";
import { boundsOf, isTurned } from "./sweep";
import { clearLength, type Cleared, inRectangle } from "./rays";
import type { CutProblem, Ray } from "./mill";

/** What really cuts: machine X (a diameter) and Z with the control point on the axis and on the datum, and the nose. */
export interface TurningTruth {
  readonly tools: ReadonlyMap<
    number,
    { readonly kx: number; readonly kz: number; readonly noseRadius: number; readonly tipCode: TipCode }
  >;
}

/** What the control believes of the nose of each row. */
export type NoseRows = ReadonlyMap<number, { readonly noseRadius: number; readonly tipCode: TipCode }>;

/** One piece of the way of a true nose's center: z, and the radius from the axis. */
export interface NoseSweep {
  readonly piece: Piece;
  readonly radius: number;
}

const FAR = 1e5;

/** z and radius of a place that is told as a diameter and z. */
const flat = (place: readonly number[]): Flat => [place[1] ?? 0, (place[0] ?? 0) / 2];

const pieceOf = (move: Move): Piece => ({
  from: flat(move.from),
  to: flat(move.to),
  center: move.center && flat(move.center),
  isClockwise: move.kind === "cw",
});

/** From the nose's center to the control point, in z and radius. */
const tipOf = ({ noseRadius, tipCode }: { noseRadius: number; tipCode: TipCode }): Flat => {
  const [x, z] = tipDirection(tipCode);
  return [z * noseRadius, x * noseRadius];
};

const moved = (place: Flat, by: Flat): Flat => [place[0] + by[0], place[1] + by[1]];
const movedPiece = (piece: Piece, from: Flat, to: Flat): Piece => ({
  ...piece,
  from: moved(piece.from, from),
  to: moved(piece.to, to),
  center: piece.center && moved(piece.center, to),
});

/**
 * All that the fed moves of a turning program clear, with the true nose circle. Compensation uses the rows' own radius
 * and tip code, as the control does. Throws `UnknownTool` and `UnknownRegister`.
 */
export function turnedSweeps(
  program: Program,
  registers: LatheRegisters,
  noses: NoseRows,
  truth: TurningTruth,
  startUnits: "mm" | "inch",
): { readonly sweeps: readonly NoseSweep[]; readonly problems: readonly CutProblem[] } {
  const moves: Move[] = [];
  const problems: CutProblem[] = [];
  const home = [0, 0];
  const offset = (frame: string, row: number | null) => latheOffset(registers, frame, row);
  for (const step of interpret(program, { startUnits, registers: { at: home, home, offset } })) {
    if (step.type === "wrong") problems.push({ line: step.line, code: step.code });
    if (step.type === "move" && !step.isMachineFrame && !step.isReturn) moves.push(step);
  }
  const noseOf = ({ row }: Move) => (row === null ? undefined : noses.get(row));
  const followed = courses(moves, pieceOf, (move) => noseOf(move)?.noseRadius ?? 0);
  let isBeside = false;
  const sweeps = followed.courses.flatMap(({ move, roll, own }): NoseSweep[] => {
    const wasBeside = isBeside;
    isBeside = move.compensation !== "none";
    const tool = move.tool === null ? undefined : truth.tools.get(move.tool);
    if (move.kind === "rapid") return [];
    if (!tool) throw new UnknownTool(move.tool ?? 0, move.line);
    const { machine, from } = move;
    if (!machine) return [];
    const nose = noseOf(move);
    const believed = nose ? tipOf(nose) : ([0, 0] as const);
    const real = tipOf(tool);
    const shift: Flat = [
      (machine.from[1] ?? 0) - (from[1] ?? 0) - tool.kz - real[0],
      ((machine.from[0] ?? 0) - (from[0] ?? 0) - tool.kx) / 2 - real[1],
    ];
    // beside the contour the control moves the nose's center, and with it its own control point
    const at = (isCenter: boolean): Flat => (isCenter ? moved(shift, believed) : shift);
    const pieces = [
      ...(roll ? [movedPiece(roll, at(true), at(true))] : []),
      movedPiece(own, at(wasBeside), at(isBeside)),
    ];
    return pieces.map((piece) => ({ piece, radius: tool.noseRadius }));
  });
  return { sweeps, problems: [...problems, ...followed.problems] };
}

/** How far a ray (diameter and z; its direction a radius and z) runs through what was cleared; null: never leaves. */
export function turnedRay(sweeps: readonly NoseSweep[], { from, to }: Ray<HalfPlace>): number | null {
  const size = Math.hypot(...to);
  const start = flat(from);
  const way: Flat = [to[1] / size, to[0] / size];
  const rooms = sweeps.map(({ piece, radius }): Cleared => {
    const { low, high } = boundsOf(piece, radius);
    const range = inRectangle(start, way, low, high);
    return {
      range: range && [Math.max(0, range[0]), Math.min(range[1], FAR)],
      isIn: (along) => isTurned(piece, radius, [start[0] + way[0] * along, start[1] + way[1] * along]),
    };
  });
  return clearLength(rooms, FAR / 2);
}
