import { LaneDriver, millLane, workLane } from "@probe-lane/students";
import { describe, expect, it } from "vitest";
import { findDemoExercise } from "../../../demo";
import { decide, evolve, provableIn, proveProgram, replay } from "../bench";
import { proofWords } from "../words";

const { exercise } = findDemoExercise("focuser-plate-lower-left");
const slot = (depth: number) =>
  ["T1 M6", "G54 G0 X-12 Y25 M3 S2600", "G43 H1 Z40", "Z2", `G1 Z${-depth} F300`, "X122", "G0 Z40", "M30"].join("\n");

/** A careful lane, its registers changed before it is handed in. */
function worked(...changes: readonly [register: "H1" | "G54.z" | "G54.x" | "G54.y", addMm: number][]) {
  const lane = millLane(exercise, "program");
  workLane(lane, { stopsAfter: "zero" });
  for (const [register, addMm] of changes)
    lane.do({ type: "typeRegister", register, text: String(addMm), how: "add", isConfirmed: true });
  lane.do({ type: "handIn" });
  return lane.state;
}

describe("a program run with the registers of a lane", () => {
  it("touches nothing where the setup is right, and strikes the jaw where the program itself goes too deep", () => {
    const state = worked();
    expect(provableIn(state)).toBe("mill");
    expect(proveProgram(state, slot(5))).toEqual({ kind: "clear" });
    // along the jaw behind: the blank stands 8 mm proud of it, and 12 is deeper
    const edge = slot(12).replace("Y25", "Y50");
    expect(proveProgram(state, edge)).toMatchObject({
      kind: "contact",
      contact: { kind: "tool-in-fixture", with: "backJaw" },
    });
  });
  it("a length 30 too short on paper sends the rapid into the blank, and the sentence says so", () => {
    const proof = proveProgram(worked(["H1", -30]), slot(5));
    expect(proof).toMatchObject({ kind: "contact", contact: { line: 5 } });
    expect(proof && proofWords(proof, "mm")).toMatch(/^Line 5: the holder would have run into the blank/);
    const deep = proveProgram(worked(["H1", -30]), slot(5).replace("X-12", "X40"));
    expect(deep && proofWords(deep, "mm")).toMatch(
      /^Line 4: the tool would have gone into the blank in rapid, with the tip at X 40/,
    );
  });
  it("what the program calls and the setup has not is named", () => {
    expect(proveProgram(worked(), slot(5).replace("T1", "T7"))).toEqual({ kind: "noTool", tool: 7, line: 2 });
    expect(proveProgram(worked(), slot(5).replace("H1", "H44"))).toEqual({ kind: "noRegister", register: "H44" });
    expect(proveProgram(worked(), slot(5).replace("F300", ""))).toEqual({
      kind: "wrong",
      line: 5,
      code: "feed-missing",
    });
  });
  it("nothing is said of a way that is not followed: a register that is not there, another reference", () => {
    for (const [from, to, code] of [
      ["X122", "G30 X122", "G30"],
      ["Z2", "G10 L10 P77 R80", "G10"],
    ] as const) {
      const proof = proveProgram(worked(), slot(5).replace(from, to));
      expect(proof).toMatchObject({ kind: "notRun", code });
      expect(proof && proofWords(proof, "mm")).toContain(`says ${code}, which is not followed here yet`);
    }
  });
  it("a length that the program writes itself counts from its line on", () => {
    const row = (worked().registers.lengthGeometry[1] ?? 0) / 1000;
    // the same length again changes nothing; one 30 shorter lets it down 30 deeper, and the holder meets the blank
    expect(proveProgram(worked(), slot(5).replace("Z2", `G10 L10 P1 R${row}\nZ2`))).toEqual({ kind: "clear" });
    expect(proveProgram(worked(), slot(5).replace("Z2", `G10 L10 P1 R${row - 30}\nZ2`))).toMatchObject({
      kind: "contact",
      contact: { line: 6, kind: "holder-in-stock" },
    });
  });
  it("what would run for a whole lesson is cut off, and said", () => {
    const loop = [
      "T1 M6",
      "#1=0",
      "WHILE [#1 LT 30000] DO1",
      "G53 G0 X-1",
      "X-2",
      "X-1",
      "X-2",
      "X-1",
      "X-2",
      "X-1",
      "X-2",
      "#1=#1+1",
      "END1",
    ];
    const proof = proveProgram(worked(), loop.join("\n"));
    expect(proof?.kind === "wrong" ? proof.code : proof?.kind).toBe("endless");
    const holes = ["T1 M6", "G54 G0 X5 Y5 M3", "G43 H1 Z40", "G81 G98 X20 Y20 Z38 R39 F99 L60000", "M30"].join("\n");
    const long = proveProgram(worked(), holes);
    expect(long && proofWords(long, "mm")).toMatch(/^Up to line 4 it makes 200,000 moves/);
  });
  it("is not offered where the blank is no plain box, nor on the other lathes", () => {
    const opened = (id: string) => new LaneDriver(findDemoExercise(id).exercise, "plain").state;
    for (const id of ["plate-bore-sweep", "plate-skewed", "ring-readout-library", "collar-gang-two-changed"])
      expect(provableIn(opened(id)), id).toBeNull();
    expect(proveProgram(opened("ring-readout-library"), "M30")).toBeNull();
  });
});

describe("a turning program run with the registers of a lane", () => {
  const { exercise: knob } = findDemoExercise("knob-first-tool");
  const turn = (z: number) =>
    ["T0101", "G97 S900 M3", "G0 X46 Z2", "X40", `G1 Z${z} F.2`, "X46", "G0 Z2", "G28 U0 W0", "M30"].join("\n");
  function turned(...changes: readonly [register: "X1" | "Z1", addMm: number][]) {
    const lane = new LaneDriver(knob, "turned");
    workLane(lane, {});
    const open = replay(lane.log.filter(({ event }) => event.type !== "handedIn").map(({ event }) => event));
    return changes.reduce((state, [register, add]) => {
      const decided = decide(state, {
        type: "typeRegister",
        register,
        text: String(add),
        how: "add",
        isConfirmed: true,
      });
      if (!decided.ok) throw new Error(JSON.stringify(decided.error));
      return decided.value.reduce(evolve, state);
    }, open);
  }

  it("touches nothing where the tool is set right, and meets the jaws where it goes on into them", () => {
    const state = turned();
    expect(provableIn(state)).toBe("lathe");
    expect(proveProgram(state, turn(-20))).toEqual({ kind: "clear" });
    expect(proveProgram(state, turn(-60))).toMatchObject({
      kind: "contact",
      contact: { line: 5, kind: "tool-in-chuck" },
    });
  });
  it("a Z 10 too low sends the rapid beside the face into the bar", () => {
    const proof = proveProgram(turned(["Z1", -10]), turn(-20));
    expect(proof).toMatchObject({ kind: "contact", contact: { line: 4, kind: "rapid-in-stock" } });
    expect(proof && proofWords(proof, "mm")).toMatch(
      /^Line 4: the tool would have gone into the blank in rapid, with the tip at X /,
    );
  });
  it("a declared position and passes of a cycle are not run, a limit of the speed is", () => {
    expect(proveProgram(turned(), `G50 S2000\n${turn(-20)}`)).toEqual({ kind: "clear" });
    expect(proveProgram(turned(), `G50 X100 Z50\n${turn(-20)}`)).toMatchObject({
      kind: "notRun",
      line: 1,
      code: "G50",
    });
  });
  it("is the same right setup whatever the seed", () => {
    for (const seed of ["a", "b", "c"]) {
      const lane = new LaneDriver(knob, seed);
      workLane(lane, {});
      expect(proveProgram(lane.state, turn(-20)), seed).toEqual({ kind: "clear" });
    }
  });
});
