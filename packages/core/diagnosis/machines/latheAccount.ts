import type { TurningLane } from "../../machines/lathe/lane";
import { workOffsetNames, type RegisterId } from "../../registers";
import type { Counts } from "../../units";
import { bestAccount, provenanceFrom, type Source, type SumQuestion } from "../account";
import { noContact, type Provenance, type Term } from "../cause";
import { writtenIn, type OtherWay } from "../figures";
import { setOf, standings, type Standing } from "../standing";
import type { TurningTrace } from "../trace";
import type { TurretAxis } from "./latheContact";
import { allSources, nameOf, rowsOf, valueOf, workOf } from "./latheSources";

interface Asked {
  readonly axis: TurretAxis;
  readonly registers: readonly RegisterId[];
  readonly acts: readonly Standing<TurningLane>[];
  /** What it can come from before a moment. */
  sources(before: number, at: Standing<TurningLane>): readonly Source[];
  others(source: Source, at: Standing<TurningLane>): readonly OtherWay[];
  shown?(source: Source): Counts;
}

/** The simplest account of some registers, by every reading of the acts and from every source. */
export function account(trace: TurningTrace, asked: Asked): ReturnType<typeof bestAccount<TurningLane>> {
  return bestAccount(asked.acts.flatMap((at) => questionsOf(trace, asked, at, asked.sources(at.act.seq, at))));
}

function questionsOf(
  trace: TurningTrace,
  { axis, registers, others, shown }: Asked,
  at: Standing<TurningLane>,
  sources: readonly Source[],
): SumQuestion<TurningLane>[] {
  const { final, set } = trace;
  const isSwept = trace.turret.some(
    ({ seq, by }) => by === "indicator" && sources.some(({ contact }) => contact?.seq === seq),
  );
  // a capture is made at the contact in force or after it; a figure may come from any
  const [latest] = sources;
  const list =
    at.origin === null ? sources : sources.filter(({ counts }) => counts === latest?.counts || counts === at.origin);
  return list.map((source): SumQuestion<TurningLane> => ({
    final,
    set,
    registers,
    standing: at,
    isSolving: at.origin !== null,
    source,
    others: others(source, at),
    written: writtenIn(final.desk.ledger, [at.register]),
    shownCounts: shown?.(source),
    strayId: isSwept ? "notOverMiddle" : "capturedAfterLeaving",
    nameOf: nameOf(axis),
  }));
}

export type Acts = readonly [Standing<TurningLane>, ...Standing<TurningLane>[]];

/** The first register of a sum that was set to something, by every way in which its acts can be read. */
export function actsOf(trace: TurningTrace, axis: TurretAxis, registers: readonly RegisterId[]): Acts | null {
  for (const register of registers) {
    const lineage = setOf(trace, register);
    if (lineage) return standings(register, lineage, axis);
  }
  return null;
}

/** The value was set in another work offset: which. */
export function inOtherOffset(
  trace: TurningTrace,
  axis: TurretAxis,
  tool: number,
  closureMm: number,
): Provenance | null {
  const others = workOffsetNames.slice(1).map((name): RegisterId => `${name}.${axis}`);
  const acts = actsOf(trace, axis, others);
  if (!acts) return null;
  const [at] = acts;
  // in place of the work offset, or in place of the tool's own row
  const sets: readonly (readonly RegisterId[])[] = [
    [at.register, ...rowsOf(tool, axis), `common.${axis}`],
    [at.register, ...workOf(axis)],
  ];
  const found = sets
    .map((registers) =>
      account(trace, {
        axis,
        registers,
        acts,
        sources: (before) => allSources(trace, tool, axis, before),
        others: () => [],
      }),
    )
    .reduce((best, one) => (best && (!one || best.account.cost <= one.account.cost) ? best : one));
  const inner = found ? provenanceFrom(found.account, found.source) : null;
  const carried = inner ? inner.terms.reduce((sum, { mm }) => sum + mm, inner.ownMm) : 0;
  return {
    contact: inner?.contact ?? null,
    terms: [
      { id: "otherRegister", mm: closureMm - carried, seq: at.act.seq, register: at.register },
      ...(inner?.terms ?? []),
    ],
    open: inner?.open ?? null,
    ownMm: inner?.ownMm ?? 0,
  };
}

/** The value of another tool, or of nothing that the log knows. */
export function withoutSource(
  trace: TurningTrace,
  tool: number,
  axis: TurretAxis,
  at: Standing<TurningLane>,
  closureMm: number,
): Provenance {
  const value = (at.origin ?? 0) + at.stated;
  const neighbor = trace.final.setup.lathe.tools.find(
    ({ number }) =>
      number !== tool &&
      allSources(trace, number, axis, at.act.seq).some((source) => Math.abs(valueOf(source) - value) <= 2),
  );
  return neighbor
    ? {
        contact: null,
        terms: [{ id: "neighborRow", mm: closureMm, seq: at.act.seq, tool: neighbor.number }],
        open: null,
        ownMm: 0,
      }
    : noContact(closureMm, at.act.seq);
}

export const negated = (terms: readonly Term[]): Term[] => terms.map((term) => ({ ...term, mm: -term.mm }));
