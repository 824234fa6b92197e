import type { MillSeen } from "@probe-lane/core/bench";
import type { TermName } from "@probe-lane/core/lane";
import { leftoverOf, paperOf, type MillLengthSchool, type Surface } from "@probe-lane/core/exercises";
import { toolName, type Thing } from "@probe-lane/core/instruments";
import type { RegisterId } from "@probe-lane/core/registers";
import type { MillBench } from "../../bench";
import type { Habits } from "../../habits";
import { machineMm, moveTo, reachIn, text } from "../../moves";
import { middleOf, standAt, swapTo } from "./moves";
import { lastReading } from "../../readings";

type Row = MillSeen["sheet"]["tools"][number];

/** Where a surface is touched: the middle of the part, or the table well beside it. */
function placeOn(lane: MillBench, surface: Surface): { x: number; y: number } {
  const { stock } = lane.seen.boxes;
  const middle = middleOf(lane.seen);
  return surface === "stock" ? middle : { x: stock.low.x - 90, y: middle.y };
}

const TERMS = { paper: "paper", block: "block", pin: "block", lampGauge: "block" } as const;

/** Terms of a working, those of nothing left out. */
function terms(lane: MillBench, register: RegisterId, ...list: readonly (readonly [TermName, number])[]): void {
  for (const [term, mm] of list) if (mm !== 0) lane.do({ type: "writeTerm", register, term, text: text(lane, mm) });
}

export function set(lane: MillBench, register: RegisterId, mm: number): void {
  lane.do({ type: "writeSum", register, text: text(lane, mm) });
  lane.do({ type: "typeRegister", register, text: text(lane, mm), how: "set", isConfirmed: true });
}

/** Lowers the tip onto paper until it drags; returns the machine Z, mm. */
function touchPaper(lane: MillBench, surface: Surface, id = "paper"): number {
  standAt(lane, placeOn(lane, surface), (lane.seen.boxes[surface]?.high.z ?? 0) + 2);
  reachIn(lane);
  lane.do({ type: "placePaper", id });
  const until = (size: "middle" | "fine") => {
    for (let turn = 0; turn < 60 && lane.seen.paper?.feel === "slides"; turn++) {
      lane.do({ type: "jog", axis: "z", direction: -1, clicks: size === "middle" ? 100 : 20, size });
    }
  };
  until("middle");
  for (let turn = 0; turn < 6 && lane.seen.paper?.feel !== "slides"; turn++)
    lane.do({ type: "jog", axis: "z", direction: 1, clicks: 3, size: "middle" });
  until("fine");
  return machineMm(lane, "z");
}

function liftOff(lane: MillBench): void {
  lane.do({ type: "jog", axis: "z", direction: 1, clicks: 20, size: "coarse" });
  if (lane.seen.paper) lane.do({ type: "pullPaper" });
  if (lane.seen.block) lane.do({ type: "pullBlock" });
}

/** Opens the gap until the block goes, from below; returns the machine Z, mm. */
function touchBlock(lane: MillBench, surface: Surface, id: string): number {
  const heightMm = lane.seen.sheet.gaps.find((gap) => gap.id === id)?.nominalMm ?? 0;
  if (!lane.seen.areBlocksWiped) lane.do({ type: "wipeBlocks" });
  standAt(lane, placeOn(lane, surface), (lane.seen.boxes[surface]?.high.z ?? 0) + heightMm + 0.8);
  reachIn(lane);
  const goes = () => {
    if (lane.seen.block) lane.do({ type: "pullBlock" });
    lane.do({ type: "tryBlock", id });
    return lane.seen.block !== null;
  };
  // down until it does not go, up by the middle click until it goes, down once more, then open by the finest
  for (const [size, direction] of [
    ["coarse", -1],
    ["middle", 1],
  ] as const) {
    for (let turn = 0; turn < 60 && goes() === (direction === -1); turn++) {
      if (lane.seen.block) lane.do({ type: "pullBlock" });
      lane.do({ type: "jog", axis: "z", direction, clicks: 1, size });
    }
  }
  if (lane.seen.block) lane.do({ type: "pullBlock" });
  lane.do({ type: "jog", axis: "z", direction: -1, clicks: 2, size: "middle" });
  for (let turn = 0; turn < 60 && !goes(); turn++)
    lane.do({ type: "jog", axis: "z", direction: 1, clicks: 1, size: "fine" });
  return machineMm(lane, "z");
}

/** Comes down on the height gauge until its lamp lights; returns the machine Z, mm. */
function touchLamp(lane: MillBench, surface: Surface): number {
  moveTo(lane, { z: 0 });
  moveTo(lane, placeOn(lane, surface));
  reachIn(lane);
  lane.do({ type: "standLamp" });
  moveTo(lane, {
    z: (lane.seen.boxes[surface]?.high.z ?? 0) + lane.seen.sheet.lampGaugeMm + lane.seen.heldLengthMm + 2,
  });
  const until = (size: "middle" | "fine") => {
    for (let turn = 0; turn < 60 && !lane.seen.lamp?.isLit; turn++)
      lane.do({ type: "jog", axis: "z", direction: -1, clicks: size === "middle" ? 100 : 20, size });
  };
  until("middle");
  for (let turn = 0; turn < 6 && lane.seen.lamp?.isLit; turn++)
    lane.do({ type: "jog", axis: "z", direction: 1, clicks: 2, size: "middle" });
  until("fine");
  return machineMm(lane, "z");
}

function leaveLamp(lane: MillBench): void {
  lane.do({ type: "jog", axis: "z", direction: 1, clicks: 20, size: "coarse" });
  moveTo(lane, { z: 0 });
  reachIn(lane);
  lane.do({ type: "takeLamp" });
}

/**
 * What the tip is let down on in this lane: gap thing, gauge height and whether it is felt, by what the drawer holds.
 */
export function touch(
  lane: MillBench,
  surface: Surface,
  prefer: "paper" | "lampGauge" | "block" | "pin",
  register: RegisterId,
): { z: number; t: number } {
  const { sheet } = lane.seen;
  // the reading is taken while the contact is in force, not after leaving it
  const take = () => lane.do({ type: "takeReading", register });
  if (prefer === "lampGauge") {
    const z = touchLamp(lane, surface);
    take();
    leaveLamp(lane);
    return { z, t: sheet.lampGaugeMm };
  }
  const gap = sheet.gaps.find(({ kind }) => kind === prefer);
  if (!gap || prefer === "paper") {
    const z = touchPaper(lane, surface);
    take();
    liftOff(lane);
    return { z, t: paperOf(sheet) };
  }
  const z = touchBlock(lane, surface, gap.id);
  take();
  liftOff(lane);
  return { z, t: gap.nominalMm };
}

function wayOf(lane: MillBench): "paper" | "lampGauge" | "block" | "pin" {
  const { instruments } = lane.seen.sheet;
  return (["lampGauge", "block", "pin"] as const).find((name) => instruments.includes(name)) ?? "paper";
}

const rows = (lane: MillBench): Row[] =>
  lane.seen.sheet.targets.lengths.flatMap((tool) => lane.seen.sheet.tools.filter(({ number }) => number === tool));

/** Length by the setter's cycle: a rule first, then turning or still, on center or over the teeth. */
export function bySetter(lane: MillBench, tool: Row, habits: Habits): number {
  swapTo(lane, toolName(tool.number));
  reachIn(lane);
  lane.do({ type: "measure", what: "toolReach", by: "rule" });
  const about = lastReading(lane).values.reach ?? 0;
  moveTo(lane, { z: 0 });
  const isFace = tool.kind === "faceMill";
  lane.do({
    type: "askSetter",
    what: "length",
    isTurning: (isFace || tool.kind === "endMill") && !habits.measuresStill,
    offset: text(lane, isFace ? tool.diameterMm / 2 - 4 : 0),
    about: text(lane, about),
  });
  return lastReading(lane).values.length ?? 0;
}

function byBeam(lane: MillBench, tool: Row, habits: Habits): number {
  swapTo(lane, toolName(tool.number));
  reachIn(lane);
  if (!habits.keepsChips) lane.do({ type: "blowTip" });
  moveTo(lane, { z: 0 });
  lane.do({
    type: "askBeam",
    what: "length",
    rpm: habits.measuresStill ? 0 : tool.workingRpm,
    isAtEdge: tool.kind === "endMill" || tool.kind === "faceMill",
  });
  return lastReading(lane).values.length ?? 0;
}

function byPresetter(lane: MillBench, tool: Row): number {
  lane.do({ type: "askPresetter", tool: tool.number });
  return lastReading(lane).values.length ?? 0;
}

/** How much the card of the setter is off, found by letting the bare nose down on the plunger by hand, mm. */
export function setterOff(lane: MillBench): number {
  const { setter } = lane.seen.sheet;
  if (!setter) return 0;
  swapTo(lane, null);
  moveTo(lane, { z: 0 });
  moveTo(lane, { x: setter.xMm, y: setter.yMm });
  moveTo(lane, { z: setter.noseTriggerMm + 3 });
  for (const size of ["middle", "fine"] as const) {
    for (let turn = 0; turn < 6 && size === "fine" && lane.seen.isSetterTriggered; turn++)
      lane.do({ type: "jog", axis: "z", direction: 1, clicks: 2, size: "middle" });
    for (let turn = 0; turn < 60 && !lane.seen.isSetterTriggered; turn++)
      lane.do({ type: "jog", axis: "z", direction: -1, clicks: size === "middle" ? 50 : 10, size });
  }
  const found = machineMm(lane, "z");
  lane.do({ type: "jog", axis: "z", direction: 1, clicks: 20, size: "coarse" });
  moveTo(lane, { z: 0 });
  return found - setter.noseTriggerMm;
}

/** The setter by the longest known length there is; from here on its figure is where it stands. */
function calibrate(lane: MillBench, habits: Habits): void {
  if (!lane.seen.sheet.instruments.includes("probe")) {
    swapTo(lane, null);
    moveTo(lane, { z: 0 });
    lane.do({ type: "calibrate", what: "setter", by: "pin" });
    return;
  }
  swapTo(lane, "probe");
  moveTo(lane, { z: 0 });
  if (!habits.skipsBlock) lane.do({ type: "calibrate", what: "probeLength", by: "block" });
  lane.do({ type: "calibrate", what: "probeRadius", by: "ring" });
  if (lane.seen.sheet.instruments.includes("plungerSetter"))
    lane.do({ type: "calibrate", what: "setter", by: "probe" });
}

function gaugeLine(lane: MillBench, habits: Habits): void {
  const { instruments, facingAllowanceMm, hasMasters = false } = lane.seen.sheet;
  if (hasMasters && !habits.trustsCard) calibrate(lane, habits);
  const isDoubted = instruments.includes("plungerSetter") && !habits.trustsCard && !hasMasters;
  const off = isDoubted ? setterOff(lane) : 0;
  const lengths = rows(lane).map((tool) => {
    const length = instruments.includes("plungerSetter")
      ? bySetter(lane, tool, habits) - (Math.abs(off) > 0.01 ? off : 0)
      : instruments.includes("beamSetter")
        ? byBeam(lane, tool, habits)
        : byPresetter(lane, tool);
    lane.do({ type: "takeReading", register: `H${tool.number}`, from: lastReading(lane).number });
    if (Math.abs(off) > 0.01) terms(lane, `H${tool.number}`, ["other", -off]);
    return { tool, length };
  });
  lengths.forEach(({ tool, length }, place) => {
    const row = habits.neighborRow && place === 0 ? lengths[1] : undefined;
    set(lane, `H${tool.number}`, row?.length ?? length);
  });
  if (instruments.includes("probe") && (habits.trustsCard || hasMasters)) {
    workByProbe(lane);
    return;
  }
  swapTo(lane, null);
  const { z, t } = touch(lane, "stock", instruments.includes("lampGauge") ? "lampGauge" : "paper", "G54.z");
  const paper = { forgotten: 0, wrongWay: -t, right: t }[habits.paper ?? "right"];
  terms(lane, "G54.z", [instruments.includes("lampGauge") ? "block" : "paper", -paper], ["facing", -facingAllowanceMm]);
  set(lane, "G54.z", z - paper - facingAllowanceMm);
}

function workByProbe(lane: MillBench): void {
  const { probe, facingAllowanceMm, boxes } = { ...lane.seen.sheet, boxes: lane.seen.boxes };
  const lengthMm = lane.seen.cards.probeLength ?? probe?.lengthMm ?? 0;
  swapTo(lane, "probe");
  standAt(lane, middleOf(lane.seen), boxes.stock.high.z + 6);
  for (let time = 0; time < 2; time++) lane.do({ type: "askProbe", question: "surface", size: text(lane, 15) });
  lane.do({ type: "takeReading", register: "G54.z", from: lastReading(lane).number });
  terms(lane, "G54.z", ["probeLength", -lengthMm], ["facing", -facingAllowanceMm]);
  set(lane, "G54.z", (lastReading(lane).values.at ?? 0) - lengthMm - facingAllowanceMm);
}

function partTouch(lane: MillBench, habits: Habits): void {
  const { facingAllowanceMm, settings } = lane.seen.sheet;
  const facing = { forgotten: 0, wrongWay: -facingAllowanceMm, right: facingAllowanceMm }[habits.facing ?? "right"];
  for (const tool of rows(lane)) {
    const register: RegisterId = `H${tool.number}`;
    swapTo(lane, toolName(tool.number));
    touchPaper(lane, "stock");
    const t = paperOf(lane.seen.sheet);
    const paper = { forgotten: 0, wrongWay: -t, right: t }[habits.paper ?? "right"];
    lane.do({ type: "takeReading", register });
    if (paper !== 0) lane.do({ type: "writeTerm", register, term: "paper", text: text(lane, -paper) });
    if (facing !== 0) lane.do({ type: "writeTerm", register, term: "facing", text: text(lane, -facing) });
    if (settings.lengthCapture === "machine") {
      lane.do({ type: "captureRegister", register, asText: "0" });
      if (paper + facing !== 0)
        lane.do({ type: "typeRegister", register, text: text(lane, -paper - facing), how: "add", isConfirmed: true });
      lane.do({ type: "writeSum", register, text: text(lane, machineMm(lane, "z") - paper - facing) });
    } else set(lane, register, machineMm(lane, "z") - paper - facing);
    liftOff(lane);
  }
  if (!habits.leavesOldWorkZ && leftoverOf(lane.seen.sheet, "G54.z") !== 0) {
    lane.do({ type: "typeRegister", register: "G54.z", text: "0", how: "set", isConfirmed: true });
  }
}

function planeLift(lane: MillBench, habits: Habits): void {
  const way = wayOf(lane);
  const { facingAllowanceMm } = lane.seen.sheet;
  const tools = rows(lane);
  const on = (t: number) => ({ forgotten: 0, wrongWay: -t, right: t })[habits.paper ?? "right"];
  let first: { thing: Thing; length: number } | null = null;
  for (const tool of tools) {
    swapTo(lane, toolName(tool.number));
    const { z, t } = touch(lane, "table", way, `H${tool.number}`);
    const length: number = z - on(t) + (first === null ? (habits.firstLengthOffMm ?? 0) : 0);
    terms(lane, `H${tool.number}`, [TERMS[way], -on(t)]);
    set(lane, `H${tool.number}`, length);
    first ??= { thing: toolName(tool.number), length };
  }
  if (!first) return;
  swapTo(lane, first.thing);
  const { z, t } = touch(lane, "stock", way, "G54.z");
  terms(lane, "G54.z", [TERMS[way], -on(t)], ["facing", -facingAllowanceMm], ["toolLength", -first.length]);
  set(lane, "G54.z", z - on(t) - facingAllowanceMm - first.length);
}

function master(lane: MillBench, habits: Habits): void {
  const way = wayOf(lane);
  const { facingAllowanceMm } = lane.seen.sheet;
  let zero: number | null = null;
  for (const tool of rows(lane)) {
    swapTo(lane, toolName(tool.number));
    const { z, t } = touch(lane, "stock", way, zero === null ? "G54.z" : `H${tool.number}`);
    if (zero === null) {
      zero = z;
      const left = { forgotten: 0, wrongWay: -t, right: t }[habits.paper ?? "right"];
      terms(lane, "G54.z", [TERMS[way], -left], ["facing", -facingAllowanceMm]);
      set(lane, "G54.z", z - left - facingAllowanceMm);
    } else {
      terms(lane, `H${tool.number}`, ["other", -zero]);
      set(lane, `H${tool.number}`, z - zero);
    }
  }
}

function offsetPerTool(lane: MillBench, habits: Habits): void {
  const names = ["G54", "G55", "G56", "G57", "G58", "G59"] as const;
  rows(lane).forEach((tool, place) => {
    swapTo(lane, toolName(tool.number));
    const register: RegisterId = `${names[place] ?? "G54"}.z`;
    const { z, t } = touch(lane, "stock", wayOf(lane), register);
    const left = { forgotten: 0, wrongWay: -t, right: t }[habits.paper ?? "right"];
    terms(lane, register, ["paper", -left], ["facing", -lane.seen.sheet.facingAllowanceMm]);
    set(lane, register, z - left - lane.seen.sheet.facingAllowanceMm);
  });
}

function blockInWear(lane: MillBench, habits: Habits): void {
  for (const tool of rows(lane)) {
    swapTo(lane, toolName(tool.number));
    const { z, t } = touch(lane, "stock", "block", `H${tool.number}`);
    set(lane, `H${tool.number}`, z);
    if (!habits.leavesBlockOut) set(lane, `HW${tool.number}`, -t - lane.seen.sheet.facingAllowanceMm);
  }
}

const SCHOOLS: Record<MillLengthSchool, (lane: MillBench, habits: Habits) => void> = {
  "gauge-line": gaugeLine,
  "part-touch": partTouch,
  "plane-lift": planeLift,
  master,
  "offset-per-tool": offsetPerTool,
  "block-in-wear": blockInWear,
};

export function setLengths(lane: MillBench, habits: Habits): void {
  const [first = "part-touch"] = lane.seen.sheet.lengthSchools;
  SCHOOLS[lane.seen.sheet.isSchoolPrescribed ? first : (habits.school ?? first)](lane, habits);
}

/**
 * Only what the other part changes: work Z with one of the tools that are set, and X or Y where the part hangs on what
 * moved.
 */
export function touchNewWork(lane: MillBench): void {
  const { sheet } = lane.seen;
  const [tool = 1] = sheet.targets.lengths;
  swapTo(lane, toolName(tool));
  const z = touchPaper(lane, "stock");
  const length = (lane.seen.registers.lengthGeometry[tool] ?? 0) / 1000;
  lane.do({ type: "takeReading", register: "G54.z" });
  terms(lane, "G54.z", ["paper", -paperOf(sheet)], ["facing", -sheet.facingAllowanceMm], ["toolLength", -length]);
  set(lane, "G54.z", z - paperOf(sheet) - sheet.facingAllowanceMm - length);
  liftOff(lane);
}

export function setDiameters(
  lane: MillBench,
  habits: Habits,
  tools: readonly number[] = lane.seen.sheet.targets.diameters,
): void {
  const { sheet } = lane.seen;
  for (const number of tools) {
    const nominal = sheet.tools.find((tool) => tool.number === number)?.diameterMm ?? 0;
    reachIn(lane);
    const read = [0, 0, 0].map(() => {
      lane.do({ type: "measure", what: "toolDiameter", by: "micrometer", tool: number });
      return lastReading(lane).values[toolName(number)] ?? 0;
    });
    const isWear = sheet.diameterSchool === "wear-comp";
    const measured =
      habits.nominalForMeasured === number ? nominal : read.reduce((sum, mm) => sum + mm, 0) / read.length;
    const last = read.at(-1) ?? measured;
    const value =
      (measured - (isWear ? nominal : 0)) /
      (sheet.settings.diameterMode === "radius" || habits.radiusForDiameter === number ? 2 : 1);
    lane.do({ type: "takeReading", register: `D${number}`, from: lastReading(lane).number });
    terms(lane, `D${number}`, ["other", measured - last], ["nominal", isWear ? -nominal : 0]);
    set(lane, `${isWear ? "DW" : "D"}${number}`, value);
    if (!isWear && leftoverOf(sheet, `DW${number}`) !== 0)
      lane.do({ type: "typeRegister", register: `DW${number}`, text: "0", how: "set", isConfirmed: true });
  }
}
