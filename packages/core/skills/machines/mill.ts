import type { Exercise, MillSetup, Target } from "../../exercises";
import type { Ruling } from "../../grading";
import type { SkillId } from "../ids";

/** Kinds of datum that X and Y are found from, and the skill that each trains. */
const PLACES = { corner: "edge", middle: "middle", feature: "round", spindle: "round" } as const;

function placeSkill({ datum, partBefore }: { datum: { kind: keyof typeof PLACES }; partBefore?: unknown }): SkillId {
  return partBefore ? "changeOfPart" : PLACES[datum.kind];
}

/** The skill that a value of a mill trains. */
export function millSkill({ kind }: Target, setup: MillSetup, school: Ruling["school"]): SkillId | null {
  if (kind === "place") return placeSkill(setup);
  if (kind === "turn") return "turn";
  if (kind === "diameter") return "diameter";
  if (setup.partBefore) return "changeOfPart";
  return school === "unclear" ? null : school;
}

/** The skills that an exercise for a mill asks for, besides those of every lane. */
export function millAsks(exercise: Exercise): readonly SkillId[] {
  const { targets, lengthSchools } = exercise;
  return [
    ...(targets.xy || exercise.partBefore ? [placeSkill(exercise)] : []),
    ...(targets.rotation ? (["turn"] as const) : []),
    ...(targets.lengths.length > 0 && !exercise.partBefore ? lengthSchools : []),
    ...(targets.diameters.length > 0 ? (["diameter"] as const) : []),
  ];
}
