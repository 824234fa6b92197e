import { describe, expect, it } from "vitest";
import { demoExercises, findDemoExercise } from "../../../demo";
import { edgeSignatures, lengthSignatures } from "../diagnosis";
import { toolName } from "../instruments";
import { millDraw } from "../test/kinds";
import {
  drawLane,
  edgeOf,
  exerciseSchema,
  expectedLengths,
  fairness,
  hiddenMistakes,
  lengthBias,
  markingSchema,
  millLengthSchools,
  sceneBoxes,
  sceneSolids,
  tableZMm,
  targetsOf,
  wantedLengthMm,
  xyBias,
  type Exercise,
} from ".";

const separation = (predicted: readonly number[], uMm: number) => {
  const at = [0, ...predicted].sort((a, b) => a - b);
  at.slice(1).forEach((mm, i) => expect(mm - (at[i] ?? 0)).toBeGreaterThanOrEqual(6 * uMm));
};

describe("exercises of the demo", () => {
  for (const { exercise, marking } of demoExercises) {
    it(`${exercise.id}: its tolerances are fair to its methods, and a narrower one is not`, () => {
      expect(fairness(exercise, marking)).toEqual([]);
      const narrow = { ...marking, tolerancesMm: { ...marking.tolerancesMm, x: 0.0005, z: 0.0005, d: 0.0005 } };
      // where nothing is touched or measured, nothing can be unfair
      const { x = [1], z = [1] } = exercise.lathe?.targets ?? {};
      expect(fairness(exercise, narrow).length > 0).toBe(x.length + z.length > 0 || exercise.lathe?.axis !== undefined);
    });
    it(`${exercise.id}: no paper is so thin that counting it wrongly hides inside the tolerance`, () => {
      expect(hiddenMistakes(exercise, marking)).toEqual([]);
      if (!exercise.instruments.includes("paper") || exercise.touching.paper !== "counted") return;
      const thin = hiddenMistakes({ ...exercise, paperMm: [0.001] }, marking);
      const counts = exercise.lathe ? exercise.lathe.targets.x.length > 1 : exercise.targets.lengths.length > 0;
      expect(thin.map(({ leavesMm }) => leavesMm)).toEqual(counts ? [0.001] : []);
    });
    it(`${exercise.id}: in 100 variants no two mistakes look alike, and every scene is inside the travel`, () => {
      const sheets = new Set<string>();
      for (let seed = 0; seed < 100; seed++) {
        const drawn = drawLane(exercise, `variant ${seed}`);
        if (drawn.kind !== "mill") {
          const { truth } = drawn;
          const { tools, jawMm, skinMm, stock } = truth.lathe;
          sheets.add(JSON.stringify(truth.lathe));
          for (const { kxMm, qMm } of Object.values(tools)) {
            // the tip reaches the axis, stands well clear of the stock, and reaches the jaws without leaving the travel
            expect(kxMm - 2).toBeGreaterThan(-500);
            expect(kxMm + stock.diameterMm + 80).toBeLessThan(0);
            expect(jawMm + qMm).toBeGreaterThan(-420);
            expect(skinMm + qMm + 40).toBeLessThan(0);
          }
          continue;
        }
        const { setup, truth } = drawn;
        sheets.add(JSON.stringify(truth.datumMm));
        for (const axis of ["x", "y"] as const) {
          const edge = edgeOf(setup, axis);
          if (edge && !setup.isSkewed)
            separation(
              edgeSignatures(setup, axis).map(({ predictedMm }) => predictedMm),
              xyBias("edgeFinder", edge.approach).uMm,
            );
        }
        separation(
          lengthSignatures(setup).map(({ predictedMm }) => predictedMm),
          lengthBias("paper", setup).uMm,
        );
        const { stock, table } = sceneBoxes(
          sceneSolids(setup, {
            datumMm: truth.datumMm,
            stockOffMm: { x: truth.offStopMm, y: 0, z: truth.liftMm },
            sizeMm: truth.stockSizeMm,
            tableMm: tableZMm(setup, truth),
            skewDeg: truth.skewDeg,
            featureDiameterMm: truth.feature?.diameterMm ?? 0,
            setterTopMm: truth.setter?.topMm ?? null,
            gauge: null,
          }),
        );
        expect(stock.low.x - 20).toBeGreaterThan(-500);
        expect(stock.high.x + 20).toBeLessThan(0);
        expect(stock.low.y - 20).toBeGreaterThan(-350);
        expect(stock.high.y + 20).toBeLessThan(0);
        for (const tool of setup.tools)
          expect(
            table.high.z + (truth.lengthsMm[toolName(tool.number)] ?? 0),
            "the table is within reach",
          ).toBeGreaterThan(-420);
        const edge = edgeOf(setup, "x");
        if (edge && !setup.isSkewed && truth.offStopMm === 0)
          expect(edge.approach === 1 ? stock.low.x : stock.high.x).toBeCloseTo(truth.datumMm.x + edge.edgeWorkMm, 9);
      }
      expect(sheets.size).toBe(100);
    });
  }
  it("the same seed draws the same lane", () => {
    const [file] = demoExercises;
    if (!file) throw new Error("none");
    expect(drawLane(file.exercise, "same")).toEqual(drawLane(file.exercise, "same"));
    expect(drawLane(file.exercise, "same").truth).not.toEqual(drawLane(file.exercise, "other").truth);
  });
  it("a broken exercise file is refused, with what is wrong", () => {
    const [file] = demoExercises;
    expect(exerciseSchema.safeParse({ ...file?.exercise, facingAllowanceMm: [2, 1] }).success).toBe(false);
    const says = (change: object) =>
      exerciseSchema.safeParse({ ...file?.exercise, ...change }).error?.issues[0]?.message;
    expect(says({ targets: { lengths: [7] } })).toContain("a target names a tool");
    expect(says({ datum: { kind: "feature" } })).toContain("needs the feature");
    expect(says({ isSchoolPrescribed: true })).toContain("exactly one");
    expect(says({ targets: { diameters: [1] } })).toContain("school of diameters");
  });
  it("a doubted calibration is wrong in about its share of the lanes, and never says so on the sheet", () => {
    const { exercise } = findDemoExercise("setter-in-doubt");
    const lanes = Array.from({ length: 300 }, (_, seed) => millDraw(exercise, `doubt ${seed}`));
    const wrong = lanes.filter(({ truth }) => truth.doubt !== null);
    expect(wrong.length / lanes.length).toBeGreaterThan(0.55);
    expect(wrong.length / lanes.length).toBeLessThan(0.75);
    for (const { setup, truth } of lanes) {
      expect((setup.setter?.noseTriggerMm ?? 0) - (truth.setter?.topMm ?? 0)).toBeCloseTo(truth.doubt?.byMm ?? 0, 2);
      expect(JSON.stringify(setup)).not.toMatch(/"doubt"|byMm/);
    }
  });
});

describe("what registers should hold", () => {
  const { exercise } = findDemoExercise("five-tools-free");
  it("in every school the registers of a tool add up to datum and length", () => {
    for (let seed = 0; seed < 20; seed++) {
      const { setup, truth } = millDraw(exercise, `expect ${seed}`);
      for (const school of millLengthSchools) {
        const expected = expectedLengths(
          { ...setup, isSchoolPrescribed: true, lengthSchools: [school] },
          truth,
          school,
        );
        const of = (register: string) => expected.find((one) => one.register === register)?.wantedMm ?? 0;
        for (const [place, tool] of setup.targets.lengths.entries()) {
          const work = school === "offset-per-tool" ? of(`G${54 + place}.z`) : of("G54.z");
          expect(work + of(`H${tool}`) + of(`HW${tool}`), school).toBeCloseTo(
            truth.datumMm.z + wantedLengthMm(setup, truth, tool),
            9,
          );
        }
      }
    }
  });
  const targetIds = (of: Exercise) => targetsOf(drawLane(of, "t").setup).map(({ id }) => id);
  it("targets are registers where the school is prescribed, and sums where it is free", () => {
    expect(targetIds(exercise)).toEqual(["z1", "z2", "z3", "z4", "z5"]);
    expect(targetIds(findDemoExercise("five-tools-master").exercise)).toEqual(["H1", "H2", "H3", "H4", "H5", "workZ"]);
    expect(targetIds(findDemoExercise("plate-skewed").exercise)).toEqual(["x", "y", "rotation"]);
  });
});

it("figures of a marking are bounded, so that no total is anything but a number", () => {
  const { marking } = findDemoExercise("focuser-plate-lower-left");
  const reads = (change: object) => markingSchema.safeParse({ ...marking, ...change }).success;
  expect(reads({})).toBe(true);
  expect(reads({ zeroAtMultiple: 1e300 })).toBe(false);
  expect(reads({ tolerancesMm: { ...marking.tolerancesMm, x: 1e-300 } })).toBe(false);
  const none = { values: 0, working: 0, method: 0, safety: 0, proving: 0 };
  expect(reads({ weights: none })).toBe(false);
  expect(reads({ weights: { ...none, method: 1e200 } })).toBe(false);
  expect(reads({ weights: { ...none, method: 1 } })).toBe(true);
});
