import type { SkillId, Stand } from "../skills";
import { schoolWords } from "./firstNames";

export const standWords: Record<Stand, string> = {
  mastered: "mastered",
  shaky: "shaky",
  notYet: "not yet",
  untried: "untried",
};

/** A skill in a practitioner's words. */
export const skillWords: Record<SkillId, string> = {
  ...schoolWords,
  safety: "nothing struck, nothing unsafe",
  sequence: "the steps, in their order",
  edge: "datum from two edges",
  middle: "datum in the middle of the blank",
  round: "datum on a hole, boss or pocket",
  turn: "a part that stands turned",
  changeOfPart: "change of part with the setup kept",
  diameter: "diameters in the registers",
  working: "the working in the ledger",
  checking: "checks with the answer said first",
  turnedX: "X of turning tools",
  nose: "nose radius and tip code",
  centerHeight: "center height",
  provingOut: "a program proved before it cuts",
  findingFaults: "finding what is wrong with someone else’s setup",
};

const STAND_CLAUSES: Record<Stand, string> = {
  notYet: "it was not right the last time",
  shaky: "it was right only once so far",
  untried: "it was not tried yet",
  mastered: "it is mastered, and nothing else is open",
};

/** Why a skill is recommended: what it cost in the lane just ruled, or how it stands. */
export function whyWords(why: { lost: number } | { stand: Stand } | { isLapsed: true }): string {
  if ("isLapsed" in why) return "it was shown so long ago that it wants to be seen again";
  if ("stand" in why) return STAND_CLAUSES[why.stand];
  return why.lost >= 0.05 ? `it cost ${why.lost.toFixed(1)} marks here` : "it was not right here";
}
