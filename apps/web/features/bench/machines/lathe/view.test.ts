import { describe, expect, it } from "vitest";
import { decide, evolve, observe, type Command, type LaneState } from "@probe-lane/core/bench";
import { offersOf } from "@probe-lane/core/machines";
import { toCounts, scales } from "@probe-lane/core/units";
import { latheLane, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../../../../demo";
import { keyAction } from "../../lane/keys";
import { latheKeys } from "./keys";
import {
  tipPlace,
  toolOf,
  towardTurned,
  turningDaylight,
  turningFacts,
  turningSensation,
  turningWindow,
  turretLabel,
} from "./view";

const lane = (id = "collar-five-tools-face") => {
  const driver = latheLane(findDemoExercise(id).exercise, "view");
  driver.do({ type: "home" });
  return driver;
};

it("left and right move Z, up and down move X, and nothing moves a third axis", () => {
  const press = (key: string, shiftKey = false) =>
    keyAction({ key, shiftKey, ctrlKey: false, metaKey: false, altKey: false }, latheKeys);
  expect(press("ArrowLeft")).toMatchObject({ axis: "z", direction: -1, clicks: 1 });
  expect(press("ArrowUp", true)).toMatchObject({ axis: "x", direction: 1, clicks: 10 });
  expect(press("PageUp")).toBeNull();
  expect(press("h")).toEqual({ type: "do", what: "home" });
});

it("a click that waits for its answer moves the tip at once, in X by half of what the display counts", () => {
  const { seen } = lane();
  const before = tipPlace(seen, seen.machine);
  const after = tipPlace(seen, { ...seen.machine, x: seen.machine.x - 1000, z: seen.machine.z - 1000 });
  expect(after.radiusMm - before.radiusMm).toBeCloseTo(-0.5, 9);
  expect(after.zMm - before.zMm).toBeCloseTo(-1, 9);
});

it("what a capture is said to store is what the bench stores, for every kind of register", () => {
  const driver = lane();
  for (const [register, text] of [
    ["XW1", "0.04"],
    ["ZW1", "-0.1"],
    ["common.z", "1.5"],
  ] as const)
    driver.do({ type: "typeRegister", register, text, how: "set", isConfirmed: true });
  driver.do({ type: "runBlock", text: "G53 G0 X-100 Z-50" });
  driver.do({ type: "index", station: 1, withOffset: true });
  for (const register of ["X1", "Z1", "XW1", "ZW1", "G54.x", "G54.z", "common.z"] as const) {
    const command: Command = { type: "captureRegister", register, asText: "12.5" };
    const decided = decide(driver.state, command);
    if (!decided.ok) throw new Error(decided.error.code);
    const after = observe(
      decided.value.reduce<LaneState>((state, event) => evolve(state, event), driver.state),
      "student",
    );
    const { registers, machine, modal, lathe, sheet } = driver.seen;
    const predicted = offersOf("turret").captured(
      {
        registers,
        position: machine,
        counterZ: 0,
        workOffset: modal.workOffset,
        lengthCounts: 0,
        lengthCapture: sheet.settings.lengthCapture,
        row: lathe.row,
      },
      register,
      toCounts(12.5, scales.mm),
    );
    const event = decided.value.find(({ type }) => type === "registerChanged");
    expect(predicted).toMatchObject({ ok: true });
    expect(event, register).toMatchObject({ to: predicted.ok && predicted.value });
    // with its offset called, the display then reads what was asked
    if (register !== "XW1" && register !== "ZW1")
      expect(after.work[register.startsWith("X") || register.endsWith("x") ? "x" : "z"]).toBe(
        toCounts(12.5, scales.mm),
      );
  }
});

describe("what eye and finger say", () => {
  it("before the face, with paper, and after a strike", () => {
    const driver = lane();
    expect(turningSensation(driver.seen, driver.seen.machine)).toMatchObject({
      strong: "tip before the face",
      isContact: false,
    });
    workLane(driver, {});
    expect(turningSensation(driver.seen, driver.seen.machine).strong).toMatch(/^tip (before|beside)/);
  });
  it("names the tool in the working position, and the sheet's sizes", () => {
    const { seen } = lane();
    const tool = toolOf(seen);
    expect(tool && turretLabel(tool)).toBe("T1 turning tool, CNMG 12 04 08");
    expect(turningFacts(seen)).toContainEqual(["stock, sawn", "⌀ 42.0"]);
  });
});

describe("the camera", () => {
  const { seen } = lane();
  const { tip } = seen.lathe;
  /** Machine counts that bring the tip to a place: so far before the face, so far out of the skin, mm. */
  const at = (right: number, out: number) => ({
    ...seen.machine,
    z: seen.machine.z + Math.round((tip.faceMm + right - tip.zMm) * 1000),
    x: seen.machine.x + Math.round((tip.partRadiusMm + out - tip.radiusMm) * 2000),
  });
  it("holds tip and face from the end of travel to the contact", () => {
    for (const machine of [seen.machine, at(120, 60), at(2, 3), at(-10, 1)]) {
      const { zMm, radiusMm } = tipPlace(seen, machine);
      const { left, right, bottom, top } = turningWindow(seen, machine, "near");
      expect([left < zMm, zMm < right, bottom < radiusMm, radiusMm < top]).toEqual([true, true, true, true]);
      expect([left < tip.jawMm, tip.faceMm < right]).toEqual([true, true]);
    }
  });
  it("tells daylight by the nearer of face and skin, and which key leads to the part", () => {
    expect(turningDaylight(seen, at(3, 4))).toBeCloseTo(5, 2);
    expect(turningDaylight(seen, at(-10, 2))).toBeCloseTo(2, 2);
    expect(turningDaylight(seen, at(4, -8))).toBeCloseTo(4, 2);
    expect(towardTurned(seen, at(4, -8))).toEqual([{ axis: "z", direction: -1 }]);
    expect(towardTurned(seen, at(-10, 2))).toEqual([{ axis: "x", direction: -1 }]);
    expect(towardTurned(seen, at(-10, -1))).toEqual([]);
  });
});
