import { catalog, type MistakeId } from "./catalog";
import { infer, type Ranked } from "./infer";

/** Everything that can be named as a cause: the catalog's signatures, and what only a log can show. */
export type CauseId =
  | MistakeId
  | "capturedAfterLeaving"
  | "edgeBreak"
  | "bentFinder"
  | "coarseClick"
  | "slowSpindle"
  | "paperPinched"
  | "otherRegister"
  | "neverSet"
  | "noContact"
  | "changedSinceTouch"
  | "oneSideOnly"
  | "notOverMiddle"
  | "partMoved"
  | "tasterNotTrued"
  | "turnForgotten"
  | "turnSignTurned"
  | "taperDirt"
  | "notSeated"
  | "setterMoved"
  | "presetterOff"
  | "chipOnTip"
  | "notCleanedUp"
  | "notMeasured"
  | "faceCutAgain"
  | "touchedRunout"
  | "armOff"
  | "leanedOnPost"
  | "bandCutAgain"
  | "clampShifted"
  | "registerBuiltIn"
  | "coneNoseLeftOut"
  | "declaredElsewhere"
  | "declarationLost"
  | "halfPinForgotten"
  | "wholePinAdded"
  | "tailstockTaken"
  | "gaugeNotZeroed"
  | "gaugeFromAbove"
  | "cornerNotZero";

/** Where one cause would put a value, mm off. */
export interface CauseSignature {
  readonly id: CauseId;
  readonly predictedMm: number;
}

/** One part of a closure that the log proves: how much of it, and the moment in the log. */
export interface ProvenTerm {
  readonly id: CauseId;
  readonly mm: number;
  readonly seq: number;
}

/**
 * What the log says of one register: the contact it hangs on, what it should have become, the parts of the difference.
 */
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

/** A term of a contact smaller than this is what a careful hand leaves, and is not said to be a cause, mm. */
export const WORTH_NAMING_MM = 0.009;

const NONE_PRIOR = 0.5;
/** Causes that only a lane's truth can name: not rare, because the exercise was made for them. */
const PHYSICAL_PRIOR = 0.1;
const isInCatalog = (id: CauseId): id is MistakeId => Object.hasOwn(catalog, id);
const priorOf = (id: CauseId): number => (isInCatalog(id) ? catalog[id].prior : PHYSICAL_PRIOR);

/** "Something else" is broad: any closure within the bench's reach, with a small prior. */
const OTHER = { prior: 0.05, span: 400 };
/** What the log explains must leave no more than this many standard uncertainties about the method's bias. */
const CLOSES_WITHIN_U = 6;

/**
 * Why a register is off by `closureMm`. Proven when the log's terms leave nothing but the method's own error;
 * else inferred from what is left, against the catalog; else unexplained.
 */
export function causeOf(
  closureMm: number,
  evidence: Evidence,
  method: { biasMm: number; uMm: number },
  signatures: readonly CauseSignature[],
  resolutionMm: number,
): Cause {
  const rest = evidence.leftMm - method.biasMm;
  if (evidence.terms.length > 0 && Math.abs(rest) <= CLOSES_WITHIN_U * method.uMm + resolutionMm) {
    return { kind: "proven", terms: evidence.terms };
  }
  if (evidence.terms.some(({ id }) => id === "neverSet" || id === "otherRegister"))
    return { kind: "proven", terms: evidence.terms };
  const { ranked, unexplained } = infer({
    closure: closureMm - method.biasMm,
    u: method.uMm,
    resolution: resolutionMm,
    none: NONE_PRIOR,
    candidates: signatures.map(({ id, predictedMm }) => ({ id, predicted: predictedMm, prior: priorOf(id) })),
    other: OTHER,
  });
  if (unexplained) return { kind: "unexplained" };
  return ranked[0]?.ids.length === 0 ? { kind: "none" } : { kind: "inferred", ranked };
}
