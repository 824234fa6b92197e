import { type Feed, type MoveKind } from "./moves";
import { type Said } from "./said";

/** A figure as it was written: a height, or a step from where the cycle counts it. */
export interface Level {
  readonly value: number;
  readonly isStep: boolean;
}

export interface DrillingCycle {
  readonly code: number;
  /** Where Z stood when a cycle was called with none in force. */
  readonly initial: number;
  readonly depth?: Level;
  readonly retract?: Level;
  readonly peck?: number;
}

/** What the first block of a cycle of two says, by letter, as it was written. */
export type PassWords = Readonly<Partial<Record<"P" | "Q" | "R" | "U" | "W", number>>>;

/** What a cycle needs of the run that it is part of. Places and lengths in the unit of the figures. */
export interface Rig {
  readonly said: Said;
  /** Pecks and passes are gone through one by one, as a machine does; otherwise a cycle is its outline. */
  readonly isExpanding: boolean;
  /** A millimetre, and the unit of the words that are written now, in the unit of the figures. */
  readonly mm: number;
  readonly unit: number;
  readonly place: number[];
  readonly shift: number[];
  readonly isIncremental: boolean;
  readonly returnsToInitial: boolean;
  drilling: DrillingCycle | null;
  turning: TurningCycle | null;
  passes: PassWords;
  length(letter: string): number | null;
  /** A word in the least steps of a control: thousandths of a millimetre, ten-thousandths of an inch. */
  steps(value: number | null | undefined): number | null;
  goal(): number[];
  lead(): Feed | null;
  /** Counts holes of one block; throws where they are more than any program has. */
  repeat(times: number): void;
  go(kind: MoveKind, to: number[], named: number, feed?: Feed | null): void;
}

/** X (a diameter), Z and R of a turning cycle, as they hold from block to block. */
export interface TurningCycle {
  readonly x?: number;
  readonly z?: number;
  readonly taper?: number;
}
