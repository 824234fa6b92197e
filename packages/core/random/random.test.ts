import { describe, expect, it } from "vitest";
import { drawNormal, drawNormalNotNegative, drawOne, drawUnit } from ".";

describe("keyed draws", () => {
  const many = Array.from({ length: 20_000 }, (_, i) => i);
  it("the same keys give the same number, and another key another one", () => {
    expect(drawUnit("s", "a", 1)).toBe(drawUnit("s", "a", 1));
    expect(drawUnit("s", "a", 1)).not.toBe(drawUnit("s", "a", 2));
    expect(drawUnit("s", "a", 1)).not.toBe(drawUnit("t", "a", 1));
  });
  it("uniform draws fill (0, 1) evenly", () => {
    const bins = new Array<number>(20).fill(0);
    for (const i of many) bins[Math.floor(drawUnit("u", i) * 20)]! += 1;
    for (const bin of bins) expect(Math.abs(bin - 1000)).toBeLessThan(160);
  });
  it("normal draws have the stated mean and deviation; none is below zero where that is asked", () => {
    const draws = many.map((i) => drawNormal(5, 2, "n", i));
    const mean = draws.reduce((a, b) => a + b, 0) / draws.length;
    const deviation = Math.sqrt(draws.reduce((sum, x) => sum + (x - mean) ** 2, 0) / draws.length);
    expect(mean).toBeCloseTo(5, 1);
    expect(deviation).toBeCloseTo(2, 1);
    expect(Math.min(...many.map((i) => drawNormalNotNegative(1, 2, "p", i)))).toBeGreaterThanOrEqual(0);
  });
  it("a choice takes every entry", () =>
    expect(new Set(many.slice(0, 200).map((i) => drawOne([1, 2, 3], "c", i)))).toEqual(new Set([1, 2, 3])));
});
