import type { RegisterId } from "../registers";
import { readRegister } from "../registers";
import type { LaneBase } from "../lane/state";
import { toMm, type Counts, type Scale } from "../units";
import type { CauseId, Provenance, SourceContact, Term } from "./cause";
import { merged, worthNaming } from "./cause";
import { AGREE_COUNTS, nameFigure, type OtherWay, type Share, type Written } from "./figures";
import type { Ranked } from "./infer";
import { lastAct } from "./lineage";
import { type Set, type Standing } from "./standing";

/**
 * The account of one sum of registers: what the act that set it made of the contact that it came from. Everything is
 * exact in counts, so the terms add up.
 */

/** What a sum can come from, and what belongs beside it. */
export interface Source {
  /** Where the contact stood, or what the reading said, counts. */
  readonly counts: Counts;
  readonly contact: SourceContact | null;
  /** What belongs in the figure beside it. */
  readonly shares: readonly Share[];
  /** What was wrong with the contact itself, and what is left: the method's own error, mm. */
  readonly errors: readonly Term[];
  readonly ownMm: number;
  /** A share that is entered by moving the machine and not by a figure, where the log shows such a move. */
  readonly motions?: readonly Motion[];
}

/** A move of the machine after the contact that stands for a share: the share then, and what it would leave. */
export interface Motion {
  readonly counts: Counts;
  readonly shares: readonly Share[];
}

export interface SumQuestion<S extends LaneBase> extends Set<S> {
  /** The registers that add up to the value. */
  readonly registers: readonly RegisterId[];
  readonly standing: Standing<S>;
  /** A capture solves for the display: what the other registers held then is in it. */
  readonly isSolving: boolean;
  readonly source: Source;
  readonly others: readonly OtherWay[];
  readonly written: Written | null;
  /** What the machine shows a student at the source, where that is not its place: what stands beside is taken off. */
  readonly shownCounts?: Counts | undefined;
  /** What a working has beside what is shown, where that is less than what belongs in the register. */
  readonly shownShares?: readonly Share[] | undefined;
  /** What a move after the contact is called that was not counted. */
  readonly strayId: CauseId;
  /** What it is called that another register of the sum still holds what it held at the start, or was changed since. */
  nameOf(register: RegisterId, change: "left" | "cleared" | "changed"): CauseId;
}

interface Account {
  readonly terms: readonly Term[];
  readonly open: readonly Ranked[] | null;
  /** How much it takes to say it: the fewer the better. */
  readonly cost: number;
}

/** What each name costs: a figure that nothing names is worth more than a name, so that a name is tried first. */
const COST = {
  named: 1,
  unnamed: 1.75,
  open: 0.2,
  pair: 0.3,
  wrongContact: 0.6,
  otherReading: 0.3,
  anew: 0.4,
  written: 0.8,
} as const;

/** Registers of the sum beside the one that was set. */
const beside = <S extends LaneBase>({ registers, standing }: SumQuestion<S>): readonly RegisterId[] =>
  registers.filter((id) => id !== standing.register);

/** What the other registers did to a sum that was solved for: they changed after it. */
function changedSince<S extends LaneBase>(question: SumQuestion<S>, scale: Scale): Term[] {
  const { final, standing, set, nameOf } = question;
  const { before, seq } = standing.act;
  return beside(question).flatMap((register) => {
    const [then, now] = [readRegister(before.registers, register), readRegister(final.registers, register)];
    if (then === now) return [];
    const lineage = set.get(register);
    const at = lineage ? lastAct(lineage).seq : seq;
    const id = nameOf(register, now === 0 ? "cleared" : "changed");
    return [{ id, mm: toMm(now - then, scale), seq: at, register, isAfter: true }];
  });
}

/** What the other registers of the sum hold beside a figure that stands by itself. */
function heldBeside<S extends LaneBase>(question: SumQuestion<S>): { register: RegisterId; counts: Counts }[] {
  return beside(question).flatMap((register) => {
    const counts = readRegister(question.final.registers, register);
    return counts === 0 ? [] : [{ register, counts }];
  });
}

/** Values of the other registers that a typed figure was counted with, and that changed afterwards. */
function changedUnderTyped<S extends LaneBase>(question: SumQuestion<S>): OtherWay[] {
  const { final, standing, nameOf } = question;
  return beside(question).flatMap((register) => {
    const [then, now] = [
      readRegister(standing.act.before.registers, register),
      readRegister(final.registers, register),
    ];
    return then === now
      ? []
      : [{ id: nameOf(register, now === 0 ? "cleared" : "changed"), counts: now - then, register }];
  });
}

/**
 * One reading of the sum: a move taken as meant, the rest of it stray, and the figure against what belongs; what other
 * registers hold beside a typed figure counted into it, or left in.
 */
function read<S extends LaneBase>(question: SumQuestion<S>, motion: Motion | null, isBesideCounted: boolean): Account {
  const { final, standing, source, isSolving, written, strayId, nameOf } = question;
  const { scale } = final;
  const { origin, stated, act, lineage } = standing;
  const statedSeq = lastAct(lineage).seq;
  const meant = motion?.counts ?? 0;
  const moved = origin === null ? 0 : origin - source.counts - meant;
  const own = motion?.shares ?? source.shares;
  const held = isSolving ? [] : heldBeside(question);
  const shares: readonly Share[] = isBesideCounted
    ? [...own, ...held.map(({ counts }): Share => ({ term: "other", counts: -counts, slips: [] }))]
    : own;
  const wanted = shares.reduce((sum, { counts }) => sum + counts, 0);
  const belongs = origin === null ? source.counts + wanted : wanted;
  // a capture was told the value with the other sign; figures that were added went in as they are
  const sign = origin !== null && lineage.added.length === 0 && stated !== 0 ? -1 : 1;
  const lastAdded = lineage.added.at(-1);
  const isAtOrigin =
    written !== null &&
    written.reading !== null &&
    origin !== null &&
    Math.abs(written.reading - origin) <= AGREE_COUNTS;
  const naming = nameFigure({
    delta: stated - belongs,
    shares,
    // what came about by adding to a register is nobody else's figure
    others: standing.isAnew ? [] : [...question.others, ...(isSolving ? [] : changedUnderTyped(question))],
    keyed: { said: sign * stated, belongs: sign * belongs },
    addedCounts: lastAdded ? lastAdded.event.to - lastAdded.event.from : null,
    isWholeRegister: origin === null,
    written,
    ledger: {
      sourceCounts: question.shownCounts ?? (isAtOrigin && origin !== null ? origin - meant : source.counts),
      shares: question.shownShares ?? (question.shownCounts === undefined ? shares : own),
    },
  });
  const terms: Term[] = [
    ...(moved === 0 ? [] : [{ id: strayId, mm: toMm(moved, scale), seq: act.seq }]),
    ...naming.shares.map(({ id, counts, seq, tool, register, figure }): Term => ({
      id,
      mm: toMm(counts, scale),
      seq: seq ?? statedSeq,
      ...(tool === undefined ? {} : { tool }),
      ...(register === undefined ? {} : { register }),
      ...(figure ? { figure: { saidMm: toMm(figure.said, scale), belongsMm: toMm(figure.belongs, scale) } } : {}),
    })),
    ...(isSolving ? changedSince(question, scale) : []),
    ...(isBesideCounted
      ? []
      : held.map(({ register, counts }): Term => {
          const lineage = question.set.get(register);
          const mm = toMm(counts, scale);
          // what was put there is a figure of its own, where nothing belongs
          return lineage
            ? { id: "otherFigure", mm, seq: lastAct(lineage).seq, register, figure: { saidMm: mm, belongsMm: 0 } }
            : { id: nameOf(register, "left"), mm, seq: act.seq, register };
        })),
  ];
  const isWritten = naming.isWritten === true && naming.shares.length > 1;
  const cost =
    (isBesideCounted ? 0 : held.length * COST.named) +
    (Math.abs(moved) > AGREE_COUNTS ? COST.named : 0) +
    naming.shares.reduce((sum, { id }) => {
      if (id === "rounding") return sum;
      if (id === "otherFigure" || id === "otherReading") return sum + COST.unnamed;
      return sum + (isWritten ? COST.written : COST.named);
    }, 0) +
    (naming.shares.length > 1 && !isWritten ? COST.pair : 0) +
    (naming.ranked ? COST.open : 0);
  return { terms, open: naming.ranked, cost };
}

/** The move since the contact counted into the figure, as it may be: right only where nothing is left over. */
function countedMove<S extends LaneBase>(question: SumQuestion<S>): Motion | null {
  const { standing, source } = question;
  if (standing.origin === null) return null;
  const counts = standing.origin - source.counts;
  const wanted = source.shares.reduce((sum, share) => sum + share.counts, 0);
  const isRight = counts !== 0 && Math.abs(standing.stated - (wanted - counts)) <= AGREE_COUNTS;
  return isRight ? { counts, shares: [...source.shares, { term: "moved", counts: -counts, slips: [] }] } : null;
}

/** The simplest account of a sum from one source. */
function accountOf<S extends LaneBase>(question: SumQuestion<S>): Account {
  const counted = question.isSolving ? countedMove(question) : null;
  const motions = [null, ...(question.source.motions ?? []), ...(counted ? [counted] : [])];
  // what stands beside a typed figure was counted into it, or was left in
  const isLeft = !question.isSolving && heldBeside(question).length > 0;
  const readings = motions.flatMap((motion) => [
    ...(isLeft ? [read(question, motion, false)] : []),
    read(question, motion, true),
  ]);
  return readings.reduce((best, one) => (one.cost < best.cost - 1e-9 ? one : best));
}

/** A whole provenance from one account and its source. */
export const provenanceFrom = ({ terms, open }: Account, source: Source): Provenance => ({
  contact: source.contact,
  terms: merged([...terms, ...source.errors]),
  open,
  ownMm: source.ownMm,
  belongs: source.shares.map(({ term, counts }) => ({ term, counts })),
});

/** A contact that something was wrong with is taken for the source less readily than one that was sound. */
function withSource<S extends LaneBase>(
  account: Account,
  { source, standing, written, shownCounts }: SumQuestion<S>,
): Account {
  const reading = written?.reading ?? null;
  const isOther = reading !== null && Math.abs(reading - (shownCounts ?? source.counts)) > AGREE_COUNTS;
  return {
    ...account,
    cost:
      account.cost +
      COST.wrongContact * worthNaming(source.errors).length +
      // a working that was written at another contact
      (isOther ? COST.otherReading : 0) +
      // acts that the log shows are not read as one figure only to leave it without a name
      (standing.isAnew && account.terms.some(({ id }) => id === "otherFigure") ? COST.anew : 0),
  };
}

/** The source that leads to the simplest account; the first of those that are alike. */
export function bestAccount<S extends LaneBase>(
  questions: readonly SumQuestion<S>[],
): { account: Account; source: Source } | null {
  return questions.reduce<{ account: Account; source: Source } | null>((best, question) => {
    const account = withSource(accountOf(question), question);
    return best === null || account.cost < best.account.cost - 1e-9 ? { account, source: question.source } : best;
  }, null);
}
