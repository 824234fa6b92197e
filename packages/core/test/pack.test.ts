import { LaneDriver, workLane, type Habits } from "@probe-lane/students";
import { demoExercises, findDemoExercise } from "../../../demo";
import { describe, expect, it } from "vitest";
import { exerciseSchema, type Exercise, type MillLengthSchool, type TargetId } from "../exercises";
import { rule, type Ruling } from "../grading";
import { causeWords, findingWords } from "../words";

function ruled(
  id: string,
  habits: Habits,
  seed: string,
  change: Partial<Exercise> = {},
): { ruling: Ruling; lane: LaneDriver } {
  const { exercise, marking } = findDemoExercise(id);
  const lane = new LaneDriver(exerciseSchema.parse({ ...exercise, ...change }), seed);
  workLane(lane, habits);
  return { ruling: rule(lane.log, marking), lane };
}

/** A length and a work Z that another hand found, each this well, mm. */
const OTHER_HAND_MM = 0.016;

const causesOf = (ruling: Ruling, target: TargetId): string => {
  const value = ruling.values.find((one) => one.target.id === target);
  if (!value) throw new Error(`no value ${target}`);
  const { cause } = value;
  if (cause.kind === "proven") return `proven ${cause.terms.map(({ id }) => id).join()}`;
  return cause.kind === "inferred" ? `inferred ${cause.ranked[0]?.ids.join() ?? ""}` : cause.kind;
};

describe("a careful student has full marks and every gate open", () => {
  for (const { exercise } of demoExercises) {
    it(exercise.id, () => {
      // a program is proved with every fault that it may have by `provingStudents`
      for (let seed = 0; seed < (exercise.program ? 1 : 2); seed++) {
        const { ruling, lane } = ruled(exercise.id, {}, `pack ${seed}`);
        expect(lane.seen.gates.filter(({ isPassed }) => !isPassed).map(({ name }) => name)).toEqual([]);
        expect(
          ruling.total,
          JSON.stringify(
            {
              seed,
              findings: ruling.findings.filter(({ code }) => code !== "stepDone"),
              values: ruling.values.map(({ target, closureMm, cause }) => ({ target, closureMm, cause })),
            },
            null,
            1,
          ),
        ).toBeCloseTo(100, 6);
        for (const { target, closureMm, biasMm, uMm } of ruling.values) {
          expect(
            Math.abs(closureMm - biasMm),
            `${target.id} of seed ${seed}: ${closureMm} with bias ${biasMm}, u ${uMm}`,
          ).toBeLessThanOrEqual(4 * uMm + (exercise.handover || exercise.kept ? OTHER_HAND_MM : 0.003));
        }
      }
    });
  }
  for (const school of [
    "gauge-line",
    "part-touch",
    "plane-lift",
    "master",
    "block-in-wear",
  ] satisfies MillLengthSchool[]) {
    it(`five tools in whichever school: ${school}`, () => {
      for (let seed = 0; seed < 3; seed++) {
        const { ruling } = ruled("five-tools-free", { school }, `school ${seed}`);
        expect(ruling.total).toBeCloseTo(100, 6);
        expect(ruling.school).toBe(school);
      }
    });
  }
  it("tapped square instead of turned by program", () => {
    for (let seed = 0; seed < 5; seed++) {
      const { ruling, lane } = ruled("plate-skewed", { squares: "tap" }, `tap ${seed}`);
      expect(lane.log.some(({ event }) => event.type === "partTapped")).toBe(true);
      expect(lane.state.modal.rotationDeg).toBe(0);
      expect(ruling.total).toBeCloseTo(100, 6);
    }
  });
});

describe("one mistake, named", () => {
  const cases: [string, string, Habits, TargetId, string][] = [
    ["a dial one turn short", "clamp-corner-taster", { dialTurnShort: "x" }, "x", "proven dialTurnShort"],
    [
      "the radius on one side of a middle",
      "clamp-middle-finder",
      { radiusOnOneSide: "y" },
      "y",
      "proven radiusOnOneSide",
    ],
    ["one face for a middle", "clamp-middle-finder", { oneFaceOnly: "x" }, "x", "proven oneSideOnly"],
    ["burr under the taster", "clamp-corner-taster", { keepsBurr: true }, "x", "proven burr"],
    ["the turn not called", "plate-skewed", { forgetsTurn: true }, "rotation", "proven turnForgotten"],
    ["a setter's card believed", "setter-in-doubt", { trustsCard: true }, "H2", "proven setterMoved"],
    ["a probe's card believed", "probe-in-doubt", { trustsCard: true }, "workZ", "proven probeLengthWrong"],
    ["measured still, used at speed", "lengths-at-speed", { measuresStill: true }, "H2", "proven spindleGrowth"],
    ["a jaw left as it read", "bracket-jaw-tapped", { leavesJaw: true }, "rotation", "proven jawAskew"],
    ["an edge touched along it", "bracket-jaw-tapped", { leavesJaw: true }, "y", "proven faceAskew"],
    ["the insert changed after the touch", "knob-insert-changed", { insertAfter: true }, "Z2", "proven insertChanged"],
    ["the point for the side", "collar-thread-side", { pointForSide: true }, "Z5", "proven pointForSide"],
    ["a flank that met the rim", "collar-thread-side", { flankAtRim: true }, "Z5", "proven flankMet"],
    ["let down onto the gauge", "knob-setting-gauge", { fromAbove: true }, "C1", "proven gaugeSank"],
    [
      "a kept library read anew",
      "ring-library-kept",
      { spoilsLibrary: true, librarySign: true },
      "X2",
      "proven librarySign",
    ],
    ["a setter not calibrated", "probe-calibrated", { trustsCard: true }, "H1", "proven setterMoved"],
    ["a beam not calibrated", "beam-calibrated", { trustsCard: true }, "H2", "proven setterMoved"],
    [
      "from behind the blade counted all the same",
      "collar-parting-behind",
      { otherBladeEdge: true },
      "Z4",
      "proven otherBladeEdge",
    ],
    ["a chip in the beam", "lengths-at-speed", { keepsChips: true }, "H1", "proven chipOnTip"],
    [
      "radius in a diameter register",
      "diameters-part-contour",
      { radiusForDiameter: 1 },
      "d1",
      "proven radiusInDiameter",
    ],
    ["nominal for measured", "diameters-part-contour", { nominalForMeasured: 2 }, "d2", "proven nominalForMeasured"],
    ["the neighbor's length", "five-tools-gauge-line", { neighborRow: true }, "H1", "proven neighborRow"],
    ["the block left in", "five-tools-block-in-wear", { leavesBlockOut: true }, "H3", "proven blockForgotten"],
    ["paper forgotten with every tool", "five-tools-part-touch", { paper: "forgotten" }, "H4", "proven paperForgotten"],
    ["old work Z under part-touch", "five-tools-part-touch", { leavesOldWorkZ: true }, "workZ", "proven leftoverWorkZ"],
    [
      "pin forgotten in the master's work Z",
      "five-tools-master",
      { paper: "forgotten" },
      "workZ",
      "proven blockForgotten",
    ],
    [
      "nothing touched for the new part",
      "change-of-part-moving-jaw",
      { touchesNothingNew: true },
      "y",
      "proven neverSet",
    ],
    ["radius forgotten in inches", "inch-bracket", { radius: { y: "forgotten" } }, "y", "proven radiusForgotten"],
    ["swept the wrong way and left there", "plate-bore-sweep", { sweepWrongWay: true }, "x", "proven notOverMiddle"],
  ];
  for (const [name, id, habits, target, cause] of cases) {
    it(name, () => {
      let named = 0;
      for (let seed = 0; seed < 6; seed++) {
        const { ruling } = ruled(id, habits, `mistake ${seed}`);
        const found = causesOf(ruling, target);
        // a lane whose doubted card happens to be right, or whose first guess landed inside the tolerance, has nothing
        // to name
        expect([cause, "none"]).toContain(found);
        if (found === cause) named += 1;
        for (const value of ruling.values) {
          const { headline, body } = causeWords(value, ruling.sheet);
          expect(`${headline} ${body}`).not.toMatch(/undefined|NaN|null/);
        }
        for (const finding of ruling.findings) expect(findingWords(finding)).toMatch(/[.!]$/);
      }
      expect(named).toBeGreaterThanOrEqual(2);
    });
  }
  it("a part that keeps its datum at the fixed jaw needs only its height, and is right in X and Y untouched", () => {
    const { ruling } = ruled("change-of-part", { touchesNothingNew: true }, "kept");
    expect([causesOf(ruling, "x"), causesOf(ruling, "y")]).toEqual(["none", "none"]);
    expect(causesOf(ruling, "z1")).toBe("proven neverSet");
  });
  it("dirt in the taper is proven where it shows", () => {
    const named = Array.from({ length: 10 }, (_, seed) =>
      causesOf(ruled("bracket-cold-machine", { keepsDirt: true }, `dirt ${seed}`).ruling, "z1"),
    ).filter((cause) => cause === "proven taperDirt");
    expect(named.length).toBeGreaterThanOrEqual(6);
  });
  it("a grossly wrong size drives the probe into the part; the lane stays open for the instructor", () => {
    const { ruling, lane } = ruled("clamp-middle-probe", { wrongSizeMm: -30 }, "driven");
    expect(lane.seen.isStopped).toBe(true);
    expect(lane.seen.isHandedIn).toBe(false);
    expect(ruling.findings).toContainEqual(expect.objectContaining({ code: "incident", incident: "probeBroken" }));
  });
});

describe("the place of the scene changes nothing else", () => {
  it("a lane shifted by whole steps of the eye gives the same closures, to the count", () => {
    for (const id of ["focuser-plate-lower-left", "clamp-middle-finder", "five-tools-gauge-line", "plate-bore-probe"]) {
      const { exercise } = findDemoExercise(id);
      const moved = (mm: number): Exercise["datumMm"] => ({
        ...exercise.datumMm,
        x: [exercise.datumMm.x[0] + mm, exercise.datumMm.x[1] + mm],
        y: [exercise.datumMm.y[0] - mm, exercise.datumMm.y[1] - mm],
      });
      const closures = (mm: number) =>
        ruled(id, {}, "shift", { datumMm: moved(mm) }).ruling.values.map(({ closureMm }) =>
          Math.round(closureMm * 1e4),
        );
      expect(closures(3)).toEqual(closures(0));
    }
  });
});
