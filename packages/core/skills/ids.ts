import { latheSchools, millLengthSchools, type LatheSchool, type MillLengthSchool } from "../exercises";

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
  "provingOut",
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
  | "provingOut"
  | "findingFaults";
