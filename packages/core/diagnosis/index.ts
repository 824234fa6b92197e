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
export { matchCounts, typingSlip, type NamedCounts } from "./arithmetic";
export { edgeEvidence } from "./edgeEvidence";
export { lengthEvidence, physicalTerms, zSumCounts } from "./lengthEvidence";
export {
  causeOf,
  WORTH_NAMING_MM,
  type Cause,
  type CauseId,
  type CauseSignature,
  type Evidence,
  type ProvenTerm,
} from "./cause";
