import { describe, expect, it } from "vitest";
import { inUnit, START, templateOf, toolsOf, withTool } from "./template";

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
  it("lists the tools that are set; where others are counted from the first it is not among them", () => {
    expect(toolsOf({ tools: "3", school: "part-touch" })).toEqual([1, 2, 3]);
    expect(toolsOf({ tools: "2", school: "master" })).toEqual([2, 3]);
    expect(toolsOf({ tools: "1", school: "readout" })).toEqual([2]);
    expect([toolsOf({ tools: "nine", school: "master" }), toolsOf({ tools: "9", school: "master" })]).toEqual([[], []]);
    expect(withTool([], 3, "drill")).toEqual(["", "", "drill"]);
    expect(withTool(["end mill", "drill"], 1, "")).toEqual(["", "drill"]);
  });
  it("has diameters of the tools that are set and have a nominal one, in its own unit", () => {
    const form = { ...START, title: "Clamp", tools: "2", diameters: "measured" as const, nominals: ["10", "", "8"] };
    const of = (change: Partial<typeof START> = {}) => templateOf({ ...form, ...change });
    expect(of()).toMatchObject({ template: { diameters: "measured", nominalDiametersMm: [10, null, null] } });
    expect(inUnit(form, "inch").nominals).toEqual(["0.3937", "", "0.31496"]);
    expect(of({ nominals: ["wide"] })).toEqual({
      problem: "A diameter is a length above zero; leave it empty for a tool without one.",
    });
    expect(of({ nominals: [] })).toEqual({
      problem: "Type the nominal diameter of each tool whose diameter is to be set.",
    });
    // a lathe has none, whatever stood in the form before
    expect("template" in of({ machine: "lathe", school: "part-face" })).toBe(true);
    const lathe = of({ machine: "lathe", school: "part-face" });
    expect("template" in lathe && lathe.template.diameters).toBe(undefined);
    expect(of({ school: "offset-per-tool", tools: "7", diameters: "none" })).toEqual({
      problem: "There are six work offsets, one for each tool: set six tools at most.",
    });
    expect(of({ toolNames: [" 10 mm end mill ", ""], drawingNumber: "FH-118" })).toMatchObject({
      template: { toolNames: ["10 mm end mill", ""], drawingNumber: "FH-118" },
    });
  });
});
