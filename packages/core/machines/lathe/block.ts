import { type LatheDraft, type TurningLane } from "./lane";
import { readBlock, type Block } from "../../gcode/parser";
import { type Decision } from "../act";
import { accept, refuse } from "../../result";
import { turretSum } from "../../registers/turret";
import { showLength, toCounts } from "../../units/scale";
import { REGISTER_LIMIT_COUNTS, takeInRegisters } from "../../lane/desk";
import { type LaneRules } from "../../lane/rules";
import { readRegisters } from "../../exchange/reading";
import { exchangeIds } from "../../exchange/printing";
import { isRegisterId, machineFromDisplay, type AxisCounts, type RegisterId } from "../../registers/mill";
import { type EventOf } from "../events";
import { type CommandOf } from "../commands";
import { moveTurret, referenceReturn } from "./motion";
import { swing } from "./acts/station/act";
import { speedProblem, startSpindle } from "../../lane/spindle";
import { type Refusal } from "../../lane/refusals";
import { isInTravel } from "../../lane/travel";
/**
 * G50 declares that the tool stands where its words say: the common offset takes what is left, and is lost when the
 * machine is switched off.
 */
function declare(draft: LatheDraft, { axesMm }: Pick<Block, "axesMm">, text: string): Decision {
  const { state } = draft;
  if (axesMm.x === undefined && axesMm.z === undefined) return refuse({ code: "declareNeedsAxis" });
  if (!state.isHomed) return refuse({ code: "notHomed" });
  draft.emit({ type: "blockRan", text: text.trim() });
  for (const axis of ["x", "z"] as const) {
    const mm = axesMm[axis];
    if (mm === undefined) continue;
    const { registers, position, modal, scale } = state;
    const inUse = registers.work[modal.workOffset][axis] + turretSum(registers.turret, axis, state.lathe.row);
    const to = position[axis] - inUse - toCounts(mm, scale);
    const register = `common.${axis}` as const;
    if (Math.abs(to) > REGISTER_LIMIT_COUNTS) return refuse({ code: "registerOutOfRange", register });
    const from = registers.common[axis];
    draft.emit({ type: "registerChanged", register, from, to, how: "declared", machine: position });
  }
  return accept(draft.events);
}

/**
 * G10 sets registers as a program does, by the same desk as a list that is taken in; a line that cannot be used changes
 * nothing.
 */
function setRows(rules: LaneRules<TurningLane>, draft: LatheDraft, text: string): Decision {
  const { state } = draft;
  const read = readRegisters(
    text,
    exchangeIds(state.registers).filter((id) => rules.hasRegister(state.setup, id)),
    "lathe",
    state.setup.unit,
  );
  const bad = read.find(({ problem }) => problem !== null);
  if (bad?.problem) return refuse({ code: "programLine", sentence: bad.problem });
  const rows = read.flatMap(({ register, mm }) =>
    mm !== null && isRegisterId(register)
      ? [{ register, text: register.startsWith("Q") ? String(Math.round(mm)) : showLength(mm, state.scale) }]
      : [],
  );
  const taken = takeInRegisters(rules, draft, { rows });
  // a block that sets what is set already has run all the same
  if (!taken.ok && taken.error.code !== "nothingChanges") return taken;
  return accept([{ type: "blockRan", text: text.trim() }, ...(taken.ok ? taken.value : [])]);
}

function modalOf(block: Block): EventOf<"modalChanged"> | null {
  const change: Omit<EventOf<"modalChanged">, "type"> = {
    ...(block.motion ? { motion: block.motion } : {}),
    ...(block.workOffset ? { workOffset: block.workOffset } : {}),
    ...(block.feedMmPerMin === undefined ? {} : { feedMmPerMin: block.feedMmPerMin }),
  };
  return Object.keys(change).length > 0 ? { type: "modalChanged", ...change } : null;
}

/**
 * A typed block of the lathe: tool word, spindle, work offset, one straight move in X (a diameter) and Z; or one of the
 * services of a control. Read and checked whole.
 */
export function runTurretBlock(
  rules: LaneRules<TurningLane>,
  draft: LatheDraft,
  { text }: CommandOf<"runBlock">,
): Decision {
  const { state } = draft;
  const { block, diagnostics } = readBlock(text, state.modal, state.setup.unit, "lathe");
  const [first] = diagnostics;
  if (first) return refuse({ code: "block", problem: first });
  if (block.service === "reference") return referenceReturn(draft);
  if (block.service === "setData") return setRows(rules, draft, text);
  if (block.service === "declare") return declare(draft, block, text);
  draft.emit({ type: "blockRan", text: text.trim() });
  if (block.station) {
    const swung = swing(draft.trial(draft.state), block.station.tool, block.station.row);
    if (!swung.ok) return swung;
    for (const event of swung.value) draft.emit(event);
  }
  const turning = block.spindle === "forward" || block.spindle === "reverse" ? block.spindle : null;
  const rpm = block.spindleRpm ?? state.rememberedRpm;
  const isSpoken = turning !== null || block.spindleRpm !== undefined;
  const problem = isSpoken ? speedProblem(rules, state, rpm) : null;
  if (problem) return refuse(problem);
  const modal = modalOf(block);
  if (modal) draft.emit(modal);
  if (turning) startSpindle(rules, draft, { direction: turning, rpm, isStated: block.spindleRpm !== undefined });
  else if (block.spindleRpm !== undefined) draft.emit({ type: "speedSet", rpm: block.spindleRpm });
  if (Object.keys(block.axesMm).length + Object.keys(block.stepsMm).length > 0 && !draft.state.isStopped) {
    const refusal = move(draft, block);
    if (refusal) return refuse(refusal);
  }
  if (block.spindle === "stop") draft.emit({ type: "spindleStopped" });
  return accept(draft.events);
}

/** Geometry, wear and library of a row on an axis: what a called offset adds up from. */
const rowReads = (axis: "x" | "z", row: number): RegisterId[] =>
  axis === "x" ? [`X${row}`, `XW${row}`, `LX${row}`] : [`Z${row}`, `ZW${row}`, `LZ${row}`];

function move(
  draft: LatheDraft,
  { axesMm, stepsMm, isMachineFrame }: Pick<Block, "axesMm" | "stepsMm" | "isMachineFrame">,
): Refusal | null {
  const { state } = draft;
  const { registers, modal, position, scale } = state;
  const lathe = state.lathe;
  if (!state.isHomed) return { code: "notHomed" };
  if (state.isDoorOpen) return { code: "doorOpenMotion" };
  if (lathe.gap) return { code: "paperInGap" };
  if (lathe.block) return { code: "blockInGap" };
  const target = (axis: "x" | "z"): number => {
    const [word, step] = [axesMm[axis], stepsMm[axis]];
    if (step !== undefined) return position[axis] + toCounts(step, scale);
    if (word === undefined) return position[axis];
    const counts = toCounts(word, scale);
    if (isMachineFrame) return counts;
    return (
      machineFromDisplay(registers, axis, counts, modal.workOffset, 0) + turretSum(registers.turret, axis, lathe.row)
    );
  };
  const reads = (["x", "z"] as const)
    .filter((axis) => axesMm[axis] !== undefined)
    .flatMap((axis): RegisterId[] => [
      `common.${axis}`,
      `${modal.workOffset}.${axis}`,
      ...(lathe.row === null ? [] : rowReads(axis, lathe.row)),
    ]);
  const to: AxisCounts = { ...position, x: target("x"), z: target("z") };
  const beyond = (["x", "z"] as const).find((axis) => !isInTravel(state.setup.unit, axis, to[axis]));
  return beyond
    ? { code: "pastTravel", axis: beyond }
    : moveTurret(draft, to, { isRapid: modal.motion === "rapid", reads: isMachineFrame ? undefined : reads });
}
