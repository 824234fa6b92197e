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
  isIn(along: number): boolean;
}

function edgeBetween(isIn: (along: number) => boolean, from: number, to: number): number {
  let [a, b] = [from, to];
  const atStart = isIn(a);
  for (let i = 0; i < ROUNDS && Math.abs(b - a) > 1e-12; i++) {
    const middle = (a + b) / 2;
    if (isIn(middle) === atStart) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}

/** Stretches of a ray within one room. */
function spansOf({ range, isIn }: Cleared): [number, number][] {
  if (!range) return [];
  const [low, high] = [Math.max(0, range[0]), range[1]];
  if (high < low) return [];
  const steps = Math.min(MOST_STEPS, Math.max(8, Math.ceil((high - low) / STEP)));
  const spans: [number, number][] = [];
  let open: number | null = isIn(low) ? low : null;
  let before = low;
  for (let i = 1; i <= steps; i++) {
    const at = low + ((high - low) * i) / steps;
    const is = isIn(at);
    if (is && open === null) open = edgeBetween(isIn, before, at);
    else if (!is && open !== null) {
      spans.push([open, edgeBetween(isIn, before, at)]);
      open = null;
    }
    before = at;
  }
  if (open !== null) spans.push([open, high]);
  return spans;
}

/**
 * How far a ray runs through cleared room from its start: the end of the joined stretches that hold its start, 0 where
 * it starts in none, null where it never leaves. `reach` is where the last room ends for certain.
 */
export function clearLength(rooms: readonly Cleared[], reach: number): number | null {
  const spans = rooms.flatMap(spansOf).sort((a, b) => a[0] - b[0]);
  let end = 0;
  for (const [from, to] of spans) {
    if (from > end + JOINED) break;
    end = Math.max(end, to);
  }
  return end >= reach - JOINED ? null : end;
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
