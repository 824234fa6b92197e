import type { Refusal } from "../bench/refusals";
import type { BlockDiagnostic } from "../gcode";
import { formatCounts, type LengthRefusal } from "../units";
import { registerWords, thingWords } from "./names";

type WordsFor<U extends { code: string }> = { [C in U["code"]]: (params: Extract<U, { code: C }>) => string };
const render = <U extends { code: string }>(words: WordsFor<U>, problem: U): string =>
  (words[problem.code as U["code"]] as (params: U) => string)(problem);

const lengthWords: WordsFor<LengthRefusal> = {
  lengthEmpty: () => "Nothing was typed: give a length such as 5.000.",
  lengthUnreadable: ({ text }) => `“${text}” is not a length: type it like −329.672, 12,4 mm or 3/64 in.`,
  lengthDividedByZero: ({ text }) => `“${text}” divides by zero: check the fraction.`,
  lengthTooLong: ({ digits }) => `That is longer than any length on this machine: use at most ${digits} characters.`,
  lengthOutOfRange: ({ limitMm }) => `That is beyond ±${limitMm} mm, further than any machine here reaches: check the decimal point.`,
};

const blockWords: WordsFor<BlockDiagnostic> = {
  blockEmpty: () => "The block is empty: type words such as G0 G54 X0 Y0.",
  blockTooLong: ({ limit }) => `The block is too long: use at most ${limit} characters.`,
  blockUnreadable: ({ text }) => `“${text}” cannot be read: a word is one letter and one number, like X12.5. Nothing was run.`,
  wordUnknown: ({ word }) => `${word} is not a word that this bench runs. Nothing was run.`,
  wordTwice: ({ word }) => `${word} stands twice in the block: leave one of them. Nothing was run.`,
  groupTwice: ({ first, second }) => `${first} and ${second} say different things about the same setting: keep one. Nothing was run.`,
  wordNeedsWhole: ({ word }) => `${word} needs a whole number. Nothing was run.`,
  wordOutOfRange: ({ word }) => `${word} is out of range: check the number. Nothing was run.`,
  lengthRowMissing: () => "G43 needs an H word that names the row of the length table. Nothing was run.",
  feedMissing: () => "G1 needs a feed: add an F word. Nothing was run.",
  changeWithoutTool: () => "M6 needs a tool: add a T word. Nothing was run.",
};

const words: WordsFor<Refusal> = {
  handedInAlready: () => "This lane is handed in: start a new attempt to go on practicing.",
  machineStopped: () => "The machine has stopped itself after striking something: tell your instructor, then reset it.",
  notHomed: () => "The machine does not know where it is yet: do the reference return first.",
  pastTravel: ({ axis }) => `${axis.toUpperCase()} would run past the end of its travel: choose a place inside it.`,
  doorOpenRapid: () => "The door is open: rapid jogs are locked. Shut it, or use clicks of 0.1 and finer.",
  doorOpenMotion: () => "The door is open: typed moves and tool changes are locked. Shut the door first.",
  doorOpenSpeed: ({ rpm, limitRpm }) => `The door is open or opening: ${rpm} rev/min is above the limit of ${limitRpm}. State a lower speed, or keep it shut.`,
  doorShutReach: () => "The door is shut: open it before you reach in.",
  spindleTurning: () => "The spindle is turning: stop it before you reach in.",
  spindleOutOfRange: ({ lowestRpm, highestRpm }) => `The spindle runs from ${lowestRpm} to ${highestRpm} rev/min: choose a speed in that range.`,
  spindleHolds: ({ thing }) => `The spindle holds the ${thingWords(thing)}: take it out first.`,
  spindleEmpty: () => "The spindle is empty: there is nothing to take out.",
  noRoomToLoad: () => "There is no room under the spindle: raise Z first.",
  noEdgeFinder: () => "There is no edge finder in the spindle: load it first.",
  finderDestroyed: () => "This edge finder is destroyed: take it out and load another.",
  notWithdrawn: () => "The tip still leans on the part: withdraw well clear of it first.",
  paperNeedsTool: () => "Paper is felt under a solid tool: load tool 1 or the pointed tool.",
  paperNothingBelow: () => "There is no surface under the tool here: move over the part, a jaw or the table.",
  paperDoesNotGoUnder: () => "The paper does not go under the tool: raise Z a little.",
  paperInPlace: () => "There is paper under the tool: pull it out first.",
  paperNotPlaced: () => "There is no paper under the tool: place it first.",
  paperInGap: () => "There is paper under the tool: pull it out before the machine moves by itself.",
  burrDressedAlready: () => "The edges are dressed already.",
  spindleInTheWay: () => "The spindle is too near for a hand with a file: raise Z first.",
  registerGuard: ({ register, from, to }) =>
    `${registerWords(register)} would go from ${formatCounts(from)} to ${formatCounts(to)}, a large change: confirm it if it is meant.`,
  registerOutOfRange: ({ register }) => `${registerWords(register)} holds at most ±999.999: check the number.`,
  nothingToUndo: () => "There is no register change to take back.",
  toolNotHere: ({ tool }) => `Tool ${tool} is not in the changer of this bench: only tool 1 is.`,
  rowNotHere: ({ row }) => `Row H${row} is not in this length table: use H1 to H3.`,
  noSuchLine: ({ line }) => `Line ${line} is not in the ledger any more.`,
  ledgerFull: () => "The ledger is full: strike a line that you do not need.",
  handUpAlready: () => "Your hand is up already: your instructor sees it.",
  handNotUp: () => "Your hand is not up.",
  text: ({ problem }) => render(lengthWords, problem),
  block: ({ problem }) => render(blockWords, problem),
};

/** One sentence: why the bench did not do it, and what to do. */
export const refusalWords = (refusal: Refusal): string => render(words, refusal);
