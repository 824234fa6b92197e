import type { Exercise, Machine, Setup, Target } from "../exercises";
import { isValueRight, type Ruling } from "../grading";
import { skillIds, type SkillId } from "./ids";
import { latheAsks, latheSkill } from "./machines/lathe";
import { millAsks, millSkill } from "./machines/mill";
import { SkillTally, type SkillShown } from "./shown";

/**
 * mastered: right in the last two lanes that asked for it; notYet: wrong in the last one; shaky: right in the last one
 * only.
 */
export type Stand = "mastered" | "shaky" | "notYet" | "untried";

const skillOf = (target: Target, setup: Setup, school: Ruling["school"]): SkillId | null =>
  setup.kind === "mill" ? millSkill(target, setup, school) : latheSkill(target, setup, school);

/** What the strand of proving stands for: faults found, a program proved, or checks made. */
function skillOfProving({ handover, programs }: Setup): SkillId {
  if (handover !== undefined) return "findingFaults";
  return programs ? "provingOut" : "checking";
}

/** What a ruling shows of each skill that its lane asked for, what cost most first. */
export function skillsShown(ruling: Ruling): SkillShown[] {
  const tally = new SkillTally(ruling.notPassed === undefined);
  const isHandover = ruling.sheet.handover !== undefined;
  // values that someone else set say nothing of how this student sets them
  for (const value of isHandover ? [] : ruling.values) {
    const skill = skillOf(value.target, ruling.sheet, ruling.school);
    if (skill) tally.add(skill, value.isFollowThrough || isValueRight(value), value.outOf - value.marks);
  }
  for (const finding of ruling.findings)
    if (finding.code === "working") tally.add("working", finding.fault === null, finding.outOf - finding.marks);
  const strand = (name: string) => ruling.strands.find((one) => one.name === name);
  tally.addStrand("sequence", strand("method"));
  tally.addStrand(skillOfProving(ruling.sheet), strand("proving"));
  tally.addStrand("safety", strand("safety"));
  return tally.worstFirst();
}

/** Where a skill stands, from what its lanes showed, oldest first. */
export function standOf(shown: readonly boolean[]): Stand {
  const [last, before] = shown.toReversed();
  if (last === undefined) return "untried";
  if (!last) return "notYet";
  return before ? "mastered" : "shaky";
}

/** The skills that an exercise asks for. Safety, sequence, working and checking belong to every one. */
export function skillsAsked(exercise: Exercise): Set<SkillId> {
  if (exercise.handover) return new Set<SkillId>(["safety", "sequence", "findingFaults"]);
  const own = exercise.lathe ? latheAsks(exercise.lathe) : millAsks(exercise);
  return new Set<SkillId>(["safety", "sequence", "working", exercise.program ? "provingOut" : "checking", ...own]);
}

/** An exercise that may still be taken, how often it was, and what it asks for. */
export interface Offer {
  readonly id: string;
  readonly taken: number;
  readonly machine: Machine;
  readonly asks: ReadonlySet<SkillId>;
}

/**
 * What to practice next, on the machine that is worked on: the first of the wanted skills that an exercise on offer
 * there asks for, and of those exercises the least taken. On another machine only where this one has nothing left.
 */
export function practiceNext(
  wanted: readonly SkillId[],
  offers: readonly Offer[],
  on: Machine | null,
): { skill: SkillId; id: string } | null {
  const here = offers.filter(({ machine }) => machine === on);
  return firstAsking(wanted, here) ?? firstAsking(wanted, offers);
}

function firstAsking(wanted: readonly SkillId[], offers: readonly Offer[]): { skill: SkillId; id: string } | null {
  for (const skill of wanted) {
    const [best] = offers.filter(({ asks }) => asks.has(skill)).sort((a, b) => a.taken - b.taken);
    if (best) return { skill, id: best.id };
  }
  return null;
}

const URGENCY: readonly Stand[] = ["notYet", "shaky", "untried"];

/**
 * Skills in the order in which they want practice: not yet, then shaky, then what stood and has lapsed, then untried,
 * each in the order of the work.
 */
export function wantedSkills(stands: ReadonlyMap<SkillId, Stand>, lapsed: ReadonlySet<SkillId> = new Set()): SkillId[] {
  const standing = (stand: Stand) => skillIds.filter((skill) => (stands.get(skill) ?? "untried") === stand);
  const again = standing("mastered").filter((skill) => lapsed.has(skill));
  return URGENCY.flatMap((stand) => [...(stand === "untried" ? again : []), ...standing(stand)]);
}
