import type { ProvingSchool, SetupTask } from "../exercises/schools";
import type { RegisterId } from "../registers";

/** The next step and why, as data; words are made elsewhere. */
export interface CoachStep<C extends string = string> {
  readonly code: C;
  readonly axis?: "x" | "y" | "z";
  readonly tool?: number | undefined;
  readonly register?: RegisterId | undefined;
  readonly task?: SetupTask | undefined;
  /** The school of proving that is next. */
  readonly school?: ProvingSchool | undefined;
}

/** A part of the gate that is next, and whether the log has it: a fact of what was done, never of what is right. */
export interface CoachMark {
  readonly code: "task" | "homed" | "found" | "foundAgain" | "set" | "toolIn" | "touched" | "proved";
  readonly isDone: boolean;
  readonly axis?: "x" | "y" | "z";
  readonly tool?: number;
  readonly task?: SetupTask;
  readonly school?: ProvingSchool;
}

/** Steps that every machine has. */
export const sharedCoachCodes = [
  "resetAfterStrike",
  "home",
  "doTask",
  "checkIt",
  "checkAgain",
  "answerCheck",
  "judgeSetup",
  "loadProgram",
  "proveProgram",
  "runProgram",
  "measurePart",
  "correctPart",
  "handIn",
] as const;
