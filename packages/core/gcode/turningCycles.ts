import { Wrong } from "./diagnostics";
import { type Rig } from "./rig";

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
