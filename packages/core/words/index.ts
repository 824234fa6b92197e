/**
 * The one place where codes become sentences: refusals, coach, gates, causes, findings. Nothing else writes prose about
 * a lane.
 */
export { refusalWords } from "./refusals";
export { coachWords, markWords } from "./coach";
export { gateWords } from "./gates";
export { causeName, mistakeWords } from "./causes";
export { figureWords, methodWords } from "./figures";
export { causeWords, choiceWords } from "./ruling";
export { findingWords, missedStepWords } from "./findings";
export { glossary } from "./glossary";
export {
  axisNames,
  checkWords,
  edgeFeelWords,
  feelWords,
  figureName,
  gapKindWords,
  incidentWords,
  instrumentWords,
  outcomeWords,
  questionWords,
  readingWords,
  touchingWords,
  inShopWords,
  registerName,
  registerWords,
  surfaceWords,
  targetWords,
  taskWords,
  termWords,
  thingWords,
  toolKindWords,
  turnedFaceWords,
  turretKindWords,
  wobbleWords,
} from "./names";
export { machineWords, schoolWords } from "./firstNames";
export { momentWords } from "./moments";
export { skillWords, standWords, whyWords } from "./skills";
export {
  floorCautions,
  floorGateWords,
  floorSchoolWords,
  floorSignatureWords,
  floorValueWords,
  floorWorkingWords,
  partFeatureWords,
  partReadWords,
  signingWords,
} from "./floor";
export { programWords, proofWords } from "./program";
export {
  askName,
  askWords,
  endWords,
  holdWords,
  outcomeOfLook,
  provingSchoolWords,
  signatureWords,
  hangingWords,
  restPlaceWords,
  saidWords,
  withdrawnBy,
} from "./proving";
export { missedWords, mustHaveWords, partInstrumentWords, partSaidWords } from "./parts";
export { keptRowWords, partsSinceWords } from "./kept";
export { gaugedWhat, gaugeOutcomeWords, gaugeWrote, gaugedWords } from "./gauging";
export { drawingWords, featureCause, movedByWords, offWords, partCause, partMovedBy, verdictWords } from "./firstPart";
