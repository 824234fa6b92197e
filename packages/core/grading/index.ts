/**
 * From a log to a ruling: values, working, method, safety and proving, every mark a finding with its reason; words are
 * made in `words`. What one machine has for itself stands under `machines/`.
 */
export { fitsPart } from "./machines/latheStated";
export { rule, rulingVersion, strandNames, upgradeRuling, withOverrides } from "./ruling";
export type { Marked, Override, Ruling, StrandMarks, StrandName } from "./ruling";
export { isValueRight, type RegisterRuling } from "./values";
export { mustHaveNames, mustHavesAsked, type MustHave, type NotPassed } from "./mustHaves";
export type { FeatureRuled, FigureRuled, PartRuled } from "./parts";
export type { SchoolRead } from "./kit";
export { stepsAsked, type Finding } from "./findings";
export { methodSteps, type MethodStep } from "./stepNames";
export { markingKitFor } from "./machines";
export { workingFaults, type WorkingFault, type WorkingFinding } from "./working";
export type { HandoverFinding } from "./handover";
