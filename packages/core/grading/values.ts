import { worthNaming, type Cause, type CauseSignature, type Provenance } from "../diagnosis";
import { allowedMm, type Allowed } from "./touching";
import type { MethodBias, Target } from "../exercises";

/**
 * One value of the lane: a work offset, what the registers of a tool add up to, one register of a prescribed school, a
 * turn.
 */
export interface RegisterRuling {
  readonly target: Target;
  /** What the registers add up to, and what they should: mm, or degrees for a turn. */
  readonly held: number;
  readonly wanted: number;
  readonly closureMm: number;
  readonly toleranceMm: number;
  readonly zeroAtMm: number;
  readonly biasMm: number;
  readonly uMm: number;
  readonly marks: number;
  readonly outOf: number;
  /**
   * How much of the closure it shares with the other tools and was charged to the first of them, mm; 0 where it stands
   * alone.
   */
  readonly sharedMm: number;
  /** Right given an earlier wrong value, so that its marks are kept. */
  readonly isFollowThrough: boolean;
  readonly signatures: readonly CauseSignature[];
  readonly contact: Provenance["contact"];
  /** What the contact was made with, and what still lay between it and the face, mm; null where the log has none. */
  readonly method: { readonly by: string; readonly offMm: number } | null;
  readonly cause: Cause;
  /** It stands as a kept setup had it: taken back, and not set after. */
  readonly isKept?: true;
  /** What of the closure is this shop's way of touching: allowed, and not marked. */
  readonly allowed?: readonly Allowed[];
  /** The closure taken apart by the log, and the method's own error; null in rulings of before that was kept. */
  readonly provenance: Pick<Provenance, "terms" | "ownMm" | "belongs"> | null;
}

/** How far a tool goes deeper than it is told, by all of its values together, mm. */
export interface Deeper {
  readonly tool: number;
  readonly mm: number;
}

/**
 * The share of its marks that a value keeps: full inside the tolerance, linear to zero at the stated multiple of it.
 */
export function valueMarks(closureMm: number, toleranceMm: number, zeroAtMultiple: number, outOf: number): number {
  const off = Math.abs(closureMm) / toleranceMm;
  return off <= 1 ? outOf : Math.max(0, (outOf * (zeroAtMultiple - off)) / (zeroAtMultiple - 1));
}

/** What of a provenance is kept with a ruling. */
export const keptOf = ({ terms, ownMm, belongs = [] }: Provenance): RegisterRuling["provenance"] => ({
  terms,
  ownMm,
  belongs,
});

/**
 * Signatures that are drawn beside a value: what the log names of it with its own amount, and what the sheet
 * predicts.
 */
export function withSignaturesOf(
  { terms }: Provenance,
  predicted: readonly CauseSignature[],
): readonly CauseSignature[] {
  const named = worthNaming(terms)
    .filter(({ id }) => id !== "otherFigure")
    .map(({ id, mm }) => ({ id, predictedMm: mm }));
  return [...named, ...predicted.filter(({ id }) => !named.some((one) => one.id === id))];
}

/** A way that the log does not tell is taken to be as good as a usual one. */
export const UNKNOWN_WAY: MethodBias = { biasMm: 0, uMm: 0.003 };

/** Whether a value is right, with what its shop allows at a touch. */
export const isValueRight = ({
  closureMm,
  toleranceMm,
  allowed = [],
}: Pick<RegisterRuling, "closureMm" | "toleranceMm" | "allowed">): boolean =>
  Math.abs(closureMm - allowedMm(allowed)) <= toleranceMm;
