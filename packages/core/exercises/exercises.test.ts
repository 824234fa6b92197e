import { describe, expect, it } from "vitest";
import { demoExercises } from "../../../demo";
import { edgeSignatures, lengthSignatures } from "../diagnosis";
import { drawLane, exerciseSchema, fairness, methodBias, sceneBoxes } from ".";

describe("exercises of the demo", () => {
  for (const { exercise, marking } of demoExercises) {
    it(`${exercise.id}: its tolerances are fair to its methods, and a narrower one is not`, () => {
      expect(fairness(exercise, marking)).toEqual([]);
      const narrow = { ...marking, tolerancesMm: { ...marking.tolerancesMm, y: 0.008 } };
      expect(fairness(exercise, narrow)).toMatchObject([{ axis: "y", toleranceMm: 0.008 }]);
    });
    it(`${exercise.id}: in 300 variants no two mistakes look alike, and every scene is inside the travel`, () => {
      const sheets = new Set<string>();
      for (let seed = 0; seed < 300; seed++) {
        const { setup, truth } = drawLane(exercise, `variant ${seed}`);
        sheets.add(JSON.stringify([setup.tipDiameterMm, setup.paperMm, setup.edges, setup.facingAllowanceMm]));
        for (const axis of ["x", "y", "z"] as const) {
          const at = [0, ...(axis === "z" ? lengthSignatures(setup) : edgeSignatures(setup, axis)).map(({ predictedMm }) => predictedMm)].sort((a, b) => a - b);
          at.slice(1).forEach((mm, i) => expect(mm - (at[i] ?? 0)).toBeGreaterThanOrEqual(6 * methodBias(setup, axis).uMm));
        }
        const { stock, table } = sceneBoxes(setup, truth.datumMm, truth.stockSizeMm);
        expect(stock.low.x - 20).toBeGreaterThan(-500);
        expect(stock.high.x + 20).toBeLessThan(0);
        expect(stock.low.y - 20).toBeGreaterThan(-350);
        expect(stock.high.y + 20).toBeLessThan(0);
        expect(table.high.z + truth.lengthsMm.tool1).toBeGreaterThan(-420);
        const { approach, edgeWorkMm } = setup.edges.x;
        expect(approach === 1 ? stock.low.x : stock.high.x).toBeCloseTo(truth.datumMm.x + edgeWorkMm, 9);
      }
      expect(sheets.size).toBeGreaterThan(3);
    });
  }
  it("the same seed draws the same lane", () => {
    const [file] = demoExercises;
    if (!file) throw new Error("none");
    expect(drawLane(file.exercise, "same")).toEqual(drawLane(file.exercise, "same"));
    expect(drawLane(file.exercise, "same").truth).not.toEqual(drawLane(file.exercise, "other").truth);
  });
  it("a broken exercise file is refused", () => {
    expect(exerciseSchema.safeParse({ ...demoExercises[0]?.exercise, facingAllowanceMm: [2, 1] }).success).toBe(false);
  });
});
