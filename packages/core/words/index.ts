/** The one place where codes become sentences: refusals, coach, gates, causes, findings. Nothing else writes prose about a lane. */
export { refusalWords } from "./refusals";
export { coachWords, gateWords } from "./coach";
export { figureWords, methodWords, mistakeWords } from "./mistakes";
export { axisNames, causeWords, findingWords, registerWords, signatureWords, thingWords, surfaceWords, wobbleWords, feelWords, incidentWords, termWords, schoolWords } from "./ruling";
export { floorCautions, floorGateWords, floorSchoolWords, floorValueWords } from "./floor";
