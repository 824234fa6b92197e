import { edgeOf } from "@probe-lane/core/exercises";
import { toolName } from "@probe-lane/core/instruments";
import { readRegister, type RegisterId } from "@probe-lane/core/registers";
import { scales, toMm } from "@probe-lane/core/units";
import type { MillBench } from "../../bench";
import { kickFace, leave } from "./edges";
import type { Habits } from "../../habits";
import { bySetter, setterOff, touch } from "./lengths";
import { moveTo, reachIn, text } from "../../moves";
import { swapTo } from "./moves";

/** Two readings of one thing agree when they differ by no more than this, mm. */
const AGREES_MM = 0.02;

const held = (lane: MillBench, register: RegisterId): number =>
  toMm(readRegister(lane.seen.registers, register), scales[lane.seen.sheet.unit]);

/** Sets a register where what was read says otherwise than what it holds; returns whether it did. */
function putRight(lane: MillBench, register: RegisterId, readMm: number): boolean {
  if (Math.abs(held(lane, register) - readMm) <= AGREES_MM) return false;
  lane.do({ type: "typeRegister", register, text: text(lane, readMm), how: "set", isConfirmed: true });
  return true;
}

/**
 * X and Y at their edges, with the blank pushed to its stop first where an eye or the first reading says that it is not
 * there.
 */
function readPlace(lane: MillBench, habits: Habits): boolean {
  swapTo(lane, "edgeFinder");
  const find = (axis: "x" | "y"): number => {
    const edge = edgeOf(lane.seen.sheet, axis);
    const approach = edge?.approach ?? 1;
    const at = kickFace(lane, axis, approach, habits);
    leave(lane, axis, approach);
    return at + approach * (lane.seen.sheet.tipDiameterMm / 2) - (edge?.edgeWorkMm ?? 0);
  };
  let isFaulty = false;
  let x = find("x");
  if (Math.abs(x - held(lane, "G54.x")) > AGREES_MM) {
    // the stop is cheaper to try than a register
    reachIn(lane);
    isFaulty = lane.attempt({ type: "doTask", task: "pushToStop" }) === null;
    if (isFaulty) x = find("x");
  }
  const isWrongX = putRight(lane, "G54.x", x);
  const isWrongY = putRight(lane, "G54.y", find("y"));
  return isFaulty || isWrongX || isWrongY;
}

/** Each tool on the setter, after the setter itself was touched with the bare nose. */
function readTools(lane: MillBench, habits: Habits): boolean {
  const { sheet } = lane.seen;
  const offMm = habits.believes === "setter" ? 0 : setterOff(lane);
  const off = Math.abs(offMm) > AGREES_MM ? offMm : 0;
  let isFaulty = false;
  for (const [place, number] of sheet.targets.lengths.entries()) {
    const tool = sheet.tools.find((one) => one.number === number);
    if (!tool) continue;
    swapTo(lane, toolName(number));
    const length = bySetter(lane, tool, habits) - off + (place === 0 ? (habits.spoilsBy ?? 0) : 0);
    if (putRight(lane, `HW${number}`, 0)) isFaulty = true;
    if (putRight(lane, `H${number}`, length)) isFaulty = true;
    // after what was wrong is put right: a row that changes withdraws its check
    if (place === 0) {
      lane.do({ type: "expectCheck", check: "ruleBeside", text: text(lane, lane.seen.heldLengthMm), tool: number });
      lane.do({ type: "lookCheck" });
      lane.do({ type: "judgeCheck", isAsExpected: true });
    }
  }
  return isFaulty;
}

/** Work Z with the bare nose on paper. */
function readWork(lane: MillBench): boolean {
  const { sheet } = lane.seen;
  swapTo(lane, null);
  const { z, t } = touch(lane, "stock", "paper", "G54.z");
  return putRight(lane, "G54.z", z - t - sheet.facingAllowanceMm);
}

/** Goes through a setup that was handed over, in the order of the work, and says what it found. */
export function readHandover(lane: MillBench, habits: Habits): void {
  const { believes } = habits;
  if (habits.goesFast) {
    swapTo(lane, "tool1");
    lane.do({ type: "setDoor", isOpen: false });
    lane.do({ type: "runBlock", text: "G0 G54 X40 Y-60" });
    lane.do({ type: "runBlock", text: "G0 G43 H1 Z20" });
    moveTo(lane, { z: 0 });
  }
  const found = [
    believes !== "place" && believes !== "all" && readPlace(lane, habits),
    believes !== "tools" && believes !== "all" && readTools(lane, habits),
    believes !== "all" && readWork(lane),
  ];
  lane.do({ type: "judgeSetup", isSound: habits.says ? habits.says === "sound" : !found.some(Boolean) });
}
