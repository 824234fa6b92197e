import { describe, expect, it } from "vitest";
import { inUnit, START, templateOf } from "./template";

describe("the form of a new floor exercise", () => {
  it("in another unit holds the same lengths, and comes back to what it was", () => {
    const inch = inUnit({ ...START, tipDiameter: "10", edgeX: "-25.4" }, "inch");
    expect(inch).toMatchObject({ unit: "inch", tipDiameter: "0.3937", edgeX: "−1", paper: "0.00315", skin: "0" });
    const back = inUnit(inch, "mm");
    expect(back).toMatchObject({ unit: "mm", tipDiameter: "10", edgeX: "−25.4", paper: "0.08", toleranceZ: "0.03" });
  });
  it("leaves what cannot be read as it was typed, and says so of the whole", () => {
    const odd = inUnit({ ...START, title: "Clamp", paper: "a hair" }, "inch");
    expect(odd.paper).toBe("a hair");
    expect(templateOf(odd)).toEqual({ problem: "One of the lengths cannot be read yet." });
  });
  it("says what is missing: a title, then a figure out of range", () => {
    expect(templateOf(START)).toEqual({ problem: "Give it a title." });
    expect(templateOf({ ...START, title: "Clamp", tools: "9" })).toMatchObject({
      problem: expect.stringContaining("tools 1 to 8") as string,
    });
    expect(templateOf({ ...START, title: "Clamp", machineNumber: " " })).toMatchObject({
      template: { title: "Clamp", tipDiameterMm: 10, tools: 2 },
    });
  });
});
