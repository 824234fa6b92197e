import { type Program } from "../../gcode";
import { millRay, millSweeps, type RunsClear } from "../../inspection";
import { undersideOf } from "../../proving";
import { type MillLane } from "./lane";
import { registersOf, worldOf } from "./proving";

/** Rays through what a program cuts on a mill, in the part frame. */
export function cutOnMill(state: MillLane, program: Program): RunsClear {
  const registers = registersOf(state);
  const { datum, tools } = worldOf(state);
  const real = [...tools].map(
    ([number, tool]) =>
      [number, { length: tool.length, end: { radius: tool.diameter / 2, underside: undersideOf(tool) } }] as const,
  );
  const { sweeps } = millSweeps(
    program,
    registers,
    registers.radii ?? new Map(),
    { datum, tools: new Map(real) },
    state.setup.unit,
  );
  const triple = ([x = 0, y = 0, z = 0]: readonly number[]) => [x, y, z] as const;
  return (from, way) => millRay(sweeps, { from: triple(from), to: triple(way) });
}
