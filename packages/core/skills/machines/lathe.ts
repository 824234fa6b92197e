import type { Exercise, Target, TurningSetup } from "../../exercises";
import type { Ruling } from "../../grading";
import type { SkillId } from "../ids";

/** The skill that a value of a lathe trains; over a bar or into a library X is of the school, too. */
export function latheSkill({ kind, axis }: Target, setup: TurningSetup, school: Ruling["school"]): SkillId | null {
  if (kind === "nose" || kind === "tipCode" || kind === "fit") return "nose";
  if (kind !== "toolOffset") return "centerHeight";
  const isOwnSchool = setup.kind !== "turret" && school !== "unclear";
  if (axis === "x") return isOwnSchool ? school : "turnedX";
  return school === "unclear" ? null : school;
}

/** The skills that an exercise for a lathe asks for, besides those of every lane. */
export function latheAsks({
  targets: wanted,
  schools,
  control,
  axis,
}: NonNullable<Exercise["lathe"]>): readonly SkillId[] {
  const isSet = wanted.z.length > 0 || (control === "gang" && wanted.x.length > 0);
  return [
    ...(wanted.x.length > 0 && control === "turret" ? (["turnedX"] as const) : []),
    ...(isSet ? schools : []),
    ...(wanted.nose.length > 0 ? (["nose"] as const) : []),
    ...(wanted.height.length > 0 || axis ? (["centerHeight"] as const) : []),
  ];
}
