import { describe, expect, it } from "vitest";
import { LaneDriver, workUpTo, type Habits } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import type { Command, MillSeen, TurningSeen } from "../bench";
import { rule, type Finding, type Ruling } from "../grading";
import { coachWords, findingWords, refusalWords } from "../words";

const FOCUSER = "focuser-plate-lower-left";

const upTo = (id: string, isThere: (command: Command, lane: LaneDriver) => boolean, habits: Habits = {}): LaneDriver =>
  workUpTo(new LaneDriver(findDemoExercise(id).exercise, "checks", { isCoachOn: true }), isThere, habits);
const ruled = (lane: LaneDriver, id: string): Ruling => rule(lane.log, findDemoExercise(id).marking);
const stepOf = ({ findings }: Ruling, step: string) =>
  findings.find((finding): finding is Extract<Finding, { code: "stepDone" | "stepMissed" }> =>
    "step" in finding ? finding.step === step : false,
  );
const said = (ruling: Ruling, step: string): string => {
  const finding = stepOf(ruling, step);
  return finding ? findingWords(finding) : "";
};
const gate = (lane: LaneDriver, name: string) => lane.seen.gates.find((one) => one.name === name);
const advice = (lane: LaneDriver): string => (lane.seen.coach ? coachWords(lane.seen.coach, lane.seen) : "");
const tryTo = (lane: LaneDriver, command: Command): string | null => {
  const refusal = lane.attempt(command);
  return refusal ? refusalWords(refusal, "mm") : null;
};
const type = (register: "G54.x" | "G54.y" | "H1", text: string, how: "set" | "add" = "add"): Command => ({
  type: "typeRegister",
  register,
  text,
  how,
  isConfirmed: true,
});

/** Over zero at the height at which one travels, the check said. */
const highOver = () => upTo(FOCUSER, (_next, { seen }) => seen.check?.check === "overZero" && seen.work.x === 0);
/** Over zero, close to the part. */
const closeOver = (habits: Habits = {}) => upTo(FOCUSER, ({ type: name }) => name === "lookCheck", habits);

describe("a look close enough to tell", () => {
  it("from high above a point stands over anything: nothing opens, and it is said why", () => {
    const lane = highOver();
    lane.do({ type: "lookFrom", side: "front" });
    lane.do({ type: "lookFrom", side: "left" });
    expect((lane.seen as MillSeen).evidence.sidesOverZero).toEqual([]);
    expect(tryTo(lane, { type: "lookCheck" })).toContain("bring the tip within a few millimetres of the part");
    lane.do({ type: "handIn" });
    expect(said(ruled(lane, FOCUSER), "lookedTwoSides")).toContain("never stood over zero close to the part");
    expect(said(ruled(lane, FOCUSER), "checkedBefore")).toBe("No check was made.");
  });
  it("from close by, and answered, it opens the gate and earns", () => {
    const lane = upTo(FOCUSER, ({ type: name }) => name === "handIn");
    expect(gate(lane, "verified")?.isPassed).toBe(true);
    lane.do({ type: "handIn" });
    expect(stepOf(ruled(lane, FOCUSER), "lookedTwoSides")?.code).toBe("stepDone");
    expect(stepOf(ruled(lane, FOCUSER), "checkedBefore")?.code).toBe("stepDone");
  });
  it("looked from two sides with nothing said first is a look and no check", () => {
    const lane = closeOver();
    expect(gate(lane, "verified")?.isPassed).toBe(false);
    lane.do({ type: "handIn" });
    expect(stepOf(ruled(lane, FOCUSER), "lookedTwoSides")?.code).toBe("stepDone");
    expect(said(ruled(lane, FOCUSER), "checkedBefore")).toBe("No check was made.");
  });
  it("a rule is read beside a tool that stands still", () => {
    const lane = upTo(FOCUSER, ({ type: name }) => name === "handIn");
    lane.do({ type: "startSpindle", direction: "forward", rpm: 500 });
    lane.do({ type: "expectCheck", check: "ruleBeside", text: "60" });
    expect(tryTo(lane, { type: "lookCheck" })).toContain("Stop the spindle");
  });
});

describe("an answer true to what was seen", () => {
  /** The tip radius the wrong way, so that the point stands ten off. */
  const off = () => closeOver({ radius: { x: "turned" } });
  const answered = (isAsExpected: boolean, then: readonly Command[] = []): Ruling => {
    const lane = off();
    lane.do({ type: "lookCheck" });
    expect(lane.seen.check?.seenMm).toBeGreaterThan(4);
    lane.do({ type: "judgeCheck", isAsExpected });
    for (const command of then) lane.do(command);
    lane.do({ type: "handIn" });
    return ruled(lane, FOCUSER);
  };
  it("“as expected” at millimetres off is a finding of its own", () => {
    expect(said(answered(true), "checkedBefore")).toMatch(
      /^No check stands .* It was called as expected, and what was seen stood about \d+\.\d mm off\.$/,
    );
  });
  it("“not as I expected, I stop” counts, and says that it was not put right", () => {
    const ruling = answered(false);
    expect(stepOf(ruling, "checkedBefore")?.code).toBe("stepDone");
    expect(said(ruling, "checkedBefore")).toMatch(
      /You saw that it was .* off and stopped, and did not put it right\.$/,
    );
  });
  it("and put right it is said no longer", () => {
    const words = said(answered(false, [type("G54.x", "10")]), "checkedBefore");
    expect(words).toBe("A check made with its expectation said first, and judged as it looked.");
  });
});

describe("a register that changes after its check", () => {
  it("withdraws it and shuts the gate, by its name, until it is checked again", () => {
    const lane = upTo(FOCUSER, ({ type: name }) => name === "handIn");
    lane.do(type("G54.y", "0.01"));
    expect(gate(lane, "verified")).toMatchObject({ isPassed: false, shutBy: "G54.y" });
    expect(advice(lane)).toContain("G54 Y was changed after its check");
    lane.do({ type: "handIn" });
    const ruling = ruled(lane, FOCUSER);
    for (const step of ["lookedTwoSides", "checkedBefore"])
      expect(said(ruling, step)).toContain("G54 Y was changed after it was checked, which withdrew the check.");
  });
  it("one that the check did not hang on leaves it", () => {
    const lane = upTo(FOCUSER, ({ type: name }) => name === "handIn");
    lane.do(type("H1", "0.01"));
    expect(gate(lane, "verified")?.isPassed).toBe(true);
  });
});

describe("what stands on the screen is no check", () => {
  it("with the edge felt, its figure is not expected but read", () => {
    const lane = upTo(FOCUSER, ({ type: name }) => name === "takeReading");
    expect((lane.seen as MillSeen).tip?.kind).toBe("aside");
    expect(tryTo(lane, { type: "expectCheck", check: "sameEdge", text: "-300" })).toContain("on the screen already");
  });
  it("said before, the touch itself is the look", () => {
    const lane = upTo(FOCUSER, ({ type: name }) => name === "setWobbling");
    lane.do({ type: "expectCheck", check: "sameEdge", text: "-300" });
    expect(tryTo(lane, { type: "lookCheck" })).toContain("Touch the edge first");
  });
});

describe("gates and coach", () => {
  it("work Z has a gate in every school that needs it, and nobody is sent to hand in over it", () => {
    for (const id of ["five-tools-gauge-line", "five-tools-plane-lift", "five-tools-master"]) {
      const lane = upTo(
        id,
        (command) => "register" in command && command.register === "G54.z" && command.type === "typeRegister",
      );
      expect(gate(lane, "workZ")?.isPassed, id).toBe(false);
    }
    const touched = upTo("five-tools-part-touch", ({ type: name }) => name === "handIn");
    expect(gate(touched, "workZ")).toBeUndefined();
  });
  it("in the block-in-wear school a length without its wear is half a length", () => {
    const lane = upTo("five-tools-block-in-wear", ({ type: name }) => name === "handIn", { leavesBlockOut: true });
    expect(gate(lane, "tool1")?.isPassed).toBe(false);
  });
  it("nose radius alone is not radius and tip code", () => {
    const lane = upTo(
      "knob-nose-and-tip",
      (command) => command.type === "typeRegister" && command.register.startsWith("Q"),
    );
    expect(lane.seen.gates.filter(({ kind }) => kind === "tool").every(({ isPassed }) => isPassed)).toBe(false);
  });
});

describe("looks that suit a lathe", () => {
  const FACE = "collar-five-tools-face";
  it("a rule before the face tells from close by only", () => {
    const lane = upTo(FACE, ({ type: name }) => name === "handIn");
    lane.do({ type: "home" });
    lane.do({ type: "expectCheck", check: "knownHeight", text: "5" });
    expect(tryTo(lane, { type: "lookCheck" })).toContain("From here nobody can tell");
  });
  it("X by a skim and the micrometer: said by the display, then measured", () => {
    const lane = upTo(FACE, ({ type: name }) => name === "measureTurned");
    const { what, by } = { what: "turned", by: "micrometer" } as const;
    lane.do({ type: "expectCheck", check: "skimmed", text: "40" });
    expect(tryTo(lane, { type: "lookCheck" })).toContain("measure it first");
    lane.do({ type: "measureTurned", what, by });
    lane.do({ type: "lookCheck" });
    const read = (lane.seen as TurningSeen).readings.at(-1)?.values.diameter;
    expect(lane.seen.check?.seenMm).toBe(read);
    lane.do({ type: "judgeCheck", isAsExpected: false });
    expect(gate(lane, "verified")?.isPassed).toBe(true);
  });
});
