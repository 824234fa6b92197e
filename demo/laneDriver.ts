import {
  decide,
  evolve,
  observe,
  openLane,
  type Command,
  type LaneEvent,
  type LaneState,
  type Observation,
  type Refusal,
} from "@probe-lane/core/bench";
import type { LoggedEvent } from "@probe-lane/core/diagnosis";
import type { Exercise } from "@probe-lane/core/exercises";

/** One lane in memory: commands in, log out. Time is counted, not read: so many ms a command. */
export class LaneDriver {
  readonly log: LoggedEvent[] = [];
  state: LaneState;
  atMs: number;

  constructor(
    exercise: Exercise,
    seed: string,
    options: { isCoachOn?: boolean; startMs?: number; commandMs?: number } = {},
  ) {
    this.atMs = options.startMs ?? 0;
    this.commandMs = options.commandMs ?? 2500;
    const first = openLane(exercise, seed, options.isCoachOn ?? false);
    this.state = evolve(null, first);
    this.log.push({ seq: 1, atMs: this.atMs, event: first });
  }
  private readonly commandMs: number;

  private looked: { state: LaneState; seen: Observation } | null = null;

  /** What a student sees now; looked at once for each state, because hands look often. */
  get seen(): Observation {
    if (this.looked?.state !== this.state) this.looked = { state: this.state, seen: observe(this.state, "student") };
    return this.looked.seen;
  }

  private append(events: readonly LaneEvent[]): void {
    this.atMs += this.commandMs;
    for (const event of events) {
      this.state = evolve(this.state, event);
      this.log.push({ seq: this.log.length + 1, atMs: this.atMs, event });
    }
  }

  /** Does a command; a refusal is returned, and logged as the server does. */
  attempt(command: Command): Refusal | null {
    const decided = decide(this.state, command);
    this.append(
      decided.ok ? decided.value : [{ type: "commandRefused", command: command.type, refusal: decided.error }],
    );
    return decided.ok ? null : decided.error;
  }

  /** Does a command that must not be refused. */
  do(command: Command): Observation {
    const refusal = this.attempt(command);
    if (refusal) throw new Error(`LaneDriver: ${JSON.stringify(command)} refused: ${JSON.stringify(refusal)}`);
    return this.seen;
  }
}
