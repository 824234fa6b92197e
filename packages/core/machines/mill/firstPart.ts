import { type Program } from "../../gcode";
import {
  millRay,
  millSweeps,
  sprungSweeps,
  sweptByMill,
  type Bending,
  type RunsClear,
  type Sweep,
} from "../../inspection";
import { type MillTool, undersideOf } from "../../proving";
import { type CutWay } from "../program/cutWay";
import { type MillLane } from "./lane";
import { registersOf, worldOf } from "./proving";

/** What of a tool cuts. */
export const cutterOf = (tool: MillTool) => ({
  length: tool.length,
  end: { radius: tool.diameter / 2, underside: undersideOf(tool) },
});

function raysThrough(sweeps: readonly Sweep[]): RunsClear {
  const triple = ([x = 0, y = 0, z = 0]: readonly number[]) => [x, y, z] as const;
  return (from, way) => millRay(sweeps, { from: triple(from), to: triple(way) });
}

/** Rays through what a program cuts on a mill, in the part frame. */
export function cutOnMill(state: MillLane, program: Program): RunsClear {
  const registers = registersOf(state);
  const { datum, tools } = worldOf(state);
  const real = [...tools].map(([number, tool]) => [number, tool.fluteLength === 0 ? null : cutterOf(tool)] as const);
  const truth = { datum, tools: new Map(real) };
  return raysThrough(millSweeps(program, registers, registers.radii ?? new Map(), truth, state.setup.unit).sweeps);
}

/** How many parts a tool's edge has cut: of this lane, and since a kept setup was proven where it is the same edge. */
function partsCutBy({ setup, truth, program }: MillLane, tool: number): number {
  const isNew = truth.keptChanges?.some((one) => one.kind === "newCutter" && one.tool === tool) ?? false;
  return program.parts.current + (isNew ? 0 : (setup.kept?.partsSince ?? 0));
}

type MillCuts = readonly { readonly before: MillLane; readonly ways: readonly CutWay[] }[];

/** Rays through what runs left of a part. */
export const raysOnMill = (cuts: MillCuts): RunsClear => raysThrough(sweepsOnMill(cuts));

/**
 * What tools swept out of a part, each on the machine as it was then: with what they gave way, had worn, and with what
 * the spindle had grown, where that is simulated. In the part frame.
 */
export function sweepsOnMill(cuts: MillCuts): Sweep[] {
  const all: Bending<Sweep, [number, number, number]>[] = [];
  for (const { before, ways } of cuts) {
    const { datum, tools, stock } = worldOf(before);
    const { cutting } = before.truth;
    const isStock = (x: number, y: number, z: number): boolean =>
      [x, y, z].every((at, axis) => at > (stock.min[axis] ?? 0) && at < (stock.max[axis] ?? 0));
    for (const { hangs, stretches } of ways) {
      const tool = hangs === null ? undefined : tools.get(hangs);
      if (!tool || hangs === null || tool.fluteLength === 0) continue;
      const wornMm = (cutting?.wearMm[hangs] ?? 0) * partsCutBy(before, hangs);
      const cutter = cutterOf({ ...tool, diameter: tool.diameter - 2 * wornMm });
      const grown = { ...cutter, length: cutter.length + (cutting?.warmMm ?? 0) };
      const spring = { perMm: cutting?.springPerMm[hangs] ?? 0, capMm: cutting?.springCapMm ?? 0 };
      for (const sweep of sweptByMill(stretches, grown, datum)) all.push({ sweep, isStock, spring });
    }
  }
  return sprungSweeps(all);
}
