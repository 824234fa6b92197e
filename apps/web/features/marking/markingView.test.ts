import { describe, expect, it } from "vitest";
import { changesOf, isChanged, readMarking, textsOf } from "./markingView";

const marking = {
  tolerancesMm: { x: 0.02, y: 0.02, z: 0.03, d: 0.02, rotation: 0.03 },
  zeroAtMultiple: 4,
  weights: { values: 40, working: 15, method: 20, safety: 15, proving: 10 },
  severity: { grave: "failsLane", tool: "costs" },
} as const;

describe("a marking as it is typed", () => {
  it("reads back what it shows", () => expect(readMarking(textsOf(marking))).toEqual({ draft: marking, outOf: 100 }));
  it("a comma is a decimal point", () =>
    expect(readMarking({ ...textsOf(marking), zeroAt: "2,5" })).toMatchObject({ draft: { zeroAtMultiple: 2.5 } }));
  it.each([
    [{ tolerances: { ...textsOf(marking).tolerances, z: "0" } }, /tolerance/],
    [{ tolerances: { ...textsOf(marking).tolerances, x: "wide" } }, /tolerance/],
    [{ zeroAt: "1" }, /more than one/],
    [{ weights: { ...textsOf(marking).weights, safety: "-5" } }, /zero or more/],
    [{ weights: { values: "0", working: "0", method: "0", safety: "0", proving: "0" } }, /At least one/],
  ])("%j is one clear sentence", (change, sentence) => {
    const read = readMarking({ ...textsOf(marking), ...change });
    expect("problem" in read ? read.problem : "").toMatch(sentence);
  });
});

it("changes are shares of what can be had, the largest first", () => {
  const lane = (laneId: string, before: number | null, after: number, outOf = 120) => ({
    laneId,
    studentName: laneId,
    attempt: 1,
    before,
    beforeOutOf: 100,
    after,
    outOf,
  });
  const changes = changesOf({ lanes: [lane("same", 50, 60), lane("down", 90, 60), lane("new", null, 60)] });
  // 60 of 120 is 50 in a hundred: nothing for the first, 40 down for the second
  expect(changes.map(({ laneId, by }) => [laneId, by])).toEqual([
    ["down", -40],
    ["same", 0],
    ["new", 0],
  ]);
  expect(changes.map(isChanged)).toEqual([true, false, false]);
});
