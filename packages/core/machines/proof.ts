import { type DiagnosticCode } from "../gcode";
import { type Contact } from "../proving";

/** What came of a program that was run with a lane's registers. */
export type ProgramProof =
  | { readonly kind: "clear" }
  | { readonly kind: "contact"; readonly contact: Contact }
  | { readonly kind: "wrong"; readonly line: number; readonly code: DiagnosticCode }
  | { readonly kind: "noTool"; readonly tool: number; readonly line: number }
  | { readonly kind: "noRegister"; readonly register: string };
