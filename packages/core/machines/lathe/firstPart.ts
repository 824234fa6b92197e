import { type Program } from "../../gcode";
import {
  type Bending,
  type NoseSweep,
  sprungNoses,
  sweptByNose,
  turnedRay,
  turnedSweeps,
  type RunsClear,
} from "../../inspection";
import { type CutWay } from "../program/cutWay";
import { faceMm } from "./contact";
import { type TurningLane } from "./lane";
import { registersOf, worldOf } from "./proving";

function raysThrough(sweeps: readonly NoseSweep[]): RunsClear {
  const pair = ([x = 0, z = 0]: readonly number[]) => [x, z] as const;
  return (from, way) => turnedRay(sweeps, { from: pair(from), to: pair(way) });
}

const BORING = 2;

/** Tools as they really are: of a blade how much wider than its nose it is, of each where its edge stands. */
export function toolsOf(state: TurningLane, face: number) {
  const blades = new Map(state.setup.lathe.tools.map(({ number, bladeMm }) => [number, bladeMm]));
  return new Map(
    [...worldOf(state, face).tools].map(([number, tool]) => {
      const blade = blades.get(number);
      const wide = blade === undefined ? 0 : blade - 2 * tool.noseRadius;
      // a bar in a bore has its edge toward the axis
      return [number, { ...tool, wide, edge: tool.tipCode === BORING ? -1 : 1 }] as const;
    }),
  );
}

/** Rays through what a program cuts on a lathe: X of their starts is a diameter; null before the bar has a face. */
export function cutOnLathe(state: TurningLane, program: Program): RunsClear | null {
  const face = faceMm(state);
  if (face === null) return null;
  const registers = registersOf(state);
  const truth = { tools: toolsOf(state, face) };
  return raysThrough(turnedSweeps(program, registers, registers.noses ?? new Map(), truth, state.setup.unit).sweeps);
}

type LatheCuts = readonly { readonly before: TurningLane; readonly ways: readonly CutWay[] }[];

/** Rays through what runs left of a part; null where one of them began before the bar had a face. */
export function raysOnLathe(cuts: LatheCuts): RunsClear | null {
  const sweeps = nosesOnLathe(cuts);
  return sweeps && raysThrough(sweeps);
}

/**
 * What noses swept out of a part, with what their tools gave way and had worn, and what the machine had grown, where
 * that is simulated; Z from the face. Null where one of them began before the bar had a face.
 */
export function nosesOnLathe(cuts: LatheCuts): NoseSweep[] | null {
  const all: Bending<NoseSweep, [number, number]>[] = [];
  for (const { before, ways } of cuts) {
    const face = faceMm(before);
    if (face === null) return null;
    const tools = toolsOf(before, face);
    const { stock } = worldOf(before, face);
    const { cutting } = before.truth;
    const isStock = (z: number, radius: number): boolean =>
      z < stock.face && radius < stock.diameter / 2 && radius > stock.bore / 2;
    for (const { hangs, stretches } of ways) {
      const tool = hangs === null ? undefined : tools.get(hangs);
      if (!tool || hangs === null) continue;
      const wornMm = (cutting?.wearMm[hangs] ?? 0) * before.program.parts.current;
      const spring = { perMm: cutting?.springPerMm[hangs] ?? 0, capMm: cutting?.springCapMm ?? 0 };
      for (const sweep of sweptByNose(stretches, { ...tool, kx: tool.kx + (cutting?.warmMm ?? 0) })) {
        // an edge that has worn stands back from what it would cut, its middle where it was
        const worn = { ...sweep, radius: sweep.radius - wornMm };
        all.push({ sweep: worn, isStock, spring });
      }
    }
  }
  return sprungNoses(all);
}
