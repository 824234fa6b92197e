import { LaneDriver, workLane, type Habits } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { describe, expect, it } from "vitest";
import { exerciseSchema, faultKinds, type Fault, type FaultKind } from "../exercises";
import { rule, type HandoverFinding, type Ruling } from "../grading";
import { skillsShown } from "../skills";
import { causeWords, findingWords } from "../words";

const EVENING = "handed-over-evening";
const MORNING = "handed-over-morning";
const LATHE = "lathe-handed-over";
const TURNING: readonly FaultKind[] = ["neighborRow", "staleWear", "feelerOnce", "bladeEdge", "oldWorkZ", "facedAgain"];
const MILL = faultKinds.filter((kind) => kind === "neighborRow" || kind === "staleWear" || !TURNING.includes(kind));

function open(id: string, seed: string): LaneDriver {
  return new LaneDriver(findDemoExercise(id).exercise, seed);
}
const faultsOf = (lane: LaneDriver): readonly Fault[] => lane.state.truth.faults ?? [];

/** The first lane whose faults are as wanted. */
function laneWith(id: string, isWanted: (kinds: readonly FaultKind[]) => boolean): LaneDriver {
  for (let turn = 0; turn < 400; turn++) {
    const lane = open(id, `hand ${turn}`);
    if (isWanted(faultsOf(lane).map(({ kind }) => kind))) return lane;
  }
  throw new Error("laneWith: no lane has those faults");
}

function ruled(lane: LaneDriver, habits: Habits): Ruling {
  workLane(lane, habits);
  return rule(lane.log, findDemoExercise(lane.state.setup.exerciseId).marking);
}

const ofHandover = ({ findings }: Ruling) =>
  findings.filter((finding): finding is HandoverFinding => /^(fault|sound|verdict)/.test(finding.code));
const proving = ({ strands }: Ruling): number => strands.find(({ name }) => name === "proving")?.marks ?? NaN;
const missed = (ruling: Ruling) =>
  ofHandover(ruling).flatMap((finding) => (finding.code === "faultMissed" ? [[finding.fault.kind, finding.why]] : []));

describe("what is handed over", () => {
  it("is off by exactly what its faults say, and by nothing else but another hand's few micrometres", () => {
    for (let turn = 0; turn < 120; turn++) {
      const lane = open([EVENING, MORNING, LATHE][turn % 3] ?? EVENING, `exact ${turn}`);
      const { values } = rule(lane.log, findDemoExercise(lane.state.setup.exerciseId).marking);
      for (const { target, closureMm } of values) {
        const said = faultsOf(lane)
          .flatMap(({ effects }) => effects)
          .reduce((sum, effect) => sum + (effect.target === target.id ? effect.mm : 0), 0);
        expect(
          Math.abs(closureMm - said),
          `${target.id} of turn ${turn}: ${closureMm}, faults say ${said}`,
        ).toBeLessThan(0.0195);
      }
    }
  });
  it("has every kind of fault in some lane, up to three in one, and is sound in about the stated share", () => {
    const lanes = Array.from({ length: 300 }, (_, turn) =>
      faultsOf(open(EVENING, `draw ${turn}`)).map(({ kind }) => kind),
    );
    expect(new Set(lanes.flat())).toEqual(new Set(MILL.filter((kind) => kind !== "schoolMixed")));
    expect(Math.max(...lanes.map((kinds) => kinds.length))).toBe(3);
    const sound = lanes.filter((kinds) => kinds.length === 0).length / 300;
    expect(sound).toBeGreaterThan(0.13);
    expect(sound).toBeLessThan(0.27);
    for (const kinds of lanes) expect(new Set(kinds).size).toBe(kinds.length);
  });
  it("brings a ledger whose sums stand in the registers, but where the wrong row is the fault", () => {
    const lane = laneWith(EVENING, (kinds) => kinds.length === 0);
    const { ledger, registers } = lane.seen;
    expect(ledger.every(({ isHandedOver }) => isHandedOver)).toBe(true);
    expect(ledger.find(({ register, kind }) => register === "H2" && kind === "sum")?.counts).toBe(
      registers.lengthGeometry[2],
    );
    expect(ledger.find(({ register, kind }) => register === "G54.x" && kind === "sum")?.counts).toBe(
      registers.work.G54.x,
    );
  });
  it("shows nothing of its faults to who looks at the bench: gates name what is to be read, not what is wrong", () => {
    const names = (lane: LaneDriver) => lane.seen.gates.map(({ name }) => name);
    const sound = laneWith(EVENING, (kinds) => kinds.length === 0);
    const faulty = laneWith(EVENING, (kinds) => kinds.length === 3);
    expect(names(faulty)).toEqual(names(sound));
    expect(JSON.stringify(faulty.seen)).not.toContain('fault"');
    for (const kind of MILL) expect(JSON.stringify(faulty.seen)).not.toContain(kind);
  });
  it("a lathe's has every kind of its own", () =>
    expect(
      new Set(
        Array.from({ length: 200 }, (_, turn) => faultsOf(open(LATHE, `draw ${turn}`)).map(({ kind }) => kind)).flat(),
      ),
    ).toEqual(new Set(TURNING)));
  it("a mill cannot have a lathe's faults, nor the other way round", () => {
    const wrong = (id: string, fault: FaultKind) => {
      const { exercise } = findDemoExercise(id);
      const read = exerciseSchema.safeParse({ ...exercise, handover: { ...exercise.handover, faults: [fault] } });
      return read.success ? "" : read.error.issues[0]?.message;
    };
    expect(wrong(LATHE, "radiusSign")).toMatch(/cannot have that fault/);
    expect(wrong(EVENING, "bladeEdge")).toMatch(/cannot have that fault/);
  });
  it("wants a corner, two tools and one free school, and says so", () => {
    const { exercise } = findDemoExercise(EVENING);
    const bad = exerciseSchema.safeParse({ ...exercise, targets: { ...exercise.targets, lengths: [1] } });
    expect(bad.success ? "" : bad.error.issues[0]?.message).toMatch(/two tools or more/);
  });
});

describe("a careful student finds every kind of fault, with a reading that tells it", () => {
  const kinds: [FaultKind, string][] = [
    ...MILL.map((kind): [FaultKind, string] => [kind, kind === "schoolMixed" ? MORNING : EVENING]),
    ...TURNING.map((kind): [FaultKind, string] => [kind, LATHE]),
  ];
  for (const [kind, id] of kinds) {
    it(`${kind}, ${id}`, () => {
      const lane = laneWith(id, (kinds) => kinds.includes(kind));
      const ruling = ruled(lane, {});
      const found = ofHandover(ruling).find((finding) => finding.code === "faultFound" && finding.fault.kind === kind);
      expect(found).toBeDefined();
      expect(ruling.total).toBeCloseTo(100, 6);
      const at = lane.log.find(({ seq }) => seq === (found?.code === "faultFound" ? found.seq : 0))?.event.type;
      expect([
        "kicked",
        "paperFelt",
        "touchBegan",
        "readingShown",
        "lookedFrom",
        "checkExpected",
        "turretFelt",
        "turretTried",
        "turned",
      ]).toContain(at);
      expect(skillsShown(ruling).map(({ skill, isGood }) => [skill, isGood])).toContainEqual(["findingFaults", true]);
    });
  }
});

describe("what is not found", () => {
  it("a stale wear that no tool was measured for is missed, the others are found", () => {
    const lane = laneWith(
      EVENING,
      (kinds) => kinds.length === 2 && kinds.includes("staleWear") && kinds.includes("radiusSign"),
    );
    const ruling = ruled(lane, { believes: "tools" });
    expect(missed(ruling)).toEqual([["staleWear", "noReading"]]);
    const wear = faultsOf(lane).find(({ kind }) => kind === "staleWear");
    const value = ruling.values.find(({ target }) => target.id === `z${wear?.tool ?? 0}`);
    expect(value?.cause).toMatchObject({ kind: "proven", terms: [{ id: "oldWear" }] });
    // half of 80 % of 40, and the verdict's 20 %
    expect(proving(ruling)).toBeCloseTo(16 + 8, 6);
  });
  it("a setter's card believed: every length agrees with it and stays wrong", () => {
    const lane = laneWith(EVENING, (kinds) => kinds.join() === "setterMoved");
    const ruling = ruled(lane, { believes: "setter" });
    // the work Z by the nose is sound, so nothing was found and nothing changed
    expect(missed(ruling)).toEqual([["setterMoved", "noReading"]]);
    expect(lane.state.desk.verdict).toBe("sound");
    expect(proving(ruling)).toBe(0);
    expect(ruling.values.filter(({ sharedMm }) => sharedMm !== 0)).toHaveLength(3);
  });
  it("all believed: a faulty setup called sound earns nothing of the strand", () => {
    const ruling = ruled(
      laneWith(EVENING, (kinds) => kinds.length === 3),
      { believes: "all" },
    );
    expect(missed(ruling)).toHaveLength(3);
    expect(proving(ruling)).toBe(0);
  });
  it("put right after a rapid move low over the part is too late", () => {
    const lane = laneWith(EVENING, (kinds) => kinds.length === 1 && kinds.includes("staleWear"));
    const ruling = ruled(lane, { goesFast: true });
    expect(missed(ruling)).toEqual([["staleWear", "tooLate"]]);
    expect(ruling.findings).toContainEqual(expect.objectContaining({ code: "stepMissed", step: "slowUntilProven" }));
  });
});

describe("on the lathe", () => {
  it("all but the first tool believed: their faults are missed, the first tool's and the shared ones found", () => {
    const lane = laneWith(
      LATHE,
      (kinds) => kinds.includes("bladeEdge") && kinds.includes("oldWorkZ") && kinds.length === 2,
    );
    expect(missed(ruled(lane, { believes: "tools" }))).toEqual([["bladeEdge", "noReading"]]);
  });
  it("all believed and called sound earns nothing of the strand", () => {
    const ruling = ruled(
      laneWith(LATHE, (kinds) => kinds.length === 3),
      { believes: "all", says: "sound" },
    );
    expect(missed(ruling)).toHaveLength(3);
    expect(proving(ruling)).toBe(0);
  });
  it("called faulty though it is sound costs", () =>
    expect(
      proving(
        ruled(
          laneWith(LATHE, (kinds) => kinds.length === 0),
          { says: "faulty" },
        ),
      ),
    ).toBeCloseTo(32 - 10, 6));
});

describe("a sound setup", () => {
  const sound = () => laneWith(EVENING, (kinds) => kinds.length === 0);
  it("read and called sound: full marks", () => expect(ruled(sound(), {}).total).toBeCloseTo(100, 6));
  it("called faulty without cause costs more than saying nothing", () => {
    // 32 for what was read, less a quarter of 40
    expect(proving(ruled(sound(), { says: "faulty" }))).toBeCloseTo(32 - 10, 6);
  });
  it("believed and called sound earns the verdict only", () =>
    expect(proving(ruled(sound(), { believes: "all" }))).toBeCloseTo(8, 6));
  it("spoiled by the student: costs, and is the student's own cause", () => {
    const ruling = ruled(sound(), { spoilsBy: 0.4, says: "sound" });
    expect(ofHandover(ruling)).toContainEqual(
      expect.objectContaining({ code: "soundSpoiled", target: expect.objectContaining({ id: "z1" }) as unknown }),
    );
    expect(proving(ruling)).toBeCloseTo(40 - 10, 6);
    expect(ruling.values.find(({ target }) => target.id === "z1")?.cause.kind).not.toBe("none");
  });
});

it("there is nobody else's setup to judge on one's own lane", () => {
  const lane = open("focuser-plate-lower-left", "own");
  expect(lane.attempt({ type: "judgeSetup", isSound: true })).toEqual({ code: "nothingHandedOver" });
});

it("the ruling has words for every finding and cause of hand-over lanes", () => {
  for (let turn = 0; turn < 40; turn++) {
    const habits: Habits[] = [{}, { believes: "all" }, { believes: "tools" }, { goesFast: true, believes: "place" }];
    const lane = open([EVENING, MORNING, LATHE][turn % 3] ?? EVENING, `words ${turn}`);
    if (lane.seen.kind !== "mill" && habits[turn % 4]?.goesFast) continue;
    if (
      habits[turn % 4]?.goesFast &&
      faultsOf(lane).some(({ kind }) => kind === "schoolMixed" || kind === "wrongOffset")
    )
      continue;
    const ruling = ruled(lane, habits[turn % 4] ?? {});
    for (const finding of ruling.findings) expect(findingWords(finding)).toMatch(/^(?!.*(undefined|NaN)).*[.!]$/);
    for (const value of ruling.values)
      expect(Object.values(causeWords(value, ruling.sheet)).join(" ")).not.toMatch(/undefined|NaN|null/);
  }
});
