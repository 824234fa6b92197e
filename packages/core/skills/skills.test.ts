import { describe, expect, it } from "vitest";
import { LaneDriver, workLane, type Habits } from "@probe-lane/students";
import { demoExercises, findDemoExercise } from "../../../demo";
import { rule } from "../grading";
import { practiceNext, skillIds, skillsAsked, skillsShown, standOf, wantedSkills, type Offer, type SkillId } from ".";

const shownOf = (exerciseId: string, habits: Habits = {}) => {
  const { exercise, marking } = findDemoExercise(exerciseId);
  const driver = new LaneDriver(exercise, "skills-1");
  workLane(driver, habits);
  return skillsShown(rule(driver.log, marking));
};

describe("skills that a ruling shows", () => {
  it("are those that the exercise asks for, all of them right when the work was", () => {
    for (const id of [
      "focuser-plate-lower-left",
      "clamp-middle-probe",
      "plate-bore-sweep",
      "five-tools-plane-lift",
      "diameters-part-contour",
      "plate-skewed",
    ]) {
      const shown = shownOf(id);
      expect(
        shown.filter(({ isGood }) => !isGood),
        id,
      ).toEqual([]);
      const asked = skillsAsked(findDemoExercise(id).exercise);
      for (const { skill } of shown) expect([...asked], id).toContain(skill);
    }
  });
  it("a dial read one turn short costs the edge, not the safety; what cost most stands first", () => {
    const shown = shownOf("clamp-corner-taster", { dialTurnShort: "x" });
    expect(shown[0]).toMatchObject({ skill: "edge", isGood: false });
    expect(shown.find(({ skill }) => skill === "safety")).toMatchObject({ isGood: true, lost: 0 });
  });
  it("every skill is asked for by some exercise of the pack", () => {
    const asked = new Set(demoExercises.flatMap(({ exercise }) => [...skillsAsked(exercise)]));
    expect(skillIds.filter((skill) => !asked.has(skill))).toEqual([]);
  });
});

describe("where a skill stands", () => {
  it.each([
    [[], "untried"],
    [[true], "shaky"],
    [[false], "notYet"],
    [[true, true], "mastered"],
    [[false, true], "shaky"],
    [[true, true, false], "notYet"],
    [[false, true, true], "mastered"],
  ] as const)("%j is %s", (shown, stand) => expect(standOf(shown)).toBe(stand));
  it("what is not yet there comes first, then what is shaky, then what was never tried", () => {
    const wanted = wantedSkills(
      new Map<SkillId, ReturnType<typeof standOf>>([
        ["edge", "mastered"],
        ["diameter", "notYet"],
        ["safety", "shaky"],
      ]),
    );
    expect(wanted.slice(0, 3)).toEqual(["diameter", "safety", "sequence"]);
    expect(wanted).not.toContain("edge");
  });
  it("what stood and has lapsed comes before what was never tried, behind what is shaky", () => {
    const stands = new Map<SkillId, ReturnType<typeof standOf>>([
      ["edge", "mastered"],
      ["round", "mastered"],
      ["diameter", "notYet"],
      ["safety", "shaky"],
    ]);
    // of what is shaky too long ago nothing more is said than that it is shaky
    const wanted = wantedSkills(stands, new Set<SkillId>(["edge", "safety"]));
    expect(wanted.slice(0, 4)).toEqual(["diameter", "safety", "edge", "sequence"]);
    expect(wanted).not.toContain("round");
    expect(wanted.filter((skill) => skill === "safety")).toHaveLength(1);
  });
  it("practice is the least taken exercise that asks for the first wanted skill; none when nothing asks for any", () => {
    const offer = (id: string, taken: number, ...asks: SkillId[]): Offer => ({
      id,
      taken,
      machine: "mill",
      asks: new Set(asks),
    });
    const offers = [offer("a", 2, "edge"), offer("b", 0, "edge", "round"), offer("c", 0, "turn")];
    expect(practiceNext(["master", "edge"], offers, "mill")).toEqual({ skill: "edge", id: "b" });
    expect(practiceNext(["master"], offers, "mill")).toBeNull();
  });
  it("it is of the machine that is worked on, and of another only where this one has nothing left", () => {
    const on = (id: string, machine: Offer["machine"], ...asks: SkillId[]): Offer => ({
      id,
      taken: 0,
      machine,
      asks: new Set(asks),
    });
    const offers = [on("m", "mill", "safety", "edge"), on("t", "turret", "safety"), on("g", "gang", "sequence")];
    expect(practiceNext(["safety"], offers, "turret")).toEqual({ skill: "safety", id: "t" });
    expect(practiceNext(["edge", "safety"], offers, "turret")).toEqual({ skill: "safety", id: "t" });
    expect(practiceNext(["edge"], offers, "turret")).toEqual({ skill: "edge", id: "m" });
  });
});
