import { beforeAll, describe, expect, it } from "vitest";
import { latheLane, millLane, workLane, type LaneDriver } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { decide, evolve, partsCut, replay, type Command, type MillSeen } from "../bench";
import type { LoggedEvent } from "../diagnosis";
import { isValueRight, rule, withOverrides, type Finding } from "../grading";
import { callable } from "../grading/parts";
import { skillsShown } from "../skills";
import { partCause, partMovedBy } from "../words";

const clamp = findDemoExercise("clamp-first-part");
const knob = findDemoExercise("knob-first-part");
type Habits = Parameters<typeof workLane>[1];

const fail = (): never => {
  throw new Error("nothing there");
};

/** Which steps of proving were done. */
const steps = (findings: readonly Finding[]) =>
  Object.fromEntries(
    findings.flatMap((one) =>
      one.code === "stepDone" || one.code === "stepMissed" ? [[one.step, one.code === "stepDone"]] : [],
    ),
  );

function clampBy(seed: string, habits: Habits = {}): LaneDriver<MillSeen> {
  const lane = millLane(clamp.exercise, seed);
  workLane(lane, habits);
  return lane;
}
const ruled = (lane: { readonly log: readonly LoggedEvent[] }) => rule(lane.log, clamp.marking);

/** A clamp whose first part is cut and not yet measured; hands may be at it. */
const cutClamp = (seed = "cut", isCoachOn = false) => cutPart(clamp.exercise, 1060, seed, isCoachOn);

function cutPart(
  exercise: typeof clamp.exercise,
  number: number,
  seed: string,
  isCoachOn = false,
): LaneDriver<MillSeen> {
  const lane = millLane(exercise, seed, { isCoachOn });
  workLane(lane, { stopsAfter: "zero" });
  lane.do({ type: "runBlock", text: "G53 G0 Z0" });
  lane.do({ type: "setDoor", isOpen: true });
  lane.do({ type: "unload" });
  lane.do({ type: "setDoor", isOpen: false });
  lane.do({ type: "loadProgram", number, isConfirmed: false });
  return lane;
}
function run(lane: LaneDriver<MillSeen>): void {
  if (lane.seen.isDoorOpen) lane.do({ type: "setDoor", isOpen: false });
  lane.do({ type: "startCycle" });
  for (let turn = 0; turn < 500 && lane.state.program.run; turn++) lane.do({ type: "runOn", ms: 20_000 });
  lane.do({ type: "setDoor", isOpen: true });
}
const refusal = (lane: LaneDriver<MillSeen>, command: Command) => lane.attempt(command)?.code ?? null;
const last = (lane: LaneDriver<MillSeen>) => lane.seen.program?.parts?.figures.at(-1);

describe("a part is measured", () => {
  let lane: LaneDriver<MillSeen>;
  beforeAll(() => {
    lane = cutClamp();
  });

  it("only where hands may be, once something was cut, and with what can read it", () => {
    const width: Command = { type: "measurePart", feature: "tongue, width", with: "micrometer" };
    expect(refusal(lane, width)).toBe("doorShutReach");
    lane.do({ type: "setDoor", isOpen: true });
    expect(refusal(lane, width)).toBe("partNotCut");
    expect(refusal(lane, { type: "judgePart", verdict: "good" })).toBe("partNotCut");
    expect(refusal(lane, { type: "takeBlank" })).toBe("partNotCut");
    run(lane);
    expect(refusal(lane, { type: "judgePart", verdict: "good" })).toBe("figureFirst");
    expect(refusal(lane, { ...width, with: "boreGauge" })).toBe("doesNotMeasureThat");
    expect(refusal(lane, { ...width, feature: "tongue" })).toBe("featureNotHere");
    expect(refusal(lane, { type: "tryGauge", with: "gaugeStack", feature: "tongue, width", text: "20" })).toBe(
      "doesNotMeasureThat",
    );
    expect(refusal(lane, { type: "tryGauge", with: "gaugeStack", feature: "pocket, width", text: "0.9" })).toBe(
      "gaugeTooLittle",
    );
    expect(refusal(lane, { type: "tryGauge", with: "gaugeStack", feature: "pocket, width", text: "ten" })).toBe("text");
    expect(refusal(lane, width)).toBeNull();
  });

  it("warm it reads large, by the steel's own growth; once cool there is nothing to wait for", () => {
    const warm = last(lane)?.mm ?? NaN;
    expect(last(lane)).toMatchObject({ isWarm: true, reallyMm: null });
    lane.do({ type: "letCool" });
    lane.do({ type: "measurePart", feature: "tongue, width", with: "micrometer" });
    const cool = last(lane)?.mm ?? NaN;
    // 20 mm by 11.5 µm for each metre and degree, 6 to 12 degrees warmer: 1.4 to 2.8 µm, read in steps of 1
    expect(warm - cool).toBeGreaterThan(0);
    expect(warm - cool).toBeLessThan(0.005);
    expect(refusal(lane, { type: "letCool" })).toBe("partIsCool");
  });

  it("is not touched by hand where metal is gone: nothing is struck there, and everywhere else it is as it was", () => {
    const other = cutClamp("touched");
    run(other);
    other.do({ type: "setDoor", isOpen: false });
    // beside the tongue and up again, over the pocket, and down at the end of the part
    expect(refusal(other, { type: "runBlock", text: "G90 G54 G0 X42 Y-30" })).toBeNull();
    expect(refusal(other, { type: "runBlock", text: "G43 H2 Z10" })).toBeNull();
    const { position, incidents } = other.state;
    expect(refusal(other, { type: "runBlock", text: "Y24 Z-1" })).toBe("cutAway");
    expect(other.state.position).toEqual(position);
    expect(refusal(other, { type: "runBlock", text: "X42 Y24" })).toBeNull();
    for (let click = 0; click < 7; click++)
      other.do({ type: "jog", axis: "z", direction: -1, clicks: 1, size: "rapid" });
    expect(refusal(other, { type: "jog", axis: "z", direction: -1, clicks: 3, size: "rapid" })).toBe("cutAway");
    expect(refusal(other, { type: "jog", axis: "z", direction: 1, clicks: 5, size: "rapid" })).toBeNull();
    expect(other.state.incidents).toEqual(incidents);
    // where nothing was cut it is struck like any blank
    expect(refusal(other, { type: "runBlock", text: "X42 Y34.5 Z-20" })).toBe("cutAway");
    expect(refusal(other, { type: "runBlock", text: "G53 G0 Z0" })).toBeNull();
    other.do({ type: "setDoor", isOpen: true });
    other.do({ type: "takeBlank" });
    other.do({ type: "setDoor", isOpen: false });
    expect(refusal(other, { type: "runBlock", text: "G0 X42 Y24" })).toBeNull();
    expect(refusal(other, { type: "runBlock", text: "Z-1" })).toBeNull();
    expect(other.state.incidents.length).toBe(incidents.length + 1);
  });

  it("is not touched by hand on a lathe either", () => {
    const worked = latheLane(knob.exercise, "touched");
    workLane(worked, { corrects: "nothing", measuresNothing: true });
    const events = worked.log.map(({ event }) => event).filter(({ type }) => type !== "handedIn");
    let state = replay(events);
    const block = (text: string): string | null => {
      const decision = decide(state, { type: "runBlock", text });
      if (!decision.ok) return decision.error.code;
      state = decision.value.reduce((on, event) => evolve(on, event), state);
      return null;
    };
    const { incidents, isDoorOpen } = state;
    expect(isDoorOpen).toBe(false);
    expect(block("G0 X46 Z-6")).toBeNull();
    expect(block("X34")).toBe("cutAway");
    expect(block("X60 Z10")).toBeNull();
    expect(block("X30")).toBeNull();
    expect(block("Z-3")).toBe("cutAway");
    expect(state.incidents).toEqual(incidents);
  });

  it("again tells no more, another instrument has an error of its own", () => {
    const read = (by: "caliper" | "micrometer") => {
      lane.do({ type: "measurePart", feature: "tongue, width", with: by });
      return last(lane)?.mm ?? NaN;
    };
    expect(new Set([1, 2, 3, 4].map(() => read("micrometer"))).size).toBe(1);
    const caliper = read("caliper");
    expect(Math.round(caliper * 1000) % 20).toBe(0);
    expect(read("caliper")).toBe(caliper);
  });

  it("a plug goes into a bore or does not; it errs by what it is, which another part does not change", () => {
    const plate = cutPart(findDemoExercise("plate-first-part").exercise, 2060, "plug");
    const largest = (): number => {
      const bore =
        partsCut(plate.state)
          .at(-1)
          ?.features.find(({ name }) => name === "bore, diameter")?.actualMm ?? fail();
      const sizes = Array.from({ length: 41 }, (_, i) => Math.round(bore * 1000) / 1000 + (i - 20) / 1000);
      const answers = sizes.map((size) => {
        const text = size.toFixed(3);
        plate.do({ type: "tryGauge", with: "plug", feature: "bore, diameter", text });
        return last(plate)?.goes;
      });
      const stays = answers.indexOf(false);
      expect(answers.slice(stays).every((one) => one === false)).toBe(true);
      return (sizes[stays - 1] ?? fail()) - bore;
    };
    run(plate);
    plate.do({ type: "letCool" });
    expect(refusal(plate, { type: "tryGauge", with: "plug", feature: "slot, width", text: "10" })).toBe(
      "doesNotMeasureThat",
    );
    expect(refusal(plate, { type: "tryGauge", with: "plug", feature: "bore, middle from X 0", text: "24" })).toBe(
      "doesNotMeasureThat",
    );
    const first = largest();
    expect(Math.abs(first)).toBeLessThan(0.005);
    plate.do({ type: "typeRegister", register: "DW2", text: "0.011", how: "add", isConfirmed: true });
    plate.do({ type: "takeBlank" });
    run(plate);
    plate.do({ type: "letCool" });
    // read in steps of a thousandth
    expect(Math.abs(largest() - first)).toBeLessThanOrEqual(0.001 + 1e-9);
  });

  it("one stack goes, the next one does not", () => {
    const goes = (size: number) => {
      lane.do({ type: "tryGauge", with: "gaugeStack", feature: "pocket, width", text: size.toFixed(3) });
      return last(lane)?.goes;
    };
    const sizes = Array.from({ length: 80 }, (_, i) => 9.95 + i / 1000);
    const answers = sizes.map(goes);
    const first = answers.indexOf(false);
    expect(first).toBeGreaterThan(0);
    expect(answers.slice(first).every((one) => one === false)).toBe(true);
  });

  it("tells nothing of what it really is before the hand-in, and in practice only of what was read", () => {
    expect(JSON.stringify(lane.seen)).not.toContain('"reallyMm":1');
    const practice = cutClamp("practice", true);
    run(practice);
    practice.do({ type: "measurePart", feature: "tongue, depth", with: "depthMicrometer" });
    expect(last(practice)?.reallyMm).toBeCloseTo(6, 1);
  });

  it("as many blanks as there are, and no more", () => {
    lane.do({ type: "judgePart", verdict: "rework" });
    lane.do({ type: "takeBlank" });
    expect(lane.seen.program?.parts).toMatchObject({ current: 2, cut: 0, isWarm: false });
    expect(refusal(lane, { type: "takeBlank" })).toBe("partNotCut");
    run(lane);
    lane.do({ type: "takeBlank" });
    run(lane);
    expect(refusal(lane, { type: "takeBlank" })).toBe("noBlankLeft");
    // a third part is worn a little more than the first, and nothing else
    const widths = partsCut(lane.state).map(({ features }) => features[0]?.actualMm ?? NaN);
    expect(widths).toHaveLength(3);
    const wear = lane.state.truth.cutting?.wearMm[1] ?? NaN;
    expect((widths[2] ?? NaN) - (widths[0] ?? NaN)).toBeCloseTo(4 * wear, 3);
  });
});

describe("a part is put right", () => {
  it("by careful students, on both machines, from parts that a right setup left off", () => {
    for (const seed of ["a", "b", "c"]) {
      const onMill = ruled(clampBy(seed));
      expect(onMill.total, seed).toBe(100);
      expect(onMill.parts?.map(({ said }) => said)).toEqual(["rework", "good"]);
      expect(onMill.firstPart).toBeUndefined();
      const lane = latheLane(knob.exercise, seed);
      workLane(lane, {});
      const onLathe = rule(lane.log, knob.marking);
      expect(onLathe.total, seed).toBe(100);
      expect(onLathe.parts?.[1]?.features.every(({ verdict }) => verdict === "good")).toBe(true);
    }
  });

  it("what nobody could have known is told as what it is, beside what no register moves", () => {
    const { parts = [], values } = ruled(clampBy("a"));
    const tongue = parts[0]?.features[0];
    if (!tongue) throw new Error("no tongue");
    expect(tongue.stillMm).toBeCloseTo(20, 2);
    expect(partCause(tongue, parts[0] ?? fail(), values, "mm")).toMatch(
      /^What tool and machine gave way, wore and grew warm moves it by \+0\.0\d\d\.$/,
    );
  });

  it("values are marked as they stood when it was cut: what a part tells sets nothing right afterwards", () => {
    const lane = cutClamp("known");
    const add = (text: string) =>
      lane.do({ type: "typeRegister", register: "H1", text, how: "add", isConfirmed: true });
    add("-0.3");
    run(lane);
    lane.do({ type: "measurePart", feature: "tongue, depth", with: "depthMicrometer" });
    add("0.3");
    lane.do({ type: "handIn" });
    const z1 = ruled(lane).values.find(({ target }) => target.registers.includes("H1"));
    expect(z1?.closureMm).toBeCloseTo(-0.3, 1);
    // without a measure the same values are right
    const other = cutClamp("known");
    other.do({ type: "typeRegister", register: "H1", text: "-0.3", how: "add", isConfirmed: true });
    run(other);
    other.do({ type: "typeRegister", register: "H1", text: "0.3", how: "add", isConfirmed: true });
    other.do({ type: "handIn" });
    expect(ruled(other).values.find(({ target }) => target.registers.includes("H1"))?.closureMm).toBeCloseTo(0, 1);
  });

  it("nor does a feature that is looked for and not there: a line that is cut deeper and deeper finds no height", () => {
    const lane = cutClamp("thief");
    const add = (text: string) =>
      lane.do({ type: "typeRegister", register: "H1", text, how: "add", isConfirmed: true });
    // skims so high that the floor is not where it is looked for, then asks
    for (const [line, text] of [
      [10, "N70 G1 Z-2.9 F200"],
      [14, "N110 G1 Z-2.9 F200"],
      [19, "N150 G1 Z-2.9 F200"],
      [25, "N210 G1 Z-2.9 F200"],
    ] as const)
      lane.do({ type: "mendLine", line, text });
    add("0.1");
    run(lane);
    expect(refusal(lane, { type: "measurePart", feature: "tongue, depth", with: "depthMicrometer" })).toBe(
      "featureNotCut",
    );
    add("-0.1");
    lane.do({ type: "handIn" });
    // as it stood when that was cut: 0.1 too long
    const z1 = ruled(lane).values.find(({ target }) => target.registers.includes("H1"));
    expect(z1?.closureMm).toBeCloseTo(0.1, 1);
  });

  it.each<[string, Habits, Record<string, boolean>]>([
    ["the wrong way", { corrects: "wrongWay" }, { correctedInWear: false, secondPartGood: false, partMeasured: true }],
    ["in geometry", { corrects: "inGeometry" }, { correctedInWear: false, secondPartGood: true }],
    ["not at all", { corrects: "nothing" }, { correctedInWear: false, secondPartGood: false, partJudged: true }],
    ["measured with whatever lies there, warm", { measuresCarelessly: true }, { partMeasured: false }],
    ["measured not at all", { measuresNothing: true }, { partMeasured: false, partJudged: false, ranThrough: true }],
  ])("%s: the ruling says so", (_how, habits, expected) => {
    const ruling = ruled(clampBy("a", habits));
    expect(steps(ruling.findings)).toMatchObject(expected);
    // the setup was right, whatever was made of its part
    expect(ruling.strands.find(({ name }) => name === "values")).toMatchObject({ marks: 30, outOf: 30 });
  });

  it("a setup mistake stands behind the feature that it put off, by its own register", () => {
    const { parts = [], values } = ruled(clampBy("a", { radius: { y: "forgotten" }, corrects: "nothing" }));
    const wall = parts[0]?.features.find(({ name }) => name === "tongue, front wall from Y 0");
    if (!wall) throw new Error("no wall");
    expect(wall.verdict).not.toBe("good");
    expect(partCause(wall, parts[0] ?? fail(), values, "mm")).toMatch(/^G54 Y moves it by [+−-]/);
    expect(parts[0]?.features.find(({ name }) => name === "tongue, width")?.actualMm).toBeCloseTo(20.04, 1);
  });

  it("the setup of a good part is kept, over another only when that is said; what was changed after is not it", () => {
    const lane = clampBy("a", { corrects: "nothing" });
    expect(steps(ruled(lane).findings)).toMatchObject({ setupSaved: false });
    const other = millLane(clamp.exercise, "a");
    workLane(other, {});
    const { saved } = other.seen.program?.parts ?? {};
    expect(saved).toMatchObject({ initials: "PL", part: 2, program: 1060 });
    expect(saved?.registers).toEqual(other.seen.registers);
    // somebody who saves before it is good, without letters, twice, or after a change
    const slow = cutClamp("slow");
    const save = (initials: string, isConfirmed = false): Command => ({ type: "saveSetup", initials, isConfirmed });
    run(slow);
    expect(refusal(slow, save("OB"))).toBe("goodPartFirst");
    slow.do({ type: "measurePart", feature: "tongue, width", with: "micrometer" });
    slow.do({ type: "judgePart", verdict: "good" });
    expect(refusal(slow, save("12"))).toBe("initialsUnread");
    slow.do({ type: "typeRegister", register: "DW1", text: "0.01", how: "add", isConfirmed: true });
    slow.do(save("o.b."));
    expect(refusal(slow, save("PL"))).toBe("savedAlready");
    expect(refusal(slow, save("PL", true))).toBeNull();
    slow.do({ type: "handIn" });
    expect(steps(ruled(slow).findings)).toMatchObject({ setupSaved: false });
  });

  it("a clamp cut once more with less wear is the same blank, cut deeper", () => {
    const lane = cutClamp("rework");
    run(lane);
    const [first] = partsCut(lane.state);
    lane.do({ type: "typeRegister", register: "DW1", text: "-0.1", how: "add", isConfirmed: true });
    run(lane);
    const [, second] = partsCut(lane.state);
    expect(second).toMatchObject({ part: 1, cut: 2 });
    const width = (part: typeof first) => part?.features[0]?.actualMm ?? NaN;
    // no stock beside it is left to bend the cutter but the 0.05 a side that are asked for, and what it had given way
    expect(width(first) - width(second)).toBeGreaterThan(0.1);
    lane.do({ type: "measurePart", feature: "tongue, width", with: "micrometer" });
    expect(last(lane)).toMatchObject({ part: 1, cut: 2 });
    lane.do({ type: "handIn" });
    // the last run knows nothing of what the one before took away: nothing is said of springs and values
    const { parts: [part] = [], values } = ruled(lane);
    expect(part).toMatchObject({ cuts: 2, isByValues: false });
    const off = part?.features.find(({ verdict }) => verdict !== "good");
    expect(off && part && partCause(off, part, values, "mm")).toBe(
      "It was cut 2 times: what any of its runs took away is gone.",
    );
  });

  it("a run in the air, and one that was broken off before it cut, are no cuts of the part", () => {
    const lane = cutClamp("three runs");
    const lift = (text: string) =>
      lane.do({ type: "typeRegister", register: "common.z", text, how: "set", isConfirmed: true });
    lift("30");
    run(lane);
    lift("0");
    lane.do({ type: "setDoor", isOpen: false });
    lane.do({ type: "startCycle" });
    lane.do({ type: "runOn", ms: 200 });
    lane.do({ type: "reset" });
    run(lane);
    lane.do({ type: "measurePart", feature: "tongue, width", with: "micrometer" });
    lane.do({ type: "handIn" });
    const { parts: [part] = [], values } = ruled(lane);
    expect(part).toMatchObject({ cuts: 1, isByValues: true });
    const tongue = part?.features[0] ?? fail();
    expect(tongue.stillMm).toBeCloseTo(20, 2);
    expect(part && partCause(tongue, part, values, "mm")).toMatch(/^What tool and machine gave way/);
  });

  it("a run that was broken off leaves what it cut, and of what moves that nothing is known", () => {
    const lane = cutClamp("broken off");
    lane.do({ type: "typeRegister", register: "G54.z", text: "-4.5", how: "add", isConfirmed: true });
    lane.do({ type: "startCycle" });
    for (let turn = 0; turn < 500 && lane.state.program.run; turn++) lane.do({ type: "runOn", ms: 5000 });
    expect(lane.state.program.last?.why).toBe("contact");
    lane.do({ type: "reset" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "measurePart", feature: "tongue, depth", with: "depthMicrometer" });
    lane.do({ type: "handIn" });
    const { parts: [part] = [], values } = ruled(lane);
    const depth = part?.features.find(({ name }) => name === "tongue, depth") ?? fail();
    expect(depth.actualMm).toBeCloseTo(10.5, 1);
    expect(part && partMovedBy(depth, part)).toBe("not known");
    expect(part && partCause(depth, part, values, "mm")).toBeNull();
  });

  it("what may be said of a part that lies on its limit is either", () => {
    const [tongue] = clamp.exercise.program?.features ?? [];
    if (!tongue) throw new Error("no tongue");
    const at = (actualMm: number) =>
      [...callable([tongue], { features: [{ name: tongue.name, actualMm, verdict: "good" }] })].sort();
    expect(at(20)).toEqual(["good"]);
    expect(at(20.028)).toEqual(["good", "rework"]);
    expect(at(20.05)).toEqual(["rework"]);
    expect(at(19.968)).toEqual(["good", "scrap"]);
  });
});

describe("a part that was cut beside its place", () => {
  it("has its features all the same, measured or only reckoned: 10 mm off in Y the tongue is 20 wide", () => {
    const lane = clampBy("a", { radius: { y: "turned" }, measuresNothing: true });
    const { firstPart = [] } = ruled(lane);
    const named = (name: string) => firstPart.find((one) => one.name === name);
    expect(named("tongue, width")?.actualMm).toBeCloseTo(20, 1);
    expect(named("pocket, depth")?.verdict).toBe("good");
    expect(named("tongue, front wall from Y 0")?.actualMm).toBeCloseTo(4, 1);
  });
});

describe("what stands over points", () => {
  it("a program that would strike as it is handed in is not passed, whatever its points, and shows no skill", () => {
    const good = millLane(clamp.exercise, "a");
    workLane(good, {});
    expect(ruled(good).notPassed).toBeUndefined();
    expect(skillsShown(ruled(good)).every(({ isGood }) => isGood)).toBe(true);
    const lane = cutClamp("strikes");
    lane.do({ type: "typeRegister", register: "H1", text: "-8", how: "add", isConfirmed: true });
    lane.do({ type: "handIn" });
    const ruling = ruled(lane);
    expect(ruling.notPassed).toEqual({ missed: ["runsClear"], capPercent: 40 });
    expect(ruling.total).toBe(40);
    expect(ruling.strands.reduce((sum, { marks }) => sum + marks, 0)).toBeGreaterThan(40);
    expect(skillsShown(ruling).some(({ isGood }) => isGood)).toBe(false);
    // marks that an instructor gives lift no lane over what it misses
    const over = { strand: "proving", marks: 30, reason: "seen at the machine", by: "marrow", at: "now" } as const;
    expect(withOverrides(ruling, [over]).total).toBe(40);
    // where nothing stands over points, points are points
    const { mustHaves: _none, ...plain } = clamp.marking;
    expect(rule(lane.log, plain)).not.toHaveProperty("notPassed");
    expect(rule(lane.log, plain).total).toBeGreaterThan(40);
  });

  it("nor is one without a check", () => {
    const ruling = ruled(clampBy("a", { skipsLook: true }));
    expect(ruling.notPassed?.missed).toEqual(["checked"]);
  });
});

describe("a setup mistake that reaches the part", () => {
  const mistakes: readonly (readonly [string, Habits, string])[] = [
    ["the radius forgotten in X", { radius: { x: "forgotten" } }, "x"],
    ["the radius turned in Y", { radius: { y: "turned" } }, "y"],
    ["the diameter for the radius in X", { radius: { x: "diameter" } }, "x"],
    ["a radius where a diameter belongs", { radiusForDiameter: 1 }, "d1"],
    ["the nominal diameter for the measured one", { nominalForMeasured: 1 }, "n"],
  ];
  it.each(mistakes)("%s is named, and its register among those that move what is wrong", (_name, habits, axis) => {
    for (let seed = 0; seed < 4; seed++) {
      const lane = clampBy(`mistake ${axis} ${seed}`, { ...habits, corrects: "nothing" });
      const { values, parts = [] } = ruled(lane);
      const wrong = values.filter((value) => !isValueRight(value));
      expect(wrong.length, `seed ${seed}`).toBeGreaterThan(0);
      for (const { cause } of wrong) expect(["proven", "inferred"]).toContain(cause.kind);
      // where it ran to its end, what is off by more than what gave way is moved by what was set wrong
      const registers = wrong.flatMap(({ target }) => target.registers);
      for (const { verdict, stillMm, nominalMm, movedBy, name } of parts[0]?.features ?? [])
        if (verdict !== "good" && stillMm !== null && Math.abs(stillMm - nominalMm) > 0.03)
          expect(
            movedBy.some(({ register }) => registers.includes(register)),
            name,
          ).toBe(true);
    }
  });
});
