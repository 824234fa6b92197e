import { turretBias, type TurretMethod } from "../../exercises/bias";
import { farEdgeMm } from "../../exercises/machines/lathe";
import type { TurretTool } from "../../exercises/setup";
import { faceMm, kxNowMm, reachNowMm } from "../../machines/lathe/contact";
import { coneTouchZ } from "../../machines/lathe/acts/cone/cone";
import type { TurningLane } from "../../machines/lathe/lane";
import type { TurretContact } from "../../machines/told";
import { turretSum } from "../../registers/turret";
import { toCounts, toMm, type Counts } from "../../units";
import { WORTH_NAMING_MM, type CauseId, type SourceContact, type Term } from "../cause";
import { cameCoarsely, pressedBetween } from "../felt";
import type { Share } from "../figures";
import type { Made, TurningTrace } from "../trace";

export type TurretAxis = "x" | "z";
export type Contact = Made<TurretContact, TurningLane>;

/** Below this an error of a contact with a tool is its method's own, mm: X counts diameters. */
const WORTH_ON_A_LATHE_MM = 0.012;
/** Nothing a method leaves by itself lies further from its mean than this many of its deviations. */
const OWN_WITHIN_U = 4;
/** Readings of one cut taken round the part that a student may have counted with. */
const READINGS = 4;

export const contactPlace = (contact: Contact, axis: TurretAxis): SourceContact => ({
  counts: contact.at[axis],
  seq: contact.seq,
  atMs: contact.atMs,
});
export const outsideOf = ({ on }: Pick<TurretContact, "on">): 1 | -1 => (on === "bore" ? -1 : 1);
/** A cone is met with the bare nose, and is a way of its own. */
export const wayOf = ({ by, on }: TurretContact): TurretMethod => (on === "cone" ? "cone" : by);
export const biasOf = (contact: TurretContact, axis: TurretAxis) =>
  turretBias(wayOf(contact), contact.thicknessMm, axis, outsideOf(contact));

export const toolOf = ({ setup }: TurningLane, number: number): TurretTool => {
  const tool = setup.lathe.tools.find((one) => one.number === number);
  if (!tool) throw new Error(`toolOf: no tool ${number}`);
  return tool;
};

/** C + W + geometry + wear of a tool, counts. */
export const turretSumCounts = ({ registers }: TurningLane, tool: number, axis: TurretAxis): Counts =>
  registers.common[axis] + registers.work.G54[axis] + turretSum(registers.turret, axis, tool);

/** Where a tool's tip lies on the axis, or its set edge on the face as it has been cut, machine frame, mm. */
export function offsetWantedMm(lane: TurningLane, tool: number, axis: TurretAxis): number {
  return axis === "x" ? kxNowMm(lane, tool) : (faceMm(lane) ?? 0) + reachMm(lane, tool) - farEdgeMm(toolOf(lane, tool));
}

export const reachMm = reachNowMm;

/** When a tool was last changed for a new one: what was found before that says nothing of it. */
const changedSeq = ({ log }: TurningTrace, tool: number): number =>
  log.findLast(({ event }) => event.type === "toolChanged" && event.tool === tool)?.seq ?? 0;

/** Contacts of a tool on an axis before a moment, the latest first, each place once. */
export function contactsOf(trace: TurningTrace, tool: number, axis: TurretAxis, before: number): Contact[] {
  const from = changedSeq(trace, tool);
  const found = trace.turret.filter(
    (one) => one.tool === tool && one.axis === axis && one.seq < before && one.seq > from && one.by !== "slid",
  );
  const places = new Set<number>();
  const latest = found.toReversed().filter((one) => {
    if (places.has(one.at[axis])) return false;
    places.add(one.at[axis]);
    return true;
  });
  // a cut that is made deeper leaves the one before it behind
  const cut = latest.findIndex(({ by }) => by === "cut");
  return latest.filter((one, i) => one.by !== "cut" || i === cut).slice(0, 16);
}

/**
 * The diameters that may stand for a contact: of its own band, or of the last that was measured; the likeliest first.
 */
export function measuredFor(trace: TurningTrace, contact: Contact, before: number): { mm: number; seq: number }[] {
  if (contact.by === "indicator") return [{ mm: 0, seq: contact.seq }];
  const what = contact.on === "bore" ? "bored" : "turned";
  const readings = trace.readings.filter(
    ({ event, seq }) => event.what === what && seq < before && (contact.by !== "cut" || seq > contact.seq),
  );
  const last = readings.at(-1);
  if (!last) return [];
  const cutSeq = trace.turret.findLast((one) => one.by === "cut" && one.axis === "x" && one.seq < last.seq)?.seq ?? 0;
  const same = readings.filter(({ seq }) => seq > cutSeq).slice(-READINGS);
  const value = ({ event }: (typeof readings)[number]) => event.values.diameter ?? 0;
  const mean = same.reduce((sum, one) => sum + value(one), 0) / same.length;
  const single = readings.slice(-2 * READINGS).reverse();
  return [{ mm: mean, seq: last.seq }, ...single.map((one) => ({ mm: value(one), seq: one.seq }))].filter(
    (one, i, all) => all.findIndex(({ mm }) => Math.abs(mm - one.mm) < 1e-6) === i,
  );
}

/** What lies between tool and part, as it belongs in a figure: on a diameter twice. */
export function gapShare({ setup, scale }: TurningLane, contact: Contact, axis: TurretAxis): Share[] {
  const counts = (mm: number) => toCounts(mm, scale);
  const t = contact.thicknessMm;
  if (t === 0) return [];
  const isThin = contact.by === "paper" || contact.by === "feeler";
  const term = isThin ? ("paper" as const) : ("block" as const);
  const others = setup.gaps.map(({ nominalMm }) => nominalMm).filter((mm) => mm > 0 && Math.abs(mm - t) > 1e-9);
  if (axis === "x") {
    const s = outsideOf(contact);
    return [
      {
        term,
        counts: counts(-s * 2 * t),
        slips: [
          { id: "feelerForgotten", counts: 0 },
          { id: "feelerOnce", counts: counts(-s * t) },
          { id: "paperWrongWay", counts: counts(s * 2 * t) },
          { id: "paperWrongWay", counts: counts(s * t) },
          ...others.map((mm) => ({ id: "otherGap" as const, counts: counts(-s * 2 * mm) })),
        ],
      },
    ];
  }
  return [
    {
      term,
      counts: counts(-t),
      slips: [
        { id: "gapForgotten", counts: 0 },
        { id: "gapWrongWay", counts: counts(t) },
        { id: "gapTwice", counts: counts(-2 * t) },
        ...others.map((mm) => ({ id: "otherGap" as const, counts: counts(-mm) })),
      ],
    },
  ];
}

/**
 * What a blade adds between the edge that met the face and the edge that finishes the part: met by its near edge, as
 * far as the finishing one stands out beyond it; met by its far edge from behind, what is left of the blade.
 */
export function bladeShare({ scale }: TurningLane, tool: TurretTool, { isFarEdge = false }: Contact): Share[] {
  const w = tool.bladeMm ?? 0;
  if (w === 0) return [];
  const belongs = (isFarEdge ? w : 0) - farEdgeMm(tool);
  const slips = [-w, 0, w].filter((mm) => mm !== belongs);
  return [
    {
      term: "bladeWidth",
      counts: toCounts(belongs, scale),
      slips: slips.map((mm) => ({ id: "otherBladeEdge" as const, counts: toCounts(mm, scale) })),
    },
  ];
}

/** Z of a threading tool is its side’s: whoever counts its point takes off how far that trails. */
export function sideShare({ scale }: TurningLane, { sideMm }: TurretTool, { by, on }: Contact): Share[] {
  if (sideMm === undefined || by === "cut" || on !== "face") return [];
  return [{ term: "other", counts: 0, slips: [{ id: "pointForSide", counts: toCounts(-sideMm, scale) }] }];
}

/** What Z has to read where the nose touches the cone, with X as the tool's row has it, mm. */
export function coneValueMm(lane: TurningLane, tool: TurretTool, contact: Contact): number {
  const cone = lane.setup.lathe.cone;
  const xMm = toMm(contact.at.x - turretSumCounts(lane, tool.number, "x"), lane.scale);
  return cone ? coneTouchZ(cone, tool, xMm) : 0;
}

/** The nose on a cone: the display that belongs there, and what the imaginary tip would make of it. */
export function coneShare(lane: TurningLane, tool: TurretTool, contact: Contact): Share[] {
  if (contact.on !== "cone") return [];
  const counts = (mm: number) => toCounts(mm, lane.scale);
  const value = coneValueMm(lane, tool, contact);
  const bare = coneValueMm(lane, { ...tool, noseRadiusMm: 0 }, contact);
  return [
    {
      term: "other",
      counts: counts(-value),
      slips: [
        { id: "coneNoseLeftOut", counts: counts(-bare) },
        { id: "coneNoseLeftOut", counts: 0 },
      ],
    },
  ];
}

/** What moves an edge in its clamp or its pocket. */
const MOVES = new Set(["toolTightened", "toolLoosened", "toolSlid", "insertChanged"]);

/** Another insert sits elsewhere along Z than the one that touched. */
function reseatedSince(trace: TurningTrace, { tool, before, seq, on }: Contact): Term[] {
  const mm = on === "cone" ? 0 : reachMm(before, tool) - reachMm(trace.final, tool);
  if (Math.abs(mm) < 1e-9) return [];
  const changed = trace.log.find(({ event, seq: at }) => at > seq && event.type === "insertChanged");
  return [{ id: "insertChanged", mm, seq: changed?.seq ?? seq }];
}

/** Moves of a tool in its clamp since a contact, mm of X. */
function shiftedSince(trace: TurningTrace, { tool, before, by, seq }: Contact): Term[] {
  const slid = by === "slid" ? trace.log.find((one) => one.seq === seq)?.event : undefined;
  const then = kxNowMm(before, tool) + (slid?.type === "toolSlid" ? slid.xMm : 0);
  const mm = then - kxNowMm(trace.final, tool);
  if (Math.abs(mm) < 1e-9) return [];
  const moved = trace.log.find(({ event, seq: at }) => at > seq && MOVES.has(event.type));
  const id = moved?.event.type === "insertChanged" ? "insertChanged" : "clampShifted";
  return [{ id, mm, seq: moved?.seq ?? seq }];
}

/**
 * A contact against the part, mm, with the value that belongs there: what is known of its error, and the method's
 * own.
 */
export function turretErrors(
  trace: TurningTrace,
  contact: Contact,
  axis: TurretAxis,
  valueMm: number,
  measuredMm: number,
): { errors: Term[]; ownMm: number } {
  const { final } = trace;
  const errorMm = toMm(contact.at[axis], final.scale) - valueMm - offsetWantedMm(final, contact.tool, axis);
  const known: Term[] =
    axis === "x"
      ? shiftedSince(trace, contact)
      : [...faceCut(trace, contact), ...throughCone(final, contact), ...reseatedSince(trace, contact)];
  const rest = errorMm - known.reduce((sum, { mm }) => sum + mm, 0);
  const { biasMm, uMm } = biasOf(contact, axis);
  if (Math.abs(rest - biasMm) < Math.max(WORTH_ON_A_LATHE_MM, OWN_WITHIN_U * uMm))
    return { errors: known, ownMm: rest };
  const id = wrongWith(final, contact, axis, measuredMm, rest);
  return { errors: [...known, { id, mm: rest, seq: contact.seq }], ownMm: 0 };
}

/** X that is itself off carries into a Z that hangs on a cone. */
function throughCone(lane: TurningLane, contact: Contact): Term[] {
  const { cone } = lane.setup.lathe;
  if (contact.on !== "cone" || !cone) return [];
  const tool = toolOf(lane, contact.tool);
  const trueXMm = toMm(contact.at.x, lane.scale) - kxNowMm(lane, contact.tool);
  const mm = coneTouchZ(cone, tool, trueXMm) - coneValueMm(lane, tool, contact);
  return Math.abs(mm) < WORTH_ON_A_LATHE_MM ? [] : [{ id: "carriedOver", mm, seq: contact.seq, tool: contact.tool }];
}

/** The face as it stood when it was met, less where it stands at the end. */
function faceCut(trace: TurningTrace, { faceMm: then, seq, on }: Contact): Term[] {
  const mm = on === "cone" || then === null ? 0 : then - (faceMm(trace.final) ?? then);
  if (Math.abs(mm) < 1e-9) return [];
  const again = trace.turret.find((one) => one.seq > seq && one.by === "cut" && one.on === "face");
  return [{ id: "faceCutAgain", mm, seq: again?.seq ?? seq }];
}

/** What was wrong with a contact that lies further off than its method does. */
function wrongWith(lane: TurningLane, contact: Contact, axis: TurretAxis, measuredMm: number, restMm: number): CauseId {
  // who meets the face early stands off; what lies beyond the face is something else
  if (contact.on === "face" && restMm > 0 && toolOf(lane, contact.tool).isUnderSquare) return "plateMetEarly";
  if (contact.on === "face" && restMm < 0 && toolOf(lane, contact.tool).sideMm !== undefined) return "flankMet";
  const isOtherBand = Math.abs(measuredMm - 2 * contact.radiusMm) > WORTH_NAMING_MM;
  if (axis === "x" && contact.by === "cut" && (!contact.isClean || isOtherBand)) return "notCleanedUp";
  const felt = pressedBetween(contact) ?? cameCoarsely(contact);
  if (felt) return felt;
  if (axis === "x" && contact.by !== "cut" && contact.by !== "indicator") return "touchedRunout";
  return contact.by === "cut" && axis === "z" && !contact.isClean ? "notCleanedUp" : "contactOff";
}
