import {
  catalog,
  mostUsefulFigure,
  signaturesFor,
  type FigureName,
  type Figures,
  type Method,
  type MistakeId,
  type Signature,
} from "./catalog";
import { infer } from "./infer";

export interface ExplainInput {
  readonly method: Method;
  /** Closure: what the register holds less what it should; mm. */
  readonly closure: number;
  readonly figures: Figures;
  /** Standard uncertainty of the method and of what it is held against, mm. */
  readonly u: number;
  readonly bias?: number;
  /** Least step of the reading, mm. */
  readonly resolution?: number;
}

/** One explanation: mistakes that would all leave this closure stand together as a class; a pair has two classes. */
export interface Explanation {
  readonly classes: readonly (readonly MistakeId[])[];
  readonly predicted: number;
  readonly probability: number;
}
export interface Explained {
  /** Most likely first; empty when unexplained. An explanation without classes says that nothing is wrong. */
  readonly ranked: readonly Explanation[];
  readonly unexplained: boolean;
  /** One more figure that would help most; null when every mistake of the method was weighed. */
  readonly wouldHelp: FigureName | null;
}

/** Signatures nearer than this many standard uncertainties cannot be told apart by the number. */
const SAME_WITHIN_U = 6;
const NONE_PRIOR = 0.5;
/** "Something else": as likely as a rare mistake, spread over a few mm, where slips of the hand fall. */
const OTHER = { prior: 0.15, leastSpanMm: 8 };
/** A prediction in more than one way shares the mistake's prior. */
const shareOf = ({ id }: Signature, all: readonly Signature[]): number =>
  catalog[id].prior / all.filter((one) => one.id === id).length;

interface SignatureClass {
  readonly ids: MistakeId[];
  predicted: number;
  prior: number;
}

/** Signatures that lie together, as one candidate each; the likeliest member comes first. */
function classesOf(signatures: readonly Signature[], within: number): SignatureClass[] {
  const classes: SignatureClass[] = [];
  const byPrior = [...signatures].sort((a, b) => shareOf(b, signatures) - shareOf(a, signatures));
  for (const signature of byPrior) {
    const prior = shareOf(signature, signatures);
    const near = classes.find(({ predicted }) => Math.abs(predicted - signature.predictedMm) <= within);
    if (!near) classes.push({ ids: [signature.id], predicted: signature.predictedMm, prior });
    else {
      if (!near.ids.includes(signature.id)) near.ids.push(signature.id);
      near.prior += prior;
    }
  }
  return classes;
}

/** What a number says about the mistake behind it: singles, pairs and "something else", never a guess. */
export function explain({ method, closure, figures, u, bias = 0, resolution = 0 }: ExplainInput): Explained {
  const classes = classesOf(signaturesFor(method, figures), SAME_WITHIN_U * u);
  const span = Math.max(OTHER.leastSpanMm, 2.5 * Math.abs(closure));
  const { ranked, unexplained } = infer({
    closure: closure - bias,
    u,
    resolution,
    none: NONE_PRIOR,
    candidates: classes.map(({ predicted, prior }, index) => ({ id: String(index), predicted, prior })),
    other: { prior: OTHER.prior, span },
  });
  return {
    unexplained,
    wouldHelp: mostUsefulFigure(method, figures),
    ranked: ranked
      .filter(({ ids }) => ids[0] !== "other")
      .map(({ ids, probability }) => {
        const found = ids.map((id) => classes[Number(id)]).filter((one): one is SignatureClass => one !== undefined);
        return {
          classes: found.map(({ ids: members }) => members),
          predicted: found.reduce((sum, { predicted }) => sum + predicted, 0),
          probability,
        };
      }),
  };
}

/** The same habit on several registers is one cause: mistakes that lead on two or more of them, most often first. */
export function habitsOf(
  results: readonly { register: string; explained: Explained }[],
): { id: MistakeId; registers: string[] }[] {
  const found = new Map<MistakeId, string[]>();
  for (const { register, explained } of results) {
    for (const id of new Set(
      (explained.ranked[0]?.classes ?? []).map((members) => members[0]).filter((id) => id !== undefined),
    )) {
      found.set(id, [...(found.get(id) ?? []), register]);
    }
  }
  return [...found]
    .filter(([, registers]) => registers.length > 1)
    .map(([id, registers]) => ({ id, registers }))
    .sort((a, b) => b.registers.length - a.registers.length);
}

/**
 * What the register should hold, from a reading and what lay between; null while a figure is missing. One length unit.
 */
export function wantedFrom(method: Method, contact: number, figures: Figures): number | null {
  const {
    approach,
    tipRadius,
    edgeWork = 0,
    paper = 0,
    block = 0,
    facing = 0,
    touchDiameter,
    outside = 1,
    leftoverCommon = 0,
  } = figures;
  switch (method) {
    case "mill-edge":
      return approach === undefined || tipRadius === undefined
        ? null
        : contact + approach * tipRadius - edgeWork - leftoverCommon;
    case "mill-length":
      return contact - paper - block - facing;
    case "lathe-x":
      return touchDiameter === undefined ? null : contact - touchDiameter - outside * 2 * paper;
    case "lathe-z":
      return contact - facing - block;
    case "lathe-readout":
      return contact === 0 ? 0 : -contact;
    case "mill-center":
      return contact - leftoverCommon;
    case "mill-diameter":
    case "lathe-nose":
    case "lathe-tip":
      return contact;
  }
}
