/**
 * Simulated students: they work a lane through the same commands as anyone else, and look only at what is shown. Tests,
 * tables, benches and the demo class share them.
 */
import { isOnMill, type Bench, type LatheBench } from "./bench";
import type { Habits } from "./habits";
import { workLathe } from "./machines/lathe";
import { workMill } from "./machines/mill";

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
