import { firstPast } from "./solids";

/** More moves than this are not proved: a class shares the machine that does it. */
export const MOST_MOVES = 200_000;

/** Thrown where a program makes more moves than are proved. */
export class TooManyMoves extends Error {
  constructor(readonly line: number) {
    super(`more than ${MOST_MOVES} moves, at line ${line}`);
  }
}

/** What must not happen on the way of a tool. */
export type ContactKind =
  | "past-travel"
  | "tool-in-fixture"
  | "holder-in-fixture"
  | "tool-in-chuck"
  | "rapid-in-stock"
  | "fed-with-spindle-stopped"
  | "wrong-direction"
  | "shank-in-stock"
  | "holder-in-stock";

/** The first forbidden contact: `at` is the tip (mill) or control point (lathe: diameter, z) in the part frame, mm. */
export interface Contact {
  readonly line: number;
  readonly kind: ContactKind;
  /** A solid's id, `stock`, `chuck`, or the axis that ran past its travel. */
  readonly with: string;
  readonly at: readonly number[];
}

/** A contact on one straight way, by the share of it. */
export interface Met {
  readonly share: number;
  readonly kind: ContactKind;
  readonly with: string;
}

/** The axis that leaves its travel first on one straight way of the machine; null where none does. */
export function pastTravel(
  axes: readonly string[],
  [from, to]: readonly [readonly number[], readonly number[]],
  { min, max }: { readonly min: readonly number[]; readonly max: readonly number[] },
): Met | null {
  return axes.reduce<Met | null>((met, axis, i) => {
    const share = firstPast(from[i] ?? 0, to[i] ?? 0, min[i] ?? 0, max[i] ?? 0);
    return share === null ? met : earlier(met, { share, kind: "past-travel", with: axis });
  }, null);
}

export const earlier = (a: Met | null, b: Met | null): Met | null => (!a || (b && b.share < a.share) ? b : a);
