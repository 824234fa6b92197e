import { describe, expect, it } from "vitest";
import type { FloorExercise, FloorRegister } from "@probe-lane/core/floor";
import { summed, summedFigures, typedFirst, type TypedReading } from "./readingSum";

const exercise = (unit: "mm" | "inch" = "mm") => ({ unit }) as FloorExercise;
const register = (method: FloorRegister["method"], figures: FloorRegister["figures"] = {}) =>
  ({ method, figures }) as FloorRegister;
const typed = (stoodAt: string, figures: TypedReading["figures"] = {}, side: 1 | -1 = 1): TypedReading => ({
  stoodAt,
  figures,
  side,
});

describe("a check as it is read", () => {
  it("of an edge: the tip radius on the side that it came from, less where the edge is", () => {
    const edge = register("mill-edge");
    // touched moving plus: -334.666 + 5 - 1.5
    expect(summed(exercise(), edge, typed("-334.666", { tipRadius: "5", edgeWork: "1.5" }))).toEqual({
      mm: expect.closeTo(-331.166, 9) as number,
    });
    expect(summed(exercise(), edge, typed("-250", { tipRadius: "5" }, -1))).toEqual({ mm: -255 });
    expect(summed(exercise(), edge, typed("-250"))).toEqual({
      problem: "A figure is missing: fill in what the sum needs.",
    });
  });
  it("of a length: paper and the skin's height off; what lies not between is left empty", () => {
    const length = register("mill-length");
    expect(summed(exercise(), length, typed("-253.068", { paper: "0.06", facing: "0.7", block: "" }))).toEqual({
      mm: expect.closeTo(-253.828, 9) as number,
    });
    expect(summed(exercise(), length, typed("-200", { block: "25" }))).toEqual({ mm: -225 });
  });
  it("of a lathe: the diameter touched, and paper twice outside, the other way in a bore", () => {
    const x = register("lathe-x");
    expect(summed(exercise(), x, typed("-224.361", { touchDiameter: "40.767", paper: "0.4" }))).toEqual({
      mm: expect.closeTo(-265.928, 9) as number,
    });
    expect(summed(exercise(), x, typed("-98.312", { touchDiameter: "33.076", paper: "2.1" }, -1))).toEqual({
      mm: expect.closeTo(-127.188, 9) as number,
    });
    expect(summed(exercise(), register("lathe-z"), typed("-258.079", { facing: "-12.5", block: "0.3" }))).toEqual({
      mm: expect.closeTo(-245.879, 9) as number,
    });
  });
  it("in inches is summed in inches, and a comma is a point", () => {
    const sum = summed(exercise("inch"), register("mill-edge"), typed("-10,25", { tipRadius: "0.2" }));
    expect(sum).toEqual({ mm: expect.closeTo(-10.05 * 25.4, 9) as number });
  });
  it("says what is missing or cannot be read", () => {
    const edge = register("mill-edge");
    expect(summed(exercise(), edge, typed("  "))).toEqual({ problem: "Type where it stood." });
    expect(summed(exercise(), edge, typed("1O2", { tipRadius: "5" }))).toHaveProperty("problem");
    expect(summed(exercise(), edge, typed("102", { tipRadius: "five" }))).toHaveProperty("problem");
  });
  it("begins with the figures and the side that the exercise has, and asks for none where nothing is summed", () => {
    const edge = register("mill-edge", { approach: -1, tipRadius: 5, edgeWork: 0 });
    expect(typedFirst(exercise(), edge)).toEqual({
      stoodAt: "",
      figures: { tipRadius: "5.000", edgeWork: "0.000" },
      side: -1,
    });
    expect(summedFigures(register("lathe-tip"))).toBeNull();
    expect(typedFirst(exercise(), register("lathe-x", { outside: -1, paper: 0.1 }))).toMatchObject({
      side: -1,
      figures: { touchDiameter: "", paper: "0.100" },
    });
  });
});
