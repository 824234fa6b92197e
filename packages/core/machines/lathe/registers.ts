import type { LatheKind } from "../../exercises/schools";
import type { Refusal } from "../../lane/refusals";
import { registerAxis, turretPlace, turretSum, type RegisterId, type TurretColumn } from "../../registers";
import { accept, refuse, type Result } from "../../result";
import type { Counts } from "../../units";
import type { TurningLane } from "./lane";

/** Columns of the tool table that a machine has: a library is a readout's, a height register a gang slide's. */
const COLUMNS: Record<LatheKind, readonly TurretColumn[]> = {
  turret: ["x", "z", "xw", "zw", "r", "q"],
  readout: ["lx", "lz"],
  gang: ["x", "z", "xw", "zw", "r", "q", "y"],
};
const OFFSETS: Record<LatheKind, RegExp> = {
  turret: /^(common|G5[4-9])\.[xz]$/,
  // its zero, and nothing else
  readout: /^G54\.[xz]$/,
  gang: /^(common|G5[4-9])\.[xz]$/,
};

/** Whether a lathe of this kind has a register. */
export function isOnLathe(kind: LatheKind, register: RegisterId): boolean {
  const place = turretPlace(register);
  return place ? COLUMNS[kind].includes(place.column) : OFFSETS[kind].test(register);
}

/** Geometry and wear of one axis: what stands in the other of the two stays. */
const BESIDE: Partial<Record<TurretColumn, TurretColumn>> = { x: "xw", xw: "x", z: "zw", zw: "z" };

/** The value that a capture of `register` as `as` would store now, counts. */
export function capturedOnLathe(state: TurningLane, register: RegisterId, as: Counts): Result<Counts, Refusal> {
  const { registers, position, modal, lathe } = state;
  const axis = registerAxis(register) === "x" ? "x" : "z";
  const place = turretPlace(register);
  const work = registers.work[modal.workOffset][axis];
  const common = registers.common[axis];
  if (!place) {
    const other = register.startsWith("common") ? work : common;
    return accept(position[axis] - other - turretSum(registers.turret, axis, lathe.row) - as);
  }
  if (place.column === "lx" || place.column === "lz") return refuse({ code: "libraryIsTyped" });
  const beside = BESIDE[place.column];
  if (!beside) return refuse({ code: "diameterIsTyped", register });
  return accept(position[axis] - common - work - (registers.turret?.[beside][place.row] ?? 0) - as);
}
