import { Readable } from "node:stream";
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { floorFromTemplate } from "@probe-lane/core/floor";
import { LaneDriver, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../demo";
import { runCommand } from "./commands";
import { firstDifference } from "./vectors";

async function call(args: string[], input = "") {
  const out: string[] = [];
  const err: string[] = [];
  const code = await runCommand(args, {
    input: Readable.from([input]),
    print: (line) => out.push(line),
    complain: (line) => err.push(line),
  });
  return { code, out, err };
}

describe("calc", () => {
  it("answers one input", async () => {
    const { code, out } = await call(["calc", "edge"], '{"contact": -334.666, "approach": 1, "tipRadius": 5}');
    expect(code).toBe(0);
    expect(JSON.parse(out[0] ?? "")).toEqual({ edge: -329.666, captureAs: -5, work: -329.666 });
  });
  it.each([
    ["edge", '{"contact": "NaN", "approach": 1, "tipRadius": 5}', /contact/],
    ["edge", '{"contact": 1, "approach": 1, "tipRadius": -5}', /tipRadius: must not be below zero/],
    ["edge", "not json", /not JSON/],
    ["later", "{}", /"later" is not built/],
    ["inspect", '{"machine": "mill"}', /program/],
    ["prove", '{"machine": "router"}', /machine/],
    ["envelope", '{"machine": "mill", "program": "", "startUnits": "mm"}', /empty/],
    ["center", '{"contacts": [1, 2], "tipRadius": 3, "kind": "outside"}', /closer together/],
    ["convertSchool", '{"lengths": {"T1": 80}, "workZ": 1, "to": "master", "master": "T2"}', /not in the length table/],
  ])("%s refuses %s in one line and exits 2", async (op, input, words) => {
    const { code, out, err } = await call(["calc", op], input);
    expect({ code, out, lines: err.length }).toEqual({ code: 2, out: [], lines: 1 });
    expect(err[0]).toMatch(words);
  });
  it("answers a batch line by line, errors included", async () => {
    const { code, out } = await call(
      ["calc", "--batch"],
      '{"op":"setterLength","input":{"toolTrigger":-424,"noseTrigger":-511}}\nnonsense\n{"op":"nope","input":{}}\n',
    );
    expect(code).toBe(0);
    expect(out.map((line) => JSON.parse(line) as unknown)).toEqual([
      { length: 87 },
      { error: expect.any(String) as unknown },
      { error: expect.stringContaining("nope") as unknown },
    ]);
  });
});

describe("what a bench lane should hold", () => {
  const file = new URL("../../demo/exercises/five-tools-free.json", import.meta.url).pathname;
  it("prints every register of the school with bias and uncertainty, the same for the same seed", async () => {
    const { code, out } = await call(["expect", file, "--seed", "7", "--school", "plane-lift"]);
    expect(code).toBe(0);
    expect(out).toHaveLength(7);
    expect(out[1]).toMatch(/^H1 length +−\d+\.\d{3} +bias +-?\d+\.\d µm +U +\d+\.\d µm +height gauge with lamp$/);
    expect((await call(["expect", file, "--seed", "7", "--school", "plane-lift"])).out).toEqual(out);
    expect((await call(["expect", file, "--seed", "8", "--school", "plane-lift"])).out).not.toEqual(out);
  });
  it("what is not understood is one line and exit 2", async () => {
    for (const words of [
      ["--school", "master"],
      ["--seed", "1", "--school", "mine"],
      ["--sead", "1"],
      ["--seed", "1", "--school", "offset-per-tool"],
    ]) {
      const { code, out, err } = await call(["expect", file, ...words]);
      expect([code, out.length, err.length]).toEqual([2, 0, 1]);
    }
  });
});

it("expect says what a lathe's registers should hold, by school, and refuses a school that the exercise does not allow", async () => {
  const file = "demo/exercises/collar-five-tools-arm.json";
  const { code, out } = await call(["expect", file, "--seed", "7", "--school", "setter-arm"]);
  expect(code).toBe(0);
  expect(out).toHaveLength(1 + 4 * 2 + 2);
  expect(out[1]).toMatch(/^T1 X +−28\d\.\d{3} +bias +0\.0 µm/);
  expect(await call(["expect", file, "--seed", "7", "--school", "part-face"])).toMatchObject({
    code: 2,
    err: [expect.stringContaining("it allows setter-arm")],
  });
});

it("expect warns where tools give way further than wear can take back in one part", async () => {
  const path = "demo/exercises/knob-first-part.json";
  const file = JSON.parse(readFileSync(path, "utf8")) as {
    exercise: { program: { store: { file: string }[]; cutting: { wearMm: number[] } } };
  };
  const dir = mkdtempSync(join(tmpdir(), "exercise-"));
  mkdirSync(join(dir, "programs"));
  for (const { file: one } of file.exercise.program.store)
    writeFileSync(join(dir, one), readFileSync(`demo/exercises/${one}`, "utf8"));
  file.exercise.program.cutting.wearMm = [0.1, 0.1];
  writeFileSync(join(dir, "file.json"), JSON.stringify(file));
  const { code, err } = await call(["expect", join(dir, "file.json"), "--seed", "1"]);
  expect(code).toBe(0);
  expect(err.join("\n")).toMatch(
    /^warning: a right setup whose first part is put right makes a good .* on 0 of 100 lanes/,
  );
});

it("expect warns of a paper that hides inside the tolerance, and of a tolerance that no method can hold", async () => {
  const file = JSON.parse(readFileSync("demo/exercises/collar-five-tools-face.json", "utf8")) as {
    exercise: { paperMm: number[] };
    marking: { tolerancesMm: Record<"x" | "z", number> };
  };
  const warned = async () => {
    const path = join(mkdtempSync(join(tmpdir(), "exercise-")), "file.json");
    writeFileSync(path, JSON.stringify(file));
    return (await call(["expect", path, "--seed", "7"])).err;
  };
  expect(await warned()).toEqual([]);
  file.exercise.paperMm = [0.04];
  file.marking.tolerancesMm = { ...file.marking.tolerancesMm, x: 0.05, z: 0.001 };
  const warnings = await warned();
  expect(warnings.at(-1)).toBe(
    "warning: a feeler of 0.040 mm counted once instead of twice hides inside the tolerance of 0.050 mm in x: use a thicker paper, or a narrower tolerance",
  );
  expect(warnings[0]).toMatch(
    /^warning: the tolerance of 0\.001 mm in z is narrower than .* can hold: give at least 0\.0/,
  );
});

describe("vectors", () => {
  it("counts passed and failed, lists what is not built, and fails when a case does", async () => {
    const folder = mkdtempSync(join(tmpdir(), "cases-"));
    writeFileSync(
      join(folder, "edge.json"),
      JSON.stringify({
        op: "edge",
        cases: [
          { name: "right", input: { contact: 1, approach: 1, tipRadius: 2 }, expect: { edge: 3 }, tolerance: 0 },
          { name: "wrong", input: { contact: 1, approach: 1, tipRadius: 2 }, expect: { edge: 4 }, tolerance: 0.5 },
          {
            name: "must refuse",
            input: { contact: 1, approach: 1, tipRadius: 2 },
            expect: { error: true },
            tolerance: 0,
          },
        ],
      }),
    );
    writeFileSync(
      join(folder, "later.json"),
      JSON.stringify({ op: "later", cases: [{ name: "later", input: {}, expect: {}, tolerance: 0 }] }),
    );
    const { code, out } = await call(["vectors", folder]);
    expect(code).toBe(1);
    expect(out.at(-1)).toBe("1 passed, 2 failed");
    expect(out.some((line) => line.includes("later (1)"))).toBe(true);
  });
  it("finds the first difference by its path", () => {
    expect(firstDifference({ a: [1, { b: 2 }] }, { a: [1, { b: 2.1 }] }, 0.01)).toBe("a.1.b: expected 2, got 2.1");
    expect(firstDifference({ a: 1 }, { a: 1, extra: 5 }, 0)).toBeNull();
    expect(firstDifference(null, 0, 0)).toContain("expected null");
  });
});

describe("programs", () => {
  const file = (name: string, text: string) => {
    const path = join(mkdtempSync(join(tmpdir(), "program-")), name);
    writeFileSync(path, text);
    return path;
  };
  it("prints moves a line each, and what is wrong with line and column in words", async () => {
    const good = await call(["gcode", file("plate.nc", "T1 M6\nG0 X5 Y2\nM30")]);
    expect(good.code).toBe(0);
    expect(JSON.parse(good.out[1] ?? "")).toMatchObject({ line: 2, kind: "rapid", to: [5, 2, null], tool: 1 });
    const bad = await call(["gcode", file("plate.nc", "G0 X5\nG0 X1.2.3")]);
    expect(bad).toMatchObject({ code: 1, out: [] });
    expect(bad.err).toEqual(["plate.nc:2:5: “1.2.3” is no number: digits, at most one point, a sign before them."]);
    const late = await call(["gcode", file("knob.nc", "T0101\nG0 X5 Z2\nG1 Z0"), "--lathe"]);
    expect(late.code).toBe(1);
    expect(late.err[0]).toMatch(/^knob.nc:3: It is to be fed here/);
  });
  it("proves a case from a file", async () => {
    const empty = {
      machine: "lathe",
      program: "M30",
      registers: { work: { G54: [0, 0] }, tools: {} },
      truth: { tools: {} },
    };
    const world = {
      stock: { diameter: 30, length: 50 },
      chuck: { z: -40, diameter: 80 },
      travel: { min: [-400, -600], max: [2, 2] },
    };
    const { code, out } = await call(["prove", file("case.json", JSON.stringify({ ...empty, ...world }))]);
    expect({ code, out }).toEqual({ code: 0, out: ['{"first":null}'] });
    expect((await call(["prove", file("case.json", "{")])).code).toBe(2);
  });
});

describe("floor lanes", () => {
  const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
  const lane = (...entries: unknown[]) => {
    const path = join(mkdtempSync(join(tmpdir(), "floor-")), "floor.json");
    const exercise = floorFromTemplate({
      title: "Dovetail clamp",
      machine: "lathe",
      school: "part-face",
      asksNose: false,
      unit: "mm",
      datum: "front left",
      tools: 1,
      readingsNeeded: 1,
      tipDiameterMm: 10,
      edgeXMm: 0,
      edgeYMm: 0,
      paperMm: 0.1,
      blockMm: 0.1,
      skinMm: 0,
      toleranceXyMm: 0.03,
      toleranceZMm: 0.03,
    });
    writeFileSync(
      path,
      JSON.stringify({ exercise, entries: entries.map((entry, n) => ({ id: id(n), atMs: n, entry })) }),
    );
    return path;
  };
  it("expect tells what follows from the readings, grade rules", async () => {
    const path = lane(
      { type: "reading", register: "T1.z", mm: -258.079 },
      { type: "register", register: "T1.z", mm: -258.079 },
      { type: "check", register: "T1.z", method: "probe", mm: -258.18, uMm: 0.002 },
    );
    expect((await call(["expect", path])).out).toEqual([
      "tool 1 X         no reading",
      "tool 1 Z         −258.179 ± 0.012",
    ]);
    const { code, out } = await call(["grade", path]);
    expect(code).toBe(0);
    expect(out.join("\n")).toContain("tool 1 Z is 0.101 high. Most likely: gap left out");
  });
  it("a file that is no floor lane is named", async () => {
    const path = join(mkdtempSync(join(tmpdir(), "floor-")), "floor.json");
    writeFileSync(path, '{"exercise": {}}');
    expect(await call(["grade", path])).toMatchObject({
      code: 2,
      err: [expect.stringContaining("not a floor lane") as unknown],
    });
  });
});

describe("replay", () => {
  const { exercise, marking } = findDemoExercise("focuser-plate-lower-left");
  it("folds an exported lane and prints state and ruling", async () => {
    const lane = new LaneDriver(exercise, "cli");
    workLane(lane, { radius: { x: "forgotten" } });
    const path = join(mkdtempSync(join(tmpdir(), "lane-")), "lane.json");
    writeFileSync(path, JSON.stringify({ format: "probe-lane/lane", version: 1, marking, events: lane.log }));
    const { code, out } = await call(["replay", path]);
    expect(code).toBe(0);
    expect(out.join("\n")).toMatch(/total {4}82\.5 of 100/);
    expect(out.join("\n")).toContain("one tip radius, left out");
  });
  it("says what is wrong with a file that is none, or is not there", async () => {
    const path = join(mkdtempSync(join(tmpdir(), "lane-")), "lane.json");
    writeFileSync(path, "{}");
    expect((await call(["replay", path])).code).toBe(2);
    expect((await call(["replay", `${path}.gone`])).err[0]).toContain("does not exist");
    expect((await call([])).code).toBe(2);
  });
});
