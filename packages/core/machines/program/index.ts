/** A program on a lane: loaded, looked up, proved and run, on every machine that runs one. */
export { linesSeen } from "./lines";
export { canBeRead } from "./readable";
export type { AskSeen, ProgramSeen } from "./observe";
export { askKinds, outcomes, type AskKind, type Outcome, type RunHold } from "../../lane/programNames";
