/**
 * What a student can do, read from rulings: each lane shows some skills, their history gives where they stand and what
 * to practice next.
 */
export {
  practiceNext,
  skillIds,
  skillsAsked,
  skillsShown,
  standOf,
  wantedSkills,
  type Offer,
  type SkillId,
  type SkillShown,
  type Stand,
} from "./skills";
