import { toolName } from "@probe-lane/core/instruments";
import type { MillBench } from "../../bench";
import { edgeByDial, findEdge, middleByTouch, trueTaster } from "./edges";
import type { Habits } from "../../habits";
import { readHandover } from "./handover";
import { takeBack, touchAgain } from "./kept";
import { setDiameters, setLengths, touchNewWork } from "./lengths";
import { door, moveTo, reachIn, text } from "../../moves";
import { lastReading } from "../../readings";
import { proveProgram } from "../../proving";
import { swapTo } from "./moves";
import { middleByProbe, pocketByProbe, roundByProbe, skewedCorner, sweepRound } from "./places";

function makeReady(lane: MillBench, habits: Habits): void {
  const { tasks } = lane.seen.sheet;
  const does = (task: (typeof tasks)[number]) =>
    tasks.includes(task) && !(task === "dressBurr" && habits.keepsBurr) && !(task === "wipeTaper" && habits.keepsDirt);
  for (const task of ["releaseStop", "lowRapid"] as const) if (does(task)) lane.do({ type: "doTask", task });
  lane.do({ type: "home" });
  if (habits.stopsAfter === "homed") return;
  reachIn(lane);
  if (lane.seen.sheet.handover) return;
  for (const task of ["wipeTaper", "seatOnParallels", "pushToStop", "tapDown"] as const)
    if (does(task)) lane.do({ type: "doTask", task });
  if (does("dressBurr")) lane.do({ type: "dressBurr" });
  if (does("sweepJaw")) {
    swapTo(lane, "indicator");
    sweepTrue(lane, habits);
  }
  // after another shift nobody knows what hangs in which pocket
  if (tasks.includes("releaseStop") && !habits.trustsPockets) looksAtPockets(lane);
}

/** A light tap turns the vise by about this, degrees; less than half of it is left as it is. */
const TAP_DEG = 0.012;

/** Carries the dial along the fixed jaw and taps the vise until both ends read alike. */
function sweepTrue(lane: MillBench, habits: Habits): void {
  for (let turn = 0; turn < 40; turn++) {
    lane.do({ type: "doTask", task: "sweepJaw" });
    const { left = 0, right = 0, apart = 1 } = lastReading(lane).values;
    const deg = (Math.atan2(right - left, apart) * 180) / Math.PI;
    if (Math.abs(deg) <= TAP_DEG * 0.6 || habits.leavesJaw) return;
    lane.do({ type: "tapPart", direction: deg > 0 ? -1 : 1, strength: Math.abs(deg) > 0.15 ? "hard" : "light" });
  }
}

/** Calls tool 1, sees another one hang there, and puts the pockets right. */
function looksAtPockets(lane: MillBench): void {
  swapTo(lane, null);
  const [first, second] = lane.seen.sheet.tools;
  if (!first || !second) return;
  door(lane, false);
  lane.do({ type: "runBlock", text: `T${first.number} M6` });
  if (lane.seen.holds === toolName(first.number)) return;
  reachIn(lane);
  lane.do({ type: "unload" });
  lane.do({ type: "swapPockets", a: first.number, b: second.number });
}

function findPlaces(lane: MillBench, habits: Habits): void {
  const { sheet } = lane.seen;
  const has = (name: (typeof sheet.instruments)[number]) => sheet.instruments.includes(name);
  const stop = (at: Habits["stopsAfter"]) => habits.stopsAfter === at;
  if (sheet.isSkewed) skewedCorner(lane, habits);
  else if (sheet.datum.kind === "feature") {
    if (sheet.feature?.kind === "pocket") pocketByProbe(lane, habits);
    else if (has("indicator")) sweepRound(lane, habits);
    else roundByProbe(lane, habits);
  } else if (sheet.datum.kind === "middle") {
    if (has("probe")) {
      for (const axis of ["x", "y"] as const) if (!lane.seen.isStopped) middleByProbe(lane, axis, habits);
    } else {
      if (has("taster")) trueTaster(lane, habits);
      else swapTo(lane, "edgeFinder");
      for (const axis of ["x", "y"] as const) middleByTouch(lane, axis, habits);
    }
  } else if (has("taster")) {
    trueTaster(lane, habits);
    for (const axis of ["x", "y"] as const) edgeByDial(lane, axis, habits);
  } else {
    swapTo(lane, "edgeFinder");
    if (habits.startsAtRememberedSpeed) {
      lane.do({ type: "setWobbling" });
      door(lane, false);
      lane.do({ type: "startSpindle", direction: "forward" });
      lane.do({ type: "stopSpindle" });
      moveTo(lane, { z: 0 });
      reachIn(lane);
      lane.do({ type: "unload" });
      lane.do({ type: "load", thing: "edgeFinder" });
    }
    findEdge(lane, "x", habits);
    if (!stop("x")) findEdge(lane, "y", habits);
  }
}

/** Only where the other part hangs on what moved with it: the middle, or the moving jaw's side. */
function findMovedPlaces(lane: MillBench, habits: Habits): void {
  const { sheet } = lane.seen;
  if (sheet.datum.kind === "middle") {
    swapTo(lane, "edgeFinder");
    middleByTouch(lane, "y", habits);
  } else if (
    sheet.datum.kind === "corner" &&
    (sheet.datum.edges.y.approach === 1) !== (sheet.fixture.fixedJaw === "front")
  ) {
    swapTo(lane, "edgeFinder");
    findEdge(lane, "y", habits);
  }
}

function overZero(lane: MillBench, habits: Habits): void {
  const { stock, boss } = lane.seen.boxes;
  swapTo(lane, "pointedTool");
  door(lane, false);
  lane.do({ type: "expectCheck", check: "overZero", text: "0" });
  lane.do({ type: "runBlock", text: "G0 G54 X0 Y0" });
  // close enough for an eye to tell: from high above a point stands over anything
  moveTo(lane, { z: Math.max(stock.high.z, boss?.high.z ?? stock.high.z) + lane.seen.heldLengthMm + 4 });
  lane.do({ type: "lookFrom", side: "front" });
  lane.do({ type: "lookFrom", side: "left" });
  lane.do({ type: "lookCheck" });
  const isOver = (lane.seen.check?.seenMm ?? 0) <= 1.5;
  lane.do({ type: "judgeCheck", isAsExpected: isOver || habits.saysAsExpected === true });
  moveTo(lane, { z: 0 });
}

/** Says how long the tool must be by its registers' figures or the rule, looks, and says whether it is so. */
function checkTool(lane: MillBench): void {
  const [tool = lane.seen.sheet.tools[0]?.number ?? 1] = lane.seen.sheet.targets.lengths;
  swapTo(lane, toolName(tool));
  lane.do({ type: "expectCheck", check: "ruleBeside", text: text(lane, lane.seen.heldLengthMm), tool });
  lane.do({ type: "lookCheck" });
  lane.do({ type: "judgeCheck", isAsExpected: true });
}

function safetyMishaps(lane: MillBench, habits: Habits): boolean {
  const { stock } = lane.seen.boxes;
  if (habits.driveIntoPart) {
    swapTo(lane, "tool1");
    moveTo(lane, { x: stock.low.x + 20, y: stock.low.y + 20 });
    moveTo(lane, { z: stock.high.z + lane.seen.heldLengthMm - 3 });
    return true;
  }
  if (habits.paperUnderTurningTool) {
    swapTo(lane, "tool1");
    moveTo(lane, { x: stock.low.x + 20, y: stock.low.y + 20 });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 500 });
    door(lane, true);
    lane.do({ type: "placePaper" });
    lane.do({ type: "stopSpindle" });
  }
  return false;
}

/** Does a mill's lane from the reference return to hand-in with the stated habits. */
export function workMill(lane: MillBench, habits: Habits): void {
  const stop = (...at: Habits["stopsAfter"][]) => at.includes(habits.stopsAfter);
  takeBack(lane, habits);
  makeReady(lane, habits);
  if (stop("homed", "dressed")) return;
  const { sheet } = lane.seen;
  if (sheet.handover) {
    readHandover(lane, habits);
    if (!stop("z")) lane.do({ type: "handIn" });
    return;
  }
  if (sheet.kept) touchAgain(lane, habits);
  else if (sheet.partBefore) {
    if (!habits.touchesNothingNew) {
      findMovedPlaces(lane, habits);
      touchNewWork(lane);
    }
  } else {
    if (sheet.targets.xy) findPlaces(lane, habits);
    if (stop("x", "y") || lane.seen.isStopped) return;
    if (safetyMishaps(lane, habits)) return;
    if (sheet.targets.lengths.length > 0) setLengths(lane, habits);
    if (sheet.targets.diameters.length > 0) setDiameters(lane, habits);
  }
  if (stop("z")) return;
  if (!habits.skipsLook) {
    if (sheet.targets.xy && sheet.instruments.includes("pointedTool")) overZero(lane, habits);
    else checkTool(lane);
  }
  if (stop("zero")) return;
  proveProgram(lane, habits);
  lane.do({ type: "handIn" });
}
