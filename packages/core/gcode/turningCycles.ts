import { Wrong } from "./diagnostics";
import { type DrillingCycle } from "./drillingCycles";
import { type Feed, type MoveKind } from "./moves";
import { type Said } from "./said";

/** What a cycle needs of the run that it is part of. Places and lengths in the program's start unit. */
export interface Rig {
  readonly said: Said;
  readonly place: number[];
  readonly shift: number[];
  readonly isIncremental: boolean;
  readonly returnsToInitial: boolean;
  drilling: DrillingCycle | null;
  turning: TurningCycle | null;
  length(letter: string): number | null;
  goal(): number[];
  lead(): Feed | null;
  go(kind: MoveKind, to: number[], named: number, feed?: Feed | null): void;
}

/** X (a diameter), Z and R of a turning cycle, as they hold from block to block. */
export interface TurningCycle {
  readonly x?: number;
  readonly z?: number;
  readonly taper?: number;
}

const [ALONG, THREAD] = [90, 92] as const;
const BOTH = 3;

/** One pass of G90, G92 or G94, from where it stands and back to it. R is a radius, or of G94 a length. */
export function turnCycle(rig: Rig, code: number): void {
  const [startX = NaN, startZ = NaN] = rig.place;
  const [u, w] = [rig.length("U"), rig.length("W")];
  const x = rig.length("X") ?? (u === null ? rig.turning?.x : startX + u);
  const z = rig.length("Z") ?? (w === null ? rig.turning?.z : startZ + w);
  const taper = rig.length("R") ?? rig.turning?.taper ?? 0;
  if (x === undefined || z === undefined) throw new Wrong("word-missing");
  rig.turning = { x, z, taper };
  if (Number.isNaN(startX) || Number.isNaN(startZ)) throw new Wrong("position-unknown");
  const isFacing = code !== ALONG && code !== THREAD;
  const isThread = code === THREAD;
  rig.go("rapid", isFacing ? [startX, z + taper] : [x + 2 * taper, startZ], BOTH);
  rig.go("feed", [x, z], BOTH, isThread ? rig.lead() : undefined);
  rig.go(isThread ? "rapid" : "feed", isFacing ? [x, startZ] : [startX, z], BOTH);
  rig.go("rapid", [startX, startZ], BOTH);
}
