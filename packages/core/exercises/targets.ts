import { latheTargets } from "./machines/latheTargets";
import { millTargets } from "./machines/millTargets";
import type { Setup } from "./setup";
import type { Target, TargetId } from "./target";

/** Every value that the lane is marked on, in the order of the work. */
export const targetsOf = (setup: Setup): Target[] => (setup.kind === "mill" ? millTargets(setup) : latheTargets(setup));

/**
 * The value that a name stands for in a lane, also of a ruling stored long ago. Throws when the lane has no such value.
 */
export function targetOf(setup: Setup, id: TargetId): Target {
  const found = targetsOf(setup).find((target) => target.id === id);
  if (!found) throw new Error(`targetOf: ${setup.exerciseId} has no value ${id}`);
  return found;
}
