import { describe, expect, it } from "vitest";
import { latheLane, millLane, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import {
  decide,
  evolve,
  foldFrom,
  observe,
  partPicture,
  partsCut,
  type Command,
  type LaneEvent,
  type LaneState,
  type PartPicture,
} from "../bench";
import { faceMm } from "../machines/lathe/contact";
import { movedLanes } from "./secrets";

const relief = (picture: PartPicture | null) => {
  if (picture?.kind !== "relief") throw new Error("no relief");
  return picture;
};
/** How deep a relief is at a place of the part, from its corner in front on the left, mm. */
const depthAt = (picture: PartPicture | null, x: number, y: number): number => {
  const { cellMm, columns, depths } = relief(picture);
  return (depths[Math.floor(y / cellMm) * columns + Math.floor(x / cellMm)] ?? NaN) / 100;
};

/** What an eye may be off by: a step of it on each of two heights. */
const EYE_MM = 0.5;

describe("the picture of a part that was cut", () => {
  const { exercise } = findDemoExercise("clamp-first-part");

  it("shows what the rays measure, within what an eye tells", () => {
    const lane = millLane(exercise, "picture");
    workLane(lane, { corrects: "nothing" });
    const picture = partPicture(lane.state);
    const actual = Object.fromEntries(partsCut(lane.state)[0]?.features.map((one) => [one.name, one.actualMm]) ?? []);
    expect(depthAt(picture, 42, 3) - (actual["tongue, depth"] ?? NaN)).toBeLessThan(EYE_MM);
    expect(depthAt(picture, 42, 24) - (actual["pocket, depth"] ?? NaN)).toBeLessThan(EYE_MM);
    expect(depthAt(picture, 42, 16)).toBe(0);
    // the tongue's front wall stands where it is measured, within a cell and a step of the eye
    const { cellMm, rows } = relief(picture);
    const first = Array.from({ length: rows }, (_, row) => depthAt(picture, 10, (row + 0.5) * cellMm)).indexOf(0);
    expect(Math.abs(first * cellMm - (actual["tongue, front wall from Y 0"] ?? NaN))).toBeLessThan(cellMm + EYE_MM);
  });

  it("of a turned part is its half section, bored or solid", () => {
    const lane = latheLane(findDemoExercise("knob-first-part").exercise, "picture");
    workLane(lane, { corrects: "nothing" });
    const picture = partPicture(lane.state);
    if (picture?.kind !== "halfSection") throw new Error("no half section");
    const at = (overFaceMm: number): number => picture.outer.at(Math.round(overFaceMm / picture.stepMm)) ?? NaN;
    expect(at(-6)).toBeCloseTo(16, 0);
    expect(at(-16)).toBeCloseTo(20, 0);
    expect(at(-20.5)).toBeCloseTo(17, 0);
    expect(picture.bore).toEqual([]);
  });

  it("for who may know is what the rays measure, within a cell and a hundredth, and other than what an eye sees", () => {
    const lane = millLane(exercise, "picture");
    workLane(lane, { corrects: "nothing" });
    const picture = partPicture(lane.state, true);
    const { cellMm, columns, rows, low } = relief(picture);
    expect(cellMm).toBe(0.25);
    expect(low[0]).toBeCloseTo(lane.state.truth.datumMm.x, 6);
    const actual = Object.fromEntries(partsCut(lane.state)[0]?.features.map((one) => [one.name, one.actualMm]) ?? []);
    const depth = (name: string) => actual[name] ?? NaN;
    expect(Math.abs(depthAt(picture, 42, 3) - depth("tongue, depth"))).toBeLessThan(0.011);
    expect(Math.abs(depthAt(picture, 42, 24) - depth("pocket, depth"))).toBeLessThan(0.011);
    const column = Array.from({ length: rows }, (_, row) => depthAt(picture, 10, (row + 0.5) * cellMm));
    const wide = column.filter((mm) => mm === 0).length * cellMm;
    expect(Math.abs(wide - depth("tongue, width"))).toBeLessThan(2 * cellMm);
    expect(picture).not.toEqual(partPicture(lane.state));
    expect(columns * cellMm).toBeCloseTo(exercise.part.sizeMm[0], 0);
  });

  it("of a turned part is exact for who may know: diameters as the rays measure them, to a hundredth", () => {
    const lane = latheLane(findDemoExercise("knob-first-part").exercise, "picture");
    workLane(lane, { corrects: "nothing" });
    const picture = partPicture(lane.state, true);
    if (picture?.kind !== "halfSection") throw new Error("no half section");
    const actual = Object.fromEntries(partsCut(lane.state)[0]?.features.map((one) => [one.name, one.actualMm]) ?? []);
    const radiusAt = (overFaceMm: number): number => picture.outer.at(Math.round(overFaceMm / picture.stepMm)) ?? NaN;
    expect(Math.abs(2 * radiusAt(-6) - (actual["spigot, diameter"] ?? NaN))).toBeLessThan(0.03);
    expect(Math.abs(2 * radiusAt(-16) - (actual["knob, diameter"] ?? NaN))).toBeLessThan(0.03);
    expect(picture.fromMm + picture.outer.length * picture.stepMm).toBeCloseTo(faceMm(lane.state) ?? NaN, 0);
  });

  it("is none before anything ran", () => {
    expect(partPicture(millLane(exercise, "blank").state)).toBeNull();
  });

  it("two truths within one step of an eye are cut into the same bytes, and told nothing else on the way", () => {
    const answers = (first: LaneEvent, [x, y, z, h1, h2]: readonly string[]) => {
      let state: LaneState = evolve(null, first);
      const set = (register: "G54.x" | "G54.y" | "G54.z" | "H1" | "H2", text = ""): Command => ({
        type: "typeRegister",
        register,
        text,
        how: "set",
        isConfirmed: true,
      });
      const commands: Command[] = [
        { type: "home" },
        set("G54.x", x),
        set("G54.y", y),
        set("G54.z", z),
        set("H1", h1),
        set("H2", h2),
        { type: "loadProgram", number: 1060, isConfirmed: false },
        { type: "startCycle" },
        ...Array.from({ length: 60 }, (): Command => ({ type: "runOn", ms: 20_000 })),
        { type: "setDoor", isOpen: true },
      ];
      const said = commands.map((command) => {
        const decided = decide(state, command);
        if (decided.ok) state = foldFrom(state, decided.value);
        return JSON.stringify(decided.ok ? observe(state, "student") : decided.error);
      });
      return { said, state, picture: JSON.stringify(partPicture(state)) };
    };
    for (let seed = 0; seed < 3; seed++)
      for (const shift of [-0.2, 0.1]) {
        const [one, two] = movedLanes(exercise, `cut ${seed}`, shift);
        if (one?.type !== "laneOpened" || !two || !("datumMm" in one.truth)) throw new Error("no pair of mills");
        const { datumMm, lengthsMm } = one.truth;
        const registers = [datumMm.x, datumMm.y, datumMm.z, lengthsMm.tool1, lengthsMm.tool2].map((mm = 0) =>
          mm.toFixed(3),
        );
        const [here, there] = [answers(one, registers), answers(two, registers)];
        expect(here.state.program.last?.why).toBe("end");
        expect(here.said).toEqual(there.said);
        expect(here.picture).toBe(there.picture);
        // what really came of it differs
        expect(partsCut(here.state)[0]?.features).not.toEqual(partsCut(there.state)[0]?.features);
        // and a length that is longer by more than an eye misses is seen
        expect(answers(one, [...registers.slice(0, 3), `${Number(registers[3]) - 1}`]).picture).not.toBe(here.picture);
      }
  });
});
