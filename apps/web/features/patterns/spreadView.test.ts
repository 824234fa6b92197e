import { describe, expect, it } from "vitest";
import type { Target } from "@probe-lane/core/exercises";
import { DOT_PX, spreadView } from "./spreadView";

const target: Target = { id: "x", kind: "place", tool: null, axis: "x", registers: ["G54.x"], unit: "mm" };
const spread = (closures: readonly number[]) => ({
  target,
  toleranceMm: 0.02,
  dots: closures.map((closureMm, i) => ({ lane: `/lanes/${i}`, closureMm, isRight: Math.abs(closureMm) <= 0.02 })),
  lines: [
    { id: "radiusForgotten" as const, mm: -5, lanes: 2 },
    { id: "radiusSignTurned" as const, mm: -10, lanes: 1 },
  ],
});

describe("the lanes of a class on the axis of a value", () => {
  it.each([400, 940])(
    "at %i px all stand inside of it, none on another, left to right by how far they are off",
    (width) => {
      const { dots, band, zero } = spreadView(spread([-5, -5.001, -5.002, 0, 0.001, 0.4, -0.4]), width);
      expect(dots).toHaveLength(7);
      for (const { x } of dots) expect(x >= 0 && x <= width).toBe(true);
      expect(new Set(dots.map(({ x, level }) => `${x} ${level}`)).size).toBe(7);
      expect(dots.map(({ closureMm }) => closureMm)).toEqual([-5.002, -5.001, -5, -0.4, 0, 0.001, 0.4]);
      expect(dots.map(({ x }) => x)).toEqual(dots.map(({ x }) => x).toSorted((a, b) => a - b));
      const middle = dots.find(({ closureMm }) => closureMm === 0)?.x ?? NaN;
      expect(Math.abs(middle - zero)).toBeLessThanOrEqual(DOT_PX / 2);
      expect(band[0]).toBeLessThan(zero);
      expect(band[1]).toBeGreaterThan(zero);
    },
  );
  it("lines stand where the mistakes put a value, named with how many made them", () => {
    const { lines, rows } = spreadView(spread([-5]), 940);
    expect(lines.map(({ label }) => label)).toEqual(["radius left out, 2", "radius turned round, 1"]);
    expect(lines[1]?.x).toBeLessThan(lines[0]?.x ?? NaN);
    expect(rows).toBeGreaterThan(0);
  });
});
