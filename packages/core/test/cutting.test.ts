import { describe, expect, it } from "vitest";
import { LaneDriver, workUpTo, type Habits } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import type { Command, TurningSeen } from "../bench";
import type { TurningLane } from "../machines/lathe/lane";
import { gapMm, heightNowMm, tipAt } from "../machines/lathe/contact";
import { rule } from "../grading";
import { spindleRanges } from "../lane";
import { toMm } from "../units";
import { figureName, momentWords } from "../words";

const KNOB = "knob-first-tool";

type Lane = LaneDriver<TurningSeen>;
const laneOf = (id: string, seed = "cutting"): Lane => new LaneDriver<TurningSeen>(findDemoExercise(id).exercise, seed);
const stateOf = (lane: Lane): TurningLane => lane.state;

/** A careful student up to a command, which is then not given. */
const upTo = (id: string, isThere: (command: Command, lane: Lane) => boolean, habits: Habits = {}): Lane =>
  workUpTo(laneOf(id), isThere, habits);

/** Drives the tip to where it truly stands so far outside the blank and behind its face, mm. */
function standAt(lane: Lane, outsideMm: number, behindMm: number): void {
  const state = stateOf(lane);
  const { radiusMm, zMm } = tipAt(state);
  const widest = Math.max(...state.lathe.outer.map((step) => step.radiusMm));
  const end = Math.max(...state.lathe.outer.filter((step) => step.radiusMm > 1).map((step) => step.toMm));
  const mm = (axis: "x" | "z") => toMm(state.position[axis], state.scale);
  const x = mm("x") + 2 * (widest + outsideMm - radiusMm);
  const z = mm("z") + (end - behindMm - zMm);
  lane.do({ type: "runBlock", text: `G53 G0 X${(x + 40).toFixed(3)}` });
  lane.do({ type: "runBlock", text: `G53 G0 Z${z.toFixed(3)}` });
  lane.do({ type: "runBlock", text: `G53 G0 X${x.toFixed(3)}` });
}
function running(id = KNOB, direction: "forward" | "reverse" = "forward", rpm = 900): Lane {
  const lane = laneOf(id);
  lane.do({ type: "home" });
  lane.do({ type: "startSpindle", direction, rpm });
  return lane;
}
const clicks = (
  lane: Lane,
  axis: "x" | "z",
  count: number,
  size: "fine" | "middle" | "coarse",
  direction: 1 | -1 = -1,
) => lane.do({ type: "jog", axis, direction, clicks: count, size });

describe("depth of cut is taken across the edge", () => {
  it("three millimetres and more behind the face a hundredth on the outside is a scratch, and is heard", () => {
    const lane = running();
    standAt(lane, 0.2, 6);
    for (let turn = 0; turn < 20 && lane.seen.lathe.heard === "air"; turn++) clicks(lane, "x", 10, "middle");
    expect(lane.seen.lathe.heard).toBe("scrapes");
    expect(lane.seen.incidents).toEqual([]);
    // the hands stopped at the click at which it was heard
    const { radiusMm } = tipAt(stateOf(lane));
    const widest = Math.max(...stateOf(lane).lathe.outer.map((step) => step.radiusMm));
    expect(widest - Math.hypot(radiusMm, heightNowMm(stateOf(lane), 1))).toBeGreaterThan(0);
    expect(widest - radiusMm).toBeLessThan(0.012);
  });
  it("and deep in both ways it breaks the insert", () => {
    const lane = running();
    standAt(lane, 0.2, 6);
    for (let turn = 0; turn < 40 && !lane.seen.isStopped; turn++) clicks(lane, "x", 2, "coarse");
    expect(lane.seen.incidents).toEqual(["insertChipped"]);
    const { radiusMm } = tipAt(stateOf(lane));
    const widest = Math.max(...stateOf(lane).lathe.outer.map((step) => step.radiusMm));
    expect(widest - radiusMm).toBeGreaterThan(2.9);
  });
});

describe("how it cuts", () => {
  const skimAt = (lane: Lane) => {
    standAt(lane, -0.6, -1);
    clicks(lane, "z", 60, "coarse");
    return lane.seen.lathe;
  };
  it("a fair cut cuts and leaves a band", () => {
    const seen = skimAt(running());
    expect([seen.heard, seen.outer.some(({ isTurned }) => isTurned)]).toEqual(["cuts", true]);
  });
  it("the wrong way round it only rubs, and driven on it breaks", () => {
    const lane = running(KNOB, "reverse");
    standAt(lane, 0.05, 3);
    for (let turn = 0; turn < 20 && lane.seen.lathe.heard === "air"; turn++) clicks(lane, "x", 2, "middle");
    expect(lane.seen.lathe.heard).toBe("rubs");
    expect(lane.seen.lathe.outer.some(({ isTurned }) => isTurned)).toBe(false);
    expect(lane.seen.lathe.evidence.xTouched).toEqual({});
    clicks(lane, "x", 5, "coarse");
    expect(lane.seen.incidents).toEqual(["insertChipped"]);
  });
  it("too fast for the diameter it sings, and what it tore opens no gate", () => {
    const lane = running(KNOB, "forward", 4500);
    const seen = skimAt(lane);
    expect(seen.heard).toBe("chatters");
    lane.do({ type: "stopSpindle" });
    lane.do({ type: "runBlock", text: "G53 G0 Z0" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "measureTurned", what: "turned", by: "micrometer" });
    expect(lane.seen.lathe.evidence.xTouched).toEqual({});
  });
  it("a chipped insert sings at every speed until another edge sits in the pocket, and that one is touched anew", () => {
    const lane = running();
    standAt(lane, 0.2, 6);
    for (let turn = 0; turn < 40 && !lane.seen.isStopped; turn++) clicks(lane, "x", 2, "coarse");
    lane.do({ type: "reset" });
    lane.do({ type: "runBlock", text: "G53 G0 X0" });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 900 });
    expect(skimAt(lane).heard).toBe("chatters");
    lane.do({ type: "stopSpindle" });
    lane.do({ type: "runBlock", text: "G53 G0 Z0" });
    lane.do({ type: "setDoor", isOpen: true });
    const before = tipAt(stateOf(lane));
    lane.do({ type: "changeInsert" });
    const after = tipAt(stateOf(lane));
    expect(Math.abs(after.zMm - before.zMm)).toBeGreaterThan(0.015);
    expect(Math.abs(after.radiusMm - before.radiusMm)).toBeGreaterThan(0.015);
    lane.do({ type: "setDoor", isOpen: false });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 900 });
    standAt(lane, -1.2, -1);
    clicks(lane, "z", 60, "coarse");
    expect(lane.seen.lathe.heard).toBe("cuts");
  });
  it("a tip past the middle is remarked", () => {
    const lane = running();
    expect(lane.seen.lathe.isPastCenter).toBe(false);
    standAt(lane, 3, -1);
    const { radiusMm } = tipAt(stateOf(lane));
    const x = toMm(stateOf(lane).position.x, stateOf(lane).scale) - 2 * (radiusMm + 2);
    lane.do({ type: "runBlock", text: `G53 G0 X${x.toFixed(3)}` });
    expect(lane.seen.lathe.isPastCenter).toBe(true);
  });
});

describe("a feed in both axes", () => {
  /** A slope of 45° from a place beside the rim and the face, outward and toward the chuck, as it truly stands, mm. */
  const sloped = (outsideMm: number, alongMm: number, direction: "forward" | "reverse" = "forward"): Lane => {
    const lane = running(KNOB, direction);
    standAt(lane, outsideMm, -0.2);
    const at = (axis: "x" | "z", mm: number) => (lane.seen.machine[axis] / 1000 + mm).toFixed(3);
    const text = `G53 G1 X${at("x", 2 * alongMm)} Z${at("z", -alongMm)} F80`;
    expect(lane.attempt({ type: "runBlock", text })).toBeNull();
    return lane;
  };

  it("that meets nothing moves, and one that meets metal cuts it: neither is refused", () => {
    const clear = sloped(2, 3);
    expect(clear.seen.lathe.heard).toBe("air");
    expect(stateOf(clear).lathe.cuts).toBe(0);
    const met = sloped(-2, 1.5);
    expect(met.seen.incidents).toEqual([]);
    expect(met.seen.lathe.heard).toBe("cuts");
    expect(stateOf(met).lathe.cuts).toBe(1);
  });
  it("leaves a slope: a millimetre toward the face the surface stands a millimetre further in", () => {
    const lane = sloped(-2.5, 1.6);
    const { radiusMm, zMm } = tipAt(stateOf(lane));
    const { outer } = stateOf(lane).lathe;
    const at = (mm: number) =>
      outer.find(({ fromMm, toMm: end }) => zMm + mm > fromMm && zMm + mm <= end)?.radiusMm ?? 0;
    expect(at(0.01)).toBeCloseTo(radiusMm, 3);
    // in treads of two tenths along the slope
    expect(Math.abs(at(1) - (radiusMm - 1))).toBeLessThan(0.15);
    expect(at(-0.5)).toBeGreaterThan(radiusMm + 0.5);
  });
  it("is no face and no band: no gate opens by it", () => {
    const { evidence } = sloped(-2, 1.5).seen.lathe;
    expect([evidence.isFaced, evidence.xTouched, evidence.zTouched]).toEqual([false, {}, {}]);
  });
  it("too deep it breaks the insert where that depth was reached", () => {
    const lane = sloped(-10, 6);
    expect(lane.seen.incidents).toEqual(["insertChipped"]);
    // at 45° what lies along is as much as it has come in: three millimetres, in treads of two tenths
    const { zMm } = tipAt(stateOf(lane));
    const face = Math.max(
      ...stateOf(lane)
        .lathe.outer.filter((step) => step.radiusMm > 1)
        .map((step) => step.toMm),
    );
    expect(face - zMm).toBeGreaterThan(3);
    expect(face - zMm).toBeLessThan(3.3);
  });
  it("the wrong way round it takes nothing off", () => {
    const lane = sloped(-2, 0.25, "reverse");
    expect([stateOf(lane).lathe.cuts, lane.seen.incidents, lane.seen.lathe.heard]).toEqual([0, [], "rubs"]);
  });
});

describe("bare carbide on still metal", () => {
  const pressed = (byMm: number) => {
    const lane = laneOf(KNOB);
    lane.do({ type: "home" });
    standAt(lane, 1, 4);
    const state = stateOf(lane);
    const still = Math.max(...state.lathe.outer.map((step) => step.radiusMm));
    const { radiusMm } = tipAt(state);
    const x = toMm(state.position.x, state.scale) - 2 * (radiusMm - still + byMm);
    lane.do({ type: "runBlock", text: `G53 G1 X${x.toFixed(3)} F50` });
    return lane.seen;
  };
  it("laid on by microns stops nothing, pressed by hundredths chips", () => {
    // the blank runs out: it is met at its own radius toward the tool, so the press is taken from where it stops
    let lastQuiet: TurningSeen | null = null;
    let first: TurningSeen | null = null;
    for (let step = -600; step < 60 && !first; step += 3) {
      const seen = pressed(step / 1000);
      if (seen.isStopped) first = seen;
      else lastQuiet = seen;
    }
    expect(first?.incidents).toEqual(["insertChipped"]);
    expect(lastQuiet?.lathe.isResting).toBe(true);
  });
});

describe("the setter arm holds the axis", () => {
  it("further clicks toward it move nothing, and the value of the trip is what is stored", () => {
    const lane = upTo(
      "collar-five-tools-arm",
      (command, { seen }) => command.type === "takeReading" && seen.lathe.isArmTripped,
    );
    const { machine, readings } = lane.seen;
    const axis = readings.at(-1)?.what === "armX" ? "x" : "z";
    expect(lane.attempt({ type: "jog", axis, direction: -1, clicks: 5, size: "fine" })).toEqual({ code: "armHolds" });
    expect(lane.seen.machine).toEqual(machine);
    expect(readings.at(-1)?.values[axis]).toBeCloseTo(machine[axis] / 1000, 9);
    clicks(lane, axis, 3, "middle", 1);
    expect(lane.seen.lathe.isArmTripped).toBe(false);
  });
});

describe("a diameter that was only scratched", () => {
  it("is a touch on turning stock: X from it is right to the click, and no accident", () => {
    const id = "collar-five-tools-face";
    const lane = upTo(id, (command) => command.type === "measureTurned" && command.what === "turned");
    lane.do({ type: "measureTurned", what: "turned", by: "micrometer" });
    const measuredMm = lane.seen.readings.at(-1)?.values.diameter ?? 0;
    lane.do({ type: "setDoor", isOpen: false });
    const { radiusMm, zMm } = tipAt(stateOf(lane));
    const band = stateOf(lane).lathe.outer.find(({ cut, toMm: end, fromMm }) => cut > 0 && end - fromMm > 3);
    if (!band) throw new Error("no band");
    const at = (axis: "x" | "z", mm: number) =>
      lane.do({
        type: "runBlock",
        text: `G53 G0 ${axis.toUpperCase()}${(lane.seen.machine[axis] / 1000 + mm).toFixed(3)}`,
      });
    at("x", 2 * (band.radiusMm + 5 - radiusMm));
    at("z", (band.fromMm + band.toMm) / 2 - zMm);
    lane.do({ type: "startSpindle", direction: "forward", rpm: 900 });
    at("x", 2 * (band.radiusMm + 0.15 - tipAt(stateOf(lane)).radiusMm));
    for (let turn = 0; turn < 40 && lane.seen.lathe.heard === "air"; turn++) clicks(lane, "x", 5, "middle");
    expect(lane.seen.lathe.heard).toBe("scrapes");
    const { station } = lane.seen.lathe;
    const value = lane.seen.machine.x / 1000 - measuredMm;
    lane.do({ type: "typeRegister", register: `X${station}`, text: value.toFixed(3), how: "set", isConfirmed: true });
    lane.do({ type: "handIn" });
    const ruling = rule(lane.log, findDemoExercise(id).marking);
    const x = ruling.values.find(({ target }) => target.id === `X${station}` || target.id === `x${station}`);
    expect(Math.abs(x?.closureMm ?? 1)).toBeLessThan(0.02);
    expect(x?.cause.kind).toBe("none");
    expect(lane.seen.incidents).toEqual([]);
  });
});

it("a reading of the pip is taken into no X", () => {
  const lane = upTo("knob-center-height", (command) => command.type === "shimTool");
  const pip = lane.seen.readings.findLast(({ what }) => what === "pip");
  expect(pip).toBeDefined();
  const take = { type: "takeReading", register: "X1", from: pip?.number ?? 0 } as const;
  expect(lane.attempt(take)).toEqual({ code: "readingOfOther" });
});

describe("a nose on the cone with the chuck turning", () => {
  /** With the tool that is to be set held halfway along the cone, close before it. */
  const before = () => {
    const lane = upTo(
      "knob-cone-neutral",
      (command, { seen }) => command.type === "stopSpindle" && seen.lathe.cone?.isHeld === true,
    );
    expect(lane.seen.spindle.isOn).toBe(true);
    return lane;
  };
  it("scrapes at the click at which it meets it: a touch of the cone", () => {
    const lane = before();
    for (let turn = 0; turn < 400 && lane.seen.lathe.heard === "air"; turn++) clicks(lane, "z", 2, "middle");
    expect(lane.seen.lathe.heard).toBe("scrapes");
    expect(lane.seen.lathe.evidence.coneTouched[lane.seen.lathe.station]).toBe(1);
    expect(lane.seen.incidents).toEqual([]);
  });
  it("driven into it, it cuts it", () => {
    const lane = before();
    const offMm = () => stateOf(lane).lathe.cone?.offMm ?? 0;
    const first = offMm();
    for (let turn = 0; turn < 60 && first - offMm() < 0.03 && !lane.seen.isStopped; turn++)
      clicks(lane, "z", 1, "coarse");
    expect(first - offMm()).toBeGreaterThan(0.03);
    expect(lane.seen.lathe.heard).toBe("cuts");
  });
});

describe("a straight edge on the face", () => {
  it("met by a blade too far is pushed off it; no paper is torn, and the touch has to be made again", () => {
    const lane = upTo("collar-parting-edge", (_command, { seen }) => seen.lathe.gap?.id === "straightEdge");
    for (let turn = 0; turn < 400 && lane.seen.lathe.gap !== null; turn++) clicks(lane, "z", 2, "middle");
    expect(lane.seen.lathe.gap).toBeNull();
    expect(lane.seen.incidents).toEqual(["edgePushedOff"]);
    expect(lane.seen.isStopped).toBe(false);
    const moments = lane.log.map(({ event }) => momentWords(event, lane.seen.sheet).toLowerCase());
    expect(moments.some((words) => words.includes("straight edge pushed off the face"))).toBe(true);
    expect(moments.some((words) => words.includes("torn"))).toBe(false);
  });
  it("a press by two hundredths is held against it, and costs nothing", () => {
    const lane = upTo("collar-parting-edge", (_command, { seen }) => seen.lathe.gap?.feel === "drags");
    clicks(lane, "z", 2, "middle");
    expect(lane.seen.lathe.gap?.feel).toBe("held");
    expect(lane.seen.incidents).toEqual([]);
  });
});

describe("a spindle has the range of its machine", () => {
  const refusedAt = (id: string, rpm: number) => {
    const lane = new LaneDriver(findDemoExercise(id).exercise, "range");
    // by hand nothing is homed
    if (lane.seen.kind !== "readout") lane.do({ type: "home" });
    return lane.attempt({ type: "startSpindle", direction: "forward", rpm });
  };
  it.each([
    ["focuser-plate-lower-left", "mill"],
    [KNOB, "turret"],
    ["ring-readout-library", "readout"],
    ["collar-gang-two-changed", "gang"],
  ] as const)("of %s, a %s", (id, kind) => {
    const { lowestRpm, highestRpm } = spindleRanges[kind];
    expect(refusedAt(id, highestRpm + 1)).toEqual({ code: "spindleOutOfRange", lowestRpm, highestRpm });
    expect(refusedAt(id, lowestRpm - 1)).toEqual({ code: "spindleOutOfRange", lowestRpm, highestRpm });
    expect(refusedAt(id, lowestRpm)).toBeNull();
  });
  it("a lathe's typed block stores no speed that its spindle has not", () => {
    const lane = laneOf(KNOB);
    lane.do({ type: "home" });
    expect(lane.attempt({ type: "runBlock", text: "M3 S99999" })?.code).toBe("spindleOutOfRange");
    expect(lane.seen.spindle).toMatchObject({ isOn: false });
    expect(lane.seen.spindle.rpm).not.toBe(99999);
  });
});

describe("a drill swept by the indicator on the chuck", () => {
  const lane = upTo("ring-drill-sweep", (_command, { seen }) => seen.readings.some(({ what }) => what === "shank"));
  const {
    at0 = 0,
    at90 = 0,
    at180 = 0,
    at270 = 0,
  } = lane.seen.readings.find(({ what }) => what === "shank")?.values ?? {};
  it("is named by where the dial stands: back, top, front, bottom", () => {
    expect(["at0", "at90", "at180", "at270"].map((at) => figureName(at, "shank"))).toEqual([
      "back",
      "top",
      "front",
      "bottom",
    ]);
  });
  it("droops above and below, so that only back and front tell where it stands", () => {
    const { radiusMm } = tipAt(stateOf(lane));
    const heightMm = heightNowMm(stateOf(lane), lane.seen.lathe.station);
    // on a boss half the difference is the error, its sign turned: the tool stands at +radius, the chuck's axis at 0
    expect((at180 - at0) / 2).toBeCloseTo(-radiusMm, 2);
    // each of them carries 18 micrometres of droop, one the other way
    expect((at270 - at90) / 2).toBeCloseTo(-heightMm - 0.018, 2);
  });
});

it("nothing that was heard or felt outlives a tool change", () => {
  const lane = running("collar-five-tools-face");
  standAt(lane, 0.2, 6);
  for (let turn = 0; turn < 20 && lane.seen.lathe.heard === "air"; turn++) clicks(lane, "x", 10, "middle");
  expect(lane.seen.lathe.heard).toBe("scrapes");
  lane.do({ type: "runBlock", text: "G53 G0 X0" });
  lane.do({ type: "runBlock", text: "G53 G0 Z0" });
  const { station } = lane.seen.lathe;
  const other = lane.seen.sheet.lathe.tools.find(({ number }) => number !== station)?.number ?? 0;
  lane.do({ type: "index", station: other, withOffset: false });
  expect(lane.seen.lathe).toMatchObject({ station: other, heard: "air", isResting: false, gap: null, block: null });
  expect(stateOf(lane).lathe).toMatchObject({ heard: null, lastTry: null, sighted: null });
});

describe("a thread's Z by the side of its tool", () => {
  const THREAD = "collar-thread-side";
  const SIDE_MM = 1.6;
  /** With the point so far inside the rim of the faced end, and the side so far before it, as it truly is, mm. */
  const before = (overlapMm: number, sideMm: number): Lane => {
    const lane = laneOf(THREAD);
    lane.do({ type: "home" });
    lane.do({ type: "index", station: 5, withOffset: false });
    const state = stateOf(lane);
    const rim = state.lathe.outer
      .filter((step) => step.radiusMm > 1)
      .reduce((last, step) => (step.toMm > last.toMm ? step : last));
    const { radiusMm, zMm } = tipAt(state);
    const mm = (axis: "x" | "z") => toMm(state.position[axis], state.scale);
    lane.do({ type: "runBlock", text: `G53 G0 Z${(mm("z") + rim.toMm + sideMm - zMm).toFixed(3)}` });
    lane.do({
      type: "runBlock",
      text: `G53 G0 X${(mm("x") + 2 * (rim.radiusMm - overlapMm - radiusMm)).toFixed(3)}`,
    });
    return lane;
  };
  it("the side meets the face where it stands over it", () =>
    expect(gapMm(stateOf(before(6, 2)), "face")).toBeCloseTo(2, 2));
  it("a point only a millimetre inside the rim meets it with its flank: later by 1.6 − 1/√3", () =>
    expect(gapMm(stateOf(before(1, 2)), "face")).toBeCloseTo(2 + SIDE_MM - 1 / Math.sqrt(3), 2));
  it("on a diameter it is the point that counts, which trails the side", () => {
    const over = (sideMm: number) => gapMm(stateOf(before(-1, sideMm)), "diameter");
    expect(over(-1)).toBeNull();
    expect(over(-1.7)).toBeCloseTo(1, 2);
  });
  it("a few tenths along Z cost nothing, a millimetre does", () => {
    const marked = (offMm: number) => {
      const lane = laneOf(THREAD);
      workUpTo(lane, ({ type }) => type === "handIn");
      lane.do({ type: "typeRegister", register: "Z5", text: offMm.toFixed(3), how: "add", isConfirmed: true });
      lane.do({ type: "handIn" });
      const value = rule(lane.log, findDemoExercise(THREAD).marking).values.find(({ target }) => target.id === "Z5");
      return (value?.marks ?? 0) / (value?.outOf ?? 1);
    };
    expect(marked(0.15)).toBe(1);
    expect(marked(1)).toBe(0);
  });
});
