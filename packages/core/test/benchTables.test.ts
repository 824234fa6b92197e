import { describe, expect, it } from "vitest";
import { benchTables } from "../../../demo";

describe("simulated students on the bench, 250 lanes each", () => {
  const { single, pair, clean, full, rows, misses } = benchTables(250);
  const why = JSON.stringify(misses.slice(0, 12));
  it("one mistake is named first in at least 97 %", () =>
    expect(single.named / single.lanes, why).toBeGreaterThanOrEqual(0.97));
  it("two mistakes are both named in at least 90 %", () =>
    expect(pair.named / pair.lanes, why).toBeGreaterThanOrEqual(0.9));
  it("nothing is claimed of a careful lane in at least 99.5 %", () =>
    expect(clean.named / clean.lanes, why).toBeGreaterThanOrEqual(0.995));
  it("a careful student has full marks in at least 99 %", () =>
    expect(full.named / full.lanes, why).toBeGreaterThanOrEqual(0.99));
  it("every mistake was tried, and most of them show", () => {
    expect(rows.length).toBe(46);
    expect(rows.filter(({ lanes }) => lanes > 0).length).toBeGreaterThan(24);
  });
});
