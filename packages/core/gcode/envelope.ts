import { type Diagnostic } from "./diagnostics";
import { type Dialect } from "./dialects";
import { circleOf } from "./chords";
import { interpret, type RunOptions } from "./interpret";
import { type Move } from "./moves";
import { readProgram } from "./program";

type Extent = [number, number] | null;

/** How far one tool goes in one work offset, in programmed figures; null of an axis that it was never sent along. */
export interface Reach {
  readonly tool: number;
  readonly frame: string;
  readonly x: Extent;
  /** Null of a lathe. */
  readonly y: Extent;
  readonly z: Extent;
  /** The same of fed moves only. */
  readonly cutX: Extent;
  readonly cutY: Extent;
  readonly cutZ: Extent;
  /** Z to which moves in rapid lead. */
  readonly rapidZ: Extent;
}

type Growing = { tool: number; frame: string; all: Extent[]; cut: Extent[]; rapid: Extent[] };

const widened = (extent: Extent | undefined, value: number): Extent =>
  extent ? [Math.min(extent[0], value), Math.max(extent[1], value)] : [value, value];

/** Places between the ends of an arc where one of its axes is farthest out. */
function extremes(move: Move, isLathe: boolean): { axis: number; value: number }[] {
  if (!move.center) return [];
  const { u, v, center, start, isClockwise, turn } = circleOf(move, isLathe);
  const radius = Math.hypot(start[0] - center[0], start[1] - center[1]);
  const from = Math.atan2(start[1] - center[1], start[0] - center[0]);
  return [0, 1, 2, 3].flatMap((quarter) => {
    const angle = (quarter * Math.PI) / 2;
    const way = isClockwise ? from - angle : angle - from;
    const along = ((way % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
    if (along > turn) return [];
    const isFirst = quarter % 2 === 0;
    const axis = isFirst ? u : v;
    const value = (isFirst ? center[0] : center[1]) + (quarter < 2 ? radius : -radius);
    return [{ axis, value: isLathe && axis === 0 ? value * 2 : value }];
  });
}

function widen(extents: Extent[], move: Move, isLathe: boolean): void {
  for (const place of [move.from, move.to])
    place.forEach((value, axis) => {
      if (!Number.isNaN(value)) extents[axis] = widened(extents[axis], value);
    });
  for (const { axis, value } of extremes(move, isLathe)) extents[axis] = widened(extents[axis], value);
}

/**
 * How far every tool goes in every work offset that it is used with: both ends of each move and the extremes of arcs,
 * in programmed figures, without any offset; moves home and in the machine's frame left out. Units as the program
 * starts.
 */
export function programReaches(
  text: string,
  dialect: Dialect,
  options: RunOptions,
): { readonly reaches: readonly Reach[]; readonly wrong: readonly Pick<Diagnostic, "line" | "code">[] } {
  const isLathe = dialect === "lathe";
  const found = new Map<string, Growing>();
  const wrong: Pick<Diagnostic, "line" | "code">[] = [];
  for (const step of interpret(readProgram(text, dialect), { ...options, keepsPlaces: true })) {
    if (step.type === "wrong") wrong.push({ line: step.line, code: step.code });
    if (step.type !== "move" || step.isMachineFrame || step.isReturn || step.tool === null) continue;
    const key = `${step.tool} ${step.frame}`;
    const reach = found.get(key) ?? {
      tool: step.tool,
      frame: step.frame,
      all: [null, null, null],
      cut: [null, null, null],
      rapid: [null, null, null],
    };
    found.set(key, reach);
    widen(reach.all, step, isLathe);
    if (step.kind === "rapid") widen(reach.rapid, { ...step, from: [] }, isLathe);
    else widen(reach.cut, step, isLathe);
  }
  const [x, y, z] = isLathe ? [0, -1, 1] : [0, 1, 2];
  const reaches = [...found.values()].map(({ tool, frame, all, cut, rapid }) => ({
    tool,
    frame,
    x: all[x] ?? null,
    y: all[y] ?? null,
    z: all[z] ?? null,
    cutX: cut[x] ?? null,
    cutY: cut[y] ?? null,
    cutZ: cut[z] ?? null,
    rapidZ: rapid[z] ?? null,
  }));
  return { reaches, wrong };
}

/** The same for each tool, over all work offsets: deepest Z at all, deepest Z fed (null: never), X and Y. */
export function toolEnvelopes(reaches: readonly Reach[]): Record<string, Omit<Reach, "tool" | "frame">> {
  const tools: Record<string, Omit<Reach, "tool" | "frame">> = {};
  const joined = (a: Extent | undefined, b: Extent): Extent =>
    a && b ? [Math.min(a[0], b[0]), Math.max(a[1], b[1])] : (a ?? b);
  for (const { tool, frame: _, ...reach } of reaches) {
    const before = tools[String(tool)];
    tools[String(tool)] = {
      x: joined(before?.x, reach.x),
      y: joined(before?.y, reach.y),
      z: joined(before?.z, reach.z),
      cutX: joined(before?.cutX, reach.cutX),
      cutY: joined(before?.cutY, reach.cutY),
      cutZ: joined(before?.cutZ, reach.cutZ),
      rapidZ: joined(before?.rapidZ, reach.rapidZ),
    };
  }
  return tools;
}
