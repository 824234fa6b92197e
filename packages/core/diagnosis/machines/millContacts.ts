import { edgeOf, type SetupEdge } from "../../exercises/setup";
import type { MillLane } from "../../machines/mill/lane";
import { datumNowMm, skewNowDeg, tipPoint } from "../../machines/mill/solids";
import type { EdgeContact, PlaceReading } from "../../machines/told";
import { toCounts, toMm, type Counts } from "../../units";
import type { Motion, Source } from "../account";
import { WORTH_NAMING_MM, type CauseId, type SourceContact, type Term } from "../cause";
import { FINEST_CLICK_MM } from "../felt";
import type { Share } from "../figures";
import type { Standing } from "../standing";
import type { LoggedEvent, Made, MillTrace } from "../trace";

export type Flat = "x" | "y";

export type Contact = Made<EdgeContact, MillLane>;

export type Place = Made<PlaceReading, MillLane>;

/** A move of the tip radius made by hand is taken as meant when it lands this near, mm. */
const MEANT_MM = 0.06;

/** A large hand that stands within this share of a turn from zero was taken for zero. */
export const DIAL_READS_TO = 0.03;

/** Readings of the faces on both sides of a middle lie further apart than this, mm. */
export const FAR_MM = 2;

/** As many attempts as a student may choose a figure from. */
export const LATEST = 8;

export const of = ({ atCounts, seq, atMs }: { atCounts: Counts; seq: number; atMs: number }): SourceContact => ({
  counts: atCounts,
  seq: Math.ceil(seq),
  atMs,
});

const MOVES_PART: ReadonlySet<string> = new Set(["taskDone", "partTapped", "parallelsChanged"]);

/** Where the datum stood when something was found, less where it stands at the end: the part was moved since. */
export function partMoved({ log, final }: MillTrace, axis: Flat, then: MillLane, seq: number): Term[] {
  const mm = datumNowMm(then)[axis] - datumNowMm(final)[axis];
  if (Math.abs(mm) < 1e-9) return [];
  const moved = log.find((one) => one.seq > seq && MOVES_PART.has(one.event.type));
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
export function contactErrors(contact: Contact, faceMm: number): { errors: Term[]; ownMm: number } {
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
    if (clickMm > FINEST_CLICK_MM && Math.abs(rest) <= clickMm + WORTH_NAMING_MM) return "coarseClick";
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
export function edgeShares(
  lane: MillLane,
  axis: Flat,
  edge: SetupEdge,
  contact: Contact,
): { shares: Share[]; radius: Share } {
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
export function edgeSource(
  trace: MillTrace,
  axis: Flat,
  edge: SetupEdge,
  contact: Contact,
  at: Standing<MillLane>,
): Source {
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
