import type { Axis, RegisterId } from "../registers";

/** The name of a value that a lane is marked on; it stands in stored rulings. */
export type TargetId =
  | "x"
  | "y"
  | "rotation"
  | `z${number}`
  | `H${number}`
  | "workZ"
  | `d${number}`
  | `X${number}`
  | `Z${number}`
  | `R${number}`
  | `Q${number}`
  | `C${number}`
  | `F${number}`
  | "axisHeight"
  | "gaugeError";

/** What kind of value it is. */
export type TargetKind =
  /** Mill: X or Y of the datum; the turn called; what a tool's registers add up to; one row; work Z; a diameter. */
  | "place"
  | "turn"
  | "toolSum"
  | "toolRow"
  | "workZ"
  | "diameter"
  /** Lathe: X or Z of a tool; nose radius; tip code; center height; whether a tool fits. */
  | "toolOffset"
  | "nose"
  | "tipCode"
  | "height"
  | "fit"
  /** What is said of the machine itself. */
  | "axisHeight"
  | "gaugeError";

/** One value that a lane is marked on: what it is, of which tool, on which axis, in which registers, in which unit. */
export interface Target {
  readonly id: TargetId;
  readonly kind: TargetKind;
  readonly tool: number | null;
  readonly axis: Axis | null;
  /** The registers whose sum it is; empty where it is said and not set. */
  readonly registers: readonly RegisterId[];
  readonly unit: "mm" | "degree" | "choice";
}

const SHARED = /^common\./;
const OF_WORK = /^(G5\d|P\d+)\./;

/**
 * The register that is the value's own: of a sum that a tool's row is part of that row, since the others are shared by
 * every tool; undefined where the value is in none.
 */
export function ownRegister({ registers }: Pick<Target, "registers">): RegisterId | undefined {
  const own = registers.filter((register) => !SHARED.test(register));
  return own.find((register) => !OF_WORK.test(register)) ?? own[0] ?? registers[0];
}
