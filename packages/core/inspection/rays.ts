/** How far apart a ray is looked at before its walls are closed in on, in its own length unit. */
const STEP = 0.02;
const MOST_STEPS = 4000;
const ROUNDS = 60;
/** Spans closer than this are one. */
const JOINED = 1e-9;

/** One room that was cleared: along a ray, from where to where it may be met, and whether a place is in it. */
export interface Cleared {
  /** Where along the ray the room may begin and end; null where the ray does not come near it. */
  readonly range: readonly [number, number] | null;
  /** A ray that left it never comes back into it. */
  readonly isConvex: boolean;
  isIn(along: number): boolean;
}
type Met = Cleared & { readonly range: readonly [number, number] };

function edgeBetween(isIn: (along: number) => boolean, from: number, to: number): number {
  let [a, b] = [from, to];
  for (let i = 0; i < ROUNDS && Math.abs(b - a) > 1e-12; i++) {
    const middle = (a + b) / 2;
    if (isIn(middle)) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}

/** Where a ray leaves a room that it is in. */
function leaves({ range: [, high], isConvex, isIn }: Met, from: number): number {
  if (isConvex) return isIn(high) ? high : edgeBetween(isIn, from, high);
  const steps = Math.min(MOST_STEPS, Math.max(8, Math.ceil((high - from) / STEP)));
  let before = from;
  for (let i = 1; i <= steps; i++) {
    const at = from + ((high - from) * i) / steps;
    if (!isIn(at)) return edgeBetween(isIn, before, at);
    before = at;
  }
  return high;
}

/**
 * How far a ray runs through cleared room from its start: from room to room that joins it, 0 where it starts in none,
 * null where it never leaves. `reach` is where the last room ends for certain.
 */
export function clearLength(rooms: readonly Cleared[], reach: number): number | null {
  const met = rooms.filter((room): room is Met => room.range !== null).sort((a, b) => b.range[1] - a.range[1]);
  let end = 0;
  while (end < reach - JOINED) {
    const at = end + JOINED;
    const next = met.find(({ range, isIn }) => range[0] <= at && range[1] > at && isIn(at));
    if (!next) return end;
    end = Math.max(at, leaves(next, at));
  }
  return null;
}

/** Where along a ray it is inside a rectangle; null where it never is. Infinity where it never leaves. */
export function inRectangle(
  from: readonly [number, number],
  to: readonly [number, number],
  low: readonly [number, number],
  high: readonly [number, number],
): readonly [number, number] | null {
  let [first, last] = [-Infinity, Infinity];
  for (const axis of [0, 1] as const) {
    if (to[axis] === 0) {
      if (from[axis] < low[axis] || from[axis] > high[axis]) return null;
      continue;
    }
    const [a, b] = [(low[axis] - from[axis]) / to[axis], (high[axis] - from[axis]) / to[axis]];
    [first, last] = [Math.max(first, Math.min(a, b)), Math.min(last, Math.max(a, b))];
  }
  return first <= last ? [first, last] : null;
}
