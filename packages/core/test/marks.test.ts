import { LaneDriver, workLane, workUpTo } from "@probe-lane/students";
import { describe, expect, it } from "vitest";
import { findDemoExercise } from "../../../demo";
import { type Observation } from "../bench";
import { marksOf } from "../machines";
import { markWords } from "../words";

const { exercise } = findDemoExercise("focuser-plate-lower-left");
const told = (seen: Observation): string[] => {
  const next = seen.gates.find(({ isPassed }) => !isPassed);
  return next ? marksOf(seen, next).map((mark) => `${mark.isDone ? "+" : "-"} ${markWords(mark)}`) : [];
};

describe("what of a gate is done", () => {
  it("is ticked when the log has it, never before, and says nothing of right or wrong", () => {
    const lane = new LaneDriver(exercise, "marks");
    expect(told(lane.seen)).toEqual(["- reference taken"]);
    workUpTo(lane, (command) => command.type === "captureRegister" && command.register === "G54.x");
    expect(told(lane.seen)).toEqual(["+ X found", "+ found again", "- X set"]);
    // an absurd value is a value: the mark asks whether it was set
    lane.do({ type: "typeRegister", register: "G54.x", text: "-12.5", how: "set", isConfirmed: true });
    expect(told(lane.seen)).toEqual(["- Y found", "- found again", "- Y set"]);
  });
  it("the last gate has no parts, and every mark has words on every exercise", () => {
    const lane = new LaneDriver(exercise, "marks");
    workLane(lane, { stopsAfter: "zero" });
    expect(told(lane.seen)).toEqual([]);
    for (const id of ["knob-first-tool", "collar-five-tools-arm", "bracket-cold-machine", "ring-readout-library"]) {
      const other = new LaneDriver(findDemoExercise(id).exercise, "marks").seen;
      for (const gate of other.gates)
        for (const mark of marksOf(other, gate)) expect(markWords(mark), `${id} ${gate.name}`).toMatch(/^\S.*\S$/);
    }
  });
});
