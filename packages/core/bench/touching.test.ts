import type { MillSeen } from "@probe-lane/core/bench";
import { describe, expect, it } from "vitest";
import { type LaneDriver } from "@probe-lane/students";
import { type Exercise } from "../exercises";
import { door, go, refusal, lane, last, middle } from "../test/benchHands";

describe("what goes under a tip", () => {
  const over = (id: string, thing: "tool1" | "tool5" = "tool1", change: Partial<Exercise> = {}) => {
    const made = lane(id, thing, change);
    go(made, middle(made));
    return made;
  };
  it("a block goes or does not go for the gap as it is; the gap opened until it goes is the block, and dirt adds to it", () => {
    for (const isWiped of [true, false]) {
      const made = over("five-tools-block-in-wear");
      go(made, { z: made.seen.boxes.stock.high.z + made.seen.heldLengthMm + 25.6 });
      door(made, true);
      if (isWiped) made.do({ type: "wipeBlocks" });
      made.do({ type: "tryBlock", id: "block25" });
      while (made.seen.block) {
        made.do({ type: "pullBlock" });
        made.do({ type: "jog", axis: "z", direction: -1, clicks: 1, size: "coarse" });
        made.do({ type: "tryBlock", id: "block25" });
      }
      while (!made.seen.block) {
        made.do({ type: "jog", axis: "z", direction: 1, clicks: 1, size: "fine" });
        made.do({ type: "tryBlock", id: "block25" });
      }
      const { truth, position } = made.state;
      const gap = position.z / 1000 - (truth.lengthsMm.tool1 ?? 0) - truth.datumMm.z;
      expect(gap - 25).toBeGreaterThan(isWiped ? -0.005 : 0.008);
      expect(gap - 25).toBeLessThan(isWiped ? 0.006 : 0.035);
    }
  });
  it("closing the gap on a block is an incident, with the machine stopped", () => {
    const made = over("five-tools-block-in-wear");
    go(made, { z: made.seen.boxes.stock.high.z + made.seen.heldLengthMm + 27 });
    door(made, true);
    made.do({ type: "tryBlock", id: "block25" });
    expect(refusal(made, { type: "runBlock", text: "G53 G0 Z0" })).toBe("doorOpenMotion");
    made.do({ type: "jog", axis: "z", direction: -1, clicks: 1, size: "fine" });
    expect(made.seen.incidents).toEqual(["blockCrushed"]);
    expect(made.seen.block).toBeNull();
  });
  it("a height gauge lights its lamp at its height, on part and table, and is damaged silently when pressed through", () => {
    const made = over("five-tools-plane-lift");
    door(made, true);
    made.do({ type: "standLamp" });
    expect(made.seen.lamp).toEqual({ on: "stock", isLit: false });
    go(made, { z: made.seen.boxes.stock.high.z + made.seen.heldLengthMm + 51 });
    door(made, true);
    for (let turn = 0; turn < 200 && !made.seen.lamp?.isLit; turn++)
      made.do({ type: "jog", axis: "z", direction: -1, clicks: 20, size: "fine" });
    const { truth } = made.state;
    expect(made.state.position.z / 1000 - (truth.lengthsMm.tool1 ?? 0) - truth.datumMm.z).toBeCloseTo(50, 2);
    expect(refusal(made, { type: "takeLamp" })).toBe("lampPressed");
    for (let turn = 0; turn < 40 && !made.seen.isStopped; turn++)
      made.do({ type: "jog", axis: "z", direction: -1, clicks: 20, size: "middle" });
    expect(made.state.incidents).toEqual([
      { code: "toolChipped", isSilent: false },
      { code: "gaugeDamaged", isSilent: true },
    ]);
    expect(made.seen.incidents).toEqual(["toolChipped"]);
  });
  it("papers and feelers are felt, blocks tried; what is not in the drawer is refused", () => {
    const made = over("five-tools-part-touch");
    go(made, { z: made.seen.boxes.stock.high.z + made.seen.heldLengthMm + 2 });
    door(made, true);
    expect(refusal(made, { type: "tryBlock", id: "paper" })).toBe("gapThingNotHere");
    made.do({ type: "placePaper", id: "feeler" });
    expect(made.seen.paper).toMatchObject({ id: "feeler", feel: "slides" });
    expect(refusal(made, { type: "placePaper" })).toBe("paperInPlace");
  });
  it("the bare nose can be felt for, too", () => {
    const made = lane("five-tools-gauge-line");
    go(made, middle(made));
    go(made, { z: made.seen.boxes.stock.high.z + 1.5 });
    door(made, true);
    made.do({ type: "placePaper" });
    for (let turn = 0; turn < 40 && made.seen.paper?.feel === "slides"; turn++)
      made.do({ type: "jog", axis: "z", direction: -1, clicks: 20, size: "middle" });
    expect(made.state.position.z / 1000 - made.state.truth.datumMm.z).toBeLessThan(0.11);
  });
});

describe("setters", () => {
  const ask = (
    made: LaneDriver<MillSeen>,
    about: number,
    offset = 0,
    isTurning = true,
    what: "length" | "diameterBoth" | "diameterOne" = "length",
  ) => {
    door(made, false);
    made.do({ type: "askSetter", what, isTurning, offset: String(offset), about: String(about) });
    return last(made);
  };
  it("measures within a window about the stated length: shorter finds nothing, longer is driven in", () => {
    const made = lane("five-tools-gauge-line", "tool1");
    const true1 = made.state.truth.lengthsMm.tool1 ?? 0;
    expect(ask(made, true1 + 3)?.values.length).toBeCloseTo(true1, 2);
    expect(ask(made, true1 + 12)?.outcome).toBe("missed");
    expect(ask(made, true1 - 12)?.outcome).toBe("driven");
    expect(made.seen.incidents).toEqual(["toolChipped"]);
    expect(made.state.setter.shiftMm).toBeLessThan(0);
  });
  it("a face mill on center is met by its recessed middle, and over its teeth by these; a drill off center comes out short", () => {
    const face = lane("five-tools-gauge-line", "tool5");
    const true5 = face.state.truth.lengthsMm.tool5 ?? 0;
    expect(ask(face, true5, 0)?.values.length).toBeCloseTo(true5 - 3, 2);
    expect(ask(face, true5, 21)?.values.length).toBeCloseTo(true5, 2);
    const drill = lane("five-tools-gauge-line", "tool3");
    const true3 = drill.state.truth.lengthsMm.tool3 ?? 0;
    expect(ask(drill, true3, 0, false)?.values.length).toBeCloseTo(true3, 2);
    expect(ask(drill, true3, 2, false)?.values.length).toBeCloseTo(true3 - 1.2, 2);
  });
  it("from both sides the diameter is right, from one side it carries the center's error twice", () => {
    const made = lane("five-tools-gauge-line", "tool1");
    const { truth } = made.state;
    const about = truth.lengthsMm.tool1 ?? 0;
    const trueDiameter = truth.diametersMm[1] ?? 0;
    expect(ask(made, about, 0, true, "diameterBoth")?.values.diameter).toBeCloseTo(trueDiameter, 2);
    expect((ask(made, about, 0, true, "diameterOne")?.values.diameter ?? 0) - trueDiameter).toBeCloseTo(
      2 * (truth.setter?.centerErrorMm.x ?? 0),
      2,
    );
    expect(ask(made, about, 0, false, "diameterBoth")?.values.diameter).toBeLessThan(trueDiameter - 0.02);
  });
  it("a card out of date shows when the bare nose is let down on the plunger by hand", () => {
    const made = lane("setter-in-doubt", null, {}, "doubt 1");
    const { setter } = made.seen.sheet;
    go(made, { x: setter?.xMm ?? 0, y: setter?.yMm ?? 0 });
    go(made, { z: (setter?.noseTriggerMm ?? 0) + 0.5 });
    for (let turn = 0; turn < 100 && !made.seen.isSetterTriggered; turn++)
      made.do({ type: "jog", axis: "z", direction: -1, clicks: 10, size: "fine" });
    expect((setter?.noseTriggerMm ?? 0) - made.state.position.z / 1000).toBeCloseTo(
      made.state.truth.doubt?.byMm ?? 0,
      2,
    );
  });
  it("the beam measures at speed, and whatever hangs on the tip with it", () => {
    const made = lane("lengths-at-speed", "tool1");
    const { truth } = made.state;
    const still = truth.lengthsMm.tool1 ?? 0;
    door(made, false);
    const beam = (rpm: number) => {
      made.do({ type: "askBeam", what: "length", rpm, isAtEdge: true });
      return last(made)?.values.length ?? 0;
    };
    expect(beam(0) - still).toBeCloseTo(truth.chipsMm.tool1 ?? 0, 2);
    door(made, true);
    made.do({ type: "blowTip" });
    door(made, false);
    expect(beam(0)).toBeCloseTo(still, 2);
    expect(beam(3000) - still).toBeCloseTo(-3 * truth.growthMmPer1000, 2);
  });
  it("the presetter measures what does not hang in the spindle; hand instruments what they fit", () => {
    const made = lane("diameters-offset-path");
    made.do({ type: "askPresetter", tool: 2 });
    expect(last(made)?.values.length).toBeCloseTo(made.state.truth.lengthsMm.tool2 ?? 0, 1);
    made.do({ type: "measure", what: "toolDiameter", by: "micrometer", tool: 1 });
    expect(last(made)?.values.tool1).toBeCloseTo(made.state.truth.diametersMm[1] ?? 0, 1);
    expect(refusal(made, { type: "measure", what: "stockX", by: "micrometer" })).toBe("doesNotMeasureThat");
    expect(refusal(made, { type: "measure", what: "toolDiameter", by: "caliper", tool: 1 })).toBe("instrumentNotHere");
    expect(refusal(made, { type: "measure", what: "feature", by: "micrometer" })).toBe("doesNotMeasureThat");
  });
  it("a rule read a hundred times says the same, so that nothing averages out", () => {
    const made = lane("five-tools-gauge-line", "tool1");
    const read = Array.from({ length: 100 }, () => {
      made.do({ type: "measure", what: "toolReach", by: "rule" });
      return last(made)?.values.reach;
    });
    expect(new Set(read).size).toBe(1);
  });
});
