import { describe, expect, it } from "vitest";
import { latheLane, millLane, workLane, type Habits } from "@probe-lane/students";
import { findDemoExercise } from "../../../../demo";
import type { Command } from "../../bench";
import { traceLane } from "../../diagnosis";
import { targetOf, targetsOf, type Marking, type Target } from "../../exercises";
import type { MillTrace, TurningTrace } from "../../diagnosis/trace";
import type { RegisterRuling } from "../values";
import { deeperOnLathe, deeperOnMill } from "./deeper";
import { latheSchoolOf, ruleLatheValue } from "./latheValues";
import { followThroughMill, millSchool, ruleMillValue } from "./millValues";

const OUT_OF = 12;
const marking: Marking = {
  revision: 1,
  tolerancesMm: { x: 0.03, y: 0.025, z: 0.04, d: 0.012, rotation: 0.05 },
  severity: { grave: "failsLane", tool: "costs" },
  zeroAtMultiple: 4,
  weights: { values: 40, working: 0, method: 30, safety: 15, proving: 0 },
};
const add = (register: string, byMm: number): Command =>
  ({ type: "typeRegister", register, text: byMm.toFixed(3), how: "add", isConfirmed: true }) as Command;

const worked = new Map<string, MillTrace>();
/** A mill lane worked by a student, with these commands typed before it is handed in; each is worked once. */
function mill(id: string, habits: Habits = {}, ...typed: Command[]): MillTrace {
  const key = JSON.stringify([id, habits, typed]);
  const trace = worked.get(key) ?? worksMill(id, habits, typed);
  worked.set(key, trace);
  return trace;
}
function worksMill(id: string, habits: Habits, typed: readonly Command[]): MillTrace {
  const lane = millLane(findDemoExercise(id).exercise, "values");
  workLane(lane, { ...habits, stopsAfter: habits.stopsAfter ?? "zero" });
  for (const command of typed) lane.do(command);
  lane.do({ type: "handIn" });
  return traceLane(lane.log) as MillTrace;
}
const valueOf = (trace: MillTrace, id: string): RegisterRuling =>
  ruleMillValue(trace, targetOf(trace.final.setup, id as Target["id"]), marking, OUT_OF);

/** A lathe lane, with these commands typed before the hand-in. */
function lathe(id: string, habits: Habits = {}, ...typed: Command[]): TurningTrace {
  const lane = latheLane(findDemoExercise(id).exercise, "values");
  workLane(lane, habits);
  const at = lane.log.findIndex(({ event }) => event.type === "handedIn");
  const before = latheLane(findDemoExercise(id).exercise, "values");
  before.log.splice(0, before.log.length, ...lane.log.slice(0, at));
  before.state = traceLane(before.log).final as typeof before.state;
  for (const command of typed) before.do(command);
  before.do({ type: "handIn" });
  return traceLane(before.log) as TurningTrace;
}
const turned = (trace: TurningTrace, id: string): RegisterRuling =>
  ruleLatheValue(trace, targetOf(trace.final.setup, id as Target["id"]), marking, OUT_OF);

describe("what a register of a mill should hold, by the truth of its lane", () => {
  const lengths = (trace: MillTrace) => trace.final.truth.lengthsMm as Record<string, number>;
  const datumZ = (trace: MillTrace) => trace.final.truth.datumMm.z;

  it("from the gauge line is the tool's length, and work Z is the datum", () => {
    const trace = mill("five-tools-gauge-line");
    for (const tool of [1, 2, 3, 4, 5]) {
      const value = valueOf(trace, `H${tool}`);
      expect(value.wanted).toBeCloseTo(lengths(trace)[`tool${tool}`] ?? 0, 6);
      expect(value.closureMm).toBeCloseTo(value.held - value.wanted, 9);
      expect(value.toleranceMm).toBe(0.04);
      expect(value.zeroAtMm).toBeCloseTo(0.16, 9);
    }
    expect(valueOf(trace, "workZ").wanted).toBeCloseTo(datumZ(trace), 6);
  });
  it("touched on the part is datum and length together, and work Z is nothing", () => {
    const trace = mill("five-tools-part-touch");
    expect(valueOf(trace, "H3").wanted).toBeCloseTo(datumZ(trace) + (lengths(trace)["tool3"] ?? 0), 6);
    expect(valueOf(trace, "workZ").wanted).toBe(0);
  });
  it("touched on a plane hangs on one plane for all tools, and work Z is the datum over it", () => {
    const trace = mill("five-tools-plane-lift");
    const planes = [1, 2, 3, 4, 5].map(
      (tool) => valueOf(trace, `H${tool}`).wanted - (lengths(trace)[`tool${tool}`] ?? 0),
    );
    for (const plane of planes) expect(plane).toBeCloseTo(planes[0] ?? 0, 6);
    expect(valueOf(trace, "workZ").wanted).toBeCloseTo(datumZ(trace) - (planes[0] ?? 0), 6);
  });
  it("by a master is the difference from it, and work Z the master on the datum", () => {
    const trace = mill("five-tools-master");
    const [master = 0, third = 0] = [lengths(trace)["tool1"], lengths(trace)["tool3"]];
    expect(valueOf(trace, "H1").wanted).toBe(0);
    expect(valueOf(trace, "H3").wanted).toBeCloseTo(third - master, 6);
    expect(valueOf(trace, "workZ").wanted).toBeCloseTo(datumZ(trace) + master, 6);
  });
  it("of a cutter is its diameter as it is; of a path that is offset already, what it differs by", () => {
    const whole = mill("diameters-part-contour");
    const { 1: first = 0 } = whole.final.truth.diametersMm as Record<number, number>;
    expect(valueOf(whole, "d1").wanted).toBeCloseTo(first, 6);
    expect(valueOf(whole, "d1").toleranceMm).toBe(0.012);
    const less = mill("diameters-offset-path");
    const nominal = less.final.setup.tools.find(({ number }) => number === 1)?.diameterMm ?? 0;
    const own = (less.final.truth.diametersMm as Record<number, number>)[1] ?? 0;
    // its control keeps radii
    expect(valueOf(less, "d1").wanted).toBeCloseTo((own - nominal) / 2, 6);
  });
  it("of a turn is the part's, and it misses by what the far end of the part does", () => {
    const trace = mill("plate-skewed", { forgetsTurn: true });
    const value = valueOf(trace, "rotation");
    expect(value.held).toBe(0);
    // the longer side of the blank is 110 mm
    const turnedBy = (trace.final.truth.skewDeg * Math.PI) / 180;
    expect(value.wanted).toBeCloseTo(trace.final.truth.skewDeg, 9);
    expect(value.closureMm).toBeCloseTo(110 * Math.sin(-turnedBy), 6);
    expect(value.marks).toBe(0);
  });
});

describe("what a way of setting leaves on a mill", () => {
  it.each([
    // probe on both faces: approach 1 µm twice, a last digit of 1 µm: √(1 + 1 + 1/12)
    ["plate-skewed", "x", 0, 1.443],
    // finder moving minus: −(5 + ½); own 2, approach 0.7, last digit: √(4 + 0.49 + 1/12)
    ["roller-bracket-back-right", "x", -5.5, 2.139],
    // setter: nose and tool, 1 µm each: √(1 + 1 + 1/12)
    ["five-tools-gauge-line", "H2", 0, 1.443],
    // paper of 0.06: −(0.075 × 60 + ½); its thickness 3, felt within 0.15 of it uniformly: √(9 + 4.5²/3 + 1/12)
    ["five-tools-gauge-line", "workZ", -5, 3.979],
    ["five-tools-part-touch", "H4", -5, 3.979],
    // zero is typed
    ["five-tools-part-touch", "workZ", 0, 1],
    // lamp gauge: −½; √(1 + 1/12)
    ["five-tools-plane-lift", "H1", -0.5, 1.041],
    // twice a lamp gauge
    ["five-tools-plane-lift", "workZ", -1, 1.472],
  ] as const)("%s, %s: %f µm, give or take %f", (id, target, biasUm, uUm) => {
    const value = valueOf(mill(id), target);
    expect(value.biasMm * 1000).toBeCloseTo(biasUm, 2);
    expect(value.uMm * 1000).toBeCloseTo(uUm, 2);
  });
  it("says what an edge was found with, and how far its axis stood off: the tip's radius on its side", () => {
    expect(valueOf(mill("roller-bracket-back-right"), "x").method).toEqual({ by: "edgeFinder", offMm: -3 });
    expect(valueOf(mill("plate-skewed"), "y").method).toEqual({ by: "probe", offMm: 0 });
    expect(valueOf(mill("five-tools-gauge-line"), "H1").method).toBeNull();
  });
  it("draws beside a length where a neighbor's row, and a length of another school, would put it", () => {
    const trace = mill("five-tools-gauge-line");
    const own = trace.final.truth.lengthsMm as Record<string, number>;
    const drawn = valueOf(trace, "H1").signatures.map(({ id, predictedMm }) => [id, Number(predictedMm.toFixed(6))]);
    for (const tool of [2, 3, 4, 5])
      expect(drawn).toContainEqual([
        "neighborRow",
        Number(((own[`tool${tool}`] ?? 0) - (own["tool1"] ?? 0)).toFixed(6)),
      ]);
    expect(drawn).toContainEqual(["schoolsMixed", Number((own["tool1"] ?? 0).toFixed(6))]);
    expect(drawn).toContainEqual(["schoolsMixed", -Number((own["tool1"] ?? 0).toFixed(6))]);
  });
});

describe("marks of a value on a mill", () => {
  it("are full inside the tolerance, fall in a line to nothing at four of them, and never below", () => {
    const good = valueOf(mill("five-tools-gauge-line"), "H2");
    const at = (byMm: number) => valueOf(mill("five-tools-gauge-line", {}, add("H2", byMm)), "H2");
    expect([good.marks, good.cause.kind]).toEqual([OUT_OF, "none"]);
    // two and a half tolerances of 0.04 off: half of the way from one to four is left
    const half = at(0.1 - good.closureMm);
    expect(half.closureMm).toBeCloseTo(0.1, 3);
    expect(half.marks).toBeCloseTo((OUT_OF * (4 - half.closureMm / 0.04)) / 3, 9);
    expect(half.marks).toBeCloseTo(6, 1);
    expect(half.cause.kind).not.toBe("none");
    expect(at(-0.1 - good.closureMm).marks).toBeCloseTo(6, 1);
    expect(at(0.2).marks).toBe(0);
    expect(at(0.03 - good.closureMm).marks).toBe(OUT_OF);
    expect(at(0.03 - good.closureMm).cause.kind).toBe("none");
  });
  it("a right work Z under a wrong length of the tool it was touched with keeps its marks, where all of it is right", () => {
    const followed = (length: number, work: number) => {
      const trace = mill("five-tools-plane-lift", {}, add("H1", length), add("G54.z", work));
      const values = targetsOf(trace.final.setup).map((target) => ruleMillValue(trace, target, marking, OUT_OF));
      const after = followThroughMill(trace, values, marking);
      const workZ = after.find(({ target }) => target.kind === "workZ");
      return [workZ?.isFollowThrough, workZ?.marks] as const;
    };
    expect(followed(0.5, -0.5)).toEqual([true, OUT_OF]);
    // the tool does not land where it should
    expect(followed(0.5, -0.4)).toEqual([false, 0]);
    // no length is wrong that it could follow
    expect(followed(0, -0.5)).toEqual([false, 0]);
    // right by itself, and so nothing follows
    expect(followed(0.5, 0)).toEqual([false, OUT_OF]);
    const other = mill("five-tools-gauge-line", {}, add("H1", 0.5), add("G54.z", -0.5));
    const values = targetsOf(other.final.setup).map((target) => ruleMillValue(other, target, marking, OUT_OF));
    expect(followThroughMill(other, values, marking)).toEqual(values);
  });
  it("the school is what the exercise prescribes; where it is free, what was done; where nothing was, what was named", () => {
    expect(millSchool(mill("five-tools-plane-lift"))).toEqual({ school: "plane-lift", isNamed: false });
    expect(millSchool(mill("roller-bracket-back-right"))).toEqual({ school: "part-touch", isNamed: false });
    expect(millSchool(mill("five-tools-free"))).toMatchObject({ isNamed: false });
    const idle = (namedSchool?: string) => {
      const lane = millLane(findDemoExercise("five-tools-free").exercise, "values");
      lane.do({ type: "handIn", ...(namedSchool ? { school: namedSchool } : {}) } as Command);
      return millSchool(traceLane(lane.log) as MillTrace);
    };
    expect(idle()).toEqual({ school: "unclear", isNamed: false });
  });
});

describe("how much deeper a tool goes", () => {
  const value = (target: Partial<Target>, closureMm: number) => ({ target, closureMm }) as unknown as RegisterRuling;
  it("on a mill is what its sum is too low; of a row by itself with the work Z that all share", () => {
    expect(deeperOnMill([value({ kind: "toolSum", tool: 3 }, -0.7), value({ kind: "place", tool: null }, -9)])).toEqual(
      [{ tool: 3, mm: 0.7 }],
    );
    const rows = [
      value({ kind: "toolRow", tool: 1 }, -0.7),
      value({ kind: "toolRow", tool: 2 }, 0.2),
      value({ kind: "workZ", tool: null }, -0.5),
      value({ kind: "diameter", tool: 2 }, -4),
    ];
    const deeper = deeperOnMill(rows).map(({ tool, mm }) => [tool, Number(mm.toFixed(9))]);
    expect(deeper).toEqual([
      [1, 1.2],
      [2, 0.3],
    ]);
    // a sum has work Z in it already
    expect(deeperOnMill([value({ kind: "toolSum", tool: 1 }, -1), value({ kind: "workZ", tool: null }, -0.5)])).toEqual(
      [{ tool: 1, mm: 1 }],
    );
  });
  it("on a lathe is along Z what it is too low, across it half of that; a bar in a bore by what it is too high", () => {
    const on = (kind: string, x: number | null, z: number | null) =>
      deeperOnLathe({ final: { setup: { lathe: { tools: [{ number: 2, kind }] } } } } as never, [
        ...(x === null ? [] : [value({ kind: "toolOffset", tool: 2, axis: "x" }, x)]),
        ...(z === null ? [] : [value({ kind: "toolOffset", tool: 2, axis: "z" }, z)]),
        value({ kind: "nose", tool: 2, axis: null }, -50),
        value({ kind: "toolOffset", tool: 1, axis: "z" }, -50),
      ]);
    expect(on("turning", -3, -1)).toEqual([{ tool: 2, mm: 1.5 }]);
    expect(on("turning", -1, -2)).toEqual([{ tool: 2, mm: 2 }]);
    expect(on("turning", 3, 1)).toEqual([{ tool: 2, mm: -1 }]);
    expect(on("boring", 3, 1)).toEqual([{ tool: 2, mm: 1.5 }]);
    expect(on("boring", -3, 1)).toEqual([{ tool: 2, mm: -1 }]);
    expect(on("turning", null, null)).toEqual([]);
  });
});

describe("what a register of a lathe should hold, and what a way of setting leaves", () => {
  const face = lathe("collar-five-tools-face");
  const arm = lathe("collar-five-tools-arm");
  const truth = (trace: TurningTrace) => trace.final.truth.lathe.tools;
  it("is where the tool's point is on the axis, and before the datum by its own reach", () => {
    for (const tool of [1, 2, 3, 4]) {
      expect(turned(face, `X${tool}`).wanted).toBeCloseTo(truth(face)[tool]?.kxMm ?? 0, 6);
      expect(turned(face, `Z${tool}`).wanted - turned(face, "Z1").wanted).toBeCloseTo(
        (truth(face)[tool]?.qMm ?? 0) - (truth(face)[1]?.qMm ?? 0),
        6,
      );
    }
    expect(turned(face, "X1").toleranceMm).toBe(0.03);
    expect(turned(face, "Z1").toleranceMm).toBe(0.04);
    expect(turned(face, "Z1").zeroAtMm).toBeCloseTo(0.16, 9);
  });
  it.each([
    // paper of 0.06 on a diameter, both of its errors twice, and a diameter measured to 3: −(2 × 4.5 + ½)
    [face, "X2", "paper", -9.5, 8.49],
    // a pin: +½
    [face, "Z2", "pin", 0.5, 1.59],
    [face, "Z3", "straightEdge", 0, 1.55],
    [face, "Z1", "cut", 0, 1.04],
    // the arm: two of its own of 2, and a last digit: √(4 + 4 + 1/12)
    [arm, "X3", "arm", 0, 2.84],
    [arm, "Z3", "arm", 0, 2.84],
  ] as const)("%#: %s by its way", (trace, target, by, biasUm, uUm) => {
    const value = turned(trace, target);
    expect(value.method).toEqual({ by, offMm: 0 });
    expect(value.biasMm * 1000).toBeCloseTo(biasUm, 2);
    expect(value.uMm * 1000).toBeCloseTo(uUm, 1);
  });
  it("draws where a feeler counted once or not at all, the blade's other edge, a pin, the nose's center would put it", () => {
    const drawn = (trace: TurningTrace, id: string) =>
      turned(trace, id).signatures.map((one) => `${one.id} ${one.predictedMm.toFixed(3)}`);
    expect(drawn(face, "X2")).toEqual(expect.arrayContaining(["feelerOnce 0.060", "feelerForgotten 0.120"]));
    expect(drawn(face, "Z2")).toContain("gapForgotten 3.000");
    expect(drawn(face, "Z3")).toContain("otherBladeEdge 3.000");
    expect(drawn(face, "Z1")).toContain("leftoverWorkZ 7.810");
    // a nose of 0.8 behind the axis, code 3: 2 × 0.8 in X, 0.8 in Z, both minus
    expect(drawn(face, "X1")).toContain("noseCenterX -1.600");
    expect(drawn(face, "Z1")).toContain("noseCenterZ -0.800");
    const next = (truth(face)[2]?.kxMm ?? 0) - (truth(face)[1]?.kxMm ?? 0);
    expect(drawn(face, "X1")).toContain(`neighborRow ${next.toFixed(3)}`);
    const reach = (truth(face)[2]?.qMm ?? 0) - (truth(face)[1]?.qMm ?? 0);
    expect(drawn(face, "Z1")).toContain(`neighborRow ${reach.toFixed(3)}`);
    // what the arm says is of no diameter
    expect(drawn(arm, "X1").some((one) => one.startsWith("diameterAsRadius"))).toBe(false);
    expect(drawn(lathe("knob-first-tool"), "X1").some((one) => one.startsWith("diameterAsRadius"))).toBe(true);
  });
  it("marks fall in a line as on a mill; what is typed off a card is right or it is not", () => {
    const good = turned(face, "Z2");
    const off = turned(lathe("collar-five-tools-face", {}, add("Z2", 0.1 - good.closureMm)), "Z2");
    expect(off.marks).toBeCloseTo((OUT_OF * (4 - off.closureMm / 0.04)) / 3, 9);
    expect(off.cause.kind).not.toBe("none");
    const card = lathe("knob-nose-and-tip");
    const nose = targetsOf(card.final.setup).find(({ kind }) => kind === "nose");
    const code = targetsOf(card.final.setup).find(({ kind }) => kind === "tipCode");
    if (!nose || !code) throw new Error("no nose, no code");
    expect(turned(card, nose.id)).toMatchObject({ marks: OUT_OF, toleranceMm: 0.001, closureMm: 0, method: null });
    expect(turned(card, code.id)).toMatchObject({ marks: OUT_OF, closureMm: 0 });
    const tool = card.final.setup.lathe.tools.find(({ number }) => number === nose.tool);
    expect(turned(card, nose.id).wanted).toBe(tool?.noseRadiusMm);
    expect(turned(card, code.id).wanted).toBe(tool?.tipCode);
    const slipped = turned(lathe("knob-nose-and-tip", {}, add(`R${nose.tool}`, 0.004)), nose.id);
    expect(slipped.marks).toBe(0);
    expect(slipped.closureMm).toBeCloseTo(0.004, 6);
  });
  it("the school is what is prescribed, else what was touched and what stayed zero", () => {
    expect(latheSchoolOf(face)).toBe("part-face");
    expect(latheSchoolOf(arm)).toBe("setter-arm");
    const free = (rows: Record<number, number>, workZ: number, more: object = {}) =>
      latheSchoolOf({
        turret: [],
        final: {
          setup: { lathe: { schools: ["part-face", "setter-arm", "master-shift"], targets: { z: [1, 2] } } },
          registers: { turret: { z: rows }, work: { G54: { z: workZ } } },
        },
        ...more,
      } as never);
    expect(free({}, 0)).toBe("unclear");
    expect(free({ 1: 0, 2: 5 }, -300)).toBe("master-shift");
    expect(free({ 1: 0, 2: 5 }, 0)).toBe("part-face");
    expect(free({ 1: 4, 2: 5 }, -300)).toBe("part-face");
    expect(free({ 1: 4, 2: 5 }, 0, { turret: [{ by: "arm", axis: "z" }] })).toBe("setter-arm");
    expect(free({ 1: 4, 2: 5 }, 0, { turret: [{ by: "arm", axis: "x" }] })).toBe("part-face");
  });
});
