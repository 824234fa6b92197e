import { describe, expect, it } from "vitest";
import { benchTables, proveOutTables } from "../../../demo";

// a small share of what `scripts/diagnosis-tables.ts` and `scripts/proveout-tables.ts` work through for the docs
describe("simulated students on the bench", () => {
  const tables = benchTables(24, 20);
  const { single, pair, offCatalog, careful, fullMarks, falselyProven, byMistake, misses } = tables;
  const why = JSON.stringify(misses.slice(0, 8));
  const share = ({ lanes, hits }: { lanes: number; hits: number }) => hits / lanes;
  it("one mistake is named first in at least 99 %", () => expect(share(single), why).toBeGreaterThanOrEqual(0.99));
  it("two mistakes are both named in at least 96 %", () => expect(share(pair), why).toBeGreaterThanOrEqual(0.96));
  it("a figure that no mistake predicts is left at that in at least 99 %", () =>
    expect(share(offCatalog), why).toBeGreaterThanOrEqual(0.99));
  it("nothing is claimed of a careful lane, whatever its order, and it has full marks", () => {
    expect(share(careful), why).toBe(1);
    expect(share(fullMarks)).toBe(1);
  });
  it("nothing is called proven that did not happen", () => expect(falselyProven.hits, why).toBe(0));
  it("the lanes are as many as asked for, of many mistakes", () => {
    expect([single.lanes, offCatalog.lanes, careful.lanes]).toEqual([24, 24, 20]);
    expect(pair.lanes).toBeGreaterThan(12);
    expect(byMistake.size).toBeGreaterThan(12);
  });
});

describe("simulated students who prove a wrong setup out", () => {
  const { named, moved, byExercise, misses } = proveOutTables(12);
  const why = JSON.stringify(misses);
  it("have their mistake named, and its register beside every feature that it put off", () => {
    expect(named, why).toEqual({ lanes: 12, hits: 12 });
    expect(moved.lanes).toBeGreaterThanOrEqual(12);
    expect(moved.hits, why).toBe(moved.lanes);
    expect(byExercise.size).toBeGreaterThan(2);
  });
});
