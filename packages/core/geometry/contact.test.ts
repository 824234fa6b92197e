import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { firstContact, signedGapMm } from ".";

const box = { low: { x: 0, y: 0, z: -20 }, high: { x: 100, y: 50, z: 0 } };
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
    const place = fc.record({ x: fc.integer({ min: -60, max: 160 }), y: fc.integer({ min: -60, max: 110 }), z: fc.integer({ min: -30, max: 30 }) });
    fc.assert(fc.property(place, place, (from, to) => {
      const isIn = (t: number, marginMm: number) => {
        const [x, y, z] = [from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t, from.z + (to.z - from.z) * t];
        return signedGapMm(x, y, box) < tool.radiusMm + marginMm && z < marginMm && z + tool.toMm > box.low.z - marginMm;
      };
      const inside = (t: number) => isIn(t, -1e-6);
      const steps = Array.from({ length: 2001 }, (_, step) => step / 2000);
      const walked = steps.find(inside) ?? null;
      const found = firstContact(from, to, tool, box);
      // a graze between two steps may be found by the one and missed by the other; a step is 0.15 mm at most
      if (walked === null) return found === null || isIn(found, 0.15);
      return found !== null && Math.abs(found - walked) <= 1 / 1000;
    }), { numRuns: 300 });
  });
});
