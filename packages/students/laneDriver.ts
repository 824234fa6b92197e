import {
  decide,
  evolve,
  observe,
  openLane,
  type Command,
  type LaneEvent,
  type LaneState,
  type MillLane,
  type MillSeen,
  type Observation,
  type TurningLane,
  type TurningSeen,
} from "@probe-lane/core/bench";
import type { Refusal } from "@probe-lane/core/lane";
import type { LoggedEvent } from "@probe-lane/core/diagnosis";
import { machineOf, type Exercise } from "@probe-lane/core/exercises";
import type { Bench } from "./bench";

/** The state behind what is seen of a lane: a mill's or a lathe's. */
type StateOf<S extends Observation> = S extends MillSeen ? MillLane : TurningLane;

interface Pace {
  readonly isCoachOn?: boolean;
  readonly startMs?: number;
  /** How long a command takes, by the lane's clock. */
  readonly commandMs?: number;
}

/** One lane in memory: commands in, log out. Time is counted, not read: so many ms a command. */
export class LaneDriver<S extends Observation = Observation> implements Bench<S> {
  readonly log: LoggedEvent[] = [];
  state: StateOf<S>;
  atMs: number;

  constructor(exercise: Exercise, seed: string, options: Pace = {}) {
    this.atMs = options.startMs ?? 0;
    this.commandMs = options.commandMs ?? 2500;
    const first = openLane(exercise, seed, options.isCoachOn ?? false);
    this.state = evolve(null, first) as StateOf<S>;
    this.log.push({ seq: 1, atMs: this.atMs, event: first });
  }
  private readonly commandMs: number;

  private looked: { state: LaneState; seen: S } | null = null;

  /** What a student sees now; looked at once for each state, because hands look often. */
  get seen(): S {
    if (this.looked?.state !== this.state)
      this.looked = { state: this.state, seen: observe(this.state, "student") as S };
    return this.looked.seen;
  }

  private append(events: readonly LaneEvent[]): void {
    this.atMs += this.commandMs;
    for (const event of events) {
      this.state = evolve(this.state, event) as StateOf<S>;
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
  do(command: Command): S {
    const refusal = this.attempt(command);
    if (refusal) throw new Error(`LaneDriver: ${JSON.stringify(command)} refused: ${JSON.stringify(refusal)}`);
    return this.seen;
  }
}

/** A lane on a mill. */
export function millLane(exercise: Exercise, seed: string, pace?: Pace): LaneDriver<MillSeen> {
  if (machineOf(exercise) !== "mill") throw new Error(`${exercise.id} is not an exercise for a mill.`);
  return new LaneDriver(exercise, seed, pace);
}

/** A lane on any of the lathes. */
export function latheLane(exercise: Exercise, seed: string, pace?: Pace): LaneDriver<TurningSeen> {
  if (machineOf(exercise) === "mill") throw new Error(`${exercise.id} is not an exercise for a lathe.`);
  return new LaneDriver(exercise, seed, pace);
}
