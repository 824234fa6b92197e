import { partInstrumentWords } from "./parts";
import { askWords } from "./proving";
import { programWords } from "./program";
import type { Refusal } from "../lane";
import type { BlockDiagnostic } from "../gcode";
import { scales, showCounts, showLength, type LengthRefusal, type LengthUnit } from "../units";
import { instrumentWords, registerWords, thingWords, turnedFaceWords } from "./names";
import type { InstrumentName } from "../instruments";

type WordsFor<U extends { code: string }> = {
  [C in U["code"]]: (params: Extract<U, { code: C }>, unit: LengthUnit) => string;
};
const render = <U extends { code: string }>(words: WordsFor<U>, problem: U, unit: LengthUnit): string =>
  (words[problem.code as U["code"]] as (params: U, unit: LengthUnit) => string)(problem, unit);

/** A limit as it is said, in the unit of the lane; a limit needs no more than two decimals of an inch. */
const say = (mm: number, unit: LengthUnit): string =>
  unit === "mm" ? `${mm} mm` : `${showLength(mm, scales.inch, 2)} in`;

const lengthWords: WordsFor<LengthRefusal> = {
  lengthEmpty: () => "Nothing was typed: give a length such as 5.000.",
  lengthUnreadable: ({ text }) => `“${text}” is not a length: type it like −329.672, 12,4 mm or 3/64 in.`,
  lengthDividedByZero: ({ text }) => `“${text}” divides by zero: check the fraction.`,
  lengthTooLong: ({ digits }) => `That is longer than any length on this machine: use at most ${digits} characters.`,
  lengthOutOfRange: ({ limitMm }, unit) =>
    `That is beyond ±${say(limitMm, unit)}, further than any machine here reaches: check the decimal point.`,
};

const blockWords: WordsFor<BlockDiagnostic> = {
  blockEmpty: () => "The block is empty: type words such as G0 G54 X0 Y0.",
  blockHasLines: () => "A line’s end ends a block: type one line, run it, then the next.",
  blockTooLong: ({ limit }) => `The block is too long: use at most ${limit} characters.`,
  blockUnreadable: ({ text }) =>
    `“${text}” cannot be read: a word is one letter and one number, like X12.5. Nothing was run.`,
  wordUnknown: ({ word }) => `${word} is not a word that this bench runs. Nothing was run.`,
  codeOfProgram: ({ word }) =>
    `${word} belongs in a program: what is typed here is one straight move. Nothing was run.`,
  wordTwice: ({ word }) => `${word} stands twice in the block: leave one of them. Nothing was run.`,
  groupTwice: ({ first, second }) =>
    `${first} and ${second} say different things about the same setting: keep one. Nothing was run.`,
  wordNeedsWhole: ({ word }) => `${word} needs a whole number. Nothing was run.`,
  wordOutOfRange: ({ word }) => `${word} is out of range: check the number. Nothing was run.`,
  lengthRowMissing: () => "G43 needs an H word that names the row of the length table. Nothing was run.",
  rotationAngleMissing: () => "G68 needs an R word with the angle in degrees. Nothing was run.",
  rotationHasAxes: () => "G68 turns about work zero on this bench: leave the axis words out. Nothing was run.",
  extendedMissing: () => "G54.1 needs a P word from 1 to 6. Nothing was run.",
  feedMissing: () => "G1 needs a feed: add an F word. Nothing was run.",
  toolWordNeedsRow: ({ word }) => `${word} names no row: write tool and row together, such as T0303. Nothing was run.`,
  changeWithoutTool: () => "M6 needs a tool: add a T word. Nothing was run.",
};

const words: WordsFor<Refusal> = {
  programNotHere: ({ number }) => `The shop’s store has no program ${number}: choose one that it has.`,
  partsNotMeasured: () => "No part is measured in this exercise.",
  cutAway: ({ isMeasured }) =>
    `Metal is gone there, and this bench touches blanks only: ${isMeasured ? "measure the part at its desk, or take the next blank" : "what was cut is left as it lies"}.`,
  partNotCut: () => "Nothing was run on this blank yet: run the program first.",
  featureNotHere: ({ name }) => `The sheet has no feature “${name}”.`,
  featureNotCut: ({ name }) => `${name}: it is not to be found on this part where the drawing has it.`,
  gaugeTooLittle: () => "No stack of blocks and no plug is thinner than a millimetre: try a larger one.",
  partIsCool: () => "The part is as cool as the room.",
  goodPartFirst: () => "Only the setup of a part that was measured and called good is kept: cut one first.",
  initialsUnread: () => "Initials are one to four letters, such as OB.",
  savedAlready: ({ initials }) => `A setup is kept already, by ${initials}: say so if this one is to take its place.`,
  figureFirst: () => "Measure this part first, then say what it is.",
  noBlankLeft: ({ blanks }) =>
    blanks === 1 ? "There is only this one blank." : `All ${blanks} blanks are used: there is no other.`,
  nothingKept: () => "No setup of this part is kept.",
  nameStaleFirst: () => "Compare the card with today first, and say which registers are to be touched again.",
  takenBackAlready: () => "It was taken back already: what is not as it was is touched again now.",
  notOfKept: ({ register }) => `${registerWords(register)} is not on the card of that setup.`,
  programHeld: ({ number }) =>
    `The control holds ${number === 0 ? "a program of your own" : `program ${number}`}: loading another takes it away. Confirm, or keep it.`,
  ownProgramInPractice: () => "A program of your own is taken in practice only: load the part’s from the store.",
  noProgram: () => "No program is held, or it has no such line or tool: load one first.",
  oneLineOnly: () => "One line is changed at a time: leave out the line break.",
  answerUnreadable: ({ ask, tool }) => `That cannot be read as an answer: ${askWords[ask].asks(tool)}`,
  toolFirst: ({ tool }) => `Tool ${tool} does not hang there: bring it first, and call its row.`,
  toolNotCalled: ({ tool }) => `The program does not call tool ${tool}: choose one that it calls.`,
  programWrong: ({ line, problem, said }) => `Line ${line}: ${programWords({ code: problem, said })}`,
  programNotFollowed: ({ line, word }) => `Line ${line} says ${word}, which is not run here yet.`,
  programRuns: () => "The program is under way: let it end, or reset, before anything else is moved or changed.",
  cycleNotStarted: () => "No program is under way: start the cycle first.",
  cycleHeld: () => "The run is held: resume it first.",
  holdFirst: () => "Hold the run near the part first: a gap is looked at while nothing moves.",
  notSigned: () =>
    "Nobody has signed for the first cut: ask for it, or lift the common Z by 5 mm or more and run in the air.",
  signedAlready: () => "It is signed as it stands.",
  notProvable: () =>
    "Programs are not run in this setup yet: the blank must lie straight, and a bar must have its face.",
  handedInAlready: () => "This lane is handed in: start a new attempt to go on practicing.",
  machineStopped: () => "The machine has stopped itself: tell your instructor, then reset it.",
  notHomed: () => "The machine does not know where it is yet: do the reference return first.",
  pastTravel: ({ axis }) => `${axis.toUpperCase()} would run past the end of its travel: choose a place inside it.`,
  doorOpenRapid: () => "The door is open: rapid jogs are locked. Shut it, or use clicks of 0.1 and finer.",
  doorOpenMotion: () => "The door is open: typed moves and tool changes are locked. Shut the door first.",
  doorOpenSpeed: ({ rpm, limitRpm }) =>
    `The door is open or opening: ${rpm} rev/min is above the limit of ${limitRpm}. State a lower speed, or keep it shut.`,
  doorShutReach: () => "The door is shut: open it before you reach in.",
  spindleTurning: () => "The spindle is turning: stop it before you reach in.",
  spindleOutOfRange: ({ lowestRpm, highestRpm }) =>
    `The spindle runs from ${lowestRpm} to ${highestRpm} rev/min: choose a speed in that range.`,
  spindleHolds: ({ thing }) => `The spindle holds the ${thingWords(thing)}: take it out first.`,
  spindleEmpty: () => "The spindle is empty: there is nothing to take out.",
  noRoomToLoad: () => "There is no room under the spindle: raise Z first.",
  noEdgeFinder: () => "There is no edge finder in the spindle: load it first.",
  finderDestroyed: () => "This edge finder is destroyed: take it out and load another.",
  notWithdrawn: () => "The tip still leans on the part: withdraw well clear of it first.",
  paperNeedsTool: () => "A gap is felt under something solid: load a tool, or use the bare nose.",
  paperNothingBelow: () => "There is no surface under the tool here: move over the part, a jaw or the table.",
  paperInPlace: () => "There is paper under the tool: pull it out first.",
  paperNotPlaced: () => "There is no paper under the tool: place it first.",
  paperInGap: () => "There is paper under the tool: pull it out before the machine moves by itself.",
  burrDressedAlready: () => "The edges are dressed already.",
  spindleInTheWay: () => "The spindle is too near for a hand with a file: raise Z first.",
  registerGuard: ({ register, from, to, unit }) =>
    `${registerWords(register)} would go from ${showCounts(from, scales[unit ?? "mm"])} to ${showCounts(to, scales[unit ?? "mm"])}, a large change: confirm it if it is meant.`,
  registerOutOfRange: ({ register }) =>
    `${registerWords(register)} does not hold so large a number: check the decimal point.`,
  nothingToUndo: () => "There is no register change to take back.",
  toolNotHere: ({ tool }) => `Tool ${tool} is not on this bench: see the list on the sheet.`,
  rowNotHere: ({ row }) => `Row H${row} is not in this length table: use H1 to H8.`,
  stopIsHeld: () => "The stop is still pressed from the shift before: release it first.",
  instrumentNotHere: ({ instrument }) =>
    `There is no ${instrumentWords(instrument as InstrumentName)} on this bench: use what the drawer holds.`,
  instrumentBroken: ({ thing }) => `The ${thingWords(thing)} is broken: take it out and load another.`,
  notHeld: ({ thing }) => `Load the ${thingWords(thing)} first.`,
  mustNotTurn: ({ thing }) =>
    `The ${thingWords(thing)} must never turn under power: take it out before you start the spindle.`,
  tasterTouches: () => "The ball leans on something: withdraw it, then true the taster.",
  blockInGap: () => "There is a block in the gap: take it out before anything moves.",
  blockNotInGap: () => "There is no block in the gap.",
  gapThingNotHere: () => "That is not in the drawer: choose one that is.",
  lampStandsAlready: () => "The height gauge stands already: take it away first.",
  lampNotStanding: () => "The height gauge is in its box: stand it under the spindle first.",
  lampPressed: () => "The plunger is pressed: raise Z before you take the gauge away.",
  noRoomForGauge: () => "The height gauge does not go under what hangs there: raise Z first.",
  taskNotHere: () => "That is done already on this bench.",
  taskDoneAlready: () => "That is done already.",
  seatFirst: () => "The blank does not lie on parallels yet: seat it, then tap it down.",
  noParallels: () => "There are no other parallels for this part: it stays as the sheet has it.",
  gripTooLittle: () => "On higher parallels the jaws would hold too little of the blank: it stays as it is.",
  blankTooLow: () => "On lower parallels the blank would not stand over the jaws: it stays as it is.",
  partIsGripped: () => "The vise grips this part: a tap would only bruise it.",
  setterNeedsTool: () =>
    "A setter measures a tool: bring one into the spindle, or touch the setter with the nose by hand.",
  askNeedsPositive: () => "Give a size above zero and inside the machine, such as 50.",
  askNeedsSide: () => "Say on which axis and to which side: choose both.",
  doesNotMeasureThat: ({ by }) =>
    `A ${Object.entries(partInstrumentWords).find(([name]) => name === by)?.[1] ?? by} does not measure that: take another instrument.`,
  nothingToMeasure: () => "There is nothing like that here to measure.",
  nothingToSweep: () => "There is no bore or boss here to carry the indicator round.",
  diameterIsTyped: ({ register }) => `${registerWords(register)} is not a place: type the value that you measured.`,
  nothingChanges: () => "Those registers hold exactly that already: nothing would change.",
  readingOfOther: () => "That reading is of the pip: it tells the height of a tool, and belongs in no X and no Z.",
  noSuchReading: () => "That reading is not to be had any more: measure again.",
  expectFirst: () => "Say first what you expect, then look.",
  notOnThisMachine: () => "This machine has nothing to do that with: choose what its own bench offers.",
  noRoomToIndex: () => "The turret or the arm would swing into the part: send the tool well clear first.",
  armHolds: () => "The arm holds the axis: it goes no further that way. The value of the trip is stored; go back.",
  armIsDown: () => "The setter arm is down: fold it away first.",
  toolInTheWay: () => "The tool stands where your hand and the gauge must go: retract it first.",
  noSuchFaceHere: ({ on }) => `The tip does not stand at the ${turnedFaceWords[on]}: bring it there first.`,
  notBehind: () =>
    "Bring a blade out beyond the diameter and behind the face first: from there its far edge meets the straight edge.",
  tipTooFar: () => "The tip is too far away for that: bring it closer first.",
  cyclesDoNotWrite: () =>
    "On this machine a cycle tells and does not write: take its answer into the register yourself.",
  keepsNoPoints: () => "This control keeps no points: read the position and work it out.",
  pointsMissing: ({ what }) =>
    what === "edge"
      ? "Keep a point of that edge first."
      : "A middle wants a point on either side of it: keep both first.",
  noMastersHere: () => "Neither a ring nor a known block is at hand here: nothing can be calibrated.",
  notCalibratedBy: () =>
    "That does not calibrate it: a ring tells the ball’s radius, a known block its length, and a known length the setter.",
  noGaugeHere: () => "No setting gauge stands beside this lathe.",
  noShimsHere: () => "That holder has no shims: its height is as it was made.",
  shimTooMuch: ({ limitMm }, unit) => `No shims make that: up to ${say(limitMm, unit)} up or down at a time.`,
  clampLoose: () => "A tool is loose in its clamp: tighten it first.",
  clampNotLoose: () => "That tool sits tight in its clamp: loosen the clamp first.",
  toolIsGood: ({ tool }) => `Tool ${tool} is not worn: the sheet names the tools that are changed.`,
  noInsertHere: () => "This tool is ground from one piece: it has no insert to change.",
  noRoomAtClamp: () => "There is no room to work at the clamp: back the slide off the bar first.",
  overhangNotPossible: ({ lowMm, highMm }, unit) =>
    `A tool can stand out of its clamp by ${say(lowMm, unit)} to ${say(highMm, unit)}: check the figure.`,
  pointMeetsNoFace: () =>
    "The point of this insert cannot meet the face, its flank does first: sight the point over the edge by eye.",
  nothingToSight: () => "This tool can touch the face: there is nothing to be sighted by eye.",
  cannotTurnCone: () => "This tool cannot turn the cone: choose a turning tool.",
  callOffsetFirst: ({ tool }) => `The program needs the offset of tool ${tool}: call it first.`,
  startSpindleFirst: () => "The spindle stands still: start it before a tool is sent along the part.",
  recallFirst: ({ tool }) =>
    `Recall row ${tool} first, the row of the tool on the post: the check is what it makes the readout show.`,
  touchFirst: () => "The tool does not stand at the part: bring it to the contact first, then look.",
  notInTheSet: ({ text }) => `The set has no block of ${text}: choose blocks that lie in it.`,
  blockOnce: ({ text }) => `Each block is there once: ${text} stands twice in the stack.`,
  stackEmpty: () => "A stack wants at least one block: name them with + between, such as 100 + 9.5 + 1.25.",
  declareNeedsAxis: () => "G50 declares where the tool stands: add an X word, a Z word, or both. Nothing was run.",
  programLine: ({ sentence }) => `${sentence} Nothing was run.`,
  libraryIsTyped: () => "The library takes what is typed: read the corner, turn the sign, type it.",
  shankOutOfReach: () =>
    "The indicator on the chuck does not reach it: bring the drill close to the axis and near the face.",
  tipCodeOnly: () => "A tip code is one of 0 to 9: type that digit.",
  schoolNotHere: () => "This exercise does not allow that school of lengths: choose one of its own.",
  nothingHandedOver: () => "This setup is your own: there is nobody else's to judge.",
  lookFirst: () => "Look before you judge.",
  answerShows: () => "The answer stands on the screen already: say what you expect before you go there.",
  lookCloser: () =>
    "From here nobody can tell: bring the tip within a few millimetres of the part, or low beside it, then look.",
  lookStill: () => "Stop the spindle before you hold a rule beside the tool.",
  moveFirst: () => "Make the move first, then compare where it ended.",
  measureFirst: () => "Skim it and measure it first, then compare.",
  contactFirst: () => "Touch the edge first, then compare the figure.",
  pointFirst: () => "Put the pointed tool in the spindle: only a point shows where zero is.",
  noSuchLine: ({ line }) => `Line ${line} is not in the ledger any more.`,
  ledgerFull: () => "The ledger is full: strike a line that you do not need.",
  handUpAlready: () => "Your hand is up already: your instructor sees it.",
  handNotUp: () => "Your hand is not up.",
  text: ({ problem }, unit) => render(lengthWords, problem, unit),
  block: ({ problem }, unit) => render(blockWords, problem, unit),
};

/** Sentences of refusals that no bench gives any more; logs of earlier lanes hold them, and a replay says them. */
const retired = new Map<string, string>([
  ["paperDoesNotGoUnder", "The paper does not go under the tool: raise Z a little."],
  ["cutOneAxis", "This bench cuts along one axis at a time: split the move in two."],
]);

/** One sentence: why the bench did not do it, and what to do; lengths in the unit of the lane. */
export const refusalWords = (refusal: Refusal, unit: LengthUnit): string =>
  retired.get(refusal.code) ?? render(words, refusal, unit);
