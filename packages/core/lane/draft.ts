import type { LaneEvent } from "../machines/events";

/**
 * Events in the making: what has been decided so far, and the state it leads to. It is handed how its machine's facts
 * change a lane, so that acts need to know nothing of one another.
 */
export class Draft<S> {
  readonly events: LaneEvent[] = [];
  constructor(
    public state: S,
    private readonly evolve: (state: S, event: LaneEvent) => S,
  ) {}

  emit(event: LaneEvent): void {
    this.events.push(event);
    this.state = this.evolve(this.state, event);
  }

  /** A draft of its own from a state that is only tried. */
  trial(state: S): Draft<S> {
    return new Draft(state, this.evolve);
  }
}
