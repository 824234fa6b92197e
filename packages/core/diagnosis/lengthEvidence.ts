import { countsFromMm, mmFromCounts } from "../units";
import { matchCounts, typingSlip, type NamedCounts } from "./arithmetic";
import type { Evidence, ProvenTerm } from "./cause";
import { lengthSignatures } from "./benchSignatures";
import type { LaneTrace, SurfaceTouch } from "./trace";

const Z_REGISTERS = new Set(["common.z", "G54.z", "H1", "HW1"]);
const WORTH_NAMING_MM = 0.009;

/** What a capture of Z hangs on: the touch that was in force, or the last one before. */
function touchBefore(touches: readonly SurfaceTouch[], seq: number): SurfaceTouch | undefined {
  return touches.findLast((touch) => touch.seq < seq && touch.feel !== "torn") ?? touches.findLast((touch) => touch.seq < seq);
}

/** How much shorter incidents made tool 1 after a moment of the log, mm. */
const shortened = ({ log }: LaneTrace, seq: number): number =>
  log.reduce((sum, { seq: at, event }) =>
    at > seq && event.type === "incidentHappened" && event.thing === "tool1" ? sum + (event.shorterMm ?? 0) : sum, 0);

/** The register sum Cz + Wz + Hg + Hw of tool 1, counts. */
export function zSumCounts({ final }: LaneTrace): number {
  const { common, work, lengthGeometry, lengthWear } = final.registers;
  return common.z + work.G54.z + (lengthGeometry[1] ?? 0) + (lengthWear[1] ?? 0);
}

/**
 * What the log proves about Z with tool 1: the sum of the registers against the touch it came from, exact in counts, and the
 * touch against the true skin. Both schools end in the same sum, so one rule serves `part-touch` and `plane-lift`.
 */
export function lengthEvidence(trace: LaneTrace, closureMm: number): Evidence {
  const { final } = trace;
  const { setup } = final;
  const changes = trace.changes.filter(({ event }) => Z_REGISTERS.has(event.register));
  const lastSet = changes.at(-1);
  const touches = trace.touches.filter(({ holds }) => holds === "tool1");
  if (!lastSet) return { contact: null, terms: [{ id: "neverSet", mm: closureMm, seq: trace.log.at(-1)?.seq ?? 0 }], leftMm: 0 };
  const onStock = touches.filter(({ on }) => on === "stock");
  const anyTouch = touchBefore(touches, lastSet.seq);
  const touch = touchBefore(onStock, lastSet.seq);
  if (!anyTouch) return { contact: null, terms: [{ id: "noContact", mm: 0, seq: lastSet.seq }], leftMm: closureMm };
  if (!touch) {
    const contact = { counts: anyTouch.machineZ, seq: anyTouch.seq, atMs: anyTouch.atMs };
    return { contact, terms: [{ id: "liftMissing", mm: closureMm, seq: anyTouch.seq }], leftMm: 0 };
  }
  const capture = changes.findLast(({ event, seq }) => event.how === "captured" && seq > touch.seq);
  const isFelt = capture?.paper != null && capture.paper.feel !== "slides";
  // captured with the paper still held: the reading is where the machine stood then
  const readCounts = capture && isFelt ? capture.event.machine.z : touch.machineZ;
  const usesPaper = touch.by === "paper";
  const t = usesPaper ? countsFromMm(setup.paperMm) : 0;
  const wanted = readCounts - t - countsFromMm(setup.facingAllowanceMm);
  const left = zSumCounts(trace) - wanted;
  const strayCounts = capture && !isFelt ? capture.event.machine.z - touch.machineZ : 0;
  const signatures: NamedCounts[] = lengthSignatures(setup)
    .filter(({ id }) => usesPaper || (id !== "paperForgotten" && id !== "paperWrongWay"))
    .map(({ id, predictedMm }) => ({ id, counts: countsFromMm(predictedMm) }));
  const { seq } = lastSet;
  const named = (rows: readonly NamedCounts[], at: number): ProvenTerm[] => rows.map(({ id, counts }) => ({ id, mm: mmFromCounts(counts), seq: at }));
  const direct = matchCounts(left, signatures);
  const moved = !direct && strayCounts !== 0 ? matchCounts(left - strayCounts, signatures) : null;
  const slip = !direct && !moved && lastSet.event.how === "typed" ? typingSlip(zSumCounts(trace), wanted) : null;
  const procedure: ProvenTerm[] =
    direct ? named(direct, seq)
    : moved ? [{ id: "capturedAfterLeaving", mm: mmFromCounts(strayCounts), seq: capture?.seq ?? seq }, ...named(moved, seq)]
    : slip ? [{ id: slip, mm: mmFromCounts(left), seq }] : [];
  const shorterSinceMm = shortened(trace, touch.seq);
  const lengthThenMm = final.truth.lengthsMm.tool1 - (final.shorterMm.tool1 - shorterSinceMm);
  const contactErrorMm =
    mmFromCounts(readCounts) - (usesPaper ? setup.paperMm : 0) - (final.truth.datumMm.z + lengthThenMm + setup.facingAllowanceMm);
  const isPinched = capture?.paper?.feel === "pinched" || (!capture && touch.feel === "pinched");
  const atContact: ProvenTerm[] =
    isPinched && Math.abs(contactErrorMm) >= WORTH_NAMING_MM ? [{ id: "paperPinched", mm: contactErrorMm, seq: touch.seq }]
    : touch.clickMm > 0.001 && Math.abs(contactErrorMm) > 3 * WORTH_NAMING_MM ? [{ id: "coarseClick", mm: contactErrorMm, seq: touch.seq }]
    : [];
  const since: ProvenTerm[] = shorterSinceMm > 0 ? [{ id: "changedSinceTouch", mm: shorterSinceMm, seq: touch.seq }] : [];
  const terms = [...procedure, ...atContact, ...since];
  return {
    contact: { counts: readCounts, seq: touch.seq, atMs: touch.atMs },
    terms, leftMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0),
  };
}
