import { describe, expect, it } from "vitest";
import { LaneDriver, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { sharedCoachCodes } from "../lane/coach";
import { millCoachCodes } from "../machines/mill/coach";
import { rule } from "../grading";
import type { Refusal } from "../lane";
import { causeWords, coachWords, findingWords, refusalWords, registerWords } from ".";

const { exercise, marking } = findDemoExercise("roller-bracket-back-right");

describe("words", () => {
  it("every coach step is a sentence for either axis", () => {
    const { seen } = new LaneDriver(exercise, "words", { isCoachOn: true });
    for (const code of [...sharedCoachCodes, ...millCoachCodes]) {
      for (const axis of ["x", "y", "z"] as const) expect(coachWords({ code, axis }, seen)).toMatch(/[.?!]$/);
    }
  });
  it("a careful lane led by the coach alone is never told something twice in a row that does not help", () => {
    const lane = new LaneDriver(exercise, "coach", { isCoachOn: true });
    const codes: string[] = [];
    const watched = new Proxy(lane, {
      get: (target, key) => {
        if (key === "do")
          return (command: Parameters<LaneDriver["do"]>[0]) => {
            const seen = target.do(command);
            if (seen.coach && seen.coach.code !== codes.at(-1)) codes.push(seen.coach.code);
            return seen;
          };
        return Reflect.get(target, key) as unknown;
      },
    });
    workLane(watched, {});
    for (const step of [
      "dressBurr",
      "loadFinder",
      "closeIn",
      "finestClicks",
      "kickedOnce",
      "setFromKick",
      "swapToTool1",
      "placePaper",
      "lowerOntoPaper",
      "setLength",
      "loadPointed",
      "expectZero",
      "goOverZero",
      "handIn",
    ])
      expect(codes).toContain(step);
    expect(lane.seen.coach).toBeNull();
  });
  it("a refusal that no bench gives any more is still a sentence in the replay of an old lane", () => {
    for (const code of ["paperDoesNotGoUnder", "cutOneAxis"])
      expect(refusalWords({ code } as unknown as Refusal, "mm")).toMatch(/: .+\.$/);
  });
  it("refusals say what to do, with the numbers", () => {
    expect(refusalWords({ code: "registerGuard", register: "G54.x", from: 0, to: -329_672 }, "mm")).toBe(
      "G54 X would go from 0.000 to −329.672, a large change: confirm it if it is meant.",
    );
    expect(refusalWords({ code: "text", problem: { code: "lengthUnreadable", text: "abc" } }, "mm")).toContain(
      "“abc” is not a length",
    );
    expect(refusalWords({ code: "block", problem: { code: "wordUnknown", word: "R5", span: [0, 2] } }, "mm")).toContain(
      "R5 is not a word",
    );
    expect([registerWords("H1"), registerWords("HW1"), registerWords("common.z")]).toEqual([
      "H1 length",
      "H1 length wear",
      "common Z",
    ]);
  });
  it("a ruling's words hold no unset figure", () => {
    for (const habits of [
      {},
      { radius: { x: "forgotten" as const }, paper: "wrongWay" as const },
      { stopsAfter: "x" as const },
      { keepsBurr: true, overTravels: true },
    ]) {
      const lane = new LaneDriver(exercise, "all words");
      workLane(lane, habits);
      const ruling = rule(lane.log, marking);
      const text = [
        ...ruling.values.map((value) => Object.values(causeWords(value, ruling.sheet)).join(" ")),
        ...ruling.findings.map((finding) => findingWords(finding)),
      ].join("\n");
      expect(text).not.toMatch(/undefined|NaN|null|\[object/);
    }
  });
});
