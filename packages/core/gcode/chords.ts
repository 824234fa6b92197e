import { arcTurn, planeAxes } from "./arcs";
import { type Move } from "./moves";

/** How far a chord may leave its arc, mm or inch alike: no eye sees more, and no slack is used up. */
const CHORD = 0.01;
const MOST_CHORDS = 2000;

/** The circle of an arc in its plane: the two axes, and places as the circle has them (a lathe's X as a radius). */
export function circleOf(move: Move, isLathe: boolean) {
  const [u, v] = isLathe ? ([1, 0] as const) : planeAxes[move.plane];
  const half = (value: number, axis: number): number => (isLathe && axis === 0 ? value / 2 : value);
  const [first, second] = move.center ?? [NaN, NaN];
  // told in the order X Y Z: of a plane that begins with Z the other way round
  const center = u < v ? ([first, second] as const) : ([second, half(first, v)] as const);
  const at = (place: readonly number[]): readonly [number, number] => [
    half(place[u] ?? NaN, u),
    half(place[v] ?? NaN, v),
  ];
  const [start, end] = [at(move.from), at(move.to)];
  const isClockwise = move.kind === "cw";
  return { u, v, center, start, isClockwise, turn: arcTurn(start, end, center, isClockwise) };
}

/**
 * Places that a move passes, its start first: two of a straight one, more of an arc, whose chords leave it by `offArc`
 * at most; in the frame of the move.
 */
export function movePoints(move: Move, isLathe: boolean, offArc = CHORD): (readonly number[])[] {
  const { from, to } = move;
  if (!move.center) return [from, to];
  const { u, v, center, start, isClockwise, turn } = circleOf(move, isLathe);
  const radius = Math.hypot(start[0] - center[0], start[1] - center[1]);
  const perChord = 2 * Math.acos(Math.max(-1, 1 - offArc / Math.max(radius, offArc)));
  const chords = Math.min(MOST_CHORDS, Math.max(1, Math.ceil(turn / perChord)));
  const first = Math.atan2(start[1] - center[1], start[0] - center[0]);
  const between = Array.from({ length: chords - 1 }, (_, i) => {
    const share = (i + 1) / chords;
    const angle = first + (isClockwise ? -1 : 1) * turn * share;
    const place = from.map((value, axis) => value + ((to[axis] ?? 0) - value) * share);
    const circle = [center[0] + radius * Math.cos(angle), center[1] + radius * Math.sin(angle)];
    [u, v].forEach((axis, k) => {
      place[axis] = (circle[k] ?? 0) * (isLathe && axis === 0 ? 2 : 1);
    });
    return place;
  });
  return [from, ...between, to];
}
