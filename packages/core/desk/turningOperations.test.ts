import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { centerHeight } from "../registers/centerHeight";
import { coneTouch, noseResidue, taperShift, tipCodes, tipDirection } from "../registers/nose";
import { cuttingData } from "./cuttingData";
import { gaugeStack, readGaugeSet, type GaugeSet } from "./gaugeStack";
import { readInsert } from "./insert";
import { runOperation } from "./operations";

const message = (op: string, input: unknown): string => {
  const answer = runOperation(op, input);
  if (answer.ok) return "";
  return answer.error.code === "badInput" ? answer.error.message : answer.error.code;
};

describe("nose", () => {
  it("a 45° chamfer keeps 0.4142 Rn along its normal and 0.5858 Rn along X and Z", () => {
    // −s·n = √2 for code 3, so √2 − 1 is left; along X that over cos 45°: 2 − √2
    const left = noseResidue(0.4, 3, [5, 5]);
    expect(left?.normal).toBeCloseTo(0.4 * (Math.SQRT2 - 1), 12);
    expect(left?.alongX).toBeCloseTo(0.4 * (2 - Math.SQRT2), 12);
  });
  it("at 45° the hand-calculated shift of a taper is the residue along Z and twice that along X", () => {
    const left = noseResidue(0.8, 3, [1, 1]);
    expect(taperShift(0.8, 45).dz).toBeCloseTo(left?.alongZ ?? NaN, 12);
    expect(taperShift(0.8, 45).dxDiameter).toBeCloseTo(2 * (left?.alongX ?? NaN), 12);
  });
  it("cylinder and face are cut to size by every tip that has a corner toward them", () => {
    for (const code of [1, 2, 3, 4] as const) {
      const [sx, sz] = tipDirection(code);
      expect(noseResidue(0.4, code, [-sx, 0])?.normal).toBe(0);
      expect(noseResidue(0.4, code, [0, -sz])?.normal).toBe(0);
    }
  });
  it("a cone touched by a tool that is right closes at zero, and by c when its Z is off by c", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 1.6, noNaN: true }),
        fc.constantFrom(...tipCodes),
        fc.double({ min: 0.2, max: 1.3, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (radius, code, angle, off, along) => {
          const n = [Math.cos(angle), Math.sin(angle)] as const;
          const [sx, sz] = tipDirection(code);
          // the nose center stands one radius off the cone; the imaginary tip is s·Rn from it
          const surface = { x: 15 + along * -n[1], z: along * n[0] };
          const tip = { x: surface.x + radius * (n[0] + sx), z: surface.z + radius * (n[1] + sz) };
          const answer = coneTouch(radius, code, { diameter: 30, z: 0, normal: n }, [2 * tip.x, tip.z - off], -100);
          expect(answer?.closureZ).toBeCloseTo(off, 9);
          expect(answer?.newGeometryZ).toBeCloseTo(-100 - off, 9);
        },
      ),
    );
  });
});

describe("center height", () => {
  it("a tool 3 below, set on a diameter of 10, sent to 0, cuts a pip's radius of √(1² + 3²)", () => {
    // a = 5 − √(25 − 9) = 1
    expect(centerHeight(-3, 10, 0)).toMatchObject({
      pip: 6,
      diameter: expect.closeTo(2 * Math.sqrt(10), 12) as unknown,
    });
  });
  it("at the diameter that it was set on it cuts that diameter, whatever the height", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 60, noNaN: true }),
        fc.double({ min: -1.5, max: 1.5, noNaN: true }),
        (diameter, height) => {
          expect(centerHeight(height, diameter, diameter)?.diameter).toBeCloseTo(diameter, 9);
        },
      ),
    );
  });
});

describe("gauge stack", () => {
  it("takes the thousandths first by hand as well: 43.2765 = 40 + 1.27 + 1.006 + 1.0005", () =>
    expect(gaugeStack("metric-88", 43.2765)).toEqual({
      possible: true,
      blocks: [40, 1.27, 1.006, 1.0005],
      wear: [],
      total: 43.2765,
    }));
  it("adds up, uses no block twice, and never more blocks than a greedy choice by the last digit", () => {
    fc.assert(
      fc.property(fc.integer({ min: 2200, max: 120_000 }), (thousandths) => {
        const size = thousandths / 1000;
        const stack = gaugeStack("metric-88", size);
        if (stack?.possible !== true) throw new Error(`${size} is possible`);
        expect(stack.blocks.reduce((sum, block) => sum + block, 0)).toBeCloseTo(size, 9);
        expect(new Set(stack.blocks).size).toBe(stack.blocks.length);
        expect(stack.blocks).toEqual([...stack.blocks].sort((a, b) => b - a));
        expect(stack.blocks.length).toBeLessThanOrEqual(5);
      }),
      { numRuns: 30 },
    );
  });
  /** The fewest blocks for every sum up to a size, all blocks in one table: slow, and with nothing to get wrong. */
  function fewest(set: GaugeSet, most: number): (size: number) => number | undefined {
    const perUnit = set === "metric-88" ? 2000 : 10_000;
    const last = Math.round(most * perUnit);
    const least = new Map<number, number>([[0, 0]]);
    for (const block of readGaugeSet(set).map((one) => Math.round(one * perUnit)))
      for (const [sum, count] of [...least])
        if (sum + block <= last && count + 1 < (least.get(sum + block) ?? Infinity)) least.set(sum + block, count + 1);
    return (size) => least.get(Math.round(size * perUnit));
  }
  it.each([
    ["metric-88", 4.2, 0.0005],
    ["inch-81", 0.5, 0.0001],
  ] as const)("%s: as few blocks as a table of all sums has, and none where that has none", (set, most, step) => {
    const wanted = fewest(set, most);
    for (let n = 1; n * step <= most; n += 7) {
      const size = Math.round(n * step * 1e6) / 1e6;
      const stack = gaugeStack(set, size);
      expect(stack?.possible === true ? stack.blocks.length : undefined, `${size}`).toBe(wanted(size));
    }
  });
  it("wear blocks come off first and are in the total", () =>
    expect(gaugeStack("metric-88", 11, { count: 2, size: 2 })).toEqual({
      possible: true,
      blocks: [7],
      wear: [2, 2],
      total: 11,
    }));
  it("says which sizes are nearest when there is none", () =>
    expect(gaugeStack("metric-88", 0.7)).toEqual({ possible: false, below: 0.5, above: 1 }));
  it("a block on loan is not used; one that the set does not have is refused", () => {
    expect(gaugeStack("metric-88", 7.5, undefined, [7.5])).toEqual({
      possible: true,
      blocks: [7, 0.5],
      wear: [],
      total: 7.5,
    });
    expect(message("gaugeStack", { set: "metric-88", size: 10, without: [3.33] })).toMatch(/not in the set/);
  });
});

describe("inserts", () => {
  it.each([
    ["ccmt09t304", "metric", { noseAngle: 80, clearanceAngle: 7, circle: 9.525, thickness: 3.96875, noseRadius: 0.4 }],
    // a triangle's edge of 10.998 is an 11
    ["TPGN 11 03 02", "metric", { noseAngle: 60, circle: 6.35, noseRadius: 0.2 }],
    ["RCMT 10 T3 M0", "metric", { noseAngle: null, circle: 10, noseRadius: 5 }],
    ["DCMT 32.51-XF", "inch", { circle: 0.375, thickness: 0.15625, noseRadius: 1 / 64 }],
  ] as const)("%s", (code, system, expected) => expect(readInsert(code, system)).toMatchObject(expected));
  it.each([
    ["CNMG", /digits/],
    ["QCMT 09 T3 04", /first letter/],
    ["CQMT 09 T3 04", /second letter/],
    ["CCMT 10 T3 04", /standard circle/],
    ["CCMT 09 88 04", /thickness/],
    ["12", /four letters/],
  ])("%s is refused by name", (code, words) => expect(message("insert", { code, system: "metric" })).toMatch(words));
});

it("speed and feed: 100 m/min on 31.83 mm is 1000 rev/min, held to the range, the feed with it", () => {
  const input = { system: "metric", surfaceSpeed: 100, diameter: 31.830988618, flutes: 2, feedPerTooth: 0.1 } as const;
  expect(cuttingData(input).speed).toBeCloseTo(1000, 6);
  expect(cuttingData({ ...input, maxSpeed: 800 })).toEqual({ speed: 800, feed: 160, clamped: true });
  expect(message("cuttingData", { ...input, maxSpeed: 100, minSpeed: 200 })).toMatch(/minSpeed/);
});
