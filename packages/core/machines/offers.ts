import type { Setup } from "../exercises/setup";
import type { Refusal } from "../lane/refusals";
import type { CheckName, TermName } from "../lane/names";
import type { AxisCounts, RegisterId, Registers, WorkOffsetName } from "../registers";
import type { Result } from "../result";
import type { Counts } from "../units";

/** Where a machine stands and what its registers hold, as far as a capture reads it; counts. */
export interface Standing {
  readonly registers: Registers;
  readonly position: AxisCounts;
  /** What the Z counter shows. */
  readonly counterZ: Counts;
  readonly workOffset: WorkOffsetName;
  /** The length in use, geometry and wear. */
  readonly lengthCounts: Counts;
  readonly lengthCapture: Setup["settings"]["lengthCapture"];
  /** The row that is called on a lathe. */
  readonly row: number | null;
}

/** What a machine offers to be set, worked out and checked in an exercise. Free of schemas: a browser has it too. */
export interface Offers<S extends Setup = Setup> {
  /** Whether the machine has a register. */
  has(register: RegisterId): boolean;
  /** Registers to choose from, in named groups, what the exercise is about first. */
  registers(setup: S): readonly { readonly name: string; readonly ids: readonly RegisterId[] }[];
  /** Registers that a working of this exercise can be about. */
  worked(setup: S): readonly RegisterId[];
  /** Kinds of line that a working on this machine may have. */
  readonly terms: readonly TermName[];
  /** Checks that the machine can be put to, the one that its school is proven by first. */
  checks(setup: S): readonly CheckName[];
  /** What a capture of a register as a value would store, counts; a refusal where no place of the tool can tell it. */
  captured(standing: Standing, register: RegisterId, as: Counts): Result<Counts, Refusal>;
}
