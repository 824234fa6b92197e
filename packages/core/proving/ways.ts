import { type Move, type Step } from "../gcode";
import { courses, type Flat, type Piece } from "../gcode/compensation";
import { machinePath } from "./straight";

/** A move with the machine places that its tool's axis passes, its start first. */
export interface Way {
  readonly type: "way";
  readonly line: number;
  readonly move: Move;
  readonly path: readonly (readonly number[])[];
  /** It runs beside what is programmed, or leads into that or out of it. */
  readonly isBeside: boolean;
}
export type WayStep = Way | Exclude<Step, Move>;

/** How far a chord may leave the arc of a compensated way, mm. */
const CHORD_MM = 0.01;
const FLAT_PLANE = 17;

const flat = (place: readonly number[]): Flat => [place[0] ?? 0, place[1] ?? 0];

function pieceOf(move: Move): Piece {
  const isRound = move.center !== null && move.plane === FLAT_PLANE;
  return {
    from: flat(move.from),
    to: flat(move.to),
    center: isRound ? move.center : null,
    isClockwise: move.kind === "cw",
  };
}

/** Places along a piece after its start, arcs as chords. */
function placesOf({ from, to, center, isClockwise }: Piece): Flat[] {
  if (!center) return [to];
  const radius = Math.hypot(from[0] - center[0], from[1] - center[1]);
  const angle = (place: Flat): number => Math.atan2(place[1] - center[1], place[0] - center[0]);
  const whole = 2 * Math.PI;
  const between = isClockwise ? angle(from) - angle(to) : angle(to) - angle(from);
  const turn = ((between % whole) + whole) % whole || whole;
  const perChord = 2 * Math.acos(Math.max(-1, 1 - CHORD_MM / Math.max(radius, CHORD_MM)));
  const chords = Math.max(1, Math.ceil(turn / perChord));
  return Array.from({ length: chords }, (_, i): Flat => {
    if (i === chords - 1) return to;
    const at = angle(from) + ((isClockwise ? -1 : 1) * turn * (i + 1)) / chords;
    return [center[0] + radius * Math.cos(at), center[1] + radius * Math.sin(at)];
  });
}

/** One move's way beside the programmed one: the roll before it at its own start height, then its piece. */
function besideWay(move: Move, roll: Piece | null, own: Piece): Way {
  const { machine } = move;
  if (!machine) throw new Error(`besideWay: line ${move.line} does not know where the machine stands`);
  const [low = 0, high = 0] = [move.from[2], move.to[2]];
  const shift = machine.from.map((at, axis) => at - (move.from[axis] ?? 0));
  const place = ([x, y]: Flat, z: number): number[] => [x, y, z].map((value, axis) => value + (shift[axis] ?? 0));
  const along = placesOf(own);
  const path = [
    place(roll?.from ?? own.from, low),
    ...(roll ? placesOf(roll).map((at) => place(at, low)) : []),
    ...along.map((at, i) => place(at, low + ((high - low) * (i + 1)) / along.length)),
  ];
  return { type: "way", line: move.line, move, path, isBeside: true };
}

/**
 * The ways of a mill's moves with the radius of each row beside what is programmed (G41, G42), in their order with
 * everything else that a program does. Moves from the start of compensation to its end are looked at together; what
 * cannot be followed is told in place of the first of them that cannot, and ends it.
 */
export function* millWays(steps: Iterable<Step>, radiusOf: (row: number) => number): Generator<WayStep, void, void> {
  let held: Step[] = [];
  const flush = function* (): Generator<WayStep, void, void> {
    const moves = held.filter((step): step is Move => step.type === "move");
    const followed = courses(moves, pieceOf, ({ diameterRow }) => (diameterRow === null ? 0 : radiusOf(diameterRow)));
    const [problem] = followed.problems;
    let moved = 0;
    for (const step of held) {
      if (step.type !== "move") {
        yield step;
        continue;
      }
      if (problem && step.line === problem.line) {
        yield { type: "wrong", line: problem.line, code: problem.code };
        return;
      }
      const course = followed.courses[moved++];
      yield course ? besideWay(step, course.roll, course.own) : plainWay(step);
    }
    held = [];
  };
  for (const step of steps) {
    const isOn = step.type === "move" && step.compensation !== "none";
    if (held.length === 0 && !isOn) {
      yield step.type === "move" ? plainWay(step) : step;
      continue;
    }
    held.push(step);
    const isOut = step.type === "move" && !isOn && (step.named & 3) !== 0;
    if (isOut || step.type === "end" || step.type === "tool" || step.type === "wrong") {
      yield* flush();
      if (held.length > 0) return;
    }
  }
  yield* flush();
}

const plainWay = (move: Move, isLathe = false): Way => ({
  type: "way",
  line: move.line,
  move,
  path: machinePath(move, isLathe),
  isBeside: false,
});

/** The ways of a lathe's moves: no nose radius is reckoned in, so that what calls one is not run. */
export function* latheWays(steps: Iterable<Step>): Generator<WayStep, void, void> {
  for (const step of steps) yield step.type === "move" ? plainWay(step, true) : step;
}
