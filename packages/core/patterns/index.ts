/** What a class gets wrong, read from rulings and logs: mistakes, values beside one another, incidents, steps, pace. */
export { patternOf, patternAtMachine, type LanePattern, type MachinePattern, type ValueMet } from "./lane";
export { patternsOf, type ClassPatterns, type Met, type MistakeMade, type ValueSpread } from "./classPatterns";
export { gatePace, paceOf, type GatePace, type GatePassed } from "./pace";
