/**
 * The floor lane: taken at a real machine. Entries are facts with their own ids, in any order of arrival; the
 * instructor's check is the truth.
 */
export {
  floorExerciseSchema,
  floorFromTemplate,
  templateSchema,
  floorFairness,
  floorSchools,
  type FloorExercise,
  type FloorRegister,
  type FloorSchool,
  type FloorTemplate,
} from "./exercise";
export {
  entrySchema,
  foldFloor,
  floorGatesOf,
  floorGateNames,
  instructorEntryTypes,
  type FloorEntry,
  type FloorGateName,
  type FloorState,
  type StoredFloorEntry,
} from "./state";
export { combineChecks, type CheckReading, type Combined } from "./checks";
export { ruleFloor, type FloorRuling, type FloorValue } from "./ruling";
