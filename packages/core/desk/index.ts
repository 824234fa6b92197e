/** Calculators that stand alone, and the table of operations that the command line and the desk share. */
export { centerHeight, type CenterHeightAnswer } from "../registers/centerHeight";
export { cuttingData } from "./cuttingData";
export { gaugeSets, gaugeStack, readGaugeSet, type GaugeSet, type GaugeStackAnswer } from "./gaugeStack";
export { noseAngleOf, readInsert, type InsertAnswer, type InsertRefusal } from "./insert";
export { steepestFallDeg } from "../registers/nose";
export { operations, runOperation, type OperationRefusal } from "./operations";
export { standardUncertainty, type UncertaintyTerm } from "./uncertainty";
