import { arcTurn } from "../gcode/arcs";
import { type Flat, type Piece } from "../gcode/compensation";

/** A tool's end: its radius, and how high its underside stands over the tip at a distance from the axis. */
export interface End {
  readonly radius: number;
  underside(distance: number): number;
}

/** The room that a tool passes on one piece of its way: open upward on a mill. Heights of the tip at both ends. */
export interface Sweep {
  readonly piece: Piece;
  readonly end: End;
  readonly fromZ: number;
  readonly toZ: number;
}

const SAMPLES = 24;
const NEAR = 1e-12;

interface Arc {
  readonly center: Flat;
  readonly radius: number;
  readonly first: number;
  readonly turn: number;
  readonly sign: 1 | -1;
}

const arcs = new WeakMap<Piece, Arc>();

function arcOf(piece: Piece, center: Flat): Arc {
  const known = arcs.get(piece);
  if (known) return known;
  const { from, to, isClockwise } = piece;
  const arc: Arc = {
    center,
    radius: Math.hypot(from[0] - center[0], from[1] - center[1]),
    first: Math.atan2(from[1] - center[1], from[0] - center[0]),
    turn: arcTurn(from, to, center, isClockwise),
    sign: isClockwise ? -1 : 1,
  };
  arcs.set(piece, arc);
  return arc;
}

/** Place on a piece at a share of its way. */
export function placeOn(piece: Piece, share: number): Flat {
  const { from, to, center } = piece;
  if (!center) return [from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share];
  const { radius, first, turn, sign } = arcOf(piece, center);
  const angle = first + sign * turn * share;
  return [center[0] + radius * Math.cos(angle), center[1] + radius * Math.sin(angle)];
}

/** Stretches of a piece, by share, on which it is nearer to a place than `reach`. */
function nearShares(piece: Piece, [x, y]: Flat, reach: number): [number, number][] {
  const { from, to, center } = piece;
  if (!center) {
    const [px, py, dx, dy] = [from[0] - x, from[1] - y, to[0] - from[0], to[1] - from[1]];
    const a = dx * dx + dy * dy;
    const c = px * px + py * py - reach * reach;
    if (a < NEAR * NEAR) return c <= 0 ? [[0, 1]] : [];
    const b = px * dx + py * dy;
    const under = b * b - a * c;
    if (under < 0) return [];
    const root = Math.sqrt(under);
    const [low, high] = [Math.max(0, (-b - root) / a), Math.min(1, (-b + root) / a)];
    return low <= high ? [[low, high]] : [];
  }
  const { radius, first, turn, sign } = arcOf(piece, center);
  const away = Math.hypot(x - center[0], y - center[1]);
  if (away < NEAR || radius < NEAR) return Math.abs(away - radius) <= reach ? [[0, 1]] : [];
  const cosine = (radius * radius + away * away - reach * reach) / (2 * radius * away);
  if (cosine > 1) return [];
  if (cosine <= -1) return [[0, 1]];
  const half = Math.acos(cosine);
  const middle = sign * (Math.atan2(y - center[1], x - center[0]) - first);
  const stretches: [number, number][] = [];
  for (let round = -2; round <= 2; round++) {
    const low = Math.max(0, (middle - half + round * 2 * Math.PI) / turn);
    const high = Math.min(1, (middle + half + round * 2 * Math.PI) / turn);
    if (low <= high) stretches.push([low, high]);
  }
  return stretches;
}

/** The share of a piece that is nearest to a place, within a stretch. */
function nearestShare(piece: Piece, at: Flat, [low, high]: readonly [number, number]): number {
  const distance = (share: number): number => {
    const [px, py] = placeOn(piece, share);
    return Math.hypot(px - at[0], py - at[1]);
  };
  let [a, b] = [low, high];
  for (let i = 0; i < 60; i++) {
    const [c, d] = [a + (b - a) / 3, b - (b - a) / 3];
    if (distance(c) <= distance(d)) b = d;
    else a = c;
  }
  return (a + b) / 2;
}

/** How high the lowest part of the tool passes over a place, of all its way; Infinity where it never comes over it. */
export function heightOver({ piece, end, fromZ, toZ }: Sweep, at: Flat): number {
  const { from, to, center } = piece;
  // straight down, as a drill goes: the lowest place of its way counts
  if (!center && from[0] === to[0] && from[1] === to[1]) {
    const distance = Math.hypot(from[0] - at[0], from[1] - at[1]);
    return distance <= end.radius ? Math.min(fromZ, toZ) + end.underside(distance) : Infinity;
  }
  const isLevel = fromZ === toZ;
  const isFlat = end.underside(end.radius) === 0;
  let lowest = Infinity;
  for (const stretch of nearShares(piece, at, end.radius)) {
    const over = (share: number): number => {
      const [px, py] = placeOn(piece, share);
      return fromZ + (toZ - fromZ) * share + end.underside(Math.min(end.radius, Math.hypot(px - at[0], py - at[1])));
    };
    if (isFlat) lowest = Math.min(lowest, fromZ + (toZ - fromZ) * stretch[toZ < fromZ ? 1 : 0]);
    else if (isLevel) lowest = Math.min(lowest, over(nearestShare(piece, at, stretch)));
    else lowest = Math.min(lowest, lowestOf(over, stretch));
  }
  return lowest;
}

/** The least of a function on a stretch: the best of some samples, drawn in about it. */
function lowestOf(over: (share: number) => number, [low, high]: readonly [number, number]): number {
  let [a, b] = [low, high];
  let best = Math.min(over(a), over(b));
  for (let round = 0; round < 12; round++) {
    const step = (b - a) / SAMPLES;
    let at = a;
    for (let i = 0; i <= SAMPLES; i++) {
      const value = over(a + step * i);
      if (value < best) {
        best = value;
        at = a + step * i;
      }
    }
    [a, b] = [Math.max(low, at - step), Math.min(high, at + step)];
  }
  return best;
}

/** True where a place (x, y, z) was passed by the tool. */
export const isPassed = (sweep: Sweep, x: number, y: number, z: number): boolean => z >= heightOver(sweep, [x, y]);

/** One piece of the way of a true nose's center, z and the radius from the axis; a blade is so much wider, along Z. */
export interface NoseSweep {
  readonly piece: Piece;
  readonly radius: number;
  readonly wide: number;
  /** Toward which radii its cutting edge stands over the nose: away from the axis, toward it; 0: the nose alone. */
  readonly edge: 1 | -1 | 0;
}

/** So far over its nose an edge cuts, mm, and at so many places of an arc it is looked for. */
const EDGE_MM = 8;
const ARC_PLACES = 16;

/** Whether a place was passed by the edge that stands over a nose or a blade, as broad as that. */
function isUnderEdge({ piece, radius, wide, edge }: NoseSweep, [z, r]: Flat): boolean {
  const isOver = ([, at]: Flat): boolean => edge * (r - at) >= 0 && edge * (r - at) <= EDGE_MM;
  const isBeside = ([at]: Flat): boolean => at >= z - radius - wide && at <= z + radius;
  const { from, to, center } = piece;
  if (center)
    return Array.from({ length: ARC_PLACES + 1 }, (_, i) => placeOn(piece, i / ARC_PLACES)).some(
      (at) => isBeside(at) && isOver(at),
    );
  const along = to[0] - from[0];
  if (along === 0)
    return isBeside(from) && (isOver(from) || isOver(to) || edge * (r - from[1]) * edge * (r - to[1]) < 0);
  const shares = [(z - radius - wide - from[0]) / along, (z + radius - from[0]) / along];
  const [low, high] = [Math.max(0, Math.min(...shares)), Math.min(1, Math.max(...shares))];
  return low <= high && [low, high].some((share) => isOver(placeOn(piece, share)));
}

const between = (from: Flat, to: Flat): Piece => ({ from, to, center: null, isClockwise: false });

/** Whether a place lies in the parallelogram that a straight way of a blade's edge sweeps. */
function isInBlade({ from, to }: Piece, wide: number, [z, r]: Flat): boolean {
  const rise = to[1] - from[1];
  if (rise === 0) return false;
  const share = (r - from[1]) / rise;
  const along = z - (from[0] + (to[0] - from[0]) * share);
  return share >= 0 && share <= 1 && along >= 0 && along <= wide;
}

/** True where a place of a lathe's half plane (z, r) was passed by a nose, its blade or its edge. */
export function isTurned(sweep: NoseSweep, at: Flat): boolean {
  const { piece, radius, wide, edge } = sweep;
  if (nearShares(piece, at, radius).length > 0) return true;
  if (edge !== 0 && isUnderEdge(sweep, at)) return true;
  if (wide === 0) return false;
  const far = ([z, r]: Flat): Flat => [z + wide, r];
  const { from, to } = piece;
  const other = { ...piece, from: far(from), to: far(to), center: piece.center && far(piece.center) };
  const isNear = (one: Piece): boolean => nearShares(one, at, radius).length > 0;
  return (
    isNear(other) ||
    isNear(between(from, far(from))) ||
    isNear(between(to, far(to))) ||
    (piece.center === null && isInBlade(piece, wide, at))
  );
}

/** The rectangle that a nose keeps within, with its blade and edge. */
export function noseBounds({ piece, radius, wide, edge }: NoseSweep): { readonly low: Flat; readonly high: Flat } {
  const { low, high } = boundsOf(piece, radius);
  return {
    low: [low[0], low[1] - (edge === -1 ? EDGE_MM : 0)],
    high: [high[0] + wide, high[1] + (edge === 1 ? EDGE_MM : 0)],
  };
}

/** The rectangle in the plane that a piece keeps within, wider by `reach`. */
export function boundsOf(piece: Piece, reach: number): { readonly low: Flat; readonly high: Flat } {
  const { from, to, center } = piece;
  if (center) {
    const { radius } = arcOf(piece, center);
    return {
      low: [center[0] - radius - reach, center[1] - radius - reach],
      high: [center[0] + radius + reach, center[1] + radius + reach],
    };
  }
  return {
    low: [Math.min(from[0], to[0]) - reach, Math.min(from[1], to[1]) - reach],
    high: [Math.max(from[0], to[0]) + reach, Math.max(from[1], to[1]) + reach],
  };
}
