/**
 * Simulated students: they work a lane through the same commands as anyone else, and look only at what is shown. Tests,
 * tables, benches and the demo class share them.
 */
import type { Command, Observation } from "@probe-lane/core/bench";
import { isOnMill, type Bench, type LatheBench } from "./bench";
import type { Habits } from "./habits";
import { workLathe } from "./machines/lathe";
import { workMill } from "./machines/mill";
import type { LaneDriver } from "./laneDriver";

export type { Bench, LatheBench, MillBench } from "./bench";
export type { Habits } from "./habits";
export { LaneDriver, latheLane, millLane } from "./laneDriver";
export { NonsenseBench } from "./nonsense";
export { WanderingBench } from "./wander";
export { settingsOf, slipKinds, SlippingBench, type SlipKind, type SlipPlan } from "./slips";

/** Does a lane to hand-in with the stated habits. */
export function workLane(lane: Bench, habits: Habits = {}): void {
  if (isOnMill(lane)) workMill(lane, habits);
  else workLathe(lane as LatheBench, habits);
}

class Enough extends Error {}

/** Does a lane up to the command at which `isThere` first says so; that one is not given any more. */
export function workUpTo<S extends Observation>(
  lane: LaneDriver<S>,
  isThere: (command: Command, lane: LaneDriver<S>) => boolean,
  habits: Habits = {},
): LaneDriver<S> {
  const bench: Bench<S> = {
    get seen() {
      return lane.seen;
    },
    attempt: (command) => lane.attempt(command),
    do: (command) => {
      if (isThere(command, lane)) throw new Enough();
      return lane.do(command);
    },
  };
  try {
    workLane(bench, habits);
  } catch (stop) {
    if (!(stop instanceof Enough)) throw stop;
  }
  return lane;
}
