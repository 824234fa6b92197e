import type { TermName } from "../lane/names";
import type { ContactFault } from "../machines/told";
import type { RegisterId } from "../registers";
import type { Counts } from "../units";
import type { MistakeId } from "./catalog";
import type { FeltFault } from "./felt";
import type { Ranked } from "./infer";

/** Everything that can be named as a cause: the catalog's signatures, and what only a log can show. */
export type CauseId =
  | MistakeId
  | ContactFault
  | "capturedAfterLeaving"
  | FeltFault
  | "otherRegister"
  | "neverSet"
  | "takenBack"
  | "noContact"
  | "changedSinceTouch"
  | "oneSideOnly"
  | "notOverMiddle"
  | "partMoved"
  | "keptChanged"
  | "turnForgotten"
  | "jawAskew"
  | "faceAskew"
  | "turnSignTurned"
  | "taperDirt"
  | "notSeated"
  | "notCleanedUp"
  | "notMeasured"
  | "faceCutAgain"
  | "touchedRunout"
  | "flankMet"
  | "pointForSide"
  | "armOff"
  | "leanedOnPost"
  | "bandCutAgain"
  | "clampShifted"
  | "insertChanged"
  | "registerBuiltIn"
  | "coneNoseLeftOut"
  | "declaredElsewhere"
  | "declarationLost"
  | "halfPinForgotten"
  | "wholePinAdded"
  | "tailstockTaken"
  | "gaugeNotZeroed"
  | "gaugeFromAbove"
  | "cornerNotZero"
  | "rounding"
  | "otherFigure"
  | "otherReading"
  | "otherColumn"
  | "wrongSum"
  | "otherTipRadius"
  | "otherEdgeWork"
  | "changedAfter"
  | "carriedOver"
  | "measuredOnCenter"
  | "measuredStill"
  | "measuredBesideTip"
  | "gapTwice"
  | "otherGap"
  | "oneSideMeasured"
  | "coarseInstrument"
  | "otherPlane"
  | "stylusOff"
  | "dialNotAtZero"
  | "contactOff"
  | "heightWrongWay"
  | "gaugeSank"
  | "wholePip";

/** Where one cause would put a value, mm off. */
export interface CauseSignature {
  readonly id: CauseId;
  readonly predictedMm: number;
}

/** One share of a closure that the log shows: by how much, and the moment in the log. */
export interface Term {
  readonly id: CauseId;
  /** Signed as the closure is, mm. */
  readonly mm: number;
  readonly seq: number;
  /** The figure that was stated, and the one that belonged there, mm; signed as they add to the register. */
  readonly figure?: { readonly saidMm: number; readonly belongsMm: number } | undefined;
  /** Another register that it is about. */
  readonly register?: RegisterId | undefined;
  /** Another tool that it is about. */
  readonly tool?: number | undefined;
  /** It stood when the value was taken, and was changed afterwards. */
  readonly isAfter?: boolean | undefined;
}

/** What a value was found by. */
export interface SourceContact {
  /** The reading at contact, counts of machine position. */
  readonly counts: Counts;
  readonly seq: number;
  readonly atMs: number;
}

/**
 * A closure taken apart by the log: which contact it came from, what each step made of it, what of a stated figure the
 * log leaves open, and the method's own error. Terms and own error add up to the closure, to the increment.
 */
export interface Provenance {
  readonly contact: SourceContact | null;
  readonly terms: readonly Term[];
  /** What the stated figure may be where more than one name fits it: the names stand among the terms. */
  readonly open: readonly Ranked[] | null;
  readonly ownMm: number;
  /** The terms that a working from that contact has; counts, signed as they stand in the ledger. */
  readonly belongs?: readonly { readonly term: TermName; readonly counts: Counts }[] | undefined;
}

export type Cause =
  | { readonly kind: "none" }
  | { readonly kind: "proven"; readonly terms: readonly Term[] }
  /** The terms are what the log shows; their names are the likeliest of those that fit. */
  | { readonly kind: "inferred"; readonly ranked: readonly Ranked[]; readonly terms: readonly Term[] }
  | { readonly kind: "unexplained" };

/** A share smaller than this is what a careful hand leaves, and is not said to be a cause, mm. */
export const WORTH_NAMING_MM = 0.009;
/** What the method itself leaves lies within this many of its standard uncertainties about its bias. */
const OWN_WITHIN_U = 6;

const wholly = (id: CauseId, closureMm: number, seq: number, register?: RegisterId): Provenance => ({
  contact: null,
  terms: [{ id, mm: closureMm, seq, ...(register === undefined ? {} : { register }) }],
  open: null,
  ownMm: 0,
});

/** Provenance of a value that no contact or reading stands behind: all of it is what was stated. */
export const noContact = (closureMm: number, seq: number): Provenance => wholly("noContact", closureMm, seq);

/** Provenance of a value whose registers hold nothing that was set: all of it is that. */
export const wholeTerm = wholly;

/** Terms about the same thing as one; what cancels is gone. */
export function merged(terms: readonly Term[]): Term[] {
  const about = ({ id, seq, register, tool }: Term) => [id, seq, register, tool].join(" ");
  const found = new Map<string, Term>();
  for (const term of terms) {
    const known = found.get(about(term));
    found.set(about(term), known ? { ...known, mm: known.mm + term.mm } : term);
  }
  return [...found.values()].filter(({ mm }) => Math.abs(mm) > 1e-9);
}

/** Terms that are worth saying, the largest first. */
export const worthNaming = (terms: readonly Term[]): Term[] =>
  terms
    .filter(({ id, mm }) => id !== "rounding" && Math.abs(mm) >= WORTH_NAMING_MM)
    .sort((a, b) => Math.abs(b.mm) - Math.abs(a.mm));

/** Nothing smaller than this is named, however narrow the tolerance, mm. */
const SMALLEST_NAMED_MM = 0.004;

/**
 * Why a register is off. Proven where every share has one name; inferred where a stated figure fits several; none where
 * only the method's own error is left; else unexplained.
 */
export function causeOf(
  { terms, open, ownMm }: Provenance,
  method: { biasMm: number; uMm: number },
  resolutionMm: number,
): Cause {
  const large = worthNaming(terms);
  // where nothing is large, what is small and more than the method's own is what puts a narrow tolerance out
  const small = terms.filter(
    ({ id, mm }) => id !== "rounding" && Math.abs(mm) >= SMALLEST_NAMED_MM && Math.abs(mm) > Math.abs(ownMm),
  );
  const named = large.length > 0 ? large : small;
  if (named.length === 0) {
    const isOwn = Math.abs(ownMm - method.biasMm) <= OWN_WITHIN_U * method.uMm + resolutionMm;
    return isOwn ? { kind: "none" } : { kind: "unexplained" };
  }
  const [first] = open ?? [];
  if (!open || !first) return { kind: "proven", terms: named };
  // what is certain stands beside each of the names that are not
  const certain = named.map(({ id }) => id).filter((id) => !first.ids.includes(id));
  return {
    kind: "inferred",
    terms: named,
    ranked: open.map(({ ids, probability }) => ({
      ids: [...named.map(({ id }) => id).filter((id) => certain.includes(id)), ...ids],
      probability,
    })),
  };
}
