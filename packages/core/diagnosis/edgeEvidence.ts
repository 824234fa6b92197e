import { countsFromMm, mmFromCounts } from "../units";
import { workOffsetNames, type MillRegisterId } from "../registers";
import { matchCounts, typingSlip, type NamedCounts } from "./arithmetic";
import type { Evidence, ProvenTerm } from "./cause";
import { edgeSignatures } from "./benchSignatures";
import type { ChangePlace, KickPlace, LaneTrace } from "./trace";

/** Parts of a contact smaller than this are the method's own, mm. */
const WORTH_NAMING_MM = 0.009;
/** A move of the tip radius made by hand is taken as meant when it lands this near, counts. */
const MEANT_COUNTS = 60;
const NOMINAL_KICK_MM = 0.0055;

/** The errors of the contact itself, from what the event stored: the signed share of the closure of each, mm. */
function contactTerms({ event, rpm, seq }: KickPlace): ProvenTerm[] {
  const { approach: s, parts } = event;
  const slowMm = rpm < 400 ? parts.kickPastMm * 2 : 0;
  const terms: ProvenTerm[] = [
    { id: "burr", mm: -s * parts.burrMm, seq },
    { id: "edgeBreak", mm: s * parts.lateMm, seq },
    { id: "bentFinder", mm: -s * parts.bendMm, seq },
    { id: "slowSpindle", mm: s * slowMm, seq },
  ];
  return terms.filter(({ mm }) => Math.abs(mm) >= WORTH_NAMING_MM);
}

/** What a coarse last click added: the contact's error beyond all stored parts. */
function clickTerm(kick: KickPlace, contactErrorMm: number, named: readonly ProvenTerm[]): ProvenTerm[] {
  const s = kick.event.approach;
  const rest = contactErrorMm - named.reduce((sum, { mm }) => sum + mm, 0) - s * NOMINAL_KICK_MM;
  const isCoarse = kick.event.parts.clickMm > 0.001 && Math.abs(rest) >= WORTH_NAMING_MM;
  return isCoarse ? [{ id: "coarseClick", mm: rest, seq: kick.seq }] : [];
}

/** How the register was made from one kick: the exact counts it is off by, split into what the log proves. */
function procedureTerms(trace: LaneTrace, axis: "x" | "y", kick: KickPlace, changes: readonly ChangePlace[]): {
  terms: ProvenTerm[]; leftCounts: number;
} {
  const { final } = trace;
  const { setup, registers } = final;
  const held = registers.common[axis] + registers.work.G54[axis];
  const { approach: s, edgeWorkMm } = setup.edges[axis];
  const r = countsFromMm(setup.tipDiameterMm / 2);
  const wanted = kick.event.atCounts + s * r - countsFromMm(edgeWorkMm);
  const left = held - wanted;
  const after = changes.filter(({ seq }) => seq > kick.seq);
  const last = after.at(-1);
  const seq = last?.seq ?? kick.seq;
  const signatures: NamedCounts[] = edgeSignatures(setup, axis).map(({ id, predictedMm }) => ({ id, counts: countsFromMm(predictedMm) }));
  const capture = after.findLast(({ event }) => event.how === "captured");
  const movedCounts = capture ? capture.event.machine[axis] - kick.event.atCounts : 0;
  // moved by the radius toward the part and captured there: the radius was entered by motion
  const meant = [0, s * r].find((want) => Math.abs(movedCounts - want) <= (want === 0 ? 0 : MEANT_COUNTS));
  const strayCounts = meant === undefined ? movedCounts : movedCounts - meant;
  const whole = matchCounts(left, signatures);
  if (whole) return { terms: whole.map(({ id, counts }) => ({ id, mm: mmFromCounts(counts), seq })), leftCounts: 0 };
  if (capture && strayCounts !== 0) {
    const rest = matchCounts(left - strayCounts, signatures) ?? matchCounts(left - movedCounts, signatures);
    if (rest) {
      const explained = rest.reduce((sum, { counts }) => sum + counts, 0);
      return {
        terms: [
          { id: "capturedAfterLeaving", mm: mmFromCounts(left - explained), seq: capture.seq },
          ...rest.map(({ id, counts }) => ({ id, mm: mmFromCounts(counts), seq: capture.seq })),
        ],
        leftCounts: 0,
      };
    }
  }
  const slip = last?.event.how === "typed" ? typingSlip(held, wanted) : null;
  if (slip) return { terms: [{ id: slip, mm: mmFromCounts(left), seq }], leftCounts: 0 };
  if (Math.abs(left) <= MEANT_COUNTS && capture) return { terms: [{ id: "capturedAfterLeaving", mm: mmFromCounts(left), seq }], leftCounts: 0 };
  return { terms: [], leftCounts: left };
}

/** The right value stands in another work offset: typed or captured in the wrong row. */
function inOtherRow(trace: LaneTrace, axis: "x" | "y", closureMm: number): ProvenTerm[] {
  const { registers, setup, truth } = trace.final;
  const NEAR_MM = setup.tipDiameterMm + 3;
  const near = workOffsetNames.slice(1).find((name) =>
    registers.work[name][axis] !== 0 && Math.abs(mmFromCounts(registers.work[name][axis]) - truth.datumMm[axis]) <= NEAR_MM);
  const change = near && trace.changes.findLast(({ event }) => event.register === `${near}.${axis}`);
  return change ? [{ id: "otherRegister", mm: closureMm, seq: change.seq }] : [];
}

/**
 * What the log proves about X or Y of G54. closure = (register against the kick it came from, exact in counts)
 * + (the kick against the true edge, from the parts stored with it).
 */
export function edgeEvidence(trace: LaneTrace, axis: "x" | "y", closureMm: number): Evidence {
  const register: MillRegisterId = `G54.${axis}`;
  const changes = trace.changes.filter(({ event }) => event.register === register || event.register === `common.${axis}`);
  const lastSet = changes.at(-1);
  if (!lastSet) {
    const elsewhere = inOtherRow(trace, axis, closureMm);
    const terms = elsewhere.length > 0 ? elsewhere : [{ id: "neverSet" as const, mm: closureMm, seq: trace.log.at(-1)?.seq ?? 0 }];
    return { contact: null, terms, leftMm: 0 };
  }
  const kicks = trace.kicks.filter(({ event, seq }) => event.axis === axis && seq < lastSet.seq);
  const lastKick = kicks.at(-1);
  if (!lastKick) return { contact: null, terms: [{ id: "noContact", mm: 0, seq: lastSet.seq }], leftMm: closureMm };
  // the reading used need not be the last kick: take the latest one that the arithmetic leads to
  const readings = kicks.toReversed().map((kick) => ({ kick, ...procedureTerms(trace, axis, kick, changes) }));
  const isClean = ({ terms, leftCounts }: (typeof readings)[number]) => leftCounts === 0 && terms.every(({ id }) => id !== "capturedAfterLeaving");
  const best = readings.find(isClean) ?? readings.find(({ leftCounts }) => leftCounts === 0) ?? readings[0];
  if (!best) throw new Error(`edgeEvidence: no reading for ${axis} among ${kicks.length} kicks`);
  const { kick } = best;
  const { setup, truth } = trace.final;
  const { approach: s, edgeWorkMm } = setup.edges[axis];
  const touchedOther = kick.event.approach !== s;
  const size = truth.stockSizeMm[axis === "x" ? 0 : 1];
  const face = truth.datumMm[axis] + edgeWorkMm + (touchedOther ? s * size : 0);
  const contactErrorMm = mmFromCounts(kick.event.atCounts) + kick.event.approach * (setup.tipDiameterMm / 2) - face;
  const named = contactTerms(kick);
  const atContact = [...named, ...clickTerm(kick, contactErrorMm, named)];
  if (touchedOther) {
    const nominalMm = s * setup.partSizeMm[axis === "x" ? 0 : 1];
    const terms: ProvenTerm[] = [{ id: "otherEdge", mm: nominalMm, seq: kick.seq }, ...atContact];
    const radii = closureMm - s * size;
    const withRadius = matchCounts(countsFromMm(radii - contactErrorMm), [
      { id: "radiusForgotten", counts: countsFromMm(s * (setup.tipDiameterMm / 2)) },
      { id: "radiusSignTurned", counts: countsFromMm(s * setup.tipDiameterMm) },
    ]);
    if (withRadius) terms.push(...withRadius.map(({ id, counts }) => ({ id, mm: mmFromCounts(counts), seq: lastSet.seq })));
    return { contact: contactOf(kick), terms, leftMm: withRadius ? s * 0.0055 : closureMm - nominalMm };
  }
  const terms = [...best.terms, ...atContact];
  return { contact: contactOf(kick), terms, leftMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0) };
}

const contactOf = ({ event, seq, atMs }: KickPlace) => ({ counts: event.atCounts, seq, atMs });
