import { interpret, type DiagnosticCode, type Move, type Program, type RunOptions } from "../gcode";
import { type Contact, MOST_MOVES, TooManyMoves } from "./contact";

/** What came of a program: null where nothing forbidden was met. */
export type Proved = Contact | { readonly wrong: { readonly line: number; readonly code: DiagnosticCode } } | null;

/** Runs a program, figures in mm, until `meets` finds a forbidden contact in a move. */
export function firstContact(
  program: Program,
  options: Omit<RunOptions, "figures">,
  meets: (move: Move) => Contact | null,
): Proved {
  let moves = 0;
  for (const step of interpret(program, { ...options, figures: "mm" })) {
    if (step.type === "wrong") return { wrong: step };
    if (step.type !== "move") continue;
    if (++moves > MOST_MOVES) throw new TooManyMoves(step.line);
    const contact = meets(step);
    if (contact) return contact;
  }
  return null;
}
