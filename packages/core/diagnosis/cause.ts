import { catalog, type MistakeId, type Signature } from "./catalog";
import { infer, type Ranked } from "./infer";

/** Everything that can be named as a cause: the catalog's signatures, and what only a log can show. */
export type CauseId =
  | MistakeId
  | "capturedAfterLeaving" | "edgeBreak" | "bentFinder" | "coarseClick" | "slowSpindle" | "paperPinched"
  | "otherRegister" | "neverSet" | "noContact"
  | "changedSinceTouch";

/** One part of a closure that the log proves: how much of it, and the moment in the log. */
export interface ProvenTerm { readonly id: CauseId; readonly mm: number; readonly seq: number }

/** What the log says of one register: the contact it hangs on, what it should have become, the parts of the difference. */
export interface Evidence {
  /** The reading at contact, counts of machine position, and its moment; null when no contact was found. */
  readonly contact: { readonly counts: number; readonly seq: number; readonly atMs: number } | null;
  readonly terms: readonly ProvenTerm[];
  /** What the log leaves open of the closure, mm, method error included. */
  readonly leftMm: number;
}

export type Cause =
  | { readonly kind: "none" }
  | { readonly kind: "proven"; readonly terms: readonly ProvenTerm[] }
  | { readonly kind: "inferred"; readonly ranked: readonly Ranked[] }
  | { readonly kind: "unexplained" };

const NONE_PRIOR = 0.5;
/** "Something else" is broad: any closure within the bench's reach, with a small prior. */
const OTHER = { prior: 0.05, span: 400 };
/** What the log explains must leave no more than this many standard uncertainties about the method's bias. */
const CLOSES_WITHIN_U = 6;

/**
 * Why a register is off by `closureMm`. Proven when the log's terms leave nothing but the method's own error;
 * else inferred from what is left, against the catalog; else unexplained.
 */
export function causeOf(
  closureMm: number, evidence: Evidence, method: { biasMm: number; uMm: number }, signatures: readonly Signature[], resolutionMm: number,
): Cause {
  const rest = evidence.leftMm - method.biasMm;
  if (evidence.terms.length > 0 && Math.abs(rest) <= CLOSES_WITHIN_U * method.uMm + resolutionMm) {
    return { kind: "proven", terms: evidence.terms };
  }
  if (evidence.terms.some(({ id }) => id === "neverSet" || id === "otherRegister")) return { kind: "proven", terms: evidence.terms };
  const { ranked, unexplained } = infer({
    closure: closureMm - method.biasMm, u: method.uMm, resolution: resolutionMm, none: NONE_PRIOR,
    candidates: signatures.map(({ id, predictedMm }) => ({ id, predicted: predictedMm, prior: catalog[id].prior })), other: OTHER,
  });
  if (unexplained) return { kind: "unexplained" };
  return ranked[0]?.ids.length === 0 ? { kind: "none" } : { kind: "inferred", ranked };
}
