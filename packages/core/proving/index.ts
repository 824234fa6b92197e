/** A program run on a machine as it really is: the first contact that must not happen, and where. */
export { type Contact, type ContactKind } from "./contact";
export { proveLathe, type LatheRegisters, type LatheWorld, type TurningTool } from "./lathe";
export { proveMill, UnknownRegister, UnknownTool, type MillRegisters, type MillWorld } from "./mill";
export { type MillTool } from "./millTool";
