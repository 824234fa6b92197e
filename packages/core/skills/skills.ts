import {
  latheSchools,
  millLengthSchools,
  type Exercise,
  type LatheSchool,
  type MillLengthSchool,
  type MillSetup,
  type Setup,
  type Target,
  type TurningSetup,
} from "../exercises";
import type { Ruling } from "../grading";

/** What a bench lane trains, in the order in which practitioners work; a school of length is a skill of its own. */
export const skillIds = [
  "safety",
  "sequence",
  "edge",
  "middle",
  "round",
  "turn",
  "changeOfPart",
  ...millLengthSchools,
  "diameter",
  "turnedX",
  ...latheSchools,
  "nose",
  "centerHeight",
  "working",
  "checking",
  "findingFaults",
] as const;
export type SkillId =
  | "safety"
  | "sequence"
  | "edge"
  | "middle"
  | "round"
  | "turn"
  | "changeOfPart"
  | MillLengthSchool
  | LatheSchool
  | "diameter"
  | "turnedX"
  | "nose"
  | "centerHeight"
  | "working"
  | "checking"
  | "findingFaults";

/**
 * mastered: right in the last two lanes that asked for it; notYet: wrong in the last one; shaky: right in the last one
 * only.
 */
export type Stand = "mastered" | "shaky" | "notYet" | "untried";

/** What one ruling says of a skill, and the marks that it cost. */
export interface SkillShown {
  readonly skill: SkillId;
  readonly isGood: boolean;
  readonly lost: number;
}

/** Kinds of datum that X and Y are found from, and the skill that each trains. */
const PLACES = { corner: "edge", middle: "middle", feature: "round", spindle: "round" } as const;

function placeSkill({ datum, partBefore }: { datum: { kind: keyof typeof PLACES }; partBefore?: unknown }): SkillId {
  return partBefore ? "changeOfPart" : PLACES[datum.kind];
}

/** The skill that a value of a mill trains. */
function millSkill({ kind }: Target, setup: MillSetup, school: Ruling["school"]): SkillId | null {
  if (kind === "place") return placeSkill(setup);
  if (kind === "turn") return "turn";
  if (kind === "diameter") return "diameter";
  if (setup.partBefore) return "changeOfPart";
  return school === "unclear" ? null : school;
}

/** The skill that a value of a lathe trains; over a bar or into a library X is of the school, too. */
function latheSkill({ kind, axis }: Target, setup: TurningSetup, school: Ruling["school"]): SkillId | null {
  if (kind === "nose" || kind === "tipCode" || kind === "fit") return "nose";
  if (kind !== "toolOffset") return "centerHeight";
  const isOwnSchool = setup.kind !== "turret" && school !== "unclear";
  if (axis === "x") return isOwnSchool ? school : "turnedX";
  return school === "unclear" ? null : school;
}

const skillOf = (target: Target, setup: Setup, school: Ruling["school"]): SkillId | null =>
  setup.kind === "mill" ? millSkill(target, setup, school) : latheSkill(target, setup, school);

/** Earned this share of a strand's marks, and what it stands for counts as shown. */
const ENOUGH = 0.9;

/** What a ruling shows of each skill that its lane asked for, what cost most first. */
export function skillsShown(ruling: Ruling): SkillShown[] {
  const shown = new Map<SkillId, SkillShown>();
  const add = (skill: SkillId, isGood: boolean, lost: number) => {
    const before = shown.get(skill);
    shown.set(skill, { skill, isGood: isGood && (before?.isGood ?? true), lost: lost + (before?.lost ?? 0) });
  };
  const isHandover = ruling.sheet.handover !== undefined;
  // values that someone else set say nothing of how this student sets them
  for (const value of isHandover ? [] : ruling.values) {
    const skill = skillOf(value.target, ruling.sheet, ruling.school);
    if (skill)
      add(skill, value.isFollowThrough || Math.abs(value.closureMm) <= value.toleranceMm, value.outOf - value.marks);
  }
  for (const finding of ruling.findings)
    if (finding.code === "working") add("working", finding.fault === null, finding.outOf - finding.marks);
  const strand = (name: string, skill: SkillId) => {
    const found = ruling.strands.find((one) => one.name === name);
    if (found && found.outOf > 0) add(skill, found.marks >= ENOUGH * found.outOf, found.outOf - found.marks);
  };
  strand("method", "sequence");
  strand("proving", isHandover ? "findingFaults" : "checking");
  strand("safety", "safety");
  return [...shown.values()].sort((a, b) => b.lost - a.lost);
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
  const { targets, lengthSchools } = exercise;
  if (exercise.handover) return new Set<SkillId>(["safety", "sequence", "findingFaults"]);
  if (exercise.lathe) {
    const { targets: wanted, schools, control, axis } = exercise.lathe;
    const isSet = wanted.z.length > 0 || (control === "gang" && wanted.x.length > 0);
    return new Set<SkillId>([
      "safety",
      "sequence",
      "working",
      "checking",
      ...(wanted.x.length > 0 && control === "turret" ? (["turnedX"] as const) : []),
      ...(isSet ? schools : []),
      ...(wanted.nose.length > 0 ? (["nose"] as const) : []),
      ...(wanted.height.length > 0 || axis ? (["centerHeight"] as const) : []),
    ]);
  }
  return new Set<SkillId>([
    "safety",
    "sequence",
    "working",
    "checking",
    ...(targets.xy || exercise.partBefore ? [placeSkill(exercise)] : []),
    ...(targets.rotation ? (["turn"] as const) : []),
    ...(targets.lengths.length > 0 && !exercise.partBefore ? lengthSchools : []),
    ...(targets.diameters.length > 0 ? (["diameter"] as const) : []),
  ]);
}

/** An exercise that may still be taken, how often it was, and what it asks for. */
export interface Offer {
  readonly id: string;
  readonly taken: number;
  readonly asks: ReadonlySet<SkillId>;
}

/**
 * What to practice next: the first of the wanted skills that an exercise on offer asks for, and of those exercises the
 * least taken.
 */
export function practiceNext(
  wanted: readonly SkillId[],
  offers: readonly Offer[],
): { skill: SkillId; id: string } | null {
  for (const skill of wanted) {
    const [best] = offers.filter(({ asks }) => asks.has(skill)).sort((a, b) => a.taken - b.taken);
    if (best) return { skill, id: best.id };
  }
  return null;
}

const URGENCY: readonly Stand[] = ["notYet", "shaky", "untried"];

/**
 * Skills in the order in which they want practice: not yet, then shaky, then untried, each in the order of the work.
 */
export function wantedSkills(stands: ReadonlyMap<SkillId, Stand>): SkillId[] {
  return URGENCY.flatMap((stand) => skillIds.filter((skill) => (stands.get(skill) ?? "untried") === stand));
}
