import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { catalog, explain, habitsOf, methods, mistakeIds, signaturesFor, wantedFrom } from ".";

const signature = (method: (typeof methods)[number], figures: Parameters<typeof signaturesFor>[1], id: string) =>
  signaturesFor(method, figures)
    .filter((one) => one.id === id)
    .map(({ predictedMm }) => Math.round(predictedMm * 1e6) / 1e6);

describe("the catalog, by hand", () => {
  it("lathe X: feeler 0.1 counted once leaves +0.1 outside and −0.1 in a bore; nose center with code 3, radius 0.8, −1.6", () => {
    expect(signature("lathe-x", { paper: 0.1, outside: 1 }, "feelerOnce")).toEqual([0.1]);
    expect(signature("lathe-x", { paper: 0.1, outside: -1 }, "feelerOnce")).toEqual([-0.1]);
    expect(signature("lathe-x", { noseRadius: 0.8, tipCode: 3 }, "noseCenterX")).toEqual([-1.6]);
    expect(signature("lathe-z", { noseRadius: 0.8, tipCode: 2 }, "noseCenterZ")).toEqual([-0.8]);
  });
  it("any register: sign, inch, decimal point, swapped digits of −241.378", () => {
    expect(signature("mill-length", { wanted: -241.378 }, "wholeSignTurned")).toEqual([482.756]);
    expect(signature("mill-length", { wanted: -241.378 }, "decimalShifted")).toEqual([-2172.402, 217.2402]);
    expect(signature("mill-length", { wanted: -241.378 }, "digitsSwapped")).toEqual([-180, 27, -1.8, -0.36, -0.009]);
  });
  it("a cutter of 11.9 for 12: nominal for measured +0.1; radius in a diameter register −5.95", () => {
    expect(signature("mill-diameter", { cutterDiameter: 11.9, nominalDiameter: 12 }, "nominalForMeasured")).toEqual([
      0.1,
    ]);
    expect(signature("mill-diameter", { cutterDiameter: 11.9 }, "radiusInDiameter")).toEqual([-5.95]);
  });
  it("every mistake applies somewhere, needs what it says, and has a prior below one", () => {
    for (const id of mistakeIds) {
      expect(catalog[id].methods.length).toBeGreaterThan(0);
      expect(catalog[id].needs.length).toBeGreaterThan(0);
      expect(catalog[id].prior).toBeLessThan(0.2);
    }
    for (const method of methods) expect(signaturesFor(method, {})).toEqual([]);
  });
});

describe("what it should hold, from the reading", () => {
  it("by hand, for each way of touching", () => {
    expect(wantedFrom("mill-edge", -334.666, { approach: 1, tipRadius: 5, edgeWork: 1.5 })).toBeCloseTo(-331.166, 9);
    expect(wantedFrom("mill-length", -253.068, { paper: 0.06, facing: 0.7 })).toBeCloseTo(-253.828, 9);
    expect(wantedFrom("lathe-x", -224.361, { touchDiameter: 40.767, paper: 0.4 })).toBeCloseTo(-265.928, 9);
    expect(wantedFrom("lathe-x", -98.312, { touchDiameter: 33.076, paper: 2.1, outside: -1 })).toBeCloseTo(-127.188, 9);
    expect(wantedFrom("lathe-z", -258.079, { facing: -12.5, block: 0.3 })).toBeCloseTo(-245.879, 9);
    expect(wantedFrom("mill-edge", 1, {})).toBeNull();
  });
});

describe("explaining", () => {
  it("one mistake is found wherever it is unlike the others, in any method", () => {
    fc.assert(
      fc.property(fc.constantFrom(1 as const, -1 as const), fc.integer({ min: 20, max: 60 }), (approach, tenths) => {
        const figures = { approach, tipRadius: tenths / 10 };
        for (const { id, predictedMm } of signaturesFor("mill-edge", figures)) {
          expect(
            explain({ method: "mill-edge", closure: predictedMm + 0.003, figures, u: 0.004 }).ranked[0]?.classes,
          ).toEqual([[id]]);
        }
      }),
    );
  });
  it("the same habit on several registers is one cause", () => {
    const say = (closure: number) =>
      explain({ method: "mill-length", closure, figures: { paper: 0.08, facing: 0.9 }, u: 0.004 });
    const results = [
      { register: "H1", explained: say(0.081) },
      { register: "H2", explained: say(0.079) },
      { register: "H3", explained: say(0.001) },
      { register: "H4", explained: say(0.9) },
    ];
    expect(habitsOf(results)).toEqual([{ id: "paperForgotten", registers: ["H1", "H2"] }]);
  });
});
