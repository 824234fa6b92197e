import type { Observation } from "../bench";
import type { CoachMark, CoachStep } from "../lane";
import type { sharedCoachCodes } from "../lane/coach";
import { latheCheckWords, latheCoachWords } from "./machines/latheCoach";
import { millCoachWords } from "./machines/millCoach";
import { provingSchoolWords } from "./proving";
import { inShopWords, registerWords, taskWords } from "./names";

/** A check that suits any machine and school. */
const CHECK_ONE =
  "Before you hand in, check one thing you did not use: say what you expect, look, and say whether it is so.";

/** What the coach says on every machine. */
const SHARED: Record<(typeof sharedCoachCodes)[number], (step: CoachStep, seen: Observation) => string> = {
  resetAfterStrike: () =>
    "Stop. The machine has stopped itself: raise your hand and tell your instructor. Nothing is trusted until it is checked. Then reset the machine.",
  home: () => "Send the machine to its reference first: until it knows where home is, no position means anything.",
  doTask: (step) =>
    `${step.task ? taskWords[step.task].act : "Get machine and blank ready"}: what is not ready before the first touch spoils every number after it.`,
  loadProgram: () =>
    "Open the program view and load the program of this part from the shop’s store: the sheet says which number it has.",
  proveProgram: ({ school }) => (school ? provingSchoolWords[school].how : "Before it cuts, prove it."),
  runProgram: () =>
    "Run it: single block and slow rapid for each tool’s first approach, a hand on hold, then the whole. Take a lift off again first.",
  measurePart: () =>
    "Stop the spindle, open the door, and measure every feature with an instrument that is fit for its tolerance. Then say what the part is: good, rework or scrap.",
  correctPart: () =>
    "Put what is off into wear: which tool cut it, which way, how much. Then take the next blank, look up what the correction took back, run it, measure it and say what it is.",
  judgeSetup: () =>
    "Every register has been read. Put right what was wrong, then say whether the setup was sound as it was handed over.",
  handIn: () => "All gates are open. Read your ledger once more, then hand in.",
  checkAgain: ({ register }) =>
    `${register === undefined ? "A register" : registerWords(register)} was changed after its check, so that the check no longer says anything: make it once more.`,
  answerCheck: () => "You have looked: say whether it is so. If it is not, stop and find out why.",
  checkIt: (_step, seen) => (seen.kind === "mill" ? CHECK_ONE : latheCheckWords(seen)),
};

const isOf = <C extends string>(table: Record<C, unknown>, code: string): code is C => Object.hasOwn(table, code);

function words(step: CoachStep, seen: Observation): string {
  const { code } = step;
  if (isOf(SHARED, code)) return SHARED[code](step, seen);
  if (seen.kind === "mill") {
    if (isOf(millCoachWords, code)) return millCoachWords[code](step, seen);
  } else if (isOf(latheCoachWords, code)) return latheCoachWords[code](step, seen);
  throw new Error(`coachWords: no words for ${code} on a ${seen.kind}`);
}

/** The next step and why, in the student's own numbers. */
export const coachWords = (step: CoachStep, seen: Observation): string => inShopWords(words(step, seen), seen.kind);

const MARKS: Record<Exclude<CoachMark["code"], "task">, (mark: CoachMark) => string> = {
  homed: () => "reference taken",
  found: ({ axis = "x" }) => `${axis.toUpperCase()} found`,
  foundAgain: () => "found again",
  set: ({ axis }) => (axis === undefined ? "length set" : `${axis.toUpperCase()} set`),
  toolIn: ({ tool = 1 }) => `tool ${tool} in`,
  touched: () => "touched",
  proved: ({ school }) => (school ? provingSchoolWords[school].name : "proved"),
};
/** What a part of the next gate is called, in a few words. */
export function markWords(mark: CoachMark): string {
  if (mark.code !== "task") return MARKS[mark.code](mark);
  return mark.task ? taskWords[mark.task].done : "made ready";
}
