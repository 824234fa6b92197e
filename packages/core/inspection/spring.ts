import { type Flat, type Piece } from "../gcode/compensation";
import { Nearby } from "./nearby";
import { boundsOf, isPassed, isTurned, noseBounds, placeOn, type NoseSweep, type Sweep } from "./sweep";

/**
 * What a tool gives way to: one figure a piece of its way, along its normal, away from the wall that stays. Taken at
 * the middle of the piece from the stock on its sides; equal stock on both sides bends it nowhere.
 */
interface Spring {
  /** For each mm of stock, and at most so much, mm. */
  readonly perMm: number;
  readonly capMm: number;
}

/** Pieces shorter than this across the part are not looked at: a plunge, the chords of an upright arc. */
const SHORT_MM = 0.2;
/** Stock on a side is looked for at this many places of a cutter's half width. */
const PLACES = 40;
/** And in such steps from a nose outward, so far, mm. */
const NOSE_STEP_MM = 0.05;
const NOSE_REACH_MM = 6;
/** Stock on both sides thicker than this is a groove, whose walls hold the blade. */
const GROOVE_MM = 3;
/** So little above its tip a cutter is looked at, mm. */
const ABOVE_TIP_MM = 0.05;

/** Middle of a piece, and the direction to its left there; null of one that is too short. */
function middleOf(piece: Piece): { readonly at: Flat; readonly left: Flat } | null {
  const near = 1e-4;
  const [before, at, after] = [0.5 - near, 0.5, 0.5 + near].map((share) => placeOn(piece, share)) as [Flat, Flat, Flat];
  const [dx, dy] = [after[0] - before[0], after[1] - before[1]];
  const size = Math.hypot(dx, dy);
  // of its whole length the looked at stretch is a known share
  return size / (2 * near) < SHORT_MM ? null : { at, left: [-dy / size, dx / size] };
}

const movedBy = (piece: Piece, [x, y]: Flat): Piece => {
  const moved = (place: Flat): Flat => [place[0] + x, place[1] + y];
  return { ...piece, from: moved(piece.from), to: moved(piece.to), center: piece.center && moved(piece.center) };
};

/** A piece moved along its normal at every place: an arc becomes a wider or a narrower one. */
function besideItself(piece: Piece, left: Flat, mm: number): Piece {
  const { center } = piece;
  if (!center) return movedBy(piece, [left[0] * mm, left[1] * mm]);
  // to the left of an arc that turns left lies its center
  const wider = piece.isClockwise ? mm : -mm;
  const scaled = (place: Flat): Flat => {
    const radius = Math.hypot(place[0] - center[0], place[1] - center[1]);
    const by = radius === 0 ? 1 : (radius + wider) / radius;
    return [center[0] + (place[0] - center[0]) * by, center[1] + (place[1] - center[1]) * by];
  };
  return { ...piece, from: scaled(piece.from), to: scaled(piece.to) };
}

const givenWay = ({ perMm, capMm }: Spring, stockMm: number): number =>
  Math.sign(stockMm) * Math.min(capMm, perMm * Math.abs(stockMm));

/** One sweep with what bends it: how its tool gives way, and where there was stock at all when it came. */
export interface Bending<S, Place extends readonly number[]> {
  readonly sweep: S;
  readonly spring: Spring;
  isStock(...place: Place): boolean;
}

/** Sweeps in their order as they bend: each by what those before it left standing beside it. */
function sprung<S, Place extends readonly number[]>(
  all: readonly Bending<S, Place>[],
  boundsOf: (sweep: S) => { readonly low: Flat; readonly high: Flat },
  bend: (one: Bending<S, Place>, before: readonly S[]) => S,
): S[] {
  const near = new Nearby(all, ({ sweep, spring: { capMm } }) => {
    const { low, high } = boundsOf(sweep);
    return { low: [low[0] - capMm, low[1] - capMm], high: [high[0] + capMm, high[1] + capMm] };
  });
  const bent: S[] = [];
  for (const one of all) {
    const { low, high } = boundsOf(one.sweep);
    const reach = (at: Flat, by: number): Flat => [at[0] + by, at[1] + by];
    const before = near
      .within(reach(low, -NOSE_REACH_MM), reach(high, NOSE_REACH_MM))
      .flatMap((at) => (at < bent.length ? (bent[at] ?? []) : []));
    bent.push(one.spring.perMm === 0 ? one.sweep : bend(one, before));
  }
  return bent;
}

/** Cutters' sweeps as they bend. */
export const sprungSweeps = (all: readonly Bending<Sweep, [number, number, number]>[]): Sweep[] =>
  sprung(all, ({ piece, end }) => boundsOf(piece, end.radius), sprungSweep);

/** Noses' sweeps as they bend. */
export const sprungNoses = (all: readonly Bending<NoseSweep, [number, number]>[]): NoseSweep[] =>
  sprung(all, noseBounds, sprungNose);

function sprungSweep(
  { sweep, isStock, spring }: Bending<Sweep, [number, number, number]>,
  before: readonly Sweep[],
): Sweep {
  const middle = middleOf(sweep.piece);
  if (!middle) return sweep;
  const { at, left } = middle;
  const z = (sweep.fromZ + sweep.toZ) / 2 + ABOVE_TIP_MM;
  const { radius } = sweep.end;
  const stockMm = (sign: 1 | -1): number => {
    let met = 0;
    for (let i = 0; i < PLACES; i++) {
      const away = (radius * sign * (i + 0.5)) / PLACES;
      const [x, y] = [at[0] + left[0] * away, at[1] + left[1] * away];
      if (isStock(x, y, z) && !before.some((one) => isPassed(one, x, y, z))) met++;
    }
    return (met / PLACES) * radius;
  };
  // more of it on the right pushes to the left
  const mm = givenWay(spring, stockMm(-1) - stockMm(1));
  return mm === 0 ? sweep : { ...sweep, piece: besideItself(sweep.piece, left, mm) };
}

/** Away from the wall that stays, by how deep the cut is. */
function sprungNose(
  { sweep, isStock, spring }: Bending<NoseSweep, [number, number]>,
  before: readonly NoseSweep[],
): NoseSweep {
  const middle = middleOf(sweep.piece);
  if (!middle) return sweep;
  const { at, left } = middle;
  const stockMm = (sign: 1 | -1): number => {
    let met = 0;
    for (let away = sweep.radius + NOSE_STEP_MM / 2; away < sweep.radius + NOSE_REACH_MM; away += NOSE_STEP_MM) {
      const place: Flat = [at[0] + left[0] * away * sign, at[1] + left[1] * away * sign];
      if (isStock(place[0], place[1]) && !before.some((one) => isTurned(one, place))) met++;
    }
    // what the nose itself takes lies within its circle
    return met * NOSE_STEP_MM;
  };
  const [onLeft, onRight] = [stockMm(1), stockMm(-1)];
  // the wall that stays is the thicker side; the cut is as deep as the stock on the other, and what the nose covers
  const isWallLeft = onLeft > onRight;
  const thinner = Math.min(onLeft, onRight);
  const isBalanced = onLeft === onRight || thinner > GROOVE_MM;
  const depthMm = isBalanced ? 0 : thinner + coveredMm(sweep, before, isStock, middle);
  const mm = givenWay(spring, depthMm) * (isWallLeft ? -1 : 1);
  return mm === 0 ? sweep : { ...sweep, piece: besideItself(sweep.piece, left, mm) };
}

/** How much stock lies within a nose's own width across its way. */
function coveredMm(
  { radius }: NoseSweep,
  before: readonly NoseSweep[],
  isStock: (z: number, radius: number) => boolean,
  { at, left }: { readonly at: Flat; readonly left: Flat },
): number {
  let met = 0;
  for (let away = NOSE_STEP_MM / 2 - radius; away < radius; away += NOSE_STEP_MM) {
    const place: Flat = [at[0] + left[0] * away, at[1] + left[1] * away];
    if (isStock(place[0], place[1]) && !before.some((one) => isTurned(one, place))) met++;
  }
  return met * NOSE_STEP_MM;
}
