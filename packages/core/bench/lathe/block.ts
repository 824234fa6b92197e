import { readBlock } from "../../gcode";
import { exchangeIds, readRegisters } from "../../exchange";
import { isRegisterId, machineFromDisplay, turretSum, type AxisCounts } from "../../registers";
import { accept, refuse, type Result } from "../../result";
import { showLength, toCounts } from "../../units";
import { Draft } from "../draft";
import type { EventOf, LaneEvent } from "../events";
import { isInTravel } from "../motion";
import { hasRegister } from "../machineRegisters";
import { referenceReturn } from "../reference";
import { REGISTER_LIMIT_COUNTS, takeInRegisters } from "../registerDesk";
import type { Refusal } from "../refusals";
import { speedProblem, startSpindle } from "../spindle";
import type { LaneState } from "../state";
import { latheOf } from "./contact";
import { index, moveTurret } from "./decide";

/** Tool and row of a lathe's tool word: T0303 is tool 3 with row 3, T0300 without any. */
function toolWord(text: string): { station: number; row: number | null; rest: string } | null {
  const [word, station, row] = /\bT(\d{1,2})(\d{2})\b/i.exec(text) ?? [];
  return word === undefined
    ? null
    : { station: Number(station), row: Number(row) === 0 ? null : Number(row), rest: text.replace(word, " ").trim() };
}

const DECLARES = /\bG50\b/i;
const REFERENCE = /^\s*G28\b/i;
const SETS = /\bG10\b/i;

/**
 * G50 declares that the tool stands where its words say: the common offset takes what is left, and is lost when the
 * machine is switched off.
 */
function declare(state: LaneState, text: string): Result<LaneEvent[], Refusal> {
  const words = text.replace(DECLARES, " ");
  if (words.trim() === "") return refuse({ code: "declareNeedsAxis" });
  const { block, diagnostics } = readBlock(words, state.modal, state.setup.unit);
  const [first] = diagnostics;
  if (first) return refuse({ code: "block", problem: first });
  const { x, z, y } = block.axesMm;
  if (y !== undefined) return refuse({ code: "notOnThisMachine" });
  if (x === undefined && z === undefined) return refuse({ code: "declareNeedsAxis" });
  if (!state.isHomed) return refuse({ code: "notHomed" });
  const draft = new Draft(state);
  draft.emit({ type: "blockRan", text: text.trim() });
  for (const [axis, mm] of [
    ["x", x],
    ["z", z],
  ] as const) {
    if (mm === undefined) continue;
    const { registers, position, modal, scale } = state;
    const to =
      position[axis] -
      registers.work[modal.workOffset][axis] -
      turretSum(registers.turret, axis, latheOf(state).row) -
      toCounts(mm, scale);
    if (Math.abs(to) > REGISTER_LIMIT_COUNTS) return refuse({ code: "registerOutOfRange", register: `common.${axis}` });
    draft.emit({
      type: "registerChanged",
      register: `common.${axis}`,
      from: registers.common[axis],
      to,
      how: "declared",
      machine: position,
    });
  }
  return accept(draft.events);
}

/**
 * G10 sets registers as a program does, by the same desk as a list that is taken in; a line that cannot be used changes
 * nothing.
 */
function setRows(state: LaneState, text: string): Result<LaneEvent[], Refusal> {
  const read = readRegisters(
    text,
    exchangeIds(state.registers).filter((id) => hasRegister(state.setup, id)),
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
  const taken = takeInRegisters(state, { type: "takeInRegisters", rows });
  // a block that sets what is set already has run all the same
  if (!taken.ok && taken.error.code !== "nothingChanges") return taken;
  return accept([{ type: "blockRan", text: text.trim() }, ...(taken.ok ? taken.value : [])]);
}

/**
 * A typed block of the lathe: tool word, spindle, work offset, one straight move in X (a diameter) and Z. Read and
 * checked whole.
 */
export function runTurretBlock(state: LaneState, text: string): Result<LaneEvent[], Refusal> {
  if (REFERENCE.test(text)) return referenceReturn(state);
  if (SETS.test(text)) return setRows(state, text);
  if (DECLARES.test(text)) return declare(state, text);
  const word = toolWord(text);
  const draft = new Draft(state);
  draft.emit({ type: "blockRan", text: text.trim() });
  if (word) {
    const swung = index(state, word.station, word.row);
    if (!swung.ok) return swung;
    for (const event of swung.value) draft.emit(event);
    if (word.rest === "") return accept(draft.events);
  }
  const { block, diagnostics } = readBlock(word?.rest ?? text, state.modal, state.setup.unit);
  const [first] = diagnostics;
  if (first) return refuse({ code: "block", problem: first });
  if (
    block.axesMm.y !== undefined ||
    block.lengthComp !== undefined ||
    block.isToolChange ||
    block.rotation !== undefined
  )
    return refuse({ code: "notOnThisMachine" });
  const turning = block.spindle === "forward" || block.spindle === "reverse" ? block.spindle : null;
  const rpm = block.spindleRpm ?? state.rememberedRpm;
  const problem = turning || (block.spindleRpm !== undefined && state.spindle.isOn) ? speedProblem(state, rpm) : null;
  if (problem) return refuse(problem);
  const modal: Omit<EventOf<"modalChanged">, "type"> = {
    ...(block.motion ? { motion: block.motion } : {}),
    ...(block.distance ? { distance: block.distance } : {}),
    ...(block.workOffset ? { workOffset: block.workOffset } : {}),
    ...(block.feedMmPerMin === undefined ? {} : { feedMmPerMin: block.feedMmPerMin }),
  };
  if (Object.keys(modal).length > 0) draft.emit({ type: "modalChanged", ...modal });
  if (turning) startSpindle(draft, turning, rpm, block.spindleRpm !== undefined);
  else if (block.spindleRpm !== undefined) draft.emit({ type: "speedSet", rpm: block.spindleRpm });
  if (Object.keys(block.axesMm).length > 0 && !draft.state.isStopped) {
    const refusal = move(draft, block.axesMm, block.isMachineFrame);
    if (refusal) return refuse(refusal);
  }
  if (block.spindle === "stop") draft.emit({ type: "spindleStopped" });
  return accept(draft.events);
}

function move(
  draft: Draft,
  axesMm: Readonly<Partial<Record<"x" | "y" | "z", number>>>,
  isMachineFrame: boolean,
): Refusal | null {
  const { state } = draft;
  const { registers, modal, position, scale } = state;
  const lathe = latheOf(state);
  if (!state.isHomed) return { code: "notHomed" };
  if (state.isDoorOpen) return { code: "doorOpenMotion" };
  if (lathe.gap) return { code: "paperInGap" };
  if (lathe.block) return { code: "blockInGap" };
  const target = (axis: "x" | "z"): number => {
    const word = axesMm[axis];
    if (word === undefined) return position[axis];
    const counts = toCounts(word, scale);
    if (isMachineFrame) return counts;
    return modal.distance === "incremental"
      ? position[axis] + counts
      : machineFromDisplay(registers, axis, counts, modal.workOffset, 0) + turretSum(registers.turret, axis, lathe.row);
  };
  const to: AxisCounts = { ...position, x: target("x"), z: target("z") };
  const beyond = (["x", "z"] as const).find((axis) => !isInTravel(state, axis, to[axis]));
  return beyond ? { code: "pastTravel", axis: beyond } : moveTurret(draft, to, modal.motion === "rapid");
}
