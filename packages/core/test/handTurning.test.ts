import type { TurningSeen } from "@probe-lane/core/bench";
import fc from "fast-check";
import { LaneDriver, latheLane, workLane, type Habits } from "@probe-lane/students";
import { eyeShiftMm } from "../lane/eye";
import { findDemoExercise } from "../../../demo";
import { describe, expect, it } from "vitest";
import { coneGapMm, coneRadiusMm, coneTouchZ, noseCenter, noseTip, type Cone } from "../machines/lathe/acts/cone/cone";
import { drawOf, expectationOf, type TargetId } from "../exercises";
import { fitsPart, rule, type Ruling } from "../grading";
import { tipCodes } from "../registers";
import { causeWords, coachWords, findingWords } from "../words";

const open = (id: string, seed: string): LaneDriver<TurningSeen> => latheLane(findDemoExercise(id).exercise, seed);
function ruled(id: string, habits: Habits, seed: string): { ruling: Ruling; lane: LaneDriver<TurningSeen> } {
  const lane = open(id, seed);
  workLane(lane, habits);
  return { lane, ruling: rule(lane.log, findDemoExercise(id).marking) };
}
const valueOf = ({ values }: Ruling, target: TargetId) => {
  const value = values.find((one) => one.target.id === target);
  if (!value) throw new Error(`no value ${target}`);
  return value;
};
function causeOf(ruling: Ruling, target: TargetId): string {
  const { cause } = valueOf(ruling, target);
  return cause.kind === "proven" ? cause.terms.map(({ id }) => id).join() : cause.kind;
}
const stepOf = ({ findings }: Ruling, step: string) =>
  findings.find((finding) => "step" in finding && finding.step === step)?.code;

const LIBRARY = "ring-readout-library";
const GANG = "collar-gang-two-changed";
const CONE = "knob-cone-neutral";

describe("one mistake by hand, named from the log", () => {
  const cases: [string, string, Habits, TargetId, string][] = [
    ["the library typed as it was read", LIBRARY, { librarySign: true }, "X2", "librarySign"],
    ["the library typed as it was read, in Z", LIBRARY, { librarySign: true }, "Z3", "librarySign"],
    ["the feeler with some tools only", LIBRARY, { feelerOnSome: true }, "X3", "feelerOnSome"],
    ["the corner zeroed over a feeler", LIBRARY, { zeroOverPaper: true }, "X1", "feelerForgotten"],
    ["a hand on the post", LIBRARY, { leansOnPost: true }, "X2", "leanedOnPost"],
    ["the feeler counted once on the bar", GANG, { feelerOnce: true }, "X4", "feelerOnce"],
    ["one screw right down", GANG, { toolToRegister: true, tightensOneSide: true }, "X2", "clampShifted"],
    [
      "the old register left in while the tool was slid",
      GANG,
      { toolToRegister: true, leavesRegister: true },
      "X4",
      "registerBuiltIn",
    ],
    ["the face believed by a leaning edge", CONE, { cone: "faceOnly" }, "Z2", "plateMetEarly"],
    ["the nose left out at the cone", CONE, { cone: "noseLeftOut" }, "Z2", "coneNoseLeftOut"],
  ];
  for (const [name, id, habits, target, cause] of cases) {
    it(name, () => {
      let named = 0;
      for (let seed = 0; seed < 6; seed++) {
        const { ruling } = ruled(id, habits, `hand ${seed}`);
        expect([cause, "none"], `seed ${seed}`).toContain(causeOf(ruling, target));
        named += Number(causeOf(ruling, target) === cause);
        for (const value of ruling.values)
          expect(Object.values(causeWords(value, ruling.sheet)).join(" ")).not.toMatch(/undefined|NaN|null/);
        for (const finding of ruling.findings) expect(findingWords(finding)).toMatch(/[.!]$/);
      }
      expect(named).toBeGreaterThanOrEqual(4);
    });
  }
});

describe("a readout's library", () => {
  it("the same feeler with every tool cancels in the rows, and the zero stands one feeler off, on a diameter twice", () => {
    const { ruling, lane } = ruled(LIBRARY, { zeroOverPaper: true }, "same feeler");
    const t = lane.state.setup.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? NaN;
    for (const target of ["X2", "Z2", "X3"] as const) expect(causeOf(ruling, target)).toBe("none");
    expect(Math.abs(valueOf(ruling, "X1").closureMm - 2 * t)).toBeLessThan(0.03);
    expect(Math.abs(valueOf(ruling, "Z1").closureMm - t)).toBeLessThan(0.02);
  });
  it("with the sign as it was read the recalled corner shows twice the reading", () => {
    const lane = open(LIBRARY, "twice");
    workLane(lane, { librarySign: true });
    const seen = lane.log.flatMap(({ event }) =>
      event.type === "checkLooked" && event.seenMm !== null ? [event.seenMm] : [],
    );
    const typed = lane.log.flatMap(({ event }) =>
      event.type === "registerChanged" && event.register.startsWith("LX") ? [event.to / 1000] : [],
    );
    expect(seen).toHaveLength(2);
    for (const [n, mm] of seen.entries()) expect(mm).toBeCloseTo(2 * (typed[n] ?? NaN), 2);
  });
  it("what is right reads zero when it is recalled, and a row recalled by another number does not", () => {
    const { lane } = ruled(LIBRARY, {}, "recall");
    for (const { event } of lane.log)
      if (event.type === "checkLooked") expect(Math.abs(event.seenMm ?? NaN)).toBeLessThan(0.03);
    expect(stepOf(ruled(LIBRARY, { recallsNothing: true }, "recall").ruling, "recallChecked")).toBe("stepMissed");
  });
  it("knows no reference return and runs no blocks; its library takes only what is typed", () => {
    const lane = open(LIBRARY, "manual");
    expect(lane.attempt({ type: "home" })).toEqual({ code: "notOnThisMachine" });
    expect(lane.attempt({ type: "runBlock", text: "G0 X0" })).toEqual({ code: "notOnThisMachine" });
    expect(lane.attempt({ type: "captureRegister", register: "LX2", asText: "0" })).toEqual({ code: "libraryIsTyped" });
    expect(lane.attempt({ type: "recall", row: 7 })).toEqual({ code: "toolNotHere", tool: 7 });
    expect(lane.attempt({ type: "index", station: 2, withOffset: false })).toEqual({ code: "doorShutReach" });
    expect(lane.attempt({ type: "sightEdge" })).toEqual({ code: "nothingToSight" });
    lane.do({ type: "expectCheck", check: "recalled", text: "0" });
    expect(lane.attempt({ type: "lookCheck" })).toEqual({ code: "recallFirst", tool: 1 });
    lane.do({ type: "recall", row: 1 });
    expect(lane.attempt({ type: "lookCheck" })).toEqual({ code: "touchFirst" });
  });
  it("shows raw plus row: display is machine less zero, and the row is added", () => {
    const lane = open(LIBRARY, "shows");
    for (const [register, text] of [
      ["G54.x", "-30"],
      ["LX2", "4.5"],
      ["LZ2", "-1.25"],
      ["G54.z", "-10"],
    ] as const)
      lane.do({ type: "typeRegister", register, text, how: "set", isConfirmed: true });
    // parked at X −40, Z −15: −40 + 30 and −15 + 10
    expect(lane.seen.work).toMatchObject({ x: -10_000, z: -5_000 });
    lane.do({ type: "recall", row: 2 });
    expect(lane.seen.work).toMatchObject({ x: -5_500, z: -6_250 });
  });
  it("a corner that was made to read its diameter is named, and the library is right all the same", () => {
    const { ruling } = ruled(LIBRARY, { cornerReads: "41.5" }, "corner");
    expect(causeOf(ruling, "X1")).toBe("cornerNotZero");
    expect(valueOf(ruling, "X1").closureMm).toBeCloseTo(-41.5, 1);
    for (const target of ["X2", "X3", "Z2"] as const) expect(causeOf(ruling, target)).toBe("none");
  });
  it("registers that this machine has not are refused, however they come", () => {
    const tries: [string, "LX2" | "Y2" | "X2" | "HW1" | "common.x" | "R1"][] = [
      [LIBRARY, "X2"],
      [LIBRARY, "common.x"],
      [LIBRARY, "R1"],
      [GANG, "LX2"],
      [CONE, "LX2"],
      [CONE, "Y2"],
      [CONE, "HW1"],
      ["focuser-plate-lower-left", "X2"],
      ["focuser-plate-lower-left", "LX2"],
    ];
    for (const [id, register] of tries) {
      const lane = new LaneDriver(findDemoExercise(id).exercise, "other");
      expect(
        lane.attempt({ type: "typeRegister", register, text: "1", how: "set", isConfirmed: true }),
        `${id} ${register}`,
      ).toEqual({ code: "notOnThisMachine" });
      expect(lane.attempt({ type: "takeInRegisters", rows: [{ register, text: "1" }] })).toEqual({
        code: "notOnThisMachine",
      });
    }
    const lane = open(CONE, "program");
    lane.do({ type: "home" });
    expect(lane.attempt({ type: "runBlock", text: "G10 L10 P10002 Y0.1" })).toMatchObject({ code: "programLine" });
  });
  it("how far a leaning hand gives is nowhere in what is sent", () => {
    const lane = open(LIBRARY, "lean");
    workLane(lane, { leansOnPost: true });
    const leans = lane.log.flatMap(({ event }) =>
      event.type === "turretGapPlaced" && event.leanMm ? [event.leanMm] : [],
    );
    expect(leans.length).toBeGreaterThan(2);
    const wire = JSON.stringify(lane.seen);
    for (const mm of leans) expect(wire).not.toContain(String(mm));
  });
});

describe("a gang slide over a bar", () => {
  it("the register to the tool and the tool to the register end at the same closure", () => {
    for (let seed = 0; seed < 4; seed++) {
      for (const habits of [{}, { toolToRegister: true }])
        expect(Math.abs(valueOf(ruled(GANG, habits, `both ${seed}`).ruling, "X4").closureMm)).toBeLessThan(0.02);
    }
  });
  it("a tool that stands out too far strikes the bar when the slide moves across at an approach", () => {
    const lane = open(GANG, "strike");
    lane.do({ type: "home" });
    const across = (tool: number) => lane.attempt({ type: "index", station: tool, withOffset: true });
    across(2);
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "changeTool", tool: 2, overhang: "26" });
    lane.do({ type: "setDoor", isOpen: false });
    across(3);
    // bar 12 and twice the clearance of 1.5, by tool 3's own row, which is right
    lane.do({ type: "runBlock", text: "G0 X15" });
    expect(lane.seen.incidents).toEqual([]);
    across(1);
    expect(lane.seen.incidents).toEqual(["neighborStruck"]);
    expect(lane.seen.isStopped).toBe(true);
  });
  it("nothing else moves or turns while a tool is loose in its clamp, and a good tool is not changed", () => {
    const lane = open(GANG, "loose");
    lane.do({ type: "home" });
    lane.do({ type: "setDoor", isOpen: true });
    expect(lane.attempt({ type: "changeTool", tool: 3, overhang: "22" })).toEqual({ code: "toolIsGood", tool: 3 });
    expect(lane.attempt({ type: "changeTool", tool: 2, overhang: "220" })).toEqual({
      code: "overhangNotPossible",
      lowMm: 5,
      highMm: 60,
    });
    expect(lane.attempt({ type: "slideTool" })).toEqual({ code: "clampNotLoose" });
    lane.do({ type: "loosenTool" });
    expect(lane.attempt({ type: "loosenTool" })).toEqual({ code: "clampLoose" });
    lane.do({ type: "setDoor", isOpen: false });
    expect(lane.attempt({ type: "startSpindle", direction: "forward", rpm: 500 })).toEqual({ code: "clampLoose" });
    expect(lane.attempt({ type: "index", station: 3, withOffset: false })).toEqual({ code: "clampLoose" });
    expect(lane.attempt({ type: "shimTool", text: "0.1" })).toEqual({ code: "doorShutReach" });
  });
  it("the height register lifts a tool only while its row is called, and half a pip puts it on center", () => {
    const { lane, ruling } = ruled(GANG, {}, "height");
    const pip =
      lane.log.flatMap(({ event }) =>
        event.type === "readingShown" && event.what === "pip" ? [event.values.diameter ?? 0] : [],
      )[0] ?? NaN;
    expect(Math.abs((lane.state.registers.turret?.y[2] ?? 0) / 1000)).toBeCloseTo(pip / 2, 1);
    expect(causeOf(ruling, "C2")).toBe("none");
  });
  it("a tool that is changed twice stands as its last one does, not off by both", () => {
    const lane = open(GANG, "twice changed");
    lane.do({ type: "home" });
    lane.do({ type: "setDoor", isOpen: true });
    for (let turn = 0; turn < 2; turn++) lane.do({ type: "changeTool", tool: 2, overhang: "22" });
    const last = lane.log.at(-1)?.event;
    if (last?.type !== "toolChanged") throw new Error("not changed");
    expect(lane.state.lathe?.raisedMm[2]).toBe(last.heightMm);
    expect(lane.state.lathe?.movedMm[2]).toBe(last.xMm);
  });
  it("feed up, and an overhang beyond the clearance, cost their steps", () => {
    expect(stepOf(ruled(GANG, { feedUp: true }, "feed").ruling, "feedDown")).toBe("stepMissed");
    expect(stepOf(ruled(GANG, { overhangMm: 24 }, "overhang").ruling, "overhangClear")).toBe("stepMissed");
    expect(stepOf(ruled(GANG, {}, "overhang").ruling, "overhangClear")).toBe("stepDone");
  });
  it("two truths within one step of the eye, the same moves, no contact: the same bytes", () => {
    const [lane, other] = [open(GANG, "eye"), open(GANG, "eye")];
    const { truth } = other.state;
    const { lathe } = truth;
    const nudge = (mm: number, tool: number) => {
      const at = (one: number) => Math.round((one - eyeShiftMm(truth, "x", tool)) / 0.5);
      return at(mm + 0.03) === at(mm) ? mm + 0.03 : mm - 0.03;
    };
    other.state = {
      ...other.state,
      truth: {
        ...other.state.truth,
        lathe: {
          ...lathe,
          tools: Object.fromEntries(
            Object.entries(lathe.tools).map(([n, tool]) => [n, { ...tool, kxMm: nudge(tool.kxMm, Number(n)) }]),
          ),
        },
      },
    };
    for (const one of [lane, other]) {
      one.do({ type: "home" });
      one.do({ type: "runBlock", text: "G53 G0 X-120" });
      one.do({ type: "index", station: 4, withOffset: true });
      one.do({ type: "jog", axis: "x", direction: -1, clicks: 40, size: "coarse" });
    }
    expect(JSON.stringify(other.seen)).toBe(JSON.stringify(lane.seen));
  });
});

describe("a cone that tells Z", () => {
  const cones = fc.record({
    diameterMm: fc.double({ min: 10, max: 60, noNaN: true }),
    atMm: fc.double({ min: -5, max: 0, noNaN: true }),
    angleDeg: fc.double({ min: 15, max: 75, noNaN: true }),
    lengthMm: fc.constant(8),
  });
  const noses = fc.record({
    noseRadiusMm: fc.double({ min: 0, max: 1.6, noNaN: true }),
    tipCode: fc.constantFrom(...tipCodes),
  });
  const share = fc.double({ min: 0.2, max: 0.8, noNaN: true });
  /** Tip of a nose that lies on the cone some way along it. */
  const onCone = (
    cone: Cone,
    nose: { noseRadiusMm: number; tipCode: (typeof tipCodes)[number] },
    along: number,
    faceMm: number,
  ) => {
    const angle = (cone.angleDeg * Math.PI) / 180;
    const zMm = cone.atMm - along * cone.lengthMm;
    return noseTip(nose, {
      radiusMm: coneRadiusMm(cone, zMm) + Math.cos(angle) * nose.noseRadiusMm,
      zMm: faceMm + zMm + Math.sin(angle) * nose.noseRadiusMm,
    });
  };
  it("a nose on the cone has no daylight, and Z is what the cone touch says", () =>
    fc.assert(
      fc.property(cones, noses, share, fc.double({ min: -400, max: 0, noNaN: true }), (cone, nose, along, faceMm) => {
        const tip = onCone(cone, nose, along, faceMm);
        expect(coneGapMm(cone, 0, faceMm, nose, tip)).toBeCloseTo(0, 8);
        expect(coneTouchZ(cone, nose, 2 * tip.radiusMm)).toBeCloseTo(tip.zMm - faceMm, 8);
        const center = noseCenter(nose, tip);
        expect(noseTip(nose, center).radiusMm).toBeCloseTo(tip.radiusMm, 9);
      }),
    ));
  it("45°, nose 0.8, code 3, by hand: the round reaches 0.469 of Z further in than a sharp tip", () => {
    const cone: Cone = { diameterMm: 26, atMm: 0, angleDeg: 45, lengthMm: 5 };
    // 0.8·(1 − √2)/sin 45° = −0.46863
    expect(
      coneTouchZ(cone, { noseRadiusMm: 0.8, tipCode: 3 }, 30) - coneTouchZ(cone, { noseRadiusMm: 0, tipCode: 3 }, 30),
    ).toBeCloseTo(-0.46863, 5);
    // a sharp tip at ⌀ 30 stands 2 mm behind ⌀ 26
    expect(coneTouchZ(cone, { noseRadiusMm: 0, tipCode: 3 }, 30)).toBeCloseTo(-2, 9);
  });
  it("formula and held pass agree, and only a right Z is seen to skim", () => {
    for (let seed = 0; seed < 4; seed++) {
      const [held, formula] = [
        ruled(CONE, {}, `cone ${seed}`).ruling,
        ruled(CONE, { cone: "formula" }, `cone ${seed}`).ruling,
      ];
      expect(Math.abs(valueOf(held, "Z2").closureMm - valueOf(formula, "Z2").closureMm)).toBeLessThan(0.004);
      expect(stepOf(held, "coneProven")).toBe("stepDone");
      expect(stepOf(ruled(CONE, { cone: "noseLeftOut" }, `cone ${seed}`).ruling, "coneProven")).toBe("stepMissed");
    }
  });
  it("a pass wants the offset called, the spindle on and the door shut; a tool far too deep breaks its insert", () => {
    const lane = open(CONE, "pass");
    lane.do({ type: "home" });
    expect(lane.attempt({ type: "runCone", isHeld: false })).toEqual({ code: "callOffsetFirst", tool: 1 });
    lane.do({ type: "index", station: 1, withOffset: true });
    expect(lane.attempt({ type: "runCone", isHeld: false })).toEqual({ code: "startSpindleFirst" });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 900 });
    lane.do({ type: "typeRegister", register: "Z1", text: "-6", how: "add", isConfirmed: true });
    lane.do({ type: "runCone", isHeld: false });
    expect(lane.seen.incidents).toEqual(["insertChipped"]);
  });
});

describe("a declared position", () => {
  const PRESET = "knob-declared-position";
  const cases: [string, Habits, string][] = [
    ["from another place", { declaresAgain: "elsewhere" }, "declaredElsewhere"],
    ["with another tool's row called", { declaresAgain: "withOther" }, "declaredElsewhere"],
    ["not at all", { declaresAgain: "never" }, "declarationLost"],
  ];
  for (const [name, habits, cause] of cases) {
    it(`declared again ${name}, every tool is off by the same, and it costs once`, () => {
      for (let seed = 0; seed < 4; seed++) {
        const { ruling } = ruled(PRESET, habits, `again ${seed}`);
        for (const target of ["Z1", "Z2"] as const) expect(causeOf(ruling, target)).toBe(cause);
        expect(valueOf(ruling, "Z1").closureMm - valueOf(ruling, "Z2").closureMm).toBeCloseTo(0, 1);
        expect(
          ruling.values.filter(({ target, marks, outOf }) => target.id.startsWith("Z") && marks < outOf),
        ).toHaveLength(1);
      }
    });
  }
  it("G50 makes the display read what it says, by the common offset; switching off loses it, and the way home", () => {
    const lane = open(PRESET, "words");
    lane.do({ type: "home" });
    lane.do({ type: "runBlock", text: "G53 G0 Z-80" });
    lane.do({ type: "runBlock", text: "G53 G0 X-60" });
    lane.do({ type: "runBlock", text: "G50 X220 Z212.5" });
    expect(lane.seen.work).toMatchObject({ x: 220_000, z: 212_500 });
    // −60 − 220 and −80 − 212.5
    expect(lane.seen.registers.common).toMatchObject({ x: -280_000, z: -292_500 });
    lane.do({ type: "switchOff" });
    expect(lane.seen.registers.common).toMatchObject({ x: 0, z: 0 });
    expect(lane.seen.isHomed).toBe(false);
    expect(lane.attempt({ type: "undoRegister" })).toEqual({ code: "nothingToUndo" });
    expect(lane.attempt({ type: "runBlock", text: "G50 X1" })).toEqual({ code: "notHomed" });
    lane.do({ type: "runBlock", text: "G28 U0 W0" });
    expect(lane.seen.isHomed).toBe(true);
    expect(lane.attempt({ type: "runBlock", text: "G50" })).toEqual({ code: "declareNeedsAxis" });
  });
  it("G10 typed at the machine sets rows, all of a line or nothing", () => {
    const lane = open(PRESET, "rows");
    lane.do({ type: "home" });
    lane.do({ type: "runBlock", text: "G10 L10 P10002 X-12.5 Z3.25 R0.4 Q3" });
    expect(lane.state.registers.turret).toMatchObject({
      x: { 2: -12_500 },
      z: { 2: 3_250 },
      r: { 2: 400 },
      q: { 2: 3_000 },
    });
    expect(lane.attempt({ type: "runBlock", text: "G10 L10 P10002" })).toMatchObject({ code: "programLine" });
    expect(lane.state.registers.turret?.x[2]).toBe(-12_500);
    lane.do({ type: "runBlock", text: "G10 L10 P10002 X-12.5" });
    expect(lane.attempt({ type: "runBlock", text: "G10 L10 P10002 X-5000" })).toEqual({
      code: "registerOutOfRange",
      register: "X2",
    });
    expect(lane.attempt({ type: "runBlock", text: "G50 X5000" })).toEqual({
      code: "registerOutOfRange",
      register: "common.x",
    });
  });
});

describe("how high the axis stands", () => {
  const AXIS = "ring-axis-height";
  const cases: [string, Habits, TargetId, string, "proven" | "inferred"][] = [
    ["at the tailstock", { atTailstock: true }, "axisHeight", "tailstockTaken", "proven"],
    ["half the pin left out", { axisPin: "none" }, "axisHeight", "halfPinForgotten", "proven"],
    ["the whole pin", { axisPin: "whole" }, "axisHeight", "wholePinAdded", "proven"],
    ["a gauge not zeroed", { gauge: "notZeroed" }, "gaugeError", "gaugeNotZeroed", "proven"],
    ["a gauge brought down", { gauge: "fromAbove" }, "gaugeError", "gaugeFromAbove", "proven"],
  ];
  for (const [name, habits, target, cause, kind] of cases) {
    it(name, () => {
      for (let seed = 0; seed < 5; seed++) {
        const value = valueOf(ruled(AXIS, habits, `axis ${seed}`).ruling, target);
        expect(value.cause.kind).toBe(kind);
        expect(
          value.cause.kind === "proven"
            ? value.cause.terms.map(({ id }) => id)
            : value.cause.kind === "inferred"
              ? value.cause.ranked[0]?.ids
              : [],
        ).toEqual([cause]);
      }
    });
  }
  it("an axis that is said wrong does not make what is said of the gauge wrong", () => {
    const { ruling } = ruled(AXIS, { atTailstock: true }, "follow");
    expect(causeOf(ruling, "gaugeError")).toBe("none");
  });
  it("what goes is not too high, what is half a hundredth higher does not go; blocks are in the set, each once", () => {
    const lane = open(AXIS, "stack");
    const slotMm = (lane.state.truth.lathe?.axis?.heightMm ?? NaN) - 10;
    lane.do({ type: "setDoor", isOpen: true });
    const goes = (text: string) => {
      lane.do({ type: "tryStack", text, under: "spindle" });
      return lane.seen.lathe?.stacks.at(-1)?.goes;
    };
    expect(goes("100 + 1.005")).toBe(101.005 < slotMm);
    expect(goes("100 + 30")).toBe(false);
    expect(lane.attempt({ type: "tryStack", text: "100 + 100", under: "spindle" })).toEqual({
      code: "blockOnce",
      text: "100",
    });
    expect(lane.attempt({ type: "tryStack", text: "100 + 0.7", under: "spindle" })).toEqual({
      code: "notInTheSet",
      text: "0.7",
    });
    expect(lane.attempt({ type: "tryStack", text: "+", under: "spindle" })).toEqual({ code: "stackEmpty" });
    expect(JSON.stringify(lane.seen)).not.toContain(String(slotMm + 10));
  });
});

describe("noses, tip codes and what fits", () => {
  const FIT = "collar-tips-and-fit";
  it("a trailing edge by hand: 180 − 93 − 35 = 52 clears 40, 180 − 93 − 55 = 32 does not; a blade must reach the groove", () => {
    const profile = { steepestFallDeg: 40, grooveMm: 12 };
    expect(fitsPart({ insert: "VBMT 16 04 04", leadDeg: 93 }, profile)).toBe(true);
    expect(fitsPart({ insert: "DNMG 15 06 04", leadDeg: 93 }, profile)).toBe(false);
    // 41° clears by one, and one degree is none in practice
    expect(fitsPart({ insert: "VBMT 16 04 04", leadDeg: 104 }, profile)).toBe(false);
    expect(fitsPart({ insert: "blade 3 mm", deepestMm: 9 }, profile)).toBe(false);
    expect(fitsPart({ insert: "blade 2 mm", deepestMm: 18 }, profile)).toBe(true);
  });
  it("the tip code of a tool that is asked for it is on no sheet that leaves the server", () => {
    const lane = open(FIT, "codes");
    expect(lane.seen.sheet.lathe?.tools.map(({ tipCode }) => tipCode)).toEqual([0, 0, 0, 0, 0, 0, 0, 0]);
    expect(lane.state.setup.lathe?.tools.map(({ tipCode }) => tipCode)).toEqual([3, 3, 3, 3, 3, 2, 2, 8]);
  });
  it("a wrong tip code is told with what it does: code 2 for 3 and a nose of 0.8 shifts X by 2·0.8·2 and Z by nothing", () => {
    const { ruling } = ruled(FIT, { tipCode: 2 }, "code");
    // Rn(s′ − s): X as a radius from −1 to +1, Z from −1 to −1
    expect(causeWords(valueOf(ruling, "Q1"), ruling.sheet).body).toContain(
      "With a nose of 0.800 every compensated cut is shifted by X +3.200, a diameter, and Z 0.000.",
    );
  });
  it("said of every tool that it fits, three are wrong, and the ruling says why", () => {
    const { ruling } = ruled(FIT, { allFit: true }, "all");
    const wrong = ruling.values.filter(({ marks, outOf }) => marks < outOf);
    expect(wrong.map(({ target }) => target.id)).toEqual(["F1", "F3", "F4"]);
    expect(wrong.map((value) => causeWords(value, ruling.sheet).body)).toEqual([
      expect.stringContaining("180 − 95 − 80 = 5°"),
      expect.stringContaining("180 − 93 − 55 = 32°"),
      expect.stringContaining("reaches 9.000 mm"),
    ]);
  });
});

describe("the far edge of a blade, and a feeler in a bore", () => {
  it("the far edge on the face reads one blade; the near edge taken for it is one blade off", () => {
    for (let seed = 0; seed < 5; seed++) {
      expect(causeOf(ruled("ring-groove-far-edge", {}, `far ${seed}`).ruling, "Z3")).toBe("none");
      const { ruling } = ruled("ring-groove-far-edge", { otherBladeEdge: true }, `far ${seed}`);
      expect(causeOf(ruling, "Z3")).toBe("otherBladeEdge");
      expect(valueOf(ruling, "Z3").closureMm).toBeCloseTo(3, 1);
    }
  });
  it("a feeler in a bore comes off twice; once leaves every bore small by it", () => {
    for (let seed = 0; seed < 4; seed++) {
      expect(causeOf(ruled("ring-boring-bar", { boreByPaper: true }, `bore ${seed}`).ruling, "X6")).toBe("none");
      const { ruling, lane } = ruled("ring-boring-bar", { boreByPaper: true, feelerOnce: true }, `bore ${seed}`);
      const t = lane.state.setup.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? NaN;
      expect(Math.abs(valueOf(ruling, "X6").closureMm + t)).toBeLessThan(0.04);
    }
  });
});

describe("what an author is told that a register should hold is what the ruling holds it against", () => {
  const wantedOf = (id: string, seed: string) => {
    const { ruling, lane } = ruled(id, {}, seed);
    const lines = expectationOf(drawOf(lane.state), null) ?? [];
    const expected = (register: string) => lines.find((line) => line.register === register)?.wantedMm ?? NaN;
    return { ruling, expected };
  };
  it("rows of a library, a changed tool on its slide, an axis", () => {
    for (const seed of ["author 1", "author 2", "author 3"]) {
      const library = wantedOf(LIBRARY, seed);
      for (const n of [2, 3] as const)
        for (const axis of ["X", "Z"] as const)
          expect(library.expected(`L${axis}${n}`)).toBeCloseTo(valueOf(library.ruling, `${axis}${n}`).wanted, 3);
      const gang = wantedOf(GANG, seed);
      // all tools share a work X of −180, and the ruling holds the sum
      for (const n of [2, 4] as const)
        expect(gang.expected(`X${n}`) - 180).toBeCloseTo(valueOf(gang.ruling, `X${n}`).wanted, 3);
      const axis = wantedOf("ring-axis-height", seed);
      expect(axis.expected("axisHeight")).toBeCloseTo(valueOf(axis.ruling, "axisHeight").wanted, 4);
    }
  });
});

it("the coach knows what proves each machine", () => {
  for (const id of [LIBRARY, GANG, CONE, "collar-five-tools-arm"]) {
    const lane = latheLane(findDemoExercise(id).exercise, "coach", { isCoachOn: true });
    const said = new Set<string>();
    const { seen } = lane;
    const steps = [
      { code: "faceFirst" },
      { code: "changeTool", tool: 2 },
      { code: "setTurretTool", tool: seen.sheet.lathe?.targets.x.at(-1) ?? 1 },
      { code: "checkIt" },
    ] as const;
    for (const step of steps) said.add(coachWords(step, seen));
    expect(said.size).toBe(4);
    for (const words of said) expect(words).toMatch(/^.{30,320}$/);
  }
});
