import { readBlock, type Block } from "../gcode";
import { lengthRows, machineFromDisplay, type Axis, type AxisCounts } from "../registers";
import { accept, refuse, type Result } from "../result";
import { countsFromMm } from "../units";
import { speedProblem, startSpindle } from "./spindle";
import { Draft } from "./draft";
import type { EventOf, LaneEvent } from "./events";
import { seenRoomMm } from "./eye";
import { bench } from "./machine";
import { isInTravel, moveStraight } from "./motion";
import type { Refusal } from "./refusals";
import { axes, type LaneState } from "./state";

/** Room under the nose that a tool change wants, by eye, mm. */
const ROOM_TO_CHANGE_MM = 130;

/** Where a block's axis words send the machine; words in mm become counts once. */
function targetOf(state: LaneState, block: Block): AxisCounts {
  const workOffset = block.workOffset ?? state.modal.workOffset;
  const lengthRow = block.lengthComp === "on" ? (block.lengthRow ?? null) : block.lengthComp === "off" ? null : state.modal.lengthRow;
  const isIncremental = (block.distance ?? state.modal.distance) === "incremental";
  const target = (axis: Axis): number => {
    const word = block.axesMm[axis];
    if (word === undefined) return state.position[axis];
    const counts = countsFromMm(word);
    if (block.isMachineFrame) return counts;
    return isIncremental ? state.position[axis] + counts : machineFromDisplay(state.registers, axis, counts, workOffset, lengthRow);
  };
  return { x: target("x"), y: target("y"), z: target("z") };
}

function problemOf(state: LaneState, block: Block, target: AxisCounts, moves: boolean): Refusal | null {
  if (block.lengthRow !== undefined && !lengthRows.some((row) => row === block.lengthRow)) {
    return { code: "rowNotHere", row: block.lengthRow };
  }
  const rpm = block.spindleRpm ?? state.rememberedRpm;
  if (block.spindle === "forward" || block.spindle === "reverse" || (block.spindleRpm !== undefined && state.spindle.isOn)) {
    const problem = speedProblem(state, rpm);
    if (problem) return problem;
  }
  if (block.spindleRpm !== undefined && block.spindleRpm > bench.highestRpm) {
    return { code: "spindleOutOfRange", lowestRpm: bench.lowestRpm, highestRpm: bench.highestRpm };
  }
  if (block.isToolChange) {
    const tool = block.tool ?? state.modal.tool ?? 0;
    if (tool !== 1) return { code: "toolNotHere", tool };
    if (state.isDoorOpen) return { code: "doorOpenMotion" };
    if (state.spindle.isOn) return { code: "spindleTurning" };
    if (state.holds !== null && state.holds !== "tool1") return { code: "spindleHolds", thing: state.holds };
    if (seenRoomMm(state, null) < ROOM_TO_CHANGE_MM) return { code: "noRoomToLoad" };
  }
  if (!moves) return null;
  if (!state.isHomed) return { code: "notHomed" };
  if (state.isDoorOpen) return { code: "doorOpenMotion" };
  if (state.paper) return { code: "paperInGap" };
  const beyond = axes.find((axis) => !isInTravel(axis, target[axis]));
  return beyond ? { code: "pastTravel", axis: beyond } : null;
}

function modalOf(block: Block): EventOf<"modalChanged"> | null {
  const change = {
    ...(block.motion ? { motion: block.motion } : {}),
    ...(block.distance ? { distance: block.distance } : {}),
    ...(block.workOffset ? { workOffset: block.workOffset } : {}),
    ...(block.lengthComp === "on" ? { lengthRow: block.lengthRow ?? null } : block.lengthComp === "off" ? { lengthRow: null } : {}),
    ...(block.feedMmPerMin === undefined ? {} : { feedMmPerMin: block.feedMmPerMin }),
    ...(block.tool === undefined ? {} : { tool: block.tool }),
  };
  return Object.keys(change).length > 0 ? { type: "modalChanged", ...change } : null;
}

/** A typed block: read whole, checked whole, then run in the order spindle, tool, offsets, motion, spindle stop. */
export function runBlock(state: LaneState, text: string): Result<LaneEvent[], Refusal> {
  const { block, diagnostics } = readBlock(text, state.modal);
  const first = diagnostics[0];
  if (first) return refuse({ code: "block", problem: first });
  const target = targetOf(state, block);
  const moves = Object.keys(block.axesMm).length > 0;
  const problem = problemOf(state, block, target, moves);
  if (problem) return refuse(problem);
  const draft = new Draft(state);
  draft.emit({ type: "blockRan", text: text.trim() });
  const modal = modalOf(block);
  if (modal) draft.emit(modal);
  if (block.spindle === "forward" || block.spindle === "reverse") {
    startSpindle(draft, block.spindle, block.spindleRpm ?? state.rememberedRpm, block.spindleRpm !== undefined);
  } else if (block.spindleRpm !== undefined) {
    if (state.spindle.isOn) startSpindle(draft, state.spindle.direction, block.spindleRpm, true);
    else draft.emit({ type: "speedSet", rpm: block.spindleRpm });
  }
  if (block.isToolChange && state.holds === null) draft.emit({ type: "loaded", thing: "tool1" });
  if (moves && !draft.state.isStopped) moveStraight(draft, target, (block.motion ?? state.modal.motion) === "rapid");
  if (block.spindle === "stop") draft.emit({ type: "spindleStopped" });
  return accept(draft.events);
}
