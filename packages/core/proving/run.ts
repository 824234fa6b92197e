import { type DiagnosticCode, type Step } from "../gcode";
import { type Contact, MOST_MOVES, TooManyMoves } from "./contact";
import { type Way, type WayStep } from "./ways";

/** What came of a program: null where nothing forbidden was met. */
export type Proved = Contact | { readonly wrong: { readonly line: number; readonly code: DiagnosticCode } } | null;

/** How a program is followed. */
export interface FollowOptions {
  /** Blocks after a slash are passed over. */
  readonly blockDelete?: boolean | undefined;
  /** Told now and then how many moves were followed. */
  readonly onMoves?: ((moves: number) => void) | undefined;
  /** Told of a G10 before what comes after it is followed. */
  readonly onWrite?: ((write: Write) => void) | undefined;
}

/** A G10 on its way. */
export type Write = Extract<Step, { type: "write" }>;

/** What a program does, with each G10 told before what comes after it is worked out. */
export function* toldWrites(
  steps: Iterable<Step>,
  onWrite: ((write: Write) => void) | undefined,
): Generator<Step, void, void> {
  for (const step of steps) {
    if (step.type === "write") onWrite?.(step);
    yield step;
  }
}
const TOLD_EVERY = 500;

/** Follows the ways of a program until `meets` finds a forbidden contact in one. */
export function firstContact(
  steps: Iterable<WayStep>,
  meets: (way: Way) => Contact | null,
  onMoves?: (moves: number) => void,
): Proved {
  let moves = 0;
  for (const step of steps) {
    if (step.type === "wrong") return { wrong: step };
    if (step.type !== "way") continue;
    if (++moves > MOST_MOVES) throw new TooManyMoves(step.line);
    if (onMoves && moves % TOLD_EVERY === 0) onMoves(moves);
    const contact = meets(step);
    if (contact) return contact;
  }
  return null;
}
