/**
 * From a log to a ruling: values, method and safety, every mark a finding with its reason; words are made in `words`.
 */
export { fitsPart } from "./stated";
export {
  rule,
  rulingVersion,
  strandNames,
  upgradeRuling,
  withOverrides,
  type Override,
  type RegisterRuling,
  type Ruling,
  type SchoolRead,
  type StrandMarks,
  type StrandName,
} from "./ruling";
export { methodSteps, stepsFor, type Finding, type MethodStep } from "./findings";
export { workingFaults, type WorkingFault, type WorkingFinding } from "./working";
export type { HandoverFinding } from "./handover";
