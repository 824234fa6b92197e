import { readoutSchool } from "../../exercises";
import { floorDatumWords, isReadOff, type FloorExercise, type FloorRegister, type FloorRuling } from "../../floor";
import type { SkillId } from "../ids";
import { SkillTally, type SkillShown } from "../shown";

/** The skill that a register of a real machine trains, by how it is set. */
function floorSkill({ method }: FloorRegister, { school, datum }: FloorExercise): SkillId {
  switch (method) {
    case "mill-edge":
      return "edge";
    case "mill-center":
      return datum === floorDatumWords("middle") ? "middle" : "round";
    case "mill-diameter":
      return "diameter";
    case "lathe-x":
      return "turnedX";
    case "lathe-nose":
    case "lathe-tip":
      return "nose";
    case "mill-length":
    case "lathe-z":
    case "lathe-readout":
      return school === "readout" ? readoutSchool : school;
  }
}

/** Verdicts that decide whether a value was set right; the others say that nobody knows. */
const DECIDED: Partial<Record<FloorRuling["values"][number]["verdict"], boolean>> = {
  right: true,
  within: true,
  wrong: false,
  missing: false,
};

/**
 * What the ruling of a lane at a real machine shows of each skill, what cost most first. A value that its check cannot
 * decide shows nothing.
 */
export function skillsShownAtMachine(exercise: FloorExercise, ruling: FloorRuling): SkillShown[] {
  const tally = new SkillTally(true);
  const share = (name: "values" | "working"): number =>
    (ruling.strands.find((one) => one.name === name)?.outOf ?? 0) / ruling.values.length;
  for (const { register, verdict, marks, working, workingMarks } of ruling.values) {
    const isGood = DECIDED[verdict];
    if (isGood !== undefined) tally.add(floorSkill(register, exercise), isGood, share("values") - marks);
    if (!isReadOff(register)) tally.add("working", working === "adds up", share("working") - workingMarks);
  }
  const strand = (name: "method" | "safety") => ruling.strands.find((one) => one.name === name);
  tally.addStrand("sequence", strand("method"));
  tally.addStrand("safety", strand("safety"));
  return tally.worstFirst();
}
