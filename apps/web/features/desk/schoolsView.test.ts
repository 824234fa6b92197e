import { describe, expect, it } from "vitest";
import { emptyForm, schoolsView, targetSchools } from "./schoolsView";

const form = {
  ...emptyForm,
  rows: [
    { id: "1", geometry: "-250.780", wear: "" },
    { id: "2", geometry: "-231,440", wear: "0.02" },
    { id: "3", geometry: "", wear: "" },
  ],
  workZ: "-3",
  known: "80",
};

describe("the same setup in another school", () => {
  it("leaves out tools without a length, and keeps every sum whatever the school", () => {
    for (const to of targetSchools) {
      const { lines } = schoolsView({ ...form, to });
      expect(lines?.map(({ after }) => Number((after.geometry + after.wear + after.workZ).toFixed(6)))).toEqual([
        -253.78, -234.42,
      ]);
    }
  });
  it("by hand: tool 1 is 80 long, so its sum −253.780 leaves work Z −333.780", () => {
    const { lines } = schoolsView({ ...form, to: "gauge-line" });
    expect(lines?.[0]?.after.geometry).toBeCloseTo(80, 9);
    expect(lines?.[0]?.after.workZ).toBeCloseTo(-333.78, 9);
    expect(lines?.[1]?.after.geometry).toBeCloseTo(99.36, 9);
  });
  it("says what is missing instead of guessing it", () => {
    expect(schoolsView(emptyForm).missing).toBe("length");
    expect(schoolsView({ ...form, to: "gauge-line", known: "" }).missing).toBe("known");
    expect(schoolsView({ ...form, to: "block-in-wear", block: "high" }).missing).toBe("block");
    expect(schoolsView({ ...form, to: "master", tool: "3" }).missing).toBe("tool");
  });
});
