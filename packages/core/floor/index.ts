/**
 * The floor lane: taken at a real machine. Entries are facts with their own ids, in any order of arrival; the
 * instructor's check is the truth.
 */
export {
  floorExerciseSchema,
  floorFairness,
  floorCorners,
  floorDatumWords,
  floorMiddles,
  floorSchools,
  isFloorCorner,
  isReadOff,
  readingsWanted,
  type FloorExercise,
  type FloorRegister,
  type FloorSchool,
} from "./exercise";
export {
  floorDiameters,
  floorFromTemplate,
  isByFirstTool,
  templateFigures,
  templateSchema,
  type FloorTemplate,
} from "./template";
export {
  assistantEntryTypes,
  entrySchema,
  instructorEntryTypes,
  paperEntryTypes,
  lateMinutes,
  type FloorEntry,
  type StoredFloorEntry,
} from "./entries";
export { foldFloor, floorGatesOf, floorGateNames, type FloorGateName, type FloorState } from "./state";
export { initialsOf, isJudgedWithin, signingProblems, type FloorSignature, type SigningProblem } from "./signature";
export { floorPartInstruments, partFeatureOf, type PartFeature, type PartRead } from "./part";
export { readForFloor } from "./importing";
export { termsOffered, type OfferedTerm } from "./terms";
export { combineChecks, type CheckReading, type Combined } from "./checks";
export { ruleFloor, type FloorRuling, type FloorValue } from "./ruling";
