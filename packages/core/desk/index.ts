/** Calculators that stand alone, and the table of operations that the command line and the desk share. */
export { operations, runOperation, type OperationRefusal } from "./operations";
export { standardUncertainty, type UncertaintyTerm } from "./uncertainty";
