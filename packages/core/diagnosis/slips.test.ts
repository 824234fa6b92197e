import { describe, expect, it } from "vitest";
import { matchCounts, typingSlip } from "./arithmetic";
import { causeOf } from "./cause";
import { infer } from "./infer";

describe("counts that make up what is left", () => {
  const of = (...counts: number[]) => counts.map((one) => ({ id: "radiusForgotten" as const, counts: one }));
  const hits = (left: number, ...counts: number[]) =>
    matchCounts(left, of(...counts))?.map((one) => one.counts) ?? null;
  it("agree within two counts, and not three", () => {
    expect(hits(2)).toEqual([]);
    expect(hits(-2)).toEqual([]);
    expect(hits(3)).toBeNull();
    expect(hits(5002, 5000)).toEqual([5000]);
    expect(hits(5003, 5000)).toBeNull();
    expect(hits(4997, 5000)).toBeNull();
  });
  it("a single one comes before any pair, and pairs in the order given", () => {
    expect(hits(3000, 1000, 2000, 3000)).toEqual([3000]);
    expect(hits(3000, 1000, 2000, 500, 2500)).toEqual([1000, 2000]);
    expect(hits(3003, 1000, 2000)).toBeNull();
    // a mistake is made once: never twice the same
    expect(hits(2000, 1000)).toBeNull();
  });
});

describe("slips of typing", () => {
  it("a sign that was turned, as it is read on the display", () => {
    expect(typingSlip(250_780, -250_780)).toBe("wholeSignTurned");
    expect(typingSlip(250_782, -250_780)).toBe("wholeSignTurned");
    expect(typingSlip(250_783, -250_780)).toBeNull();
    expect(typingSlip(0, 0)).toBeNull();
  });
  it("a point one place off, either way", () => {
    expect(typingSlip(2508, 25_080)).toBe("decimalShifted");
    expect(typingSlip(25_080, 2508)).toBe("decimalShifted");
    expect(typingSlip(2507, 25_080)).toBe("decimalShifted");
    expect(typingSlip(2506, 25_080)).toBeNull();
    expect(typingSlip(0, 25_080)).toBeNull();
    expect(typingSlip(250, 25_080)).toBeNull();
  });
  it("two neighboring digits, over the point as well, and no others", () => {
    expect(typingSlip(-21_340, -12_340)).toBe("digitsSwapped");
    // 12.340 typed as 13.240: the digits beside the point
    expect(typingSlip(13_240, 12_340)).toBe("digitsSwapped");
    expect(typingSlip(14_320, 12_340)).toBeNull();
    expect(typingSlip(12_340, 12_340)).toBeNull();
    expect(typingSlip(112_340, 12_340)).toBeNull();
    expect(typingSlip(12_450, 12_340)).toBeNull();
  });
});

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
  it("nothing set, or set elsewhere, is proven whatever the figure is", () => {
    for (const id of ["neverSet", "otherRegister"] as const) {
      const terms = [{ id, mm: 3, seq: 4 }];
      const cause = causeOf(3, { contact: null, terms, leftMm: 3 }, { biasMm: 0, uMm: 0.002 }, [], 0.001);
      expect(cause).toEqual({ kind: "proven", terms });
    }
  });
  it("no term and no signature, off by nothing more than the method: no cause", () => {
    const cause = causeOf(0.006, { contact: null, terms: [], leftMm: 0.006 }, { biasMm: 0.005, uMm: 0.002 }, [], 0.001);
    expect(cause).toEqual({ kind: "none" });
  });
});
