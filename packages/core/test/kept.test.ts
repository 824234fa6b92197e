import { describe, expect, it } from "vitest";
import { millLane, workLane, type Habits, type LaneDriver } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import type { Command, MillSeen } from "../bench";
import type { Exercise } from "../exercises";
import { keptChangeKinds, type KeptChangeKind } from "../exercises/schools";
import { rule } from "../grading";
import { readRegister } from "../registers";
import { toMm } from "../units";
import { causeWords, findingWords, keptRowWords, partsSinceWords } from "../words";

const { exercise, marking } = findDemoExercise("clamp-setup-kept");
const seeds = Array.from({ length: 60 }, (_, at) => `kept ${at}`);
const changesOf = (seed: string) => millLane(exercise, seed).state.truth.keptChanges ?? [];
const staleOf = (seed: string) => changesOf(seed).flatMap(({ offs }) => offs.map(({ register }) => register));
const seedWith = (fits: (kinds: readonly KeptChangeKind[]) => boolean): string => {
  const found = seeds.find((seed) => fits(changesOf(seed).map(({ kind }) => kind)));
  if (found === undefined) throw new Error("no such lane");
  return found;
};
const refusal = (lane: LaneDriver<MillSeen>, command: Command) => lane.attempt(command)?.code ?? null;
const naming = (of: ReturnType<typeof rule>) =>
  of.findings.find((one) => (one.code === "stepDone" || one.code === "stepMissed") && one.step === "staleNamed");

describe("a setup that was kept", () => {
  it("has none to four registers that no longer hold, every kind of change somewhere, and the others right to a hair", () => {
    const kinds = new Set<string>();
    const counts = new Set<number>();
    for (const seed of seeds) {
      const { state } = millLane(exercise, seed);
      const changes = state.truth.keptChanges ?? [];
      const stale = changes.flatMap(({ offs }) => offs.map(({ register }) => register));
      for (const { kind } of changes) kinds.add(kind);
      counts.add(stale.length);
      // no register hangs on two changes
      expect(new Set(stale).size).toBe(stale.length);
      expect(stale.length).toBeLessThanOrEqual(4);
      const kept = new Map(state.setup.kept?.registers.map(({ register, mm }) => [register, mm]));
      const right = {
        "G54.x": state.truth.datumMm.x,
        "G54.y": state.truth.datumMm.y,
        H1: state.truth.lengthsMm.tool1 ?? NaN,
        H2: state.truth.lengthsMm.tool2 ?? NaN,
        D1: state.truth.diametersMm[1] ?? NaN,
        D2: state.truth.diametersMm[2] ?? NaN,
      };
      for (const [register, mm] of Object.entries(right)) {
        const offMm = Math.abs((kept.get(register as "H1") ?? NaN) - mm);
        if (stale.some((one) => one === register)) expect(offMm, `${seed} ${register}`).toBeGreaterThan(0.015);
        else expect(offMm, `${seed} ${register}`).toBeLessThan(0.008);
      }
    }
    expect([...kinds].sort()).toEqual([...keptChangeKinds].sort());
    expect([...counts].sort()).toEqual([0, 1, 2, 3, 4]);
  });

  it("shows on its card what has changed, and beside it what changes nothing", () => {
    for (const seed of seeds.slice(0, 20)) {
      const { seen } = millLane(exercise, seed);
      const rows = seen.sheet.kept?.rows ?? [];
      const unlike = rows.filter((row) => {
        const { then, today } = keptRowWords(row, "PL");
        return then !== today;
      });
      const told = unlike.filter(({ change }) => change !== "unlike").map(({ change }) => change);
      expect(told.sort()).toEqual(
        changesOf(seed)
          .map(({ kind }) => kind)
          .sort(),
      );
      // whoever set it is never who sets it today
      expect(unlike.some(({ change }) => change === "unlike")).toBe(true);
    }
  });

  it("is taken back once something was said of it, whole, with its program, and only once", () => {
    const lane = millLane(exercise, seeds[0] ?? "");
    expect(refusal(lane, { type: "takeSetupBack" })).toBe("nameStaleFirst");
    expect(refusal(lane, { type: "nameStale", registers: ["H7"] })).toBe("notOfKept");
    lane.do({ type: "nameStale", registers: ["H1", "H1", "G54.x"] });
    lane.do({ type: "nameStale", registers: ["H1"] });
    expect(lane.seen.program?.kept.named).toEqual(["H1"]);
    lane.do({ type: "takeSetupBack" });
    for (const { register, mm } of lane.seen.sheet.kept?.registers ?? [])
      expect(toMm(readRegister(lane.state.registers, register), lane.state.scale)).toBeCloseTo(mm, 6);
    expect(lane.seen.program).toMatchObject({ number: 1060, kept: { isTaken: true, changed: [] } });
    expect(refusal(lane, { type: "nameStale", registers: [] })).toBe("takenBackAlready");
    expect(refusal(lane, { type: "takeSetupBack" })).toBe("takenBackAlready");
    // taken back it is no step of the student's to undo
    expect(refusal(lane, { type: "undoRegister" })).not.toBeNull();
    lane.do({ type: "typeRegister", register: "H1", text: "70", how: "set", isConfirmed: true });
    expect(lane.seen.program?.kept.changed).toEqual(["H1"]);
    const other = millLane(findDemoExercise("clamp-first-part").exercise, "other");
    expect(refusal(other, { type: "nameStale", registers: [] })).toBe("nothingKept");
    expect(refusal(other, { type: "takeSetupBack" })).toBe("nothingKept");
  });

  it("opens its gates by what was done, whether the right things were named or not", () => {
    const lane = millLane(
      exercise,
      seedWith((kinds) => kinds.includes("stopMoved")),
    );
    const shut = () => lane.seen.gates.filter(({ isPassed }) => !isPassed).map(({ kind }) => kind);
    expect(shut().slice(0, 3)).toEqual(["staleNamed", "takenBack", "machineReady"]);
    lane.do({ type: "nameStale", registers: [] });
    lane.do({ type: "takeSetupBack" });
    expect(shut()).not.toContain("touchedAgain");
    const careful = millLane(
      exercise,
      seedWith((kinds) => kinds.includes("newCutter")),
    );
    workLane(careful, { stopsAfter: "zero" });
    expect(careful.seen.gates.find(({ kind }) => kind === "touchedAgain")?.isPassed).toBe(true);
  });

  it("is worked to full marks by who compares, whatever has changed, and touches no more than that", () => {
    for (const fits of [
      (kinds: readonly KeptChangeKind[]) => kinds.length === 0,
      (kinds: readonly KeptChangeKind[]) => kinds.includes("viseMoved"),
      (kinds: readonly KeptChangeKind[]) => kinds.includes("otherParallels"),
      (kinds: readonly KeptChangeKind[]) => kinds.includes("newCutter"),
    ]) {
      const seed = seedWith(fits);
      const lane = millLane(exercise, seed);
      workLane(lane);
      const ruling = rule(lane.log, marking);
      expect(ruling.total, seed).toBe(100);
      const set = new Set(
        lane.log.flatMap(({ event }) =>
          event.type === "registerChanged" && event.how !== "takenBack" && !event.register.includes("W")
            ? [event.register]
            : [],
        ),
      );
      expect([...set].sort(), seed).toEqual(staleOf(seed).sort());
    }
  });

  it("believed whole: the ruling says what had changed, once for each change, and names what was not named", () => {
    const seed = seedWith((kinds) => kinds.includes("viseMoved"));
    const lane = millLane(exercise, seed);
    workLane(lane, { namesOfKept: "nothing" });
    const ruling = rule(lane.log, marking);
    const [x] = ruling.values;
    expect(x?.cause).toMatchObject({ kind: "proven", terms: [{ id: "keptChanged" }] });
    expect(JSON.stringify(x && causeWords(x, ruling.sheet))).toMatch(
      /taken back as it was kept, and what it hangs on has changed since/,
    );
    // one vise, three registers: the first carries it
    expect(ruling.values.map(({ target, marks }) => [target.id, marks === 0]).slice(0, 2)).toEqual([
      ["x", true],
      ["y", false],
    ]);
    const step = naming(ruling);
    expect(step).toMatchObject({ code: "stepMissed", marks: 0 });
    expect(step && findingWords(step, "mm")).toMatch(/Not named: G54 X, G54 Y, G54 Z/);
  });

  it("named too much costs the naming, and nothing else", () => {
    const seed = seedWith((kinds) => kinds.length === 0);
    const lane = millLane(exercise, seed);
    workLane(lane, { namesOfKept: "everything" });
    const ruling = rule(lane.log, marking);
    const step = naming(ruling);
    expect(step && findingWords(step, "mm")).toMatch(/Named, and still as it was: G54 X/);
    expect(ruling.total).toBeCloseTo(100 - (step && "outOf" in step ? (step.outOf ?? 0) : 0), 6);
  });

  it("named after something had moved is too late", () => {
    const lane = millLane(
      exercise,
      seedWith((kinds) => kinds.length === 0),
    );
    lane.do({ type: "home" });
    lane.do({ type: "jog", axis: "z", direction: -1, clicks: 1, size: "coarse" });
    lane.do({ type: "nameStale", registers: [] });
    lane.do({ type: "takeSetupBack" });
    lane.do({ type: "handIn" });
    const step = naming(rule(lane.log, marking));
    expect(step).toMatchObject({ code: "stepMissed", isAbsent: true });
    expect(step && findingWords(step, "mm")).toMatch(
      /Nothing was named before the machine moved.* Nothing had changed/,
    );
  });
});

describe("a kept setup that has made many parts since", () => {
  const worn = findDemoExercise("clamp-edges-worn");
  const cutBy = (exercise: Exercise, seed: string, habits: Habits = {}) => {
    const lane = millLane(exercise, seed);
    workLane(lane, habits);
    return { lane, ruling: rule(lane.log, worn.marking) };
  };
  const widthOf = ({ parts = [] }: ReturnType<typeof rule>, part: number, name: string) =>
    parts[part]?.features.find((one) => one.name === name)?.actualMm ?? NaN;

  it("is right in every register, and says by how many parts its edges are older", () => {
    for (const seed of seeds.slice(0, 20)) {
      const { state, seen } = millLane(worn.exercise, seed);
      expect(state.truth.keptChanges).toEqual([]);
      const parts = seen.sheet.kept?.partsSince ?? 0;
      expect(parts).toBeGreaterThanOrEqual(32);
      expect(parts).toBeLessThanOrEqual(44);
      expect(partsSinceWords(parts)).toBe(`Since then ${parts} parts were cut by it.`);
    }
  });

  it("leaves its tongue thick by twice what each edge has worn on a side, which wear puts right", () => {
    for (const seed of ["a", "b", "c"]) {
      const { lane, ruling } = cutBy(worn.exercise, seed);
      const fresh = { ...worn.exercise, kept: { ...worn.exercise.kept, partsSince: [0, 0] } } as Exercise;
      const young = cutBy(fresh, seed).ruling;
      const { truth, setup } = lane.state;
      const wornMm = (truth.cutting?.wearMm[1] ?? NaN) * (setup.kept?.partsSince ?? NaN);
      expect(wornMm).toBeGreaterThan(0.025);
      const grownMm = widthOf(ruling, 0, "tongue, width") - widthOf(young, 0, "tongue, width");
      expect(grownMm, seed).toBeCloseTo(2 * wornMm, 3);
      expect(ruling.parts?.map(({ said }) => said)).toEqual(["rework", "good"]);
      expect(ruling.parts?.[1]?.features.every(({ verdict }) => verdict === "good")).toBe(true);
      expect(ruling.total, seed).toBe(100);
      expect(naming(ruling)?.code).toBe("stepDone");
    }
  });

  it("is not put right by touching tools again that are as they were", () => {
    const { lane, ruling } = cutBy(worn.exercise, "a", { corrects: "nothing" });
    expect(lane.seen.program?.kept.named).toEqual([]);
    expect(ruling.parts?.at(-1)?.features.some(({ verdict }) => verdict !== "good")).toBe(true);
    expect(ruling.total).toBeLessThan(100);
  });

  it("a cutter that is new since then has cut none of them", () => {
    const changed = {
      ...worn.exercise,
      kept: { ...worn.exercise.kept, changes: ["newCutter"], count: [1, 1] },
    } as Exercise;
    const { lane, ruling } = cutBy(changed, "n");
    const [change] = lane.state.truth.keptChanges ?? [];
    const isTongue = change?.tool === 1;
    const name = (own: boolean) => (own ? "tongue, width" : "pocket, width");
    const stillOf = (feature: string) =>
      ruling.parts?.[0]?.features.find((one) => one.name === feature)?.stillMm ?? NaN;
    const bent = (feature: string) => Math.abs(widthOf(ruling, 0, feature) - stillOf(feature));
    expect(bent(name(isTongue))).toBeLessThan(0.03);
    expect(bent(name(!isTongue))).toBeGreaterThan(0.04);
  });
});
