/** What registers mean: sums, displays, closures, and the schools that split one sum in different ways. */
export { centerFromContacts, type CenterAnswer } from "./center";
export { circleFromContacts, type CircleAnswer } from "./circle";
export { cornerFromContacts, skewFromContacts, type CornerAnswer } from "./skew";
export { sweepError, type SweepAnswer } from "./sweep";
export { closureMill, type MillClosure } from "./closure";
export { edgeFromContact, type Approach, type EdgeAnswer } from "./edge";
export {
  addToRegister,
  captureLength,
  captureOffset,
  captureWork,
  displayCounts,
  emptyMillRegisters,
  isRegisterId,
  lengthRows,
  lengthSum,
  machineFromDisplay,
  millRegisterIds,
  readRegister,
  registerAxis,
  registerKind,
  workOffsetNames,
  writeRegister,
  type Axis,
  type AxisCounts,
  type LengthCapture,
  type RegisterId,
  type Registers,
  type WorkOffsetName,
} from "./mill";
export { latheGeometry, latheTouchValue, type LatheTouch } from "./lathe";
export { latheSchool, readoutLibrary } from "./schools/lathe";
export { wearCorrection } from "./wear";
export {
  lengthsBySchool,
  convertSchool,
  rewriteSetup,
  setterLength,
  type RewriteTo,
  type SetupRow,
  type LengthSchoolInput,
  type LengthSchoolAnswer,
} from "./schools";
export {
  emptyTurret,
  turretColumns,
  turretPlace,
  turretRegisterIds,
  turretRows,
  turretSum,
  type TurretColumn,
  type TurretRegisterId,
  type TurretTable,
} from "./turret";
export { coneTouch, tipCodes, tipDirection, type TipCode } from "./nose";
