import { describe, expect, it } from "vitest";
import { benchTables, proveOutTables } from "../../../demo";

describe("simulated students on the bench", () => {
  const tables = benchTables(60, 80);
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
    expect([single.lanes, offCatalog.lanes, careful.lanes]).toEqual([60, 60, 80]);
    expect(pair.lanes).toBeGreaterThan(36);
    expect(byMistake.size).toBeGreaterThan(20);
  });
});

describe("simulated students who prove a wrong setup out", () => {
  const { named, moved, byExercise, misses } = proveOutTables(16);
  const why = JSON.stringify(misses);
  it("have their mistake named, and its register beside every feature that it put off", () => {
    expect(named, why).toEqual({ lanes: 16, hits: 16 });
    expect(moved.lanes).toBeGreaterThanOrEqual(16);
    expect(moved.hits, why).toBe(moved.lanes);
    expect(byExercise.size).toBeGreaterThan(2);
  });
});
