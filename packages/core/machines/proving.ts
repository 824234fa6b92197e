import { readProgram } from "../gcode";
import { UnknownRegister, UnknownTool } from "../proving";
import { type LaneState } from "./kits";
import { type ProgramProof } from "./proof";
import { canProveMill, proofOnMill } from "./mill/proving";

export { type ProgramProof } from "./proof";

/** Whether a program can be run against the setup of a lane: so far on a mill with a plain blank. */
export const canProve = (state: LaneState): boolean => state.kind === "mill" && canProveMill(state);

/**
 * A program run from home with the registers of a lane on the machine as it really is. Reads the truth: only for lanes
 * that were handed in. Null where `canProve` is false.
 */
export function proveProgram(state: LaneState, text: string, blockDelete = false): ProgramProof | null {
  if (state.kind !== "mill" || !canProveMill(state)) return null;
  try {
    return proofOnMill(state, readProgram(text, "mill"), blockDelete);
  } catch (error) {
    if (error instanceof UnknownTool) return { kind: "noTool", tool: error.tool, line: error.line };
    if (error instanceof UnknownRegister) return { kind: "noRegister", register: error.register };
    throw error;
  }
}
