/**
 * What an exercise is, how a student's own variant of it is drawn, what its registers should hold, and whether it is
 * fair. What one machine has for itself stands under `machines/`.
 */
export {
  askedHere,
  exerciseSchema,
  machineOf,
  markingSchema,
  mustHavesSchema,
  type Exercise,
  type Marking,
  type MustHaves,
  type Touching,
} from "./schema";
export {
  doubtful,
  faultKinds,
  latheSchools,
  readoutSchool,
  machines,
  machineTasks,
  millLengthSchools,
  setupTasks,
  turretToolKinds,
  type Doubtful,
  type FaultKind,
  type KeptChangeKind,
  type KeptThing,
  type LatheKind,
  type LatheSchool,
  type Machine,
  type MillLengthSchool,
  type ProgramFaultKind,
  type ProvingSchool,
  type SetupTask,
  type TurretToolKind,
} from "./schools";
export { upgradeSetup, upgradeTruth } from "./upgrade";
export { drawLane, SLOW_BELOW_MM } from "./handover";
export {
  drawOf,
  edgeOf,
  leftoverOf,
  paperOf,
  schoolsOf,
  type Draw,
  type Fault,
  type HandedLine,
  type KeptSetup,
  type LatheSheet,
  type LatheTruth,
  type MillDraw,
  type MillSetup,
  type MillTruth,
  type ProgramFault,
  type StoredProgram,
  type Setup,
  type SetupEdge,
  type SetupTool,
  type Truth,
  type TurningDraw,
  type TurningSetup,
  type TurningTruth,
  type TurretTool,
} from "./setup";
export {
  lengthBias,
  NO_BIAS,
  SETTING_GAUGE_U_MM,
  STACK_U_MM,
  together,
  turretBias,
  xyBias,
  type ExpectedLine,
  type FairnessWarning,
  type LengthMethod,
  type MethodBias,
  type TurretMethod,
  type XyMethod,
} from "./bias";
export { fairness, hiddenMistakes, type HiddenMistake } from "./fairness";
export { lengthMethodsOf } from "./machines/millFairness";
export { expectationOf } from "./expectation";
export { expectedDiameter, expectedLengths, wantedLengthMm, type ExpectedRegister } from "./machines/millExpected";
export { workOffsetOf } from "./machines/millTargets";
export { targetOf, targetsOf } from "./targets";
export { ownRegister, type Target, type TargetId, type TargetKind } from "./target";
export {
  lowCorner,
  sceneBoxes,
  sceneSolids,
  SETTER_HEIGHT_MM,
  SETTER_PLACE_MM,
  skinZMm,
  gauges,
  surfaces,
  tableZMm,
  type Placing,
  type Scene,
  type Surface,
} from "./scene";
export { drawNewTool, farEdgeMm } from "./machines/lathe";
