import { type MillDraft, type MillLane } from "./lane";
import { readBlock, type Block } from "../../gcode/parser";
import {
  lengthRows,
  lengthSum,
  machineFromDisplay,
  type Axis,
  type AxisCounts,
  type RegisterId,
} from "../../registers/mill";
import { axes, lengthInUse } from "../../lane/state";
import { turned } from "../../geometry/solid";
import { toCounts } from "../../units/scale";
import { type LaneRules } from "../../lane/rules";
import { type Refusal } from "../../lane/refusals";
import { speedProblem, startSpindle } from "../../lane/spindle";
import { isInTravel, spindleRanges } from "../../lane/travel";
import { changeProblem, changeTool } from "./acts/holder/act";
import { type EventOf } from "../events";
import { moveStraight, type MillSenses } from "./motion";
import { type CommandOf } from "../commands";
import { type Decision } from "../act";
import { accept, refuse } from "../../result";

/**
 * Where a block's axis words send the machine; words become counts once. A rotation turns what is programmed about work
 * zero.
 */
function targetOf(state: MillLane, block: Block): AxisCounts {
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

/** The registers that a block's move goes by: offsets of its axes, and for Z the row of the length in use. */
function readsOf({ modal }: MillLane, block: Block): RegisterId[] | undefined {
  if (block.isMachineFrame) return undefined;
  if ((block.distance ?? modal.distance) === "incremental") return [];
  const work = block.workOffset ?? modal.workOffset;
  const row = block.lengthComp === undefined ? modal.lengthRow : (block.lengthRow ?? null);
  return axes
    .filter((axis) => block.axesMm[axis] !== undefined)
    .flatMap((axis): RegisterId[] => [
      `common.${axis}`,
      `${work}.${axis}`,
      ...(axis === "z" && row !== null && block.lengthComp !== "off" ? ([`H${row}`, `HW${row}`] as const) : []),
    ]);
}

function problemOf(
  rules: LaneRules<MillLane>,
  state: MillLane,
  block: Block,
  target: AxisCounts,
  moves: boolean,
): Refusal | null {
  if (block.lengthRow !== undefined && !lengthRows.some((row) => row === block.lengthRow)) {
    return { code: "rowNotHere", row: block.lengthRow };
  }
  const rpm = block.spindleRpm ?? state.rememberedRpm;
  if (
    block.spindle === "forward" ||
    block.spindle === "reverse" ||
    (block.spindleRpm !== undefined && state.spindle.isOn)
  ) {
    const problem = speedProblem(rules, state, rpm);
    if (problem) return problem;
  }
  if (block.spindleRpm !== undefined && block.spindleRpm > spindleRanges.mill.highestRpm) {
    return {
      code: "spindleOutOfRange",
      lowestRpm: spindleRanges.mill.lowestRpm,
      highestRpm: spindleRanges.mill.highestRpm,
    };
  }
  const change = block.isToolChange ? changeProblem(state, block.tool ?? state.modal.tool ?? 0) : null;
  if (change) return change;
  if (!moves) return null;
  if (!state.isHomed) return { code: "notHomed" };
  if (state.isDoorOpen) return { code: "doorOpenMotion" };
  if (state.paper) return { code: "paperInGap" };
  if (state.block) return { code: "blockInGap" };
  const beyond = axes.find((axis) => !isInTravel(state.setup.unit, axis, target[axis]));
  return beyond ? { code: "pastTravel", axis: beyond } : null;
}

function modalOf(state: MillLane, block: Block): EventOf<"modalChanged"> | null {
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

/** A typed block: read whole, checked whole, then run in the order spindle, tool, offsets, motion, spindle stop. */
export function runBlock(
  senses: MillSenses,
  rules: LaneRules<MillLane>,
  draft: MillDraft,
  { text }: CommandOf<"runBlock">,
): Decision {
  const { state } = draft;
  const { block, diagnostics } = readBlock(text, state.modal, state.setup.unit);
  const first = diagnostics[0];
  if (first) return refuse({ code: "block", problem: first });
  const target = targetOf(state, block);
  const moves = Object.keys(block.axesMm).length > 0 && block.rotation === undefined;
  const problem = problemOf(rules, state, block, target, moves);
  if (problem) return refuse(problem);
  draft.emit({ type: "blockRan", text: text.trim() });
  const modal = modalOf(state, block);
  if (modal) draft.emit(modal);
  if (block.spindle === "forward" || block.spindle === "reverse") {
    startSpindle(rules, draft, {
      direction: block.spindle,
      rpm: block.spindleRpm ?? state.rememberedRpm,
      isStated: block.spindleRpm !== undefined,
    });
  } else if (block.spindleRpm !== undefined) {
    if (state.spindle.isOn)
      startSpindle(rules, draft, { direction: state.spindle.direction, rpm: block.spindleRpm, isStated: true });
    else draft.emit({ type: "speedSet", rpm: block.spindleRpm });
  }
  if (block.isToolChange) changeTool(draft, block.tool ?? state.modal.tool ?? 0);
  if (moves && !draft.state.isStopped)
    moveStraight(senses, draft, target, {
      isRapid: (block.motion ?? state.modal.motion) === "rapid",
      reads: readsOf(state, block),
    });
  if (block.spindle === "stop") draft.emit({ type: "spindleStopped" });
  return accept(draft.events);
}
