import { describe, expect, it } from "vitest";
import { entrySchema, floorFromTemplate, foldFloor, ruleFloor, type FloorEntry, type FloorTemplate } from "../floor";
import { skillsShownAtMachine, type SkillId } from ".";

const mill: FloorTemplate = {
  title: "Dovetail clamp",
  machine: "mill",
  unit: "mm",
  datum: "front left",
  school: "plane-lift",
  asksNose: false,
  tools: 1,
  readingsNeeded: 1,
  tipDiameterMm: 10,
  edgeXMm: 0,
  edgeYMm: 0,
  paperMm: 0.08,
  blockMm: 0.08,
  skinMm: 0,
  toleranceXyMm: 0.03,
  toleranceZMm: 0.03,
};
const lathe: FloorTemplate = { ...mill, machine: "lathe", school: "master-shift", asksNose: true };

/** What a lane shows in which each register is this far from its check, mm; null: not set. */
function shownBy(template: FloorTemplate, off: Record<string, number | null>, more: readonly FloorEntry[] = []) {
  const exercise = floorFromTemplate(template);
  const entries = exercise.registers.flatMap(({ id: register }): FloorEntry[] => {
    const mm = off[register] ?? 0;
    const reading: FloorEntry = { type: "reading", register, mm: 100 };
    const sum: FloorEntry = { type: "sum", register, mm: 100 };
    const check: FloorEntry = { type: "check", register, method: "second touch", mm: 100, uMm: 0.002 };
    const set: FloorEntry[] = off[register] === null ? [] : [{ type: "register", register, mm: 100 + mm }];
    return [reading, sum, check, ...set];
  });
  const state = foldFloor(
    exercise,
    [{ type: "cautionsRead" } as FloorEntry, ...entries, ...more].map((entry, n) => ({
      id: `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`,
      atMs: n,
      by: "x",
      entry: entrySchema.parse(entry),
    })),
  );
  return new Map(skillsShownAtMachine(exercise, ruleFloor(state)).map((one) => [one.skill, one]));
}
const good = (shown: ReturnType<typeof shownBy>) =>
  Object.fromEntries([...shown].map(([skill, { isGood }]) => [skill, isGood]));

describe("skills that a lane at a real machine shows", () => {
  it("are how its registers were set, the sums, the order and the safety; all good where the work was", () => {
    expect(good(shownBy(mill, {}))).toEqual({
      edge: true,
      "plane-lift": true,
      working: true,
      sequence: true,
      safety: true,
    });
    expect(good(shownBy(lathe, {}))).toEqual({
      turnedX: true,
      "master-shift": true,
      nose: true,
      working: true,
      sequence: true,
      safety: true,
    });
    expect(good(shownBy({ ...lathe, school: "readout", asksNose: false, tools: 1 }, {}))).toMatchObject({
      "readout-library": true,
    });
  });
  it.each([
    ["middle", "middle"],
    ["bore", "round"],
    ["swept boss", "round"],
  ] as const)("zero in the %s is the skill “%s”", (datum, skill) => {
    expect(good(shownBy({ ...mill, datum }, { "G54.x": 0.4 }))).toMatchObject({ [skill satisfies SkillId]: false });
  });
  it("one edge of two that is wrong is the edge not shown, and costs what the value cost: 55 of 4 registers", () => {
    const shown = shownBy(mill, { "G54.x": 5 });
    expect(good(shown)).toMatchObject({ edge: false, "plane-lift": true });
    expect(shown.get("edge")?.lost).toBeCloseTo(55 / 4, 9);
    expect(shown.get("plane-lift")?.lost).toBeCloseTo(0, 9);
  });
  it("a register that nobody set is not shown; a check that cannot decide shows nothing", () => {
    expect(good(shownBy(mill, { H1: null }))).toMatchObject({ "plane-lift": false });
    const coarse: FloorEntry = { type: "check", register: "G54.x", method: "ruler", mm: 103, uMm: 0.002 };
    const shown = shownBy({ ...mill, datum: "middle" }, {}, [coarse, { ...coarse, register: "G54.y" }]);
    expect(shown.has("middle")).toBe(false);
  });
  it("a hand in what turns is safety not shown", () => {
    const noted: FloorEntry = { type: "safetyNoted", text: "reached in", cost: 5 };
    expect(good(shownBy(mill, {}, [noted]))).toMatchObject({ safety: false, edge: true });
  });
});
