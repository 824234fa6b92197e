/** What every lane has, whatever its machine: names, registers and ledger, checks, gates, what is refused. */
export {
  checkNames,
  jogClicks,
  jogMm,
  jogSizeNames,
  sides,
  termNames,
  type CheckName,
  type JogSize,
  type Side,
  type TermName,
} from "./names";
export { isAlike, isReadOff } from "./checks";
export type { CoachMark, CoachStep } from "./coach";
export type { Gate } from "./gates";
export type { Refusal } from "./refusals";
export type { LedgerLine, Reading } from "./state";
export { spindleRanges } from "./travel";
