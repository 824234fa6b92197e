import type { Observation, Side } from "@probe-lane/core/bench";
import type { LaneDriver } from "./laneDriver";

/** What this student does otherwise than a careful one. Empty: everything right. */
export interface Habits {
  radius?: Partial<Record<"x" | "y", "forgotten" | "turned" | "diameter">>;
  edgeWork?: Partial<Record<"x" | "y", "forgotten" | "turned">>;
  /** Which of the three equal ways enters the radius: capture o − s·r, jog by r and capture o, or capture 0 and add. */
  way?: "capture" | "motion" | "add";
  paper?: "forgotten" | "wrongWay";
  facing?: "forgotten" | "wrongWay";
  leavesOldWorkZ?: boolean;
  /** Backs off by this many 0.01 clicks before the capture, and does not count them. */
  backsOffFirst?: Partial<Record<"x" | "y", number>>;
  keepsBurr?: boolean;
  coarseLastClick?: Partial<Record<"x" | "y", boolean>>;
  startsAtRememberedSpeed?: boolean;
  overTravels?: boolean;
  school?: "part-touch" | "plane-lift";
  otherRow?: "x" | "y";
  paperUnderTurningTool?: boolean;
  skipsLook?: boolean;
  oneKick?: boolean;
  driveIntoPart?: boolean;
  /** Stops working at this point, leaving the lane open. */
  stopsAfter?: "homed" | "dressed" | "x" | "y" | "z" | "zero";
}

const mmText = (mm: number): string => mm.toFixed(3);
const moveTo = (lane: LaneDriver, words: string) => lane.do({ type: "runBlock", text: `G53 G0 ${words}` });

function door(lane: LaneDriver, isOpen: boolean): void {
  if (lane.seen.isDoorOpen !== isOpen) lane.do({ type: "setDoor", isOpen });
}

function swapTo(lane: LaneDriver, thing: "edgeFinder" | "tool1" | "pointedTool"): void {
  if (lane.seen.spindle.isOn) lane.do({ type: "stopSpindle" });
  door(lane, false);
  moveTo(lane, "Z0");
  door(lane, true);
  if (lane.seen.holds) lane.do({ type: "unload" });
  lane.do({ type: "load", thing });
}

function isAside(seen: Observation): boolean {
  return seen.tip?.kind === "aside";
}

/** Closes in on a face until the tip kicks: 0.1, then 0.01, then 0.001, smaller each time the wobble falls. */
function closeIn(lane: LaneDriver, axis: "x" | "y", direction: 1 | -1, last: "fine" | "coarse"): void {
  for (let turn = 0; turn < 400; turn++) {
    const { tip } = lane.seen;
    if (tip?.kind === "aside") return;
    const wobble = tip?.kind === "running" ? tip.wobble : "wide";
    const isNear = wobble === "slight" || wobble === "shiver" || wobble === "true";
    const size = last === "coarse" || wobble === "wide" ? "coarse" : isNear ? "fine" : "middle";
    lane.do({ type: "jog", axis, direction, clicks: size === "fine" ? 20 : 10, size });
  }
  throw new Error(`closeIn: no kick on ${axis}`);
}

function goBeside(lane: LaneDriver, axis: "x" | "y"): void {
  const { boxes: { stock }, heldLengthMm, sheet } = lane.seen;
  const other = axis === "x" ? "y" : "x";
  const { approach } = sheet.edges[axis];
  const face = approach === 1 ? stock.low[axis] : stock.high[axis];
  const along = (stock.low[other] + stock.high[other]) / 2;
  const start = face - approach * (sheet.tipDiameterMm / 2 + 4);
  const at = { [axis]: start, [other]: along } as Record<"x" | "y", number>;
  door(lane, false);
  moveTo(lane, "Z0");
  moveTo(lane, `X${mmText(at.x)} Y${mmText(at.y)}`);
  moveTo(lane, `Z${mmText(stock.high.z + heldLengthMm - 4)}`);
}

function setEdge(lane: LaneDriver, axis: "x" | "y", habits: Habits): void {
  const { sheet } = lane.seen;
  const { approach: s, edgeWorkMm } = sheet.edges[axis];
  const r = sheet.tipDiameterMm / 2;
  const radius = { forgotten: 0, turned: -r, diameter: 2 * r, right: r }[habits.radius?.[axis] ?? "right"];
  const o = { forgotten: 0, turned: -edgeWorkMm, right: edgeWorkMm }[habits.edgeWork?.[axis] ?? "right"];
  const register = `${habits.otherRow === axis ? "G55" : "G54"}.${axis}` as const;
  lane.do({ type: "takeReading", register });
  if (radius !== 0) lane.do({ type: "writeTerm", register, term: "tipRadius", text: mmText(s * radius) });
  if (o !== 0) lane.do({ type: "writeTerm", register, term: "edgeWork", text: mmText(-o) });
  const reading = lane.seen.machine[axis] / 1000;
  lane.do({ type: "writeSum", register, text: mmText(reading + s * radius - o) });
  const back = habits.backsOffFirst?.[axis];
  if (back) lane.do({ type: "jog", axis, direction: s === 1 ? -1 : 1, clicks: back, size: "middle" });
  if (habits.way === "motion" && radius > 0) {
    lane.do({ type: "captureRegister", register, asText: "0" });
    moveTo(lane, "Z0");
    moveTo(lane, `${axis.toUpperCase()}${mmText(lane.seen.machine[axis] / 1000 + s * radius)}`);
    lane.do({ type: "captureRegister", register, asText: mmText(o) });
  } else if (habits.way === "add") {
    lane.do({ type: "captureRegister", register, asText: "0" });
    lane.do({ type: "typeRegister", register, text: mmText(s * radius - o), how: "add", isConfirmed: true });
  } else {
    lane.do({ type: "captureRegister", register, asText: mmText(o - s * radius) });
  }
}

function findEdge(lane: LaneDriver, axis: "x" | "y", habits: Habits): void {
  const { approach } = lane.seen.sheet.edges[axis];
  const away = approach === 1 ? -1 : 1;
  const side: Side = axis === "x" ? "left" : "front";
  goBeside(lane, axis);
  lane.do({ type: "lookFrom", side });
  if (!lane.seen.spindle.isOn) lane.do({ type: "startSpindle", direction: "forward", rpm: 600 });
  const kicks = habits.oneKick || habits.coarseLastClick?.[axis] ? 1 : 2;
  for (let kick = 0; kick < kicks; kick++) {
    if (kick > 0) lane.do({ type: "jog", axis, direction: away, clicks: 15, size: "coarse" });
    lane.do({ type: "setWobbling" });
    closeIn(lane, axis, approach, habits.coarseLastClick?.[axis] ? "coarse" : "fine");
  }
  if (!isAside(lane.seen)) throw new Error(`findEdge: the tip does not stand aside on ${axis}`);
  setEdge(lane, axis, habits);
  if (habits.overTravels && axis === "x") lane.do({ type: "jog", axis, direction: approach, clicks: Math.ceil(lane.seen.sheet.tipDiameterMm * 3), size: "coarse" });
  const { tip } = lane.seen;
  if (tip) lane.do({ type: "jog", axis, direction: away, clicks: 40, size: "coarse" });
  moveTo(lane, "Z0");
}

function touchPaper(lane: LaneDriver, surface: "stock" | "table"): void {
  const { boxes, heldLengthMm } = lane.seen;
  const box = boxes[surface];
  const { stock } = boxes;
  const x = surface === "stock" ? (stock.low.x + stock.high.x) / 2 : stock.low.x - 90;
  const y = (stock.low.y + stock.high.y) / 2;
  door(lane, false);
  moveTo(lane, "Z0");
  moveTo(lane, `X${mmText(x)} Y${mmText(y)}`);
  moveTo(lane, `Z${mmText(box.high.z + heldLengthMm + 2)}`);
  door(lane, true);
  lane.do({ type: "placePaper" });
  const until = (size: "middle" | "fine") => {
    for (let turn = 0; turn < 40 && lane.seen.paper?.feel === "slides"; turn++) {
      lane.do({ type: "jog", axis: "z", direction: -1, clicks: size === "middle" ? 100 : 20, size });
    }
  };
  until("middle");
  lane.do({ type: "jog", axis: "z", direction: 1, clicks: 3, size: "middle" });
  until("fine");
}

function setLength(lane: LaneDriver, habits: Habits): void {
  const { paperMm, facingAllowanceMm } = lane.seen.sheet;
  const paper = { forgotten: 0, wrongWay: -paperMm, right: paperMm }[habits.paper ?? "right"];
  const facing = { forgotten: 0, wrongWay: -facingAllowanceMm, right: facingAllowanceMm }[habits.facing ?? "right"];
  lane.do({ type: "takeReading", register: "H1" });
  if (paper !== 0) lane.do({ type: "writeTerm", register: "H1", term: "paper", text: mmText(-paper) });
  const isLift = habits.school === "plane-lift";
  if (isLift) {
    lane.do({ type: "captureRegister", register: "H1", asText: "0" });
    lane.do({ type: "typeRegister", register: "H1", text: mmText(-paper), how: "add", isConfirmed: true });
    liftOff(lane);
    touchPaper(lane, "stock");
    const lift = (lane.seen.machine.z - lane.state.registers.lengthGeometry[1]!) / 1000 - paper - facing;
    lane.do({ type: "typeRegister", register: "G54.z", text: mmText(lift), how: "set", isConfirmed: true });
    return;
  }
  if (facing !== 0) lane.do({ type: "writeTerm", register: "H1", term: "facing", text: mmText(-facing) });
  lane.do({ type: "captureRegister", register: "H1", asText: "0" });
  if (paper + facing !== 0) lane.do({ type: "typeRegister", register: "H1", text: mmText(-paper - facing), how: "add", isConfirmed: true });
  if (!habits.leavesOldWorkZ && lane.seen.sheet.leftoverWorkZMm !== 0) {
    lane.do({ type: "typeRegister", register: "G54.z", text: "0", how: "set", isConfirmed: true });
  }
}

function liftOff(lane: LaneDriver): void {
  lane.do({ type: "jog", axis: "z", direction: 1, clicks: 20, size: "coarse" });
  lane.do({ type: "pullPaper" });
}

function overZero(lane: LaneDriver): void {
  swapTo(lane, "pointedTool");
  door(lane, false);
  lane.do({ type: "runBlock", text: "G0 G54 X0 Y0" });
  lane.do({ type: "lookFrom", side: "front" });
  lane.do({ type: "lookFrom", side: "left" });
}

/** Does a lane from the reference return to hand-in with the stated habits, looking only at what a student may see. */
export function workLane(lane: LaneDriver, habits: Habits = {}): void {
  const stop = (at: Habits["stopsAfter"]) => habits.stopsAfter === at;
  lane.do({ type: "home" });
  if (stop("homed")) return;
  door(lane, true);
  if (!habits.keepsBurr) lane.do({ type: "dressBurr" });
  if (stop("dressed")) return;
  lane.do({ type: "load", thing: "edgeFinder" });
  if (habits.startsAtRememberedSpeed) {
    lane.do({ type: "setWobbling" });
    door(lane, false);
    lane.do({ type: "startSpindle", direction: "forward" });
    swapTo(lane, "edgeFinder");
  }
  findEdge(lane, "x", habits);
  if (stop("x")) return;
  findEdge(lane, "y", habits);
  if (stop("y")) return;
  swapTo(lane, "tool1");
  if (habits.driveIntoPart) {
    const { stock } = lane.seen.boxes;
    door(lane, false);
    moveTo(lane, `X${mmText(stock.low.x + 20)} Y${mmText(stock.low.y + 20)}`);
    moveTo(lane, `Z${mmText(stock.high.z + lane.seen.heldLengthMm - 3)}`);
    return;
  }
  if (habits.paperUnderTurningTool) {
    const { stock } = lane.seen.boxes;
    door(lane, false);
    moveTo(lane, `X${mmText(stock.low.x + 20)} Y${mmText(stock.low.y + 20)}`);
    lane.do({ type: "startSpindle", direction: "forward", rpm: 500 });
    door(lane, true);
    lane.do({ type: "placePaper" });
    lane.do({ type: "stopSpindle" });
  }
  touchPaper(lane, habits.school === "plane-lift" ? "table" : "stock");
  setLength(lane, habits);
  liftOff(lane);
  if (stop("z")) return;
  if (!habits.skipsLook) overZero(lane);
  if (stop("zero")) return;
  lane.do({ type: "handIn" });
}
