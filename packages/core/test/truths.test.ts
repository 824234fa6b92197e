import { describe, expect, it } from "vitest";
import { LaneDriver, workLane, workUpTo, type Habits } from "@probe-lane/students";
import { demoExercises, findDemoExercise } from "../../../demo";
import type { Marking } from "../exercises";
import { rule, type Finding, type Ruling } from "../grading";
import { findingWords } from "../words";

const FOCUSER = "focuser-plate-lower-left";
const ROLLER = "roller-bracket-back-right";

function worked(id: string, habits: Habits, change: (marking: Marking) => Marking = (marking) => marking): Ruling {
  const { exercise, marking } = findDemoExercise(id);
  const lane = new LaneDriver(exercise, "truths");
  workLane(lane, habits);
  return rule(lane.log, change(marking));
}
/** What a lane of these commands and no others is told. */
function ruledAfter(id: string, commands: Parameters<LaneDriver["do"]>[0][]): Ruling {
  const { exercise, marking } = findDemoExercise(id);
  const lane = new LaneDriver(exercise, "truths");
  for (const command of commands) lane.do(command);
  return rule(lane.log, marking);
}
const said = ({ findings }: Ruling): string[] =>
  findings.filter(({ code }) => code === "stepMissed").map((finding) => findingWords(finding));
const stepOf = ({ findings }: Ruling, step: string) =>
  findings.find((finding): finding is Extract<Finding, { code: "stepDone" | "stepMissed" }> =>
    "step" in finding ? finding.step === step : false,
  );

describe("absent is not too late", () => {
  const nothing = said(ruledAfter(FOCUSER, [{ type: "handIn" }]));
  it("who did nothing moved nothing and touched nothing", () => {
    expect(nothing).toContain("The machine was never sent to its reference.");
    expect(nothing).toContain("The spindle was never started.");
    expect(nothing).toContain("The burr was not dressed, and no edge was touched.");
    expect(nothing.join(" ")).not.toMatch(/was moved before|were touched before|last contact came/);
  });
  it("and of a lathe nothing is blamed on a touch that was not made", () => {
    const lathe = said(ruledAfter("collar-five-tools-face", [{ type: "handIn" }])).join(" ");
    expect(lathe).toContain("No tool was touched.");
    expect(lathe).toContain("The face was never cut or touched.");
    expect(lathe).not.toMatch(/sawn end|still showed the saw|Not every last touch/);
  });
  it("who homed late did move first, and is told so", () => {
    const ruling = ruledAfter(FOCUSER, [
      { type: "jog", axis: "z", direction: -1, clicks: 1, size: "coarse" },
      { type: "home" },
      { type: "handIn" },
    ]);
    expect(said(ruling)).toContain("The machine was moved before its reference return.");
  });
  it("the return itself is no motion before it", () => {
    expect(stepOf(ruledAfter(FOCUSER, [{ type: "home" }, { type: "handIn" }]), "homedFirst")?.code).toBe("stepDone");
  });
});

describe("a burr is blamed where a touch that counted met it", () => {
  const touchedWithIt = (): LaneDriver => {
    const lane = new LaneDriver(findDemoExercise(FOCUSER).exercise, "burr");
    return workUpTo(lane, ({ type }) => type === "captureRegister", { keepsBurr: true });
  };
  const burr = (lane: LaneDriver) => stepOf(rule(lane.log, findDemoExercise(FOCUSER).marking), "burrBeforeTouch");

  it("not where the edge was touched anew after it was dressed", () => {
    const lane = touchedWithIt();
    lane.do({ type: "runBlock", text: "G53 G0 Z0" });
    lane.do({ type: "stopSpindle" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "unload" });
    lane.do({ type: "setDoor", isOpen: false });
    workLane(lane, {});
    expect(lane.log.some(({ event }) => event.type === "kicked" && event.parts.burrMm > 0)).toBe(true);
    expect(burr(lane)?.code).toBe("stepDone");
  });
  it("and told as it was where it was never dressed", () => {
    const lane = touchedWithIt();
    lane.do({ type: "captureRegister", register: "G54.x", asText: "-5" });
    lane.do({ type: "handIn" });
    const missed = burr(lane);
    expect(missed && findingWords(missed)).toBe("An edge was touched with the burr still on it.");
  });
});

describe("contacts agree where they do", () => {
  it("typed into another offset, they are the same two contacts", () => {
    const ruling = worked(ROLLER, { otherRow: "y", skipsLook: true });
    expect(stepOf(ruling, "twoKicksY")?.code).toBe("stepDone");
    expect(stepOf(ruling, "finestY")?.code).toBe("stepDone");
  });
  it("one contact is not two", () => {
    expect(stepOf(worked(FOCUSER, { oneKick: true }), "twoKicksX")?.code).toBe("stepMissed");
  });
});

describe("a click is fine enough for its tolerance", () => {
  const widened = (x: number) => (marking: Marking) => ({
    ...marking,
    tolerancesMm: { ...marking.tolerancesMm, x },
  });
  const coarse: Habits = { coarseLastClick: { x: true } };
  it("a tenth is a quarter of ±0.4, and more than a quarter of ±0.39", () => {
    expect(stepOf(worked(FOCUSER, coarse, widened(0.4)), "finestX")?.code).toBe("stepDone");
    const narrow = worked(FOCUSER, coarse, widened(0.39));
    expect(stepOf(narrow, "finestX")?.code).toBe("stepMissed");
    expect(said(narrow)).toContain("X: the last contact came at a click of more than a quarter of its tolerance.");
  });
  it("the finest click does for the narrowest tolerance", () => {
    expect(stepOf(worked(FOCUSER, {}, widened(0.004)), "finestX")?.code).toBe("stepDone");
  });
});

describe("marks are shown and summed alike", () => {
  const inTenths = (marks: number) => Math.abs(marks * 10 - Math.round(marks * 10)) < 1e-6;
  it.each(demoExercises.map(({ exercise, marking }) => [exercise.id, { exercise, marking }] as const))(
    "every line in tenths, every strand the sum of its lines, the total the sum of the strands: %s",
    (_, { exercise, marking }) => {
      // full marks of a careful student are held by the pack
      for (const habits of [{ paper: "forgotten", feelerOnce: true, oneKick: true }] as Habits[]) {
        const lane = new LaneDriver(exercise, "tenths");
        try {
          workLane(lane, habits);
        } catch {
          continue;
        }
        const ruling = rule(lane.log, marking);
        const close = (a: number, b: number, what: string) =>
          expect(Math.abs(a - b), `${exercise.id} ${what}`).toBeLessThan(1e-6);
        const strand = (name: string) => ruling.strands.find((one) => one.name === name);
        close(
          ruling.values.reduce((sum, { marks }) => sum + marks, 0),
          strand("values")?.marks ?? 0,
          "values",
        );
        close(
          ruling.values.reduce((sum, { outOf }) => sum + outOf, 0),
          marking.weights.values,
          "out of",
        );
        for (const name of ["method", "proving"] as const) {
          const lines = ruling.findings.filter((finding) => "strand" in finding && finding.strand === name);
          if (lines.length === 0 || exercise.handover) continue;
          close(
            lines.reduce((sum, line) => sum + ("marks" in line ? line.marks : 0), 0),
            strand(name)?.marks ?? 0,
            name,
          );
        }
        const sum = ruling.strands.reduce((all, { marks }) => all + marks, 0);
        // what stands over points caps them
        const cap = (ruling.outOf * (ruling.notPassed?.capPercent ?? 100)) / 100;
        close(Math.min(sum, cap), ruling.total, "total");
        for (const { marks } of [...ruling.values, ...ruling.strands]) expect(inTenths(marks), exercise.id).toBe(true);
      }
    },
  );
  it("a missed look is a loss of proving", () => {
    const ruling = worked(FOCUSER, { skipsLook: true });
    expect(stepOf(ruling, "lookedTwoSides")).toMatchObject({ code: "stepMissed", strand: "proving" });
  });
});
