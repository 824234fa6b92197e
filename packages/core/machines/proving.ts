import { readProgram, type Dialect } from "../gcode";
import { type FollowOptions, TooManyMoves, UnknownRegister, UnknownTool } from "../proving";
import { type LaneState } from "./kits";
import { canProveLathe, proofOnLathe } from "./lathe/proving";
import { canProveMill, proofOnMill } from "./mill/proving";
import { notFollowed } from "./program/notFollowed";
import { type ProgramProof } from "./proof";
import { UnreadWrite } from "./program/written";

export { type ProgramProof } from "./proof";

/** In which dialect a program can be run against the setup of a lane; null where none can be yet. */
export function provableIn(state: LaneState): Dialect | null {
  if (state.kind === "mill") return canProveMill(state) ? "mill" : null;
  return canProveLathe(state) ? "lathe" : null;
}

/** Whether the sheet lists a tool of this number: then it is there, and only cannot be run yet. */
const isListed = (state: LaneState, tool: number): boolean =>
  (state.kind === "mill" ? state.setup.tools : state.setup.lathe.tools).some(({ number }) => number === tool);

/**
 * A program run from home with the registers of a lane on the machine as it really is. Reads the truth: only for lanes
 * that were handed in. Null where `provableIn` is.
 */
export function proveProgram(state: LaneState, text: string, options: FollowOptions = {}): ProgramProof | null {
  const dialect = provableIn(state);
  if (dialect === null) return null;
  const program = readProgram(text, dialect);
  const left = program.diagnostics.length === 0 ? notFollowed(program) : null;
  if (left) return { kind: "notRun", line: left.line, code: left.word };
  try {
    return state.kind === "mill" ? proofOnMill(state, program, options) : proofOnLathe(state, program, options);
  } catch (error) {
    if (error instanceof UnknownTool)
      return { kind: isListed(state, error.tool) ? "otherTool" : "noTool", tool: error.tool, line: error.line };
    if (error instanceof UnreadWrite) return { kind: "notRun", line: error.line, code: "G10" };
    if (error instanceof TooManyMoves) return { kind: "tooLong", line: error.line };
    if (error instanceof UnknownRegister) return { kind: "noRegister", register: error.register };
    throw error;
  }
}
