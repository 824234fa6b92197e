import { floorFromTemplate, foldFloor, type FloorEntry, type FloorTemplate } from "@probe-lane/core/floor";
import { describe, expect, it } from "vitest";
import { entriesOf, linesOf, pressed, type Typed } from "./walk";

const template: FloorTemplate = {
  title: "Dovetail clamp",
  machine: "mill",
  unit: "mm",
  datum: "front left",
  school: "part-touch",
  asksNose: false,
  tools: 1,
  readingsNeeded: 1,
  tipDiameterMm: 10,
  edgeXMm: 0,
  edgeYMm: 12,
  paperMm: 0.08,
  blockMm: 0,
  skinMm: 0,
  toleranceXyMm: 0.03,
  toleranceZMm: 0.03,
};
const floor = (more: Partial<FloorTemplate> = {}, entries: FloorEntry[] = []) => {
  const exercise = floorFromTemplate({ ...template, ...more });
  const stored = entries.map((entry, n) => ({ id: `00000000-0000-4000-8000-00000000000${n}`, atMs: n, by: "", entry }));
  const state = foldFloor(exercise, stored);
  const register = (id: string) => {
    const found = exercise.registers.find((one) => one.id === id);
    if (!found) throw new Error(`no register ${id}`);
    return found;
  };
  return { exercise, state, register };
};
const keys = (text: string, ...pad: string[]) => pad.reduce(pressed, text);

describe("the lines of a register's screen", () => {
  it("are what belongs to it and no more: an edge at zero is none, an edge at twelve is", () => {
    const { exercise, register } = floor();
    expect(linesOf(exercise, register("G54.x")).map(({ id }) => id)).toEqual(["stood1", "term tipRadius", "sum"]);
    expect(linesOf(exercise, register("G54.y")).map(({ id }) => id)).toEqual([
      "stood1",
      "term tipRadius",
      "term edgeWork",
      "sum",
    ]);
  });
  it("offer what the sheet gives with either sign, and say of no sign that it is the right one", () => {
    const { exercise, register } = floor();
    expect(linesOf(exercise, register("G54.y"))[2]?.offers).toEqual(["12.000", "−12.000"]);
    expect(linesOf(exercise, register("H1"))[1]).toMatchObject({
      id: "term paper",
      offers: ["0.080", "−0.080"],
    });
  });
  it("of a tool that a setter measured are its reading and the sum; of a tip code none", () => {
    const gauged = floor({ school: "gauge-line" });
    expect(linesOf(gauged.exercise, gauged.register("H1")).map(({ id }) => id)).toEqual(["stood1", "sum"]);
    const lathe = floor({ machine: "lathe", school: "part-face", asksNose: true });
    expect(linesOf(lathe.exercise, lathe.register("T1.tip"))).toEqual([]);
    expect(linesOf(lathe.exercise, lathe.register("T1.x")).map(({ id }) => id)).toContain("term diameter");
  });
  it("are as many readings as are asked for", () => {
    const { exercise, register } = floor({ readingsNeeded: 3 });
    expect(linesOf(exercise, register("H1")).map(({ id }) => id)).toEqual([
      "stood1",
      "stood2",
      "stood3",
      "term paper",
      "sum",
    ]);
  });
});

describe("the pad", () => {
  it("writes figures with one point, turns the sign, takes back and clears", () => {
    expect(keys("", "2", "5", "0", ".", "6", ".", "9", "±")).toBe("−250.69");
    expect(keys("−250.69", "±")).toBe("250.69");
    expect(keys("-250.69", "±")).toBe("250.69");
    expect(keys("250.6", "erase", "erase")).toBe("250");
    expect(keys("1", "00", "clear")).toBe("");
    expect(keys("", "erase")).toBe("");
  });
});

describe("what a screen comes to", () => {
  const full: Typed = { stood1: "−334.666", "term tipRadius": "5", sum: "−329.666", shows: "−329.666" };
  it("is a reading, its terms, the sum and what the control shows, in this order", () => {
    const { state, register } = floor();
    expect(entriesOf(state, register("G54.x"), full)).toEqual({
      entries: [
        { type: "reading", register: "G54.x", mm: -334.666 },
        { type: "term", register: "G54.x", term: "tipRadius", mm: 5 },
        { type: "sum", register: "G54.x", mm: -329.666 },
        { type: "register", register: "G54.x", mm: -329.666 },
      ],
    });
  });
  it("leaves out a term that was left out, and says nothing of it", () => {
    const { state, register } = floor();
    const outcome = entriesOf(state, register("G54.x"), { ...full, "term tipRadius": "" });
    expect("entries" in outcome && outcome.entries.map(({ type }) => type)).toEqual(["reading", "sum", "register"]);
  });
  it("names the first line that is missing or cannot be read", () => {
    const { state, register } = floor();
    const problem = (typed: Typed) => entriesOf(state, register("G54.x"), typed);
    expect(problem({})).toMatchObject({ at: "stood1" });
    expect(problem({ ...full, sum: " " })).toEqual({
      at: "sum",
      problem: "Write your own sum: nothing is added up for you here.",
    });
    expect(problem({ ...full, shows: "" })).toMatchObject({ at: "shows" });
    expect(problem({ ...full, "term tipRadius": "five" })).toMatchObject({ at: "term tipRadius" });
  });
  it("takes the place of what stood there before: its readings and terms are struck, another register's are not", () => {
    const { state, register } = floor({}, [
      { type: "reading", register: "G54.x", mm: -300 },
      { type: "term", register: "G54.x", term: "tipRadius", mm: -5 },
      { type: "reading", register: "H1", mm: -250 },
    ]);
    const outcome = entriesOf(state, register("G54.x"), full);
    const struck = "entries" in outcome ? outcome.entries.filter(({ type }) => type === "struck") : [];
    expect(struck.map((one) => "entry" in one && one.entry.slice(-1))).toEqual(["0", "1"]);
  });
  it("in inches is read and offered in inches", () => {
    const { exercise, state, register } = floor({ unit: "inch" });
    expect(linesOf(exercise, register("G54.x"))[1]?.offers).toEqual(["0.1969", "−0.1969"]);
    const outcome = entriesOf(state, register("H1"), { stood1: "-10", sum: "-10", shows: "-10" });
    expect("entries" in outcome && outcome.entries[0]).toEqual({ type: "reading", register: "H1", mm: -254 });
  });
});
