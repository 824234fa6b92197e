import { type Program } from "../../gcode";
import { turnedRay, turnedSweeps, type RunsClear } from "../../inspection";
import { faceMm } from "./contact";
import { type TurningLane } from "./lane";
import { registersOf, worldOf } from "./proving";

/** Rays through what a program cuts on a lathe: X of their starts is a diameter; null before the bar has a face. */
export function cutOnLathe(state: TurningLane, program: Program): RunsClear | null {
  const face = faceMm(state);
  if (face === null) return null;
  const registers = registersOf(state);
  const { tools } = worldOf(state, face);
  const { sweeps } = turnedSweeps(program, registers, registers.noses ?? new Map(), { tools }, state.setup.unit);
  const pair = ([x = 0, z = 0]: readonly number[]) => [x, z] as const;
  return (from, way) => turnedRay(sweeps, { from: pair(from), to: pair(way) });
}
