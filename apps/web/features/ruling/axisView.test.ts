import { describe, expect, it } from "vitest";
import { LaneDriver, workLane, type Habits } from "@probe-lane/students";
import { findDemoExercise } from "../../../../demo";
import { rule } from "@probe-lane/core/grading";
import { axisView } from "./axisView";

function valuesOf(exerciseId: string, habits: Habits) {
  const { exercise, marking } = findDemoExercise(exerciseId);
  const lane = new LaneDriver(exercise, "axis");
  workLane(lane, habits);
  return rule(lane.log, marking).values;
}

describe("a value on its axis", () => {
  const values = valuesOf("roller-bracket-back-right", { radius: { x: "forgotten" }, facing: "forgotten" });
  it.each([320, 480, 600])("at %i px nothing is cut off and no two labels touch", (width) => {
    for (const value of values) {
      const view = axisView(value, width);
      for (const { x } of [...view.marks, ...view.ticks]) {
        expect(x).toBeGreaterThanOrEqual(0);
        expect(x).toBeLessThanOrEqual(width);
      }
      const spans = view.marks
        .filter(({ label }) => label)
        .map(({ x, label, anchor, row }) => {
          const wide = label.length * 6.4;
          const left = anchor === "start" ? x : anchor === "end" ? x - wide : x - wide / 2;
          return { row, left, right: left + wide };
        });
      spans.forEach((a, i) => {
        expect(a.left).toBeGreaterThanOrEqual(-1);
        expect(a.right).toBeLessThanOrEqual(width + 1);
        for (const b of spans.slice(i + 1))
          if (a.row === b.row) expect(a.right < b.left || b.right < a.left).toBe(true);
      });
    }
  });
  it("marks the cause, and puts zero in the middle of the band", () => {
    const [x] = values;
    if (!x) throw new Error("no value");
    const view = axisView(x, 500);
    expect(view.marks.filter(({ isCause }) => isCause).map(({ key }) => key.split(" ")[0])).toEqual([
      "radiusForgotten",
    ]);
    expect((view.band[0] + view.band[1]) / 2).toBeCloseTo(view.zero, 6);
  });
});
