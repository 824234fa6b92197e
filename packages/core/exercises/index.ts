/** What an exercise is, how a student's own variant of it is drawn, and whether its tolerances are fair. */
export { exerciseSchema, markingSchema, type Exercise, type Marking } from "./schema";
export { drawLane, type Setup, type Truth } from "./variant";
export { fairness, methodBias, type FairnessWarning, type MethodBias } from "./fairness";
export { sceneBoxes, skinZMm, tableZMm, type Surface } from "./scene";
