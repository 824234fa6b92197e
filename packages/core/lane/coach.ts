import type { SetupTask } from "../exercises/schools";
import type { RegisterId } from "../registers";

/** The next step and why, as data; words are made elsewhere. */
export interface CoachStep<C extends string = string> {
  readonly code: C;
  readonly axis?: "x" | "y" | "z";
  readonly tool?: number | undefined;
  readonly register?: RegisterId | undefined;
  readonly task?: SetupTask | undefined;
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
  "handIn",
] as const;
