import { rule, type Ruling } from "@probe-lane/core/grading";
import { describe, expect, it } from "vitest";
import { LaneDriver, workLane, type Habits } from "@probe-lane/students";
import { findDemoExercise } from "../../../../demo";
import { compareRows, wentWrong } from "./compareView";

function ruled(seed: string, habits: Habits = {}): Ruling {
  const { exercise, marking } = findDemoExercise("clamp-corner-taster");
  const driver = new LaneDriver(exercise, seed);
  workLane(driver, habits);
  return rule(driver.log, marking);
}

describe("two attempts beside one another", () => {
  const careless = ruled("one", { dialTurnShort: "x" });
  const careful = ruled("two");

  it("strands and closures, with the better one marked and equal ones not", () => {
    const { strands, values } = compareRows(careless, careful);
    expect(strands.map(({ name }) => name)).toEqual(["Values", "Working", "Method", "Safety", "Proving"]);
    expect(strands[0]).toMatchObject({ left: "22.5 / 45", right: "45 / 45", better: "right" });
    expect(strands[3]).toMatchObject({ left: "15 / 15", right: "15 / 15", better: null });
    expect(values.map(({ name }) => name)).toEqual(["G54 X, off by", "G54 Y, off by"]);
    expect(values[0]?.left).toMatch(/^−(1\.00|0\.99)\d$/);
    expect(values.map(({ better }) => better)).toEqual(["right", null]);
    expect(compareRows(careful, careless).strands[0]?.better).toBe("left");
  });
  it("what one of them has no strand for is a dash", () => {
    const older = { ...careful, strands: careful.strands.filter(({ name }) => name !== "proving") };
    expect(compareRows(older, careful).strands[4]).toEqual({
      name: "Proving",
      left: "–",
      right: "10 / 10",
      better: null,
    });
  });
  it("says what went wrong, and nothing of a clean lane", () => {
    expect(wentWrong(careful)).toEqual([]);
    expect(wentWrong(careless)[0]).toMatch(/^G54 X is .* mm low\. Cause: dial one turn short/);
  });
});
