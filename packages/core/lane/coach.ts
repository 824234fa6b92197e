import type { SetupTask } from "../exercises/schools";

/** The next step and why, as data; words are made elsewhere. */
export interface CoachStep<C extends string = string> {
  readonly code: C;
  readonly axis?: "x" | "y" | "z";
  readonly tool?: number | undefined;
  readonly task?: SetupTask | undefined;
}

/** Steps that every machine has. */
export const sharedCoachCodes = ["resetAfterStrike", "home", "doTask", "checkIt", "judgeSetup", "handIn"] as const;
