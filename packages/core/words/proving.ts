import {
  programEvents,
  type AskKind,
  type Hanging,
  type Outcome,
  type RestPlace,
  type RunEnd,
  type RunHold,
} from "../lane/programNames";
import type { LaneEvent } from "../machines/events";
import type { DiagnosticCode } from "../gcode";
import type { LookedUp, Signature, WithdrawnLook } from "../lane/programDesk";
import type { ProvingSchool } from "../exercises";
import { scales, showLength, toCounts, type LengthUnit } from "../units";
import { registerWords } from "./names";
import { partInstrumentWords, partSaidWords } from "./parts";
import { gaugeAlarmWords, gaugedWords } from "./gauging";
import { programWords } from "./program";

/** What is looked up: its short name, and the question as it is put. */
export const askWords: Record<AskKind, { name: string; asks: (tool: number | null) => string }> = {
  program: { name: "program", asks: () => "What number does the program itself bear, after its O?" },
  units: { name: "units", asks: () => "In which units does it run?" },
  offset: { name: "work offset", asks: () => "Which work offset does it call?" },
  lift: {
    name: "lift of Z",
    asks: () => "What lifts or lowers every Z: the common offset, and a shift (G52) in the program, together?",
  },
  travel: {
    name: "within the travel",
    asks: () => "Which axis leaves its travel anywhere, with these registers? X, Y, Z, or none.",
  },
  pockets: {
    name: "pockets",
    asks: () => "Which T words of the program bring another tool than theirs? Their numbers, or none.",
  },
  swing: {
    name: "swinging in",
    asks: () =>
      "At the tool changes after the first: how far before Z 0 does the tip stand that swings in, where it stands least far?",
  },
  hangs: { name: "in the spindle", asks: () => "Does an instrument hang where the control takes a tool to be?" },
  wear: { name: "wear as meant", asks: () => "Which rows hold a wear other than zero? Their numbers, or none." },
  rows: { name: "row called", asks: (tool) => `Which row does it call with tool ${tool}? Its number, or none.` },
  held: {
    name: "row’s value",
    asks: (tool) => `What does that row hold for tool ${tool}, geometry and wear together?`,
  },
  spindle: { name: "spindle", asks: (tool) => `Which way and how fast does tool ${tool} turn?` },
  matters: {
    name: "tool that matters",
    asks: () => "Which tool goes deepest where it stands over what holds the part, and over what?",
  },
  gaugedWay: {
    name: "way that is gauged",
    asks: () => "Which way do the gaugings name that write wear? The numbers after Q, or none.",
  },
  deepest: { name: "deepest Z", asks: (tool) => `How deep does tool ${tool} go, as it is programmed?` },
};

export const restPlaceWords: Record<RestPlace, string> = {
  fixedJaw: "the fixed jaw",
  movingJaw: "the moving jaw",
  chuck: "the chuck’s side",
};
export const hangingWords: Record<Hanging, string> = {
  none: "no instrument",
  instrument: "an instrument",
};
const isKeyOf = <K extends string>(words: Record<K, string>, key: string): key is K => key in words;

/** What was answered, as it is shown. */
export function saidWords({ ask, said }: { readonly ask: AskKind; readonly said: string }): string {
  if (ask === "hangs" && isKeyOf(hangingWords, said)) return hangingWords[said];
  const [tool, place = ""] = said.split(" ");
  return ask === "matters" && isKeyOf(restPlaceWords, place) ? `tool ${tool}, over ${restPlaceWords[place]}` : said;
}

/** Name of one thing looked up: "row called, tool 3". */
export const askName = ({ ask, tool }: Pick<LookedUp, "ask" | "tool">): string =>
  tool === null ? askWords[ask].name : `${askWords[ask].name}, tool ${tool}`;

export const outcomeOfLook: Record<Outcome, string> = { clear: "stays clear", wouldHit: "would hit" };

export const provingSchoolWords: Record<ProvingSchool, { name: string; how: string }> = {
  lookedUp: {
    name: "program and registers looked up",
    how: "Read out of program and registers what will be used, before anything runs.",
  },
  deepestBeside: {
    name: "deepest point beside the part",
    how: "With the tool in the spindle and its row called, stand off to the side, bring the display to its deepest Z, come in over the jaw and look from the right side.",
  },
  airRun: {
    name: "air run, lifted",
    how: "Lift the common Z by a stated amount, run the whole program, and take the lift off again.",
  },
  gapCompared: {
    name: "gap against the display",
    how: "Hold the feed near the part, and say what is seen between tip and part beside what the display reads.",
  },
};

export const holdWords: Record<RunHold, string> = {
  hand: "held by hand",
  block: "held after a block",
  stop: "held by M0",
  optional: "held by M1",
};

const STANDS: Readonly<Record<string, string>> = {
  "no-room-to-change": "There is no room under the spindle to change the tool.",
  "no-room-to-index": "The turret has no room to swing here.",
  "instrument-in-spindle": "An instrument hangs where the control takes a tool to be.",
  "spindle-stands": "The spindle does not start with what it holds.",
  "no-such-register": "It sets a register that is not there, or in a way that is not read.",
  "no-such-row": "A row or a work offset is called that this machine does not have.",
  "tool-missing": "There is no such tool here, or it cannot be run yet.",
  "no-probe": "It gauges, and no probe that is sound hangs in the spindle.",
  "met-nothing": "The probe met nothing where it was sent.",
  "way-not-run": "The way that the gauging names was not run before it, or cuts nothing there.",
  "length-not-told": "A length is checked that this machine cannot check: look at the row, and at the setter.",
  ...gaugeAlarmWords,
};

/** Why a run is over, one sentence. */
export function endWords(last: {
  readonly why: RunEnd;
  readonly line: number;
  readonly met?: string | undefined;
  readonly code?: string | undefined;
}): string {
  const at = last.line > 0 ? `Line ${last.line}: ` : "";
  if (last.why === "end") return "The program has run to its end.";
  if (last.why === "reset") return `${at}reset; the machine stands where it was stopped.`;
  if (last.met === "past-travel") return `${at}an axis came to the end of its travel, and the machine has stopped.`;
  if (last.why === "contact") return `${at}something was struck, and the machine has stopped.`;
  const code = last.code ?? "";
  return `${at}${STANDS[code] ?? programWords({ code: code as DiagnosticCode })}`;
}

/** What withdrew something that was looked up. */
export function withdrawnBy({ by }: Pick<WithdrawnLook, "by">): string {
  if (by === "spindle") return "an instrument was put in or taken out";
  if (by === "pockets") return "pockets were changed round";
  if (by === "seat") return "the part was seated again";
  if (typeof by !== "number") return `${registerWords(by)} was changed`;
  return by === 0 ? "another program was loaded" : `line ${by} was changed`;
}

type ProgramEvent = Extract<LaneEvent, { type: (typeof programEvents)[number] }>;
const OF_PROGRAM: ReadonlySet<string> = new Set(programEvents);
export const isOfProgram = (event: LaneEvent): event is ProgramEvent => OF_PROGRAM.has(event.type);

/** How the signature stands, one sentence. */
export function signatureWords(signature: Signature): string {
  switch (signature.state) {
    case "none":
      return "Not asked for yet.";
    case "asked":
      return "Asked for; whoever signs sees your registers, answers and program.";
    case "given":
      return `Signed by ${signature.by}, as it stands.`;
    case "sentBack":
      return `Sent back by ${signature.by}: “${signature.word}”`;
    case "withdrawn":
      return `Withdrawn: ${withdrawnBy({ by: signature.changed })}. Ask again.`;
  }
}

/** What happened with a program, in a line of the replay. */
export function programMoment(event: ProgramEvent, unit: LengthUnit): string {
  const scale = scales[unit];
  const length = (mm: number) => showLength(mm, scale);
  switch (event.type) {
    case "programLoaded":
      return event.number === 0
        ? "A program of one’s own taken."
        : `Program ${event.number} loaded${event.as === undefined ? "" : ` as ${event.as}`}.`;
    case "lineMended":
      return `Line ${event.line} changed to “${event.text}”.`;
    case "lookedUp":
      return `Looked up, ${askName({ ask: event.ask, tool: event.tool ?? null })}: ${saidWords(event)}${event.isSound ? "" : ", called a fault"}.`;
    case "deepestJudged":
      return `Deepest point of tool ${event.tool}, seen beside the part: ${outcomeOfLook[event.outcome]}.`;
    case "signatureAsked":
      return "Asked for the signature before the first cut.";
    case "signatureGiven":
      return `Signed for the first cut by ${event.by}.`;
    case "signatureSentBack":
      return `Sent back by ${event.by}: “${event.word}”`;
    case "paceSet":
      return "Pace of the run set.";
    case "cycleStarted":
      return event.fromLine === 0
        ? "Cycle started at the head."
        : `Cycle started at line ${event.fromLine}${event.isUnread ? ", what stands before it unread" : ""}.`;
    case "ran":
      return `Ran on in line ${event.line}, ${event.isRapid ? "rapid" : "fed"}: X ${length(event.to.x / toCounts(1, scale))}, Z ${length(event.to.z / toCounts(1, scale))}.`;
    case "pieceDone":
      return `Line ${event.line} done.`;
    case "runHeld":
      return `Line ${event.line}: ${holdWords[event.why]}.`;
    case "runResumed":
      return "Run resumed.";
    case "runEnded":
      return endWords(event);
    case "gauged":
      return `Line ${event.line}: ${gaugedWords(event, unit)}`;
    case "partMeasured": {
      const of = `Part ${event.part}, ${event.feature}, ${partInstrumentWords[event.with]}${event.isWarm ? ", part warm" : ""}`;
      if (event.goes === undefined) return `${of}: ${length(event.mm)}.`;
      return `${of} of ${length(event.mm)}: ${event.goes ? "goes" : "does not go"}.`;
    }
    case "partCooled":
      return "Waited until the part was cool.";
    case "partJudged":
      return `Part ${event.part} called ${partSaidWords[event.verdict]}.`;
    case "blankTaken":
      return `Blank ${event.part} taken.`;
    case "setupSaved":
      return `Setup of part ${event.part} kept by ${event.initials}, with program ${event.program}.`;
    case "gapSaid":
      return `Seen between tip and part: ${length(event.mm)}; the display read ${length(event.displayMm)}. Said: ${event.isAlike ? "they agree" : "they do not agree"}.`;
  }
}
