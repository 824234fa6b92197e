import { latheLane } from "@probe-lane/students";
import { describe, expect, it } from "vitest";
import { findDemoExercise } from "../../../demo";
import { jawRoomMm, tipAt } from "../machines/lathe/contact";
import { toCounts } from "../units";

/** How far what holds the bar stands from a tip at a radius over the bar's skin, so far behind the jaws' front, mm. */
function roomAt(id: string, overMm: number, behindMm: number): number {
  const { state } = latheLane(findDemoExercise(id).exercise, "chuck");
  const { jawMm, stock } = state.truth.lathe;
  const { radiusMm, zMm } = tipAt(state, state.position);
  const by = { x: 2 * (stock.diameterMm / 2 + overMm - radiusMm), z: jawMm - behindMm - zMm };
  return jawRoomMm(state, {
    ...state.position,
    x: state.position.x + toCounts(by.x, state.scale),
    z: state.position.z + toCounts(by.z, state.scale),
  });
}

describe("what holds the bar", () => {
  it("jaws reach 25 over it from their front on, a chuck's body 60 from 18 behind that", () => {
    expect(roomAt("knob-first-tool", 20, 5)).toBeCloseTo(-5, 2);
    expect(roomAt("knob-first-tool", 40, 5)).toBeCloseTo(13, 2);
    expect(roomAt("knob-first-tool", 40, 28)).toBeCloseTo(-10, 2);
    expect(roomAt("knob-first-tool", 70, 28)).toBeCloseTo(10, 2);
  });
  it("a collet has no such body: beside it there is air", () => {
    expect(roomAt("collar-gang-two-changed", 40, 28)).toBeCloseTo(15, 2);
    expect(roomAt("collar-gang-two-changed", 20, 5)).toBeCloseTo(-5, 2);
  });
});
