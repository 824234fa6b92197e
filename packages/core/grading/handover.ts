import type { CauseId, LaneTrace, LoggedEvent } from "../diagnosis";
import type { Fault, FaultKind, Target } from "../exercises";
import { toMm } from "../units";
import type { HandoverRules } from "./kit";
import type { RegisterRuling } from "./values";

/** What became of a setup that was handed over: each fault, what was sound, and what was said of the whole. */
export type HandoverFinding =
  | {
      readonly code: "faultFound";
      readonly fault: Fault;
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number;
    }
  | {
      readonly code: "faultMissed";
      readonly fault: Fault;
      readonly why: "noReading" | "notPutRight" | "tooLate";
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number | null;
    }
  | {
      readonly code: "soundRead" | "soundUnread";
      readonly target: Target;
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number | null;
    }
  | {
      readonly code: "soundSpoiled";
      readonly target: Target;
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number | null;
    }
  | {
      readonly code: "verdict";
      readonly said: "sound" | "faulty" | null;
      readonly isTrue: boolean;
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number | null;
    };

/** A later change within this is touching up, mm. */
const TOUCHING_UP_MM = 0.02;
/** Share of the strand for what is said of the whole; the faults have the rest. */
const VERDICT_SHARE = 0.2;
/** Share of the strand that spoiling one sound value costs. */
const SPOILED_SHARE = 0.25;

type Effects = Pick<Fault, "effects">;

export const effectOn = ({ effects }: Effects, { id }: Pick<Target, "id">): number =>
  effects.find((one) => one.target === id)?.mm ?? 0;

const CAUSES: Record<FaultKind, CauseId> = {
  neighborRow: "neighborRow",
  staleWear: "oldWear",
  schoolMixed: "schoolsMixed",
  radiusSign: "radiusSignTurned",
  setterMoved: "setterMoved",
  wrongOffset: "otherRegister",
  offStop: "partMoved",
  feelerOnce: "feelerOnce",
  bladeEdge: "otherBladeEdge",
  oldWorkZ: "leftoverWorkZ",
  facedAgain: "faceCutAgain",
};

/** The moment that put a fault right: the last change of what it hangs on. */
function changedAt(trace: LaneTrace, rules: HandoverRules<LaneTrace>, fault: Fault): number | null {
  const mendedAt = rules.mendedAt(trace, fault);
  if (mendedAt !== undefined) return mendedAt;
  const all = new Set<string>([...fault.registers, ...rules.mends(trace, fault)]);
  const changes = trace.changes.filter(({ event }) => all.has(event.register));
  // a few micrometres of touching up later do not make what was put right late
  const large = changes.findLast(
    ({ event }) => Math.abs(toMm(event.to - event.from, trace.final.scale)) > TOUCHING_UP_MM,
  );
  return (large ?? changes.at(-1))?.seq ?? null;
}

/**
 * Which faults still stand: of all subsets the one whose effects come nearest to the closures as they were handed in. A
 * fault is put right when it is not among them and no value that it touches is off by anything else.
 */
function standing<F extends Effects>(faults: readonly F[], values: readonly RegisterRuling[]): readonly F[] {
  const subsets = faults.reduce<F[][]>((all, fault) => [...all, ...all.map((some) => [...some, fault])], [[]]);
  const missBy = (some: readonly F[]) =>
    values.reduce(
      (total, { target, closureMm }) =>
        total + Math.abs(closureMm - some.reduce((sum, fault) => sum + effectOn(fault, target), 0)),
      0,
    );
  return subsets.reduce((best, some) => (missBy(some) < missBy(best) - 1e-9 ? some : best));
}

const leftMm = ({ target, closureMm }: RegisterRuling, faults: readonly Effects[]): number =>
  closureMm - faults.reduce((sum, fault) => sum + effectOn(fault, target), 0);

/**
 * A value that a standing fault explains is caused by it and by nothing the student did: proven, because it was handed
 * over so, or kept, and has changed since. One fault that puts several values off costs once: the first of them carries
 * it, the others are marked on what else they are off by.
 */
export function withFaults(
  { final }: LaneTrace,
  values: readonly RegisterRuling[],
  marksFor: (value: RegisterRuling, closureMm: number) => number,
): RegisterRuling[] {
  const all = [
    ...(final.truth.faults ?? []).map(({ kind, effects }) => ({ effects, cause: CAUSES[kind] })),
    ...(final.truth.keptChanges ?? []).map(({ effects }) => ({ effects, cause: "keptChanged" as const })),
  ];
  const left = standing(all, values);
  return values.map((value) => {
    const own = left.filter((fault) => effectOn(fault, value.target) !== 0);
    if (
      own.length === 0 ||
      Math.abs(value.closureMm) <= value.toleranceMm ||
      Math.abs(leftMm(value, own)) > value.toleranceMm
    )
      return value;
    const isFirst = (fault: Effects) => values.find(({ target }) => effectOn(fault, target) !== 0) === value;
    const sharedMm = own
      .filter((fault) => fault.effects.length > 1)
      .reduce((sum, fault) => sum + effectOn(fault, value.target), 0);
    const chargedMm = own
      .filter(isFirst)
      .reduce((sum, fault) => sum + effectOn(fault, value.target), leftMm(value, own));
    return {
      ...value,
      sharedMm,
      marks: marksFor(value, chargedMm),
      cause: {
        kind: "proven",
        terms: own.map((fault) => ({ id: fault.cause, mm: effectOn(fault, value.target), seq: 1 })),
      },
    };
  });
}

/** Registers of a value that belong to it alone, so that a change of one spoils it. */
const ownRegisters = ({ kind, registers }: Target): readonly string[] =>
  kind === "place" ? registers : registers.filter((register) => !register.includes("."));

const verdictSeq = (log: readonly LoggedEvent[]): number | null =>
  log.findLast(({ event }) => event.type === "setupJudged")?.seq ?? null;

/**
 * The strand of proving for a setup that was handed over. A fault counts as found when what was wrong is right at
 * hand-in and was put right before anything moved at speed, however it was found: reading the ledger costs nothing. A
 * sound setup earns by what was read of it. What is said of the whole earns a part of it only where it is true; a sound
 * value that was spoiled costs.
 */
export function handoverFindings(
  trace: LaneTrace,
  rules: HandoverRules<LaneTrace>,
  values: readonly RegisterRuling[],
  outOf: number,
): HandoverFinding[] {
  const { final, log } = trace;
  const faults = final.truth.faults ?? [];
  const fastAt = rules.firstFastMove(trace) ?? Infinity;
  const left = standing(faults, values);
  const each = (outOf * (1 - VERDICT_SHARE)) / Math.max(1, faults.length || values.length);
  const found = faults.map((fault): HandoverFinding => {
    const touched = values.filter(({ target }) => effectOn(fault, target) !== 0);
    const isRight =
      !left.includes(fault) && touched.every((value) => Math.abs(leftMm(value, left)) <= value.toleranceMm);
    const changed = changedAt(trace, rules, fault);
    const missed = (why: "noReading" | "notPutRight" | "tooLate", seq: number | null): HandoverFinding => ({
      code: "faultMissed",
      fault,
      why,
      marks: 0,
      outOf: each,
      seq,
    });
    const read = rules.separates(fault)(trace, changed ?? Infinity);
    if (!isRight || changed === null) return missed(read === null ? "noReading" : "notPutRight", read);
    return changed > fastAt
      ? missed("tooLate", fastAt)
      : { code: "faultFound", fault, marks: each, outOf: each, seq: read ?? changed };
  });
  const proven =
    faults.length > 0
      ? []
      : values.map(({ target }): HandoverFinding => {
          const seq = rules.readingOf(target)(trace, fastAt);
          return {
            code: seq === null ? "soundUnread" : "soundRead",
            target,
            marks: seq === null ? 0 : each,
            outOf: each,
            seq,
          };
        });
  const spoiled = values.flatMap((value): HandoverFinding[] => {
    const isSound = faults.every((fault) => effectOn(fault, value.target) === 0);
    const change = trace.changes.findLast(({ event }) => ownRegisters(value.target).includes(event.register));
    const isSpoiled = isSound && change !== undefined && Math.abs(value.closureMm) > value.toleranceMm;
    return isSpoiled
      ? [{ code: "soundSpoiled", target: value.target, marks: -outOf * SPOILED_SHARE, outOf: 0, seq: change.seq }]
      : [];
  });
  const said = final.desk.verdict;
  const isTrue = said === (faults.length > 0 ? "faulty" : "sound");
  const verdictMarks = () => {
    if (isTrue) return outOf * VERDICT_SHARE;
    const isFalselyFaulty = said === "faulty" && faults.length === 0;
    return isFalselyFaulty ? -outOf * SPOILED_SHARE : 0;
  };
  return [
    ...found,
    ...proven,
    ...spoiled,
    {
      code: "verdict",
      said,
      isTrue,
      marks: verdictMarks(),
      outOf: outOf * VERDICT_SHARE,
      seq: verdictSeq(log),
    },
  ];
}
