import { describe, expect, it } from "vitest";
import { infer } from "./infer";

describe("what a number alone tells", () => {
  const one = (id: string, predicted: number, prior: number) => ({ id, predicted, prior });
  it("no mistake weighs by its own prior, and is named first where nothing is off", () => {
    const { ranked, unexplained } = infer({ closure: 0, u: 0.01, none: 0.5, candidates: [one("a", 0.02, 0.5)] });
    // z = 0 and 2: e⁰ against e⁻²
    expect(unexplained).toBe(false);
    expect(ranked[0]).toMatchObject({ ids: [] });
    expect(ranked[0]?.probability).toBeCloseTo(1 / (1 + Math.exp(-2)), 6);
  });
  it("the step of the reading widens the method: 0.012 over √12 is 0.003464", () => {
    const at = (resolution: number) =>
      infer({ closure: 1.045, u: 0.01, resolution, none: 0, candidates: [one("a", 1, 0.5)] }).unexplained;
    // 4 × 0.01 = 0.040; 4 × √(0.01² + 0.012²/12) = 0.0423; with 0.024 it is 0.0487
    expect([at(0), at(0.012), at(0.024)]).toEqual([true, true, false]);
  });
  it("says nothing where something else is likelier, and leaves out what is under one in twenty", () => {
    const input = { closure: 1, u: 0.01, none: 0, candidates: [one("a", 1, 1e-6)] };
    expect(infer({ ...input, other: { prior: 0.05, span: 4 } }).unexplained).toBe(true);
    // beyond its span something else weighs nothing
    expect(infer({ ...input, other: { prior: 0.05, span: 1.9 } }).ranked).toEqual([{ ids: ["a"], probability: 1 }]);
    const { ranked } = infer({
      closure: 1,
      u: 0.01,
      none: 0,
      candidates: [one("a", 1, 0.5), one("b", 1, 0.02), one("c", 1, 0.03)],
    });
    // 0.02 of 0.55 is under a twentieth, 0.03 of 0.55 is over it
    expect(ranked.map(({ ids }) => ids.join())).toEqual(["a", "c"]);
  });
});
