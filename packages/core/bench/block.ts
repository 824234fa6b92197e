import { readBlock, type Block } from "../gcode";
import { turned } from "../geometry";
import { toolName } from "../instruments";
import { lengthRows, lengthSum, machineFromDisplay, type Axis, type AxisCounts } from "../registers";
import { accept, refuse, type Result } from "../result";
import { toCounts } from "../units";
import { neverTurns, speedProblem, startSpindle } from "./spindle";
import { Draft } from "./draft";
import type { EventOf, LaneEvent } from "./events";
import { seenRoomMm } from "./eye";
import { seatNowMm } from "./hands";
import { bench } from "./machine";
import { isInTravel, moveStraight } from "./motion";
import type { Refusal } from "./refusals";
import { axes, lengthInUse, type LaneState } from "./state";

/** Room under the nose that a tool change wants, by eye, mm. */
const ROOM_TO_CHANGE_MM = 130;

/**
 * Where a block's axis words send the machine; words become counts once. A rotation turns what is programmed about work
 * zero.
 */
function targetOf(state: LaneState, block: Block): AxisCounts {
  const { modal, registers, position, scale } = state;
  const workOffset = block.workOffset ?? modal.workOffset;
  const row =
    block.lengthComp === "on" ? (block.lengthRow ?? null) : block.lengthComp === "off" ? null : modal.lengthRow;
  const length = block.lengthComp === undefined ? lengthInUse(state) : lengthSum(registers, row);
  const isIncremental = (block.distance ?? modal.distance) === "incremental";
  const rotationDeg = block.rotation === "off" ? 0 : modal.rotationDeg;
  const at = { ...block.axesMm };
  if (rotationDeg !== 0 && !block.isMachineFrame && at.x !== undefined && at.y !== undefined)
    Object.assign(at, turned(at.x, at.y, rotationDeg));
  const target = (axis: Axis): number => {
    const word = at[axis];
    if (word === undefined) return position[axis];
    const counts = toCounts(word, scale);
    if (block.isMachineFrame) return counts;
    return isIncremental ? position[axis] + counts : machineFromDisplay(registers, axis, counts, workOffset, length);
  };
  return { x: target("x"), y: target("y"), z: target("z") };
}

function changeProblem(state: LaneState, block: Block): Refusal | null {
  const tool = block.tool ?? state.modal.tool ?? 0;
  if (state.carried.pockets[tool] === undefined) return { code: "toolNotHere", tool };
  if (state.isDoorOpen) return { code: "doorOpenMotion" };
  if (state.spindle.isOn) return { code: "spindleTurning" };
  if (state.holds === "edgeFinder" || state.holds === "pointedTool")
    return { code: "spindleHolds", thing: state.holds };
  if (state.holds && neverTurns(state.holds) && state.setup.settings.spindleGuard === "refuses")
    return { code: "spindleHolds", thing: state.holds };
  return seenRoomMm(state, null) < ROOM_TO_CHANGE_MM ? { code: "noRoomToLoad" } : null;
}

function problemOf(state: LaneState, block: Block, target: AxisCounts, moves: boolean): Refusal | null {
  if (block.lengthRow !== undefined && !lengthRows.some((row) => row === block.lengthRow)) {
    return { code: "rowNotHere", row: block.lengthRow };
  }
  const rpm = block.spindleRpm ?? state.rememberedRpm;
  if (
    block.spindle === "forward" ||
    block.spindle === "reverse" ||
    (block.spindleRpm !== undefined && state.spindle.isOn)
  ) {
    const problem = speedProblem(state, rpm);
    if (problem) return problem;
  }
  if (block.spindleRpm !== undefined && block.spindleRpm > bench.highestRpm) {
    return { code: "spindleOutOfRange", lowestRpm: bench.lowestRpm, highestRpm: bench.highestRpm };
  }
  const change = block.isToolChange ? changeProblem(state, block) : null;
  if (change) return change;
  if (!moves) return null;
  if (!state.isHomed) return { code: "notHomed" };
  if (state.isDoorOpen) return { code: "doorOpenMotion" };
  if (state.paper) return { code: "paperInGap" };
  if (state.block) return { code: "blockInGap" };
  const beyond = axes.find((axis) => !isInTravel(state, axis, target[axis]));
  return beyond ? { code: "pastTravel", axis: beyond } : null;
}

function modalOf(state: LaneState, block: Block): EventOf<"modalChanged"> | null {
  const change = {
    ...(block.motion ? { motion: block.motion } : {}),
    ...(block.distance ? { distance: block.distance } : {}),
    ...(block.workOffset ? { workOffset: block.workOffset } : {}),
    ...(block.lengthComp === "on"
      ? { lengthRow: block.lengthRow ?? null, calledLength: lengthSum(state.registers, block.lengthRow ?? null) }
      : block.lengthComp === "off"
        ? { lengthRow: null, calledLength: null }
        : {}),
    ...(block.rotation === "off"
      ? { rotationDeg: 0 }
      : block.rotation === "on"
        ? { rotationDeg: block.rotationDeg ?? 0 }
        : {}),
    ...(block.feedMmPerMin === undefined ? {} : { feedMmPerMin: block.feedMmPerMin }),
    ...(block.tool === undefined ? {} : { tool: block.tool }),
  };
  return Object.keys(change).length > 0 ? { type: "modalChanged", ...change } : null;
}

/**
 * The changer puts away what hangs in the spindle and brings what stands in the pocket: the control believes the
 * number.
 */
function changeTool(draft: Draft, tool: number): void {
  const { state } = draft;
  if (state.holds && neverTurns(state.holds)) {
    draft.emit({
      type: "incidentHappened",
      code: "changerStruck",
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
      thing: state.holds,
    });
    return;
  }
  const brings = toolName(state.carried.pockets[tool] ?? tool);
  if (state.holds === brings) return;
  if (state.holds !== null) draft.emit({ type: "unloaded" });
  draft.emit({ type: "loaded", thing: brings, seatMm: seatNowMm(state), isByChanger: true });
}

/** A typed block: read whole, checked whole, then run in the order spindle, tool, offsets, motion, spindle stop. */
export function runBlock(state: LaneState, text: string): Result<LaneEvent[], Refusal> {
  const { block, diagnostics } = readBlock(text, state.modal, state.setup.unit);
  const first = diagnostics[0];
  if (first) return refuse({ code: "block", problem: first });
  const target = targetOf(state, block);
  const moves = Object.keys(block.axesMm).length > 0 && block.rotation === undefined;
  const problem = problemOf(state, block, target, moves);
  if (problem) return refuse(problem);
  const draft = new Draft(state);
  draft.emit({ type: "blockRan", text: text.trim() });
  const modal = modalOf(state, block);
  if (modal) draft.emit(modal);
  if (block.spindle === "forward" || block.spindle === "reverse") {
    startSpindle(draft, block.spindle, block.spindleRpm ?? state.rememberedRpm, block.spindleRpm !== undefined);
  } else if (block.spindleRpm !== undefined) {
    if (state.spindle.isOn) startSpindle(draft, state.spindle.direction, block.spindleRpm, true);
    else draft.emit({ type: "speedSet", rpm: block.spindleRpm });
  }
  if (block.isToolChange) changeTool(draft, block.tool ?? state.modal.tool ?? 0);
  if (moves && !draft.state.isStopped) moveStraight(draft, target, (block.motion ?? state.modal.motion) === "rapid");
  if (block.spindle === "stop") draft.emit({ type: "spindleStopped" });
  return accept(draft.events);
}
