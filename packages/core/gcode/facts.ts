import { type Dialect } from "./dialects";
import { type Diagnostic } from "./diagnostics";
import { programReaches, type Reach } from "./envelope";
import { interpret, type RunOptions } from "./interpret";
import { type Move } from "./moves";
import { readProgram } from "./program";

/** What a program calls for one tool in one work offset, as it is written: nothing of any machine. */
export interface ToolCall {
  readonly tool: number;
  readonly frame: string;
  /** Rows of length (mill) or of the tool table (lathe) that were in force, in order; null: none. */
  readonly rows: readonly (number | null)[];
  readonly diameterRows: readonly number[];
  readonly spindle: readonly Move["spindle"][];
  readonly speeds: readonly NonNullable<Move["speed"]>[];
  readonly firstLine: number;
  readonly fedMoves: number;
  readonly rapidMoves: number;
  readonly reach: Reach | null;
}

export interface ProgramFacts {
  readonly lines: number;
  readonly blocks: number;
  readonly calls: readonly ToolCall[];
  /** Everything wrong, with line, column and what stands there. */
  readonly diagnostics: readonly Diagnostic[];
  readonly stops: readonly { readonly line: number; readonly kind: "M0" | "M1" }[];
  readonly end: { readonly line: number; readonly kind: "M2" | "M30" | "text" } | null;
  /** Lines that write registers: G10, and gaugings that correct. */
  readonly writes: readonly number[];
}

type Growing = { -readonly [K in keyof ToolCall]: ToolCall[K] extends readonly (infer T)[] ? T[] : ToolCall[K] };

const addOnce = <T>(list: T[], value: T): void => {
  if (!list.some((one) => JSON.stringify(one) === JSON.stringify(value))) list.push(value);
};

/**
 * What can be read out of a program before anything moves: for each tool and work offset the rows, spindle and speeds
 * that it is run with, and how far it goes; what is wrong; where it stops. Figures in the unit in which it starts.
 */
export function programFacts(text: string, dialect: Dialect, options: RunOptions): ProgramFacts {
  const program = readProgram(text, dialect);
  const calls = new Map<string, Growing>();
  const stops: { line: number; kind: "M0" | "M1" }[] = [];
  const writes: number[] = [];
  const diagnostics: Diagnostic[] = [...program.diagnostics];
  let end: ProgramFacts["end"] = null;
  const take = (move: Move): void => {
    if (move.tool === null || move.isReturn || move.isMachineFrame) return;
    const key = `${move.tool} ${move.frame}`;
    const call: Growing = calls.get(key) ?? {
      tool: move.tool,
      frame: move.frame,
      rows: [],
      diameterRows: [],
      spindle: [],
      speeds: [],
      firstLine: move.line,
      fedMoves: 0,
      rapidMoves: 0,
      reach: null,
    };
    calls.set(key, call);
    const isFed = move.kind !== "rapid";
    if (isFed) call.fedMoves += 1;
    else call.rapidMoves += 1;
    // what is called on the way to the part does not count until something is fed
    if (!isFed) return;
    addOnce(call.rows, move.row);
    addOnce(call.spindle, move.spindle);
    if (move.speed) addOnce(call.speeds, move.speed);
    if (move.diameterRow !== null) addOnce(call.diameterRows, move.diameterRow);
  };
  for (const step of interpret(program, options)) {
    if (step.type === "move") take(step);
    else if (step.type === "stop") stops.push({ line: step.line, kind: step.kind });
    else if (step.type === "end") end = { line: step.line, kind: step.kind };
    else if (step.type === "write" || (step.type === "gauge" && step.cycle === "correct")) writes.push(step.line);
    else if (step.type === "wrong" && program.diagnostics.length === 0)
      diagnostics.push({ code: step.code, line: step.line, column: 1, said: "" });
  }
  const { reaches } = programReaches(text, dialect, options);
  return {
    lines: program.lastLine,
    blocks: program.blocks.length,
    calls: [...calls.values()].map((call) => ({
      ...call,
      reach: reaches.find(({ tool, frame }) => tool === call.tool && frame === call.frame) ?? null,
    })),
    diagnostics,
    stops,
    end,
    writes,
  };
}
