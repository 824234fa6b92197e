import type { LaneEvent } from "../machines/events";
import { kitFor, type LaneState } from "../machines/kits";

/** The state after one fact. Pure; may not refuse. The first fact of a lane is `laneOpened`. */
export function evolve(state: LaneState | null, event: LaneEvent): LaneState {
  if (event.type === "laneOpened") {
    if (state) throw new Error("evolve: laneOpened must be the first event");
    return kitFor(event.setup.kind).opened(event);
  }
  if (!state) throw new Error(`evolve: a lane must begin with laneOpened: ${event.type}`);
  return evolveOn(state, event);
}

/** As `evolve` for a lane that is open. Throws for a fact that does not happen on its machine. */
export function evolveOn(state: LaneState, event: LaneEvent): LaneState {
  const change = kitFor(state.kind).evolve[event.type] as ((at: LaneState, fact: LaneEvent) => LaneState) | undefined;
  if (!change) throw new Error(`evolve: ${event.type} on a ${state.kind}`);
  return change(state, event);
}

/** State after a whole log. */
export function replay(events: readonly LaneEvent[]): LaneState {
  const [first, ...rest] = events;
  if (!first) throw new Error("replay: an empty log has no state");
  return foldFrom(evolve(null, first), rest);
}

export const foldFrom = (state: LaneState, events: readonly LaneEvent[]): LaneState =>
  events.reduce<LaneState>((at, event) => evolveOn(at, event), state);
