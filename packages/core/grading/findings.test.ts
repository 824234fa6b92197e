import { describe, expect, it } from "vitest";
import type { LaneTrace, LoggedEvent } from "../diagnosis";
import { mustHavesSchema } from "../exercises";
import { checkedBefore, checkNote, neverChecked } from "./checking";
import { safetyFindings, stepFindings, stepsAsked } from "./findings";
import { capped, isUnsigned, mustHaveNames, mustHavesAsked, notPassed, type Judged } from "./mustHaves";
import { severityOf } from "./severity";
import { homedFirst, isFineEnough, neverMoved, speedStated, type StepRow } from "./steps";
import { inTenths, tenth } from "./tenths";
import { isValueRight, valueMarks, withSignaturesOf } from "./values";

type Happening = { readonly type: string } & Record<string, unknown>;
/** A trace with nothing but what happened, numbered from one. */
const trace = (...events: Happening[]): LaneTrace =>
  ({
    log: events.map((event, at) => ({ seq: at + 1, atMs: 1000 * (at + 1), event })) as unknown as LoggedEvent[],
    final: { setup: {} },
  }) as unknown as LaneTrace;
const weights = { values: 40, working: 10, method: 30, safety: 15, proving: 5 };
const tolerancesMm = { x: 0.02, y: 0.02, z: 0.03, d: 0.02, rotation: 0.03 };

describe("steps of a strand", () => {
  const row = (step: StepRow["step"], more: Partial<StepRow> = {}): StepRow => ({
    step,
    strand: "method",
    asked: () => true,
    done: () => 7,
    ...more,
  });
  const rows = [
    row("homedFirst"),
    row("seatedFirst", { shares: 4 }),
    row("twoKicksX", { done: () => null, isAbsent: () => true }),
    row("checkedBefore", { strand: "proving", done: () => null }),
    row("coneProven", { asked: () => false }),
  ];
  it("share its weight by their shares; those of proving have a strand of their own where it weighs something", () => {
    const lane = trace();
    // 30 over 1 + 4 + 1 shares is 5 a share
    expect(stepFindings(lane, lane, rows, "method", { weights, tolerancesMm })).toEqual([
      { code: "stepDone", step: "homedFirst", strand: "method", marks: 5, outOf: 5, seq: 7 },
      { code: "stepDone", step: "seatedFirst", strand: "method", marks: 20, outOf: 20, seq: 7 },
      { code: "stepMissed", step: "twoKicksX", strand: "method", marks: 0, outOf: 5, isAbsent: true, seq: null },
    ]);
    expect(stepFindings(lane, lane, rows, "proving", { weights, tolerancesMm })).toEqual([
      { code: "stepMissed", step: "checkedBefore", strand: "proving", marks: 0, outOf: 5, isAbsent: false, seq: null },
    ]);
    expect(stepsAsked(rows, lane)).toEqual(["homedFirst", "seatedFirst", "twoKicksX", "checkedBefore"]);
  });
  it("of proving count as method where proving weighs nothing, or where the setup was handed over", () => {
    const lane = trace();
    const none = { ...weights, proving: 0 };
    const all = stepFindings(lane, lane, rows, "method", { weights: none, tolerancesMm });
    // 30 over 1 + 4 + 1 + 1 shares
    expect(all.map(({ step, outOf }) => [step, outOf])).toEqual([
      ["homedFirst", 30 / 7],
      ["seatedFirst", 120 / 7],
      ["twoKicksX", 30 / 7],
      ["checkedBefore", 30 / 7],
    ]);
    const handed = { ...lane, final: { setup: { handover: {} } } } as unknown as LaneTrace;
    expect(stepFindings(handed, handed, rows, "method", { weights, tolerancesMm })).toHaveLength(4);
    expect(stepFindings(handed, handed, rows, "proving", { weights, tolerancesMm })).toEqual([]);
  });
  it("about a run are read in the whole log, others as the first part was cut", () => {
    const [whole, cut] = [trace({ type: "homed" }, { type: "homed" }), trace({ type: "homed" })];
    const counts = (more: Partial<StepRow>) =>
      stepFindings(whole, cut, [row("homedFirst", { done: ({ log }) => log.length, ...more })], "method", {
        weights,
        tolerancesMm,
      })[0]?.seq;
    expect([counts({}), counts({ isOfRun: true })]).toEqual([1, 2]);
  });
  it("of the reference, the speed and the last click are read off the log", () => {
    const jogged = { type: "jogged" };
    expect(homedFirst(trace({ type: "homed" }, jogged))).toBe(1);
    expect(homedFirst(trace(jogged, { type: "homed" }))).toBeNull();
    // a move of the reference return's own is no motion before it
    expect(homedFirst(trace({ type: "moved" }, { type: "homed" }))).toBe(2);
    expect(homedFirst(trace({ type: "moved" }, jogged, { type: "homed" }))).toBeNull();
    expect([neverMoved(trace({ type: "homed" })), neverMoved(trace(jogged))]).toEqual([true, false]);
    const started = (isStated: boolean) => ({ type: "spindleStarted", isStated });
    expect(speedStated(trace({ type: "homed" }, started(true), started(true)))).toBe(2);
    expect(speedStated(trace(started(true), started(false)))).toBeNull();
    expect(speedStated(trace({ type: "homed" }))).toBeNull();
    // a quarter of the tolerance, and a thousandth at any tolerance
    expect([isFineEnough(0.01, 0.04), isFineEnough(0.011, 0.04), isFineEnough(0.001, 0.002)]).toEqual([
      true,
      false,
      true,
    ]);
  });
});

describe("safety", () => {
  const marking = { weights, severity: { grave: "failsLane", tool: "costs" } } as const;
  it("is whole where nothing happened", () => {
    expect(safetyFindings(trace({ type: "homed" }), marking)).toEqual([{ code: "noIncident", marks: 15 }]);
  });
  it("loses what an incident costs: torn paper a tenth of 15, a hand at a turning tool all of it, and the lane", () => {
    const torn = { type: "incidentHappened", code: "paperTorn" };
    const hand = { type: "incidentHappened", code: "paperUnderTurningTool", rpm: 800 };
    expect(safetyFindings(trace({ type: "homed" }, torn, hand), marking)).toEqual([
      {
        code: "incident",
        incident: "paperTorn",
        cost: 1.5,
        failsOutright: false,
        failsLane: false,
        seq: 2,
        atMs: 2000,
        rpm: undefined,
      },
      {
        code: "incident",
        incident: "paperUnderTurningTool",
        cost: 15,
        failsOutright: true,
        failsLane: true,
        seq: 3,
        atMs: 3000,
        rpm: 800,
      },
    ]);
    const milder = { weights, severity: { grave: "failsSafety", tool: "failsSafety" } } as const;
    expect(
      safetyFindings(trace(torn, hand), milder).map((one) =>
        one.code === "incident" ? [one.failsOutright, one.failsLane] : [],
      ),
    ).toEqual([
      [true, false],
      [true, false],
    ]);
  });
  it.each([
    ["handAtChuck", "failsLane"],
    ["jawStruck", "failsLane"],
    ["noseStruck", "failsLane"],
    ["changerStruck", "failsLane"],
    ["ranIntoFixture", "failsLane"],
    ["paperUnderTurningTool", "failsLane"],
    ["insertChipped", "costs"],
    ["probeBroken", "costs"],
    ["paperTorn", "costs"],
  ] as const)("%s is a matter of %s", (code, severity) => {
    expect(severityOf(code, marking)).toBe(severity);
  });
});

describe("what stands over points", () => {
  const judged = (more: Partial<Judged>): Judged => ({
    findings: [],
    values: [],
    deeper: [],
    isUnsigned: false,
    ...more,
  });
  const missed = (of: Partial<Judged>, asks: object) =>
    notPassed(judged(of), { mustHaves: mustHavesSchema.parse(asks) })?.missed ?? [];
  const step = (name: string, code = "stepMissed") => ({ code, step: name }) as never;
  it("is missed by what happened, and by nothing that was not asked for", () => {
    expect(missed({ findings: [step("checkedBefore")] }, { checked: true })).toEqual(["checked"]);
    expect(missed({ findings: [step("checkedBefore", "stepDone")] }, { checked: true })).toEqual([]);
    expect(missed({ findings: [step("checkedBefore")] }, { runsClear: true })).toEqual([]);
    expect(missed({ findings: [step("runsClear")] }, { runsClear: true })).toEqual(["runsClear"]);
    expect(missed({ findings: [{ code: "programStrikes" } as never] }, { runsClear: true })).toEqual(["runsClear"]);
    const incident = (of: string) => ({ code: "incident", incident: of }) as never;
    expect(missed({ findings: [incident("handAtChuck")] }, { handsClear: true })).toEqual(["handsClear"]);
    expect(missed({ findings: [incident("paperUnderTurningTool")] }, { handsClear: true })).toEqual(["handsClear"]);
    expect(missed({ findings: [incident("jawStruck")] }, { handsClear: true })).toEqual([]);
    expect(missed({ isUnsigned: true }, { signed: true })).toEqual(["signed"]);
    expect(missed({ isUnsigned: true }, { checked: true })).toEqual([]);
    expect(notPassed(judged({ isUnsigned: true }), {})).toBeNull();
  });
  it("of a tool that goes deeper is by more than the figure, and names just those", () => {
    const deeper = [
      { tool: 1, mm: 0.5 },
      { tool: 2, mm: 0.51 },
      { tool: 3, mm: -4 },
    ];
    const mustHaves = mustHavesSchema.parse({ notDeep: true, deepestMm: 0.5, capPercent: 35 });
    expect(notPassed(judged({ deeper }), { mustHaves })).toEqual({
      missed: ["notDeep"],
      capPercent: 35,
      deeper: [{ tool: 2, mm: 0.51 }],
    });
    expect(notPassed(judged({ deeper: deeper.slice(0, 1) }), { mustHaves })).toBeNull();
  });
  it("of a sign is one that is proven turned, in a value that is wrong", () => {
    const value = (kind: string, id: string, closureMm: number) =>
      ({ closureMm, toleranceMm: 0.02, cause: { kind, terms: [{ id }] } }) as never;
    const asks = { signsRight: true };
    expect(missed({ values: [value("proven", "radiusSignTurned", 10)] }, asks)).toEqual(["signsRight"]);
    expect(missed({ values: [value("proven", "librarySign", 10)] }, asks)).toEqual(["signsRight"]);
    expect(missed({ values: [value("likely", "radiusSignTurned", 10)] }, asks)).toEqual([]);
    expect(missed({ values: [value("proven", "radiusForgotten", 5)] }, asks)).toEqual([]);
    expect(missed({ values: [value("proven", "radiusSignTurned", 0.01)] }, asks)).toEqual([]);
  });
  it("is a signature that nobody gave, where the exercise has the first cut signed for and the coach is off", () => {
    const unsigned = (signsOff: boolean, isCoachOn: boolean, state: "none" | "asked" | "given" | "withdrawn") =>
      isUnsigned({ setup: { signsOff }, isCoachOn, program: { signature: { state } } } as never);
    expect(unsigned(true, false, "none")).toBe(true);
    expect(unsigned(true, false, "asked")).toBe(true);
    expect(unsigned(true, false, "withdrawn")).toBe(true);
    expect(unsigned(true, false, "given")).toBe(false);
    expect(unsigned(false, false, "none")).toBe(false);
    expect(unsigned(true, true, "none")).toBe(false);
    const all = mustHavesSchema.parse(Object.fromEntries(mustHaveNames.map((name) => [name, true])));
    const signedFor = { program: { signOff: true } } as never;
    expect(mustHavesAsked(signedFor, false, all)).toEqual(mustHaveNames);
    expect(mustHavesAsked(signedFor, true, all)).not.toContain("signed");
    expect(mustHavesAsked({ program: undefined }, false, all)).toEqual([
      "checked",
      "notDeep",
      "signsRight",
      "handsClear",
    ]);
    expect(mustHavesAsked(signedFor, false, mustHavesSchema.parse({ checked: true }))).toEqual(["checked"]);
  });

  it("caps points at so much of a hundred, in hundredths of a mark, and raises none", () => {
    const missing = { missed: ["checked" as const], capPercent: 33 };
    expect(capped(80, 100, missing)).toBe(33);
    expect(capped(12, 100, missing)).toBe(12);
    expect(capped(80, 90.5, missing)).toBe(29.86);
    expect([capped(80, 100, null), capped(80, 100, undefined)]).toEqual([80, 80]);
  });
});

describe("a check that was said first", () => {
  const said = (mm: number, check = "sumByHand") => ({ type: "checkExpected", check, mm });
  const looked = (seenMm: number | null) => ({ type: "checkLooked", seenMm });
  const judged = (isAsExpected: boolean, covers: string[] = ["H1"]) => ({ type: "checkJudged", isAsExpected, covers });
  const changed = (register: string, from = 0, to = 1) => ({ type: "registerChanged", register, from, to });
  const good = [said(12), looked(12), judged(true)];

  it("counts where it was answered as it looked, and while what it covers stands", () => {
    expect(checkedBefore(trace(...good))).toBe(3);
    expect(checkedBefore(trace(...good, changed("H2")))).toBe(3);
    expect(checkedBefore(trace(...good, changed("H1")))).toBeNull();
    // written again as it was is no change
    expect(checkedBefore(trace(...good, changed("H1", 5, 5)))).toBe(3);
    expect(checkNote(trace(...good, changed("H1")))).toEqual({ code: "withdrawn", register: "H1" });
    expect(checkNote(trace(...good))).toBeNull();
  });
  it("that was off and called as expected, or right and called off, counts nothing and says by how much", () => {
    const off = [said(12), looked(19)];
    expect(checkedBefore(trace(...off, judged(true)))).toBeNull();
    expect(checkNote(trace(...off, judged(true)))).toMatchObject({ code: "calledAsExpected", mm: 7 });
    expect(checkedBefore(trace(said(12), looked(12), judged(false)))).toBeNull();
    expect(checkNote(trace(said(12), looked(12), judged(false)))).toMatchObject({ code: "calledOff", mm: 0 });
    // a surprise that is called one counts; what was done about it is said where nothing was
    expect(checkedBefore(trace(...off, judged(false)))).toBe(3);
    expect(checkNote(trace(...off, judged(false)))).toMatchObject({ code: "sawNotRight", mm: 7 });
    expect(checkNote(trace(...off, judged(false), changed("H1")))).toBeNull();
    expect(checkNote(trace(...off, judged(false), { type: "handRaised" }))).toBeNull();
  });
  it("needs its saying and its look before the answer, each time anew", () => {
    expect(checkedBefore(trace(looked(12), judged(true)))).toBeNull();
    expect(checkedBefore(trace(said(12), judged(true)))).toBeNull();
    expect(neverChecked(trace(said(12), judged(true)))).toBe(true);
    // said again: the look was at what was said before
    expect(checkedBefore(trace(said(12), looked(12), said(12), judged(true)))).toBeNull();
    expect(checkedBefore(trace(...good, judged(true)))).toBe(3);
    expect(neverChecked(trace(...good))).toBe(false);
    expect(neverChecked(trace(...good), "recalled")).toBe(true);
    expect(checkedBefore(trace(...good), "sumByHand")).toBe(3);
  });
  it("at which nothing was to be seen is right to be called off, and wrong to be called as expected", () => {
    expect(checkedBefore(trace(said(12), looked(null), judged(false)))).toBe(3);
    expect(checkedBefore(trace(said(12), looked(null), judged(true)))).toBe(3);
  });
});

describe("figures of marks", () => {
  it("are rounded to tenths so that they add up to what they are out of", () => {
    expect([tenth(1.25), tenth(1.24), tenth(0.05), tenth(-0.04)]).toEqual([1.3, 1.2, 0.1, -0]);
    const thirds = inTenths([
      { marks: 10 / 3, outOf: 10 / 3 },
      { marks: 0, outOf: 10 / 3 },
      { marks: 5 / 3, outOf: 10 / 3 },
    ]);
    expect(thirds.map(({ outOf }) => outOf)).toEqual([3.3, 3.4, 3.3]);
    expect(thirds.map(({ marks }) => marks)).toEqual([3.3, 0, 1.7]);
    // what costs without being out of anything keeps what it costs
    expect(inTenths([{ marks: -2.04, outOf: 0 }])).toEqual([{ marks: -2, outOf: 0 }]);
  });
  it("of a value fall from one tolerance to nothing at so many, on both sides", () => {
    const at = (closureMm: number) => valueMarks(closureMm, 0.02, 5, 10);
    expect([at(0), at(0.02), at(-0.02)]).toEqual([10, 10, 10]);
    // three tolerances: half of the way from one to five
    expect(at(0.06)).toBeCloseTo(5, 9);
    expect(at(-0.06)).toBeCloseTo(5, 9);
    expect([at(0.1), at(0.5)]).toEqual([0, 0]);
    expect(isValueRight({ closureMm: -0.02, toleranceMm: 0.02 })).toBe(true);
    expect(isValueRight({ closureMm: 0.021, toleranceMm: 0.02 })).toBe(false);
    const allowed = [{ id: "clickBack" as const, mm: 0.01, seq: 4 }];
    expect(isValueRight({ closureMm: 0.028, toleranceMm: 0.02, allowed })).toBe(true);
    expect(isValueRight({ closureMm: -0.018, toleranceMm: 0.02, allowed })).toBe(false);
  });
  it("draws what the log names with its own amount in place of what the sheet predicts of it", () => {
    const terms = [
      { id: "paperForgotten", mm: 0.058, seq: 3 },
      { id: "otherFigure", mm: 2, seq: 4 },
    ] as never;
    const predicted = [
      { id: "paperForgotten" as const, predictedMm: 0.06 },
      { id: "facingForgotten" as const, predictedMm: 1 },
    ];
    expect(withSignaturesOf({ terms } as never, predicted)).toEqual([
      { id: "paperForgotten", predictedMm: 0.058 },
      { id: "facingForgotten", predictedMm: 1 },
    ]);
  });
});
