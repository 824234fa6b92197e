import { describe, expect, it } from "vitest";
import { latheLane, millLane, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import type { LoggedEvent } from "../diagnosis";
import type { Target } from "../exercises";
import { rule } from "../grading";
import { gatePace, paceOf, patternAtMachine, patternOf, patternsOf, type LanePattern, type ValueMet } from ".";

const x: Target = { id: "x", kind: "place", tool: null, axis: "x", registers: ["G54.x"], unit: "mm" };
const met = (closureMm: number, made: ValueMet["made"] = [], likely: ValueMet["likely"] = []): ValueMet => ({
  target: x,
  closureMm,
  toleranceMm: 0.02,
  isRight: Math.abs(closureMm) <= 0.02,
  made,
  likely,
  lines: [
    { id: "radiusForgotten", mm: -5 },
    { id: "radiusSignTurned", mm: closureMm > 0 ? 10 : -10 },
    { id: "radiusSignTurned", mm: closureMm > 0 ? -10 : 10 },
  ],
});
const lane = (value: ValueMet, more: Partial<LanePattern> = {}): LanePattern => ({
  values: [value],
  incidents: [],
  missed: [],
  ...more,
});

describe("what a class gets wrong", () => {
  const patterns = patternsOf([
    { lane: "a", pattern: lane(met(-5.01, ["radiusForgotten"]), { incidents: ["toolChipped", "toolChipped"] }) },
    { lane: "b", pattern: lane(met(-4.98, [], ["radiusForgotten"]), { missed: ["checkedBefore"] }) },
    { lane: "c", pattern: lane(met(10, ["radiusSignTurned"])) },
    { lane: "d", pattern: lane(met(0.01)) },
    { lane: "e", pattern: { likely: ["radiusForgotten"] } },
  ]);
  it("is counted by lanes, each once, what the log shows apart from what is only likely", () => {
    expect(patterns.mistakes).toEqual([
      { id: "radiusForgotten", made: ["a"], likely: ["b", "e"] },
      { id: "radiusSignTurned", made: ["c"], likely: [] },
    ]);
    expect(patterns.incidents).toEqual([{ code: "toolChipped", lanes: ["a"] }]);
    expect(patterns.missed).toEqual([{ step: "checkedBefore", lanes: ["b"] }]);
  });
  it("stands on the axis of each value, with a line where each mistake that somebody made puts it", () => {
    const [spread] = patterns.values;
    expect(patterns.values).toHaveLength(1);
    expect(spread?.dots.map(({ lane: one, isRight }) => [one, isRight])).toEqual([
      ["a", false],
      ["b", false],
      ["c", false],
      ["d", true],
    ]);
    // a mistake that turns either way is drawn on the side on which it was made
    expect(spread?.lines).toEqual([
      { id: "radiusForgotten", mm: -5, lanes: 2 },
      { id: "radiusSignTurned", mm: 10, lanes: 1 },
    ]);
  });
  it("is nothing of no lanes", () => {
    expect(patternsOf([])).toEqual({ mistakes: [], values: [], incidents: [], missed: [] });
  });
});

describe("a ruling as a class's patterns take it", () => {
  it("names what the log shows, and of right values nothing", () => {
    const { exercise, marking } = findDemoExercise("focuser-plate-lower-left");
    const worked = millLane(exercise, "pattern");
    workLane(worked, { radius: { x: "forgotten" }, startsAtRememberedSpeed: true });
    const { values, incidents, missed } = patternOf(rule(worked.log, marking));
    expect(values.map(({ target, isRight, made }) => [target.id, isRight, made])).toEqual([
      ["x", false, ["radiusForgotten"]],
      ["y", true, []],
      ["z1", true, []],
    ]);
    expect(values[0]?.lines.find(({ id }) => id === "radiusForgotten")?.mm).toBeCloseTo(-5, 1);
    expect(incidents).toContain("finderThrown");
    expect(missed.length).toBeGreaterThan(0);
    expect(patternOf(rule(worked.log.slice(0, 1), marking)).values.every(({ likely }) => likely.length === 0)).toBe(
      true,
    );
  });
  it("takes of a real machine what one mistake alone explains, if the odds are even or better", () => {
    const explained = (classes: string[][], probability: number) => ({
      verdict: "wrong" as const,
      explained: { ranked: [{ classes, probability, predicted: 0 }], unexplained: false, wouldHelp: null },
    });
    const of = (...values: ReturnType<typeof explained>[]) =>
      patternAtMachine({ values } as unknown as Parameters<typeof patternAtMachine>[0]).likely;
    expect(of(explained([["paperForgotten"]], 0.5))).toEqual(["paperForgotten"]);
    expect(of(explained([["paperForgotten"]], 0.49))).toEqual([]);
    expect(of(explained([["paperForgotten", "radiusForgotten"]], 0.9))).toEqual([]);
    expect(of(explained([["paperForgotten"]], 0.9), explained([["paperForgotten"]], 0.8))).toEqual(["paperForgotten"]);
  });
});

describe("how long gates take", () => {
  const { exercise } = findDemoExercise("knob-first-tool");
  const worked = latheLane(exercise, "pace");
  workLane(worked);
  const at = (stepMs: number, pauseAt = -1): LoggedEvent[] =>
    worked.log.map((entry, i) => ({ ...entry, atMs: i * stepMs + (pauseAt >= 0 && i > pauseAt ? 3_600_000 : 0) }));
  it("is the time at work since the gate before; every gate once, the times together all of it", () => {
    const pace = paceOf(at(1000));
    expect(new Set(pace.map(({ gate }) => gate)).size).toBe(pace.length);
    expect(pace.at(-1)?.gate).toBe("handIn");
    expect(pace.reduce((sum, { workMs }) => sum + workMs, 0)).toBe((worked.log.length - 1) * 1000);
  });
  it("a break counts five minutes, and no more", () => {
    const sum = (log: LoggedEvent[]) => paceOf(log).reduce((all, { workMs }) => all + workMs, 0);
    expect(sum(at(1000, 20)) - sum(at(1000))).toBe(299_000);
    expect(paceOf([])).toEqual([]);
  });
  it("of a class: quickest, slowest, and the middle of an even number between two", () => {
    const passed = (gate: string, workMs: number) => [{ gate, workMs }];
    const lanes = [passed("xSet", 10), passed("xSet", 40), passed("xSet", 20), passed("xSet", 90), passed("ySet", 5)];
    expect(gatePace(["ySet", "xSet", "tool1"], lanes)).toEqual([
      { gate: "ySet", lanes: 1, leastMs: 5, middleMs: 5, mostMs: 5 },
      { gate: "xSet", lanes: 4, leastMs: 10, middleMs: 30, mostMs: 90 },
    ]);
  });
});
