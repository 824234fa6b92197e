import { describe, expect, it } from "vitest";
import { findDemoExercise, LaneDriver } from "../../../demo";
import { exerciseSchema, type Exercise } from "../exercises";
import { scales, showLength } from "../units";
import type { Command } from "./commands";

const text = (lane: LaneDriver, mm: number) => showLength(mm, scales[lane.state.setup.unit]);
const door = (lane: LaneDriver, isOpen: boolean) => lane.seen.isDoorOpen !== isOpen && lane.do({ type: "setDoor", isOpen });
const go = (lane: LaneDriver, at: Partial<Record<"x" | "y" | "z", number>>) => {
  door(lane, false);
  lane.do({ type: "runBlock", text: `G53 G0 ${Object.entries(at).map(([axis, mm]) => axis.toUpperCase() + text(lane, mm)).join(" ")}` });
};
const refusal = (lane: LaneDriver, command: Command) => lane.attempt(command)?.code ?? "done";

/** A homed lane of an exercise of the pack, changed where a test wants it so, with something in the spindle. */
function lane(id: string, holds: Parameters<typeof loaded>[1] = null, change: Partial<Exercise> = {}, seed = "bench"): LaneDriver {
  const file = findDemoExercise(id).exercise;
  return loaded(new LaneDriver(exerciseSchema.parse({ ...file, ...change }), seed), holds);
}
function loaded(made: LaneDriver, thing: "taster" | "probe" | "indicator" | "edgeFinder" | "tool1" | "tool2" | "tool3" | "tool5" | null): LaneDriver {
  for (const task of made.seen.sheet.tasks.filter((one) => one === "releaseStop" || one === "lowRapid")) made.do({ type: "doTask", task });
  made.do({ type: "home" });
  door(made, true);
  if (made.seen.sheet.tasks.includes("dressBurr")) made.do({ type: "dressBurr" });
  if (thing) made.do({ type: "load", thing });
  return made;
}
const last = (made: LaneDriver) => made.seen.readings.at(-1);
const middle = ({ seen: { boxes: { stock } } }: LaneDriver) => ({ x: (stock.low.x + stock.high.x) / 2, y: (stock.low.y + stock.high.y) / 2 });
/** Beside the left face, so far from it and so deep below the top, mm by eye. */
function besideLeft(made: LaneDriver, offMm: number, deepMm = 5): LaneDriver {
  const { stock } = made.seen.boxes;
  go(made, { x: stock.low.x - offMm, y: middle(made).y });
  go(made, { z: stock.high.z + made.seen.heldLengthMm - deepMm });
  return made;
}

describe("lever taster", () => {
  const dial = (made: LaneDriver) => (made.seen.tip?.kind === "dial" ? made.seen.tip.readsMm : NaN);
  it("rests two turns before zero, begins at the ball's radius, and reads zero with the axis over the face", () => {
    const made = lane("clamp-corner-taster", "taster");
    made.do({ type: "trueTaster" });
    besideLeft(made, 4);
    expect(dial(made)).toBe(-2);
    for (let turn = 0; turn < 60 && Math.abs(dial(made)) > 0.0005; turn++) made.do({ type: "jog", axis: "x", direction: dial(made) > 0 ? -1 : 1, clicks: dial(made) === -2 ? 10 : Math.max(1, Math.round(Math.abs(dial(made)) * 1000)), size: dial(made) === -2 ? "coarse" : "fine" });
    const { truth, setup, position } = made.state;
    const face = truth.datumMm.x + (setup.datum.kind === "corner" ? setup.datum.edges.x.edgeWorkMm : 0);
    expect(position.x / 1000 - face).toBeCloseTo(0, 2);
  });
  it("a burr is met before the face by its own height, by taster and probe alike", () => {
    const contact = (id: string, thing: "taster" | "probe", isDressed: boolean) => {
      const made = new LaneDriver(findDemoExercise(id).exercise, "burr");
      made.do({ type: "home" });
      door(made, true);
      if (isDressed) made.do({ type: "dressBurr" });
      made.do({ type: "load", thing });
      besideLeft(made, 8);
      for (let turn = 0; turn < 900 && !(made.state.taster.touch ?? made.state.probe.touch); turn++) made.do({ type: "jog", axis: "x", direction: 1, clicks: 10, size: "fine" });
      return { at: made.state.position.x / 1000, burr: made.state.truth.burrMm.x };
    };
    for (const [id, thing] of [["clamp-corner-taster", "taster"], ["clamp-middle-probe", "probe"]] as const) {
      const [clean, burred] = [contact(id, thing, true), contact(id, thing, false)];
      expect(clean.at - burred.at).toBeCloseTo(burred.burr, 2);
    }
  });
  it("untrued, it reads otherwise when the spindle is turned by hand; trued, hardly", () => {
    const spread = (isTrued: boolean) => {
      const made = lane("clamp-corner-taster", "taster");
      if (isTrued) made.do({ type: "trueTaster" });
      besideLeft(made, 4);
      while (dial(made) === -2) made.do({ type: "jog", axis: "x", direction: 1, clicks: 1, size: "coarse" });
      made.do({ type: "jog", axis: "x", direction: 1, clicks: 5, size: "coarse" });
      door(made, true);
      const read = [0, 1, 2, 3].map(() => {
        made.do({ type: "turnSpindle" });
        return dial(made);
      });
      return Math.max(...read) - Math.min(...read);
    };
    expect(spread(false)).toBeGreaterThan(0.03);
    expect(spread(true)).toBe(0);
  });
  it("pushed past its travel it breaks; started under power it refuses, or is destroyed where the machine lets it", () => {
    const made = besideLeft(lane("clamp-corner-taster", "taster"), 3);
    made.do({ type: "jog", axis: "x", direction: 1, clicks: 50, size: "coarse" });
    for (let turn = 0; turn < 3 && !made.seen.isStopped; turn++) made.do({ type: "jog", axis: "x", direction: 1, clicks: 50, size: "coarse" });
    expect(made.seen.incidents).toEqual(["tasterBroken"]);
    expect(refusal(lane("clamp-corner-taster", "taster"), { type: "startSpindle", direction: "forward", rpm: 500 })).toBe("mustNotTurn");
    const careless = lane("clamp-middle-probe", "probe");
    careless.do({ type: "startSpindle", direction: "forward", rpm: 500 });
    expect(careless.seen.incidents).toEqual(["startedWithInstrument"]);
    expect(careless.seen.tip).toEqual({ kind: "destroyed" });
    careless.do({ type: "reset" });
    careless.do({ type: "unload" });
    careless.do({ type: "load", thing: "probe" });
    expect(careless.seen.tip).toEqual({ kind: "probe", isTriggered: false });
  });
});

describe("spindle probe", () => {
  const ask = (made: LaneDriver, command: Omit<Extract<Command, { type: "askProbe" }>, "type">) => made.do({ type: "askProbe", ...command });
  it("one face: triggers at its effective radius, inside the ball by the pre-travel", () => {
    const made = besideLeft(lane("clamp-middle-probe", "probe"), 8);
    ask(made, { question: "face", axis: "x", direction: 1, size: "12" });
    const { truth } = made.state;
    const face = truth.datumMm.x - truth.stockSizeMm[0] / 2;
    expect(last(made)?.outcome).toBe("found");
    expect(face - (last(made)?.values.at ?? 0)).toBeCloseTo(3 - truth.probe.pretravelMm, 2);
    expect(made.seen.tip).toEqual({ kind: "probe", isTriggered: false });
  });
  it("two faces: the middle is the middle, and the size betrays the radius; the direction of the question does not matter", () => {
    const made = lane("clamp-middle-probe", "probe");
    go(made, middle(made));
    go(made, { z: made.seen.boxes.stock.high.z + made.seen.heldLengthMm + 20 });
    ask(made, { question: "twoOutside", axis: "x", size: "84", depth: "26" });
    const { truth, setup } = made.state;
    expect(last(made)?.values.middle).toBeCloseTo(truth.datumMm.x, 2);
    expect((last(made)?.values.between ?? 0) - 2 * (setup.probe?.effectiveRadiusMm ?? 0)).toBeCloseTo(truth.stockSizeMm[0], 2);
  });
  it("nothing in reach is missed, a plate passed below is met by the stem, a size far too small drives it into the part", () => {
    const far = besideLeft(lane("clamp-middle-probe", "probe"), 30);
    ask(far, { question: "face", axis: "x", direction: 1, size: "5" });
    expect(last(far)?.outcome).toBe("missed");
    const deep = lane("plate-skewed", "probe", { skewDeg: [0, 0], fixture: { kind: "vise", fixedJaw: "front", proudMm: 16, hasStop: false } });
    const { stock } = deep.seen.boxes;
    go(deep, { x: stock.low.x - 10, y: middle(deep).y });
    go(deep, { z: stock.low.z + deep.seen.heldLengthMm - 10 });
    ask(deep, { question: "face", axis: "x", direction: 1, size: "14" });
    expect(last(deep)?.outcome).toBe("stemTouched");
    const wrong = lane("clamp-middle-probe", "probe");
    go(wrong, middle(wrong));
    go(wrong, { z: wrong.seen.boxes.stock.high.z + wrong.seen.heldLengthMm + 20 });
    ask(wrong, { question: "twoOutside", axis: "x", size: "40", depth: "26" });
    expect(last(wrong)?.outcome).toBe("driven");
    expect(wrong.seen.incidents).toEqual(["probeBroken"]);
    expect(wrong.seen.isStopped).toBe(true);
  });
  it("a round hole and a round boss answer with the same axis whatever size was about right", () => {
    for (const [id, question, depth] of [["plate-bore-probe", "bore", "26"], ["bracket-boss-sweep", "boss", "24"]] as const) {
      for (const off of [-2, 0, 3]) {
        const made = lane(id, "probe");
        const { sheet: { feature, partSizeMm }, boxes: { stock, boss } } = made.seen;
        expect(feature && partSizeMm.length).toBe(3);
        go(made, { x: stock.low.x + (feature?.atMm[0] ?? 0), y: stock.low.y + (feature?.atMm[1] ?? 0) });
        go(made, { z: (boss ?? stock).high.z + made.seen.heldLengthMm + 20 });
        ask(made, { question, size: String((feature?.diameterMm ?? 0) + off), depth });
        expect(last(made)?.outcome).toBe("found");
        expect(last(made)?.values.x).toBeCloseTo(made.state.truth.datumMm.x, 2);
        expect(last(made)?.values.y).toBeCloseTo(made.state.truth.datumMm.y, 2);
      }
    }
  });
  it("two faces from inside, and each inside corner of the window, answer where the window is", () => {
    const made = lane("plate-pocket-probe", "probe");
    const { boxes: { stock }, sheet: { feature } } = made.seen;
    const center = { x: stock.low.x + (feature?.atMm[0] ?? 0), y: stock.low.y + (feature?.atMm[1] ?? 0) };
    const stand = (at: { x: number; y: number }) => {
      go(made, { z: 0 });
      go(made, at);
      go(made, { z: stock.high.z + made.seen.heldLengthMm + 20 });
    };
    const { truth } = made.state;
    const grown = (truth.feature?.diameterMm ?? 0) - (feature?.diameterMm ?? 0);
    stand(center);
    ask(made, { question: "twoInside", axis: "x", size: "46", depth: "26" });
    expect(last(made)?.values.middle).toBeCloseTo(truth.datumMm.x, 2);
    expect((last(made)?.values.between ?? 0) + 2 * (3 - truth.probe.pretravelMm)).toBeCloseTo(truth.feature?.diameterMm ?? 0, 2);
    for (const [directionX, directionY] of [[-1, -1], [1, 1], [1, -1]] as const) {
      stand({ x: center.x + directionX * 22, y: center.y + directionY * 12 });
      ask(made, { question: "cornerInside", direction: directionX, directionY, depth: "26" });
      expect(last(made)?.outcome).toBe("found");
      expect(last(made)?.values.x).toBeCloseTo(truth.datumMm.x + directionX * (46 + grown) / 2, 1);
      expect(last(made)?.values.y).toBeCloseTo(truth.datumMm.y + directionY * (26 + grown) / 2, 1);
    }
  });
  it("each outside corner of a turned part is found with its turn", () => {
    const made = lane("plate-skewed", "probe", {}, "turned");
    const { truth } = made.state;
    const { stock } = made.seen.boxes;
    go(made, { x: stock.low.x + 1, y: stock.low.y + 1 });
    go(made, { z: stock.high.z + made.seen.heldLengthMm + 20 });
    ask(made, { question: "cornerOutside", direction: -1, directionY: -1, depth: "26" });
    expect(last(made)?.values.angleDeg).toBeCloseTo(truth.skewDeg, 1);
    expect(last(made)?.values.x).toBeCloseTo(truth.datumMm.x, 1);
    expect(last(made)?.values.y).toBeCloseTo(truth.datumMm.y, 1);
  });
  it("by hand its lamp comes on at the face, and a rapid click breaks it", () => {
    const made = besideLeft(lane("clamp-middle-probe", "probe"), 5);
    for (let turn = 0; turn < 40 && !(made.seen.tip?.kind === "probe" && made.seen.tip.isTriggered); turn++) made.do({ type: "jog", axis: "x", direction: 1, clicks: 10, size: "middle" });
    expect(made.state.probe.touch?.axis).toBe("x");
    made.do({ type: "jog", axis: "x", direction: -1, clicks: 10, size: "coarse" });
    expect(made.state.probe.touch).toBeNull();
    const fast = besideLeft(lane("clamp-middle-probe", "probe"), 5);
    fast.do({ type: "jog", axis: "x", direction: 1, clicks: 5, size: "rapid" });
    expect(fast.seen.incidents).toEqual(["probeBroken"]);
  });
  it("wants its figures, above zero, and stays out of the changer", () => {
    const made = besideLeft(lane("clamp-middle-probe", "probe"), 8);
    expect(refusal(made, { type: "askProbe", question: "face", size: "10" })).toBe("askNeedsSide");
    expect(refusal(made, { type: "askProbe", question: "face", axis: "x", direction: 1, size: "-3" })).toBe("askNeedsPositive");
    expect(refusal(made, { type: "askProbe", question: "face", axis: "x", direction: 1, size: "wide" })).toBe("text");
    go(made, { z: 0 });
    made.do({ type: "runBlock", text: "T1 M6" });
    expect(made.seen.incidents).toEqual(["changerStruck"]);
  });
});

describe("indicator", () => {
  it("reads by half what it stands off, the other way round on a boss, and nothing out of its range or under power", () => {
    for (const id of ["plate-bore-sweep", "bracket-boss-sweep"]) {
      const made = lane(id, "indicator");
      const { sheet: { feature }, boxes: { stock, boss } } = made.seen;
      const at = { x: stock.low.x + (feature?.atMm[0] ?? 0), y: stock.low.y + (feature?.atMm[1] ?? 0) };
      go(made, at);
      go(made, { z: (boss ?? stock).high.z + made.seen.heldLengthMm - 3 });
      door(made, true);
      made.do({ type: "sweep" });
      const values: Readonly<Record<string, number>> = last(made)?.values ?? {};
      const off = made.state.position.x / 1000 - made.state.truth.datumMm.x;
      expect(((values.at0 ?? 0) - (values.at180 ?? 0)) / 2).toBeCloseTo(boss ? -off : off, 2);
      go(made, { x: at.x + 2 });
      door(made, true);
      made.do({ type: "sweep" });
      expect(last(made)?.outcome).toBe("missed");
    }
  });
});

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
    for (let turn = 0; turn < 200 && !made.seen.lamp?.isLit; turn++) made.do({ type: "jog", axis: "z", direction: -1, clicks: 20, size: "fine" });
    const { truth } = made.state;
    expect(made.state.position.z / 1000 - (truth.lengthsMm.tool1 ?? 0) - truth.datumMm.z).toBeCloseTo(50, 2);
    expect(refusal(made, { type: "takeLamp" })).toBe("lampPressed");
    for (let turn = 0; turn < 40 && !made.seen.isStopped; turn++) made.do({ type: "jog", axis: "z", direction: -1, clicks: 20, size: "middle" });
    expect(made.state.incidents).toEqual([{ code: "toolChipped", isSilent: false }, { code: "gaugeDamaged", isSilent: true }]);
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
    for (let turn = 0; turn < 40 && made.seen.paper?.feel === "slides"; turn++) made.do({ type: "jog", axis: "z", direction: -1, clicks: 20, size: "middle" });
    expect(made.state.position.z / 1000 - made.state.truth.datumMm.z).toBeLessThan(0.11);
  });
});

describe("setters", () => {
  const ask = (made: LaneDriver, about: number, offset = 0, isTurning = true, what: "length" | "diameterBoth" | "diameterOne" = "length") => {
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
    expect((ask(made, about, 0, true, "diameterOne")?.values.diameter ?? 0) - trueDiameter).toBeCloseTo(2 * (truth.setter?.centerErrorMm.x ?? 0), 2);
    expect(ask(made, about, 0, false, "diameterBoth")?.values.diameter).toBeLessThan(trueDiameter - 0.02);
  });
  it("a card out of date shows when the bare nose is let down on the plunger by hand", () => {
    const made = lane("setter-in-doubt", null, {}, "doubt 1");
    const { setter } = made.seen.sheet;
    go(made, { x: setter?.xMm ?? 0, y: setter?.yMm ?? 0 });
    go(made, { z: (setter?.noseTriggerMm ?? 0) + 0.5 });
    for (let turn = 0; turn < 100 && !made.seen.isSetterTriggered; turn++) made.do({ type: "jog", axis: "z", direction: -1, clicks: 10, size: "fine" });
    expect((setter?.noseTriggerMm ?? 0) - made.state.position.z / 1000).toBeCloseTo(made.state.truth.doubt?.byMm ?? 0, 2);
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

describe("getting ready", () => {
  it("with the stop pressed nothing moves, and the tasks are each done once", () => {
    const made = new LaneDriver(findDemoExercise("bracket-cold-machine").exercise, "cold");
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
    expect(refusal(lane("clamp-middle-probe"), { type: "tapPart", direction: 1, strength: "light" })).toBe("partIsGripped");
  });
});

describe("registers as the machine is set", () => {
  const settings = findDemoExercise("five-tools-free").exercise.settings;
  const withSettings = (change: Partial<Exercise["settings"]>) => lane("five-tools-free", null, { settings: { ...settings, ...change } });
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
    expect(refusal(made, { type: "takeInRegisters", rows: [{ register: "G54.x", text: "-300" }, { register: "H1", text: "oops" }] })).toBe("text");
    expect(made.state.registers.work.G54.x).toBe(0);
    made.do({ type: "takeInRegisters", rows: [{ register: "G54.x", text: "-300" }, { register: "H1", text: "-240.5" }] });
    expect([made.state.registers.work.G54.x, made.state.registers.lengthGeometry[1]]).toEqual([-300_000, -240_500]);
    expect(refusal(made, { type: "takeInRegisters", rows: [{ register: "G54.x", text: "-300" }] })).toBe("nothingChanges");
    made.do({ type: "undoRegister" });
    expect(made.state.registers.lengthGeometry[1]).toBe(0);
  });
  it("with a turn called, a programmed place turns about work zero", () => {
    const made = withSettings({});
    made.do({ type: "takeInRegisters", rows: [{ register: "G54.x", text: "-300" }, { register: "G54.y", text: "-150" }] });
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
    expect(made.seen.check?.seenMm).toBeCloseTo(made.seen.heldLengthMm, 9);
    made.do({ type: "judgeCheck", isAsExpected: true });
    expect(made.seen.check).toBeNull();
    expect(made.seen.evidence.checksJudged).toEqual(["ruleBeside"]);
  });
});
