import { describe, expect, it } from "vitest";
import { floorTables } from "../../../demo";

describe("2,000 seeded setups without a log", () => {
  const { injected, clean, arbitrary, rows } = floorTables(2000);
  it("one injected mistake beyond 6u: its class is named first in at least 95 %", () => {
    expect(injected.lanes).toBeGreaterThan(1900);
    expect(injected.first / injected.lanes).toBeGreaterThanOrEqual(0.95);
  });
  it("with none injected nothing is claimed in at least 99 %", () =>
    expect(clean.silent / clean.lanes).toBeGreaterThanOrEqual(0.99));
  it("arbitrary closures within ±2 mm are answered unexplained in at least 80 %", () =>
    expect(arbitrary.open / arbitrary.lanes).toBeGreaterThanOrEqual(0.8));
  it("nearly the whole catalog was tried", () => expect(rows.length).toBeGreaterThan(38));
});
