import type { LaneEvent } from "../machines/events";
import type { Axis, RegisterId } from "../registers";
import type { Result } from "../result";
import type { Counts } from "../units";
import type { Draft } from "./draft";
import type { CheckName } from "./names";
import type { Refusal } from "./refusals";
import type { LaneBase } from "./state";

/** What a lane asks of its machine: registers, readings, looks, the spindle. */
export interface LaneRules<S extends LaneBase> {
  /** Whether the machine of a sheet has a register. */
  hasRegister(setup: S["setup"], register: RegisterId): boolean;
  /** What a capture of a register as a value would store where the machine stands, counts. */
  captured(state: S, register: RegisterId, as: Counts): Result<Counts, Refusal>;
  /** Registers that a capture of this one clears, by the machine's setting. */
  clearedBy(state: S, register: RegisterId): readonly RegisterId[];
  /** What a student reads off the machine on an axis, counts. */
  standsAt(state: S, axis: Axis): Counts;
  /** The answer to a check stands on the screen already, so that saying it is no expectation. */
  answerShows(state: S, check: CheckName): boolean;
  /** What a look for the check under way tells, mm; refused from where nobody could tell. */
  looked(state: S): Result<number, Refusal>;
  /** Registers that the figure of a check hangs on. */
  covers(state: S, check: NonNullable<S["desk"]["check"]>): readonly RegisterId[];
  /** The display says zero in X and Y with something pointed over it. */
  isOverZero(state: S): boolean;
  /** The spindle will not run faster than this while the door is open, rev/min. */
  doorLimitRpm: number;
  /** Why the spindle cannot run at a speed now; null when it can. */
  speedProblem(state: S, rpm: number): Refusal | null;
  /** What happens when the spindle has started. */
  spindleStarted(draft: Draft<S>, rpm: number): void;
  /** What a reset drops besides turning and stopping. */
  droppedByReset(state: S): LaneEvent[];
}
