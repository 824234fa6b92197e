import { evolve, gatesOf, type LaneEvent, type LaneState } from "../bench";
import type { LoggedEvent } from "../diagnosis";

/** Longer than this between two entries nobody was at work, ms. */
const AT_WORK_MS = 5 * 60_000;

/** What only carries from one thing to the next: no gate opens by it. */
const CARRIES: ReadonlySet<LaneEvent["type"]> = new Set<LaneEvent["type"]>([
  "jogged",
  "moved",
  "wobbleChanged",
  "approachBegan",
  "approachEnded",
  "leftHard",
]);

/** A gate of a lane, by its name, and how long the student was at work on what led to it, ms. */
export interface GatePassed {
  readonly gate: string;
  readonly workMs: number;
}

/**
 * How long each gate of a lane took, in the order in which they were first passed: time at work since the one before.
 * A gate that was never passed is not there. The log begins with the opening of the lane, as `replay` asks.
 */
export function paceOf(log: readonly LoggedEvent[]): GatePassed[] {
  const passed: GatePassed[] = [];
  const open = new Set<string>();
  let state: LaneState | null = null;
  let [beforeMs, workMs] = [log[0]?.atMs ?? 0, 0];
  for (const { event, atMs } of log) {
    state = evolve(state, event);
    workMs += Math.min(AT_WORK_MS, Math.max(0, atMs - beforeMs));
    beforeMs = atMs;
    if (CARRIES.has(event.type)) continue;
    for (const { name, isPassed } of gatesOf(state)) {
      if (!isPassed || open.has(name)) continue;
      open.add(name);
      // of gates that open together the first has the time
      passed.push({ gate: name, workMs });
      workMs = 0;
    }
  }
  return passed;
}

/** How long a gate took a class, ms: the middle of all lanes that passed it, the quickest and the slowest. */
export interface GatePace {
  readonly gate: string;
  readonly lanes: number;
  readonly leastMs: number;
  readonly middleMs: number;
  readonly mostMs: number;
}

/** The pace of a class, gate by gate, in the order that is given. */
export function gatePace(gates: readonly string[], lanes: readonly (readonly GatePassed[])[]): GatePace[] {
  return gates.flatMap((gate): GatePace[] => {
    const took = lanes
      .flatMap((own) => own.filter((one) => one.gate === gate).map(({ workMs }) => workMs))
      .sort((a, b) => a - b);
    const [leastMs, mostMs] = [took[0], took.at(-1)];
    if (leastMs === undefined || mostMs === undefined) return [];
    // of an even number the mean of the two in the middle
    const [low, high] = [took[Math.floor((took.length - 1) / 2)], took[Math.floor(took.length / 2)]];
    return [{ gate, lanes: took.length, leastMs, middleMs: ((low ?? 0) + (high ?? 0)) / 2, mostMs }];
  });
}
