import { describe, expect, it } from "vitest";
import { latheLane, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { replay, type TurningLane } from "../bench";
import { infer } from "../diagnosis";
import { rule, type RegisterRuling } from "../grading";
import { causeWords } from "../words";
import { valueMarks } from "../grading/values";

describe("marks of a value, by hand", () => {
  it("are full up to the tolerance, nothing from its multiple on, and fall evenly between", () => {
    // 15 marks, ±0.02, zero at four times that: a third gone at twice, two thirds at three times
    expect(valueMarks(0.02, 0.02, 4, 15)).toBe(15);
    expect(valueMarks(-0.04, 0.02, 4, 15)).toBeCloseTo(10, 9);
    expect(valueMarks(0.06, 0.02, 4, 15)).toBeCloseTo(5, 9);
    expect(valueMarks(0.07, 0.02, 4, 15)).toBeCloseTo(2.5, 9);
    expect(valueMarks(0.08, 0.02, 4, 15)).toBe(0);
    expect(valueMarks(1, 0.02, 4, 15)).toBe(0);
  });
});

describe("odds, by hand", () => {
  const one = (id: string, predicted: number, prior: number) => ({ id, predicted, prior });
  it("two mistakes that come to the same sum as a third weigh a tenth of what chance alone would say", () => {
    // all three predict 3: the single one 0.2, the pair 0.5 × 0.4 × 0.1 = 0.02, so 10 to 1
    const { ranked } = infer({
      closure: 3,
      u: 0.01,
      none: 0.5,
      candidates: [one("a", 1, 0.5), one("b", 2, 0.4), one("c", 3, 0.2)],
    });
    expect(ranked[0]).toMatchObject({ ids: ["c"] });
    expect(ranked[0]?.probability).toBeCloseTo(10 / 11, 6);
    expect(ranked[1]).toMatchObject({ ids: ["a", "b"] });
    expect(ranked[1]?.probability).toBeCloseTo(1 / 11, 6);
  });
  it("four deviations away a mistake is still an explanation, beyond that it is none", () => {
    const at = (closure: number) => infer({ closure, u: 0.01, none: 0, candidates: [one("a", 1, 0.5)] }).unexplained;
    expect(at(1.0399)).toBe(false);
    expect(at(1.0401)).toBe(true);
  });
});

describe("laws of the lathes", () => {
  const GANG = "collar-gang-two-changed";
  const lane = (id: string, seed = "law") => latheLane(findDemoExercise(id).exercise, seed);
  const reachIn = (made: ReturnType<typeof lane>) => {
    if (made.seen.spindle.isOn) made.do({ type: "stopSpindle" });
    if (!made.seen.isDoorOpen) made.do({ type: "setDoor", isOpen: true });
  };
  const isOpen = (made: ReturnType<typeof lane>, tool: number) =>
    made.seen.gates.find((gate) => gate.kind === "tool" && gate.tool === tool)?.isPassed;

  /** A lane worked to its end, and not handed in. */
  function worked(id: string) {
    const made = lane(id);
    workLane(made, {});
    const again = lane(id);
    const events = made.log.map(({ event }) => event).filter(({ type }) => type !== "handedIn");
    again.state = replay(events) as TurningLane;
    return again;
  }

  it("a tool that is loose in its clamp passes no gate, whatever was set", () => {
    const made = worked(GANG);
    const { station } = made.seen.lathe;
    expect(isOpen(made, station)).toBe(true);
    reachIn(made);
    made.do({ type: "loosenTool" });
    expect(isOpen(made, station)).toBe(false);
  });
  it("a changed tool has to be touched and set again: nothing that was known of the old one counts", () => {
    const made = worked(GANG);
    const { station } = made.seen.lathe;
    expect(made.seen.lathe.evidence.xTouched[station]).toBeGreaterThan(0);
    expect(made.seen.lathe.evidence.isXSet[station]).toBe(true);
    reachIn(made);
    made.do({ type: "changeTool", tool: station, overhang: "22" });
    expect(made.seen.lathe.evidence.xTouched[station] ?? 0).toBe(0);
    expect(made.seen.lathe.evidence.isXSet[station] ?? false).toBe(false);
  });
  it("no insert takes more than three millimetres: a deeper cut chips it, a shallower one does not", () => {
    for (const [deepMm, chips] of [
      [2, false],
      [30, true],
    ] as const) {
      const made = lane("knob-first-tool");
      made.do({ type: "home" });
      made.do({ type: "startSpindle", direction: "forward", rpm: 900 });
      const { tip } = made.seen.lathe;
      const at = (radiusMm: number) =>
        (made.seen.machine.x / 1000 + 2 * (radiusMm - made.seen.lathe.tip.radiusMm)).toFixed(3);
      const z = (overFaceMm: number) =>
        (made.seen.machine.z / 1000 + tip.faceMm + overFaceMm - made.seen.lathe.tip.zMm).toFixed(3);
      made.do({ type: "runBlock", text: `G53 G0 Z${z(-deepMm / 2 + 20)}` });
      made.do({ type: "runBlock", text: `G53 G0 X${at(tip.partRadiusMm - deepMm)}` });
      made.do({ type: "jog", axis: "z", direction: -1, clicks: 200, size: "coarse" });
      made.attempt({ type: "jog", axis: "z", direction: -1, clicks: 60, size: "coarse" });
      expect(made.seen.incidents.includes("insertChipped"), `${deepMm} mm deep`).toBe(chips);
    }
  });
  it("the arm stops the axis at a middle click, and a coarse one strikes it", () => {
    const toArm = (size: "middle" | "coarse") => {
      const made = lane("collar-five-tools-arm");
      made.do({ type: "home" });
      made.do({ type: "setDoor", isOpen: true });
      made.do({ type: "swingArm", isDown: true });
      made.do({ type: "setDoor", isOpen: false });
      const arm = made.seen.lathe.arm;
      if (!arm) throw new Error("no arm");
      const { tip } = made.seen.lathe;
      const x = (made.seen.machine.x / 1000 + 2 * (arm.radiusMm - 5 - tip.radiusMm)).toFixed(3);
      made.do({ type: "runBlock", text: `G53 G0 X${x}` });
      const z = (made.seen.machine.z / 1000 + arm.zMm + 3 - made.seen.lathe.tip.zMm).toFixed(3);
      made.do({ type: "runBlock", text: `G53 G0 Z${z}` });
      for (let turn = 0; turn < 60 && !made.seen.lathe.isArmTripped && !made.seen.isStopped; turn++)
        made.do({ type: "jog", axis: "z", direction: -1, clicks: size === "coarse" ? 5 : 50, size });
      return made.seen;
    };
    const met = toArm("middle");
    expect([met.lathe.isArmTripped, met.incidents]).toEqual([true, []]);
    const struck = toArm("coarse");
    expect([struck.lathe.isArmTripped, struck.incidents]).toEqual([false, ["armStruck"]]);
  });
  it("a diameter measured before a cut and again after it is not one diameter measured twice", () => {
    const { exercise, marking } = findDemoExercise("knob-first-tool");
    const made = latheLane(exercise, "twice");
    workLane(made, {});
    const stepOf = (log: typeof made.log) =>
      rule(log, marking).findings.find((finding) => "step" in finding && finding.step === "measuredTwice");
    expect(stepOf(made.log)).toMatchObject({ code: "stepDone" });
    const second = made.log.findLastIndex(({ event }) => event.type === "readingShown" && event.what === "turned");
    const cut = made.log.find(({ event }) => event.type === "turned" && event.axis === "z");
    const between = made.log.flatMap((entry, at) =>
      at === second && cut ? [{ ...cut, seq: entry.seq }, entry] : [entry],
    );
    expect(stepOf(between)).not.toMatchObject({ code: "stepDone" });
  });
});

describe("which way a value is off", () => {
  const { exercise, marking } = findDemoExercise("knob-first-tool");
  const made = latheLane(exercise, "which way");
  workLane(made, {});
  const ruling = rule(made.log, marking);
  const said = (closureMm: number) => {
    const value: RegisterRuling = {
      ...(ruling.values[0] as RegisterRuling),
      closureMm,
      marks: 0,
      cause: { kind: "unexplained" },
    };
    return causeWords(value, ruling.sheet).headline;
  };
  it("too much in a register holds the tip off, too little lets it cut deep", () => {
    expect(said(0.5)).toContain("high: the tip stands off");
    expect(said(-0.5)).toContain("low: the tip cuts deep");
  });
});
