import { describe, expect, it } from "vitest";
import { latheLane, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { firstPart, type FeatureCut, type LaneState } from "../bench";
import { rule } from "../grading";
import { readFeature, verdictOf, type Feature } from "../inspection";
import type { RegisterId } from "../registers";
import { featureCause, movedByWords } from "../words";
import { marking, ready } from "./provingLane";

const textOf = ({ program }: LaneState): string => program.held?.lines.join("\n") ?? "";
const cutBy = (state: LaneState): readonly FeatureCut[] => firstPart(state, textOf(state)) ?? [];
const named = (features: readonly FeatureCut[], name: string): FeatureCut => {
  const found = features.find((feature) => feature.name === name);
  if (!found) throw new Error(`no feature ${name}`);
  return found;
};
const movedBy = (feature: FeatureCut) =>
  Object.fromEntries(feature.movedBy.map(({ register, factor }) => [register, factor]));

/** The plate set by a careful student, one register changed by hand. */
function plate(register?: RegisterId, addMm = 0) {
  const lane = ready(null);
  if (register) lane.do({ type: "typeRegister", register, text: String(addMm), how: "add", isConfirmed: true });
  return lane;
}

describe("what is read of a feature", () => {
  const slot: Feature = { reads: "width", from: [5, 0, -1], toward: "y+", nominalMm: 6, toleranceMm: [-0.1, 0.1] };
  // a room from y -2 to +3, its floor at z -4
  const runs = ([, y = 0, z = 0]: readonly number[], [, dy = 0, dz = 0]: readonly number[]): number | null => {
    if (dy !== 0) return dy > 0 ? 3 - y : y + 2;
    return dz < 0 ? z + 4 : null;
  };
  const read = (change: Partial<Feature>) => readFeature({ ...slot, ...change }, ["x", "y", "z"], runs);
  it("a width both ways, its middle, a wall and a floor, by hand", () => {
    expect(read({})).toBe(5);
    expect(read({ reads: "middle" })).toBe(0.5);
    expect(read({ reads: "middle", toward: "y-" })).toBe(0.5);
    expect(read({ reads: "wall" })).toBe(3);
    expect(read({ reads: "wall", toward: "y-" })).toBe(-2);
    expect(read({ reads: "depth", toward: "z-" })).toBe(4);
    expect(read({ reads: "depth", toward: "z+" })).toBeNull();
  });
  it("a lathe's X is a diameter: half a millimetre of radius under 41 is 40", () => {
    const turned: Feature = { ...slot, reads: "wall", from: [41, -10], toward: "x-" };
    expect(readFeature(turned, ["x", "z"], () => 0.5)).toBe(40);
  });
  it("metal that is left can be cut, metal that is gone cannot; a hole that stands elsewhere is lost", () => {
    expect(verdictOf(slot, 6.1)).toBe("good");
    expect(verdictOf(slot, 6.2)).toBe("scrap");
    expect(verdictOf(slot, 5.8)).toBe("rework");
    // a wall looked along downward: further is lower
    expect(verdictOf({ ...slot, reads: "wall", toward: "y-" }, 5.8)).toBe("scrap");
    expect(verdictOf({ ...slot, reads: "wall", toward: "y-" }, 6.2)).toBe("rework");
    // a floor that is too deep is gone; a length that is looked at from its far end is gone where it is short
    expect(verdictOf({ ...slot, reads: "depth", toward: "z-" }, 6.2)).toBe("scrap");
    expect(verdictOf({ ...slot, reads: "depth", toward: "z+" }, 6.2)).toBe("rework");
    expect(verdictOf({ ...slot, reads: "depth", toward: "z+" }, 5.8)).toBe("scrap");
    expect(verdictOf({ ...slot, reads: "middle" }, 5.8)).toBe("scrap");
    expect(verdictOf(slot, null)).toBe("notCut");
  });
});

describe("the first part of a mill", () => {
  it("of a careful setup is as the drawing has it, but for what a tool's own size makes of it; factors by hand", () => {
    const features = cutBy(plate().state);
    const depth = named(features, "step, depth");
    expect(depth.verdict).toBe("good");
    expect(movedBy(depth)).toEqual({ "G54.z": -1, H2: -1 });
    expect(movedBy(named(features, "step, wall from Y 0"))).toEqual({ "G54.y": 1 });
    expect(movedBy(named(features, "slot, end from X 0"))).toEqual({ "G54.x": 1 });
    const width = named(features, "slot, width");
    expect(width.movedBy).toEqual([]);
    expect(movedByWords(width)).toBe("none: the tool’s own size");
    for (const name of ["slot, depth", "slot, middle from Y 0", "first hole, from X 0", "first hole, from Y 0"])
      expect(named(features, name).verdict, name).toBe("good");
  });
  it("what is off in Z moves every floor by as much, and nothing in X and Y", () => {
    const [right, high] = [cutBy(plate().state), cutBy(plate("G54.z", 0.2).state)];
    right.forEach((feature, at) => {
      const moved = (high[at]?.actualMm ?? NaN) - (feature.actualMm ?? NaN);
      expect(moved, feature.name).toBeCloseTo(feature.name.endsWith("depth") ? -0.2 : 0, 3);
    });
  });
  it("a length that is 0.1 too short scraps its own floor alone, and the ruling says by which value", () => {
    const lane = plate("H2", -0.1);
    lane.do({ type: "handIn" });
    const ruling = rule(lane.log, marking);
    const features = ruling.firstPart ?? [];
    const depth = named(features, "step, depth");
    expect(depth).toMatchObject({ verdict: "scrap" });
    expect((depth.actualMm ?? 0) - 8).toBeCloseTo(0.1, 1);
    expect(featureCause(depth, ruling.values, "mm")).toMatch(/^Z with tool 2 moves it by \+0\.(09|1[01])\d\.$/i);
    expect(named(features, "slot, depth").verdict).toBe("good");
    expect(featureCause(named(features, "slot, depth"), ruling.values, "mm")).toBeNull();
  });
  it("there is none where something would be struck, where no program is held, and of another program", () => {
    expect(firstPart(plate("H2", -20).state, textOf(plate().state))).toBeNull();
    const other = plate();
    other.do({ type: "loadProgram", number: 1041, isConfirmed: true });
    other.do({ type: "handIn" });
    expect(rule(other.log, marking).firstPart).toBeUndefined();
  });
});

describe("the first part of a lathe", () => {
  const { exercise } = findDemoExercise("knob-program-first");
  function knob(): LaneState {
    for (let turn = 0; turn < 100; turn++) {
      const lane = latheLane(exercise, `part ${turn}`);
      if (lane.state.truth.programFault) continue;
      workLane(lane, {});
      return lane.state;
    }
    throw new Error("no seed has a sound program");
  }
  it("is as the drawing has it, its diameter moved by X of its tool, its lengths by Z", () => {
    const features = cutBy(knob());
    expect(features.map(({ verdict }) => verdict)).toEqual(["good", "good", "good", "good"]);
    expect(movedBy(named(features, "knob, diameter"))).toEqual({ "G54.x": 1, X1: 1 });
    expect(movedBy(named(features, "shoulder, from the face"))).toEqual({ "G54.z": -1, Z1: -1 });
    expect(movedBy(named(features, "groove wall, from the face"))).toEqual({ "G54.z": -1, Z2: -1 });
  });
});
