/** Registers in and out: a table of register and value, or a G10 program; what cannot be used is named line by line. */
export { readRegisters, type ReadRegister } from "./reading";
export { exchangeIds, printG10, printTable } from "./printing";
