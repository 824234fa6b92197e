import type { MillLane } from "../../machines/mill/lane";
import { lengthInUse } from "../../lane/state";
import { readRegister, type RegisterId } from "../../registers";
import { toMm, type Counts } from "../../units";
import { bestAccount, provenanceFrom, type Source, type SumQuestion } from "../account";
import { merged, noContact, WORTH_NAMING_MM, type CauseId, type Provenance, type Term } from "../cause";
import { keptProvenance } from "../kept";
import { writtenIn, type OtherWay } from "../figures";
import { setOf, standing, standings, sumOf, type Standing } from "../standing";
import { lastAct } from "../lineage";
import type { MillTrace } from "../trace";
import { unset } from "../unset";
import { touchShares } from "./millTouch";
import { type SplitSchool, rowWantedMm } from "./millSplit";
import { otherRows, rowSources, valueOf } from "./millSources";

/** A row that was kept is right when it lies this near, mm. */
const KEPT_MM = 0.02;

export const nameOf: SumQuestion<MillLane>["nameOf"] = (register, change) => {
  if (change === "changed") return "changedAfter";
  if (register.startsWith("HW")) return "oldWear";
  if (register.startsWith("H")) return "schoolsMixed";
  return register.startsWith("common") ? "leftoverCommonZ" : "leftoverWorkZ";
};

/** Where the row of a tool came from: geometry and wear against what the school has in them. */
export function rowProvenance(trace: MillTrace, tool: number, split: SplitSchool): Provenance {
  const { final, set } = trace;
  const registers: readonly RegisterId[] = [`H${tool}`, `HW${tool}`];
  const closureMm = toMm(sumOf(final, registers), final.scale) - rowWantedMm(trace, tool, split);
  const lineage = setOf({ final, set }, `H${tool}`);
  const isZero = split.school === "offset-per-tool" || (split.school === "master" && tool === split.master);
  if (isZero) return atZero(trace, registers, closureMm, "masterNotCleared");
  const kept = keptProvenance(trace, registers, closureMm);
  if (kept) return kept;
  if (!lineage)
    return (
      keptRow(trace, tool, closureMm) ??
      unset(trace, registers, closureMm, rowSources(trace, tool, split, Infinity).map(valueOf))
    );
  const rule = final.setup.settings.lengthCapture;
  const acts = standings(`H${tool}`, lineage, "z", rule === "machine");
  const ask = (at: Standing<MillLane>, source: Source, of: readonly RegisterId[]): SumQuestion<MillLane> => ({
    final,
    set,
    standing: at.origin !== null && rule === "counter" ? byCounter(at) : at,
    isSolving: false,
    written: writtenIn(final.desk.ledger, [`H${tool}`]),
    strayId: "capturedAfterLeaving" as const,
    nameOf,
    registers: of,
    source,
    others:
      at.origin === null
        ? [...otherRows(trace, tool, split, at.act.seq, valueOf(source)), ...shownWays(at, source.counts)]
        : [],
  });
  const sources = acts.flatMap((at) => rowSources(trace, tool, split, at.act.seq).map((source) => ({ at, source })));
  const whole = bestAccount(sources.map(({ at, source }) => ask(at, source, registers)));
  if (split.school === "block-in-wear") return blockInWear(trace, tool, sources, ask, whole, closureMm);
  if (whole) return corrected(provenanceFrom(whole.account, whole.source));
  return withoutSource(trace, tool, split, acts[0], closureMm);
}

/** What a display showed that was typed in place of the figure at the contact. */
export function shownWays({ act }: Standing<MillLane>, contactCounts: Counts): OtherWay[] {
  const { machine } = act.event;
  const { registers, modal } = act.before;
  const shown = registers.common.z + registers.work[modal.workOffset].z + lengthInUse(act.before);
  return [
    ...(machine.z === contactCounts
      ? []
      : [{ id: "capturedAfterLeaving" as const, counts: machine.z - contactCounts, isReading: true }]),
    ...(shown === 0 ? [] : [{ id: "otherColumn" as const, counts: -shown, isReading: true }]),
  ];
}

/** A control that stores its counter: the machine stood where the counter says, from where that was zeroed. */
const byCounter = (at: Standing<MillLane>): Standing<MillLane> => ({
  ...at,
  stated: at.stated - at.act.before.counterZero.z,
});

/** What stands in registers that a school leaves at zero: left from before, another school's figure, or some other. */
export function atZero(
  trace: MillTrace,
  registers: readonly RegisterId[],
  closureMm: number,
  leftAs: CauseId,
): Provenance {
  const { final, set, log } = trace;
  const { scale } = final;
  const touched = trace.touches.flatMap((touch) => {
    const bare = touch.machineZ;
    return [bare, touchShares(final, touch).reduce((sum, { counts }) => sum + counts, bare)];
  });
  const terms = registers.flatMap((register): Term[] => {
    const counts = readRegister(final.registers, register);
    if (counts === 0) return [];
    const mm = toMm(counts, scale);
    const lineage = setOf({ final, set }, register);
    if (!lineage) {
      const id: CauseId = register.startsWith("HW")
        ? "oldWear"
        : register.startsWith("common")
          ? "leftoverCommonZ"
          : leftAs;
      return [{ id, mm, seq: log.at(-1)?.seq ?? 0, register }];
    }
    const isTouch = touched.some((value) => Math.abs(value - counts) <= 2);
    const figure = { saidMm: mm, belongsMm: 0 };
    return [{ id: isTouch ? "schoolsMixed" : "otherFigure", mm, seq: lastAct(lineage).seq, register, figure }];
  });
  return { contact: null, terms, open: null, ownMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0) };
}

/** A row that nobody set but that was right when the lane began: another job's, or handed over. */
function keptRow(trace: MillTrace, tool: number, closureMm: number): Provenance | null {
  const { final } = trace;
  const wear = readRegister(final.registers, `HW${tool}`);
  if (readRegister(final.registers, `H${tool}`) === 0) return null;
  const wearMm = toMm(wear, final.scale);
  const lineage = trace.set.get(`HW${tool}`);
  const own = closureMm - wearMm;
  if (Math.abs(own) > KEPT_MM) return null;
  const seq = lineage?.base?.seq ?? trace.log.at(-1)?.seq ?? 0;
  return { contact: null, terms: wear === 0 ? [] : [{ id: "oldWear", mm: wearMm, seq }], open: null, ownMm: own };
}

/** Nothing of the kind that the school asks for was done: the value of another school, or of nothing. */
function withoutSource(
  trace: MillTrace,
  tool: number,
  split: SplitSchool,
  at: Standing<MillLane>,
  closureMm: number,
): Provenance {
  const { final } = trace;
  const value = sumOf(final, [`H${tool}`, `HW${tool}`]);
  const ways = otherRows(trace, tool, split, at.act.seq, 0);
  const way = ways.find(({ counts }) => Math.abs(counts - value) <= 2);
  return way
    ? {
        contact: null,
        terms: [{ id: way.id, mm: closureMm, seq: at.act.seq, ...(way.tool === undefined ? {} : { tool: way.tool }) }],
        open: null,
        ownMm: 0,
      }
    : noContact(closureMm, at.act.seq);
}

/** The block in wear: geometry takes the machine's Z as it is, wear takes block and skin off. */
function blockInWear(
  trace: MillTrace,
  tool: number,
  sources: readonly { at: Standing<MillLane>; source: Source }[],
  ask: (at: Standing<MillLane>, source: Source, of: readonly RegisterId[]) => SumQuestion<MillLane>,
  whole: ReturnType<typeof bestAccount<MillLane>>,
  closureMm: number,
): Provenance {
  const { final } = trace;
  const asIs = bestAccount(sources.map(({ at, source }) => ask(at, { ...source, shares: [] }, [`H${tool}`])));
  if (!asIs || !whole) return noContact(closureMm, trace.log.at(-1)?.seq ?? 0);
  const wear = wearAccount(
    trace,
    tool,
    asIs.source,
    sources.map(({ source }) => source),
  );
  // everything in geometry, and wear left at zero, comes to the same
  const isWhole =
    readRegister(final.registers, `HW${tool}`) === 0 && whole.account.cost < asIs.account.cost + wear.cost;
  if (isWhole) return provenanceFrom(whole.account, whole.source);
  return {
    contact: asIs.source.contact,
    belongs: [],
    terms: merged([...asIs.account.terms, ...wear.terms, ...asIs.source.errors]),
    open: asIs.account.open ?? wear.open,
    ownMm: asIs.source.ownMm,
  };
}

/** What stands in the wear of a tool on a block: block and skin off, each with its way of being left out. */
function wearAccount(
  trace: MillTrace,
  tool: number,
  { contact }: Source,
  sources: readonly Source[],
): { terms: Term[]; open: Provenance["open"]; cost: number } {
  const { final, set, log } = trace;
  const register: RegisterId = `HW${tool}`;
  const full = sources.find((one) => one.contact?.seq === contact?.seq);
  const shares = full?.shares ?? [];
  const lineage = setOf({ final, set }, register);
  if (!lineage) {
    const held = readRegister(final.registers, register);
    const seq = log.at(-1)?.seq ?? 0;
    const out = shares.flatMap(({ counts, slips }): Term[] => {
      const slip = slips.find((one) => one.counts === 0);
      return slip ? [{ id: slip.id, mm: toMm(-counts, final.scale), seq }] : [];
    });
    const old: Term[] = held === 0 ? [] : [{ id: "oldWear", mm: toMm(held, final.scale), seq }];
    return { terms: [...out, ...old], open: null, cost: out.length + old.length };
  }
  const at = standing(register, lineage, "z");
  const found = bestAccount([
    {
      final,
      set,
      registers: [register],
      standing: at,
      isSolving: false,
      source: { counts: 0, contact: null, shares, errors: [], ownMm: 0 },
      others: [],
      written: writtenIn(final.desk.ledger, [register]),
      strayId: "capturedAfterLeaving",
      nameOf,
    } satisfies SumQuestion<MillLane>,
  ]);
  return {
    terms: [...(found?.account.terms ?? [])],
    open: found?.account.open ?? null,
    cost: found?.account.cost ?? 0,
  };
}

/** A doubt that was found and put right in the figure: the figure nobody names takes off what the gauge was off by. */
export function corrected(provenance: Provenance): Provenance {
  const figure = provenance.terms.find(({ id }) => id === "otherFigure");
  const doubt = provenance.terms.find(
    ({ id }) => id === "setterMoved" || id === "presetterOff" || id === "probeLengthWrong" || id === "gaugeHit",
  );
  if (!figure || !doubt || Math.abs(figure.mm + doubt.mm) > 2 * WORTH_NAMING_MM) return provenance;
  return {
    ...provenance,
    terms: provenance.terms.filter((term) => term !== figure && term !== doubt),
    ownMm: provenance.ownMm + figure.mm + doubt.mm,
  };
}
