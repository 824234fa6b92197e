import { workOffsetOf } from "../exercises";
import { toolName } from "../instruments";
import { toCounts, toMm, type Scale } from "../units";
import { procedureTerms, type NamedCounts } from "./arithmetic";
import { WORTH_NAMING_MM, type Evidence, type ProvenTerm } from "./cause";
import { lengthSignatures } from "./benchSignatures";
import type { SurfaceTouch } from "../machines/told";
import { isTouching } from "../machines/mill/evidence";
import type { MillTrace } from "./trace";

/** What a capture of Z hangs on: the touch that was in force, or the last one before. */
function touchBefore(touches: readonly SurfaceTouch[], seq: number): SurfaceTouch | undefined {
  return (
    touches.findLast((touch) => touch.seq < seq && touch.feel !== "torn") ??
    touches.findLast((touch) => touch.seq < seq)
  );
}

/** How much shorter incidents made a tool after a moment of the log, mm. */
const shortened = ({ log }: MillTrace, tool: number, seq: number): number =>
  log.reduce(
    (sum, { seq: at, event }) =>
      at > seq && event.type === "incidentHappened" && event.thing === toolName(tool)
        ? sum + (event.shorterMm ?? 0)
        : sum,
    0,
  );

/** The register sum Cz + Wz + Hg + Hw of a tool in the work offset it works in, counts. */
export function zSumCounts({ final }: MillTrace, tool: number): number {
  const { common, work, lengthGeometry, lengthWear } = final.registers;
  return common.z + work[workOffsetOf(final.setup, tool)].z + (lengthGeometry[tool] ?? 0) + (lengthWear[tool] ?? 0);
}

/**
 * Errors that are physically so and that a log can point to: dirt in the taper, a part not seated, a gauge that was
 * hit.
 */
export function physicalTerms(trace: MillTrace, tool: number): ProvenTerm[] {
  const { truth, seat, setup } = trace.final;
  const terms: ProvenTerm[] = [];
  const dirty = trace.touches.findLast(({ holds, seatMm }) => holds === toolName(tool) && seatMm > 0);
  if (dirty) terms.push({ id: "taperDirt", mm: dirty.seatMm, seq: dirty.seq });
  const tapped = trace.log.findLast(({ event }) => event.type === "taskDone" && event.task === "tapDown");
  const onPart = trace.touches.find(({ on }) => on === "stock" || on === "boss");
  if (truth.liftMm > 0 && onPart && seat.isTapped && tapped && onPart.seq < tapped.seq)
    terms.push({ id: "notSeated", mm: truth.liftMm, seq: onPart.seq });
  if (truth.doubt?.of === "setter") terms.push({ id: "setterMoved", mm: -truth.doubt.byMm, seq: 0 });
  if (truth.doubt?.of === "presetter") terms.push({ id: "presetterOff", mm: truth.doubt.byMm, seq: 0 });
  if (truth.doubt?.of === "probeLength") terms.push({ id: "probeLengthWrong", mm: -truth.doubt.byMm, seq: 0 });
  const rpm = setup.isAtSpeed ? (setup.tools.find(({ number }) => number === tool)?.workingRpm ?? 0) : 0;
  if (rpm > 0 && truth.growthMmPer1000 > 0)
    terms.push({ id: "spindleGrowth", mm: (truth.growthMmPer1000 * rpm) / 1000, seq: 0 });
  const chip = truth.chipsMm[toolName(tool)];
  if (chip) terms.push({ id: "chipOnTip", mm: chip, seq: 0 });
  return terms.filter(({ mm }) => Math.abs(mm) >= WORTH_NAMING_MM);
}

const registersOf = (tool: number, work: string) => new Set([`common.z`, `${work}.z`, `H${tool}`, `HW${tool}`]);

const nothingDone = (trace: MillTrace, closureMm: number): Evidence => ({
  contact: null,
  terms: [{ id: "neverSet", mm: closureMm, seq: trace.log.at(-1)?.seq ?? 0 }],
  leftMm: 0,
});

/**
 * What the log proves about Z with a tool touched on the part or on a plane: the sum of the registers against the touch
 * it came from, exact in counts, and the touch against the true skin. All schools that touch end in the same sum, so
 * one rule serves them.
 */
export function lengthEvidence(trace: MillTrace, closureMm: number, tool = 1): Evidence {
  const { final } = trace;
  const { setup, scale } = final;
  const relevant = registersOf(tool, workOffsetOf(setup, tool));
  const changes = trace.changes.filter(({ event }) => relevant.has(event.register));
  const lastSet = changes.at(-1);
  const touches = trace.touches.filter(({ holds }) => holds === toolName(tool));
  if (!lastSet) return nothingDone(trace, closureMm);
  const touch = touchBefore(
    touches.filter(({ on }) => on === "stock"),
    lastSet.seq,
  );
  const anyTouch = touchBefore(touches, lastSet.seq);
  const measured = trace.readings.findLast(({ event, seq }) => event.tool === tool && seq < lastSet.seq);
  if (!anyTouch) {
    const contact = measured
      ? { counts: toCounts(measured.event.values.length ?? 0, scale), seq: measured.seq, atMs: measured.atMs }
      : null;
    return { contact, terms: measured ? [] : [{ id: "noContact", mm: 0, seq: lastSet.seq }], leftMm: closureMm };
  }
  if (!touch) {
    const contact = { counts: anyTouch.machineZ, seq: anyTouch.seq, atMs: anyTouch.atMs };
    const isLone = anyTouch.on === "table" && !trace.touches.some(({ on, holds }) => on === "stock" && holds !== null);
    return isLone
      ? { contact, terms: [{ id: "liftMissing", mm: closureMm, seq: anyTouch.seq }], leftMm: 0 }
      : { contact, terms: [], leftMm: closureMm };
  }
  return fromPartTouch(trace, tool, touch, closureMm);
}

/** A touch on the part's own skin: paper, feeler, block and facing allowance lie between it and the datum. */
function fromPartTouch(trace: MillTrace, tool: number, touch: SurfaceTouch, closureMm: number): Evidence {
  const { final } = trace;
  const { setup, scale } = final;
  const relevant = registersOf(tool, workOffsetOf(setup, tool));
  const changes = trace.changes.filter(({ event }) => relevant.has(event.register));
  const lastSet = changes.at(-1);
  const capture = changes.findLast(({ event, seq }) => event.how === "captured" && seq > touch.seq);
  const isFelt = capture?.before.paper != null && capture.before.paper.feel !== "slides";
  // captured with the paper still held: the reading is where the machine stood then
  const readCounts = capture && isFelt ? capture.event.machine.z : touch.machineZ;
  const wanted = readCounts - toCounts(touch.thicknessMm, scale) - toCounts(setup.facingAllowanceMm, scale);
  const held = zSumCounts(trace, tool);
  const strayCounts = capture && !isFelt && !isTouching(capture.before) ? capture.event.machine.z - touch.machineZ : 0;
  const seq = lastSet?.seq ?? touch.seq;
  const procedure = procedureTerms({
    held,
    wanted,
    stray: { counts: strayCounts, id: "capturedAfterLeaving", seq: capture?.seq ?? seq },
    candidates: touchSignatures(trace, touch, scale),
    isTyped: lastSet?.event.how === "typed",
    seq,
    mmOf: (counts) => toMm(counts, scale),
  });
  const terms = [...procedure, ...atTouch(trace, tool, touch, readCounts, capture?.before.paper?.feel)];
  return {
    contact: { counts: readCounts, seq: touch.seq, atMs: touch.atMs },
    terms,
    leftMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0),
  };
}

/** Signatures that a touch can have: what stood in the gap counts by its own thickness. */
function touchSignatures({ final }: MillTrace, { by, thicknessMm }: SurfaceTouch, scale: Scale): NamedCounts[] {
  const isSheet = by === "paper" || by === "feeler";
  const gap: NamedCounts[] =
    thicknessMm === 0
      ? []
      : [
          { id: isSheet ? "paperForgotten" : "blockForgotten", counts: toCounts(thicknessMm, scale) },
          { id: isSheet ? "paperWrongWay" : "blockWrongWay", counts: toCounts(2 * thicknessMm, scale) },
        ];
  const other = lengthSignatures(final.setup)
    .filter(({ id }) => !/^(paper|block)/.test(id))
    .map(({ id, predictedMm }) => ({ id, counts: toCounts(predictedMm, scale) }));
  return [...gap, ...other];
}

/** What was wrong with the touch itself: pinched paper, a coarse click, dirt, a tool that changed since. */
function atTouch(
  trace: MillTrace,
  tool: number,
  touch: SurfaceTouch,
  readCounts: number,
  feelAtCapture: string | undefined,
): ProvenTerm[] {
  const { final } = trace;
  const {
    setup,
    truth,
    scale,
    harm: { shorterMm },
  } = final;
  const shorterSinceMm = shortened(trace, tool, touch.seq);
  const lengthThenMm =
    (truth.lengthsMm[toolName(tool)] ?? 0) - ((shorterMm[toolName(tool)] ?? 0) - shorterSinceMm) + touch.seatMm;
  const contactErrorMm =
    toMm(readCounts, scale) - touch.thicknessMm - (truth.datumMm.z + lengthThenMm + setup.facingAllowanceMm);
  const isPinched = feelAtCapture === "pinched" || (feelAtCapture === undefined && touch.feel === "pinched");
  const contact: ProvenTerm[] =
    isPinched && Math.abs(contactErrorMm) >= WORTH_NAMING_MM
      ? [{ id: "paperPinched", mm: contactErrorMm, seq: touch.seq }]
      : touch.clickMm > 0.003 && Math.abs(contactErrorMm) > 3 * WORTH_NAMING_MM
        ? [{ id: "coarseClick", mm: contactErrorMm, seq: touch.seq }]
        : [];
  const physical = physicalTerms(trace, tool).filter(({ id }) => id === "taperDirt");
  return [
    ...contact,
    ...physical,
    ...(shorterSinceMm > 0 ? [{ id: "changedSinceTouch" as const, mm: shorterSinceMm, seq: touch.seq }] : []),
  ];
}
