import { movePoints } from "./chords";
import { type Dialect } from "./dialects";
import { interpret, type RunOptions } from "./interpret";
import { type ProgramPlace } from "./moves";
import { readProgram } from "./program";

/** A stretch of one tool's way in one work offset: fed or in rapid, its places in programmed figures. */
export interface Stroke {
  readonly tool: number;
  readonly frame: string;
  readonly isRapid: boolean;
  readonly points: readonly ProgramPlace[];
}

/**
 * The ways of all tools, as they are programmed, arcs as chords; stretches where an axis is not known are left out. At
 * most `limit` moves are taken: `isWhole` says whether that was all.
 */
export function programPaths(
  text: string,
  dialect: Dialect,
  options: RunOptions,
  limit: number,
): { readonly strokes: readonly Stroke[]; readonly isWhole: boolean } {
  const strokes: { tool: number; frame: string; isRapid: boolean; points: ProgramPlace[] }[] = [];
  let moves = 0;
  for (const step of interpret(readProgram(text, dialect), { ...options, keepsPlaces: true })) {
    if (step.type !== "move" || step.isMachineFrame || step.isReturn || step.tool === null) continue;
    if (++moves > limit) return { strokes, isWhole: false };
    const points = movePoints(step, dialect === "lathe");
    if (points.some((place) => place.some(Number.isNaN))) continue;
    const last = strokes.at(-1);
    const isRapid = step.kind === "rapid";
    const goesOn =
      last?.tool === step.tool &&
      last.frame === step.frame &&
      last.isRapid === isRapid &&
      last.points.at(-1)?.every((value, axis) => value === step.from[axis]);
    if (goesOn && last) last.points.push(...points.slice(1));
    else strokes.push({ tool: step.tool, frame: step.frame, isRapid, points });
  }
  return { strokes, isWhole: true };
}
