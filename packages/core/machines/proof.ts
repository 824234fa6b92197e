import { type DiagnosticCode } from "../gcode";
import { type Contact } from "../proving";

/** What came of a program that was run with a lane's registers. */
export type ProgramProof =
  | { readonly kind: "clear" }
  | { readonly kind: "contact"; readonly contact: Contact }
  | { readonly kind: "wrong"; readonly line: number; readonly code: DiagnosticCode }
  /** There is none of this number; or there is, and it cannot be run yet (a drill, a threading tool of a lathe). */
  | { readonly kind: "noTool" | "otherTool"; readonly tool: number; readonly line: number }
  /** The program says something that is not followed here: its answer would be about another way. */
  | { readonly kind: "notRun"; readonly line: number; readonly code: string }
  /** More moves than are proved. */
  | { readonly kind: "tooLong"; readonly line: number }
  | { readonly kind: "noRegister"; readonly register: string };
