import { type DiagnosticCode } from "../gcode";
import { type Contact, MOST_MOVES, TooManyMoves } from "./contact";
import { type Way, type WayStep } from "./ways";

/** What came of a program: null where nothing forbidden was met. */
export type Proved = Contact | { readonly wrong: { readonly line: number; readonly code: DiagnosticCode } } | null;

/** Follows the ways of a program until `meets` finds a forbidden contact in one. */
export function firstContact(steps: Iterable<WayStep>, meets: (way: Way) => Contact | null): Proved {
  let moves = 0;
  for (const step of steps) {
    if (step.type === "wrong") return { wrong: step };
    if (step.type !== "way") continue;
    if (++moves > MOST_MOVES) throw new TooManyMoves(step.line);
    const contact = meets(step);
    if (contact) return contact;
  }
  return null;
}
