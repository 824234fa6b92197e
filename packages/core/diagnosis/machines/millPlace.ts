import { edgeOf, type SetupEdge } from "../../exercises/setup";
import type { MillLane } from "../../machines/mill/lane";
import { datumNowMm } from "../../machines/mill/solids";
import { workOffsetNames, type RegisterId, type WorkOffsetName } from "../../registers";
import { toCounts, toMm, type Counts } from "../../units";
import { bestAccount, provenanceFrom, type Source, type SumQuestion } from "../account";
import { DIAL_TURN_MM } from "../benchSignatures";
import { noContact, type CauseId, type Provenance } from "../cause";
import { keptProvenance } from "../kept";
import { writtenIn, type OtherWay } from "../figures";
import { setOf, standings, type Standing } from "../standing";
import { unset } from "../unset";
import type { MillTrace } from "../trace";
import {
  type Contact,
  DIAL_READS_TO,
  FAR_MM,
  type Flat,
  LATEST,
  contactErrors,
  edgeShares,
  edgeSource,
  of,
} from "./millContacts";
import { middleShares, middles } from "./millMiddles";

const nameOf: SumQuestion<MillLane>["nameOf"] = (register, change) => {
  if (change !== "left" && change !== "cleared") return "changedAfter";
  return register.startsWith("common") ? "leftoverCommonZ" : "otherRegister";
};

/** The value of the other axis typed here: from its own contacts, by its own figures. */
function swappedAxis(trace: MillTrace, axis: Flat, before: number, belongs: Counts): OtherWay[] {
  const across: Flat = axis === "x" ? "y" : "x";
  const edge = edgeOf(trace.final.setup, across);
  const contact = trace.contacts.findLast((one) => one.axis === across && one.seq < before);
  const place = trace.places.findLast((one) => one.axis === across && one.seq < before);
  const values = [
    ...(edge && contact
      ? [
          contact.atCounts +
            edgeShares(trace.final, across, edge, contact).shares.reduce((sum, { counts }) => sum + counts, 0),
        ]
      : []),
    ...(place ? [place.atCounts + middleShares(trace.final, across).reduce((sum, { counts }) => sum + counts, 0)] : []),
  ];
  return values.map((value) => ({ id: "axesSwapped" as const, counts: value - belongs }));
}

/** Other figures that a student may have typed in place of the machine's at the contact. */
function otherReadings(at: Standing<MillLane>, axis: Flat, contactCounts: Counts): OtherWay[] {
  if (at.origin !== null) return [];
  const { before, event } = at.act;
  const { common, work } = before.registers;
  const shown = common[axis] + work[before.modal.workOffset][axis];
  return [
    ...(event.machine[axis] === contactCounts
      ? []
      : [{ id: "capturedAfterLeaving" as const, counts: event.machine[axis] - contactCounts, isReading: true }]),
    ...(shown === 0 ? [] : [{ id: "otherColumn" as const, counts: -shown, isReading: true }]),
  ];
}

type Question = SumQuestion<MillLane>;

/** The sums of X or Y that a register's last act can be read as, one for each contact that it may come from. */
function questions(trace: MillTrace, axis: Flat, registers: readonly RegisterId[], at: Standing<MillLane>): Question[] {
  const { final } = trace;
  const { setup, scale } = final;
  const edge = edgeOf(setup, axis);
  const before = at.act.seq;
  const base = {
    final,
    set: trace.set,
    registers,
    standing: at,
    isSolving: at.origin !== null,
    written: writtenIn(
      final.desk.ledger,
      [at.register],
      setup.datum.kind === "middle" ? toCounts(FAR_MM, scale) : Infinity,
    ),
    nameOf,
  };
  if (edge && !setup.isSkewed) {
    const contacts = trace.contacts.filter((one) => one.axis === axis && one.seq < before).toReversed();
    // a capture is made at the contact in force, or after it; a figure may come from an earlier one
    const list = at.origin === null ? contacts.slice(0, LATEST) : contacts.slice(0, 1);
    return list.map((contact) => {
      const source = edgeSource(trace, axis, edge, contact, at);
      const belongs = source.counts + source.shares.reduce((sum, { counts }) => sum + counts, 0);
      return {
        ...base,
        source,
        strayId: strayOf(contact, at, scale),
        others: [
          ...sheetFigure(contact, edge, source, scale),
          ...dialTurn(contact, scale),
          ...(at.origin === null ? swappedAxis(trace, axis, before, belongs) : []),
          ...otherReadings(at, axis, contact.atCounts),
        ],
      };
    });
  }
  const found = middles(trace, axis, before);
  return found.slice(0, at.origin === null ? LATEST : 3).map(({ source, radius }) => ({
    ...base,
    source,
    strayId: "notOverMiddle",
    others: [
      ...(radius === 0
        ? []
        : [
            { id: "radiusOnOneSide" as const, counts: Math.round(radius / 2) },
            { id: "radiusOnOneSide" as const, counts: -Math.round(radius / 2) },
          ]),
      ...(at.origin === null
        ? swappedAxis(trace, axis, before, source.counts + source.shares.reduce((sum, { counts }) => sum + counts, 0))
        : []),
      ...otherReadings(at, axis, source.counts),
    ],
  }));
}

/** The other face touched, and told what belongs to the sheet's face: that is the face and nothing else. */
function sheetFigure(contact: Contact, edge: SetupEdge, { shares }: Source, scale: MillLane["scale"]): OtherWay[] {
  if (contact.approach === edge.approach) return [];
  const belongs = shares.reduce((sum, { counts }) => sum + counts, 0);
  const counts = toCounts(edge.approach * contact.radiusMm - edge.edgeWorkMm, scale) - belongs;
  return [{ id: "otherEdge", counts, seq: Math.ceil(contact.seq) }];
}

/** A capture away from the contact: left, or with the dial on it and not at zero. */
function strayOf(contact: Contact, { origin, act }: Standing<MillLane>, scale: MillLane["scale"]): CauseId {
  const isOn = contact.by === "taster" && Math.ceil(contact.seq) === act.seq;
  if (!isOn || origin === null) return "capturedAfterLeaving";
  const turns = Math.abs(toMm(origin - contact.atCounts, scale)) / DIAL_TURN_MM;
  return Math.round(turns) > 0 && Math.abs(turns - Math.round(turns)) < DIAL_READS_TO
    ? "dialTurnShort"
    : "dialNotAtZero";
}

/** A dial read one turn short: the contact itself stood one turn away. */
const dialTurn = (contact: Contact, scale: MillLane["scale"]): OtherWay[] =>
  contact.by === "taster"
    ? [
        { id: "dialTurnShort", counts: -contact.approach * toCounts(DIAL_TURN_MM, scale), seq: Math.ceil(contact.seq) },
        { id: "dialTurnShort", counts: contact.approach * toCounts(DIAL_TURN_MM, scale), seq: Math.ceil(contact.seq) },
      ]
    : [];

/** One face stands for the middle: its contact, or the edge that follows from it. */
function oneSide(trace: MillTrace, axis: Flat, at: Standing<MillLane>, closureMm: number): Provenance | null {
  const { final } = trace;
  if (final.setup.datum.kind !== "middle") return null;
  const total = (at.origin ?? 0) + at.stated;
  const lone = trace.contacts.findLast(
    (one) =>
      one.axis === axis &&
      one.seq < at.act.seq &&
      [-1, 0, 1].some((share) => Math.abs(total - one.atCounts - share * toCounts(one.radiusMm, final.scale)) <= 2),
  );
  if (!lone) return null;
  const halfMm = lone.before.truth.stockSizeMm[axis === "x" ? 0 : 1] / 2;
  const { errors, ownMm } = contactErrors(lone, datumNowMm(lone.before)[axis] - lone.approach * halfMm);
  const mm = closureMm - errors.reduce((sum, term) => sum + term.mm, ownMm);
  return {
    contact: of(lone),
    terms: [{ id: "oneSideOnly", mm, seq: Math.ceil(lone.seq) }, ...errors],
    open: null,
    ownMm,
  };
}

const OTHER_OFFSETS = workOffsetNames.slice(1);

/** The value was set in another work offset: which, and what is wrong with it besides. */
function inOtherRow(trace: MillTrace, axis: Flat, closureMm: number): Provenance | null {
  const { final, set } = trace;
  const rows = OTHER_OFFSETS.flatMap((name: WorkOffsetName) => {
    const register: RegisterId = `${name}.${axis}`;
    const lineage = setOf({ final, set }, register);
    return lineage ? [{ register, lineage }] : [];
  });
  const [row] = rows.sort((a, b) => (b.lineage.base?.seq ?? 0) - (a.lineage.base?.seq ?? 0));
  if (!row) return null;
  const acts = standings(row.register, row.lineage, axis);
  const [at] = acts;
  const best = bestAccount(acts.flatMap((act) => questions(trace, axis, [`common.${axis}`, row.register], act)));
  const inner = best ? provenanceFrom(best.account, best.source) : null;
  const carriedMm = inner ? inner.terms.reduce((sum, { mm }) => sum + mm, inner.ownMm) : 0;
  return {
    contact: inner?.contact ?? null,
    terms: [
      { id: "otherRegister", mm: closureMm - carriedMm, seq: at.act.seq, register: row.register },
      ...(inner?.terms ?? []),
    ],
    open: inner?.open ?? null,
    ownMm: inner?.ownMm ?? 0,
  };
}

/** Names that leave open what was taken for the middle. */
const UNNAMED: ReadonlySet<CauseId> = new Set(["otherFigure", "otherReading", "notOverMiddle", "wrongSum"]);

/** Where the registers of X or Y came from, and what each step made of it. */
export function placeProvenance(trace: MillTrace, axis: Flat, closureMm: number): Provenance {
  const { final, set } = trace;
  const registers: readonly RegisterId[] = [`G54.${axis}`, `common.${axis}`];
  const kept = keptProvenance(trace, registers, closureMm);
  if (kept) return kept;
  const acts = registers.flatMap((register) => {
    const lineage = setOf({ final, set }, register);
    return lineage ? [standings(register, lineage, axis)] : [];
  })[0];
  if (!acts) return inOtherRow(trace, axis, closureMm) ?? unset(trace, registers, closureMm);
  const [at] = acts;
  const best = bestAccount(acts.flatMap((act) => questions(trace, axis, registers, act)));
  if (!best) return oneSide(trace, axis, at, closureMm) ?? noContact(closureMm, at.act.seq);
  const isPlain = best.account.terms.every(({ id }) => !UNNAMED.has(id));
  const lone = isPlain ? null : oneSide(trace, axis, at, closureMm);
  return lone ?? faceOnce(provenanceFrom(best.account, best.source));
}

/** The other face is one mistake: its coordinate, its radius, and that the blank is not its drawing's size. */
function faceOnce(provenance: Provenance): Provenance {
  const [first, ...more] = provenance.terms.filter(({ id }) => id === "otherEdge");
  if (!first || more.length === 0) return provenance;
  const mm = more.reduce((sum, term) => sum + term.mm, first.mm);
  return {
    ...provenance,
    terms: provenance.terms.flatMap((term) => (more.includes(term) ? [] : [term === first ? { ...term, mm } : term])),
  };
}
