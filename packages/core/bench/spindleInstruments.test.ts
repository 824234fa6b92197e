import type { MillSeen } from "@probe-lane/core/bench";
import { describe, expect, it } from "vitest";
import { millLane, type LaneDriver } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { door, go, refusal, lane, last, middle, besideLeft } from "../test/benchHands";
import type { Command } from "../machines/commands";

describe("lever taster", () => {
  const dial = (made: LaneDriver<MillSeen>) => (made.seen.tip?.kind === "dial" ? made.seen.tip.readsMm : NaN);
  it("rests two turns before zero, begins at the ball's radius, and reads zero with the axis over the face", () => {
    const made = lane("clamp-corner-taster", "taster");
    made.do({ type: "trueTaster" });
    besideLeft(made, 4);
    expect(dial(made)).toBe(-2);
    for (let turn = 0; turn < 60 && Math.abs(dial(made)) > 0.0005; turn++)
      made.do({
        type: "jog",
        axis: "x",
        direction: dial(made) > 0 ? -1 : 1,
        clicks: dial(made) === -2 ? 10 : Math.max(1, Math.round(Math.abs(dial(made)) * 1000)),
        size: dial(made) === -2 ? "coarse" : "fine",
      });
    const { truth, setup, position } = made.state;
    const face = truth.datumMm.x + (setup.datum.kind === "corner" ? setup.datum.edges.x.edgeWorkMm : 0);
    expect(position.x / 1000 - face).toBeCloseTo(0, 2);
  });
  it("a burr is met before the face by its own height, by taster and probe alike", () => {
    const contact = (id: string, thing: "taster" | "probe", isDressed: boolean) => {
      const made = millLane(findDemoExercise(id).exercise, "burr");
      made.do({ type: "home" });
      door(made, true);
      if (isDressed) made.do({ type: "dressBurr" });
      made.do({ type: "load", thing });
      besideLeft(made, 8);
      for (let turn = 0; turn < 900 && !(made.state.taster.touch ?? made.state.probe.touch); turn++)
        made.do({ type: "jog", axis: "x", direction: 1, clicks: 10, size: "fine" });
      return { at: made.state.position.x / 1000, burr: made.state.truth.burrMm.x };
    };
    for (const [id, thing] of [
      ["clamp-corner-taster", "taster"],
      ["clamp-middle-probe", "probe"],
    ] as const) {
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
    for (let turn = 0; turn < 3 && !made.seen.isStopped; turn++)
      made.do({ type: "jog", axis: "x", direction: 1, clicks: 50, size: "coarse" });
    expect(made.seen.incidents).toEqual(["tasterBroken"]);
    expect(
      refusal(lane("clamp-corner-taster", "taster"), { type: "startSpindle", direction: "forward", rpm: 500 }),
    ).toBe("mustNotTurn");
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
  const ask = (made: LaneDriver, command: Omit<Extract<Command, { type: "askProbe" }>, "type">) =>
    made.do({ type: "askProbe", ...command });
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
    expect((last(made)?.values.between ?? 0) - 2 * (setup.probe?.effectiveRadiusMm ?? 0)).toBeCloseTo(
      truth.stockSizeMm[0],
      2,
    );
  });
  it("nothing in reach is missed, a plate passed below is met by the stem, a size far too small drives it into the part", () => {
    const far = besideLeft(lane("clamp-middle-probe", "probe"), 30);
    ask(far, { question: "face", axis: "x", direction: 1, size: "5" });
    expect(last(far)?.outcome).toBe("missed");
    const deep = lane("plate-skewed", "probe", {
      skewDeg: [0, 0],
      fixture: { kind: "vise", fixedJaw: "front", proudMm: 16, hasStop: false },
    });
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
    for (const [id, question, depth] of [
      ["plate-bore-probe", "bore", "26"],
      ["bracket-boss-sweep", "boss", "24"],
    ] as const) {
      for (const off of [-2, 0, 3]) {
        const made = lane(id, "probe");
        const {
          sheet: { feature, partSizeMm },
          boxes: { stock, boss },
        } = made.seen;
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
    const {
      boxes: { stock },
      sheet: { feature },
    } = made.seen;
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
    expect((last(made)?.values.between ?? 0) + 2 * (3 - truth.probe.pretravelMm)).toBeCloseTo(
      truth.feature?.diameterMm ?? 0,
      2,
    );
    for (const [directionX, directionY] of [
      [-1, -1],
      [1, 1],
      [1, -1],
    ] as const) {
      stand({ x: center.x + directionX * 22, y: center.y + directionY * 12 });
      ask(made, { question: "cornerInside", direction: directionX, directionY, depth: "26" });
      expect(last(made)?.outcome).toBe("found");
      expect(last(made)?.values.x).toBeCloseTo(truth.datumMm.x + (directionX * (46 + grown)) / 2, 1);
      expect(last(made)?.values.y).toBeCloseTo(truth.datumMm.y + (directionY * (26 + grown)) / 2, 1);
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
    for (let turn = 0; turn < 40 && !(made.seen.tip?.kind === "probe" && made.seen.tip.isTriggered); turn++)
      made.do({ type: "jog", axis: "x", direction: 1, clicks: 10, size: "middle" });
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
    expect(refusal(made, { type: "askProbe", question: "face", axis: "x", direction: 1, size: "-3" })).toBe(
      "askNeedsPositive",
    );
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
      const {
        sheet: { feature },
        boxes: { stock, boss },
      } = made.seen;
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
