import { LaneDriver, workLane, type Habits } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { describe, expect, it } from "vitest";
import { rule, type Ruling, type WorkingFinding } from "../grading";
import { findingWords } from "../words";

function ruled(id: string, habits: Habits, seed = "working"): Ruling {
  const { exercise, marking } = findDemoExercise(id);
  const lane = new LaneDriver(exercise, seed);
  workLane(lane, habits);
  return rule(lane.log, marking);
}
const workingOf = (ruling: Ruling, register: string): WorkingFinding => {
  const found = ruling.findings.find(
    (finding): finding is WorkingFinding => finding.code === "working" && finding.register === register,
  );
  if (!found) throw new Error(`no working of ${register}`);
  return found;
};
const strand = (ruling: Ruling, name: string) => ruling.strands.find((one) => one.name === name);

describe("the ledger is the student's own arithmetic", () => {
  it.each([
    ["sum", "wrongSum", /the lines add up to .*, your sum says/],
    ["sign", "wrongSign", /tip radius has its sign turned/],
    ["missing", "missingTerm", /tip radius is missing/],
    ["reading", "wrongReading", /is not where anything was met/],
  ] as const)("a slip in the %s is a finding of its own, and the value keeps its marks", (ledger, fault, words) => {
    for (let seed = 0; seed < 8; seed++) {
      const ruling = ruled("roller-bracket-back-right", { ledger }, `slip ${seed}`);
      const finding = workingOf(ruling, "G54.x");
      expect(finding.fault).toBe(fault);
      expect(findingWords(finding)).toMatch(words);
      expect(finding.marks).toBeLessThan(finding.outOf);
      expect(strand(ruling, "values")?.marks).toBeCloseTo(45, 6);
      expect(workingOf(ruling, "G54.y").fault).toBeNull();
    }
  });
  it("nothing written earns nothing, unless the radius was entered by motion: then the log is the working", () => {
    expect(workingOf(ruled("focuser-plate-lower-left", { ledger: "none" }), "G54.x")).toMatchObject({
      fault: "noWorking",
      marks: 0,
    });
    const moved = workingOf(ruled("focuser-plate-lower-left", { ledger: "none", way: "motion" }), "G54.x");
    expect(moved).toMatchObject({ fault: null, isByMotion: true });
    expect(moved.marks).toBe(moved.outOf);
  });
  it("a radius forgotten in working and register is a missing term here and its cause there", () => {
    const ruling = ruled("focuser-plate-lower-left", { radius: { x: "forgotten" } });
    expect(workingOf(ruling, "G54.x")).toMatchObject({ fault: "missingTerm", term: "tipRadius" });
    expect(ruling.values[0]?.cause).toMatchObject({ kind: "proven", terms: [{ id: "radiusForgotten" }] });
  });
});

describe("what is shared costs once, and what follows is kept", () => {
  it("paper forgotten with every tool costs one tool's marks", () => {
    const ruling = ruled("five-tools-part-touch", { paper: "forgotten" });
    const lengths = ruling.values.filter(({ target }) => target.id.startsWith("H"));
    expect(lengths.every(({ sharedMm }) => sharedMm > 0.04)).toBe(true);
    expect(lengths.map(({ marks, outOf }) => marks === outOf)).toEqual([false, true, true, true, true]);
  });
  it("one wrong tool among five is its own, and nothing is shared", () => {
    const ruling = ruled("five-tools-gauge-line", { neighborRow: true });
    expect(ruling.values.map(({ marks, outOf }) => marks === outOf)).toEqual([false, true, true, true, true, true]);
    expect(ruling.values.every(({ sharedMm }) => sharedMm === 0)).toBe(true);
  });
  it("a lift that is right given the first tool's wrong length keeps its marks", () => {
    const ruling = ruled("five-tools-plane-lift", { firstLengthOffMm: 0.4 });
    const of = (target: string) => ruling.values.find((value) => value.target.id === target);
    expect(of("H1")?.marks).toBe(0);
    expect(of("workZ")).toMatchObject({ isFollowThrough: true, marks: of("workZ")?.outOf });
    expect(Math.abs(of("workZ")?.closureMm ?? 0)).toBeCloseTo(0.4, 1);
  });
});

describe("five strands", () => {
  it("have the weights of the marking, and add up to a hundred", () => {
    const ruling = ruled("focuser-plate-lower-left", {});
    expect(ruling.strands.map(({ name, outOf }) => [name, outOf])).toEqual([
      ["values", 45],
      ["working", 15],
      ["method", 15],
      ["safety", 15],
      ["proving", 10],
    ]);
    expect(ruling.total).toBeCloseTo(100, 6);
  });
  it("proving is lost by who never looked, and only that", () => {
    const ruling = ruled("focuser-plate-lower-left", { skipsLook: true });
    expect(strand(ruling, "proving")?.marks).toBe(0);
    expect(ruling.total).toBeCloseTo(90, 6);
  });
  it("a marking of before, with three weights, still rules as it did", () => {
    const { exercise, marking } = findDemoExercise("focuser-plate-lower-left");
    const lane = new LaneDriver(exercise, "old marking");
    workLane(lane, { skipsLook: true, ledger: "none" });
    const ruling = rule(lane.log, {
      ...marking,
      weights: { values: 50, working: 0, method: 25, safety: 25, proving: 0 },
    });
    expect(ruling.strands.map(({ name }) => name)).toEqual(["values", "method", "safety"]);
    expect(strand(ruling, "method")?.marks).toBeLessThan(25);
  });
});

describe("the school of lengths", () => {
  const typedOnly = (school?: "gauge-line" | "block-in-wear") => {
    const { exercise, marking } = findDemoExercise("five-tools-free");
    const lane = new LaneDriver(exercise, "school said");
    lane.do({ type: "home" });
    lane.do({ type: "typeRegister", register: "H1", text: "80", how: "set", isConfirmed: true });
    lane.do({ type: "handIn", ...(school ? { school } : {}) });
    return rule(lane.log, marking);
  };
  it("is not to be told from a length that was only typed", () =>
    expect(typedOnly()).toMatchObject({ school: "unclear" }));
  it("is then the one named at hand-in, and the ruling says that it was named", () =>
    expect(typedOnly("gauge-line")).toMatchObject({ school: "gauge-line", isSchoolNamed: true }));
  it("what the log tells goes before what was named", () => {
    const { exercise, marking } = findDemoExercise("five-tools-free");
    const lane = new LaneDriver(exercise, "school read");
    workLane(lane, { school: "part-touch", stopsAfter: "z" });
    lane.do({ type: "handIn", school: "gauge-line" });
    const ruling = rule(lane.log, marking);
    expect(ruling.school).toBe("part-touch");
    expect(ruling.isSchoolNamed).toBeUndefined();
  });
  it("cannot be one that the exercise does not allow", () => {
    const lane = new LaneDriver(findDemoExercise("focuser-plate-lower-left").exercise, "school not here");
    expect(lane.attempt({ type: "handIn", school: "master" })).toEqual({ code: "schoolNotHere" });
  });
});
