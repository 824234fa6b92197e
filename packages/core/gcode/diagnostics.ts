/** What is wrong with a program; the sentence of each code is made in `words/program.ts`. */
export type DiagnosticCode =
  | "unknown-letter"
  | "unreadable-number"
  | "bracket"
  | "expression"
  | "loop"
  | "unknown-code"
  | "two-of-a-group"
  | "word-twice"
  | "word-missing"
  | "feed-missing"
  | "arc-without-center"
  | "arc-radius"
  | "arc-ends-differ"
  | "comp-in-arc"
  | "gouge"
  | "arc-too-small"
  | "cycle-levels"
  | "tool-missing"
  | "offset-row-missing"
  | "position-unknown"
  | "program-missing"
  | "target-missing"
  | "nesting"
  | "endless"
  | "division-by-zero"
  | "value";

/** Line and column from 1; `said` is what stands there, cut short. */
export interface Diagnostic {
  readonly code: DiagnosticCode;
  readonly line: number;
  readonly column: number;
  readonly said: string;
}

/** Stops the reading of a line, or the run: caught in this folder, never seen outside. */
export class Wrong extends Error {
  constructor(
    readonly code: DiagnosticCode,
    /** Where in the line, from 0. */
    readonly at = 0,
    readonly said = "",
  ) {
    super(code);
  }
}
