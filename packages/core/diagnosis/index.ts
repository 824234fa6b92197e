/** From a wrong number to the mistake behind it: evidence in the log first, inference from the number second, never a guess. */
export { infer, type Candidate, type Inference, type Ranked } from "./infer";
export { candidatesOf, edgeSignatures, lengthSignatures, signatureIds, type Signature, type SignatureId } from "./signatures";
export { traceLane, type LaneTrace, type LoggedEvent } from "./trace";
export { edgeEvidence } from "./edgeEvidence";
export { lengthEvidence } from "./lengthEvidence";
export { causeOf, type Cause, type CauseId, type Evidence, type ProvenTerm } from "./cause";
