import { describe, expect, it } from "vitest";
import { LaneDriver, workLane, type Habits } from "@probe-lane/students";
import { findDemoExercise } from "../../../../demo";
import { rule } from "@probe-lane/core/grading";
import { byCause } from "./Cause";
import { chainView } from "./chainView";

function wrongIn(exerciseId: string, habits: Habits) {
  const { exercise, marking } = findDemoExercise(exerciseId);
  const lane = new LaneDriver(exercise, "chain");
  workLane(lane, habits);
  const ruling = rule(lane.log, marking);
  const wrong = ruling.values.filter(({ closureMm, toleranceMm }) => Math.abs(closureMm) > toleranceMm);
  return { sheet: ruling.sheet, groups: byCause(wrong) };
}
const figure = (text: string) => Number(text.replace("−", "-"));

describe("the way from the contact to where the tool landed", () => {
  it("adds up, with a column for each thing that happened, the move before the figure", () => {
    const { sheet, groups } = wrongIn("roller-bracket-back-right", {
      radius: { x: "forgotten" },
      backsOffFirst: { x: 35 },
    });
    const view = chainView(groups[0] ?? [], sheet);
    expect(view?.columns.map(({ id }) => id)).toEqual(["capturedAfterLeaving", "radiusForgotten"]);
    const [row] = view?.rows ?? [];
    expect(row?.steps.map((step) => step?.figure !== null)).toEqual([false, true]);
    const sum = (row?.steps ?? []).reduce((total, step) => total + figure(step?.amount ?? "0"), figure(row?.own ?? ""));
    expect(sum).toBeCloseTo(figure(row?.landed ?? ""), 2);
  });
  it("one habit on several tools is one cause, a row each", () => {
    const { sheet, groups } = wrongIn("collar-five-tools-face", { feelerOnce: true });
    expect(groups).toHaveLength(1);
    const view = chainView(groups[0] ?? [], sheet);
    expect(view?.columns.map(({ id }) => id)).toEqual(["feelerOnce"]);
    expect(view?.rows.map(({ name }) => name)).toEqual(["T2 X", "T3 X", "T4 X", "T5 X"]);
  });
  it("what costs most comes first", () => {
    const { groups } = wrongIn("collar-five-tools-face", { feelerOnce: true, otherBladeEdge: true });
    const lost = groups.map((group) => group.reduce((sum, { outOf, marks }) => sum + outOf - marks, 0));
    expect(lost.length).toBe(2);
    expect(lost[0]).toBeGreaterThanOrEqual(lost[1] ?? Infinity);
  });
  it("of a ruling from before this was kept there is none", () => {
    const { sheet, groups } = wrongIn("collar-five-tools-face", { feelerOnce: true });
    expect(
      chainView(
        (groups[0] ?? []).map((value) => ({ ...value, provenance: null })),
        sheet,
      ),
    ).toBeNull();
  });
});
