import { skewNowDeg } from "../../machines/mill/solids";
import { wholeTerm, type Provenance, type Term } from "../cause";
import type { MillTrace } from "../trace";

/** Angles agree when they differ by no more than their last digit, degrees. */
const AGREE_DEG = 0.0006;
/** A turn so small is none: what a part tapped square may keep, degrees. */
const SQUARE_DEG = 0.02;

/** By how much the far end of the part misses for an angle, mm. */
const missMm = (reachMm: number, deg: number): number => reachMm * Math.sin((deg * Math.PI) / 180);

/** Where the turn that is called came from: the angle that was read, and how it was called. */
export function turnProvenance({ log, final, readings }: MillTrace, closureMm: number): Provenance {
  const reachMm = Math.max(...final.setup.partSizeMm.slice(0, 2));
  const held = final.modal.rotationDeg;
  const called = log.findLast(({ event }) => event.type === "modalChanged" && event.rotationDeg !== undefined);
  const end = log.at(-1)?.seq ?? 0;
  const angles = readings.filter(
    ({ event, seq }) => event.values.angleDeg !== undefined && seq < (called?.seq ?? Infinity),
  );
  const last = angles.at(-1);
  const at = (id: Term["id"], mm: number, seq: number, figure?: Term["figure"]): Provenance => ({
    contact: null,
    terms: [{ id, mm, seq, ...(figure ? { figure } : {}) }],
    open: null,
    ownMm: closureMm - mm,
  });
  const jaw = readings.findLast(({ event }) => event.what === "jaw");
  if (held === 0 && final.setup.tasks.includes("sweepJaw")) return at("jawAskew", closureMm, jaw?.seq ?? end);
  if (held === 0)
    return Math.abs(skewNowDeg(final)) < SQUARE_DEG
      ? wholeTerm("neverSet", closureMm, end)
      : at("turnForgotten", closureMm, end);
  if (!last) return at("noContact", closureMm, called?.seq ?? end);
  const used = angles.findLast(({ event }) => Math.abs((event.values.angleDeg ?? 0) - held) <= AGREE_DEG);
  const moved = log.findLast(
    ({ event, seq }) => seq > (used ?? last).seq && (event.type === "partTapped" || event.type === "taskDone"),
  );
  if (used)
    return moved ? at("partMoved", closureMm, moved.seq) : { contact: null, terms: [], open: null, ownMm: closureMm };
  const read = last.event.values.angleDeg ?? 0;
  const turned = angles.find(({ event }) => Math.abs((event.values.angleDeg ?? 0) + held) <= AGREE_DEG);
  const seq = called?.seq ?? end;
  if (turned) return at("turnSignTurned", missMm(reachMm, held - (turned.event.values.angleDeg ?? 0)), seq);
  return at("otherFigure", missMm(reachMm, held - read), seq, { saidMm: held, belongsMm: read });
}
