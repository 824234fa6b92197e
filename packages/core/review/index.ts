/**
 * A lane replayed: a log becomes moments, each with its words and what of the observation changed. `framesOf` puts them
 * together again.
 */
export { framesOf, momentKinds, reviewOf, reviewSteps, type Moment, type MomentKind, type Review } from "./review";
