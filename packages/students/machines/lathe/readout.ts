import type { TurretTool } from "@probe-lane/core/exercises";
import { scales, toMm } from "@probe-lane/core/units";
import type { LatheBench } from "../../bench";
import type { Habits } from "../../habits";
import { door, moveTo, reachIn, text } from "../../moves";
import { bring, face, pull, retract, seenOf, sheetOf, skim, turning, xAt, zAt } from "./turning";

const shown = (lane: LatheBench, axis: "x" | "z"): number => toMm(lane.seen.work[axis], scales[lane.seen.sheet.unit]);
const paperMm = (lane: LatheBench): number => lane.seen.sheet.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0;

/** Comes up to the part with paper until it drags. */
function feel(lane: LatheBench, axis: "x" | "z", on: "face" | "diameter", habits: Habits): void {
  reachIn(lane);
  lane.do({ type: "placeGap", id: "paper", on, hand: habits.leansOnPost ? "post" : "clear" });
  const until = (size: "middle" | "fine") => {
    for (let turn = 0; turn < 80 && seenOf(lane).gap?.feel === "slides"; turn++)
      lane.do({ type: "jog", axis, direction: -1, clicks: size === "fine" ? 20 : 5, size });
  };
  until("middle");
  lane.do({ type: "jog", axis, direction: 1, clicks: 4, size: "middle" });
  until("fine");
}

/** Comes up to the bare face, spindle still, until tip and metal meet: by eye first, then in hundredths. */
function meetFace(lane: LatheBench): void {
  moveTo(lane, { z: zAt(lane, 1) });
  for (let turn = 0; turn < 200 && !seenOf(lane).isResting && !lane.seen.isStopped; turn++)
    lane.do({ type: "jog", axis: "z", direction: -1, clicks: 10, size: "fine" });
}

/** Writes a row: the reading, what lay in between, and all of it with its sign turned. */
function row(lane: LatheBench, n: number, axis: "x" | "z", betweenMm: number, habits: Habits): void {
  const register = axis === "x" ? (`LX${n}` as const) : (`LZ${n}` as const);
  lane.do({ type: "takeReading", register });
  if (betweenMm !== 0) lane.do({ type: "writeTerm", register, term: "paper", text: text(lane, -betweenMm) });
  // the corner reads what it was made to read: what is wanted is the difference from that
  const cornerMm = axis === "x" ? Number(habits.cornerReads ?? 0) : 0;
  if (cornerMm !== 0) lane.do({ type: "writeTerm", register, term: "diameter", text: text(lane, -cornerMm) });
  const value = (habits.librarySign ? 1 : -1) * (shown(lane, axis) - betweenMm - cornerMm);
  lane.do({ type: "writeSum", register, text: text(lane, value) });
  lane.do({ type: "typeRegister", register, text: text(lane, value), how: "set", isConfirmed: true });
}

/** With the row recalled the corner must read 0: said first, then looked at. */
function recallHere(lane: LatheBench, n: number, cornerReads: string): void {
  lane.do({ type: "expectCheck", check: "recalled", text: cornerReads, tool: n });
  lane.do({ type: "recall", row: n });
  lane.do({ type: "lookCheck" });
  const seen = lane.seen.check?.seenMm ?? 0;
  lane.do({ type: "judgeCheck", isAsExpected: Math.abs(seen - Number(cornerReads)) <= 0.06 });
  lane.do({ type: "recall", row: null });
}

function sightZ(lane: LatheBench): void {
  moveTo(lane, { z: zAt(lane, 0.5) });
  moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 1.5) });
  const looks = () => {
    lane.do({ type: "sightEdge" });
    return seenOf(lane).sighted?.looks;
  };
  for (let turn = 0; turn < 60; turn++) {
    const now = looks();
    if (now === "over") return;
    lane.do({ type: "jog", axis: "z", direction: now === "before" ? -1 : 1, clicks: 5, size: "middle" });
  }
}

/** The reference faces, skims and zeroes the corner; every other tool reads it and gets its row. */
export function workReadout(lane: LatheBench, habits: Habits): void {
  const { tools, targets } = sheetOf(lane);
  const wanted = tools.filter(({ number }) => targets.x.includes(number) || targets.z.includes(number));
  const [reference, ...others] = wanted;
  if (!reference) return;
  bring(lane, reference);
  face(lane);
  if (!habits.zeroOverPaper) lane.do({ type: "captureRegister", register: "G54.z", asText: "0" });
  turning(lane);
  skim(lane, habits);
  if (!habits.zeroOverPaper) lane.do({ type: "captureRegister", register: "G54.x", asText: habits.cornerReads ?? "0" });
  lane.do({ type: "stopSpindle" });
  if (habits.zeroOverPaper) overPaper(lane, habits);
  retract(lane);
  const { alreadySet = [] } = sheetOf(lane);
  for (const tool of others) {
    if (alreadySet.includes(tool.number)) {
      if (tool.kind !== "threading" && !habits.recallsNothing) recallKept(lane, tool, habits);
      if (habits.spoilsLibrary) readCorner(lane, tool, habits);
      continue;
    }
    readCorner(lane, tool, habits);
    if (lane.seen.isStopped) return;
  }
  door(lane, false);
  lane.do({ type: "handIn" });
}

/** The zero taken over the same paper that every other tool is felt with: it cancels in the library. */
function overPaper(lane: LatheBench, habits: Habits): void {
  beside(lane);
  feel(lane, "x", "diameter", habits);
  lane.do({ type: "captureRegister", register: "G54.x", asText: text(lane, 0) });
  pull(lane, "x");
  before(lane);
  feel(lane, "z", "face", habits);
  lane.do({ type: "captureRegister", register: "G54.z", asText: text(lane, 0) });
  pull(lane, "z");
}

function beside(lane: LatheBench): void {
  moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 5) });
  moveTo(lane, { z: zAt(lane, -8) });
  // the band that was skimmed is the outermost end of the part
  const band = seenOf(lane).outer.at(-1)?.radiusMm ?? 0;
  moveTo(lane, { x: xAt(lane, band + 1.5) });
}

function before(lane: LatheBench): void {
  moveTo(lane, { x: xAt(lane, seenOf(lane).tip.partRadiusMm + 5) });
  moveTo(lane, { z: zAt(lane, 1.5) });
  moveTo(lane, { x: xAt(lane, 8) });
}

/** A row that was kept, recalled at the new part's corner: it must read what the corner reads. */
function recallKept(lane: LatheBench, tool: TurretTool, habits: Habits): void {
  bring(lane, tool);
  beside(lane);
  feel(lane, "x", "diameter", habits);
  recallHere(lane, tool.number, habits.cornerReads ?? "0");
  pull(lane, "x");
  retract(lane);
}

function readCorner(lane: LatheBench, tool: TurretTool, habits: Habits): void {
  const isBare = habits.feelerOnSome === true;
  const over = habits.zeroOverPaper || isBare ? 0 : 1;
  bring(lane, tool);
  beside(lane);
  feel(lane, "x", "diameter", habits);
  row(lane, tool.number, "x", 2 * paperMm(lane) * over, habits);
  if (!habits.recallsNothing) recallHere(lane, tool.number, habits.cornerReads ?? "0");
  pull(lane, "x");
  if (tool.kind === "threading") {
    reachIn(lane);
    sightZ(lane);
    row(lane, tool.number, "z", 0, habits);
  } else {
    before(lane);
    if (isBare) meetFace(lane);
    else feel(lane, "z", "face", habits);
    row(lane, tool.number, "z", isBare ? 0 : paperMm(lane) * over, habits);
    if (seenOf(lane).gap) pull(lane, "z");
  }
  retract(lane);
}
