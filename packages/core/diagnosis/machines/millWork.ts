import { workOffsetOf } from "../../exercises/machines/millTargets";
import { toolName, toolNumber } from "../../instruments/things";
import { probeLengthMm } from "../../machines/mill/cards";
import type { MillLane } from "../../machines/mill/lane";
import { lengthInUse } from "../../lane/state";
import type { RegisterId } from "../../registers";
import { toCounts, toMm } from "../../units";
import { bestAccount, provenanceFrom, type Source, type SumQuestion } from "../account";
import { noContact, WORTH_NAMING_MM, type Provenance } from "../cause";
import { keptProvenance } from "../kept";
import { writtenIn } from "../figures";
import { setOf, standings, sumOf, type Standing } from "../standing";
import type { MillTrace } from "../trace";
import { unset } from "../unset";
import { lengthWantedMm, type Touch } from "./millTouch";
import { type SplitSchool, rowWantedMm, workWantedMm } from "./millSplit";
import { fromTouch, lengthShare, negated, touchesOf, valueOf } from "./millSources";
import { atZero, corrected, nameOf, rowProvenance, shownWays } from "./millRow";

/** A moment of the log, with the lane as it stood then. */
interface Moment {
  readonly seq: number;
  readonly before: MillLane;
}

/** What work Z can come from in a school: the touch on the part, with what hung there. */
function workSources(trace: MillTrace, tool: number, split: SplitSchool, at: Moment): Source[] {
  const { final } = trace;
  const before = at.seq;
  const onStock = touchesOf(trace, ({ on }) => on === "stock", before);
  const of = (touches: readonly Touch[]) => touches.map((touch) => fromTouch(trace, touch));
  switch (split.school) {
    case "part-touch":
    case "block-in-wear":
      return [];
    case "offset-per-tool":
      return of(onStock.filter(({ holds }) => holds === toolName(tool)));
    case "master":
      return of(onStock.filter(({ holds }) => holds === toolName(split.master)));
    case "gauge-line":
    case "plane-lift":
      return onStock.flatMap((touch): Source[] => {
        if (touch.holds === null) return split.school === "gauge-line" ? [fromTouch(trace, touch)] : [];
        if (touch.holds === "probe") {
          const card = toCounts(probeLengthMm(touch.before), final.scale);
          const source = fromTouch(trace, touch, [{ ...lengthShare(card, "lengthNotCalled"), term: "probeLength" }]);
          // its card is what is counted with, and not what it is
          const cardMm = lengthWantedMm(trace, "probe") + touch.before.probe.longerMm - toMm(card, final.scale);
          const isWrong = Math.abs(cardMm) >= WORTH_NAMING_MM;
          return split.school === "plane-lift"
            ? []
            : [
                {
                  ...source,
                  errors: isWrong
                    ? [...source.errors, { id: "probeLengthWrong", mm: cardMm, seq: touch.seq }]
                    : source.errors,
                  ownMm: source.ownMm + (isWrong ? 0 : cardMm),
                },
              ];
        }
        const number = toolNumber(touch.holds);
        return number === null ? [] : [fromToolTouch(trace, touch, number, split, at)];
      });
  }
}

/** The part touched with a tool whose row stands in the figure: what is wrong with that row is carried over. */
function fromToolTouch(trace: MillTrace, touch: Touch, tool: number, split: SplitSchool, { before }: Moment): Source {
  const { final } = trace;
  const rows: readonly RegisterId[] = [`H${tool}`, `HW${tool}`];
  const [then, now] = [sumOf(before, rows), sumOf(final, rows)];
  const source = fromTouch(trace, touch, [lengthShare(then, "lengthNotCalled")]);
  const wanted = rowWantedMm(trace, tool, split);
  const offMm = toMm(then, final.scale) - wanted;
  if (then !== now)
    return { ...source, errors: [...source.errors, { id: "carriedOver", mm: -offMm, seq: touch.seq, tool }] };
  const row = rowProvenance(trace, tool, split);
  return { ...source, errors: [...source.errors, ...negated(row.terms)], ownMm: source.ownMm - row.ownMm };
}

/** The work offset that holds the datum of a tool, and the common offset. */
const workRegisters = (
  { final }: MillTrace,
  tool: number,
  { school }: SplitSchool,
): readonly [RegisterId, RegisterId] => [
  `${school === "offset-per-tool" ? workOffsetOf(final.setup, tool) : "G54"}.z`,
  "common.z",
];

/** Where work Z came from, against what the school has in it. */
export function workProvenance(trace: MillTrace, tool: number, split: SplitSchool): Provenance {
  const { final, set } = trace;
  const [work, common] = workRegisters(trace, tool, split);
  const registers = [work, common];
  const closureMm = toMm(sumOf(final, registers), final.scale) - workWantedMm(trace, tool, split);
  if (split.school === "part-touch" || split.school === "block-in-wear")
    return atZero(trace, registers, closureMm, "leftoverWorkZ");
  const kept = keptProvenance(trace, registers, closureMm);
  if (kept) return kept;
  const acts = registers.flatMap((register) => {
    const lineage = setOf({ final, set }, register);
    return lineage ? [standings(register, lineage, "z")] : [];
  })[0];
  if (!acts) {
    const elsewhere = inOtherOffset(trace, tool, split, closureMm);
    if (elsewhere) return elsewhere;
    const table = trace.touches.find(({ on }) => on === "table");
    return split.school === "plane-lift" && table
      ? { contact: null, terms: [{ id: "liftMissing", mm: closureMm, seq: table.seq }], open: null, ownMm: 0 }
      : unset(
          trace,
          registers,
          closureMm,
          workSources(trace, tool, split, { seq: Infinity, before: final }).map(valueOf),
        );
  }
  return workFrom(trace, tool, split, acts.map(withLengthInUse), registers, closureMm);
}

/** A capture takes off the length that is in use, as if it had been stated. */
const withLengthInUse = (at: Standing<MillLane>): Standing<MillLane> =>
  at.origin === null ? at : { ...at, stated: at.stated - lengthInUse(at.act.before) };

function workFrom(
  trace: MillTrace,
  tool: number,
  split: SplitSchool,
  acts: readonly Standing<MillLane>[],
  registers: readonly RegisterId[],
  closureMm: number,
): Provenance {
  const { final, set } = trace;
  const best = bestAccount(
    acts.flatMap((at) =>
      workSources(trace, tool, split, at.act).map((source): SumQuestion<MillLane> => ({
        final,
        set,
        registers,
        standing: at,
        isSolving: at.origin !== null,
        source,
        others: at.origin === null ? shownWays(at, source.counts) : [],
        written: writtenIn(final.desk.ledger, [at.register]),
        strayId: "capturedAfterLeaving",
        nameOf,
      })),
    ),
  );
  if (best) return corrected(provenanceFrom(best.account, best.source));
  return noContact(closureMm, acts[0]?.act.seq ?? 0);
}

/** Work Z was set in another work offset: which, and what is wrong with it besides. */
function inOtherOffset(trace: MillTrace, tool: number, split: SplitSchool, closureMm: number): Provenance | null {
  const { final, set } = trace;
  const [own] = workRegisters(trace, tool, split);
  const rows = [...set.keys()].filter(
    (register) => /^(G5\d|P\d)\.z$/.test(register) && register !== own && setOf({ final, set }, register) !== null,
  );
  if (split.school === "offset-per-tool") return null;
  const register = rows.at(-1);
  const lineage = register && setOf({ final, set }, register);
  if (!register || !lineage) return null;
  const acts = standings(register, lineage, "z").map(withLengthInUse);
  const inner = workFrom(trace, tool, split, acts, [register, "common.z"], 0);
  const carriedMm = inner.terms.reduce((sum, { mm }) => sum + mm, inner.ownMm);
  return {
    ...inner,
    terms: [{ id: "otherRegister", mm: closureMm - carriedMm, seq: acts[0]?.act.seq ?? 0, register }, ...inner.terms],
  };
}
