import { calledHeightMm } from "../../machines/lathe/contact";
import { toMm } from "../../units";
import type { Provenance, Term } from "../cause";
import { wholeTerm, WORTH_NAMING_MM } from "../cause";
import type { TurningTrace } from "../trace";

/** What is said agrees with what was found when it differs by no more than rounding, mm. */
const AGREE_MM = 0.0021;

const seqOfStated = ({ log }: TurningTrace, what: "axisHeight" | "gaugeError"): number =>
  log.findLast(({ event }) => event.type === "heightStated" && event.what === what)?.seq ?? log.at(-1)?.seq ?? 0;

/** What was said of the axis: the last stack that went, with half of the pin on top of it. */
export function axisHeightProvenance(trace: TurningTrace, closureMm: number): Provenance {
  const { final, log } = trace;
  const truth = final.truth.lathe.axis ?? { heightMm: 0, tailLowMm: 0, gaugeOffMm: 0 };
  const half = (final.setup.lathe.axis?.pinMm ?? 0) / 2;
  const said = final.lathe.stated.axisHeight;
  const seq = seqOfStated(trace, "axisHeight");
  if (said === undefined) return wholeTerm("neverSet", closureMm, seq);
  const stacks = log.flatMap(({ event, seq: at }) =>
    event.type === "stackTried" && event.goes && at < seq
      ? [{ mm: event.blocks.reduce((sum, one) => sum + one, 0), isTail: event.under === "tailstock", seq: at }]
      : [],
  );
  const last = stacks.at(-1);
  if (!last) return { contact: null, terms: [{ id: "noContact", mm: closureMm, seq }], open: null, ownMm: 0 };
  const ways = [
    { id: null, mm: half },
    { id: "halfPinForgotten", mm: 0 },
    { id: "wholePinAdded", mm: 2 * half },
  ] as const;
  const pick = stacks
    .toReversed()
    .flatMap((stack) => ways.map((way) => ({ stack, way })))
    .find(({ stack, way }) => Math.abs(said - stack.mm - way.mm) <= AGREE_MM);
  const stack = pick?.stack ?? last;
  const belongs = stack.mm + half;
  const delta = said - belongs;
  const stated: Term[] =
    Math.abs(delta) <= AGREE_MM
      ? []
      : [{ id: pick?.way.id ?? "otherFigure", mm: delta, seq, figure: { saidMm: said, belongsMm: belongs } }];
  const tail: Term[] = stack.isTail ? [{ id: "tailstockTaken", mm: -truth.tailLowMm, seq: stack.seq }] : [];
  return leaving(closureMm, [...stated, ...tail]);
}

/** What was said of the setting gauge: its reading at the crest, less where the crest is by the axis as it was said. */
export function gaugeErrorProvenance(trace: TurningTrace, closureMm: number): Provenance {
  const { final, readings, log } = trace;
  const truth = final.truth.lathe.axis ?? { heightMm: 0, tailLowMm: 0, gaugeOffMm: 0 };
  const half = (final.setup.lathe.axis?.pinMm ?? 0) / 2;
  const said = final.lathe.stated.gaugeError;
  const seq = seqOfStated(trace, "gaugeError");
  if (said === undefined) return wholeTerm("neverSet", closureMm, seq);
  const axis = final.lathe.stated.axisHeight ?? truth.heightMm;
  const read = readings.filter(({ event, seq: at }) => event.what === "pinCrest" && at < seq);
  const last = read.at(-1);
  if (!last) return { contact: null, terms: [{ id: "noContact", mm: closureMm, seq }], open: null, ownMm: 0 };
  const heightOf = (one: (typeof read)[number]) => one.event.values.height ?? 0;
  const ways = [
    { id: null, mm: half, sign: 1 },
    { id: "halfPinForgotten", mm: 0, sign: 1 },
    { id: "wholePinAdded", mm: 2 * half, sign: 1 },
    { id: "wholeSignTurned", mm: half, sign: -1 },
  ] as const;
  const pick = read
    .toReversed()
    .flatMap((one) => ways.map((way) => ({ one, way })))
    .find(({ one, way }) => Math.abs(said - way.sign * (heightOf(one) - axis - way.mm)) <= AGREE_MM);
  const one = pick?.one ?? last;
  const belongs = heightOf(one) - axis - half;
  const delta = said - belongs;
  const stated: Term[] =
    Math.abs(delta) <= AGREE_MM
      ? []
      : [{ id: pick?.way.id ?? "otherFigure", mm: delta, seq, figure: { saidMm: said, belongsMm: belongs } }];
  // the closure is against what the gauge is off by, from the axis as it was said
  const readOff = heightOf(one) - (truth.heightMm + half + truth.gaugeOffMm);
  const made = log.findLast(({ event, seq: at }) => event.type === "gaugeRead" && at < one.seq)?.event;
  const isRead = made?.type === "gaugeRead" && Math.abs(readOff) >= WORTH_NAMING_MM;
  const cause = isRead ? gaugedWrong(made) : null;
  const wrong: Term[] = cause ? [{ id: cause, mm: readOff, seq: one.seq }] : [];
  return leaving(closureMm, [...stated, ...wrong]);
}

/** What a gauge's own reading was made wrong by, where something was. */
function gaugedWrong(made: { isZeroed: boolean; from: "above" | "below" }): "gaugeNotZeroed" | "gaugeFromAbove" | null {
  if (!made.isZeroed) return "gaugeNotZeroed";
  return made.from === "above" ? "gaugeFromAbove" : null;
}

const leaving = (closureMm: number, terms: readonly Term[]): Provenance => ({
  contact: null,
  terms,
  open: null,
  ownMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0),
});

/** How far a pip read by a caliper may be off by half of it, mm. */
const HALF_PIP_MM = 0.02;

/**
 * Where the height of a tool came from: each time it was raised or lowered, against half of the pip that stood there.
 */
export function heightProvenance(trace: TurningTrace, tool: number, closureMm: number): Provenance {
  const { final, log, changes } = trace;
  const { scale } = final;
  const shims = log.flatMap(({ event, seq }) =>
    event.type === "toolShimmed" && event.tool === tool ? [{ mm: event.byMm, seq }] : [],
  );
  const raised = log.findLast(({ event }) => event.type === "toolRaised" && event.tool === tool);
  if (raised?.event.type === "toolRaised" && raised.seq > (shims.at(-1)?.seq ?? 0))
    return raised.event.from === "above"
      ? leaving(closureMm, [{ id: "gaugeSank", mm: closureMm, seq: raised.seq }])
      : leaving(closureMm, []);
  const typed = changes
    .filter(({ event }) => event.register === `Y${tool}`)
    .map(({ event, seq }) => ({ mm: toMm(event.to - event.from, scale), seq }));
  const steps = final.kind === "gang" ? typed : shims;
  const last = steps.at(-1);
  if (!last) return wholeTerm("neverSet", closureMm, log.at(-1)?.seq ?? 0);
  // where it stood before it was raised the last time
  const beforeMm = calledHeightMm(final, tool) - last.mm;
  const belongs = -beforeMm;
  const delta = last.mm - belongs;
  if (Math.abs(delta) <= HALF_PIP_MM) return leaving(closureMm, []);
  const at = (id: Term["id"]): Provenance =>
    leaving(closureMm, [{ id, mm: delta, seq: last.seq, figure: { saidMm: last.mm, belongsMm: belongs } }]);
  if (Math.abs(last.mm + belongs) <= HALF_PIP_MM) return at("heightWrongWay");
  if (Math.abs(last.mm - 2 * belongs) <= 2 * HALF_PIP_MM) return at("wholePip");
  if (Math.abs(last.mm + 2 * belongs) <= 2 * HALF_PIP_MM) return at("heightWrongWay");
  return at("otherFigure");
}
