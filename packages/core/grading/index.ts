/** From a log to a ruling: values, method and safety, every mark a finding with its reason; words are made in `words`. */
export { rule, rulingVersion, type RegisterRuling, type Ruling, type StrandMarks } from "./ruling";
export { methodSteps, type Finding, type MethodStep } from "./findings";
