import {
  emptyTurret,
  turretPlace,
  turretRegisterIds,
  type TurretColumn,
  type TurretRegisterId,
  type TurretTable,
} from "./turret";
import type { Counts } from "../units";

export type Axis = "x" | "y" | "z";
export type AxisCounts = Readonly<Record<Axis, Counts>>;

/** The six work offsets, and the extended ones that a block calls as G54.1 P1 and so on. */
export const workOffsetNames = ["G54", "G55", "G56", "G57", "G58", "G59", "P1", "P2", "P3", "P4", "P5", "P6"] as const;
export type WorkOffsetName = (typeof workOffsetNames)[number];

/** Rows of the length and diameter tables; row n is tool n's. */
export const lengthRows = [1, 2, 3, 4, 5, 6, 7, 8] as const;

/**
 * The offset registers of a machine, in counts. Closure sums them: see `closureMill`; a lathe's tools stand in
 * `turret`.
 */
export interface Registers {
  readonly common: AxisCounts;
  readonly work: Readonly<Record<WorkOffsetName, AxisCounts>>;
  readonly lengthGeometry: Readonly<Record<number, Counts>>;
  readonly lengthWear: Readonly<Record<number, Counts>>;
  readonly diameterGeometry: Readonly<Record<number, Counts>>;
  readonly diameterWear: Readonly<Record<number, Counts>>;
  /** Only on a lathe. */
  readonly turret?: TurretTable | undefined;
}

/**
 * "common.x", "G54.z", "P1.x", "H1" and "HW1" (length geometry and wear), "D1" and "DW1" (diameter geometry and wear);
 * on a lathe "X1", "Z1" and so on.
 */
export type RegisterId =
  `common.${Axis}` | `${WorkOffsetName}.${Axis}` | `${"H" | "HW" | "D" | "DW"}${number}` | TurretRegisterId;

/**
 * How a control takes a tool length at the press of one key (a machine setting):
 * `machine` stores the machine Z as it is, so a leftover work Z stays in the sum; `counter` stores the Z counter;
 * `display` solves for the value so that the display reads what was asked.
 */
export type LengthCapture = "machine" | "counter" | "display";

const AXES: readonly Axis[] = ["x", "y", "z"];
const ZERO: AxisCounts = { x: 0, y: 0, z: 0 };

export const millRegisterIds: readonly RegisterId[] = [
  ...AXES.map((axis) => `common.${axis}` as const),
  ...workOffsetNames.flatMap((name) => AXES.map((axis) => `${name}.${axis}` as const)),
  ...lengthRows.flatMap((row) => [`H${row}`, `HW${row}`, `D${row}`, `DW${row}`] as RegisterId[]),
];
const KNOWN = new Set<string>([...millRegisterIds, ...turretRegisterIds]);

export const isRegisterId = (text: string): text is RegisterId => KNOWN.has(text);

export function emptyMillRegisters(): Registers {
  const rows = Object.fromEntries(lengthRows.map((row) => [row, 0]));
  return {
    common: ZERO,
    work: Object.fromEntries(workOffsetNames.map((name) => [name, ZERO])) as Record<WorkOffsetName, AxisCounts>,
    lengthGeometry: rows,
    lengthWear: rows,
    diameterGeometry: rows,
    diameterWear: rows,
  };
}

type RowTable = "lengthGeometry" | "lengthWear" | "diameterGeometry" | "diameterWear";
type Place =
  | { table: "common"; axis: Axis }
  | { table: "work"; name: WorkOffsetName; axis: Axis }
  | { table: RowTable; row: number }
  | { table: "turret"; column: TurretColumn; row: number };

const ROW_TABLES: Record<string, RowTable> = {
  H: "lengthGeometry",
  HW: "lengthWear",
  D: "diameterGeometry",
  DW: "diameterWear",
};

function placeOf(id: RegisterId): Place {
  const turret = turretPlace(id);
  if (turret) return { table: "turret", ...turret };
  const dot = id.indexOf(".");
  if (dot > 0) {
    const axis = id.slice(dot + 1) as Axis;
    const name = id.slice(0, dot);
    return name === "common" ? { table: "common", axis } : { table: "work", name: name as WorkOffsetName, axis };
  }
  const [letters = ""] = /^[A-Z]+/.exec(id) ?? [];
  const table = ROW_TABLES[letters];
  if (!table) throw new Error(`placeOf: no such register: ${id}`);
  return { table, row: Number(id.slice(letters.length)) };
}

/** "offset" (common and work), "length", "diameter", or a column of a lathe's tool table. */
export function registerKind(id: RegisterId): "offset" | "length" | "diameter" | "turret" {
  const { table } = placeOf(id);
  if (table === "turret") return "turret";
  if (table === "common" || table === "work") return "offset";
  return table === "lengthGeometry" || table === "lengthWear" ? "length" : "diameter";
}

/** The axis that a register moves; lengths move Z, and a diameter is read on none: z stands for it. */
export function registerAxis(id: RegisterId): Axis {
  const place = placeOf(id);
  if (place.table === "turret") {
    if (place.column.startsWith("x") || place.column === "lx") return "x";
    return place.column === "y" ? "y" : "z";
  }
  return "axis" in place ? place.axis : "z";
}

/** The register's value; a length row that was never written holds 0. */
export function readRegister(registers: Registers, id: RegisterId): Counts {
  const place = placeOf(id);
  switch (place.table) {
    case "common":
      return registers.common[place.axis];
    case "work":
      return registers.work[place.name][place.axis];
    case "lengthGeometry":
    case "lengthWear":
    case "diameterGeometry":
    case "diameterWear":
      return registers[place.table][place.row] ?? 0;
    case "turret":
      return registers.turret?.[place.column][place.row] ?? 0;
  }
}

/** A copy with one register replaced. */
export function writeRegister(registers: Registers, id: RegisterId, counts: Counts): Registers {
  if (!Number.isSafeInteger(counts)) throw new Error(`writeRegister: ${id} must be whole counts: ${counts}`);
  const place = placeOf(id);
  switch (place.table) {
    case "common":
      return { ...registers, common: { ...registers.common, [place.axis]: counts } };
    case "work":
      return {
        ...registers,
        work: { ...registers.work, [place.name]: { ...registers.work[place.name], [place.axis]: counts } },
      };
    case "lengthGeometry":
    case "lengthWear":
    case "diameterGeometry":
    case "diameterWear":
      return { ...registers, [place.table]: { ...registers[place.table], [place.row]: counts } };
    case "turret": {
      const turret = registers.turret ?? emptyTurret;
      return { ...registers, turret: { ...turret, [place.column]: { ...turret[place.column], [place.row]: counts } } };
    }
  }
}

export const addToRegister = (registers: Registers, id: RegisterId, counts: Counts): Registers =>
  writeRegister(registers, id, readRegister(registers, id) + counts);

/** Geometry plus wear of a length row, counts; 0 when no row is in use. */
export const lengthSum = (registers: Registers, lengthRow: number | null): Counts =>
  lengthRow === null ? 0 : (registers.lengthGeometry[lengthRow] ?? 0) + (registers.lengthWear[lengthRow] ?? 0);

/**
 * What the work display reads: M − C − W, for Z less the length in use (`lengthCounts`, 0 with length compensation
 * off).
 */
export function displayCounts(
  registers: Registers,
  machine: AxisCounts,
  work: WorkOffsetName,
  lengthCounts: Counts,
): AxisCounts {
  const { common } = registers;
  const offset = registers.work[work];
  return {
    x: machine.x - common.x - offset.x,
    y: machine.y - common.y - offset.y,
    z: machine.z - common.z - offset.z - lengthCounts,
  };
}

/** The machine position on one axis at which the display would read `display`; the inverse of `displayCounts`. */
export function machineFromDisplay(
  registers: Registers,
  axis: Axis,
  display: Counts,
  work: WorkOffsetName,
  lengthCounts: Counts,
): Counts {
  return display + registers.common[axis] + registers.work[work][axis] + (axis === "z" ? lengthCounts : 0);
}

/**
 * The work offset that makes the display read `as` where the machine stands: W = M − C − as (for Z less the length in
 * use).
 */
export function captureWork(
  registers: Registers,
  axis: Axis,
  machine: Counts,
  as: Counts,
  lengthCounts: Counts,
): Counts {
  return machine - registers.common[axis] - as - (axis === "z" ? lengthCounts : 0);
}

/** As `captureWork` for a work or common offset register: a common offset takes what the work offset in use leaves. */
export function captureOffset(
  registers: Registers,
  id: RegisterId,
  machine: Counts,
  as: Counts,
  inUse: WorkOffsetName,
  lengthCounts: Counts,
): Counts {
  const axis = registerAxis(id);
  const solved = captureWork(registers, axis, machine, as, lengthCounts);
  return id.startsWith("common") ? solved + registers.common[axis] - registers.work[inUse][axis] : solved;
}

/** The length geometry that a capture stores, by the machine's rule (see `LengthCapture`). */
export function captureLength(
  registers: Registers,
  row: number,
  rule: LengthCapture,
  at: { machineZ: Counts; counterZ: Counts; work: WorkOffsetName; as: Counts },
): Counts {
  switch (rule) {
    case "machine":
      return at.machineZ;
    case "counter":
      return at.counterZ;
    case "display":
      return at.machineZ - registers.common.z - registers.work[at.work].z - (registers.lengthWear[row] ?? 0) - at.as;
  }
}
