/**
 * From a wrong number to the mistake behind it: evidence in the log first, inference from the number second, never a
 * guess.
 */
export { infer, type Candidate, type Inference, type Ranked } from "./infer";
export {
  catalog,
  methods,
  mistakeIds,
  signaturesFor,
  type FigureName,
  type Figures,
  type Method,
  type MistakeId,
  type Signature,
} from "./catalog";
export { edgeSignatures, lengthSignatures, sheetRadiusMm, targetSignatures } from "./benchSignatures";
export { explain, habitsOf, wantedFrom, type Explained, type Explanation } from "./explain";
export { traceLane, type LaneTrace, type LoggedEvent, type MillTrace, type TurningTrace } from "./trace";
export {
  causeOf,
  worthNaming,
  WORTH_NAMING_MM,
  type Cause,
  type CauseId,
  type CauseSignature,
  type Provenance,
  type Term,
} from "./cause";
