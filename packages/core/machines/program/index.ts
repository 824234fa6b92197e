/** A program on a lane: loaded, looked up, proved and run, on every machine that runs one. */
export { linesSeen, toolsAsked } from "./lines";
export { canBeRead } from "./readable";
export type { AskSeen, PartsSeen, ProgramSeen } from "./observe";
export {
  canRead,
  isTried,
  isFit,
  partInstrumentNames,
  partInstruments,
  partVerdicts,
  readingInstruments,
  type PartInstrument,
  type PartSaid,
  type TriedInstrument,
} from "../../lane/partNames";
export {
  askKinds,
  hangings,
  outcomes,
  type AskKind,
  type Hanging,
  type Outcome,
  type RestPlace,
  type RunHold,
} from "../../lane/programNames";
