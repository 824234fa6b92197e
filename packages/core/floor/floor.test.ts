import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  combineChecks,
  entrySchema,
  floorFairness,
  floorFromTemplate,
  floorGatesOf,
  readForFloor,
  readingsWanted,
  foldFloor,
  ruleFloor,
  templateSchema,
  termsOffered,
  type FloorEntry,
  templateFigures,
  type FloorTemplate,
  type StoredFloorEntry,
} from ".";
import { readRegisters } from "../exchange";
import { floorValueWords, floorWorkingWords } from "../words";

const template: FloorTemplate = {
  title: "Dovetail clamp",
  machine: "mill",
  unit: "mm",
  datum: "front left",
  school: "part-touch",
  asksNose: false,
  tools: 2,
  readingsNeeded: 1,
  tipDiameterMm: 10,
  edgeXMm: 0,
  edgeYMm: 0,
  paperMm: 0.08,
  blockMm: 0.08,
  skinMm: 0.7,
  toleranceXyMm: 0.03,
  toleranceZMm: 0.03,
};
const exercise = floorFromTemplate(template);
const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const log = (...entries: FloorEntry[]): StoredFloorEntry[] =>
  entries.map((entry, n) => ({ id: id(n), atMs: n, by: "x", entry: entrySchema.parse(entry) }));
const check = (register: string, mm: number, uMm = 0.003): FloorEntry => ({
  type: "check",
  register,
  method: "second touch",
  mm,
  uMm,
});
const set = (register: string, mm: number): FloorEntry => ({ type: "register", register, mm });

describe("checks", () => {
  it("by hand: 10.000 ± 0.003 and 10.006 ± 0.006 combine to 10.0012, U 0.0054", () => {
    const both = combineChecks([
      { id: "a", mm: 10, uMm: 0.003 },
      { id: "b", mm: 10.006, uMm: 0.006 },
    ]);
    expect(both?.mm).toBeCloseTo(10.0012, 9);
    expect(both?.expandedMm).toBeCloseTo(2 * Math.sqrt(1 / (1 / 0.003 ** 2 + 1 / 0.006 ** 2)), 9);
    expect(both?.outliers).toEqual([]);
    expect(combineChecks([])).toBeNull();
  });
  it("points an outlier out and widens U when readings scatter more than they say", () => {
    const three = combineChecks([
      { id: "a", mm: 10, uMm: 0.003 },
      { id: "b", mm: 10.001, uMm: 0.003 },
      { id: "odd", mm: 10.2, uMm: 0.003 },
    ]);
    expect(three?.outliers).toEqual(["odd"]);
    expect(three?.expandedMm).toBeGreaterThan(0.05);
  });
  it("lies between the readings, and a shift of all shifts it", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            mm: fc.double({ min: -300, max: 300, noNaN: true }),
            uMm: fc.double({ min: 0.001, max: 0.05, noNaN: true }),
          }),
          { minLength: 1, maxLength: 5 },
        ),
        (rows) => {
          const readings = rows.map((row, n) => ({ ...row, id: String(n) }));
          const mm = combineChecks(readings)?.mm ?? NaN;
          const shifted = combineChecks(readings.map((row) => ({ ...row, mm: row.mm + 5 })))?.mm ?? NaN;
          return (
            mm >= Math.min(...rows.map((row) => row.mm)) - 1e-6 &&
            mm <= Math.max(...rows.map((row) => row.mm)) + 1e-6 &&
            Math.abs(shifted - mm - 5) < 1e-6
          );
        },
      ),
    );
  });
});

describe("a floor lane", () => {
  it("gates open by what was entered, in the shop's order, and sign-off is the instructor's", () => {
    const names = (entries: StoredFloorEntry[]) =>
      floorGatesOf(foldFloor(exercise, entries))
        .filter(({ isPassed }) => isPassed)
        .map(({ name }) => name);
    const readings = exercise.registers.map(({ id: register }): FloorEntry => ({
      type: "reading",
      register,
      mm: -100,
    }));
    const registers = exercise.registers.map(({ id: register }) => set(register, 5));
    expect(names([])).toEqual([]);
    expect(names(log({ type: "cautionsRead" }, ...readings, ...registers))).toEqual(["ready", "readings", "registers"]);
    expect(names(log(...readings.slice(1)))).toEqual([]);
    expect(
      names(
        log(...exercise.registers.map(({ id: register }) => check(register, 5)), {
          type: "signedOff",
          saw: exercise.registers.map((_, n) => id(n)),
        }),
      ),
    ).toEqual(["check", "signOff"]);
  });
  it("any order of arrival, and anything sent twice, folds to the same lane", () => {
    const entries = log(
      { type: "reading", register: "H1", mm: -250 },
      { type: "term", register: "H1", term: "paper", mm: -0.08 },
      set("H1", -250.08),
      set("H1", -250.1),
      { type: "struck", entry: id(3) },
    );
    const folded = foldFloor(exercise, entries);
    expect(folded.registers["H1"]?.mm).toBe(-250.08);
    fc.assert(
      fc.property(fc.shuffledSubarray(entries, { minLength: entries.length }), (shuffled) => {
        expect(foldFloor(exercise, shuffled)).toEqual(folded);
      }),
    );
  });
  it("rules by inference: radius and paper left out are named, one habit is one cause, the working counts", () => {
    const state = foldFloor(
      exercise,
      log(
        set("G54.x", -334.666),
        check("G54.x", -329.667),
        set("G54.y", -191.118),
        check("G54.y", -191.12),
        { type: "reading", register: "H1", mm: -250 },
        { type: "term", register: "H1", term: "facing", mm: -0.7 },
        { type: "sum", register: "H1", mm: -250.7 },
        set("H1", -250.7),
        check("H1", -250.782),
        { type: "reading", register: "H2", mm: -231 },
        { type: "sum", register: "H2", mm: -232 },
        set("H2", -231.7),
        check("H2", -231.781),
      ),
    );
    const ruling = ruleFloor(state);
    expect(ruling.values.map(({ verdict }) => verdict)).toEqual(["wrong", "right", "wrong", "wrong"]);
    expect(ruling.values.map(({ explained }) => explained?.ranked[0]?.classes.map((members) => members[0]))).toEqual([
      ["radiusForgotten"],
      undefined,
      ["paperForgotten"],
      ["paperForgotten"],
    ]);
    expect(ruling.habits).toEqual([{ id: "paperForgotten", registers: ["H1 length", "H2 length"] }]);
    expect(ruling.values.map(({ working }) => working)).toEqual([
      "not written",
      "not written",
      "leaves a term out",
      "does not add up",
    ]);
    // what lies between is the paper: the sum of the others adds up, and earns nothing
    expect(ruling.values[2]).toMatchObject({ leftOut: ["paper"], workingMarks: 0 });
    expect(floorWorkingWords(ruling.values[2]!)).toBe(
      "Working: it adds up, and leaves out what lies between: paper or feeler.",
    );
    expect(floorWorkingWords(ruling.values[1]!)).toBe("Working: not written.");
    expect(ruling.values.map(({ isInOrder }) => isInOrder)).toEqual([false, false, false, false]);
    const ordered = ruleFloor(
      foldFloor(
        exercise,
        log(
          { type: "cautionsRead" },
          { type: "reading", register: "H1", mm: -250 },
          set("H1", -250.08),
          set("H2", -231),
          { type: "reading", register: "H2", mm: -231 },
        ),
      ),
    );
    expect(ordered.values.map(({ isInOrder }) => isInOrder)).toEqual([false, false, true, false]);
    expect(floorValueWords(ruling.values[0]!, String).headline).toContain("radius left out");
  });
  it("a result within U of the limit is too close to call, and not failed", () => {
    const value = ruleFloor(foldFloor(exercise, log(set("G54.x", -329.636), check("G54.x", -329.667)))).values[0];
    expect(value).toMatchObject({ verdict: "tooClose", marks: 55 / 4 });
    expect(floorValueWords(value!, (mm) => mm.toFixed(3)).headline).toBe("G54 X: too close to call.");
  });
  it("safety as noted costs, and an override stands beside the marks", () => {
    const state = foldFloor(
      exercise,
      log(
        { type: "safetyNoted", text: "glove near the spindle", cost: 10 },
        { type: "overridden", marks: 42, reason: "helped by a neighbor" },
      ),
    );
    expect(ruleFloor(state)).toMatchObject({ total: 42, outOf: 100 });
    expect(ruleFloor(state).strands.find(({ name }) => name === "safety")?.marks).toBe(5);
  });
  it("gives a length just what lies between by its school: a setter's wants no paper", () => {
    const figuresOf = (school: FloorTemplate["school"]) =>
      floorFromTemplate({ ...template, machine: "mill", school, paperMm: 0.08, skinMm: 0.7 }).registers.find(
        ({ id }) => id === "H1",
      )?.figures;
    expect(figuresOf("part-touch")).toEqual({ paper: 0.08, facing: 0.7 });
    expect(figuresOf("plane-lift")).toEqual({ paper: 0.08 });
    expect(figuresOf("gauge-line")).toEqual({});
  });
  it("a template makes a fair exercise, and says when it is not", () => {
    expect(floorFairness(exercise)).toEqual([]);
    expect(floorFairness(floorFromTemplate({ ...template, toleranceXyMm: 0.01 })).map(({ label }) => label)).toEqual([
      "G54 X",
      "G54 Y",
    ]);
    expect(
      floorFromTemplate({ ...template, machine: "lathe", school: "part-face", tools: 3 }).registers.map(
        (one) => one.id,
      ),
    ).toEqual(["T1.x", "T1.z", "T2.x", "T2.z", "T3.x", "T3.z"]);
    expect(
      floorFromTemplate({
        ...template,
        machine: "lathe",
        school: "setter-arm",
        asksNose: true,
        tools: 1,
      }).registers.map((one) => one.id),
    ).toEqual(["G54.z", "T1.x", "T1.z", "T1.r", "T1.tip"]);
    expect(
      floorFromTemplate({ ...template, machine: "lathe", school: "readout", tools: 1 }).registers.map(
        ({ id: one, method }) => [one, method],
      ),
    ).toEqual([
      ["T2.x", "lathe-readout"],
      ["T2.z", "lathe-readout"],
    ]);
    expect(floorFromTemplate({ ...template, school: "plane-lift" }).registers.map((one) => one.id)).toEqual([
      "G54.x",
      "G54.y",
      "G54.z",
      "H1",
      "H2",
    ]);
    expect(templateSchema.safeParse({ ...template, school: "setter-arm" }).success).toBe(false);
  });
});

describe("a template's schools", () => {
  const of = (more: Partial<FloorTemplate>) => floorFromTemplate({ ...template, paperMm: 0.08, blockMm: 25, ...more });
  const told = (more: Partial<FloorTemplate>) =>
    of(more).registers.map(({ id: one, label, figures }) => [one, label, figures]);
  const wanted = { school: "part-touch", tools: 2 } as const;

  it("of length on a mill ask for the registers that each fills, with what lies between and no more", () => {
    const lengths = (school: FloorTemplate["school"]) =>
      told({ ...wanted, school }).filter(([one]) => one !== "G54.x" && one !== "G54.y");
    const touched = { paper: 0.08, facing: 0.7 };
    expect(lengths("part-touch")).toEqual([
      ["H1", "H1 length", touched],
      ["H2", "H2 length", touched],
    ]);
    expect(lengths("plane-lift")).toEqual([
      ["G54.z", "G54 Z", touched],
      ["H1", "H1 length", { paper: 0.08 }],
      ["H2", "H2 length", { paper: 0.08 }],
    ]);
    expect(lengths("gauge-line")).toEqual([
      ["G54.z", "G54 Z", touched],
      ["H1", "H1 length", {}],
      ["H2", "H2 length", {}],
    ]);
    // the master is tool 1, and what lies under both of them cancels
    expect(lengths("master")).toEqual([
      ["G54.z", "G54 Z", touched],
      ["H2", "H2 length", {}],
      ["H3", "H3 length", {}],
    ]);
    expect(lengths("offset-per-tool")).toEqual([
      ["G54.z", "G54 Z, tool 1", touched],
      ["G55.z", "G55 Z, tool 2", touched],
    ]);
    expect(lengths("block-in-wear")).toEqual([
      ["H1", "H1 length with its wear", { block: 25, facing: 0.7 }],
      ["H2", "H2 length with its wear", { block: 25, facing: 0.7 }],
    ]);
  });
  it("of a gang of tools ask for work Z and both rows of each; a diameter's feeler and a face's pin are two figures", () => {
    expect(told({ machine: "lathe", school: "gang-bar", tools: 1, toolNames: ["parting"] })).toEqual([
      ["G54.z", "G54 Z", { block: 25, facing: 0.7 }],
      ["T1.x", "tool 1 X (parting)", { paper: 0.08, outside: 1 }],
      ["T1.z", "tool 1 Z (parting)", { block: 25, facing: 0.7 }],
    ]);
    expect(templateFigures({ machine: "lathe", school: "readout" })).toEqual(["paper"]);
    expect(templateFigures({ machine: "mill", school: "block-in-wear" })).toEqual(["block", "skin"]);
    expect(templateFigures({ machine: "mill", school: "gauge-line" })).toEqual(["paper", "skin"]);
  });
  it("of diameter ask for the tools that have a nominal one, by the name on the sheet", () => {
    const asked = { toolNames: ["10 mm end mill", "drill"], nominalDiametersMm: [10, null] };
    // the last, and the only one of its kind
    expect(told({ ...asked, diameters: "measured" }).slice(-2)).toEqual([
      ["H2", "H2 length (drill)", { paper: 0.08, facing: 0.7 }],
      ["D1", "D1 diameter (10 mm end mill)", { nominalDiameter: 10 }],
    ]);
    const less = of({ ...asked, diameters: "difference" }).registers.find(({ id: one }) => one === "DW1");
    expect(less).toMatchObject({ label: "D1 wear: measured less nominal (10 mm end mill)", holds: "difference" });
    expect(less && termsOffered(less)).toEqual([{ term: "nominal", givenMm: 10 }]);
    const whole = of({ ...asked, diameters: "measured" }).registers.find(({ id: one }) => one === "D1");
    expect(whole && termsOffered(whole)).toEqual([]);
    expect(of(asked).registers.some(({ id: one }) => one === "D1")).toBe(false);
    const problems = (more: object) => templateSchema.safeParse({ ...template, ...more }).success;
    expect(problems({ diameters: "measured" })).toBe(false);
    expect(problems({ diameters: "measured", nominalDiametersMm: [null, 8] })).toBe(true);
    expect(problems({ school: "offset-per-tool", tools: 7 })).toBe(false);
    expect(problems({ school: "offset-per-tool", tools: 6 })).toBe(true);
  });
  it.each([
    // measured 9.94 of a nominal 10
    ["measured", 10, 9.94, "nominalForMeasured"],
    ["measured", 4.97, 9.94, "radiusInDiameter"],
    ["difference", 0.06, -0.06, "wearSignTurned"],
    ["difference", 9.94, -0.06, "wholeInWear"],
  ] as const)("a diameter held as %s: %f where %f belongs is “%s”", (diameters, held, right, cause) => {
    const lane = of({ diameters, nominalDiametersMm: [10] });
    const row = diameters === "measured" ? "D1" : "DW1";
    const value = ruleFloor(
      foldFloor(
        lane,
        log(
          { type: "reading", register: row, mm: 9.94 },
          ...(diameters === "difference" ? [{ type: "term", register: row, term: "nominal", mm: -10 } as const] : []),
          { type: "sum", register: row, mm: right },
          set(row, held),
          check(row, right),
        ),
      ),
    ).values.find(({ register }) => register.id === row);
    expect(value).toMatchObject({ verdict: "wrong", working: "adds up" });
    expect(value?.explained?.ranked[0]?.classes[0]?.[0]).toBe(cause);
  });
});

describe("importing registers", () => {
  it("that are asked for together with their wear come to one value; one without the other is told and not taken", () => {
    const block = floorFromTemplate({ ...template, school: "block-in-wear", blockMm: 25 });
    const read = (text: string) =>
      readForFloor(text, block).map(({ register, mm, problem }) => [register, mm, problem]);
    // on a block of 25, its wear the block and a skin of 0.7 with their signs turned
    expect(read("G10 L10 P1 R-250.78\nG10 L11 P1 R-25.7\nG10 L2 P1 X-329.672")).toEqual([
      ["H1", -276.48, null],
      ["G54.x", -329.672, null],
    ]);
    expect(read("HW1,-25.7\nH1,-250.78")).toEqual([["H1", -276.48, null]]);
    expect(read("G10 L10 P1 R-250.78")).toEqual([["H1", null, "The value is H1 and HW1 together: give HW1 too."]]);
    expect(read("G10 L11 P2 R-25")).toEqual([["HW2", null, "The value is H2 and HW2 together: give H2 too."]]);
    // elsewhere a wear is no register that is asked for
    const touched = floorFromTemplate(template);
    expect(readForFloor("G10 L11 P1 R0.02", touched)[0]?.problem).not.toBeNull();
    expect(readForFloor("G10 L10 P1 R-250.78", touched)).toMatchObject([
      { register: "H1", mm: -250.78, problem: null },
    ]);
    const wears = floorFromTemplate({ ...template, diameters: "difference", nominalDiametersMm: [10] });
    expect(readForFloor("G10 L13 P1 R-0.06", wears)).toMatchObject([{ register: "DW1", mm: -0.06, problem: null }]);
    expect(readForFloor("G10 L12 P1 R9.94", wears)[0]?.problem).not.toBeNull();
  });
  const mill = ["G54.x", "G54.y", "H1", "H2"];
  it("a G10 program, in inches by its own G20", () => {
    expect(
      readRegisters("%\nG21\nG10 L2 P1 X-329.672 Y-191.12\nG10 L10 P1 R-250.78 (drill)\nM30", mill, "mill", "mm"),
    ).toEqual([
      { line: 3, register: "G54.x", mm: -329.672, problem: null },
      { line: 3, register: "G54.y", mm: -191.12, problem: null },
      { line: 4, register: "H1", mm: -250.78, problem: null },
    ]);
    expect(readRegisters("G20\nG10 L10 P2 R-10", mill, "mill", "mm")[1 - 1]?.mm).toBe(-254);
    expect(
      readRegisters("G10 L10 P10003 X-185.2 Z-310.05 R0.8 Q3", ["T3.x", "T3.z", "T3.r", "T3.tip"], "lathe", "mm").map(
        ({ register, mm }) => [register, mm],
      ),
    ).toEqual([
      ["T3.x", -185.2],
      ["T3.z", -310.05],
      ["T3.r", 0.8],
      ["T3.tip", 3],
    ]);
  });
  it("a table with a heading, commas in numbers, and any way of writing a register", () => {
    expect(
      readRegisters("register;value\nG54 X;−329,672\nh1;-250.78", mill, "mill", "mm").map(({ register, mm }) => [
        register,
        mm,
      ]),
    ).toEqual([
      ["G54.x", -329.672],
      ["H1", -250.78],
    ]);
  });
  it("every bad line is named", () => {
    expect(
      readRegisters(
        "G10 L2 P9 X1\nG10 P1 R5\nG0 X5\nG10 L10 P1 R1 ??\nG10 L10 P7 R2\nG10 L10 P1 R1\nG10 L10 P1 R2",
        mill,
        "mill",
        "mm",
      ).map(({ line, problem }) => [line, problem?.slice(0, 24) ?? null]),
    ).toEqual([
      [1, "P9 is not a work offset:"],
      [2, "G10 needs an L and a P w"],
      [3, "This line sets no regist"],
      [4, "“??” cannot be read."],
      [5, "H7 is not asked for in t"],
      [6, null],
      [7, "H1 stands twice."],
    ]);
    expect(readRegisters("H1,abc\nnothing", mill, "mill", "mm").map(({ problem }) => problem)).toEqual([
      "“abc” is not a length.",
      "A line is a register, a comma, and its value.",
    ]);
  });
  it("survives any text", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (text) => {
        for (const row of [
          ...readRegisters(text, mill, "mill", "mm"),
          ...readRegisters(`G10 ${text}`, mill, "lathe", "inch"),
        ])
          expect(row.problem !== null || Number.isFinite(row.mm)).toBe(true);
      }),
    );
  });
});

describe("terms that belong to a register", () => {
  const offered = (more: Partial<FloorTemplate>, id: string) => {
    const register = floorFromTemplate({ ...template, ...more }).registers.find((one) => one.id === id);
    return register ? termsOffered(register) : null;
  };
  it("are those of its way of setting, with the sheet's figure and no sign", () => {
    expect(offered({ edgeXMm: -40 }, "G54.x")).toEqual([
      { term: "tipRadius", givenMm: 5 },
      { term: "edgeWork", givenMm: 40 },
    ]);
    expect(offered({}, "H1")).toEqual([
      { term: "paper", givenMm: 0.08 },
      { term: "facing", givenMm: 0.7 },
    ]);
  });
  it("are none where a setter reads the length itself", () => {
    expect(offered({ school: "gauge-line" }, "H1")).toEqual([]);
  });
  it("of a turned diameter are the diameter, which nobody gives, and the feeler", () => {
    expect(offered({ machine: "lathe", school: "part-face", paperMm: 0.1 }, "T1.x")).toEqual([
      { term: "diameter", givenMm: null },
      { term: "paper", givenMm: 0.1 },
    ]);
  });
  it("a gap may be written as paper or as block, and is not left out then", () => {
    const lathe = floorFromTemplate({ ...template, machine: "lathe", school: "part-face", skinMm: 0 });
    const lane = (term: "paper" | "block" | "other") =>
      ruleFloor(
        foldFloor(
          lathe,
          log(
            { type: "reading", register: "T1.z", mm: -258 },
            { type: "term", register: "T1.z", term, mm: 0.08 },
            { type: "sum", register: "T1.z", mm: -257.92 },
            set("T1.z", -257.92),
            check("T1.z", -258.08),
          ),
        ),
      ).values.find(({ register }) => register.id === "T1.z");
    expect(lane("paper")).toMatchObject({ verdict: "wrong", working: "adds up", leftOut: [] });
    expect(lane("block")).toMatchObject({ working: "adds up" });
    expect(lane("other")).toMatchObject({ working: "adds up" });
    const bare = ruleFloor(
      foldFloor(
        lathe,
        log(
          { type: "reading", register: "T1.z", mm: -258 },
          { type: "sum", register: "T1.z", mm: -258 },
          set("T1.z", -258),
          check("T1.z", -258.08),
        ),
      ),
    ).values.find(({ register }) => register.id === "T1.z");
    expect(bare).toMatchObject({ working: "leaves a term out", leftOut: ["block"] });
  });
});

describe("a hand at the machine", () => {
  it("is up from when it was raised until it is taken down, answered, or the lane is handed in", () => {
    const upAt = (...entries: FloorEntry[]) => foldFloor(exercise, log(...entries)).handUpAtMs;
    expect(upAt()).toBeNull();
    expect(upAt({ type: "handRaised" })).toBe(0);
    expect(upAt({ type: "handRaised" }, { type: "handLowered" })).toBeNull();
    expect(upAt({ type: "handRaised" }, { type: "handAnswered" }, { type: "handRaised" })).toBe(2);
    expect(upAt({ type: "handRaised" }, { type: "handedIn" })).toBeNull();
  });
  it("takes no signature back", () => {
    const entries = log(set("H1", -250), { type: "signedOff", saw: [id(0)] }, { type: "handRaised" });
    expect(foldFloor(exercise, entries).signature.state).toBe("given");
  });
});

describe("zero in a middle", () => {
  const bore = floorFromTemplate({ ...template, datum: "bore" });
  const x = (state: ReturnType<typeof foldFloor>) =>
    ruleFloor(state).values.find(({ register }) => register.id === "G54.x");
  const touched = (...entries: FloorEntry[]) => foldFloor(bore, log({ type: "cautionsRead" }, ...entries));
  const reading = (mm: number): FloorEntry => ({ type: "reading", register: "G54.x", mm });

  it("is touched from both sides, and swept once; no edge, no term lies between", () => {
    const [first] = bore.registers;
    expect(bore.datum).toBe("middle of the bore, both walls touched");
    expect(first).toMatchObject({ id: "G54.x", method: "mill-center", readings: 2, figures: { tipRadius: 5 } });
    expect(first && termsOffered(first)).toEqual([]);
    const [swept] = floorFromTemplate({ ...template, datum: "swept boss" }).registers;
    expect(swept && [readingsWanted(bore, swept), swept.figures]).toEqual([1, {}]);
    const thrice = floorFromTemplate({ ...template, datum: "middle", readingsNeeded: 3 }).registers[0];
    expect(thrice?.readings).toBe(6);
  });
  it("adds up as what lies between the touches, and as no single one of them", () => {
    const ruled = (sum: number) =>
      x(
        touched(
          reading(-340),
          reading(-320),
          { type: "sum", register: "G54.x", mm: sum },
          set("G54.x", sum),
          check("G54.x", -330),
        ),
      );
    expect(ruled(-330)).toMatchObject({ verdict: "right", working: "adds up", isInOrder: true });
    expect(ruled(-340)).toMatchObject({ verdict: "wrong", working: "does not add up" });
  });
  it("touched anew on both sides, the last two count; one touch is out of order", () => {
    const anew = touched(
      ...[-341, -321, -340, -320].map(reading),
      { type: "sum", register: "G54.x", mm: -330 },
      set("G54.x", -330),
      check("G54.x", -330),
    );
    expect(x(anew)).toMatchObject({ working: "adds up" });
    expect(x(touched(reading(-340), set("G54.x", -340), check("G54.x", -330)))).toMatchObject({ isInOrder: false });
  });
  it("off by half a radius, the radius of one side is named", () => {
    const ruled = x(touched(reading(-340), reading(-320), set("G54.x", -327.5), check("G54.x", -330)));
    expect(ruled?.explained?.ranked[0]?.classes.flat(2)).toContain("radiusOnOneSide");
  });
});
