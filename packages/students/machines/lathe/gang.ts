import type { TurretTool } from "@probe-lane/core/exercises";
import { scales, toMm } from "@probe-lane/core/units";
import type { LatheBench } from "../../bench";
import type { Habits } from "../../habits";
import { door, moveTo, reachIn, text } from "../../moves";
import { lastReading } from "../../readings";
import { closeOn, onCenter, pull, retract, sheetOf, xAt, zAt } from "./turning";

/** Height from the pip into its register, and faced again with the row called until nothing is left. */
function height(lane: LatheBench, { number }: TurretTool, habits: Habits): void {
  let held = 0;
  lane.do({ type: "index", station: number, withOffset: true });
  onCenter(lane, habits, ({ pipMm, isStanding }) => {
    held += isStanding ? pipMm / 2 : -pipMm / 2;
    lane.do({ type: "typeRegister", register: `Y${number}`, text: text(lane, held), how: "set", isConfirmed: true });
  });
}

const overBar = (lane: LatheBench, radiusMm: number): void => {
  moveTo(lane, { x: xAt(lane, radiusMm + 5) });
  moveTo(lane, { z: zAt(lane, -6) });
  moveTo(lane, { x: xAt(lane, radiusMm + 1.5) });
};

/** The register to the tool: paper on the bar, twice its thickness. */
function touchBar(lane: LatheBench, { number }: TurretTool, barMm: number, habits: Habits): void {
  lane.do({ type: "index", station: number, withOffset: false });
  overBar(lane, barMm / 2);
  closeOn(lane, "x", "paper", "diameter");
  const paperMm =
    (habits.feelerOnce ? 1 : 2) *
    (habits.paper === "forgotten" ? 0 : (lane.seen.sheet.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0));
  const register = `X${number}` as const;
  lane.do({ type: "takeReading", register });
  lane.do({ type: "writeTerm", register, term: "diameter", text: text(lane, -barMm) });
  if (paperMm !== 0) lane.do({ type: "writeTerm", register, term: "paper", text: text(lane, -paperMm) });
  const value = toMm(lane.seen.work.x, scales[lane.seen.sheet.unit]) - barMm - paperMm;
  lane.do({ type: "writeSum", register, text: text(lane, value) });
  lane.do({ type: "typeRegister", register, text: text(lane, value), how: "set", isConfirmed: true });
  pull(lane, "x");
  retract(lane);
}

/** The tool to the register: the slide where the edge should meet the bar, the tool slid there in its clamp. */
function slideToBar(lane: LatheBench, { number }: TurretTool, barMm: number, habits: Habits): void {
  lane.do({ type: "index", station: number, withOffset: false });
  overBar(lane, barMm / 2);
  if (!habits.leavesRegister)
    lane.do({ type: "typeRegister", register: `X${number}`, text: "0", how: "set", isConfirmed: true });
  reachIn(lane);
  lane.do({ type: "loosenTool" });
  door(lane, false);
  // no row called: with its register at zero that is where the edge should meet the bar
  lane.do({ type: "runBlock", text: `G0 X${text(lane, barMm)}` });
  reachIn(lane);
  lane.do({ type: "slideTool" });
  lane.do({ type: "jog", axis: "x", direction: 1, clicks: 20, size: "coarse" });
  lane.do({ type: "tightenTool", how: habits.tightensOneSide ? "oneRightDown" : "inTurn" });
  retract(lane);
}

/** Two tools changed in a break of the run: overhang by rule, feed down, height, X, and the approach looked at. */
export function workGang(lane: LatheBench, habits: Habits): void {
  const { tools, targets, gang, stock } = sheetOf(lane);
  if (!gang) return;
  reachIn(lane);
  lane.do({ type: "measureTurned", what: "turned", by: "micrometer" });
  const barMm = lastReading(lane).values.diameter ?? stock.diameterMm;
  door(lane, false);
  for (const tool of tools.filter(({ number }) => gang.changed.includes(number))) {
    retract(lane);
    lane.do({ type: "index", station: tool.number, withOffset: false });
    if (lane.seen.isStopped) return;
    reachIn(lane);
    lane.do({ type: "changeTool", tool: tool.number, overhang: String(habits.overhangMm ?? gang.overhangMm) });
    door(lane, false);
    if (!habits.feedUp) lane.do({ type: "turnFeed", isLow: true });
    if (targets.height.includes(tool.number)) height(lane, tool, habits);
    if (habits.toolToRegister) slideToBar(lane, tool, barMm, habits);
    else touchBar(lane, tool, barMm, habits);
    if (!habits.feedUp) lane.do({ type: "turnFeed", isLow: false });
  }
  const last = gang.changed.at(-1) ?? 1;
  lane.do({ type: "index", station: last, withOffset: true });
  moveTo(lane, { z: zAt(lane, -6) });
  lane.do({ type: "runBlock", text: `G0 X${text(lane, barMm + 2 * gang.clearanceMm)}` });
  lane.do({ type: "expectCheck", check: "clearance", text: text(lane, gang.clearanceMm) });
  lane.do({ type: "lookCheck" });
  lane.do({ type: "judgeCheck", isAsExpected: Math.abs((lane.seen.check?.seenMm ?? 0) - gang.clearanceMm) <= 1 });
  retract(lane);
  lane.do({ type: "handIn" });
}
