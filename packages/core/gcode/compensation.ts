import { type Move } from "./moves";

/** A place in a plane: on a mill x, y; on a lathe z and the radius. */
export type Flat = readonly [number, number];

/** A straight piece or an arc in a plane. */
export interface Piece {
  readonly from: Flat;
  readonly to: Flat;
  readonly center: Flat | null;
  readonly isClockwise: boolean;
}

/** What the center of the tool does in one move: its own piece, and before it the roll round an outside corner. */
export interface Course {
  readonly move: Move;
  readonly roll: Piece | null;
  readonly own: Piece;
}

export type CourseProblem = "gouge" | "arc-too-small";

const NEAR = 1e-9;

const minus = (a: Flat, b: Flat): Flat => [a[0] - b[0], a[1] - b[1]];
const plus = (a: Flat, b: Flat, by = 1): Flat => [a[0] + b[0] * by, a[1] + b[1] * by];
const length = (a: Flat): number => Math.hypot(a[0], a[1]);
const isSame = (a: Flat, b: Flat): boolean => length(minus(a, b)) < 1e-7;
const left = ([x, y]: Flat): Flat => [-y, x];
const cross = (a: Flat, b: Flat): number => a[0] * b[1] - a[1] * b[0];
const dot = (a: Flat, b: Flat): number => a[0] * b[0] + a[1] * b[1];

function unit(a: Flat): Flat {
  const size = length(a);
  return size < NEAR ? [0, 0] : [a[0] / size, a[1] / size];
}

/** Direction in which a piece is gone through at a place of it. */
function direction({ from, to, center, isClockwise }: Piece, at: Flat): Flat {
  if (!center) return unit(minus(to, from));
  const out = unit(minus(at, center));
  return isClockwise ? [out[1], -out[0]] : left(out);
}

/** The piece at a distance to its left (below 0: to its right). */
function beside(piece: Piece, distance: number): Piece {
  const { from, to, center, isClockwise } = piece;
  if (!center) {
    const aside = left(direction(piece, from));
    return { ...piece, from: plus(from, aside, distance), to: plus(to, aside, distance) };
  }
  const radius = length(minus(from, center));
  const share = (radius + (isClockwise ? distance : -distance)) / Math.max(radius, NEAR);
  return {
    ...piece,
    from: plus(center, minus(from, center), share),
    to: plus(center, minus(to, center), share),
  };
}

/** Where two lines or circles meet, those that the pieces lie on. */
function meetings(a: Piece, b: Piece): Flat[] {
  if (!a.center && !b.center) {
    const [da, db] = [minus(a.to, a.from), minus(b.to, b.from)];
    const turn = cross(da, db);
    if (Math.abs(turn) < 1e-12) return [];
    return [plus(a.from, da, cross(minus(b.from, a.from), db) / turn)];
  }
  if (a.center && b.center) {
    const [ra, rb] = [length(minus(a.from, a.center)), length(minus(b.from, b.center))];
    const between = minus(b.center, a.center);
    const apart = length(between);
    if (apart < NEAR) return [];
    const along = (apart * apart + ra * ra - rb * rb) / (2 * apart);
    const high = ra * ra - along * along;
    if (high < 0) return high > -1e-9 ? [plus(a.center, unit(between), along)] : [];
    const foot = plus(a.center, unit(between), along);
    return [1, -1].map((side) => plus(foot, left(unit(between)), side * Math.sqrt(high)));
  }
  const [line, arc] = a.center ? [b, a] : [a, b];
  const center = arc.center ?? [0, 0];
  const radius = length(minus(arc.from, center));
  const way = unit(minus(line.to, line.from));
  const foot = plus(line.from, way, dot(minus(center, line.from), way));
  const high = radius * radius - dot(minus(foot, center), minus(foot, center));
  if (high < 0) return high > -1e-9 ? [foot] : [];
  return [1, -1].map((side) => plus(foot, way, side * Math.sqrt(high)));
}

/** The end of one piece beside its corner and the beginning of the next: met inside, rolled round outside. */
function joined(a: Piece, b: Piece, distance: number): { a: Piece; b: Piece; roll: Piece | null } {
  const [besideA, besideB] = [beside(a, distance), beside(b, distance)];
  if (isSame(besideA.to, besideB.from)) return { a: besideA, b: besideB, roll: null };
  const turn = cross(direction(a, a.to), direction(b, b.from));
  if (turn * distance > 0) {
    const corner = a.to;
    const [met] = meetings(besideA, besideB).sort((p, q) => length(minus(p, corner)) - length(minus(q, corner)));
    if (met) return { a: { ...besideA, to: met }, b: { ...besideB, from: met }, roll: null };
  }
  const roll = { from: besideA.to, to: besideB.from, center: a.to, isClockwise: distance > 0 };
  return { a: besideA, b: besideB, roll };
}

interface Part {
  readonly index: number;
  readonly piece: Piece;
}

/**
 * The ways of the tool's center under G41 and G42: `radiusOf` gives the compensation radius of a move, `flatOf` a place
 * in the plane, and `pieceOf` a move's own piece; moves without a way in the plane stay where the last piece ended. The
 * move that begins compensation ends square to the start of the next piece, the one that ends it starts square to the
 * end of the last. Inside corners meet, outside ones are rolled. What cannot be followed is told with its move.
 */
export function courses(
  moves: readonly Move[],
  pieceOf: (move: Move) => Piece,
  radiusOf: (move: Move) => number,
): { readonly courses: readonly Course[]; readonly problems: readonly { line: number; code: CourseProblem }[] } {
  const found: Course[] = moves.map((move) => ({ move, roll: null, own: pieceOf(move) }));
  const problems: { line: number; code: CourseProblem }[] = [];
  const isInPlane = ({ own: { from, to, center } }: Course): boolean => center !== null || !isSame(from, to);
  const side = ({ compensation }: Move): number => ({ none: 0, left: 1, right: -1 })[compensation];
  const set = (index: number, change: Partial<Course>): void => {
    const course = found[index];
    if (course) found[index] = { ...course, ...change };
  };
  const close = (lead: number, chain: readonly Part[], end: number | null): void => {
    const distanceOf = (part: Part): number => {
      const { move } = found[part.index] ?? {};
      return move ? side(move) * radiusOf(move) : 0;
    };
    const besides = chain.map((part) => beside(part.piece, distanceOf(part)));
    const rolls: (Piece | null)[] = chain.map(() => null);
    chain.forEach((part, i) => {
      const next = chain[i + 1];
      const { piece } = part;
      const { move } = found[part.index] ?? {};
      const isTooSmall =
        piece.center !== null &&
        length(minus(piece.from, piece.center)) + (piece.isClockwise ? distanceOf(part) : -distanceOf(part)) < -NEAR;
      if (isTooSmall && move) problems.push({ line: move.line, code: "arc-too-small" });
      if (!next) return;
      const corner = joined(piece, next.piece, distanceOf(part));
      besides[i] = { ...(besides[i] ?? corner.a), to: corner.a.to };
      besides[i + 1] = { ...(besides[i + 1] ?? corner.b), from: corner.b.from };
      rolls[i + 1] = corner.roll;
    });
    chain.forEach((part, i) => {
      const own = besides[i];
      if (!own) return;
      const { move } = found[part.index] ?? {};
      const isTurnedRound = !own.center && dot(minus(own.to, own.from), minus(part.piece.to, part.piece.from)) < -NEAR;
      if (isTurnedRound && move) problems.push({ line: move.line, code: "gouge" });
      set(part.index, { own, roll: rolls[i] ?? null });
    });
    const leading = found[lead];
    const first = besides[0];
    // begun and ended at once: square to its own end
    const aside = leading ? side(leading.move) * radiusOf(leading.move) : 0;
    const start =
      first?.from ?? (leading ? plus(leading.own.to, left(direction(leading.own, leading.own.to)), aside) : [0, 0]);
    if (leading) set(lead, { own: { ...leading.own, to: start } });
    const last = besides.at(-1)?.to ?? start;
    const out = end === null ? undefined : found[end];
    if (end !== null && out) set(end, { own: { ...out.own, from: last } });
  };
  let lead: number | null = null;
  let chain: Part[] = [];
  found.forEach((course, index) => {
    if (!isInPlane(course)) return;
    const isOn = course.move.compensation !== "none";
    if (isOn && lead === null) lead = index;
    else if (isOn) chain.push({ index, piece: course.own });
    else if (lead !== null) {
      close(lead, chain, index);
      lead = null;
      chain = [];
    }
  });
  if (lead !== null) close(lead, chain, null);
  // what goes along the third axis alone stands where the piece before it ended
  let at: Flat | null = null;
  found.forEach((course, index) => {
    const isOn = course.move.compensation !== "none";
    if (isInPlane(course)) at = found[index]?.own.to ?? null;
    else if (isOn && at) set(index, { own: { ...course.own, from: at, to: at } });
  });
  return { courses: found, problems };
}
