import type { LatheSplit } from "../../exercises/schools";
import { farEdgeMm } from "../../exercises/machines/lathe";
import { faceMm, kxNowMm } from "../../machines/lathe/contact";
import type { TurningLane } from "../../machines/lathe/lane";
import { readRegister, workOffsetNames, type RegisterId } from "../../registers";
import { turretSum } from "../../registers/turret";
import { toCounts, toMm, type Counts } from "../../units";
import { bestAccount, provenanceFrom, type Source, type SumQuestion } from "../account";
import { merged, noContact, wholeTerm, type Provenance, type Term } from "../cause";
import { signaturesFor } from "../catalog";
import { writtenIn, type OtherWay, type Share } from "../figures";
import { setOf, standings, sumOf, type Standing } from "../standing";
import { lastAct } from "../lineage";
import type { TurningTrace } from "../trace";
import { unset } from "../unset";
import {
  bladeShare,
  coneShare,
  coneValueMm,
  contactPlace,
  contactsOf,
  gapShare,
  measuredFor,
  offsetWantedMm,
  outsideOf,
  reachMm,
  sideShare,
  toolOf,
  turretErrors,
  type Contact,
  type TurretAxis,
} from "./latheContact";

/** A row that was kept is right when it lies this near, mm. */
const KEPT_MM = 0.03;

const upper = (axis: TurretAxis): "X" | "Z" => (axis === "x" ? "X" : "Z");
const rowsOf = (tool: number, axis: TurretAxis): readonly RegisterId[] => [
  `${upper(axis)}${tool}`,
  `${upper(axis)}W${tool}`,
];
const workOf = (axis: TurretAxis): readonly RegisterId[] => [`G54.${axis}`, `common.${axis}`];

const nameOf =
  (axis: TurretAxis): SumQuestion<TurningLane>["nameOf"] =>
  (register, change) => {
    if (/^[XZ]W/.test(register)) return "oldWear";
    if (register.startsWith("common")) {
      // a position that was declared is lost, or declared again
      if (change === "left") return "leftoverCommonZ";
      return change === "cleared" ? "declarationLost" : "declaredElsewhere";
    }
    if (register.startsWith("G54")) {
      if (change === "changed") return "changedAfter";
      return axis === "x" ? "workXNotZero" : "leftoverWorkZ";
    }
    return change === "left" ? "masterNotCleared" : "changedAfter";
  };

/** A contact as what a tool's X or Z comes from. */
function sourcesFrom(trace: TurningTrace, contact: Contact, axis: TurretAxis, before: number): Source[] {
  const { final } = trace;
  const { scale } = final;
  const place = contactPlace(contact, axis);
  const tool = toolOf(final, contact.tool);
  if (axis === "z") {
    const shares =
      contact.on === "cone"
        ? coneShare(final, tool, contact)
        : [...gapShare(final, contact, "z"), ...bladeShare(final, tool, contact), ...sideShare(final, tool, contact)];
    const bladeMm = farEdgeMm(tool) - (contact.isFarEdge ? (tool.bladeMm ?? 0) : 0);
    const valueMm = contact.on === "cone" ? coneValueMm(final, tool, contact) : contact.thicknessMm + bladeMm;
    return [{ counts: place.counts, contact: place, shares, ...turretErrors(trace, contact, "z", valueMm, 0) }];
  }
  const s = outsideOf(contact);
  const measured = measuredFor(trace, contact, before);
  if (measured.length === 0) return [unmeasured(trace, contact)];
  return measured.map(({ mm }): Source => {
    const d = toCounts(-mm, scale);
    const shares: Share[] = [
      ...(d === 0
        ? []
        : [
            {
              term: "diameter" as const,
              counts: d,
              slips: [
                { id: "diameterAsRadius" as const, counts: Math.round(d / 2) },
                { id: "notMeasured" as const, counts: 0 },
              ],
            },
          ]),
      ...gapShare(final, contact, "x"),
    ];
    return {
      counts: place.counts,
      contact: place,
      shares,
      ...turretErrors(trace, contact, "x", mm + s * 2 * contact.thicknessMm, mm),
    };
  });
}

/** Nothing was measured: what belonged is the band as it is, and all that the figure is off by is that. */
function unmeasured(trace: TurningTrace, contact: Contact): Source {
  const { final } = trace;
  const place = contactPlace(contact, "x");
  const gap = gapShare(final, contact, "x");
  const gapCounts = gap.reduce((sum, { counts }) => sum + counts, 0);
  const wanted = toCounts(offsetWantedMm(final, contact.tool, "x"), final.scale);
  const d = wanted - place.counts - gapCounts;
  return {
    counts: place.counts,
    contact: place,
    shares: [{ term: "diameter", counts: d, slips: [] }, ...gap],
    errors: [],
    ownMm: toMm(wanted, final.scale) - offsetWantedMm(final, contact.tool, "x"),
  };
}

/** A trip of the arm as what a row comes from: its reading less the card's plane. */
function armSource(trace: TurningTrace, contact: Contact, axis: TurretAxis, wantedMm: number): Source {
  const { final } = trace;
  const card = final.setup.lathe.arm ?? { xMm: 0, zMm: 0 };
  const truth = final.truth.lathe.arm ?? card;
  const counts = (mm: number) => toCounts(mm, final.scale);
  const [mine, theirs] = axis === "x" ? [card.xMm, card.zMm] : [card.zMm, card.xMm];
  const offMm = axis === "x" ? truth.xMm - card.xMm : truth.zMm - card.zMm;
  const errorMm = toMm(contact.at[axis], final.scale) - mine - wantedMm;
  const blade = axis === "z" ? bladeShare(final, toolOf(final, contact.tool), contact) : [];
  const isOff = Math.abs(offMm) > 1e-9;
  return {
    counts: contact.at[axis],
    contact: contactPlace(contact, axis),
    shares: [
      {
        term: "armPlane",
        counts: counts(-mine),
        slips: [
          { id: "sensorConstant", counts: 0 },
          { id: "sensorConstant", counts: counts(mine) },
          { id: "otherPlane", counts: counts(-theirs) },
          ...(axis === "x" ? [{ id: "diameterAsRadius" as const, counts: counts(-mine / 2) }] : []),
        ],
      },
      ...blade,
    ],
    errors: isOff ? [{ id: "armOff", mm: offMm, seq: contact.seq }] : [],
    ownMm: errorMm - offMm + blade.reduce((sum, share) => sum + toMm(share.counts, final.scale), 0),
  };
}

const valueOf = ({ counts, shares }: Source): Counts => shares.reduce((sum, share) => sum + share.counts, counts);

/** Everything that a tool's value can come from before a moment. */
function allSources(trace: TurningTrace, tool: number, axis: TurretAxis, before: number): Source[] {
  return contactsOf(trace, tool, axis, before).flatMap((contact) =>
    contact.by === "arm"
      ? [armSource(trace, contact, axis, axis === "x" ? kxNowMm(trace.final, tool) : reachMm(trace.final, tool))]
      : sourcesFrom(trace, contact, axis, before),
  );
}

/** Figures that were typed in place of the right one: another tool's, the other axis's, another column. */
function otherWays(
  trace: TurningTrace,
  tool: number,
  axis: TurretAxis,
  at: Standing<TurningLane>,
  source: Source,
): OtherWay[] {
  if (at.origin !== null) return [];
  const { final } = trace;
  const belongs = valueOf(source);
  const before = at.act.seq;
  const neighbors = final.setup.lathe.tools
    .filter(({ number }) => number !== tool)
    .flatMap(({ number }) =>
      allSources(trace, number, axis, before)
        .slice(0, 3)
        .map((one) => ({ id: "neighborRow" as const, counts: valueOf(one) - belongs, tool: number })),
    );
  const across = axis === "x" ? "z" : "x";
  const swapped = allSources(trace, tool, across, before)
    .slice(0, 3)
    .map((one) => ({ id: "axesSwapped" as const, counts: valueOf(one) - belongs }));
  const { machine } = at.act.event;
  const { registers, lathe, modal } = at.act.before;
  const shown =
    registers.common[axis] + registers.work[modal.workOffset][axis] + turretSum(registers.turret, axis, lathe.row);
  return [
    ...neighbors,
    ...swapped,
    ...(machine[axis] === source.counts
      ? []
      : [{ id: "capturedAfterLeaving" as const, counts: machine[axis] - source.counts, isReading: true }]),
    ...(shown === 0 || final.kind === "gang" ? [] : [{ id: "otherColumn" as const, counts: -shown, isReading: true }]),
    ...nosesOf(trace, tool, axis),
  ];
}

/** What the catalog predicts of a nose that is set by its center. */
function nosesOf({ final }: TurningTrace, tool: number, axis: TurretAxis): OtherWay[] {
  const { noseRadiusMm: noseRadius, tipCode } = toolOf(final, tool);
  if (final.setup.lathe.targets.nose.length === 0) return [];
  return signaturesFor(axis === "x" ? "lathe-x" : "lathe-z", { noseRadius, tipCode }).map(({ id, predictedMm }) => ({
    id,
    counts: toCounts(predictedMm, final.scale),
  }));
}

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
function account(trace: TurningTrace, asked: Asked): ReturnType<typeof bestAccount<TurningLane>> {
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

/** Schools that split Z over a row and work Z. */
type Split = Exclude<LatheSplit, "whole">;

type Acts = readonly [Standing<TurningLane>, ...Standing<TurningLane>[]];

/** The first register of a sum that was set to something, by every way in which its acts can be read. */
function actsOf(trace: TurningTrace, axis: TurretAxis, registers: readonly RegisterId[]): Acts | null {
  for (const register of registers) {
    const lineage = setOf(trace, register);
    if (lineage) return standings(register, lineage, axis);
  }
  return null;
}

/**
 * What a gang slide's tool came to that was slid in its clamp against the bar: its register has nothing to do with
 * it.
 */
function slidProvenance(trace: TurningTrace, tool: number, slid: Contact, closureMm: number): Provenance {
  const { final } = trace;
  const { scale, registers } = final;
  const measured = measuredFor(trace, slid, slid.seq)[0]?.mm ?? 2 * slid.radiusMm;
  const { errors, ownMm } = turretErrors(trace, slid, "x", measured, measured);
  const belongs = slid.at.x - toCounts(measured, scale);
  const delta = sumOf(final, ["common.x", "G54.x", ...rowsOf(tool, "x")]) - belongs;
  const row = turretSum(registers.turret, "x", tool);
  const built = row !== 0 && Math.abs(delta - row) <= Math.abs(delta) ? row : 0;
  const left = delta - built;
  const terms: Term[] = [
    ...(built === 0 ? [] : [{ id: "registerBuiltIn" as const, mm: toMm(built, scale), seq: slid.seq }]),
    ...(Math.abs(left) <= 2 ? [] : [{ id: "otherFigure" as const, mm: toMm(left, scale), seq: slid.seq }]),
  ];
  const small = Math.abs(left) <= 2 ? toMm(left, scale) : 0;
  const own = closureMm - [...terms, ...errors].reduce((sum, { mm }) => sum + mm, 0);
  return {
    contact: contactPlace(slid, "x"),
    terms: merged([...terms, ...errors]),
    open: null,
    ownMm: Math.abs(own - (ownMm + small)) < 0.002 ? ownMm + small : own,
  };
}

/** The value was set in another work offset: which. */
function inOtherOffset(trace: TurningTrace, axis: TurretAxis, tool: number, closureMm: number): Provenance | null {
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

/** A row that nobody touched and that was right when the lane began, beside what was put into the other registers. */
function kept(trace: TurningTrace, tool: number, axis: TurretAxis, closureMm: number): Provenance | null {
  const { final } = trace;
  const rows = rowsOf(tool, axis);
  if (sumOf(final, rows) === 0 || rows.some((register) => setOf(trace, register) !== null)) return null;
  const terms = workOf(axis).flatMap((register): Term[] => {
    const lineage = setOf(trace, register);
    const mm = toMm(readRegister(final.registers, register), final.scale);
    return lineage && mm !== 0
      ? [{ id: "otherFigure", mm, seq: lastAct(lineage).seq, register, figure: { saidMm: mm, belongsMm: 0 } }]
      : [];
  });
  const ownMm = closureMm - terms.reduce((sum, { mm }) => sum + mm, 0);
  return Math.abs(ownMm) <= KEPT_MM ? { contact: null, terms, open: null, ownMm } : null;
}

/** The value of another tool, or of nothing that the log knows. */
function withoutSource(
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

/** Everything that adds up to a tool's value, from one contact. */
function wholeSum(trace: TurningTrace, tool: number, axis: TurretAxis, closureMm: number): Provenance {
  const { final, log } = trace;
  const registers = [...rowsOf(tool, axis), ...workOf(axis)];
  const changed = log.findLast(({ event }) => event.type === "toolChanged" && event.tool === tool)?.seq ?? 0;
  const slid =
    axis === "x"
      ? trace.turret.findLast((one) => one.tool === tool && one.by === "slid" && one.seq > changed)
      : undefined;
  const start = final.setup.lathe.start;
  const own = actsOf(trace, axis, rowsOf(tool, axis));
  const shared = actsOf(trace, axis, start ? [`common.${axis}`, `G54.${axis}`] : workOf(axis));
  // a work offset counts for a tool only where its own row was not set
  const isFirst = start !== undefined && tool === final.setup.lathe.targets[axis][0];
  const isShared = own === null && shared !== null && (isFirst || (!start && isSetWith(trace, tool, axis, shared[0])));
  const keptRow = own === null ? kept(trace, tool, axis, closureMm) : null;
  const acts = own ?? (isShared ? shared.map((act) => withoutRow(act, tool, axis)) : null);
  const at = acts?.[0];
  if (slid && slid.seq > (at?.act.seq ?? 0)) return slidProvenance(trace, tool, slid, closureMm);
  const declared = isFirst && own === null ? declaredProvenance(trace, tool, axis) : null;
  if (declared) return declared;
  if (keptRow) return keptRow;
  if (!acts || !at || at.act.seq < changed)
    return (
      inOtherOffset(trace, axis, tool, closureMm) ??
      unset(trace, rowsOf(tool, axis), closureMm, allSources(trace, tool, axis, Infinity).map(valueOf))
    );
  const found = account(trace, {
    axis,
    registers,
    acts,
    sources: (before) => allSources(trace, tool, axis, before),
    others: (source, act) => [
      ...otherWays(trace, tool, axis, act, source),
      ...(own === null ? [{ id: "toolNotActive" as const, counts: rowNotInUse(act, tool, axis) }] : []),
    ],
    ...(final.kind === "gang"
      ? { shown: ({ counts }: Source) => counts - final.registers.common[axis] - final.registers.work.G54[axis] }
      : {}),
  });
  if (!found) return withoutSource(trace, tool, axis, at, closureMm);
  const whole = provenanceFrom(found.account, found.source);
  const isBare =
    axis === "x" && found.source.shares.some(({ term, slips }) => term === "diameter" && slips.length === 0);
  return isBare
    ? {
        ...whole,
        terms: whole.terms.map((term) => (term.id === "otherFigure" ? { ...term, id: "notMeasured" } : term)),
      }
    : whole;
}

/**
 * A position that was declared: at the start point and with the tool of the sheet, the figure that follows from where
 * that tool met the part; lost, where the machine was switched off since.
 */
function declaredProvenance(trace: TurningTrace, tool: number, axis: TurretAxis): Provenance | null {
  const { final, changes, log } = trace;
  const { start } = final.setup.lathe;
  const register: RegisterId = `common.${axis}`;
  const said = changes.findLast(({ event }) => event.register === register && event.how === "declared");
  if (!start || !said) return null;
  const { event, before, seq } = said;
  const startCounts = toCounts(axis === "x" ? start.xMm : start.zMm, final.scale);
  const inUse = turretSum(before.registers.turret, axis, before.lathe.row);
  const off = event.machine[axis] - startCounts - inUse;
  const now = sumOf(final, [...rowsOf(tool, axis), ...workOf(axis)]);
  const gone = now - event.to;
  const sources = allSources(trace, tool, axis, seq);
  // where it stood is one thing, the figure that was declared another
  const at: Standing<TurningLane> = {
    register,
    lineage: { base: said, added: [] },
    act: said,
    origin: null,
    stated: event.to - off,
    isAnew: false,
  };
  const found = account(trace, {
    axis,
    registers: [register],
    acts: [at],
    sources: () => sources,
    others: () => [],
  });
  if (!found) return null;
  const lostSeq =
    log.findLast((one) => one.event.type === "registerChanged" && one.event.register === register)?.seq ?? seq;
  const whole = provenanceFrom(found.account, found.source);
  return {
    ...whole,
    terms: merged([
      ...whole.terms,
      ...(off === 0 ? [] : [{ id: "declaredElsewhere" as const, mm: toMm(off, final.scale), seq }]),
      ...(gone === 0
        ? []
        : [
            {
              id:
                event.to !== 0 && final.registers.common[axis] === 0
                  ? ("declarationLost" as const)
                  : ("changedAfter" as const),
              mm: toMm(gone, final.scale),
              seq: lostSeq,
            },
          ]),
    ]),
  };
}

/** What a tool's own row held, and was not called, when a work offset was captured: it is not in that, counts. */
function rowNotInUse({ origin, act }: Standing<TurningLane>, tool: number, axis: TurretAxis): Counts {
  const { registers, lathe } = act.before;
  if (origin === null) return 0;
  return turretSum(registers.turret, axis, tool) - turretSum(registers.turret, axis, lathe.row);
}

/** A work offset that was captured, as a sum of everything that adds up for a tool. */
const withoutRow = (at: Standing<TurningLane>, tool: number, axis: TurretAxis): Standing<TurningLane> => ({
  ...at,
  stated: at.stated + rowNotInUse(at, tool, axis),
});

/** A work offset was captured with this tool in the working position. */
const isSetWith = (trace: TurningTrace, tool: number, axis: TurretAxis, { act }: Standing<TurningLane>): boolean =>
  act.before.lathe.station === tool &&
  trace.turret.some((one) => one.tool === tool && one.axis === axis && one.seq < act.seq);

const negated = (terms: readonly Term[]): Term[] => terms.map((term) => ({ ...term, mm: -term.mm }));

/** Shares that a capture takes off by itself: what work and common offset held then. */
const withOffsetsThen = (at: Standing<TurningLane>, axis: TurretAxis): Standing<TurningLane> =>
  at.origin === null ? at : { ...at, stated: at.stated - sumOf(at.act.before, workOf(axis)) };

/** The row of a tool by itself, in the schools that split Z: from the arm, or beside the master. */
function rowProvenance(trace: TurningTrace, tool: number, split: Split): Provenance {
  const { final, log } = trace;
  const master = final.setup.lathe.targets.z[0] ?? 1;
  const far = farEdgeMm(toolOf(final, tool));
  const rows = rowsOf(tool, "z");
  const isMaster = split === "difference" && tool === master;
  const wantedMm =
    split === "reach"
      ? reachMm(final, tool) - far
      : reachMm(final, tool) - far - (reachMm(final, master) - farEdgeMm(toolOf(final, master)));
  const closureMm = toMm(sumOf(final, rows), final.scale) - (isMaster ? 0 : wantedMm);
  if (isMaster) {
    const mm = toMm(sumOf(final, rows), final.scale);
    const act = actsOf(trace, "z", rows)?.[0].act;
    const seq = act?.seq ?? log.at(-1)?.seq ?? 0;
    const term: Term = act
      ? { id: "otherFigure", mm, seq, figure: { saidMm: mm, belongsMm: 0 } }
      : { id: "masterNotCleared", mm, seq };
    return { contact: null, terms: mm === 0 ? [] : [term], open: null, ownMm: 0 };
  }
  const set = actsOf(trace, "z", rows);
  const sources = (before: number): Source[] =>
    split === "reach"
      ? contactsOf(trace, tool, "z", before)
          .filter(({ by }) => by === "arm")
          .map((contact) => armSource(trace, contact, "z", wantedMm))
      : besideMaster(trace, tool, master, before);
  if (!set) return unset(trace, rows, closureMm, sources(Infinity).map(valueOf));
  const found = account(trace, {
    axis: "z",
    registers: rows,
    acts: set.map((one) => withOffsetsThen(one, "z")),
    sources,
    others: (source, act) => otherWays(trace, tool, "z", act, source),
  });
  return found ? provenanceFrom(found.account, found.source) : withoutSource(trace, tool, "z", set[0], closureMm);
}

/** A tool touched where the master was: the difference of the two. */
function besideMaster(trace: TurningTrace, tool: number, master: number, before: number): Source[] {
  const [theirs] = masterSources(trace, master);
  if (!theirs) return [];
  return contactsOf(trace, tool, "z", before).flatMap((contact) =>
    sourcesFrom(trace, contact, "z", before).map((source) => ({
      ...source,
      shares: [
        ...source.shares,
        { term: "other" as const, counts: -valueOf(theirs), slips: [{ id: "schoolsMixed" as const, counts: 0 }] },
      ],
      errors: [...source.errors, ...negated(theirs.errors)],
      ownMm: source.ownMm - theirs.ownMm,
    })),
  );
}

/** Where the master met the face when the shift was found: before work Z was set, or the last time. */
function masterSources(trace: TurningTrace, master: number): Source[] {
  const set = actsOf(trace, "z", workOf("z"));
  const [contact] = contactsOf(trace, master, "z", set?.at(-1)?.act.seq ?? Infinity);
  return contact ? sourcesFrom(trace, contact, "z", Infinity) : [];
}

/** Work Z in the schools that split Z: the face touched with a tool whose row is set, or with the master. */
function workProvenance(trace: TurningTrace, split: Split): Provenance {
  const { final, log } = trace;
  const master = final.setup.lathe.targets.z[0] ?? 1;
  const registers = workOf("z");
  const face = faceMm(final) ?? 0;
  const wantedMm = split === "reach" ? face : face + reachMm(final, master) - farEdgeMm(toolOf(final, master));
  const closureMm = toMm(sumOf(final, registers), final.scale) - wantedMm;
  const set = actsOf(trace, "z", registers);
  const end = log.at(-1)?.seq ?? 0;
  if (!set) {
    const elsewhere = workElsewhere(trace, split, closureMm);
    if (elsewhere) return elsewhere;
    const [theirs] = masterSources(trace, master);
    if (split === "difference" && theirs)
      return {
        contact: theirs.contact,
        terms: merged([
          { id: "shiftMissing", mm: toMm(sumOf(final, registers) - valueOf(theirs), final.scale), seq: end },
          ...theirs.errors,
        ]),
        open: null,
        ownMm: theirs.ownMm,
      };
    return unset(trace, registers, closureMm);
  }
  return workFrom(trace, split, set, registers, closureMm);
}

function workFrom(
  trace: TurningTrace,
  split: Split,
  acts: Acts,
  registers: readonly RegisterId[],
  closureMm: number,
): Provenance {
  const { lathe } = trace.final.setup;
  const tools = split === "reach" ? lathe.tools.map(({ number }) => number) : [lathe.targets.z[0] ?? 1];
  const found = account(trace, {
    axis: "z",
    registers,
    acts: acts.map(withRowInUse),
    sources: (before, { act }) =>
      tools
        .flatMap((tool) => contactsOf(trace, tool, "z", before).filter(({ by }) => by !== "arm"))
        .sort((a, b) => b.seq - a.seq)
        .flatMap((contact) =>
          sourcesFrom(trace, contact, "z", before).map((source) =>
            split === "reach" ? besideRow(trace, contact.tool, source, act.before) : source,
          ),
        ),
    others: (source, { origin, act }) => {
      const { machine } = act.event;
      return origin !== null || machine.z === source.counts
        ? []
        : [{ id: "capturedAfterLeaving", counts: machine.z - source.counts, isReading: true }];
    },
  });
  return found ? provenanceFrom(found.account, found.source) : noContact(closureMm, acts[0].act.seq);
}

/** What the called row takes off is in a capture as if it had been stated. */
function withRowInUse(at: Standing<TurningLane>): Standing<TurningLane> {
  const { registers, lathe } = at.act.before;
  return at.origin === null ? at : { ...at, stated: at.stated - turretSum(registers.turret, "z", lathe.row) };
}

/** The face met with a tool whose row stands in the figure: what is wrong with that row is carried over. */
function besideRow(trace: TurningTrace, tool: number, source: Source, before: TurningLane): Source {
  const { final } = trace;
  const { row } = before.lathe;
  const rows = rowsOf(tool, "z");
  const [then, now] = [sumOf(before, rows), sumOf(final, rows)];
  const far = farEdgeMm(toolOf(final, tool));
  const other =
    row === null || row === tool
      ? []
      : [{ id: "neighborRow" as const, counts: -turretSum(before.registers.turret, "z", row) }];
  const share: Share = {
    term: "other",
    counts: -then,
    slips: [{ id: "toolNotActive", counts: 0 }, ...other, { id: "schoolsMixed", counts: then }],
  };
  const shares = [...source.shares, share];
  const offMm = toMm(then, final.scale) - (reachMm(final, tool) - far);
  if (then !== now)
    return {
      ...source,
      shares,
      errors: [...source.errors, { id: "carriedOver", mm: -offMm, seq: source.contact?.seq ?? 0, tool }],
    };
  const mine = rowProvenance(trace, tool, "reach");
  return { ...source, shares, errors: [...source.errors, ...negated(mine.terms)], ownMm: source.ownMm - mine.ownMm };
}

/** Work Z was set in another work offset: which. */
function workElsewhere(trace: TurningTrace, split: Split, closureMm: number): Provenance | null {
  const acts = actsOf(
    trace,
    "z",
    workOffsetNames.slice(1).map((name): RegisterId => `${name}.z`),
  );
  if (!acts) return null;
  const [at] = acts;
  const inner = workFrom(trace, split, acts, [at.register, "common.z"], closureMm);
  const carried = inner.terms.reduce((sum, { mm }) => sum + mm, inner.ownMm);
  if (inner.terms.some(({ id }) => id === "noContact")) return null;
  return {
    ...inner,
    terms: [{ id: "otherRegister", mm: closureMm - carried, seq: at.act.seq, register: at.register }, ...inner.terms],
  };
}

/** Where X or Z of a tool on a turret or a gang slide came from. */
export function offsetProvenance(
  trace: TurningTrace,
  tool: number,
  axis: TurretAxis,
  split: LatheSplit,
  closureMm: number,
): Provenance {
  if (axis === "x" || split === "whole") return wholeSum(trace, tool, axis, closureMm);
  const row = rowProvenance(trace, tool, split);
  const work = workProvenance(trace, split);
  const isUnset = ({ terms }: Provenance) => terms.some(({ id }) => id === "neverSet" || id === "takenBack");
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
