import { type DiagnosticCode } from "./diagnostics";
import { type Dialect } from "./dialects";
import { interpret, type RunOptions } from "./interpret";
import { type Move } from "./moves";
import { readProgram } from "./program";

/** A move as the command line tells it: null where an axis is not known, or not named in the machine's frame. */
export interface ListedMove {
  readonly line: number;
  readonly kind: Move["kind"];
  readonly to: readonly (number | null)[];
  readonly feed: Move["feed"];
  readonly tool: number | null;
  readonly wcs: string;
  readonly row: number | null;
  readonly comp: "none" | "left" | "right";
  readonly d: number | null;
  readonly machineFrame: boolean;
  readonly center?: readonly [number, number];
  readonly plane?: number;
}

export type Listing =
  | {
      readonly moves: readonly ListedMove[];
      readonly stops: readonly { readonly line: number; readonly kind: "M0" | "M1" }[];
      readonly ends: { readonly line: number; readonly kind: "M2" | "M30" | "text" };
    }
  | { readonly errors: readonly { readonly line: number; readonly code: DiagnosticCode }[] };

export const listMove = (move: Move): ListedMove => ({
  line: move.line,
  kind: move.kind,
  to: move.to.map((value) => (Number.isNaN(value) ? null : value)),
  feed: move.feed,
  tool: move.tool,
  wcs: move.frame,
  row: move.row,
  comp: move.compensation,
  d: move.diameterRow,
  machineFrame: move.isMachineFrame,
  ...(move.center && { center: move.center, plane: move.plane }),
});

/** All that a program commands, on no machine in particular; or what is wrong with it, and nothing else. */
export function listMoves(text: string, dialect: Dialect, options: RunOptions): Listing {
  const moves: ListedMove[] = [];
  const stops: { line: number; kind: "M0" | "M1" }[] = [];
  const errors: { line: number; code: DiagnosticCode }[] = [];
  let ends: { line: number; kind: "M2" | "M30" | "text" } = { line: 0, kind: "text" };
  for (const step of interpret(readProgram(text, dialect), options)) {
    if (step.type === "move") moves.push(listMove(step));
    else if (step.type === "stop") stops.push({ line: step.line, kind: step.kind });
    else if (step.type === "end") ends = { line: step.line, kind: step.kind };
    else if (step.type === "wrong") errors.push({ line: step.line, code: step.code });
  }
  return errors.length > 0 ? { errors } : { moves, stops, ends };
}
