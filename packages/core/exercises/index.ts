/**
 * What an exercise is, how a student's own variant of it is drawn, what its registers should hold, and whether it is
 * fair.
 */
export {
  exerciseSchema,
  faultKinds,
  markingSchema,
  millLengthSchools,
  setupTasks,
  type Doubtful,
  type Exercise,
  type FaultKind,
  type Marking,
  type MillLengthSchool,
  type SetupTask,
} from "./schema";
export { machineOf, machines, type Machine } from "./machine";
export { upgradeSetup, upgradeTruth } from "./upgrade";
export { drawLane, SLOW_BELOW_MM } from "./handover";
export {
  edgeOf,
  leftoverOf,
  paperOf,
  type Fault,
  type HandedLine,
  type Setup,
  type SetupEdge,
  type SetupTool,
  type Truth,
} from "./variant";
export {
  fairness,
  lengthBias,
  SETTING_GAUGE_U_MM,
  STACK_U_MM,
  lengthMethodsOf,
  together,
  turretBias,
  xyBias,
  type FairnessWarning,
  type LengthMethod,
  type MethodBias,
  type TurretMethod,
  type XyMethod,
} from "./fairness";
export { expectationOf, type ExpectedLine } from "./expectation";
export {
  expectedDiameter,
  expectedLengths,
  targetsOf,
  wantedLengthMm,
  workOffsetOf,
  type ExpectedRegister,
  type TargetId,
} from "./expected";
export {
  lowCorner,
  sceneBoxes,
  sceneSolids,
  SETTER_HEIGHT_MM,
  SETTER_PLACE_MM,
  skinZMm,
  surfaces,
  tableZMm,
  type Placing,
  type Scene,
  type Surface,
} from "./scene";
export {
  drawNewTool,
  farEdgeMm,
  latheSchools,
  turretToolKinds,
  type LatheControl,
  type LatheSchool,
  type LatheSheet,
  type LatheTruth,
  type TurretTool,
  type TurretToolKind,
} from "./lathe";
