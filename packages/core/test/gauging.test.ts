import { describe, expect, it } from "vitest";
import { millLane, workLane, type LaneDriver } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { decide, partsCut, type MillSeen } from "../bench";
import { rule } from "../grading";
import { endWords, partCause } from "../words";

const gauged = findDemoExercise("clamp-gauged-slot");
const believed = findDemoExercise("clamp-probe-believed");
const PROGRAM = 1070;
const LINES = { low: 9, before: 23, probe: 35, down: 39, width: 40, floor: 41, decides: 67, end: 71 } as const;

const fail = (): never => {
  throw new Error("nothing there");
};
const sound = (seed: string) => millLane(gauged.exercise, seed).state.truth.programFault === null;
const seeds = Array.from({ length: 40 }, (_, at) => `gauged ${at}`);
const [seed = fail()] = seeds.filter(sound);

/** A careful setup with the program loaded, lines of it changed by hand. */
function ready(of = seed, mended: Readonly<Record<number, string>> = {}): LaneDriver<MillSeen> {
  const lane = millLane(gauged.exercise, of);
  workLane(lane, { stopsAfter: "zero" });
  lane.do({ type: "runBlock", text: "G53 G0 Z0" });
  lane.do({ type: "setDoor", isOpen: true });
  if (lane.seen.holds !== null) lane.do({ type: "unload" });
  lane.do({ type: "setDoor", isOpen: false });
  lane.do({ type: "loadProgram", number: PROGRAM, isConfirmed: false });
  for (const [line, text] of Object.entries(mended)) lane.do({ type: "mendLine", line: Number(line), text });
  return lane;
}
function run(lane: LaneDriver<MillSeen>, ms = 20_000): LaneDriver<MillSeen> {
  lane.do({ type: "startCycle" });
  for (let turn = 0; turn < 3000 && lane.state.program.run; turn++) lane.do({ type: "runOn", ms });
  return lane;
}
const told = (lane: LaneDriver<MillSeen>) => lane.state.program.gauged;
const wears = ({ state }: LaneDriver<MillSeen>) => [state.registers.diameterWear[1], state.registers.lengthWear[1]];
const last = (lane: LaneDriver<MillSeen>) => lane.state.program.last;

it("a probe asked by hand is sent nowhere that metal is gone: the bench touches blanks; beside it it answers", () => {
  const lane = run(ready());
  lane.do({ type: "setDoor", isOpen: true });
  if (lane.seen.holds !== null) lane.do({ type: "unload" });
  lane.do({ type: "load", thing: "probe" });
  lane.do({ type: "setDoor", isOpen: false });
  const asked = (x: number): string | null => {
    lane.do({ type: "runBlock", text: `G90 G54 G0 X${x} Y24` });
    lane.do({ type: "runBlock", text: "G43 H8 Z6" });
    const decision = decide(lane.state, { type: "askProbe", question: "surface", size: "12" });
    return decision.ok ? null : decision.error.code;
  };
  // over the slot, and 20 mm before its end
  expect(asked(42)).toBe("cutAway");
  expect(asked(10)).toBeNull();
  lane.do({ type: "askProbe", question: "surface", size: "12" });
  expect(lane.state.desk.readings.at(-1)).toMatchObject({ what: "surface", outcome: "found" });
});

describe("a program that gauges", () => {
  it("writes the wear of the tool that cut, against what that way was to leave, and the part is good by it", () => {
    const lane = run(ready());
    const [width, floor, again, below] = told(lane);
    // 5.8 to each side, and 7.8 deep, is what the way before the finish was to leave
    expect(width).toMatchObject({ line: LINES.width, axis: "y", targetMm: 11.6, register: "DW1", outcome: "written" });
    expect(floor).toMatchObject({ line: LINES.floor, axis: "z", targetMm: 7.8, register: "HW1", outcome: "written" });
    // all of what is off, in counts of a thousandth
    const counts = [width, floor].map((one = fail()) => Math.round((one.mm - one.targetMm) * 1000));
    expect(wears(lane)).toEqual(counts);
    expect(again).toMatchObject({ outcome: "good", targetMm: 12.02, register: null });
    expect(below).toMatchObject({ outcome: "good", targetMm: 8 });
    expect(last(lane)).toMatchObject({ why: "end", line: LINES.end });
    expect(
      partsCut(lane.state)
        .at(-1)
        ?.features.map(({ verdict }) => verdict),
    ).toEqual(["good", "good", "good"]);
    // the probe errs by a few thousandths of what is really there, and the wear of the probe’s own row is no wear
    for (const one of told(lane)) expect(Math.abs(one.mm - one.reallyMm)).toBeLessThan(0.006);
    expect(lane.state.registers.lengthWear[8] ?? 0).toBe(0);
  });

  it("in steps of a moment comes to the same: the probe goes to the walls and back", () => {
    const lane = ready();
    lane.do({ type: "startCycle" });
    const seen = new Set<number>();
    for (let turn = 0; turn < 6000 && lane.state.program.run; turn++) {
      const { line } = lane.state.program.run;
      const slowly = line >= LINES.down && line <= LINES.width ? 15 : 120;
      lane.do({ type: "runOn", ms: line >= LINES.before ? slowly : 20_000 });
      if (lane.state.program.run?.line === LINES.width) seen.add(lane.state.position.y);
    }
    expect(told(lane)).toEqual(told(run(ready())));
    // a slot of 11.58 under a ball of 6: about 2.8 to each side
    const [low, high] = [Math.min(...seen), Math.max(...seen)];
    expect((high - low) / 1000).toBeCloseTo(5.58, 1);
  });

  it("aims at what the way was run with: a second gauging of it wants the same, and corrections add", () => {
    const lane = run(ready(seed, { [LINES.floor]: "G65 P9501 J1. Q200 E100. W0.15" }));
    const [first = fail(), second = fail()] = told(lane);
    expect([second.targetMm, second.mm, second.changeMm]).toEqual([first.targetMm, first.mm, first.changeMm]);
    expect(wears(lane)[0]).toBe(Math.round(2 * (first.mm - first.targetMm) * 1000));
    const deep = run(ready(seed, { [LINES.width]: "G65 P9501 K1. Q200 E100. W0.15" }));
    expect(told(deep)[1]?.targetMm).toBe(told(deep)[0]?.targetMm);
  });

  it("by half where half is said", () => {
    const lane = run(ready(seed, { [LINES.width]: "G65 P9501 J1. Q200 E50. W0.15" }));
    const [width = fail()] = told(lane);
    expect(wears(lane)[0]).toBe(Math.round(((width.mm - width.targetMm) / 2) * 1000));
  });

  it("beyond its limit is an alarm, and nothing is written: the rough way was meant by mistake", () => {
    const lane = run(ready(seed, { [LINES.width]: "G65 P9501 J1. Q120 E100. W0.15" }));
    // 5.6 to each side is what that way was to leave; 0.4 more is there
    expect(told(lane)).toMatchObject([{ outcome: "tooMuch", targetMm: 11.2, register: "DW1" }]);
    expect(told(lane)[0]?.changeMm).toBeCloseTo(0.39, 1);
    expect(wears(lane)).toEqual([0, 0]);
    expect(last(lane)).toMatchObject({ why: "alarm", line: LINES.width, code: "tooMuch" });
    expect(endWords(last(lane) ?? fail())).toBe(
      "Line 40: Alarm: what it would write is more than its limit; nothing was written.",
    );
  });

  it("stops where metal is left, and scribes where it is gone", () => {
    const left = run(ready(seed, { [LINES.decides]: "G65 P9502 J1. S12.1 A0.02" }));
    expect(last(left)).toMatchObject({ why: "alarm", code: "metalLeft", line: LINES.decides });
    const gone = run(ready(seed, { [LINES.decides]: "G65 P9502 J1. S11.9 A0.02" }));
    expect(told(gone).find(({ line }) => line === LINES.decides)).toMatchObject({ outcome: "scribed" });
    // a mark is no stop
    expect(last(gone)).toMatchObject({ why: "end" });
  });

  it.each([
    ["no-probe", { [LINES.probe]: "N400 T1 M6" }],
    ["met-nothing", { [LINES.down]: "N440 G1 Z2. F500" }],
    ["way-not-run", { [LINES.width]: "G65 P9501 J1. Q500 E100. W0.15" }],
  ])("%s stops it at its line", (code, mended) => {
    expect(last(run(ready(seed, mended)))).toMatchObject({ why: "wrong", line: LINES.width, code });
  });

  it("meets the skin where nothing was cut, and stops: no way left anything there", () => {
    const beside = { [LINES.probe + 1]: "N410 G54 G0 X10. Y10.", [LINES.down]: "N440 G1 Z2. F500" };
    const lane = run(ready(seed, { ...beside, [LINES.width]: "G65 P9502 K1. S0. A0.1" }));
    // the skin is the part's own zero, as near as work Z was found
    expect(told(lane)[0]).toMatchObject({ axis: "z", outcome: "good" });
    expect(Math.abs(told(lane)[0]?.mm ?? 1)).toBeLessThan(0.03);
    expect(last(lane)).toMatchObject({ why: "wrong", line: LINES.floor, code: "way-not-run" });
  });

  it("a work Z that is wrong is the probe's too: it reads what is wanted, and the ruling says what it really was", () => {
    const lane = ready();
    lane.do({ type: "typeRegister", register: "G54.z", text: "0.1", how: "add", isConfirmed: true });
    run(lane);
    const [, floor = fail()] = told(lane);
    // a floor that stands 0.1 too high is read as if it stood right
    expect(floor.mm - floor.reallyMm).toBeCloseTo(0.1, 2);
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "measurePart", feature: "slot, depth", with: "depthMicrometer" });
    lane.do({ type: "handIn" });
    const ruling = rule(lane.log, gauged.marking);
    const [part = fail()] = ruling.parts ?? [];
    const cause = partCause(part.features[1] ?? fail(), part, ruling.values, "mm") ?? "";
    expect(cause).toContain(
      `The program gauged ${floor.mm.toFixed(3)} where it really was ${floor.reallyMm.toFixed(3)}`,
    );
    expect(cause).toContain("its probe counts from the same work Z");
    expect(cause).not.toContain("No value of the setup");
  });

  it("holds a tool against its row: another length is an alarm, and the row stays", () => {
    const checked = { [LINES.low]: "G65 P9503 H1 B0.2" };
    expect(told(run(ready(seed, checked)))[0]).toMatchObject({ outcome: "good", axis: null, register: null });
    const lane = ready(seed, checked);
    const held = lane.state.registers.lengthGeometry[1] ?? 0;
    lane.do({ type: "typeRegister", register: "H1", text: "0.5", how: "add", isConfirmed: true });
    run(lane);
    expect(last(lane)).toMatchObject({ why: "alarm", code: "lengthOff" });
    expect(lane.state.registers.lengthGeometry[1]).toBe(held + 500);
  });

  it("tells nothing of what really is before the hand-in", () => {
    const lane = run(ready());
    expect(lane.seen.program?.gauged).toHaveLength(4);
    expect(JSON.stringify(lane.seen)).not.toContain("reallyMm");
  });

  it("tells of the part: a value that is mended by what it printed is marked as it stood before", () => {
    const lane = ready();
    lane.do({ type: "typeRegister", register: "D1", text: "0.08", how: "add", isConfirmed: true });
    run(lane);
    const [width = fail()] = told(lane);
    // a cutter that is believed larger cuts narrower, by as much
    expect(width.changeMm).toBeLessThan(-0.05);
    lane.do({ type: "typeRegister", register: "D1", text: "-0.08", how: "add", isConfirmed: true });
    lane.do({ type: "handIn" });
    const value = rule(lane.log, gauged.marking).values.find(({ target }) => target.id === "d1") ?? fail();
    expect(value.closureMm).toBeCloseTo(0.08, 2);
    expect(value.marks).toBeLessThan(value.outOf);
  });

  it("that names another way is found by looking it up, and a careful hand mends it", () => {
    const faulty = seeds.find((one) => !sound(one)) ?? fail();
    const lane = millLane(gauged.exercise, faulty);
    workLane(lane);
    const looked = lane.log.flatMap(({ event }) =>
      event.type === "lookedUp" && event.ask === "gaugedWay" ? [event] : [],
    );
    expect(looked).toMatchObject([
      { said: "120", isRight: true, isAsItShould: false, isSound: false },
      { said: "200", isRight: true, isAsItShould: true },
    ]);
    const ruling = rule(lane.log, gauged.marking);
    expect(ruling.findings).toContainEqual(expect.objectContaining({ code: "stepDone", step: "programRead" }));
    expect(ruling.total).toBe(100);
  });
});

describe("a probe that is believed", () => {
  const wrong = seeds.filter((one) => millLane(believed.exercise, one).state.truth.doubt !== null).slice(0, 4);
  const work = (of: string) => {
    const lane = millLane(believed.exercise, of);
    workLane(lane, { trustsCard: true });
    return lane;
  };

  it("says good of a slot that is not; a gauge stack tells, the ring puts the probe right, and the next part is good", () => {
    for (const of of wrong) {
      const lane = work(of);
      const byMm = lane.state.truth.doubt?.byMm ?? fail();
      const parts = partsCut(lane.state);
      const [first, second] = [1, 2].map((part) => told(lane).filter((one) => one.part === part));
      // it reads the slot too wide by what both sides of its ball are said too large
      expect((first?.[0]?.mm ?? 0) - (first?.[0]?.reallyMm ?? 0)).toBeCloseTo(2 * byMm, 2);
      expect(first?.map(({ outcome }) => outcome)).toEqual(["written", "written", "good", "good"]);
      expect(parts[0]?.features[0]?.verdict).toBe(byMm > 0 ? "rework" : "scrap");
      expect(lane.log.some(({ event }) => event.type === "calibrated" && event.what === "probeRadius")).toBe(true);
      expect(Math.abs((second?.[0]?.mm ?? 0) - (second?.[0]?.reallyMm ?? 0))).toBeLessThan(0.006);
      expect(parts.at(-1)?.features.every(({ verdict }) => verdict === "good")).toBe(true);
    }
  });

  it("the ruling says that it was misread, by its own figures, and blames no value of the setup", () => {
    const lane = work(wrong[0] ?? fail());
    const ruling = rule(lane.log, believed.marking);
    const [part = fail()] = ruling.parts ?? [];
    const [width = fail()] = part.features;
    const [first = fail()] = part.gauged;
    const cause = partCause(width, part, ruling.values, "mm") ?? "";
    expect(cause).toContain(
      `The program gauged ${first.mm.toFixed(3)} where it really was ${first.reallyMm.toFixed(3)}`,
    );
    expect(cause).not.toMatch(/D1 moves|G54/);
    expect(ruling.findings).toContainEqual(expect.objectContaining({ code: "stepDone", step: "correctedInWear" }));
    expect(ruling.findings).toContainEqual(expect.objectContaining({ code: "stepDone", step: "secondPartGood" }));
    expect(ruling.findings).toContainEqual(expect.objectContaining({ code: "stepDone", step: "setupSaved" }));
  });
});
