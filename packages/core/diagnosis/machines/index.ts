export { placeProvenance } from "./millPlace";
export {
  masterOf,
  rowProvenance,
  rowWantedMm,
  sumProvenance,
  workProvenance,
  workWantedMm,
  type SplitSchool,
} from "./millLengths";
export { diameterProvenance } from "./millDiameter";
export { turnProvenance } from "./millTurn";
export { offsetProvenance } from "./latheOffset";
export {
  biasOf,
  contactsOf,
  measuredFor,
  offsetWantedMm,
  turretSumCounts,
  wayOf,
  type TurretAxis,
} from "./latheContact";
export { libraryValue } from "./latheLibrary";
export { axisHeightProvenance, gaugeErrorProvenance, heightProvenance } from "./latheStated";
