import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  boxOf,
  firstContact as contactOf,
  planGap,
  signedGapMm,
  solidGap,
  turned,
  type PointMm,
  type Solid,
  type UprightCylinder,
} from ".";

const box = { low: { x: 0, y: 0, z: -20 }, high: { x: 100, y: 50, z: 0 } };
const solid: Solid = { plan: { kind: "rect", x: 50, y: 25, halfX: 50, halfY: 25, angleDeg: 0 }, lowZ: -20, highZ: 0 };
const firstContact = (from: PointMm, to: PointMm, cylinder: UprightCylinder, _box: typeof box) =>
  contactOf(from, to, cylinder, solid);
const tool = { radiusMm: 5, fromMm: 0, toMm: 40 };

describe("first contact", () => {
  it("by hand: from x = −25 to +5 at y 25 a radius of 5 meets x = 0 after 20 of 30 mm", () => {
    expect(firstContact({ x: -25, y: 25, z: -5 }, { x: 5, y: 25, z: -5 }, tool, box)).toBeCloseTo(20 / 30, 9);
  });
  it("coming down over the part it meets the top", () => {
    expect(firstContact({ x: 50, y: 25, z: 10 }, { x: 50, y: 25, z: -10 }, tool, box)).toBeCloseTo(0.5, 9);
  });
  it("beside a corner it meets at the radius, not at the square", () => {
    const y = -3;
    const t = firstContact({ x: -25, y, z: -5 }, { x: 5, y, z: -5 }, tool, box);
    expect(t).toBeCloseTo((25 - Math.sqrt(25 - 9)) / 30, 6);
  });
  it("passing over, beside, or just touching is no contact", () => {
    expect(firstContact({ x: -25, y: 25, z: 1 }, { x: 125, y: 25, z: 1 }, tool, box)).toBeNull();
    expect(firstContact({ x: -25, y: -6, z: -5 }, { x: 125, y: -6, z: -5 }, tool, box)).toBeNull();
    expect(firstContact({ x: -25, y: -5, z: -5 }, { x: 125, y: -5, z: -5 }, tool, box)).toBeNull();
    expect(firstContact({ x: 50, y: 25, z: 10 }, { x: 50, y: 25, z: 0 }, tool, box)).toBeNull();
  });
  it("agrees with walking the line in small steps", () => {
    const place = fc.record({
      x: fc.integer({ min: -60, max: 160 }),
      y: fc.integer({ min: -60, max: 110 }),
      z: fc.integer({ min: -30, max: 30 }),
    });
    fc.assert(
      fc.property(place, place, (from, to) => {
        const isIn = (t: number, marginMm: number) => {
          const [x, y, z] = [from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t, from.z + (to.z - from.z) * t];
          return (
            signedGapMm(x, y, box) < tool.radiusMm + marginMm && z < marginMm && z + tool.toMm > box.low.z - marginMm
          );
        };
        const inside = (t: number) => isIn(t, -1e-6);
        const steps = Array.from({ length: 2001 }, (_, step) => step / 2000);
        const walked = steps.find(inside) ?? null;
        const found = firstContact(from, to, tool, box);
        // a graze between two steps may be found by the one and missed by the other; a step is 0.15 mm at most
        if (walked === null) return found === null || isIn(found, 0.15);
        return found !== null && Math.abs(found - walked) <= 1 / 1000;
      }),
      { numRuns: 300 },
    );
  });
});

describe("solids that are turned or bored", () => {
  it("by hand: a square of 20 turned by 45 degrees reaches 14.142 along X", () => {
    const square: Solid = {
      plan: { kind: "rect", x: 0, y: 0, halfX: 10, halfY: 10, angleDeg: 45 },
      lowZ: -5,
      highZ: 0,
    };
    expect(planGap(square, 20, 0)).toBeCloseTo(20 - Math.SQRT2 * 10, 9);
    expect(boxOf(square).high.x).toBeCloseTo(Math.SQRT2 * 10, 9);
  });
  it("inside a hole the wall is met at R − r, and nothing is below", () => {
    const bored: Solid = { ...solid, hole: { kind: "round", x: 50, y: 25, radiusMm: 12 } };
    expect(solidGap(bored, { x: 50, y: 25, z: -10 }, { radiusMm: 3, fromMm: 0, toMm: 6 })).toBeCloseTo(9, 9);
    expect(
      contactOf({ x: 50, y: 25, z: -10 }, { x: 80, y: 25, z: -10 }, { radiusMm: 3, fromMm: 0, toMm: 6 }, bored),
    ).toBeCloseTo(9 / 30, 6);
  });
  it("a rectangular opening has flat walls, turned as the part is", () => {
    const pocket: Solid = {
      plan: { kind: "rect", x: 0, y: 0, halfX: 40, halfY: 30, angleDeg: 0 },
      lowZ: -20,
      highZ: 0,
      hole: { kind: "rect", x: 0, y: 0, halfX: 15, halfY: 10 },
    };
    expect([planGap(pocket, 0, 0), planGap(pocket, 12, 0), planGap(pocket, 20, 0)]).toEqual([10, 3, -5]);
    const skewed: Solid = { ...pocket, plan: { ...pocket.plan, angleDeg: 30 } as Solid["plan"] };
    const at = turned(12, 0, 30);
    expect(planGap(skewed, at.x, at.y)).toBeCloseTo(3, 9);
  });
  it("turning scene and move together changes nothing", () => {
    const place = fc.record({
      x: fc.double({ min: -80, max: 80, noNaN: true }),
      y: fc.double({ min: -80, max: 80, noNaN: true }),
    });
    fc.assert(
      fc.property(place, place, fc.double({ min: -60, max: 60, noNaN: true }), (a, b, angleDeg) => {
        const flat: Solid = {
          plan: { kind: "rect", x: 0, y: 0, halfX: 30, halfY: 20, angleDeg: 0 },
          lowZ: -20,
          highZ: 0,
        };
        const skewed: Solid = { ...flat, plan: { ...flat.plan, angleDeg } as Solid["plan"] };
        const at = ({ x, y }: { x: number; y: number }) => ({ ...turned(x, y, angleDeg), z: -5 });
        if (planGap(flat, a.x, a.y) < 5.01 || Math.abs(planGap(flat, b.x, b.y) - 5) < 0.05) return true;
        const straight = contactOf({ ...a, z: -5 }, { ...b, z: -5 }, tool, flat);
        const turnedToo = contactOf(at(a), at(b), tool, skewed);
        return (straight === null) === (turnedToo === null) && Math.abs((straight ?? 0) - (turnedToo ?? 0)) < 2e-3;
      }),
      { numRuns: 200 },
    );
  });
});
