import { describe, expect, it } from "vitest";
import { LaneDriver, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { evolve, observe, replay, type LaneState } from "../bench";
import { rule, withOverrides } from "../grading";
import { framesOf, reviewOf } from ".";

const worked = (exerciseId: string, seed: string) => {
  const driver = new LaneDriver(findDemoExercise(exerciseId).exercise, seed);
  workLane(driver, {});
  return driver.log;
};

describe("a lane replayed", () => {
  it.each(["focuser-plate-lower-left", "clamp-corner-taster"])(
    "shows at every entry of %s what was seen then",
    (exerciseId) => {
      const log = worked(exerciseId, "replay-1");
      const review = reviewOf(log);
      const frames = framesOf(review);
      expect(frames.length).toBe(log.length);
      let state: LaneState | null = null;
      for (const [at, { event }] of log.entries()) {
        state = evolve(state, event);
        expect(frames[at]).toEqual({ ...observe(state, "instructor"), coach: null });
      }
      expect(review.moments.map(({ seq }) => seq)).toEqual(log.map(({ seq }) => seq));
    },
  );

  it("holds no truth, no event and nothing that a contact hides", () => {
    const log = worked("focuser-plate-lower-left", "replay-2");
    const text = JSON.stringify(reviewOf(log));
    const hidden = [
      "truth",
      "kickPastMm",
      "burrMm",
      "bendMm",
      "thresholdsMm",
      "finderOwnKickMm",
      "errorMm",
      "ownKickMm",
    ];
    for (const name of hidden) expect(text).not.toContain(`"${name}"`);
    const state = replay(log.map(({ event }) => event));
    if (state.kind !== "mill") throw new Error("not a mill");
    const { datumMm, lengthsMm, seed } = state.truth;
    const figures = [...Object.values(datumMm), ...Object.values(lengthsMm)]
      .filter((mm) => String(mm).length > 7)
      .map(String);
    expect(figures.length).toBeGreaterThan(3);
    for (const figure of [...figures, seed]) expect(text).not.toContain(figure);
  });

  it("says of each entry what it was, and marks the ones worth jumping to", () => {
    const { moments } = reviewOf(worked("focuser-plate-lower-left", "replay-3"));
    expect(moments.every(({ label }) => label.length > 4 && !/undefined|NaN|\[object/.test(label))).toBe(true);
    expect(moments.find(({ kind }) => kind === "capture")?.label).toMatch(
      /^G54 [XYZ] captured: 0\.000 to −\d+\.\d{3}\.$/,
    );
    expect(moments.filter(({ kind }) => kind === "contact").length).toBeGreaterThan(3);
    expect(moments.at(-1)).toMatchObject({ kind: "step", label: "Handed in." });
  });

  it("refuses a log without its first entry", () => {
    expect(() => reviewOf([])).toThrow("at least its first entry");
  });
});

describe("marks that an instructor gives", () => {
  const ruling = () =>
    rule(worked("focuser-plate-lower-left", "given"), findDemoExercise("focuser-plate-lower-left").marking);
  const given = {
    strand: "method",
    marks: 4,
    reason: "did it by heart",
    by: "M. Marrow",
    at: "2026-11-26T10:00:00.000Z",
  } as const;

  it("count instead of what the log earned, which stays beside them", () => {
    const own = ruling();
    const after = withOverrides(own, [given]);
    expect(own.total).toBeCloseTo(100, 9);
    expect(after.total).toBeCloseTo(89, 9);
    expect(after.strands.find(({ name }) => name === "method")).toMatchObject({
      marks: 4,
      outOf: 15,
      given: { earned: 15, reason: "did it by heart" },
    });
    expect(after.strands.filter(({ name }) => name !== "method")).toEqual(
      own.strands.filter(({ name }) => name !== "method"),
    );
  });
  it("the newest of a strand counts; taken back, the log's own are there again; never more than the strand is out of", () => {
    const own = ruling();
    expect(withOverrides(own, [given, { ...given, marks: 10 }]).total).toBeCloseTo(95, 9);
    expect(withOverrides(own, [given, { ...given, marks: null }])).toEqual(own);
    expect(withOverrides(own, [{ ...given, marks: 400 }]).total).toBeCloseTo(100, 9);
    expect(withOverrides(own, [])).toBe(own);
  });
});
