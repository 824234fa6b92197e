import type { LatheControl, TurretTool } from "../../exercises";
import { drawNormal } from "../../random";
import type { AxisCounts } from "../../registers";
import { toMm } from "../../units";
import type { LaneState } from "../state";
import { carve, endAt, material, stepAt, type Outline, type Step } from "./outline";
import { coneGapMm } from "./cone";
import type { HeldFace, LatheState } from "./state";

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

export const latheOf = (state: LaneState): LatheState => {
  if (!state.lathe) throw new Error("latheOf: this lane is not on a lathe");
  return state.lathe;
};
/** What carries the tools of this lane's lathe. */
export const controlOf = ({ setup }: Pick<LaneState, "setup">): LatheControl => setup.lathe?.control ?? "turret";
export const truthOf = ({ truth }: LaneState) => {
  if (!truth.lathe) throw new Error("truthOf: this lane is not on a lathe");
  return truth.lathe;
};

export function toolAt(state: LaneState, station = latheOf(state).station): TurretTool {
  const tool = state.setup.lathe?.tools.find(({ number }) => number === station);
  if (!tool) throw new Error(`toolAt: no tool in station ${station}`);
  return tool;
}

/** How far the tip of a tool stands above the axis by itself, shims and clamp counted, mm. */
const ownHeightMm = (state: LaneState, tool: number): number =>
  (truthOf(state).tools[tool]?.heightMm ?? 0) +
  (latheOf(state).shimsMm[tool] ?? 0) +
  (latheOf(state).raisedMm[tool] ?? 0);
const heightRegisterMm = ({ registers, scale }: LaneState, tool: number): number =>
  toMm(registers.turret?.y[tool] ?? 0, scale);
/**
 * How far the tip of a tool stands above the axis now, mm: a slide's height register lifts it only while its row is
 * called.
 */
export const heightNowMm = (state: LaneState, tool: number): number =>
  ownHeightMm(state, tool) + (latheOf(state).row === tool ? heightRegisterMm(state, tool) : 0);
/** How far it would stand above the axis with its row called, mm: what is marked. */
export const calledHeightMm = (state: LaneState, tool: number): number =>
  ownHeightMm(state, tool) + heightRegisterMm(state, tool);

/** Machine X at which a tip lies on the axis now: a tool on a gang slide may have been changed or slid in its clamp. */
export const kxNowMm = (state: LaneState, tool: number): number =>
  (truthOf(state).tools[tool]?.kxMm ?? 0) + (latheOf(state).movedMm[tool] ?? 0);

/**
 * Where the tip of the tool in the working position truly stands: radius from the axis, and Z in the slide's frame, mm.
 */
export function tipAt(state: LaneState, position = state.position): Tip {
  const { station } = latheOf(state);
  const { qMm } = truthOf(state).tools[station] ?? { qMm: 0 };
  return {
    radiusMm: (toMm(position.x, state.scale) - kxNowMm(state, station)) / 2,
    zMm: toMm(position.z, state.scale) - qMm,
  };
}

/** The blank's own radius toward an angle from the tool, as it came from the saw, mm. */
function rawRadiusMm({ truth }: LaneState, deg: number): number {
  const { diameterMm = 0, runoutMm = 0, ovalMm = 0 } = truth.lathe?.stock ?? {};
  const angle = ((deg - HIGH_AT_DEG) * Math.PI) / 180;
  return diameterMm / 2 + runoutMm * Math.cos(angle) + (ovalMm / 2) * Math.cos(2 * angle);
}

/** A radius cut, where the blank reaches that far toward this angle; less where it has not cleaned up. */
const surfaceMm = (state: LaneState, step: Step, deg: number): number =>
  Math.min(step.cut === 0 ? Infinity : step.radiusMm, rawRadiusMm(state, deg));

/** Largest radius at which a cut cleans the blank up all round, mm. */
export const cleanRadiusMm = ({ truth }: LaneState): number =>
  truth.lathe ? truth.lathe.stock.diameterMm / 2 - truth.lathe.stock.runoutMm - truth.lathe.stock.ovalMm / 2 : 0;

/** Two-point reading across a stretch at the angle at which the chuck stands, mm. */
export function acrossMm(state: LaneState, step: Step, quarter: number): number {
  return surfaceMm(state, step, quarter * 90) + surfaceMm(state, step, quarter * 90 + 180);
}

/**
 * The part's face near the middle, mm in the slide's frame: the datum of Z is where it has been cut. Null without a
 * lathe.
 */
export function faceMm({ lathe, truth }: LaneState): number | null {
  return lathe ? endAt(lathe.outer, lathe.bore, (truth.lathe?.stock.boreMm ?? 0) / 2 + NEAR_MIDDLE_MM) : null;
}

const isInside = ({ kind }: TurretTool): boolean => kind === "boring";
const widthOf = ({ bladeMm }: TurretTool): number => bladeMm ?? Infinity;

/**
 * The outline as it faces the tool: standing still at the angle at which the chuck was left, turning at its highest.
 */
const facing = (state: LaneState, outline: Outline): Outline =>
  state.spindle.isOn
    ? outline
    : outline.map((step) => ({
        ...step,
        radiusMm: step.radiusMm === 0 ? 0 : surfaceMm(state, step, latheOf(state).quarter * 90),
      }));

/** An edge that leans under a square reaches before its nose only where so much of it stands over the face, mm. */
const LEANING_MM = 1.5;
const reachBeforeMm = (state: LaneState): number => truthOf(state).tools[latheOf(state).station]?.reachMm ?? 0;
function isOverFace(state: LaneState, radiusMm: number): boolean {
  const { outer, bore } = latheOf(state);
  return Math.max(0, ...material(outer, bore).map((step) => step.radiusMm)) > radiusMm + LEANING_MM;
}

/**
 * How far the nose of the tool here stands before the cone, mm along its normal; null where there is none beside it.
 */
export function coneRoomMm(state: LaneState, position = state.position): number | null {
  const { cone } = latheOf(state);
  const sheet = state.setup.lathe?.cone;
  return cone && sheet ? coneGapMm(sheet, cone.offMm, faceMm(state) ?? 0, toolAt(state), tipAt(state, position)) : null;
}

/**
 * Daylight between tip and a face of the part, mm; negative when it is in it; null when the part has no such face
 * there.
 */
export function gapMm(state: LaneState, on: HeldFace, position = state.position): number | null {
  const { outer, bore } = latheOf(state);
  const { radiusMm, zMm } = tipAt(state, position);
  const tool = toolAt(state);
  if (on === "face") {
    const end = endAt(facing(state, outer), bore, Math.max(0, radiusMm) + (tool.kind === "drill" ? 0 : 0.01));
    return end === null ? null : zMm - (isOverFace(state, radiusMm) ? reachBeforeMm(state) : 0) - end;
  }
  if (on === "bore") {
    const hole = stepAt(bore, zMm + 0.01);
    return hole && hole.radiusMm > 0 ? hole.radiusMm - radiusMm : null;
  }
  const reach = Math.min(FELT_MM, widthOf(tool));
  const under = facing(state, outer).filter(
    (step) => step.radiusMm > 0 && step.fromMm < zMm + reach && step.toMm > zMm,
  );
  return under.length === 0 ? null : radiusMm - Math.max(...under.map((step) => step.radiusMm));
}

/** How far the tool has come into the part, mm; 0 when it has not, or only rubs where it has just cut. */
export function depthMm(state: LaneState, position = state.position): number {
  const depth = depthAt(state, position);
  return depth > RUBS_MM ? depth : 0;
}

function depthAt(state: LaneState, position: AxisCounts): number {
  const { outer, bore } = latheOf(state);
  const { radiusMm, zMm: noseMm } = tipAt(state, position);
  const tool = toolAt(state);
  const zMm = noseMm - (isOverFace(state, radiusMm) ? reachBeforeMm(state) : 0);
  if (tool.kind === "drill") {
    const end = endAt(outer, bore, 0);
    return end === null || Math.abs(radiusMm) > 1 ? 0 : Math.max(0, end - zMm);
  }
  const met = (step: Step, by: number) =>
    step.fromMm < zMm + widthOf(tool) && step.toMm > zMm ? Math.min(by, step.toMm - zMm) : 0;
  if (isInside(tool)) return Math.max(0, ...bore.map((step) => met(step, radiusMm - step.radiusMm)));
  const reachMm = Math.hypot(Math.max(0, radiusMm), heightNowMm(state, tool.number));
  const along = facing(state, outer).filter(({ isCone }) => isCone !== true);
  return Math.max(
    0,
    -(coneRoomMm(state, position) ?? 0),
    ...along.map((step) => (step.radiusMm > reachMm ? met(step, step.radiusMm - reachMm) : 0)),
  );
}

/**
 * How much stands before the edge across its way: the face while it moves in X, the radius while it moves along Z, mm.
 * A blade is made to plunge.
 */
export function depthOfCutMm(state: LaneState, axis: "x" | "z"): number {
  const { outer, bore } = latheOf(state);
  const { radiusMm, zMm } = tipAt(state);
  const tool = toolAt(state);
  if (tool.bladeMm !== undefined) return 0;
  if (isInside(tool))
    return axis === "x"
      ? 0
      : Math.max(0, ...bore.filter(({ toMm: end }) => end > zMm).map((step) => radiusMm - step.radiusMm));
  // off center it passes the axis at its own height
  const reachMm = Math.hypot(Math.max(0, radiusMm), heightNowMm(state, tool.number));
  const met = facing(state, material(outer, bore)).filter((step) => step.toMm > zMm && step.radiusMm > reachMm);
  return Math.max(0, ...met.map((step) => (axis === "x" ? step.toMm - zMm : step.radiusMm - reachMm)));
}

/** What a cut leaves: the tool springs away a little, and never twice the same. Radius and face, mm. */
export function cutHere(
  state: LaneState,
  axis: "x" | "z",
): { kind: "outer" | "bore"; fromMm: number; toMm: number; radiusMm: number } {
  const { radiusMm, zMm } = tipAt(state);
  const tool = toolAt(state);
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
    toMm: round(zMm + Math.min(widthOf(tool), 2000)),
    radiusMm: radiusMm <= 0 ? round(height) : round(cut),
  };
}

const PIP_SEEN_MM = 0.05;
/** What a facing cut past the middle leaves: below center a pip stands, above it is rubbed. */
export function pipHere(
  state: LaneState,
  axis: "x" | "z",
): { diameterMm: number; looks: "none" | "standing" | "rubbed" } | null {
  const { radiusMm } = tipAt(state);
  const tool = toolAt(state);
  if (axis !== "x" || radiusMm > 0 || isInside(tool) || tool.kind === "drill" || (truthOf(state).stock.boreMm ?? 0) > 0)
    return null;
  const height = heightNowMm(state, tool.number);
  const diameterMm = Math.round(2 * Math.abs(height) * 1e4) / 1e4;
  return { diameterMm, looks: diameterMm < PIP_SEEN_MM ? "none" : height < 0 ? "standing" : "rubbed" };
}

/** Whether a cut from here would take anything off. */
export function wouldCut(state: LaneState, axis: "x" | "z"): boolean {
  const { kind, fromMm, toMm, radiusMm } = cutHere(state, axis);
  const outline = latheOf(state)[kind];
  return carve(outline, kind, fromMm, toMm, radiusMm, 1) !== outline && depthMm(state) > 0;
}

/** The tip has come to the jaws of the chuck. */
export function isInJaws(state: LaneState, position = state.position): boolean {
  const { jawMm, stock } = truthOf(state);
  const { radiusMm, zMm } = tipAt(state, position);
  return zMm <= jawMm + 1 && radiusMm < stock.diameterMm / 2 + 25 && radiusMm > -stock.diameterMm / 2;
}
