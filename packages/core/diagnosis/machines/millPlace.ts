import { edgeOf, type SetupEdge } from "../../exercises/setup";
import type { MillLane } from "../../machines/mill/lane";
import { datumNowMm, skewNowDeg, tipPoint } from "../../machines/mill/solids";
import type { EdgeContact, PlaceReading } from "../../machines/told";
import { workOffsetNames, type RegisterId, type WorkOffsetName } from "../../registers";
import { toCounts, toMm, type Counts } from "../../units";
import { bestAccount, provenanceFrom, type Motion, type Source, type SumQuestion } from "../account";
import { DIAL_TURN_MM } from "../benchSignatures";
import { noContact, WORTH_NAMING_MM, type CauseId, type Provenance, type SourceContact, type Term } from "../cause";
import { writtenIn, type OtherWay, type Share } from "../figures";
import { setOf, standings, type Standing } from "../standing";
import { unset } from "../unset";
import type { LoggedEvent, Made, MillTrace } from "../trace";

type Flat = "x" | "y";
type Contact = Made<EdgeContact, MillLane>;
type Place = Made<PlaceReading, MillLane>;

/** A move of the tip radius made by hand is taken as meant when it lands this near, mm. */
const MEANT_MM = 0.06;
/** A contact at this click, or finer, was found at the finest, mm. */
const FINEST_MM = 0.003;
/** A large hand that stands within this share of a turn from zero was taken for zero. */
const DIAL_READS_TO = 0.03;
/** Readings of the faces on both sides of a middle lie further apart than this, mm. */
const FAR_MM = 2;
/** As many attempts as a student may choose a figure from. */
const LATEST = 8;

const of = ({ atCounts, seq, atMs }: { atCounts: Counts; seq: number; atMs: number }): SourceContact => ({
  counts: atCounts,
  seq: Math.ceil(seq),
  atMs,
});

/** Where the datum stood when something was found, less where it stands at the end: the part was moved since. */
function partMoved({ log, final }: MillTrace, axis: Flat, then: MillLane, seq: number): Term[] {
  const mm = datumNowMm(then)[axis] - datumNowMm(final)[axis];
  if (Math.abs(mm) < 1e-9) return [];
  const moved = log.find((one) => one.seq > seq && (one.event.type === "taskDone" || one.event.type === "partTapped"));
  return [{ id: "partMoved", mm, seq: moved?.seq ?? Math.ceil(seq) }];
}

/**
 * What a face that runs askew adds to the figure of a touch, mm: it leaves the square through the datum by as much as
 * the touch stands along it, and a round tip meets it a little off its own radius.
 */
function askewMm({ axis, approach: s, before, radiusMm }: Contact, faceMm: number): number {
  const rad = (skewNowDeg(before) * Math.PI) / 180;
  const datum = datumNowMm(before);
  const tip = tipPoint(before, before.position);
  const alongMm = axis === "y" ? tip.x - datum.x : datum.y - tip.y;
  const rest = 1 / Math.cos(rad) - 1;
  return alongMm * Math.tan(rad) + (faceMm - datum[axis] - s * radiusMm) * rest;
}

/** A contact against a face, mm: the signed shares of its error that are known, and the method's own. */
function contactErrors(contact: Contact, faceMm: number): { errors: Term[]; ownMm: number } {
  const { approach: s, clickMm, by, atCounts, radiusMm, before, isTooFast } = contact;
  const seq = Math.ceil(contact.seq);
  const errorMm = toMm(atCounts, before.scale) + s * radiusMm - faceMm;
  const known: Term[] = [...contact.known, { id: "faceAskew" as const, mm: askewMm(contact, faceMm) }]
    .filter(({ mm }) => Math.abs(mm) > 1e-9)
    .map(({ id, mm }) => ({ id, mm, seq }));
  const left = errorMm - known.reduce((sum, { mm }) => sum + mm, 0);
  const kickMm = s * contact.kickMm;
  const rest = left - kickMm;
  const name = (): CauseId | null => {
    if (Math.abs(rest) < WORTH_NAMING_MM) return null;
    if (clickMm > FINEST_MM && Math.abs(rest) <= clickMm + WORTH_NAMING_MM) return "coarseClick";
    if (by === "probe") return "stylusOff";
    return isTooFast ? "kickScattered" : "contactOff";
  };
  const id = name();
  return id === null ? { errors: known, ownMm: left } : { errors: [...known, { id, mm: rest, seq }], ownMm: kickMm };
}

/** Moves on an axis after a contact and up to an act, counts: one for each time the hand set out anew. */
function movesBetween(log: readonly LoggedEvent[], axis: Flat, from: Counts, after: number, upTo: number): Counts[] {
  const moves: Counts[] = [];
  let at = from;
  let isOpen = false;
  for (const { seq, event } of log) {
    if (seq <= after || seq >= upTo) continue;
    const to = event.type === "jogged" || event.type === "moved" ? event.to : null;
    if (!to) continue;
    const step = to[axis] - at;
    at = to[axis];
    if (step === 0) isOpen = false;
    else if (isOpen && Math.sign(moves.at(-1) ?? 0) === Math.sign(step)) moves.push((moves.pop() ?? 0) + step);
    else {
      moves.push(step);
      isOpen = true;
    }
  }
  return moves;
}

/** Radii of other tips of the lane, mm. */
function otherRadii({ setup }: MillLane, radiusMm: number): number[] {
  const { tipDiameterMm, probe, tools } = setup;
  const radii = [
    tipDiameterMm / 2,
    ...(probe ? [probe.ballDiameterMm / 2, probe.effectiveRadiusMm] : []),
    ...tools.map(({ diameterMm }) => diameterMm / 2),
  ];
  return [...new Set(radii)].filter(
    (mm) => mm > 0 && Math.abs(mm - radiusMm) > 0.01 && Math.abs(mm - 2 * radiusMm) > 0.01,
  );
}

/** What belongs beside a contact on a face: the tip's radius toward the part, less the face's own coordinate. */
function edgeShares(lane: MillLane, axis: Flat, edge: SetupEdge, contact: Contact): { shares: Share[]; radius: Share } {
  const { scale, setup } = lane;
  const counts = (mm: number) => toCounts(mm, scale);
  const s = contact.approach;
  const r = counts(contact.radiusMm);
  const radius: Share = {
    term: "tipRadius",
    counts: s * r,
    slips:
      r === 0
        ? // a dial over the face has no radius; the finder's may be counted all the same
          otherRadii(lane, 0).map((mm) => ({ id: "otherTipRadius" as const, counts: s * counts(mm) }))
        : [
            { id: "radiusForgotten", counts: 0 },
            { id: "radiusSignTurned", counts: -s * r },
            { id: "diameterForRadius", counts: 2 * s * r },
            ...otherRadii(lane, contact.radiusMm).map((mm) => ({
              id: "otherTipRadius" as const,
              counts: s * counts(mm),
            })),
          ],
  };
  const nominal = setup.partSizeMm[axis === "x" ? 0 : 1];
  const isOther = contact.approach !== edge.approach;
  const o = edge.edgeWorkMm;
  const far = o + edge.approach * nominal;
  const acrossMm = edgeOf(setup, axis === "x" ? "y" : "x")?.edgeWorkMm ?? 0;
  const mine = isOther ? far : o;
  const slip = (id: CauseId, mm: number) => ({ id, counts: -counts(mm) });
  const slips = isOther
    ? [slip("otherEdge", o), slip("otherEdge", 0)]
    : [
        slip("edgeWorkForgotten", 0),
        slip("edgeWorkSignTurned", -o),
        ...(Math.abs(acrossMm) > 0 ? [slip("otherEdgeWork", acrossMm), slip("otherEdgeWork", -acrossMm)] : []),
        slip("otherEdge", far),
      ];
  const work: Share = {
    term: "edgeWork",
    counts: -counts(mine),
    slips: slips.filter(
      (one, i) => one.counts !== -counts(mine) && slips.findIndex(({ counts: c }) => c === one.counts) === i,
    ),
  };
  return { radius, shares: [radius, work] };
}

/**
 * The tip radius entered by moving: toward the part, away from it, or the whole diameter, where the log has the move.
 */
function motions(
  trace: MillTrace,
  axis: Flat,
  contact: Contact,
  { shares, radius }: ReturnType<typeof edgeShares>,
  at: Standing<MillLane>,
): Motion[] {
  if (at.origin === null || radius.counts === 0) return [];
  const net = at.origin - contact.atCounts;
  const moves = [net, ...movesBetween(trace.log, axis, contact.atCounts, contact.seq, at.act.seq)];
  const within = toCounts(MEANT_MM, trace.final.scale);
  return ([1, -1, 2] as const).flatMap((times): Motion[] => {
    const meant = times * radius.counts;
    const move = moves.find((one) => Math.abs(one - meant) <= within);
    if (move === undefined) return [];
    const id: CauseId | null = times === 1 ? null : times === -1 ? "radiusSignTurned" : "diameterForRadius";
    // entered by motion it does not belong in the figure as well
    const entered: Share = {
      term: "tipRadius",
      counts: radius.counts - meant,
      slips: id === null ? [{ id: "otherTipRadius", counts: radius.counts }] : [{ id, counts: 0 }],
    };
    return [{ counts: meant, shares: [entered, ...shares.filter((share) => share !== radius)] }];
  });
}

/** The face that a contact met, as the blank lay then, mm. */
function faceThenMm(contact: Contact, axis: Flat, edge: SetupEdge): number {
  const size = contact.before.truth.stockSizeMm[axis === "x" ? 0 : 1];
  const isOther = contact.approach !== edge.approach;
  return datumNowMm(contact.before)[axis] + edge.edgeWorkMm + (isOther ? edge.approach * size : 0);
}

/** A contact on a face as what X or Y comes from. */
function edgeSource(trace: MillTrace, axis: Flat, edge: SetupEdge, contact: Contact, at: Standing<MillLane>): Source {
  const parts = edgeShares(trace.final, axis, edge, contact);
  const { errors, ownMm } = contactErrors(contact, faceThenMm(contact, axis, edge));
  const isOther = contact.approach !== edge.approach;
  const index = axis === "x" ? 0 : 1;
  // the other face lies where the blank ends, and not where the drawing has it
  const sizeMm = isOther
    ? edge.approach * (trace.final.truth.stockSizeMm[index] - trace.final.setup.partSizeMm[index])
    : 0;
  return {
    counts: contact.atCounts,
    contact: of(contact),
    shares: parts.shares,
    errors: [
      ...errors,
      ...(sizeMm === 0 ? [] : [{ id: "otherEdge" as const, mm: sizeMm, seq: Math.ceil(contact.seq) }]),
      ...partMoved(trace, axis, contact.before, contact.seq),
    ],
    ownMm,
    motions: motions(trace, axis, contact, parts, at),
  };
}

/** The middle of two contacts, or of what one reading gave, as what X or Y comes from. */
interface Middle {
  readonly source: Source;
  readonly radius: Counts;
  readonly seq: number;
}

function middles(trace: MillTrace, axis: Flat, before: number): Middle[] {
  const { setup, scale } = trace.final;
  const work: Share[] = middleShares(trace.final, axis);
  const used = trace.contacts.filter((one) => one.axis === axis && one.seq < before && one.by !== "probe");
  const [lows, highs] = [1, -1].map((s) => used.filter(({ approach }) => approach === s).slice(-3)) as [
    Contact[],
    Contact[],
  ];
  const index = axis === "x" ? 0 : 1;
  const halfMm = ({ before: { truth } }: Contact) => truth.stockSizeMm[index] / 2;
  const isMiddle = setup.datum.kind === "middle";
  const pairs = isMiddle
    ? highs.flatMap((high) =>
        lows.map((low): Middle => {
          const [a, b] = [low, high].map((one) =>
            contactErrors(one, datumNowMm(one.before)[axis] - one.approach * halfMm(one)),
          ) as [ReturnType<typeof contactErrors>, ReturnType<typeof contactErrors>];
          const last = high.seq > low.seq ? high : low;
          const exact = (low.atCounts + high.atCounts) / 2;
          const counts = Math.round(exact);
          const halved = [...a.errors, ...b.errors].map((term) => ({ ...term, mm: term.mm / 2 }));
          const moved = [low, high].flatMap((one) =>
            partMoved(trace, axis, one.before, one.seq).map((term) => ({ ...term, mm: term.mm / 2 })),
          );
          const radiiMm = (low.radiusMm - high.radiusMm) / 2;
          return {
            // a dial over the face has no radius; the sheet's may be counted all the same
            radius: toCounts(high.radiusMm || setup.tipDiameterMm / 2, scale),
            seq: last.seq,
            source: {
              counts,
              contact: of({ ...last, atCounts: counts }),
              shares: work,
              errors: [...halved, ...moved],
              ownMm: (a.ownMm + b.ownMm) / 2 - radiiMm + toMm(counts - exact, scale),
            },
          };
        }),
      )
    : [];
  const read = trace.places
    .filter((place) => place.axis === axis && place.seq < before)
    .slice(-LATEST)
    .map((place): Middle => ({
      radius: 0,
      seq: place.seq,
      source: placeSource(trace, axis, place, work),
    }));
  return [...pairs, ...read].sort((a, b) => b.seq - a.seq);
}

/** What belongs beside a middle or a corner that was read: the datum's own distance from it. */
function middleShares(lane: MillLane, axis: Flat): Share[] {
  const edge = edgeOf(lane.setup, axis);
  const counts = toCounts(edge?.edgeWorkMm ?? 0, lane.scale);
  return counts === 0
    ? []
    : [
        {
          term: "edgeWork",
          counts: -counts,
          slips: [
            { id: "edgeWorkForgotten", counts: 0 },
            { id: "edgeWorkSignTurned", counts },
          ],
        },
      ];
}

function placeSource(trace: MillTrace, axis: Flat, place: Place, shares: Share[]): Source {
  const { scale } = trace.final;
  const wantedMm = datumNowMm(place.before)[axis] + (edgeOf(trace.final.setup, axis)?.edgeWorkMm ?? 0);
  const errorMm = toMm(place.atCounts, scale) - wantedMm;
  const isOff = Math.abs(errorMm) >= 2 * WORTH_NAMING_MM;
  return {
    counts: place.atCounts,
    contact: of(place),
    shares,
    errors: [
      ...(isOff
        ? [{ id: place.by === "probe" ? ("stylusOff" as const) : ("contactOff" as const), mm: errorMm, seq: place.seq }]
        : []),
      ...partMoved(trace, axis, place.before, place.seq),
    ],
    ownMm: isOff ? 0 : errorMm,
  };
}

const nameOf: SumQuestion<MillLane>["nameOf"] = (register, change) =>
  change === "left" || change === "cleared"
    ? register.startsWith("common")
      ? "leftoverCommonZ"
      : "otherRegister"
    : "changedAfter";

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
