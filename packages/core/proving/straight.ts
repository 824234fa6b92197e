import { arcTurn, planeAxes } from "../gcode/arcs";
import { type Move } from "../gcode";

/** How far a chord may leave its arc, mm. */
const CHORD_MM = 0.01;
const MOST_CHORDS = 720;

/**
 * The machine places that a move passes, its start first: two of a straight one, more of an arc. Of a lathe X is a
 * diameter. Only of moves that know where the machine stands.
 */
export function machinePath(move: Move, isLathe: boolean): (readonly number[])[] {
  const { machine } = move;
  if (!machine) throw new Error(`machinePath: line ${move.line} does not know where the machine stands`);
  if (!move.center) return [machine.from, machine.to];
  const [u, v] = isLathe ? ([1, 0] as const) : planeAxes[move.plane];
  const half = (value: number, axis: number): number => (isLathe && axis === 0 ? value / 2 : value);
  const [first, second] = move.center;
  const center = u < v ? ([first, second] as const) : ([second, half(first, v)] as const);
  const at = (place: readonly number[]): [number, number] => [half(place[u] ?? 0, u), half(place[v] ?? 0, v)];
  const [start, end] = [at(move.from), at(move.to)];
  const isClockwise = move.kind === "cw";
  const turn = arcTurn(start, end, center, isClockwise);
  const radius = Math.hypot(start[0] - center[0], start[1] - center[1]);
  const perChord = 2 * Math.acos(Math.max(-1, 1 - CHORD_MM / Math.max(radius, CHORD_MM)));
  const chords = Math.min(MOST_CHORDS, Math.max(1, Math.ceil(turn / perChord)));
  const from = Math.atan2(start[1] - center[1], start[0] - center[0]);
  return Array.from({ length: chords + 1 }, (_, i) => {
    if (i === 0) return machine.from;
    if (i === chords) return machine.to;
    const angle = from + ((isClockwise ? -1 : 1) * (turn * i)) / chords;
    const place = machine.from.map((value, axis) => value + (((machine.to[axis] ?? 0) - value) * i) / chords);
    const step = [center[0] + radius * Math.cos(angle) - start[0], center[1] + radius * Math.sin(angle) - start[1]];
    [u, v].forEach((axis, k) => {
      place[axis] = (machine.from[axis] ?? 0) + (step[k] ?? 0) * (isLathe && axis === 0 ? 2 : 1);
    });
    return place;
  });
}
