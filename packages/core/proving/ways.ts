import { movePoints, type Move, type Step } from "../gcode";
import { courses, type Course, type Flat, type Piece } from "../gcode/compensation";
import { tipDirection, type TipCode } from "../registers/nose";
import { machinePath } from "./straight";

/**
 * One piece of the way of a tool's control point on the machine, arcs as arcs: X Y of a mill with its heights at both
 * ends, z and radius of a lathe.
 */
export interface Stretch {
  readonly piece: Piece;
  readonly from: number;
  readonly to: number;
}

/** A move with the machine places that its tool's axis passes, its start first. */
export interface Way {
  readonly type: "way";
  readonly line: number;
  readonly move: Move;
  readonly path: readonly (readonly number[])[];
  /** It runs beside what is programmed, or leads into that or out of it. */
  readonly isBeside: boolean;
  /** The same way to the last figure, for what it leaves behind. */
  exact(): readonly Stretch[];
}
export type WayStep = Way | Exclude<Step, Move>;

/** How far a chord may leave the arc of a compensated way, mm. */
const CHORD_MM = 0.01;
/** The same of an arc that stands upright, where it is to be exact. */
const FINE_CHORD_MM = 5e-5;
const FLAT_PLANE = 17;
/** Bits of the axes that compensation is reckoned in: X and Y of a mill, X and Z of a lathe. */
const IN_PLANE = 3;

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

/** How the ways of one machine's moves go beside what is programmed. */
interface Beside {
  readonly isLathe: boolean;
  pieceOf(move: Move): Piece;
  /** What is gone beside it, mm. */
  radiusOf(move: Move): number;
  /** A way by the course of its center; whether the one before it ran beside, too. */
  wayOf(course: Course, wasBeside: boolean): Pick<Way, "path" | "exact">;
  plainStretches(move: Move): readonly Stretch[];
}

const shifted = (piece: Piece, from: Flat, to: Flat = from): Piece => ({
  ...piece,
  from: [piece.from[0] + from[0], piece.from[1] + from[1]],
  to: [piece.to[0] + to[0], piece.to[1] + to[1]],
  center: piece.center && [piece.center[0] + to[0], piece.center[1] + to[1]],
});

function shiftOf({ line, from, machine }: Move): number[] {
  if (!machine) throw new Error(`shiftOf: line ${line} does not know where the machine stands`);
  return machine.from.map((at, axis) => at - (from[axis] ?? 0));
}

/** The roll before a move at its own start height, then its piece. */
function millWay({ move, roll, own }: Course): Pick<Way, "path" | "exact"> {
  const [low = 0, high = 0] = [move.from[2], move.to[2]];
  const shift = shiftOf(move);
  const place = ([x, y]: Flat, z: number): number[] => [x, y, z].map((value, axis) => value + (shift[axis] ?? 0));
  const along = placesOf(own);
  const by: Flat = [shift[0] ?? 0, shift[1] ?? 0];
  const stretch = (piece: Piece, from: number, to: number): Stretch => ({
    piece: shifted(piece, by),
    from: from + (shift[2] ?? 0),
    to: to + (shift[2] ?? 0),
  });
  return {
    path: [
      place(roll?.from ?? own.from, low),
      ...(roll ? placesOf(roll).map((at) => place(at, low)) : []),
      ...along.map((at, i) => place(at, low + ((high - low) * (i + 1)) / along.length)),
    ],
    exact: () => [...(roll ? [stretch(roll, low, low)] : []), stretch(own, low, high)],
  };
}

/** A move that runs on what is programmed: an arc that stands upright as chords. */
function millStretches(move: Move): readonly Stretch[] {
  const shift = shiftOf(move);
  const by: Flat = [shift[0] ?? 0, shift[1] ?? 0];
  const height = (z = 0): number => z + (shift[2] ?? 0);
  if (!move.center || move.plane === FLAT_PLANE)
    return [{ piece: shifted(pieceOf(move), by), from: height(move.from[2]), to: height(move.to[2]) }];
  const points = movePoints(move, false, FINE_CHORD_MM);
  return points.slice(1).map((to, i) => {
    const from = points[i] ?? to;
    const piece = { from: flat(from), to: flat(to), center: null, isClockwise: false };
    return { piece: shifted(piece, by), from: height(from[2]), to: height(to[2]) };
  });
}

/**
 * The ways of moves beside what is programmed (G41, G42), in their order with everything else that a program does.
 * Moves from the start of compensation to its end are looked at together; what cannot be followed is told in place of
 * the first of them that cannot, and ends it.
 */
function* waysBeside(steps: Iterable<Step>, beside: Beside): Generator<WayStep, void, void> {
  const { isLathe, plainStretches } = beside;
  const plainWay = (move: Move): Way => ({
    type: "way",
    line: move.line,
    move,
    path: machinePath(move, isLathe),
    isBeside: false,
    exact: () => plainStretches(move),
  });
  let held: Step[] = [];
  const flush = function* (): Generator<WayStep, void, void> {
    const moves = held.filter((step): step is Move => step.type === "move");
    const followed = courses(moves, beside.pieceOf, beside.radiusOf);
    const [problem] = followed.problems;
    let moved = 0;
    let wasBeside = false;
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
      if (!course || step.isMachineFrame) yield plainWay(step);
      else yield { type: "way", line: step.line, move: step, ...beside.wayOf(course, wasBeside), isBeside: true };
      const { from, to } = course?.own ?? { from: [0, 0], to: [0, 0] };
      if (from[0] !== to[0] || from[1] !== to[1]) wasBeside = step.compensation !== "none";
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
    const isOut = step.type === "move" && !isOn && (step.named & IN_PLANE) !== 0;
    if (isOut || step.type === "end" || step.type === "tool" || step.type === "wrong") {
      yield* flush();
      if (held.length > 0) return;
    }
  }
  yield* flush();
}

/** The ways of a mill's moves, with the radius of each row of diameters beside what is programmed. */
export const millWays = (steps: Iterable<Step>, radiusOf: (row: number) => number): Generator<WayStep, void, void> =>
  waysBeside(steps, {
    isLathe: false,
    pieceOf,
    radiusOf: ({ diameterRow }) => (diameterRow === null ? 0 : radiusOf(diameterRow)),
    wayOf: millWay,
    plainStretches: millStretches,
  });

/** z and radius of a place that is told as a diameter and z. */
const halfFlat = (place: readonly number[]): Flat => [place[1] ?? 0, (place[0] ?? 0) / 2];
const halfPiece = (move: Move): Piece => ({
  from: halfFlat(move.from),
  to: halfFlat(move.to),
  center: move.center && halfFlat(move.center),
  isClockwise: move.kind === "cw",
});

/** What the control believes of a nose: its radius, mm, and the code of its tip. */
export interface Nose {
  readonly noseRadius: number;
  readonly tipCode: TipCode;
}

/** The ways of a lathe's moves: under G41 and G42 the nose's center goes beside the contour, by radius and tip code. */
export function latheWays(
  steps: Iterable<Step>,
  noseOf: (row: number) => Nose | undefined,
): Generator<WayStep, void, void> {
  const noseIn = ({ row }: Move): Nose | undefined => (row === null ? undefined : noseOf(row));
  return waysBeside(steps, {
    isLathe: true,
    pieceOf: halfPiece,
    plainStretches: (move) => [{ piece: shifted(halfPiece(move), halfFlat(shiftOf(move))), from: 0, to: 0 }],
    radiusOf: (move) => noseIn(move)?.noseRadius ?? 0,
    wayOf: ({ move, roll, own }, wasBeside) => {
      const shift = shiftOf(move);
      const { noseRadius = 0, tipCode = 0 } = noseIn(move) ?? {};
      const [tipX, tipZ] = tipDirection(tipCode);
      const by = (isCenter: boolean): Flat => {
        const radius = isCenter ? noseRadius : 0;
        const [z, r] = halfFlat(shift);
        return [z + tipZ * radius, r + tipX * radius];
      };
      const place = ([z, r]: Flat, isCenter: boolean): number[] => {
        const at = by(isCenter);
        return [(r + at[1]) * 2, z + at[0]];
      };
      const isOn = move.compensation !== "none";
      const along = (piece: Piece, from: Flat, to: Flat): Stretch => ({
        piece: shifted(piece, from, to),
        from: 0,
        to: 0,
      });
      return {
        path: [
          place(roll?.from ?? own.from, wasBeside),
          ...(roll ? placesOf(roll).map((at) => place(at, true)) : []),
          ...placesOf(own).map((at) => place(at, isOn)),
        ],
        exact: () => [...(roll ? [along(roll, by(true), by(true))] : []), along(own, by(wasBeside), by(isOn))],
      };
    },
  });
}
