import { edgeOf, type SetupEdge } from "../exercises";
import { toCounts, toMm } from "../units";
import { workOffsetNames, type RegisterId } from "../registers";
import { matchCounts, typingSlip, type NamedCounts } from "./arithmetic";
import { WORTH_NAMING_MM, type Evidence, type ProvenTerm } from "./cause";
import { edgeSignatures } from "./benchSignatures";
import type { EdgeContact } from "../machines/told";
import type { MillTrace } from "./trace";

type MillChange = MillTrace["changes"][number];

/** A move of the tip radius made by hand is taken as meant when it lands this near, mm. */
const MEANT_MM = 0.06;
const NOMINAL_KICK_MM = 0.0055;

const ownKickMm = ({ by }: EdgeContact): number => (by === "edgeFinder" ? NOMINAL_KICK_MM : 0);

/** The errors of the contact itself, from what the event stored: the signed share of the closure of each, mm. */
function contactTerms({ parts, approach: s, rpm, seq, runoutMm, burrMm }: EdgeContact): ProvenTerm[] {
  const slowMm = parts && rpm < 400 ? parts.kickPastMm * 2 : 0;
  const terms: ProvenTerm[] = [
    { id: "burr", mm: -s * burrMm, seq: Math.ceil(seq) },
    { id: "edgeBreak", mm: s * (parts?.lateMm ?? 0), seq },
    { id: "bentFinder", mm: -s * (parts?.bendMm ?? 0), seq },
    { id: "slowSpindle", mm: s * slowMm, seq },
    { id: "tasterNotTrued", mm: -s * runoutMm, seq: Math.ceil(seq) },
  ];
  return terms.filter(({ mm }) => Math.abs(mm) >= WORTH_NAMING_MM);
}

/** What a coarse last click added: the contact's error beyond all stored parts. */
function clickTerm(contact: EdgeContact, contactErrorMm: number, named: readonly ProvenTerm[]): ProvenTerm[] {
  const s = contact.approach;
  const rest = contactErrorMm - named.reduce((sum, { mm }) => sum + mm, 0) - s * ownKickMm(contact);
  const isCoarse = contact.clickMm > 0.003 && Math.abs(rest) >= WORTH_NAMING_MM;
  return isCoarse ? [{ id: "coarseClick", mm: rest, seq: contact.seq }] : [];
}

/** How the register was made from one contact: the exact counts it is off by, split into what the log proves. */
function procedureTerms(
  trace: MillTrace,
  axis: "x" | "y",
  edge: SetupEdge,
  kick: EdgeContact,
  changes: readonly MillChange[],
): {
  terms: ProvenTerm[];
  leftCounts: number;
} {
  const { setup, registers, scale } = trace.final;
  const held = registers.common[axis] + registers.work.G54[axis];
  const { approach: s, edgeWorkMm } = edge;
  const counts = (mm: number) => toCounts(mm, scale);
  const mmOf = (value: number) => toMm(value, scale);
  const r = counts(kick.radiusMm);
  const wanted = kick.atCounts + s * r - counts(edgeWorkMm);
  const left = held - wanted;
  const after = changes.filter(({ seq }) => seq > kick.seq);
  const last = after.at(-1);
  const seq = last?.seq ?? Math.ceil(kick.seq);
  const signatures: NamedCounts[] = edgeSignatures(setup, axis, kick.radiusMm).flatMap(({ id, predictedMm }) =>
    id === "otherEdge" ? [] : [{ id, counts: counts(predictedMm) }],
  );
  const capture = after.findLast(({ event }) => event.how === "captured");
  const movedCounts = capture ? capture.event.machine[axis] - kick.atCounts : 0;
  // moved by the radius toward the part and captured there: the radius was entered by motion
  const meant = [0, s * r].find((want) => Math.abs(movedCounts - want) <= (want === 0 ? 0 : counts(MEANT_MM)));
  const strayCounts = meant === undefined ? movedCounts : movedCounts - meant;
  const whole = matchCounts(left, signatures);
  if (whole) return { terms: whole.map(({ id, counts: c }) => ({ id, mm: mmOf(c), seq })), leftCounts: 0 };
  if (capture && strayCounts !== 0) {
    const rest = matchCounts(left - strayCounts, signatures) ?? matchCounts(left - movedCounts, signatures);
    if (rest) {
      const explained = rest.reduce((sum, { counts: c }) => sum + c, 0);
      return {
        terms: [
          { id: "capturedAfterLeaving", mm: mmOf(left - explained), seq: capture.seq },
          ...rest.map(({ id, counts: c }) => ({ id, mm: mmOf(c), seq: capture.seq })),
        ],
        leftCounts: 0,
      };
    }
  }
  const slip = last?.event.how === "typed" ? typingSlip(held, wanted) : null;
  if (slip) return { terms: [{ id: slip, mm: mmOf(left), seq }], leftCounts: 0 };
  if (Math.abs(left) <= counts(MEANT_MM) && capture)
    return { terms: [{ id: "capturedAfterLeaving", mm: mmOf(left), seq }], leftCounts: 0 };
  return { terms: [], leftCounts: left };
}

/** The right value stands in another work offset: typed or captured in the wrong row. */
function inOtherRow(trace: MillTrace, axis: "x" | "y", closureMm: number): ProvenTerm[] {
  const { registers, setup, truth, scale } = trace.final;
  const NEAR_MM = setup.tipDiameterMm + 3;
  const near = workOffsetNames
    .slice(1)
    .find(
      (name) =>
        registers.work[name][axis] !== 0 &&
        Math.abs(toMm(registers.work[name][axis], scale) - truth.datumMm[axis]) <= NEAR_MM,
    );
  const change = near && trace.changes.findLast(({ event }) => event.register === `${near}.${axis}`);
  return change ? [{ id: "otherRegister", mm: closureMm, seq: change.seq }] : [];
}

const contactOf = ({ atCounts, seq, atMs }: { atCounts: number; seq: number; atMs: number }): Evidence["contact"] => ({
  counts: atCounts,
  seq: Math.ceil(seq),
  atMs,
});

/**
 * X or Y on an edge: closure = (register against the contact it came from, exact in counts) + (the contact against the
 * true edge).
 */
function onEdge(
  trace: MillTrace,
  axis: "x" | "y",
  edge: SetupEdge,
  closureMm: number,
  changes: readonly MillChange[],
  lastSet: MillChange,
): Evidence {
  const contacts = trace.contacts.filter((contact) => contact.axis === axis && contact.seq < lastSet.seq);
  if (contacts.length === 0)
    return { contact: null, terms: [{ id: "noContact", mm: 0, seq: lastSet.seq }], leftMm: closureMm };
  // the reading used need not be the last contact: take the latest one that the arithmetic leads to
  const readings = contacts.toReversed().map((kick) => ({ kick, ...procedureTerms(trace, axis, edge, kick, changes) }));
  const isClean = ({ terms, leftCounts }: (typeof readings)[number]) =>
    leftCounts === 0 && terms.every(({ id }) => id !== "capturedAfterLeaving");
  const best = readings.find(isClean) ?? readings.find(({ leftCounts }) => leftCounts === 0) ?? readings[0];
  if (!best) throw new Error(`onEdge: no reading for ${axis} among ${contacts.length} contacts`);
  const { kick } = best;
  const { setup, truth, scale } = trace.final;
  const { approach: s, edgeWorkMm } = edge;
  const touchedOther = kick.approach !== s;
  const size = truth.stockSizeMm[axis === "x" ? 0 : 1];
  const face = truth.datumMm[axis] + edgeWorkMm + (touchedOther ? s * size : 0);
  const contactErrorMm = toMm(kick.atCounts, scale) + kick.approach * kick.radiusMm - face;
  const named = contactTerms(kick);
  const atContact = [...named, ...clickTerm(kick, contactErrorMm, named)];
  if (touchedOther) {
    const nominalMm = s * setup.partSizeMm[axis === "x" ? 0 : 1];
    const terms: ProvenTerm[] = [{ id: "otherEdge", mm: nominalMm, seq: kick.seq }, ...atContact];
    const withRadius = matchCounts(toCounts(closureMm - s * size - contactErrorMm, scale), [
      { id: "radiusForgotten", counts: toCounts(s * kick.radiusMm, scale) },
      { id: "radiusSignTurned", counts: toCounts(2 * s * kick.radiusMm, scale) },
    ]);
    if (withRadius)
      terms.push(...withRadius.map(({ id, counts }) => ({ id, mm: toMm(counts, scale), seq: lastSet.seq })));
    return { contact: contactOf(kick), terms, leftMm: withRadius ? s * ownKickMm(kick) : closureMm - nominalMm };
  }
  const terms = [...best.terms, ...atContact];
  return { contact: contactOf(kick), terms, leftMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0) };
}

/** Middles of the latest contacts from both sides before a moment, and every middle or axis that one reading gave. */
function middlesBefore(
  trace: MillTrace,
  axis: "x" | "y",
  seq: number,
): { atCounts: number; seq: number; atMs: number; radiusMm: number }[] {
  const contacts = trace.contacts.filter(
    (contact) => contact.axis === axis && contact.seq < seq && contact.by !== "probe",
  );
  const lows = contacts.filter(({ approach }) => approach === 1);
  const highs = contacts.filter(({ approach }) => approach === -1);
  const pairs = highs.slice(-3).flatMap((high) =>
    lows.slice(-3).map((low) => ({
      atCounts: Math.round((high.atCounts + low.atCounts) / 2),
      seq: Math.max(high.seq, low.seq),
      atMs: Math.max(high.atMs, low.atMs),
      radiusMm: high.radiusMm,
    })),
  );
  const read = trace.places
    .filter((place) => place.axis === axis && place.seq < seq)
    .map(({ atCounts, seq: at, atMs }) => ({ atCounts, seq: at, atMs, radiusMm: 0 }));
  return [...pairs, ...read].sort((a, b) => b.seq - a.seq);
}

/** X or Y on a middle, an axis or a turned corner: the register against the reading that it came from. */
function onMiddle(trace: MillTrace, axis: "x" | "y", closureMm: number, lastSet: MillChange): Evidence {
  const { registers, setup, scale } = trace.final;
  const held = registers.common[axis] + registers.work.G54[axis];
  const middles = middlesBefore(trace, axis, lastSet.seq);
  const edge = edgeOf(setup, axis);
  for (const middle of middles) {
    const wanted = middle.atCounts - toCounts(edge?.edgeWorkMm ?? 0, scale);
    const signatures = edgeSignatures(setup, axis, middle.radiusMm).map(({ id, predictedMm }) => ({
      id,
      counts: toCounts(predictedMm, scale),
    }));
    const match = matchCounts(held - wanted, signatures);
    if (!match) continue;
    const terms = match.map(({ id, counts }) => ({ id, mm: toMm(counts, scale), seq: lastSet.seq }));
    return { contact: contactOf(middle), terms, leftMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0) };
  }
  const [latest] = middles;
  if (!latest) {
    const one = trace.contacts.findLast((contact) => contact.axis === axis && contact.seq < lastSet.seq);
    return {
      contact: one ? contactOf(one) : null,
      terms: one
        ? [{ id: "oneSideOnly", mm: closureMm, seq: one.seq }]
        : [{ id: "noContact", mm: 0, seq: lastSet.seq }],
      leftMm: one ? 0 : closureMm,
    };
  }
  const lone = trace.contacts.findLast(
    (contact) =>
      contact.axis === axis &&
      contact.seq < lastSet.seq &&
      [-1, 0, 1].some((share) => Math.abs(held - contact.atCounts - share * toCounts(contact.radiusMm, scale)) <= 2),
  );
  if (lone)
    return {
      contact: contactOf(lone),
      terms: [{ id: "oneSideOnly", mm: closureMm, seq: Math.ceil(lone.seq) }],
      leftMm: 0,
    };
  const slip = lastSet.event.how === "typed" ? typingSlip(held, latest.atCounts) : null;
  const stray = held - latest.atCounts;
  if (slip)
    return {
      contact: contactOf(latest),
      terms: [{ id: slip, mm: toMm(stray, scale), seq: lastSet.seq }],
      leftMm: closureMm - toMm(stray, scale),
    };
  if (lastSet.event.how === "captured") {
    return {
      contact: contactOf(latest),
      terms: [{ id: "notOverMiddle", mm: toMm(stray, scale), seq: lastSet.seq }],
      leftMm: closureMm - toMm(stray, scale),
    };
  }
  return { contact: contactOf(latest), terms: [], leftMm: closureMm };
}

/** What the log proves about X or Y of G54. A blank that moved after it was touched is named first. */
export function edgeEvidence(trace: MillTrace, axis: "x" | "y", closureMm: number): Evidence {
  const register: RegisterId = `G54.${axis}`;
  const changes = trace.changes.filter(
    ({ event }) => event.register === register || event.register === `common.${axis}`,
  );
  const lastSet = changes.at(-1);
  if (!lastSet) {
    const elsewhere = inOtherRow(trace, axis, closureMm);
    const terms =
      elsewhere.length > 0 ? elsewhere : [{ id: "neverSet" as const, mm: closureMm, seq: trace.log.at(-1)?.seq ?? 0 }];
    return { contact: null, terms, leftMm: 0 };
  }
  const { setup } = trace.final;
  const edge = edgeOf(setup, axis);
  const evidence =
    edge && !setup.isSkewed
      ? onEdge(trace, axis, edge, closureMm, changes, lastSet)
      : onMiddle(trace, axis, closureMm, lastSet);
  return { ...evidence, ...withMovedPart(trace, axis, evidence) };
}

/** The blank was pushed to the stop or tapped after the contact: the part moved away from its number. */
function withMovedPart(trace: MillTrace, axis: "x" | "y", evidence: Evidence): Partial<Evidence> {
  const contactSeq = evidence.contact?.seq;
  if (contactSeq === undefined) return {};
  const moved = trace.log.find(
    ({ seq, event }) =>
      seq > contactSeq &&
      ((event.type === "taskDone" && event.task === "pushToStop" && axis === "x") || event.type === "partTapped"),
  );
  if (!moved || Math.abs(evidence.leftMm) < WORTH_NAMING_MM) return {};
  return { terms: [...evidence.terms, { id: "partMoved", mm: evidence.leftMm, seq: moved.seq }], leftMm: 0 };
}
