import type { LaneEvent } from "./events";
import { evolve, type LaneState } from "./state";

/** Events in the making: what has been decided so far and the state it leads to. */
export class Draft {
  readonly events: LaneEvent[] = [];
  constructor(public state: LaneState) {}

  emit(event: LaneEvent): void {
    this.events.push(event);
    this.state = evolve(this.state, event);
  }
}
