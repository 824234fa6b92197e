import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readProgram } from "../gcode";
import { millRay, millSweeps, turnedRay, turnedSweeps, type End } from ".";

const flatEnd = (diameter: number): End => ({ radius: diameter / 2, underside: () => 0 });
const ballEnd = (diameter: number): End => ({
  radius: diameter / 2,
  underside: (d: number) => diameter / 2 - Math.sqrt(Math.max(0, (diameter / 2) ** 2 - d * d)),
});
const registers = (h = 100, y = 0) => ({
  common: [0, 0, 0] as const,
  work: new Map([["G54", [-300, -200 + y, -400] as const]]),
  lengths: new Map([[1, h]]),
});
const truth = (end: End) => ({
  datum: [-300, -200, -400] as const,
  tools: new Map([[1, { length: 100, end }]]),
});
const slot = "T1 M6\nG54 G0 X-20 Y20 M3\nG43 H1 Z5\nG1 Z-4 F100\nX80\nG0 Z50\nM30";
const cut = (text: string, end = flatEnd(10), h = 100, y = 0) =>
  millSweeps(readProgram(text, "mill"), registers(h, y), new Map(), truth(end), "mm").sweeps;

describe("a milled slot", () => {
  it("is as wide as the cutter and as deep as programmed: 5 to each side, 4 deep", () => {
    const sweeps = cut(slot);
    expect(millRay(sweeps, { from: [40, 20, -2], to: [0, 1, 0] })).toBeCloseTo(5, 9);
    expect(millRay(sweeps, { from: [40, 20, -2], to: [0, -1, 0] })).toBeCloseTo(5, 9);
    expect(millRay(sweeps, { from: [40, 20, -2], to: [0, 0, -1] })).toBeCloseTo(2, 9);
    expect(millRay(sweeps, { from: [40, 20, -2], to: [0, 0, 1] })).toBeNull();
    // its end is round: 80 + 5 on the middle, and 4 beside it 80 + 3
    expect(millRay(sweeps, { from: [40, 20, -2], to: [1, 0, 0] })).toBeCloseTo(45, 9);
    expect(millRay(sweeps, { from: [40, 24, -2], to: [1, 0, 0] })).toBeCloseTo(43, 9);
  });
  it("a length too long by 0.12 leaves the floor high by it, an offset 3 too far moves the slot by it", () => {
    expect(millRay(cut(slot, flatEnd(10), 100.12), { from: [40, 20, -2], to: [0, 0, -1] })).toBeCloseTo(1.88, 9);
    expect(millRay(cut(slot, flatEnd(10), 100, 3), { from: [40, 20, -2], to: [0, 1, 0] })).toBeCloseTo(8, 9);
  });
  it("by a ball the floor is round: 4 deep in the middle, 4 less 5 − √(25 − 9) = 1 three beside it", () => {
    const sweeps = cut(slot, ballEnd(10));
    expect(millRay(sweeps, { from: [40, 20, -1], to: [0, 0, -1] })).toBeCloseTo(3, 8);
    expect(millRay(sweeps, { from: [40, 23, -1], to: [0, 0, -1] })).toBeCloseTo(2, 8);
  });
  it("shifting part and registers together changes no distance", () => {
    fc.assert(
      fc.property(fc.integer({ min: -50, max: 50 }), fc.integer({ min: 1, max: 99 }), (shift, place) => {
        const here = millRay(cut(slot), { from: [place / 2, 20, -2], to: [0.3, 1, -0.1] });
        const moved = millSweeps(
          readProgram(slot, "mill"),
          { ...registers(), work: new Map([["G54", [-300 + shift, -200, -400] as const]]) },
          new Map(),
          { ...truth(flatEnd(10)), datum: [-300 + shift, -200, -400] },
          "mm",
        ).sweeps;
        expect(millRay(moved, { from: [place / 2, 20, -2], to: [0.3, 1, -0.1] })).toBeCloseTo(here ?? NaN, 8);
      }),
      { numRuns: 20 },
    );
  });
});

describe("a turned step", () => {
  const text = "T0101\nG97 S900 M3\nG0 X40 Z2\nG1 Z-20 F.1\nX60\nG28 U0 W0\nM30";
  const turn = (x = 0) =>
    turnedSweeps(
      readProgram(text, "lathe"),
      {
        common: [0, 0],
        work: new Map([["G54", [0, 0] as const]]),
        rows: new Map([[1, [-240 + x, -370] as const]]),
      },
      new Map(),
      { tools: new Map([[1, { kx: -240, kz: -370, noseRadius: 0.8, tipCode: 3 as const }]]) },
      "mm",
    ).sweeps;
  it("has the programmed diameter and shoulder, and the nose's radius in the corner", () => {
    // from inside the band that was cleared, 0.5 off the surface of 40
    expect(turnedRay(turn(), { from: [41, -10], to: [-1, 0] })).toBeCloseTo(0.5, 9);
    expect(turnedRay(turn(), { from: [50, -19.5], to: [0, -1] })).toBeCloseTo(0.5, 9);
    // the corner: from the nose's center (20.8, -19.2) along the diagonal the wall is the nose itself
    expect(turnedRay(turn(), { from: [41.6, -19.2], to: [-1, -1] })).toBeCloseTo(0.8, 9);
  });
  it("X entered 0.12 too high leaves the diameter 0.12 over: 0.06 on the ray", () => {
    expect(turnedRay(turn(0.12), { from: [41, -10], to: [-1, 0] })).toBeCloseTo(0.44, 9);
  });
});
