/** What a program clears with these registers on a true machine, and how far a ray runs through it: no raster. */
export { millRay, millSweeps, sweptByMill, type CuttingTruth, type CutProblem, type Ray } from "./mill";
export { sweptByNose, turnedRay, turnedSweeps, type NoseRows, type TurningTruth } from "./lathe";
export { readFeature, readWhereItLies, verdictOf, type Feature, type PartVerdict, type RunsClear } from "./features";
export { topsAfter } from "./relief";
export { isTurned, noseBounds, type End, type NoseSweep, type Sweep } from "./sweep";
export { sprungNoses, sprungSweeps, type Bending } from "./spring";
