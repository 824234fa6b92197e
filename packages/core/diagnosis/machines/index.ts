export { placeProvenance } from "./millPlace";
export { sumProvenance } from "./millLengths";
export { rowProvenance } from "./millRow";
export { masterOf, rowWantedMm, workWantedMm, type SplitSchool } from "./millSplit";
export { workProvenance } from "./millWork";
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
