import { readProgram, type Dialect, type Program } from "../gcode";
import { TooManyMoves, UnknownRegister, UnknownTool } from "../proving";
import { type LaneState } from "./kits";
import { canProveLathe, proofOnLathe } from "./lathe/proving";
import { canProveMill, proofOnMill } from "./mill/proving";
import { type ProgramProof } from "./proof";

export { type ProgramProof } from "./proof";

/** In which dialect a program can be run against the setup of a lane; null where none can be yet. */
export function provableIn(state: LaneState): Dialect | null {
  if (state.kind === "mill") return canProveMill(state) ? "mill" : null;
  return canProveLathe(state) ? "lathe" : null;
}

/** Codes whose ways are not followed: compensation, written registers, cycles of many passes, declared positions. */
const NOT_FOLLOWED: Readonly<Record<Dialect, ReadonlySet<number>>> = {
  mill: new Set([10, 30, 41, 42]),
  lathe: new Set([10, 30, 41, 42, 50, 71, 72, 73, 74, 75, 76]),
};
const LIMITS_SPEED = 50;

/** The first block that says something which is not followed; G50 that only limits the speed is. */
function notFollowed({ dialect, blocks }: Program): ProgramProof | null {
  for (const { line, letters, values } of blocks)
    for (let i = 0; i < letters.length; i++) {
      const code = values[i];
      if (letters[i] !== "G" || typeof code !== "number" || !NOT_FOLLOWED[dialect].has(code)) continue;
      if (code !== LIMITS_SPEED || /[XZUW]/.test(letters)) return { kind: "notRun", line, code: `G${code}` };
    }
  return null;
}

/** Whether the sheet lists a tool of this number: then it is there, and only cannot be run yet. */
const isListed = (state: LaneState, tool: number): boolean =>
  (state.kind === "mill" ? state.setup.tools : state.setup.lathe.tools).some(({ number }) => number === tool);

/**
 * A program run from home with the registers of a lane on the machine as it really is. Reads the truth: only for lanes
 * that were handed in. Null where `provableIn` is.
 */
export function proveProgram(state: LaneState, text: string, blockDelete = false): ProgramProof | null {
  const dialect = provableIn(state);
  if (dialect === null) return null;
  const program = readProgram(text, dialect);
  const left = program.diagnostics.length === 0 ? notFollowed(program) : null;
  if (left) return left;
  try {
    return state.kind === "mill" ? proofOnMill(state, program, blockDelete) : proofOnLathe(state, program, blockDelete);
  } catch (error) {
    if (error instanceof UnknownTool)
      return { kind: isListed(state, error.tool) ? "otherTool" : "noTool", tool: error.tool, line: error.line };
    if (error instanceof TooManyMoves) return { kind: "tooLong", line: error.line };
    if (error instanceof UnknownRegister) return { kind: "noRegister", register: error.register };
    throw error;
  }
}
