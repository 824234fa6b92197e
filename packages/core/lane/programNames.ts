/** What is looked up in program and registers before a program is run; of each tool where it is one for each. */
export const askKinds = [
  "program",
  "units",
  "offset",
  "lift",
  "wear",
  "travel",
  "pockets",
  "hangs",
  "swing",
  "rows",
  "held",
  "spindle",
  "deepest",
  "matters",
  "gaugedWay",
] as const;
export type AskKind = (typeof askKinds)[number];

/** What a tool may stand over at its lowest: what holds the part. */
export const restPlaces = ["fixedJaw", "movingJaw", "chuck"] as const;
export type RestPlace = (typeof restPlaces)[number];

/** Whether an instrument hangs where a control takes a tool to be. */
export const hangings = ["none", "instrument"] as const;
export type Hanging = (typeof hangings)[number];

/** What is seen with the deepest tool beside the part at its deepest Z, looked at across the jaw or the chuck. */
export const outcomes = ["clear", "wouldHit"] as const;
export type Outcome = (typeof outcomes)[number];

/** How much of the rapid is allowed. */
export type RapidPercent = 5 | 25 | 50 | 100;

/** Why a run stands still: by hand, after each block, at a stop of the program's own. */
export const runHolds = ["hand", "block", "stop", "optional"] as const;
export type RunHold = (typeof runHolds)[number];

export const runEnds = ["end", "reset", "contact", "wrong", "alarm"] as const;
export type RunEnd = (typeof runEnds)[number];

/** What comes of a gauging that a program makes: it writes, goes on, stops the run, or marks the part as scrap. */
export const gaugeOutcomes = ["written", "good", "tooMuch", "metalLeft", "lengthOff", "scribed"] as const;
export type GaugeOutcome = (typeof gaugeOutcomes)[number];
/** Those that stop the run. */
export const gaugeAlarms: ReadonlySet<GaugeOutcome> = new Set(["tooMuch", "metalLeft", "lengthOff"]);

/** Facts of a program, by name: what tells them from the others without their schemas. */
export const programEvents = [
  "programLoaded",
  "lineMended",
  "lookedUp",
  "deepestJudged",
  "signatureAsked",
  "signatureGiven",
  "signatureSentBack",
  "paceSet",
  "cycleStarted",
  "ran",
  "pieceDone",
  "runHeld",
  "runResumed",
  "runEnded",
  "gapSaid",
  "gauged",
  "partMeasured",
  "partCooled",
  "partJudged",
  "blankTaken",
  "setupSaved",
] as const;

/** Lifted by so much in the common Z a run is in the air, mm. */
export const LIFT_MM = 5;
