import { workOffsetOf } from "../../exercises/machines/millTargets";
import { tableZMm } from "../../exercises/scene";
import { millLengthSchools, type MillLengthSchool } from "../../exercises/schools";
import { toolName, toolNumber } from "../../instruments/things";
import { probeLengthMm } from "../../machines/mill/cards";
import type { MillLane } from "../../machines/mill/lane";
import { datumNowMm } from "../../machines/mill/solids";
import { lengthInUse } from "../../lane/state";
import { readRegister, type RegisterId } from "../../registers";
import { toCounts, toMm, type Counts } from "../../units";
import { bestAccount, provenanceFrom, type Source, type SumQuestion } from "../account";
import {
  merged,
  wholeTerm,
  noContact,
  WORTH_NAMING_MM,
  type CauseId,
  type Provenance,
  type Term,
  worthNaming,
} from "../cause";
import { writtenIn, type OtherWay, type Share } from "../figures";
import { setOf, standing, standings, sumOf, type Standing } from "../standing";
import { lastAct } from "../lineage";
import type { MillTrace } from "../trace";
import { unset } from "../unset";
import {
  contactOfTouch,
  lengthWantedMm,
  readingErrors,
  touchErrors,
  touchShares,
  type LengthReading,
  type Touch,
} from "./millTouch";

/** As many touches as one approach on paper makes, and some attempts. */
const LATEST = 32;
/** A row that was kept is right when it lies this near, mm. */
const KEPT_MM = 0.02;

/** A school by which a tool's length is split over registers, and the tool that is its master. */
export interface SplitSchool {
  readonly school: MillLengthSchool;
  readonly master: number;
}

/**
 * The tool whose row is zero in the school of a master: the lowest, or where the school is free the one left at zero.
 */
export function masterOf({ final }: MillTrace): number {
  const { targets, isSchoolPrescribed } = final.setup;
  const tools = [...targets.lengths].sort((a, b) => a - b);
  const atZero = isSchoolPrescribed ? undefined : tools.find((tool) => sumOf(final, [`H${tool}`, `HW${tool}`]) === 0);
  return atZero ?? tools[0] ?? 1;
}

/** What a row has to hold in a school, mm. */
export function rowWantedMm(trace: MillTrace, tool: number, { school, master }: SplitSchool): number {
  const { final } = trace;
  const length = lengthWantedMm(trace, toolName(tool));
  switch (school) {
    case "gauge-line":
      return length;
    case "part-touch":
    case "block-in-wear":
      return datumNowMm(final).z + length;
    case "plane-lift":
      return tableZMm(final.setup, final.truth) + length;
    case "master":
      return tool === master ? 0 : length - lengthWantedMm(trace, toolName(master));
    case "offset-per-tool":
      return 0;
  }
}

/** What work Z has to hold in a school, mm; of a tool where each has its own. */
export function workWantedMm(trace: MillTrace, tool: number, { school, master }: SplitSchool): number {
  const { final } = trace;
  const datum = datumNowMm(final).z;
  switch (school) {
    case "gauge-line":
      return datum;
    case "part-touch":
    case "block-in-wear":
      return 0;
    case "plane-lift":
      return datum - tableZMm(final.setup, final.truth);
    case "master":
      return datum + lengthWantedMm(trace, toolName(master));
    case "offset-per-tool":
      return datum + lengthWantedMm(trace, toolName(tool));
  }
}

const nameOf: SumQuestion<MillLane>["nameOf"] = (register, change) => {
  if (change === "changed") return "changedAfter";
  if (register.startsWith("HW")) return "oldWear";
  if (register.startsWith("H")) return "schoolsMixed";
  return register.startsWith("common") ? "leftoverCommonZ" : "leftoverWorkZ";
};

const valueOf = ({ counts, shares }: Source): Counts => shares.reduce((sum, share) => sum + share.counts, counts);
const negated = (terms: readonly Term[]): Term[] => terms.map((term) => ({ ...term, mm: -term.mm }));

/**
 * Touches that something made on a surface before a moment, the latest first; torn paper only where nothing else is.
 */
function touchesOf(trace: MillTrace, holds: (touch: Touch) => boolean, before: number): Touch[] {
  const all = trace.touches.filter((touch) => touch.seq < before && holds(touch));
  const felt = all.filter(({ feel }) => feel !== "torn");
  return (felt.length > 0 ? felt : all).slice(-LATEST).reverse();
}
const byTool = (trace: MillTrace, tool: number, on: string, before: number): Touch[] =>
  touchesOf(trace, (touch) => touch.holds === toolName(tool) && touch.on === on, before);

/** A contact that is in force at a capture stands where the machine stands then. */
function fromTouch(trace: MillTrace, touch: Touch, more: readonly Share[] = []): Source {
  return {
    counts: touch.machineZ,
    contact: contactOfTouch(touch),
    shares: [...touchShares(trace.final, touch), ...more],
    ...touchErrors(trace, touch),
  };
}

function fromReading(trace: MillTrace, reading: LengthReading, more: readonly Share[] = []): Source {
  const counts = toCounts(reading.mm, trace.final.scale);
  const { errors, ownMm } = readingErrors(trace, reading);
  const corrected = more.reduce((sum, share) => sum + share.counts, 0);
  return {
    counts,
    contact: { counts, seq: reading.seq, atMs: reading.atMs },
    shares: more,
    ...(corrected === 0 ? { errors, ownMm } : corrects(errors, ownMm, toMm(corrected, trace.final.scale))),
  };
}

/** A correction that was found takes away what it was found for. */
function corrects(errors: readonly Term[], ownMm: number, byMm: number): { errors: Term[]; ownMm: number } {
  const mended = errors.filter(({ id }) => id === "setterMoved" || id === "gaugeHit");
  const left = mended.reduce((sum, { mm }) => sum + mm, 0);
  return { errors: errors.filter((term) => !mended.includes(term)), ownMm: ownMm + left + byMm };
}

const readingsOf = ({ lengths }: MillTrace, tool: number, before: number): LengthReading[] =>
  lengths
    .filter((one) => one.tool === tool && one.seq < before)
    .slice(-8)
    .reverse();
/** What was read hangs on where a setter stands, so that a bare nose let down on it tells. */
const hangsOnSetter = ({ known }: LengthReading): boolean => known.some(({ id }) => id === "setterMoved");

/** By how much the bare nose found the setter off its card, counts; null where it was not let down on it. */
function setterFoundOff(trace: MillTrace, before: number): Counts | null {
  const { setter } = trace.final.setup;
  const nose = touchesOf(trace, ({ holds, on }) => holds === null && on === "setter", before)[0];
  return setter && nose ? nose.machineZ - toCounts(setter.noseTriggerMm, trace.final.scale) : null;
}

const lengthShare = (counts: Counts, id: CauseId): Share => ({
  term: "toolLength",
  counts: -counts,
  slips: [
    { id, counts: 0 },
    { id: "schoolsMixed", counts },
  ],
});

/** What the row of a tool can come from in a school. */
function rowSources(trace: MillTrace, tool: number, { school, master }: SplitSchool, before: number): Source[] {
  const { final } = trace;
  switch (school) {
    case "part-touch":
      return byTool(trace, tool, "stock", before).map((touch) => fromTouch(trace, touch));
    case "block-in-wear":
      return byTool(trace, tool, "stock", before).map((touch) => fromTouch(trace, touch));
    case "plane-lift":
      return byTool(trace, tool, "table", before).map((touch) => fromTouch(trace, touch));
    case "gauge-line": {
      const off = setterFoundOff(trace, before);
      const nose = toCounts(final.setup.setter?.noseTriggerMm ?? 0, final.scale);
      const correction: Share[] = off === null ? [] : [{ term: "other", counts: -off, slips: [] }];
      return [
        ...readingsOf(trace, tool, before).flatMap((reading) => [
          fromReading(trace, reading),
          ...(off !== null && off !== 0 && hangsOnSetter(reading) ? [fromReading(trace, reading, correction)] : []),
        ]),
        ...byHandOnSetter(trace, tool, before, nose),
      ];
    }
    case "master":
      return masterPairs(trace, tool, master, before);
    case "offset-per-tool":
      return [];
  }
}

/** Let down on the setter by hand: where it triggers, less where the bare nose does by the card or by the touch. */
function byHandOnSetter(trace: MillTrace, tool: number, before: number, cardNose: Counts): Source[] {
  const { final } = trace;
  const off = setterFoundOff(trace, before) ?? 0;
  const { setter, doubt } = final.truth;
  if (!setter) return [];
  const cycled = readingsOf(trace, tool, before);
  const touches = touchesOf(
    trace,
    ({ holds, on, seq }) =>
      holds === toolName(tool) &&
      on === "setter" &&
      !cycled.some((reading) => reading.seq > seq && reading.seq < seq + 6),
    before,
  );
  return touches.flatMap((touch) =>
    [...new Set([0, off])].map((correction): Source => {
      const nose = cardNose + correction;
      const errorMm = toMm(touch.machineZ - nose, final.scale) - lengthWantedMm(trace, toolName(tool));
      const movedMm = correction === 0 && doubt?.of === "setter" ? -doubt.byMm : 0;
      const errors: Term[] = movedMm === 0 ? [] : [{ id: "setterMoved", mm: movedMm, seq: touch.seq }];
      return {
        counts: touch.machineZ,
        contact: contactOfTouch(touch),
        shares: [{ term: "other", counts: -nose, slips: [{ id: "schoolsMixed", counts: 0 }] }],
        errors,
        ownMm: errorMm - movedMm,
      };
    }),
  );
}

/** A tool beside the master, both touched on one surface: the difference of the two. */
function masterPairs(trace: MillTrace, tool: number, master: number, before: number): Source[] {
  return (["stock", "table"] as const).flatMap((on) => {
    const [theirs] = byTool(trace, master, on, Infinity);
    if (!theirs) return [];
    return byTool(trace, tool, on, before).map((touch): Source => {
      const mine = touchErrors(trace, touch);
      const other = touchErrors(trace, theirs);
      const thick = toCounts(touch.thicknessMm - theirs.thicknessMm, trace.final.scale);
      return {
        counts: touch.machineZ,
        contact: contactOfTouch(touch),
        shares: [
          { term: "other", counts: -theirs.machineZ, slips: [{ id: "schoolsMixed", counts: 0 }] },
          ...(thick === 0
            ? []
            : [{ term: "paper" as const, counts: -thick, slips: [{ id: "paperForgotten" as const, counts: 0 }] }]),
        ],
        errors: [...mine.errors, ...negated(other.errors)],
        ownMm: mine.ownMm - other.ownMm,
      };
    });
  });
}

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

/** What other figures a row may hold: another tool's, another school's. */
function otherRows(trace: MillTrace, tool: number, split: SplitSchool, before: number, belongs: Counts): OtherWay[] {
  const others = trace.final.setup.tools.filter(({ number }) => number !== tool);
  const neighbors = others.flatMap(({ number }) =>
    rowSources(trace, number, split, before)
      .slice(0, 4)
      .map((source) => ({ id: "neighborRow" as const, counts: valueOf(source) - belongs, tool: number })),
  );
  const schools: readonly MillLengthSchool[] = ["part-touch", "gauge-line", "plane-lift"];
  const mixed = schools
    .filter((school) => school !== split.school)
    .flatMap((school) =>
      rowSources(trace, tool, { ...split, school }, before)
        .slice(0, 4)
        .map((source) => ({ id: "schoolsMixed" as const, counts: valueOf(source) - belongs })),
    );
  return [...neighbors, ...mixed];
}

/** Where the row of a tool came from: geometry and wear against what the school has in them. */
export function rowProvenance(trace: MillTrace, tool: number, split: SplitSchool): Provenance {
  const { final, set } = trace;
  const registers: readonly RegisterId[] = [`H${tool}`, `HW${tool}`];
  const closureMm = toMm(sumOf(final, registers), final.scale) - rowWantedMm(trace, tool, split);
  const lineage = setOf({ final, set }, `H${tool}`);
  const isZero = split.school === "offset-per-tool" || (split.school === "master" && tool === split.master);
  if (isZero) return atZero(trace, registers, closureMm, "masterNotCleared");
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
function shownWays({ act }: Standing<MillLane>, contactCounts: Counts): OtherWay[] {
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
function atZero(trace: MillTrace, registers: readonly RegisterId[], closureMm: number, leftAs: CauseId): Provenance {
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
function corrected(provenance: Provenance): Provenance {
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

/** What it takes to say a provenance: a school that leaves hardly anything to be said is the one that was followed. */
const costOf = ({ terms }: Provenance): number =>
  worthNaming(terms).reduce((sum, { id }) => sum + (UNSETTLED.has(id) ? 1.5 : 1), 0);
const IN_WORK_Z: ReadonlySet<MillLengthSchool> = new Set(["offset-per-tool", "master"]);
const UNSETTLED: ReadonlySet<CauseId> = new Set([
  "neverSet",
  "takenBack",
  "noContact",
  "otherFigure",
  "otherReading",
  "schoolsMixed",
  "contactOff",
]);

/**
 * Everything of a tool's Z: its row and the work offset that it works in. Where the school is free, and the one that
 * was read leaves it unsettled, by the school that says it with the fewest terms: all of them end in the same sum.
 */
export function sumProvenance(trace: MillTrace, tool: number, read: SplitSchool, closureMm: number): Provenance {
  const first = sumBySchool(trace, tool, read, closureMm);
  const isFree = !trace.final.setup.isSchoolPrescribed;
  if (!isFree || worthNaming(first.terms).every(({ id }) => !UNSETTLED.has(id))) return first;
  // where a tool is left at zero, its whole sum may stand in work Z, whether that is allowed or not
  const { lengthSchools, targets } = trace.final.setup;
  const isAtZero = targets.lengths.some((one) => sumOf(trace.final, [`H${one}`, `HW${one}`]) === 0);
  const others = millLengthSchools
    .filter((school) => lengthSchools.includes(school) || (isAtZero && IN_WORK_Z.has(school)))
    .filter((school) => school !== read.school)
    .map((school) => sumBySchool(trace, tool, { school, master: masterOf(trace) }, closureMm));
  return others.reduce((best, one) => (costOf(one) < costOf(best) - 1e-9 ? one : best), first);
}

function sumBySchool(trace: MillTrace, tool: number, split: SplitSchool, closureMm: number): Provenance {
  const row = rowProvenance(trace, tool, split);
  const work = workProvenance(trace, tool, split);
  const isUnset = ({ terms }: Provenance) => terms.some(({ id }) => id === "neverSet" || id === "takenBack");
  // what was only left where it was sets nothing
  if (isUnset(row) && work.contact === null)
    return wholeTerm(
      row.terms.find(({ id }) => id === "takenBack")?.id ?? "neverSet",
      closureMm,
      row.terms[0]?.seq ?? 0,
    );
  return {
    belongs: row.contact ? row.belongs : work.belongs,
    contact: row.contact ?? work.contact,
    terms: merged([...row.terms, ...work.terms]),
    open: row.open ?? work.open,
    ownMm: row.ownMm + work.ownMm,
  };
}
