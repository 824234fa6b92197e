import type { LoggedEvent } from "../diagnosis";
import { describe, expect, it } from "vitest";
import { millLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { type Exercise } from "../exercises";
import { door, go, refusal, lane } from "../test/benchHands";

describe("getting ready", () => {
  it("with the stop pressed nothing moves, and the tasks are each done once", () => {
    const made = millLane(findDemoExercise("bracket-cold-machine").exercise, "cold");
    expect(refusal(made, { type: "home" })).toBe("stopIsHeld");
    made.do({ type: "doTask", task: "releaseStop" });
    made.do({ type: "home" });
    expect(refusal(made, { type: "doTask", task: "releaseStop" })).toBe("taskDoneAlready");
    expect(refusal(made, { type: "doTask", task: "pushToStop" })).toBe("doorShutReach");
    door(made, true);
    expect(refusal(made, { type: "doTask", task: "tapDown" })).toBe("seatFirst");
    expect(refusal(made, { type: "doTask", task: "sweepJaw" })).toBe("notHeld");
  });
  it("pushed to the stop the blank moves, tapped down it comes down, and the jaw swept true stands square", () => {
    const made = lane("bracket-cold-machine");
    const { truth } = made.state;
    const before = made.state.seat;
    made.do({ type: "doTask", task: "seatOnParallels" });
    made.do({ type: "doTask", task: "pushToStop" });
    made.do({ type: "doTask", task: "tapDown" });
    expect(before.isAtStop).toBe(false);
    expect(truth.offStopMm).toBeGreaterThan(0.5);
    expect(made.state.seat).toMatchObject({ isAtStop: true, isTapped: true });
  });
  it("the control believes the pocket's number; what hangs in the spindle is what stood there", () => {
    const made = lane("bracket-cold-machine");
    door(made, false);
    made.do({ type: "runBlock", text: "T1 M6" });
    expect(made.seen.modal.tool).toBe(1);
    expect(made.seen.holds).toBe("tool2");
    made.do({ type: "runBlock", text: "T2 M6" });
    expect(made.seen.holds).toBe("tool1");
    door(made, true);
    made.do({ type: "swapPockets", a: 1, b: 2 });
    door(made, false);
    made.do({ type: "runBlock", text: "T2 M6" });
    expect(made.seen.holds).toBe("tool2");
  });
  it("dirt in the taper holds a tool lower until it is wiped", () => {
    const dirty = lane("bracket-cold-machine", "tool1");
    expect(dirty.state.carried.seatMm).toBe(dirty.state.truth.taperDirtMm);
    expect(refusal(dirty, { type: "doTask", task: "wipeTaper" })).toBe("spindleHolds");
    dirty.do({ type: "unload" });
    dirty.do({ type: "doTask", task: "wipeTaper" });
    dirty.do({ type: "load", thing: "tool1" });
    expect(dirty.state.carried.seatMm).toBe(0);
  });
  it("a tap turns a screwed-down part by a share nobody knows, and moves it; a gripped one is not tapped", () => {
    const made = lane("plate-skewed");
    const { skewDeg } = made.state.seat;
    made.do({ type: "tapPart", direction: 1, strength: "hard" });
    expect(made.state.seat.skewDeg - skewDeg).toBeGreaterThan(0.1);
    expect(made.state.seat.shiftMm).not.toEqual({ x: 0, y: 0 });
    expect(refusal(lane("clamp-middle-probe"), { type: "tapPart", direction: 1, strength: "light" })).toBe(
      "partIsGripped",
    );
  });
});

describe("registers as the machine is set", () => {
  const settings = findDemoExercise("five-tools-free").exercise.settings;
  const withSettings = (change: Partial<Exercise["settings"]>) =>
    lane("five-tools-free", null, { settings: { ...settings, ...change } });
  it("three rules of capturing a length", () => {
    const capture = (lengthCapture: Exercise["settings"]["lengthCapture"]) => {
      const made = withSettings({ lengthCapture });
      made.do({ type: "typeRegister", register: "G54.z", text: "-10", how: "set", isConfirmed: true });
      go(made, { z: -100 });
      made.do({ type: "zeroCounter", axis: "z" });
      go(made, { z: -130 });
      made.do({ type: "captureRegister", register: "H3", asText: "0" });
      return made.state.registers.lengthGeometry[3];
    };
    expect([capture("machine"), capture("counter"), capture("display")]).toEqual([-130_000, -30_000, -120_000]);
  });
  it("a changed row acts at once, or when it is called again", () => {
    const display = (rowActs: "atOnce" | "whenCalled") => {
      const made = withSettings({ rowActs });
      made.do({ type: "typeRegister", register: "H2", text: "-50", how: "set", isConfirmed: true });
      door(made, false);
      made.do({ type: "runBlock", text: "G43 H2" });
      made.do({ type: "typeRegister", register: "HW2", text: "1", how: "set", isConfirmed: true });
      const before = made.seen.work.z;
      made.do({ type: "runBlock", text: "G43 H2" });
      return [before, made.seen.work.z];
    };
    expect(display("atOnce")).toEqual([49_000, 49_000]);
    expect(display("whenCalled")).toEqual([50_000, 49_000]);
  });
  it("a reset drops the active length or keeps it, and a capture clears wear or keeps it", () => {
    for (const resetDropsLength of [true, false]) {
      const made = withSettings({ resetDropsLength });
      door(made, false);
      made.do({ type: "runBlock", text: "G43 H1" });
      made.do({ type: "reset" });
      expect(made.seen.modal.lengthRow).toBe(resetDropsLength ? null : 1);
    }
    for (const captureClearsWear of [true, false]) {
      const made = withSettings({ captureClearsWear });
      made.do({ type: "typeRegister", register: "HW1", text: "0.05", how: "set", isConfirmed: true });
      made.do({ type: "captureRegister", register: "H1", asText: "0" });
      expect(made.state.registers.lengthWear[1]).toBe(captureClearsWear ? 0 : 50);
    }
  });
  it("extended offsets and the common one are in the display; a diameter is typed, not captured", () => {
    const made = withSettings({});
    made.do({ type: "typeRegister", register: "P4.x", text: "-20", how: "set", isConfirmed: true });
    made.do({ type: "typeRegister", register: "common.x", text: "-1.5", how: "set", isConfirmed: true });
    door(made, false);
    made.do({ type: "runBlock", text: "G54.1 P4" });
    expect(made.seen.work.x).toBe(21_500);
    expect(refusal(made, { type: "captureRegister", register: "D1", asText: "0" })).toBe("diameterIsTyped");
  });
  it("many registers at once are taken in whole or not at all", () => {
    const made = withSettings({});
    expect(
      refusal(made, {
        type: "takeInRegisters",
        rows: [
          { register: "G54.x", text: "-300" },
          { register: "H1", text: "oops" },
        ],
      }),
    ).toBe("text");
    expect(made.state.registers.work.G54.x).toBe(0);
    made.do({
      type: "takeInRegisters",
      rows: [
        { register: "G54.x", text: "-300" },
        { register: "H1", text: "-240.5" },
      ],
    });
    expect([made.state.registers.work.G54.x, made.state.registers.lengthGeometry[1]]).toEqual([-300_000, -240_500]);
    expect(refusal(made, { type: "takeInRegisters", rows: [{ register: "G54.x", text: "-300" }] })).toBe(
      "nothingChanges",
    );
    made.do({ type: "undoRegister" });
    expect(made.state.registers.lengthGeometry[1]).toBe(0);
  });
  it("with a turn called, a programmed place turns about work zero", () => {
    const made = withSettings({});
    made.do({
      type: "takeInRegisters",
      rows: [
        { register: "G54.x", text: "-300" },
        { register: "G54.y", text: "-150" },
      ],
    });
    door(made, false);
    made.do({ type: "runBlock", text: "G68 R90" });
    made.do({ type: "runBlock", text: "G0 G54 X10 Y0" });
    expect([made.seen.machine.x, made.seen.machine.y]).toEqual([-300_000, -140_000]);
    made.do({ type: "runBlock", text: "G69" });
    made.do({ type: "runBlock", text: "G0 X10 Y0" });
    expect([made.seen.machine.x, made.seen.machine.y]).toEqual([-290_000, -150_000]);
  });
  it("an inch machine counts in tenths of a thousandth, reads what is typed in inches, and shows four places", () => {
    const made = lane("inch-bracket");
    made.do({ type: "typeRegister", register: "G54.x", text: "-12.9375", how: "set", isConfirmed: true });
    expect(made.state.registers.work.G54.x).toBe(-129_375);
    made.do({ type: "typeRegister", register: "G54.x", text: "-25.4 mm", how: "set", isConfirmed: true });
    expect(made.state.registers.work.G54.x).toBe(-10_000);
    door(made, false);
    made.do({ type: "runBlock", text: "G53 G0 X-10" });
    expect(made.seen.machine.x).toBe(-100_000);
    made.do({ type: "jog", axis: "x", direction: 1, clicks: 3, size: "fine" });
    expect(made.seen.machine.x).toBe(-99_997);
  });
});

describe("checks", () => {
  it("want the expectation first, then the look, then the judgement", () => {
    const made = lane("five-tools-gauge-line", "tool1");
    expect(refusal(made, { type: "lookCheck" })).toBe("expectFirst");
    made.do({ type: "expectCheck", check: "ruleBeside", text: "80" });
    expect(refusal(made, { type: "judgeCheck", isAsExpected: true })).toBe("lookFirst");
    made.do({ type: "lookCheck" });
    expect(made.seen.check?.seenMm).toBeCloseTo(Math.round(made.seen.heldLengthMm * 2) / 2, 9);
    made.do({ type: "judgeCheck", isAsExpected: true });
    expect(made.seen.check).toBeNull();
    expect(made.seen.checking.made).toMatchObject([{ check: "ruleBeside" }]);
  });
});

describe("a typed move says which registers it went by", () => {
  const readsOf = (made: { log: readonly LoggedEvent[] }) =>
    made.log.flatMap(({ event }) => (event.type === "moved" ? [event.reads] : []));
  it("on a mill: the offsets of its axes, and the row of the length in use; machine frame and increments go by none", () => {
    const made = lane("five-tools-free");
    made.do({ type: "setDoor", isOpen: false });
    const from = readsOf(made).length;
    made.do({ type: "typeRegister", register: "H2", text: "80", how: "set", isConfirmed: true });
    for (const text of ["G53 G0 X-100", "G0 G55 X-90 (no G53 here)", "G91 G0 Y-1", "G90 G43 H2 Z-200"])
      made.do({ type: "runBlock", text });
    expect(readsOf(made).slice(from)).toEqual([
      undefined,
      ["common.x", "G55.x"],
      [],
      ["common.z", "G55.z", "H2", "HW2"],
    ]);
  });
});
