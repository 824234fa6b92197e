import type { LatheSheet, TurretTool } from "@probe-lane/core/exercises";
import { readRegister, sweepError, turretSum, type RegisterId } from "@probe-lane/core/registers";
import { scales, toMm } from "@probe-lane/core/units";
import { proveProgram } from "../../proving";
import type { LatheBench } from "../../bench";
import type { Habits } from "../../habits";
import { door, machineMm, moveTo, reachIn, text, wind } from "../../moves";
import { lastReading } from "../../readings";

const RPM = 900;
const NEAR_MM = 2;
const CLEAR_OF_FACE_MM = 44;

export const seenOf = (lane: LatheBench) => lane.seen.lathe;
export const sheetOf = (lane: LatheBench): LatheSheet => lane.seen.sheet.lathe;

/** Machine figures at which the tip would stand, by eye, at a radius and a place before the face. */
export const xAt = (lane: LatheBench, radiusMm: number): number =>
  machineMm(lane, "x") + 2 * (radiusMm - seenOf(lane).tip.radiusMm);
export const zAt = (lane: LatheBench, overFaceMm: number): number =>
  machineMm(lane, "z") + (seenOf(lane).tip.faceMm + overFaceMm - seenOf(lane).tip.zMm);

export function retract(lane: LatheBench): void {
  // nobody winds further by hand than the tool needs
  if (lane.seen.kind === "readout") {
    moveTo(lane, { z: Math.min(0, zAt(lane, CLEAR_OF_FACE_MM)) });
    return;
  }
  moveTo(lane, { z: 0 });
  moveTo(lane, { x: 0 });
}

export function bring(lane: LatheBench, tool: TurretTool): void {
  if (seenOf(lane).arm) {
    reachIn(lane);
    lane.do({ type: "swingArm", isDown: false });
  }
  door(lane, false);
  if (seenOf(lane).station !== tool.number) {
    retract(lane);
    if (lane.seen.kind === "readout") reachIn(lane);
    lane.do({ type: "index", station: tool.number, withOffset: false });
    door(lane, false);
  }
}

export function turning(lane: LatheBench): void {
  door(lane, false);
  if (!lane.seen.spindle.isOn) lane.do({ type: "startSpindle", direction: "forward", rpm: RPM });
}

/** Feeds along one axis by a typed block; the tool cuts what stands in its way. */
function feedTo(lane: LatheBench, at: { x: number } | { z: number }): void {
  if (lane.seen.kind === "readout") {
    if ("x" in at) wind(lane, "x", at.x, "coarse");
    else wind(lane, "z", at.z, "coarse");
    return;
  }
  const [axis, mm] = "x" in at ? ["X", at.x] : ["Z", at.z];
  lane.do({ type: "runBlock", text: `G53 G1 ${axis}${text(lane, mm)} F120` });
}
/** The bar's shape by eye: it tells whether the tool took anything off. */
const shapeOf = (lane: LatheBench): string => {
  const { tip, outer, bore } = seenOf(lane);
  return JSON.stringify([tip.faceMm, outer, bore]);
};

/** Past the middle by a millimetre. */
const acrossFace = (lane: LatheBench): void => feedTo(lane, { x: xAt(lane, -1) });

/** Cuts the face to the middle, a little deeper each time until it is reached; the tool is retracted in X only. */
export function face(lane: LatheBench): void {
  turning(lane);
  moveTo(lane, { z: zAt(lane, 6) });
  moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 3) });
  moveTo(lane, { z: zAt(lane, 0) });
  // a face that was cut before is cut once more: Z stands at it only then
  const before = shapeOf(lane);
  const isFaced = () => seenOf(lane).evidence.isFaced && shapeOf(lane) !== before;
  for (let pass = 0; pass < 8 && !isFaced(); pass++) {
    lane.do({ type: "jog", axis: "z", direction: -1, clicks: 3, size: "coarse" });
    acrossFace(lane);
    if (!isFaced()) moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 3) });
  }
  // retracted in X only: Z still stands at the face
  moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 20) });
}

/** Once more across the face, so much deeper. */
function faceDeeper(lane: LatheBench): void {
  turning(lane);
  moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 3) });
  lane.do({ type: "jog", axis: "z", direction: -1, clicks: 3, size: "coarse" });
  acrossFace(lane);
}

/** Puts shims under the holder: by half of the pip, up where it stands and down where it was rubbed. */
function shim(lane: LatheBench, { pipMm, isStanding }: { pipMm: number; isStanding: boolean }, habits: Habits): void {
  const half = pipMm / (habits.shims === "whole" ? 1 : 2);
  lane.do({ type: "shimTool", text: text(lane, isStanding !== (habits.shims === "wrongWay") ? half : -half) });
}

/** Faces past the middle, looks what is left there, raises by half of it, and faces again until nothing is. */
export function onCenter(
  lane: LatheBench,
  habits: Habits,
  raise: (pip: { pipMm: number; isStanding: boolean }) => void,
): void {
  face(lane);
  for (let turn = 0; turn < 4 && seenOf(lane).pip !== "none"; turn++) {
    const zBefore = machineMm(lane, "z");
    const isStanding = seenOf(lane).pip === "standing";
    retract(lane);
    reachIn(lane);
    lane.do({ type: "measureTurned", what: "pip", by: "caliper" });
    raise({ pipMm: lastReading(lane).values.diameter ?? 0, isStanding });
    if (habits.shims) break;
    turning(lane);
    moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 3) });
    moveTo(lane, { z: zBefore });
    faceDeeper(lane);
  }
  if (lane.seen.spindle.isOn) lane.do({ type: "stopSpindle" });
  retract(lane);
}

/** X of a drill by the indicator on the chuck: the tool is moved by what the sweep says, and swept again. */
function sweepDrill(lane: LatheBench, tool: TurretTool, habits: Habits): void {
  bring(lane, tool);
  moveTo(lane, { z: zAt(lane, 25) });
  moveTo(lane, { x: xAt(lane, 0) });
  const register = `X${tool.number}` as const;
  for (let turn = 0; turn < 6; turn++) {
    reachIn(lane);
    lane.do({ type: "sweep" });
    const { at0, at90, at180, at270 } = lastReading(lane).values;
    const { error } = sweepError([at0 ?? 0, at90 ?? 0, at180 ?? 0, at270 ?? 0], "boss");
    if (Math.abs(error[0]) < 0.0015 || habits.sweepsOnly) break;
    moveTo(lane, { x: machineMm(lane, "x") + 2 * error[0] });
  }
  lane.do({ type: "takeReading", register });
  lane.do({ type: "writeSum", register, text: text(lane, machineMm(lane, "x")) });
  lane.do({ type: "captureRegister", register, asText: "0" });
  retract(lane);
}

/** Skims a band until it has cleaned up; the tool is retracted in Z only, and X stands where it cut. */
export function skim(lane: LatheBench, habits: Habits): void {
  turning(lane);
  moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 3) });
  moveTo(lane, { z: zAt(lane, NEAR_MM) });
  moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm) });
  const isThin = habits.skimsThin === true;
  if (isThin) moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 1) });
  for (let pass = 0; pass < 40; pass++) {
    lane.do({ type: "jog", axis: "x", direction: -1, clicks: isThin ? 1 : 5, size: "coarse" });
    feedTo(lane, { z: zAt(lane, -14) });
    const isCut = seenOf(lane).isCleanedUp !== null;
    if (isThin ? isCut : seenOf(lane).isCleanedUp === true) break;
    moveTo(lane, { z: zAt(lane, NEAR_MM) });
  }
  moveTo(lane, { z: zAt(lane, 40) });
}

/** Two readings, a quarter turn apart; their mean. */
export function measure(lane: LatheBench, what: "turned" | "bored", habits: Habits): number {
  if (habits.measuresWhileTurning) {
    lane.do({ type: "stopSpindle" });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 55 });
    door(lane, true);
  } else reachIn(lane);
  const by = what === "bored" ? "boreGauge" : "micrometer";
  const read = (): number => {
    lane.do({ type: "measureTurned", what, by });
    return lane.seen.isStopped ? 0 : (lastReading(lane).values.diameter ?? 0);
  };
  const first = read();
  if (habits.measuresOnce || lane.seen.isStopped) return first;
  lane.do({ type: "turnChuck" });
  return (first + read()) / 2;
}

/** Writes the working and sets X from where the tool stands: the diameter, and twice what lay in between. */
function setX(
  lane: LatheBench,
  n: number,
  diameterMm: number,
  thicknessMm: number,
  outside: 1 | -1,
  habits: Habits,
): void {
  const register = `X${n}` as const;
  lane.do({ type: "takeReading", register });
  lane.do({ type: "writeTerm", register, term: "diameter", text: text(lane, -diameterMm) });
  const paper = { forgotten: 0, wrongWay: -1, right: 2 }[habits.paper ?? "right"] * thicknessMm;
  const counted = habits.feelerOnce ? thicknessMm : paper;
  if (counted !== 0) lane.do({ type: "writeTerm", register, term: "paper", text: text(lane, -outside * counted) });
  const value = (habits.radiusForX ? diameterMm / 2 : diameterMm) + outside * counted;
  if (habits.movesBeforeX)
    lane.do({ type: "jog", axis: "x", direction: 1, clicks: habits.movesBeforeX, size: "coarse" });
  const baseMm = fromDeclared(lane, register, "x");
  lane.do({ type: "writeSum", register, text: text(lane, machineMm(lane, "x") - value - baseMm) });
  lane.do({ type: "captureRegister", register, asText: text(lane, value) });
}

/** A row beside a declared position holds only the difference: the position is a term of its working. */
function fromDeclared(lane: LatheBench, register: RegisterId, axis: "x" | "z"): number {
  const baseMm = toMm(lane.seen.registers.common[axis], scales[lane.seen.sheet.unit]);
  if (baseMm !== 0) lane.do({ type: "writeTerm", register, term: "other", text: text(lane, -baseMm) });
  return baseMm;
}

export function setZ(lane: LatheBench, n: number, gapMm: number, blade: number, habits: Habits): void {
  const register = `Z${n}` as const;
  lane.do({ type: "takeReading", register });
  const counted = habits.gapForgotten ? 0 : gapMm;
  if (counted !== 0) lane.do({ type: "writeTerm", register, term: termOfGap(lane), text: text(lane, -counted) });
  // the far edge stands one blade further out than the near one, which is what met the face
  const isFar =
    (sheetOf(lane).tools.find(({ number }) => number === n)?.qualified === "far") !== (habits.otherBladeEdge === true);
  // met from behind it was the far edge
  const met = seenOf(lane).gap?.isBehind ? blade : 0;
  const edge = (isFar && blade > 0 ? blade : 0) - met;
  if (edge !== 0) lane.do({ type: "writeTerm", register, term: "bladeWidth", text: text(lane, -edge) });
  const sideMm = sheetOf(lane).tools.find(({ number }) => number === n)?.sideMm ?? 0;
  const side = habits.pointForSide ? sideMm : 0;
  if (side !== 0) lane.do({ type: "writeTerm", register, term: "other", text: text(lane, -side) });
  const value = counted + edge + side;
  const baseMm = fromDeclared(lane, register, "z");
  lane.do({ type: "writeSum", register, text: text(lane, machineMm(lane, "z") - value - baseMm) });
  lane.do({ type: "captureRegister", register, asText: text(lane, value) });
}

const termOfGap = (lane: LatheBench): "paper" | "block" => (seenOf(lane).gap?.id === "paper" ? "paper" : "block");

/** Comes up to paper or a straight edge until it drags: coarse, back, then fine. */
export function closeOn(
  lane: LatheBench,
  axis: "x" | "z",
  id: string,
  on: "face" | "diameter" | "bore",
  toward: 1 | -1 = -1,
  side?: "behind",
): void {
  reachIn(lane);
  lane.do({ type: "placeGap", id, on, ...(side ? { side } : {}) });
  const until = (size: "coarse" | "middle" | "fine") => {
    for (let turn = 0; turn < 60 && seenOf(lane).gap?.feel === "slides"; turn++)
      lane.do({ type: "jog", axis, direction: toward, clicks: size === "fine" ? 20 : 5, size });
  };
  until("middle");
  lane.do({ type: "jog", axis, direction: toward === 1 ? -1 : 1, clicks: 4, size: "middle" });
  until("fine");
}

export function pull(lane: LatheBench, axis: "x" | "z"): void {
  const isBehind = seenOf(lane).gap?.isBehind === true;
  lane.do({ type: "jog", axis, direction: isBehind ? -1 : 1, clicks: 10, size: "coarse" });
  lane.do({ type: "pullGap" });
}

/** Opens the gap at the face until the pin goes; returns what stands in it. */
function pinAtFace(lane: LatheBench, id: string): void {
  if (!lane.seen.areBlocksWiped) {
    reachIn(lane);
    lane.do({ type: "wipeBlocks" });
  }
  const goes = () => {
    if (seenOf(lane).block) lane.do({ type: "pullGap" });
    lane.do({ type: "tryGap", id, on: "face" });
    return seenOf(lane).block !== null;
  };
  reachIn(lane);
  for (const [size, direction] of [
    ["coarse", -1],
    ["middle", 1],
  ] as const) {
    for (let turn = 0; turn < 80 && goes() === (direction === -1); turn++) {
      if (seenOf(lane).block) lane.do({ type: "pullGap" });
      lane.do({ type: "jog", axis: "z", direction, clicks: 1, size });
    }
  }
  if (seenOf(lane).block) lane.do({ type: "pullGap" });
  lane.do({ type: "jog", axis: "z", direction: -1, clicks: 2, size: "middle" });
  for (let turn = 0; turn < 60 && !goes(); turn++)
    lane.do({ type: "jog", axis: "z", direction: 1, clicks: 1, size: "fine" });
}

/** Z of a tool at the face, by what the drawer holds for it: straight edge for a blade, pin, or paper. */
export function touchFace(lane: LatheBench, tool: TurretTool, radiusMm: number): number {
  const { instruments, gaps } = lane.seen.sheet;
  bring(lane, tool);
  moveTo(lane, { z: zAt(lane, 12) });
  moveTo(lane, { x: xAt(lane, radiusMm) });
  const pin = gaps.find(({ kind }) => kind === "pin");
  if (tool.bladeMm && sheetOf(lane).bladeFrom === "behind") {
    moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 6) });
    moveTo(lane, { z: zAt(lane, -tool.bladeMm - 1.5) });
    moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 2) });
    closeOn(lane, "z", "straightEdge", "face", 1, "behind");
    return 0;
  }
  if (tool.bladeMm && instruments.includes("straightEdge")) {
    moveTo(lane, { z: zAt(lane, 1.5) });
    closeOn(lane, "z", "straightEdge", "face");
    return 0;
  }
  if (pin && instruments.includes("pin")) {
    moveTo(lane, { z: zAt(lane, pin.nominalMm + 1) });
    pinAtFace(lane, pin.id);
    return pin.nominalMm;
  }
  // an edge that leans stands out before the nose; a point at the rim meets it later than its side would
  const isAtRim = tool.sideMm !== undefined && radiusMm > 8;
  moveTo(lane, { z: zAt(lane, tool.isUnderSquare ? 3.4 : isAtRim ? 0.6 : 1.5) });
  closeOn(lane, "z", "paper", "face");
  return gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0;
}

export function leaveFace(lane: LatheBench): void {
  if (seenOf(lane).gap) pull(lane, "z");
  if (seenOf(lane).block) lane.do({ type: "pullGap" });
  retract(lane);
}

/** X of a tool on the skimmed and measured diameter, paper in between. */
export function touchDiameter(lane: LatheBench, tool: TurretTool, diameterMm: number, habits: Habits): void {
  bring(lane, tool);
  const { tip } = seenOf(lane);
  moveTo(lane, { x: xAt(lane, tip.partRadiusMm + 4) });
  moveTo(lane, { z: zAt(lane, habits.touchesRaw ? -30 : -8) });
  moveTo(lane, { x: xAt(lane, (habits.touchesRaw ? tip.partRadiusMm : diameterMm / 2) + 1.5) });
  closeOn(lane, "x", "paper", "diameter");
  setX(
    lane,
    tool.number,
    diameterMm,
    lane.seen.sheet.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0,
    1,
    habits,
  );
  pull(lane, "x");
  retract(lane);
}

/** Cut and measure: face, Z, skim, measure, X. Returns the diameter. */
function cutAndMeasure(lane: LatheBench, tool: TurretTool, isZ: boolean, habits: Habits): number {
  bring(lane, tool);
  face(lane);
  if (isZ) {
    if (habits.movesBeforeZ)
      lane.do({ type: "jog", axis: "z", direction: 1, clicks: habits.movesBeforeZ, size: "coarse" });
    setZ(lane, tool.number, 0, 0, habits);
  }
  skim(lane, habits);
  const diameter = measure(lane, "turned", habits);
  if (lane.seen.isStopped) return 0;
  setX(lane, tool.number, diameter, 0, 1, habits);
  retract(lane);
  return diameter;
}

function bore(lane: LatheBench, tool: TurretTool, habits: Habits): void {
  bring(lane, tool);
  turning(lane);
  const holeMm = seenOf(lane).bore[0]?.radiusMm ?? 0;
  moveTo(lane, { z: zAt(lane, NEAR_MM) });
  moveTo(lane, { x: xAt(lane, holeMm - 0.2) });
  for (let pass = 0; pass < 6; pass++) {
    lane.do({ type: "jog", axis: "x", direction: 1, clicks: 5, size: "coarse" });
    const before = shapeOf(lane);
    feedTo(lane, { z: zAt(lane, -13) });
    if (shapeOf(lane) !== before) break;
    moveTo(lane, { z: zAt(lane, NEAR_MM) });
  }
  moveTo(lane, { z: zAt(lane, 40) });
  const diameter = measure(lane, "bored", habits);
  if (habits.boreByPaper) {
    // back into the bore, out toward its wall with paper in between
    door(lane, false);
    moveTo(lane, { x: xAt(lane, diameter / 2 - 1) });
    moveTo(lane, { z: zAt(lane, -6) });
    closeOn(lane, "x", "paper", "bore", 1);
    setX(
      lane,
      tool.number,
      diameter,
      lane.seen.sheet.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0,
      -1,
      habits,
    );
    lane.do({ type: "jog", axis: "x", direction: -1, clicks: 8, size: "coarse" });
    lane.do({ type: "pullGap" });
    moveTo(lane, { z: zAt(lane, 40) });
  } else setX(lane, tool.number, diameter, 0, -1, habits);
  retract(lane);
}

/**
 * Both planes of the arm with one tool: the axis stops by itself, the reading minus the card's plane is the register.
 */
function byArm(lane: LatheBench, tool: TurretTool): void {
  const arm = sheetOf(lane).arm;
  if (!arm) return;
  bring(lane, tool);
  reachIn(lane);
  lane.do({ type: "swingArm", isDown: true });
  door(lane, false);
  const corner = seenOf(lane).arm ?? { radiusMm: 0, zMm: 0 };
  const { tip } = seenOf(lane);
  const goTo = (at: { r?: number; z?: number }) =>
    moveTo(lane, {
      ...(at.z === undefined ? {} : { z: machineMm(lane, "z") + at.z - seenOf(lane).tip.zMm }),
      ...(at.r === undefined ? {} : { x: xAt(lane, at.r) }),
    });
  const trip = (axis: "x" | "z") => {
    for (let turn = 0; turn < 40 && !seenOf(lane).isArmTripped; turn++)
      lane.do({ type: "jog", axis, direction: -1, clicks: 100, size: "middle" });
    const reading = lastReading(lane);
    const register = axis === "x" ? (`X${tool.number}` as const) : (`Z${tool.number}` as const);
    lane.do({ type: "takeReading", register, from: reading.number });
    lane.do({ type: "writeTerm", register, term: "armPlane", text: text(lane, -(axis === "x" ? arm.xMm : arm.zMm)) });
    const value = (reading.values[axis] ?? 0) - (axis === "x" ? arm.xMm : arm.zMm);
    lane.do({ type: "writeSum", register, text: text(lane, value) });
    lane.do({ type: "typeRegister", register, text: text(lane, value), how: "set", isConfirmed: true });
    lane.do({ type: "jog", axis, direction: 1, clicks: 100, size: "coarse" });
  };
  if (tip.zMm < corner.zMm + 5) goTo({ z: corner.zMm + 6 });
  goTo({ r: corner.radiusMm + 6 });
  goTo({ z: corner.zMm - 5 });
  goTo({ r: corner.radiusMm + 2 });
  trip("x");
  goTo({ z: corner.zMm + 6 });
  goTo({ r: corner.radiusMm - 5 });
  goTo({ z: corner.zMm + 2 });
  trip("z");
  goTo({ z: corner.zMm + 30 });
  retract(lane);
  reachIn(lane);
  lane.do({ type: "swingArm", isDown: false });
}

/** Work Z at the face with the first tool, its offset called. */
function workZ(lane: LatheBench, tool: TurretTool, habits: Habits): void {
  door(lane, false);
  bring(lane, tool);
  face(lane);
  if (!habits.offsetNotCalled) lane.do({ type: "index", station: tool.number, withOffset: true });
  const zg = toMm(lane.seen.registers.turret?.z[tool.number] ?? 0, scales[lane.seen.sheet.unit]);
  lane.do({ type: "takeReading", register: "G54.z" });
  lane.do({ type: "writeTerm", register: "G54.z", term: "other", text: text(lane, -zg) });
  lane.do({ type: "writeSum", register: "G54.z", text: text(lane, machineMm(lane, "z") - zg) });
  lane.do({ type: "captureRegister", register: "G54.z", asText: "0" });
  if (lane.seen.spindle.isOn) lane.do({ type: "stopSpindle" });
  retract(lane);
}

/**
 * At the face with a gap: work Z and the tool's row must add up to where the machine stands, less the gap. Said first,
 * then looked at.
 */
function sumCheck(lane: LatheBench, tool: TurretTool): void {
  const { work, turret } = lane.seen.registers;
  const mm = (counts: number) => toMm(counts, scales[lane.seen.sheet.unit]);
  const sum = mm(work.G54.z + turretSum(turret, "z", tool.number));
  lane.do({ type: "expectCheck", check: "sumByHand", text: text(lane, sum), tool: tool.number });
  touchFace(lane, tool, 8);
  lane.do({ type: "lookCheck" });
  // surprised, the student stops and says so; what is surprising is a hundredth or two
  lane.do({ type: "judgeCheck", isAsExpected: Math.abs((lane.seen.check?.seenMm ?? 0) - sum) <= 0.06 });
  leaveFace(lane);
}

function masterShift(lane: LatheBench, tools: readonly TurretTool[], habits: Habits): void {
  const [master] = tools;
  if (!master) return;
  if (!habits.leavesOldRow)
    lane.do({ type: "typeRegister", register: `Z${master.number}`, text: "0", how: "set", isConfirmed: true });
  bring(lane, master);
  face(lane);
  const shift = machineMm(lane, "z");
  lane.do({ type: "takeReading", register: "G54.z" });
  lane.do({ type: "writeSum", register: "G54.z", text: text(lane, shift) });
  skim(lane, habits);
  const diameter = measure(lane, "turned", habits);
  setX(lane, master.number, diameter, 0, 1, habits);
  retract(lane);
  for (const tool of tools.slice(1)) {
    const between = touchFace(lane, tool, 8);
    const gap = habits.gapForgotten ? 0 : between;
    const register = `Z${tool.number}` as const;
    lane.do({ type: "takeReading", register });
    if (gap !== 0) lane.do({ type: "writeTerm", register, term: termOfGap(lane), text: text(lane, -gap) });
    lane.do({ type: "writeTerm", register, term: "other", text: text(lane, -shift) });
    const value = machineMm(lane, "z") - gap - shift;
    lane.do({ type: "writeSum", register, text: text(lane, value) });
    lane.do({ type: "typeRegister", register, text: text(lane, value), how: "set", isConfirmed: true });
    leaveFace(lane);
    touchDiameter(lane, tool, diameter, habits);
  }
  if (!habits.shiftMissing)
    lane.do({ type: "typeRegister", register: "G54.z", text: text(lane, shift), how: "set", isConfirmed: true });
}

/** How far out a tool is brought before the face: in a hole beside its wall, on the axis, or well over the face. */
function faceRadiusMm(lane: LatheBench, { kind, sideMm }: TurretTool, { flankAtRim }: Habits): number {
  const onRing = (seenOf(lane).bore[0]?.radiusMm ?? 0) + 3;
  if (kind === "boring") return onRing;
  if (kind === "drill") return 0;
  return sideMm !== undefined && flankAtRim ? (seenOf(lane).outer.at(-1)?.radiusMm ?? 0) - 1.2 : Math.max(8, onRing);
}

function partFace(lane: LatheBench, tools: readonly TurretTool[], habits: Habits): void {
  const { targets } = sheetOf(lane);
  const [first, ...rest] = tools;
  if (!first) return;
  for (const tool of tools)
    if (targets.height.includes(tool.number)) {
      bring(lane, tool);
      if (sheetOf(lane).hasHeightGauge) {
        retract(lane);
        reachIn(lane);
        lane.do({ type: "raiseToGauge", from: habits.fromAbove ? "above" : "below" });
        face(lane);
        if (lane.seen.spindle.isOn) lane.do({ type: "stopSpindle" });
        retract(lane);
        continue;
      }
      onCenter(lane, habits, (pip) => shim(lane, pip, habits));
    }
  if (!habits.leavesOldWorkZ && lane.seen.registers.work.G54.z !== 0)
    lane.do({ type: "typeRegister", register: "G54.z", text: "0", how: "set", isConfirmed: true });
  const diameter = cutAndMeasure(lane, first, targets.z.includes(first.number), habits);
  if (lane.seen.isStopped) return;
  for (const tool of rest) {
    if (targets.z.includes(tool.number)) {
      const gap = touchFace(lane, tool, faceRadiusMm(lane, tool, habits));
      setZ(lane, tool.number, gap, tool.bladeMm ?? 0, habits);
      leaveFace(lane);
    }
    if (!targets.x.includes(tool.number)) continue;
    if (tool.kind === "boring") bore(lane, tool, habits);
    else if (tool.kind === "drill") sweepDrill(lane, tool, habits);
    else touchDiameter(lane, tool, diameter, habits);
  }
  if (habits.facesAgain) {
    bring(lane, first);
    turning(lane);
    moveTo(lane, { z: zAt(lane, 4) });
    moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 3) });
    moveTo(lane, { z: zAt(lane, 0) });
    for (let pass = 0; pass < 4; pass++) {
      lane.do({ type: "jog", axis: "z", direction: -1, clicks: 4, size: "coarse" });
      acrossFace(lane);
      moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 3) });
    }
    lane.do({ type: "stopSpindle" });
    retract(lane);
  }
}

/** Close before the face: says how far the tip stands, looks with a rule, and says that it is so. */
export function lookBeforeFace(lane: LatheBench): void {
  moveTo(lane, { z: zAt(lane, 5) });
  const { tip } = seenOf(lane);
  lane.do({ type: "expectCheck", check: "knownHeight", text: text(lane, Math.round((tip.zMm - tip.faceMm) * 2) / 2) });
  lane.do({ type: "lookCheck" });
  lane.do({ type: "judgeCheck", isAsExpected: true });
}

/** Two readings of one place agree when they differ by no more than this, mm; paper on a diameter is felt less well. */
const AGREES_MM = { x: 0.045, z: 0.014 } as const;

/**
 * Goes through a turret that somebody else set: each tool on the band and at the face, what does not agree put right.
 */
function readTurret(lane: LatheBench, habits: Habits): void {
  const { tools } = sheetOf(lane);
  const { unit, gaps } = lane.seen.sheet;
  const held = (n: number, axis: "x" | "z") =>
    toMm(turretSum(lane.seen.registers.turret, axis, n) + lane.seen.registers.work.G54[axis], scales[unit]);
  let isFaulty = false;
  const putRight = (n: number, axis: "x" | "z", readMm: number) => {
    if (Math.abs(held(n, axis) - readMm) <= AGREES_MM[axis]) return;
    isFaulty = true;
    const [row, wear] = axis === "x" ? ([`X${n}`, `XW${n}`] as const) : ([`Z${n}`, `ZW${n}`] as const);
    if (readRegister(lane.seen.registers, wear) !== 0)
      lane.do({ type: "typeRegister", register: wear, text: "0", how: "set", isConfirmed: true });
    if (Math.abs(held(n, axis) - readMm) > AGREES_MM[axis])
      lane.do({ type: "typeRegister", register: row, text: text(lane, readMm), how: "set", isConfirmed: true });
  };
  if (habits.believes !== "all") {
    const diameter = measure(lane, "turned", habits);
    if (lane.seen.registers.work.G54.z !== 0) {
      // the ledger knows of no work Z: one face tells whether it belongs there
      isFaulty = true;
    }
    const list = habits.believes === "tools" ? tools.slice(0, 1) : tools;
    for (const tool of list) {
      const gap = touchFace(lane, tool, 8);
      const z = machineMm(lane, "z") - gap;
      leaveFace(lane);
      if (lane.seen.registers.work.G54.z !== 0)
        lane.do({ type: "typeRegister", register: "G54.z", text: "0", how: "set", isConfirmed: true });
      putRight(tool.number, "z", z);
      if (habits.believes === "place") continue;
      bring(lane, tool);
      moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 4) });
      moveTo(lane, { z: zAt(lane, -8) });
      moveTo(lane, { x: xAt(lane, diameter / 2 + 1.5) });
      closeOn(lane, "x", "paper", "diameter");
      const x = machineMm(lane, "x") - diameter - 2 * (gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0);
      pull(lane, "x");
      retract(lane);
      putRight(tool.number, "x", x);
    }
  }
  lookBeforeFace(lane);
  lane.do({ type: "judgeSetup", isSound: habits.says ? habits.says === "sound" : !isFaulty });
  lane.do({ type: "handIn" });
}

/** Where a tool of each kind has its tip from the middle of its nose, standing behind the axis. */
const TIP_CODES: Record<TurretTool["kind"], number> = {
  turning: 3,
  profiling: 3,
  grooving: 3,
  parting: 3,
  threading: 8,
  boring: 2,
  drill: 0,
  endMill: 0,
  neutral: 8,
};

/** Nose radius from the designation, tip code from the picture. */
export function setNoses(lane: LatheBench, habits: Habits): void {
  const { tools, targets } = sheetOf(lane);
  for (const number of targets.nose) {
    const tool = tools.find((one) => one.number === number);
    lane.do({
      type: "typeRegister",
      register: `R${number}`,
      text: text(lane, tool?.noseRadiusMm ?? 0),
      how: "set",
      isConfirmed: true,
    });
    lane.do({
      type: "typeRegister",
      register: `Q${number}`,
      text: String(habits.tipCode ?? (tool ? TIP_CODES[tool.kind] : 0)),
      how: "set",
      isConfirmed: true,
    });
  }
}

/** X of a tool on the band while it turns: by small clicks until it is heard to scrape, nothing in between. */
function scrapeDiameter(lane: LatheBench, tool: TurretTool, diameterMm: number, habits: Habits): void {
  bring(lane, tool);
  moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 4) });
  moveTo(lane, { z: zAt(lane, -8) });
  moveTo(lane, { x: xAt(lane, diameterMm / 2 + 1) });
  turning(lane);
  for (let turn = 0; turn < 60 && seenOf(lane).heard === "air"; turn++)
    lane.do({ type: "jog", axis: "x", direction: -1, clicks: 10, size: "middle" });
  setX(lane, tool.number, diameterMm, 0, 1, habits);
  lane.do({ type: "jog", axis: "x", direction: 1, clicks: 10, size: "coarse" });
  lane.do({ type: "stopSpindle" });
  retract(lane);
}

/** One tool touched anew on the part as it was handed over: face first, then band. */
function touchAnew(lane: LatheBench, tool: TurretTool, diameterMm: number, habits: Habits): void {
  setZ(lane, tool.number, touchFace(lane, tool, faceRadiusMm(lane, tool, habits)), 0, habits);
  leaveFace(lane);
  if (habits.scrapes) scrapeDiameter(lane, tool, diameterMm, habits);
  else touchDiameter(lane, tool, diameterMm, habits);
}

/** Tools set on a part that somebody has faced and turned: fresh ones, or such whose insert is changed. */
function onHandedPart(lane: LatheBench, wanted: readonly TurretTool[], habits: Habits): void {
  const { freshInsert = [] } = sheetOf(lane);
  const diameter = measure(lane, "turned", habits);
  for (const tool of wanted) {
    bring(lane, tool);
    const isChanged = freshInsert.includes(tool.number);
    if (habits.insertAfter || !isChanged) touchAnew(lane, tool, diameter, habits);
    if (isChanged && !habits.keepsInsert) {
      retract(lane);
      reachIn(lane);
      lane.do({ type: "changeInsert" });
    }
    if (!habits.insertAfter && isChanged) touchAnew(lane, tool, diameter, habits);
  }
}

/** Somebody has faced this part and turned a band on it: the tool that did it is set. */
const isHandedPart = (lane: LatheBench): boolean =>
  (sheetOf(lane).alreadySet ?? []).length > 0 && sheetOf(lane).cone === undefined;

/** Sets the tools of a turret as the sheet asks, in its school, and checks one of them with the answer said first. */
export function workTurret(lane: LatheBench, habits: Habits): void {
  if (lane.seen.sheet.handover) {
    readTurret(lane, habits);
    return;
  }
  const { tools, targets, schools } = sheetOf(lane);
  const wanted = tools.filter(({ number }) => targets.x.includes(number) || targets.z.includes(number));
  const [first] = wanted;
  if (!first) return;
  const [school] = schools;
  if (school === "setter-arm") {
    for (const tool of wanted) byArm(lane, tool);
    workZ(lane, first, habits);
    sumCheck(lane, first);
    if (!lane.seen.isStopped) lane.do({ type: "handIn" });
    return;
  } else if (isHandedPart(lane)) onHandedPart(lane, wanted, habits);
  else if (school === "master-shift") masterShift(lane, wanted, habits);
  else partFace(lane, wanted, habits);
  if (lane.seen.isStopped) return;
  setNoses(lane, habits);
  lookBeforeFace(lane);
  proveProgram(lane, habits);
  lane.do({ type: "handIn" });
}
