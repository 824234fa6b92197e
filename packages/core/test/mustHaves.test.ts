import { describe, expect, it } from "vitest";
import { latheLane, millLane, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { replay } from "../bench";
import { askedHere, mustHavesSchema } from "../exercises";
import { rule, type Ruling } from "../grading";
import type { RegisterId } from "../registers";
import { missedWords } from "../words";

const five = findDemoExercise("five-tools-gauge-line");
const collar = findDemoExercise("collar-five-tools-arm");

/** The bench mill's five tools, set well, then with a length changed by so much before the hand-in. */
function withLength(register: "H1" | "H2", byMm: number): Ruling {
  const lane = millLane(five.exercise, `deep ${byMm}`);
  workLane(lane, { stopsAfter: "zero" });
  lane.do({ type: "typeRegister", register, text: byMm.toFixed(3), how: "add", isConfirmed: true });
  lane.do({ type: "handIn" });
  return rule(lane.log, five.marking);
}

describe("a value that would strike without any program", () => {
  it("is a length by which a tool goes deeper than it is told; as much too high is only wrong", () => {
    const deep = withLength("H1", -2);
    expect(deep.notPassed).toMatchObject({ missed: ["notDeep"], capPercent: 40 });
    expect(deep.notPassed?.deeper?.map(({ tool, mm }) => [tool, Math.round(mm * 10) / 10])).toEqual([[1, 2]]);
    expect(deep.total).toBeLessThanOrEqual(40);
    expect(deep.notPassed && missedWords(deep.notPassed, "mm")).toMatch(
      /^tool 1 would go (2\.0|1\.9)\d\d mm deeper than it is told$/,
    );
    const high = withLength("H1", 2);
    expect(high.notPassed).toBeUndefined();
    expect(high.total).toBeGreaterThan(40);
    // less than what strikes, and wrong all the same
    const little = withLength("H2", -0.6);
    expect(little.notPassed).toBeUndefined();
    expect(little.values.find(({ target }) => target.tool === 2)?.marks).toBe(0);
  });

  it("is an offset on a lathe that takes a tool into the chuck or over the axis, and a bar into its wall", () => {
    const deeper = ({ exercise }: typeof collar, register: RegisterId, byMm: number): Ruling["notPassed"] => {
      const lane = latheLane(exercise, `deep ${byMm}`);
      workLane(lane, {});
      // before it is handed in
      lane.log.splice(lane.log.findIndex(({ event }) => event.type === "handedIn"));
      lane.state = replay(lane.log.map(({ event }) => event)) as typeof lane.state;
      lane.do({ type: "typeRegister", register, text: byMm.toFixed(3), how: "add", isConfirmed: true });
      lane.do({ type: "handIn" });
      return rule(lane.log, collar.marking).notPassed;
    };
    expect(deeper(collar, "Z1", -2)?.missed).toContain("notDeep");
    // a diameter: by half of it
    expect(deeper(collar, "X1", -3)?.deeper?.[0]?.mm).toBeCloseTo(1.5, 1);
    expect(deeper(collar, "X1", -1.5)?.missed ?? []).not.toContain("notDeep");
    expect(deeper(collar, "X1", 3)?.missed ?? []).not.toContain("notDeep");
    const bored = findDemoExercise("collar-program");
    expect(bored.exercise.lathe?.tools[1]?.kind).toBe("boring");
    expect(deeper(bored, "X2", 3)?.deeper).toEqual([{ tool: 2, mm: expect.closeTo(1.5, 1) as unknown }]);
    expect(deeper(bored, "X2", -3)?.missed ?? []).not.toContain("notDeep");
  });

  it("is a sign that was turned, where the log proves it; where nobody asked for that, points are points", () => {
    const lane = millLane(findDemoExercise("roller-bracket-back-right").exercise, "turned");
    workLane(lane, { radius: { y: "turned" } });
    const { marking } = findDemoExercise("roller-bracket-back-right");
    expect(rule(lane.log, marking).notPassed).toBeUndefined();
    const mustHaves = { ...five.marking.mustHaves, capPercent: 30 } as NonNullable<typeof marking.mustHaves>;
    const ruling = rule(lane.log, { ...marking, mustHaves });
    expect(ruling.notPassed).toEqual({ missed: ["signsRight"], capPercent: 30 });
    expect(ruling.total).toBeLessThanOrEqual(30);
  });

  it("takes nothing from who did it well, in any school", () => {
    for (const { exercise, marking } of [five, collar]) {
      const lane = exercise.lathe ? latheLane(exercise, "well") : millLane(exercise, "well");
      workLane(lane, {});
      const ruling = rule(lane.log, marking);
      expect([ruling.notPassed, ruling.total], exercise.id).toEqual([undefined, 100]);
    }
  });

  it("is a hand at what turns, where the class asks for that, and nothing else that went wrong", () => {
    const asks = { ...five.marking, mustHaves: mustHavesSchema.parse({ handsClear: true }) };
    const handsIn = (sends: Parameters<ReturnType<typeof millLane>["do"]>[0][]) => {
      const lane = millLane(five.exercise, "hands");
      workLane(lane, { stopsAfter: "zero" });
      for (const command of sends) lane.do(command);
      lane.do({ type: "handIn" });
      return { missed: rule(lane.log, asks).notPassed?.missed, lane };
    };
    expect(handsIn([]).missed).toBeUndefined();
    const { lane } = handsIn([]);
    // the incident itself, put where it can happen
    const felt = { type: "incidentHappened", code: "paperUnderTurningTool", failsOutright: true, stopsMachine: false };
    const at = lane.log.length - 1;
    const withHand = [
      ...lane.log.slice(0, at),
      { seq: at + 1, atMs: lane.log[at]?.atMs ?? 0, event: felt as (typeof lane.log)[number]["event"] },
      ...lane.log.slice(at).map((entry) => ({ ...entry, seq: entry.seq + 1 })),
    ];
    expect(rule(withHand, asks).notPassed).toEqual({ missed: ["handsClear"], capPercent: 40 });
    const torn = withHand.map((entry) =>
      entry.event === felt ? { ...entry, event: { ...felt, code: "paperTorn", failsOutright: false } as never } : entry,
    );
    expect(rule(torn, asks).notPassed).toBeUndefined();
  });

  it("of a class goes before that of the exercise, and a class may ask for nothing", () => {
    const nothing = askedHere(five.marking, mustHavesSchema.parse({}));
    const lane = millLane(five.exercise, "own");
    lane.do({ type: "handIn" });
    const checked = askedHere(five.marking, mustHavesSchema.parse({ checked: true, capPercent: 10 }));
    expect(rule(lane.log, checked).notPassed).toEqual({ missed: ["checked"], capPercent: 10 });
    expect(rule(lane.log, nothing).notPassed).toBeUndefined();
    expect(askedHere(five.marking, null)).toBe(five.marking);
  });
});
