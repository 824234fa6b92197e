/**
 * What a student can do, read from rulings: each lane shows some skills, their history gives where they stand and what
 * to practice next.
 */
export { practiceNext, skillsAsked, skillsShown, standOf, wantedSkills, type Offer, type Stand } from "./skills";
export { skillsShownAtMachine } from "./machines/floor";
export type { SkillShown } from "./shown";
export { skillIds, type SkillId } from "./ids";
