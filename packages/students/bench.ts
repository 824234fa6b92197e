import type { Command, MillSeen, Observation, TurningSeen } from "@probe-lane/core/bench";
import type { Refusal } from "@probe-lane/core/lane";

/** What a student works a lane with: looks at what is shown, and asks. Nothing else of a lane is to be had. */
export interface Bench<S extends Observation = Observation> {
  /** What is shown now. */
  readonly seen: S;
  /** Does a command; a refusal comes back. */
  attempt(command: Command): Refusal | null;
  /** Does a command that must not be refused. */
  do(command: Command): S;
}
export type MillBench = Bench<MillSeen>;
export type LatheBench = Bench<TurningSeen>;

/** Whether a lane is on a mill; a lathe otherwise. */
export const isOnMill = (lane: Bench): lane is MillBench => lane.seen.kind === "mill";
