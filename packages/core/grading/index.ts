/** From a log to a ruling: values, method and safety, every mark a finding with its reason; words are made in `words`. */
export { rule, rulingVersion, upgradeRuling, type RegisterRuling, type Ruling, type SchoolRead, type StrandMarks } from "./ruling";
export { methodSteps, stepsFor, type Finding, type MethodStep } from "./findings";
export { workingFaults, type WorkingFault, type WorkingFinding } from "./working";
