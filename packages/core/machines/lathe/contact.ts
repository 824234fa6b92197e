import { toMm } from "../../units";
import { type TurningLane } from "./lane";
import type { HeldFace } from "./faces";
import { type TurretTool } from "../../exercises/setup";
import { carve, endAt, material, stepAt, type Outline, type Step } from "./outline";
import { coneGapMm } from "./acts/cone/cone";
import { type AxisCounts } from "../../registers/mill";
import { drawNormal } from "../../random";
import { CHUCK_MM } from "./chuckBody";

/** Where the blank stands furthest off the axis when the chuck has not been turned, degrees. */
const HIGH_AT_DEG = 25;

/** How much of the part a touch on the diameter feels, mm along the axis. */
const FELT_MM = 1;

/** The face is taken this far outside the middle or the bore, mm. */
const NEAR_MIDDLE_MM = 0.5;

/** A tool that goes back over what it has just cut rubs by what it had sprung away, mm. */
const RUBS_MM = 0.004;

export interface Tip {
  readonly radiusMm: number;
  readonly zMm: number;
}

export function toolAt(state: TurningLane, station = state.lathe.station): TurretTool {
  const tool = state.setup.lathe.tools.find(({ number }) => number === station);
  if (!tool) throw new Error(`toolAt: no tool in station ${station}`);
  return tool;
}

/** How far the tip of a tool stands above the axis by itself, shims and clamp counted, mm. */
export const ownHeightMm = (state: TurningLane, tool: number): number =>
  (state.truth.lathe.tools[tool]?.heightMm ?? 0) + (state.lathe.shimsMm[tool] ?? 0) + (state.lathe.raisedMm[tool] ?? 0);

const heightRegisterMm = ({ registers, scale }: TurningLane, tool: number): number =>
  toMm(registers.turret?.y[tool] ?? 0, scale);

/**
 * How far the tip of a tool stands above the axis now, mm: a slide's height register lifts it only while its row is
 * called.
 */
export const heightNowMm = (state: TurningLane, tool: number): number =>
  ownHeightMm(state, tool) + (state.lathe.row === tool ? heightRegisterMm(state, tool) : 0);

/** How far it would stand above the axis with its row called, mm: what is marked. */
export const calledHeightMm = (state: TurningLane, tool: number): number =>
  ownHeightMm(state, tool) + heightRegisterMm(state, tool);

/** Machine X at which a tip lies on the axis now: a tool on a gang slide may have been changed or slid in its clamp. */
export const kxNowMm = (state: TurningLane, tool: number): number =>
  (state.truth.lathe.tools[tool]?.kxMm ?? 0) + (state.lathe.movedMm[tool] ?? 0);

/** How far along Z the tip of a tool reaches now, mm: another insert sits a little elsewhere in the same holder. */
export const reachNowMm = (state: TurningLane, tool: number): number =>
  (state.truth.lathe.tools[tool]?.qMm ?? 0) + (state.lathe.insertZMm[tool] ?? 0);

/**
 * Where the tip of the tool in the working position truly stands: radius from the axis, and Z in the slide's frame, mm.
 */
export function tipAt(state: TurningLane, position = state.position): Tip {
  const { station } = state.lathe;
  return {
    radiusMm: (toMm(position.x, state.scale) - kxNowMm(state, station)) / 2,
    zMm: toMm(position.z, state.scale) - reachNowMm(state, station),
  };
}

/** The blank's own radius toward an angle from the tool, as it came from the saw, mm. */
function rawRadiusMm({ truth }: TurningLane, deg: number): number {
  const { diameterMm = 0, runoutMm = 0, ovalMm = 0 } = truth.lathe.stock ?? {};
  const angle = ((deg - HIGH_AT_DEG) * Math.PI) / 180;
  return diameterMm / 2 + runoutMm * Math.cos(angle) + (ovalMm / 2) * Math.cos(2 * angle);
}

/** A radius cut, where the blank reaches that far toward this angle; less where it has not cleaned up. */
const surfaceMm = (state: TurningLane, step: Step, deg: number): number =>
  Math.min(step.cut === 0 ? Infinity : step.radiusMm, rawRadiusMm(state, deg));

/** Largest radius at which a cut cleans the blank up all round, mm. */
export const cleanRadiusMm = ({ truth }: TurningLane): number =>
  truth.lathe ? truth.lathe.stock.diameterMm / 2 - truth.lathe.stock.runoutMm - truth.lathe.stock.ovalMm / 2 : 0;

/** Two-point reading across a stretch at the angle at which the chuck stands, mm. */
export function acrossMm(state: TurningLane, step: Step, quarter: number): number {
  return surfaceMm(state, step, quarter * 90) + surfaceMm(state, step, quarter * 90 + 180);
}

/**
 * The part's face near the middle, mm in the slide's frame: the datum of Z is where it has been cut. Null without a
 * lathe.
 */
export function faceMm({ lathe, truth }: TurningLane): number | null {
  return lathe ? endAt(lathe.outer, lathe.bore, (truth.lathe.stock.boreMm ?? 0) / 2 + NEAR_MIDDLE_MM) : null;
}

export const isInside = ({ kind }: TurretTool): boolean => kind === "boring";

const widthOf = ({ bladeMm }: TurretTool): number => bladeMm ?? Infinity;

/**
 * The outline as it faces the tool: standing still at the angle at which the chuck was left, turning at its highest.
 */
const facing = (state: TurningLane, outline: Outline): Outline =>
  state.spindle.isOn
    ? outline
    : outline.map((step) => ({
        ...step,
        radiusMm: step.radiusMm === 0 ? 0 : surfaceMm(state, step, state.lathe.quarter * 90),
      }));

/** An edge that leans under a square reaches before its nose only where so much of it stands over the face, mm. */
const LEANING_MM = 1.5;

const reachBeforeMm = (state: TurningLane): number => state.truth.lathe.tools[state.lathe.station]?.reachMm ?? 0;

function isOverFace(state: TurningLane, radiusMm: number): boolean {
  const { outer, bore } = state.lathe;
  return Math.max(0, ...material(outer, bore).map((step) => step.radiusMm)) > radiusMm + LEANING_MM;
}

/** A point of 60° widens to its side by this much of radius for each millimetre along Z. */
const FLANK = Math.tan(Math.PI / 3);

/**
 * How far behind its side, which its Z is set by, a threading tool meets a stretch that stands so far over its point,
 * mm along Z: with its side where that stands over it, with its flank at the rim, and with the point itself.
 */
const trailsMm = ({ sideMm = 0 }: TurretTool, overlapMm: number): number =>
  Math.max(0, sideMm - Math.max(0, overlapMm) / FLANK);

/**
 * How far the nose of the tool here stands before the cone, mm along its normal; null where there is none beside it.
 */
export function coneRoomMm(state: TurningLane, position = state.position): number | null {
  const { cone } = state.lathe;
  const sheet = state.setup.lathe.cone;
  return cone && sheet ? coneGapMm(sheet, cone.offMm, faceMm(state) ?? 0, toolAt(state), tipAt(state, position)) : null;
}

/**
 * Daylight between tip and a face of the part, mm; negative when it is in it; null when the part has no such face
 * there.
 */
export function gapMm(state: TurningLane, on: HeldFace, position = state.position): number | null {
  const { outer, bore } = state.lathe;
  const { radiusMm, zMm } = tipAt(state, position);
  const tool = toolAt(state);
  if (on === "face" && tool.sideMm !== undefined) {
    const ends = facing(state, material(outer, bore)).filter((step) => step.radiusMm > radiusMm);
    return ends.length === 0
      ? null
      : Math.min(...ends.map((step) => zMm + trailsMm(tool, step.radiusMm - radiusMm) - step.toMm));
  }
  if (on === "face") {
    const end = endAt(facing(state, outer), bore, Math.max(0, radiusMm) + (tool.kind === "drill" ? 0 : 0.01));
    return end === null ? null : zMm - (isOverFace(state, radiusMm) ? reachBeforeMm(state) : 0) - end;
  }
  if (on === "bore") {
    const hole = stepAt(bore, zMm + 0.01);
    return hole && hole.radiusMm > 0 ? hole.radiusMm - radiusMm : null;
  }
  const reach = Math.min(FELT_MM, widthOf(tool));
  // a point trails the side that its Z is set by
  const pointMm = zMm + (tool.sideMm ?? 0);
  const under = facing(state, outer).filter(
    (step) => step.radiusMm > 0 && step.fromMm < pointMm + reach && step.toMm > pointMm,
  );
  return under.length === 0 ? null : radiusMm - Math.max(...under.map((step) => step.radiusMm));
}

/** How far the tool has come into the part, mm; 0 when it has not, or only rubs where it has just cut. */
export function depthMm(state: TurningLane, position = state.position): number {
  const depth = depthAt(state, position);
  return depth > RUBS_MM ? depth : 0;
}

function depthAt(state: TurningLane, position: AxisCounts): number {
  const { outer, bore } = state.lathe;
  const { radiusMm, zMm: noseMm } = tipAt(state, position);
  const tool = toolAt(state);
  const zMm = noseMm - (isOverFace(state, radiusMm) ? reachBeforeMm(state) : 0);
  if (tool.kind === "drill") {
    const end = endAt(outer, bore, 0);
    return end === null || Math.abs(radiusMm) > 1 ? 0 : Math.max(0, end - zMm);
  }
  const met = (step: Step, by: number) => {
    const edgeMm = zMm + trailsMm(tool, by);
    return step.fromMm < edgeMm + widthOf(tool) && step.toMm > edgeMm ? Math.min(by, step.toMm - edgeMm) : 0;
  };
  if (isInside(tool)) return Math.max(0, ...bore.map((step) => met(step, radiusMm - step.radiusMm)));
  const reachMm = Math.hypot(Math.max(0, radiusMm), heightNowMm(state, tool.number));
  const along = facing(state, outer).filter(({ isCone }) => isCone !== true);
  return Math.max(
    0,
    -(coneRoomMm(state, position) ?? 0),
    ...along.map((step) => (step.radiusMm > reachMm ? met(step, step.radiusMm - reachMm) : 0)),
  );
}

/** Deepest cut that an insert takes, mm. */
export const DEEPEST_MM = 3;

/** What stands before the edge of a tool, along each way, mm: from the tip to the end of it, and to its outside. */
interface Bite {
  readonly axialMm: number;
  readonly radialMm: number;
}

/** Every stretch that the edge is in, and how far in each way. */
function bites(state: TurningLane): Bite[] {
  const { outer, bore } = state.lathe;
  const { radiusMm, zMm } = tipAt(state);
  const tool = toolAt(state);
  const into = (step: Step, radialMm: number): Bite => ({
    axialMm: step.toMm - zMm - trailsMm(tool, radialMm),
    radialMm,
  });
  const isIn = ({ axialMm, radialMm }: Bite) => axialMm > 0 && radialMm > 0;
  if (isInside(tool)) return bore.map((step) => into(step, radiusMm - step.radiusMm)).filter(isIn);
  // off center it passes the axis at its own height
  const reachMm = Math.hypot(Math.max(0, radiusMm), heightNowMm(state, tool.number));
  return facing(state, material(outer, bore))
    .map((step) => into(step, step.radiusMm - reachMm))
    .filter(isIn);
}

/**
 * How thick a chip the edge takes, mm: what lies across it, whichever way it came. A hundredth taken off the outside is
 * a scratch, however far behind the face. A blade is made to plunge.
 */
export function depthOfCutMm(state: TurningLane): number {
  if (toolAt(state).bladeMm !== undefined) return 0;
  return Math.max(0, ...bites(state).map(({ axialMm, radialMm }) => Math.min(axialMm, radialMm)));
}

/** No deeper than this at a click is a scratch that tells where the surface is, mm. */
const SCRATCH_MM = 0.03;

/**
 * Whether an edge that came along an axis only scratches the face that it came to: the outside, or the end of the part.
 */
export function isScratch(state: TurningLane, axis: "x" | "z"): boolean {
  const met = bites(state);
  const across = met.map(({ axialMm, radialMm }) => (axis === "x" ? radialMm : axialMm));
  const beside = met.map(({ axialMm, radialMm }) => (axis === "x" ? axialMm : radialMm));
  return (
    met.length > 0 &&
    toolAt(state).kind !== "drill" &&
    Math.max(...across) <= SCRATCH_MM &&
    Math.max(...across) < Math.max(...beside)
  );
}

/** An edge that is sent in so far behind the face cuts a groove as wide as its nose, and no face, mm. */
const GROOVE_MM = 0.4;
const isPlunge = (state: TurningLane, axis: "x" | "z"): boolean =>
  axis === "x" && Math.max(0, ...bites(state).map(({ axialMm }) => axialMm)) > DEEPEST_MM;

/** What a cut leaves: the tool springs away a little, and never twice the same. Radius and face, mm. */
export function cutHere(
  state: TurningLane,
  axis: "x" | "z",
): { kind: "outer" | "bore"; fromMm: number; toMm: number; radiusMm: number } {
  const { radiusMm, zMm: ownMm } = tipAt(state);
  const tool = toolAt(state);
  const zMm = ownMm + (tool.sideMm ?? 0);
  // one pass is one cut, however many turns of the wheel it takes: the draw hangs on where the other axis stands
  const { x, z } = state.position;
  const keys = axis === "x" ? ["along X", z] : ["along Z", x];
  const spring = drawNormal(0.0015, 0.0006, state.truth.seed, "cut", "spring", tool.number, ...keys);
  const axial = drawNormal(0, 0.001, state.truth.seed, "cut", "face", tool.number, ...keys);
  const kind = isInside(tool) ? "bore" : "outer";
  const round = (mm: number) => Math.round(mm * 1e5) / 1e5;
  // off center a tool passes the axis at its own height: what it cuts is that much larger, most of all near the middle
  const height = Math.abs(heightNowMm(state, tool.number));
  const cut = Math.hypot(Math.max(0, radiusMm), height) + (kind === "outer" ? spring : -spring);
  return {
    kind,
    fromMm: round(zMm + axial),
    toMm: round(zMm + Math.min(widthOf(tool), isPlunge(state, axis) ? GROOVE_MM : 2000)),
    radiusMm: radiusMm <= 0 ? round(height) : round(cut),
  };
}

const PIP_SEEN_MM = 0.05;

/** What a facing cut past the middle leaves: below center a pip stands, above it is rubbed. */
export function pipHere(
  state: TurningLane,
  axis: "x" | "z",
): { diameterMm: number; looks: "none" | "standing" | "rubbed" } | null {
  const { radiusMm } = tipAt(state);
  const tool = toolAt(state);
  if (
    axis !== "x" ||
    radiusMm > 0 ||
    isInside(tool) ||
    tool.kind === "drill" ||
    (state.truth.lathe.stock.boreMm ?? 0) > 0
  )
    return null;
  const height = heightNowMm(state, tool.number);
  const diameterMm = Math.round(2 * Math.abs(height) * 1e4) / 1e4;
  return { diameterMm, looks: diameterMm < PIP_SEEN_MM ? "none" : height < 0 ? "standing" : "rubbed" };
}

/** Whether a cut from here would take anything off. */
export function wouldCut(state: TurningLane, axis: "x" | "z"): boolean {
  const { kind, fromMm, toMm, radiusMm } = cutHere(state, axis);
  const outline = state.lathe[kind];
  return carve(outline, kind, fromMm, toMm, radiusMm, 1) !== outline && depthMm(state) > 0;
}

/** So near before the jaws a tip is stopped by them, mm. */
const BEFORE_JAWS_MM = 1;
/** Steps along a move are no longer than this, so that what only stands beside a part of it is not jumped over, mm. */
const NEAR_ENOUGH_MM = 0.5;

/** The tip has come to the jaws of the chuck. */
export const isInJaws = (state: TurningLane, position = state.position): boolean => jawRoomMm(state, position) < 0;

/** A box in the half section that something must stay out of: radius below `radiusMm`, Z between two places, mm. */
interface Keep {
  readonly radiusMm: number;
  readonly fromMm: number;
  readonly toMm: number;
}

/** How far an edge that lies from `zMm` on, `wideMm` wide, at a radius and further out, stands clear of a box, mm. */
function clearOf(
  { radiusMm, fromMm, toMm: end }: Keep,
  edge: { radiusMm: number; zMm: number; wideMm: number },
): number {
  const dz = Math.max(edge.zMm - end, fromMm - (edge.zMm + edge.wideMm));
  const dr = edge.radiusMm - radiusMm;
  return dz > 0 && dr > 0 ? Math.hypot(dz, dr) : Math.max(dz, dr);
}

/** How far jaws and body of the chuck stand from the tip, mm; below zero it is in them. */
export function jawRoomMm(state: TurningLane, position: AxisCounts): number {
  const { jawMm, stock } = state.truth.lathe;
  const { radiusMm, zMm } = tipAt(state, position);
  const beside = -stock.diameterMm / 2 - radiusMm;
  const clearOfRing = (overMm: number, frontMm: number): number =>
    Math.max(zMm - frontMm, radiusMm - (stock.diameterMm / 2 + overMm), beside);
  const jaws = clearOfRing(CHUCK_MM.jaws, jawMm + BEFORE_JAWS_MM);
  // the bar of a gang lathe is held by a collet, which has no broad body
  return state.kind === "gang" ? jaws : Math.min(jaws, clearOfRing(CHUCK_MM.body, jawMm - CHUCK_MM.bodyBehind));
}

/** Further than this from all of the part, a step is as long as what is left beyond it, mm. */
const FAR_MM = 4;

/**
 * How far the tip at least stands clear of everything that is held, mm: of the cylinder that it all lies in. For a bar,
 * which works inside of it, only what it stands before the end.
 */
function clearOfPartMm(state: TurningLane, tool: TurretTool, { radiusMm, zMm }: Tip): number {
  let endMm = -Infinity;
  let widestMm = 0;
  for (const step of state.lathe.outer) {
    if (step.radiusMm <= 0) continue;
    endMm = Math.max(endMm, step.toMm);
    widestMm = Math.max(widestMm, step.radiusMm);
  }
  const beforeMm = zMm - reachBeforeMm(state) - endMm;
  return isInside(tool) ? beforeMm : Math.max(beforeMm, radiusMm - widestMm);
}

/**
 * How far metal that must not be met stands from the tip, mm; below zero it is in it. All of it where nothing is cut;
 * where the tool cuts along an axis, only what it would take off deeper than an insert can.
 */
export function metalRoomMm(
  state: TurningLane,
  position: AxisCounts,
  cut: { along: "x" | "z"; deepestMm: number } | null,
): number {
  const { outer, bore } = state.lathe;
  const tip = tipAt(state, position);
  const { radiusMm, zMm: noseMm } = tip;
  const tool = toolAt(state);
  const clearMm = clearOfPartMm(state, tool, tip) - FAR_MM;
  if (clearMm > NEAR_ENOUGH_MM) return clearMm;
  const zMm = noseMm - (isOverFace(state, radiusMm) ? reachBeforeMm(state) : 0);
  if (tool.kind === "drill") {
    const end = endAt(outer, bore, 0);
    return end === null || Math.abs(radiusMm) > 1 || cut ? NEAR_ENOUGH_MM : zMm - end + RUBS_MM;
  }
  const deepest = cut && tool.bladeMm === undefined ? cut.deepestMm : null;
  if (cut && deepest === null) return NEAR_ENOUGH_MM;
  if (isInside(tool)) {
    const walls = bore.map((step) => {
      const dz = Math.max(zMm - step.toMm, step.fromMm - (zMm + widthOf(tool)));
      const dr = step.radiusMm + (deepest ?? 0) - radiusMm;
      return dz > 0 && dr > 0 ? Math.hypot(dz, dr) : Math.max(dz, dr);
    });
    // along X a bar takes what it takes
    return cut?.along === "x" ? NEAR_ENOUGH_MM : Math.min(NEAR_ENOUGH_MM, ...walls) + RUBS_MM;
  }
  const reachMm = Math.hypot(Math.max(0, radiusMm), heightNowMm(state, tool.number));
  const edgeFor = (step: Step) => ({
    radiusMm: reachMm,
    zMm: zMm + trailsMm(tool, step.radiusMm - reachMm),
    wideMm: widthOf(tool),
  });
  const steps = facing(state, cut ? material(outer, bore) : outer).filter(
    (step) => cut !== null || step.isCone !== true,
  );
  const rooms = steps
    .filter((step) => step.radiusMm > 0)
    .map((step) =>
      clearOf(
        {
          radiusMm: step.radiusMm - (cut?.deepestMm ?? 0),
          fromMm: cut ? -Infinity : step.fromMm,
          toMm: step.toMm - (cut?.deepestMm ?? 0),
        },
        edgeFor(step),
      ),
    );
  const cone = cut ? null : coneRoomMm(state, position);
  return Math.min(NEAR_ENOUGH_MM, cone ?? NEAR_ENOUGH_MM, ...rooms) + RUBS_MM;
}
