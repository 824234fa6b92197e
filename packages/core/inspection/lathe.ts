import { interpret, type Program } from "../gcode";
import { type Flat } from "../gcode/compensation";
import { type HalfPlace, latheOffset, type LatheRegisters, latheWays, type Stretch, UnknownTool } from "../proving";
import { tipDirection, type TipCode } from "../registers/nose";
import { isTurned, noseBounds, type NoseSweep } from "./sweep";
import { nearRay } from "./nearby";
import { clearLength, type Cleared, inRectangle } from "./rays";
import { isCutting, type CutProblem, type Ray } from "./mill";

/** What really cuts: machine X (a diameter) and Z with the control point on the axis and on the datum, and the nose. */
export interface TurningTruth {
  readonly tools: ReadonlyMap<number, TrueNose>;
}
interface TrueNose {
  readonly kx: number;
  readonly kz: number;
  readonly noseRadius: number;
  readonly tipCode: TipCode;
  /** How much wider than its nose a blade is, toward Z plus. */
  readonly wide?: number;
  /** Toward which radii its edge stands over the nose; left out: the nose alone cuts. */
  readonly edge?: NoseSweep["edge"];
}

/** What the control believes of the nose of each row. */
export type NoseRows = ReadonlyMap<number, { readonly noseRadius: number; readonly tipCode: TipCode }>;

const FAR = 1e5;

/** z and radius of a place that is told as a diameter and z. */
const flat = (place: readonly number[]): Flat => [place[1] ?? 0, (place[0] ?? 0) / 2];

/** What stretches of a tool's way clear: its nose's center lies beside the control point by the true tip. */
export function sweptByNose(
  stretches: readonly Stretch[],
  { kx, kz, noseRadius, tipCode, wide = 0, edge = 0 }: TrueNose,
): NoseSweep[] {
  const [tipX, tipZ] = tipDirection(tipCode);
  const by: Flat = [-kz - tipZ * noseRadius, -kx / 2 - tipX * noseRadius];
  const moved = (place: Flat): Flat => [place[0] + by[0], place[1] + by[1]];
  return stretches.map(({ piece }) => ({
    piece: { ...piece, from: moved(piece.from), to: moved(piece.to), center: piece.center && moved(piece.center) },
    radius: noseRadius,
    wide,
    edge,
  }));
}

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
  const sweeps: NoseSweep[] = [];
  const problems: CutProblem[] = [];
  const home = [0, 0];
  const offset = (frame: string, row: number | null) => latheOffset(registers, frame, row);
  const steps = interpret(program, { startUnits, registers: { at: home, home, offset } });
  for (const step of latheWays(steps, (row) => noses.get(row))) {
    if (step.type === "wrong") problems.push({ line: step.line, code: step.code });
    if (step.type !== "way" || !isCutting(step.move)) continue;
    const { tool: number, line } = step.move;
    const tool = number === null ? undefined : truth.tools.get(number);
    if (!tool) throw new UnknownTool(number ?? 0, line);
    sweeps.push(...sweptByNose(step.exact(), tool));
  }
  return { sweeps, problems };
}

/** How far a ray (diameter and z; its direction a radius and z) runs through what was cleared; null: never leaves. */
export function turnedRay(sweeps: readonly NoseSweep[], { from, to }: Ray<HalfPlace>): number | null {
  const size = Math.hypot(...to);
  const start = flat(from);
  const way: Flat = [to[1] / size, to[0] / size];
  const rooms = nearRay(sweeps, noseBounds, start, way).map(({ thing: sweep, low, high }): Cleared => {
    const range = inRectangle(start, way, low, high);
    return {
      range: range && [Math.max(0, range[0]), Math.min(range[1], FAR)],
      isConvex: sweep.piece.center === null && sweep.wide === 0 && sweep.edge === 0,
      isIn: (along) => isTurned(sweep, [start[0] + way[0] * along, start[1] + way[1] * along]),
    };
  });
  return clearLength(rooms, FAR / 2);
}
