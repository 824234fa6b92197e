import { describe, expect, it } from "vitest";
import { LaneDriver, millLane, workLane, workUpTo, type Habits } from "@probe-lane/students";
import { demoExercises, findDemoExercise } from "../../../demo";
import { exerciseSchema, type Touching } from "../exercises";
import { isValueRight, rule, type RegisterRuling } from "../grading";
import { jogMm } from "../lane";
import { causeWords, touchingWords } from "../words";

const FOCUSER = "focuser-plate-lower-left";
/** The exercise as another shop sets it. */
function ruled(touching: Partial<Touching>, habits: Habits, toleranceMm = 0.02) {
  const { exercise, marking } = findDemoExercise(FOCUSER);
  const lane = new LaneDriver(exerciseSchema.parse({ ...exercise, touching }), "touching");
  workLane(lane, habits);
  const ruling = rule(lane.log, { ...marking, tolerancesMm: { ...marking.tolerancesMm, x: toleranceMm } });
  const of = (id: string) => {
    const value = ruling.values.find(({ target }) => target.id === id);
    if (!value) throw new Error(`no ${id}`);
    return value;
  };
  return { ruling, of, words: (id: string) => causeWords(of(id), ruling.sheet) };
}

describe("a click taken back at the contact", () => {
  const back: Habits = { backsOffFirst: { x: 1 } };
  it("that leaves the value inside its tolerance is no fault", () => {
    const x = ruled({}, back).of("x");
    expect([x.cause.kind, x.marks]).toEqual(["none", x.outOf]);
  });
  it("is named where it puts the value out, and costs", () => {
    const x = ruled({}, { backsOffFirst: { x: 2 } }, 0.004).of("x");
    expect(x.cause).toMatchObject({ kind: "proven", terms: [{ id: "capturedAfterLeaving" }] });
    expect(x.marks).toBeLessThan(x.outOf);
  });
  it("is a school where the exercise says so: allowed, and its size is the method’s mean", () => {
    const { of, words } = ruled({ clickBack: "free" }, back, 0.008);
    const x = of("x");
    expect(x.allowed).toMatchObject([{ id: "clickBack", mm: -0.01 }]);
    expect(x.cause.kind).toBe("none");
    expect(x.marks).toBe(x.outOf);
    expect(x.biasMm).toBeCloseTo(of("y").biasMm - 0.01, 6);
    expect(words("x").body).toContain("One click was taken back after the contact, as this shop may: −0.010");
  });
  it("two clicks back are no click back: the sentence would not be so", () => {
    expect(ruled({ clickBack: "free" }, { backsOffFirst: { x: 2 } }, 0.004).of("x").allowed).toBeUndefined();
  });
  it("a click further on, toward the part, is no click back either: it is a move", () => {
    const { exercise, marking } = findDemoExercise(FOCUSER);
    const captured = (way: "on" | "back") => {
      const lane = millLane(exerciseSchema.parse({ ...exercise, touching: { clickBack: "free" } }), "touching");
      workUpTo(lane, ({ type }) => type === "captureRegister");
      const came = lane.log.findLast(({ event }) => event.type === "jogged")?.event;
      if (came?.type !== "jogged" || came.axis !== "x") throw new Error("X was not touched");
      const direction = way === "on" ? came.direction : came.direction === 1 ? -1 : 1;
      lane.do({ type: "jog", axis: "x", direction, clicks: 1, size: "middle" });
      const { tipDiameterMm } = lane.seen.sheet;
      lane.do({ type: "captureRegister", register: "G54.x", asText: `-${tipDiameterMm / 2}` });
      lane.do({ type: "handIn" });
      const tight = { ...marking, tolerancesMm: { ...marking.tolerancesMm, x: 0.004 } };
      return rule(lane.log, tight).values.find(({ target }) => target.id === "x");
    };
    expect(captured("back")?.allowed).toMatchObject([{ id: "clickBack", mm: -0.01 }]);
    expect(captured("on")?.allowed).toBeUndefined();
    expect(captured("on")?.cause).toMatchObject({ terms: [{ id: "capturedAfterLeaving", mm: 0.01 }] });
  });
  it("of a millimetre is no click, whatever the school", () => {
    const x = ruled({ clickBack: "free" }, { backsOffFirst: { x: 100 } }).of("x");
    expect(isValueRight(x)).toBe(false);
    expect(x.cause).toMatchObject({ kind: "proven", terms: [{ id: "capturedAfterLeaving" }] });
  });
});

describe("paper that is not counted", () => {
  it("is a mistake where it is to be counted", () => {
    expect(ruled({}, { paper: "forgotten" }).of("z1").cause).toMatchObject({
      kind: "proven",
      terms: [{ id: "paperForgotten" }],
    });
  });
  it("is allowed where the shop has it so, and the ruling says what it costs", () => {
    const { of, words } = ruled({ paper: "ignored" }, { paper: "forgotten" });
    expect([of("z1").cause.kind, of("z1").marks]).toEqual(["none", of("z1").outOf]);
    expect(words("z1").body).toMatch(/paper was not counted, as this shop may: the tool stands 0\.\d+ mm high/);
  });
  it("and who counts it there is right all the same", () => {
    const z = ruled({ paper: "ignored" }, {}).of("z1");
    expect([z.cause.kind, z.marks]).toEqual(["none", z.outOf]);
  });
});

it("of two things that are off, the one that makes the size comes first", () => {
  const x = ruled({}, { backsOffFirst: { x: 1 }, radius: { x: "forgotten" } }).of("x");
  expect(x.cause.kind === "proven" && x.cause.terms[0]?.id).toBe("radiusForgotten");
});

it("an inch machine clicks .1, .01, .001 and .0001 in", () => {
  const inches = (["rapid", "coarse", "middle", "fine"] as const).map((size) => jogMm("inch", size) / 25.4);
  for (const [at, inch] of [0.1, 0.01, 0.001, 0.0001].entries()) expect(inches[at]).toBeCloseTo(inch, 9);
});

it("the sheet says how its shop touches", () => {
  const { ruling } = ruled({ clickBack: "always", paper: "free" }, {});
  expect(touchingWords(ruling.sheet)).toEqual([
    "one click back at every contact",
    "paper: counted or not, as you were taught",
  ]);
  expect(touchingWords(ruled({}, {}).ruling.sheet)).toEqual([]);
});

describe("a face that runs askew", () => {
  const JAW = "bracket-jaw-tapped";
  const touched = (habits: Habits, seed: string) => {
    const { exercise, marking } = findDemoExercise(JAW);
    const lane = new LaneDriver(exercise, seed);
    workLane(lane, { leavesJaw: true, ...habits });
    const ruling = rule(lane.log, marking);
    const y = ruling.values.find(({ target }) => target.id === "y");
    const state = lane.state;
    if (!y || state.kind !== "mill") throw new Error("no Y");
    return { y, sheet: ruling.sheet, skewDeg: state.truth.jawSkewDeg };
  };
  const shareOf = ({ provenance }: RegisterRuling, id: string) =>
    (provenance?.terms ?? []).filter((term) => term.id === id).reduce((sum, { mm }) => sum + mm, 0);

  it("puts a touch off by what it runs out over the way to the corner, and by no more", () => {
    for (const seed of ["a", "b", "c"]) {
      const { y, skewDeg } = touched({}, seed);
      const askew = shareOf(y, "faceAskew");
      expect(Math.sign(askew)).toBe(Math.sign(skewDeg));
      // what is left is the kick of an edge finder: 5 ± 2 µm of its own, half a micrometre each time
      expect(Math.abs(y.closureMm - askew)).toBeLessThan(0.015);
    }
  });
  it("beside a coarse click each has its own share, and the larger comes first", () => {
    const lanes = ["a", "b", "c", "d", "e", "f", "g", "h"].map((seed) => ({
      fine: touched({}, seed).y,
      ...touched({ coarseLastClick: { y: true } }, seed),
    }));
    for (const { y, fine } of lanes) {
      expect(shareOf(y, "faceAskew")).toBeCloseTo(shareOf(fine, "faceAskew"), 6);
      // what is left beside both is the kick
      expect(Math.abs(y.closureMm - shareOf(y, "faceAskew") - shareOf(y, "coarseClick"))).toBeLessThan(0.015);
    }
    const late = lanes.filter(
      ({ y }) => y.cause.kind === "proven" && Math.abs(shareOf(y, "coarseClick")) > Math.abs(shareOf(y, "faceAskew")),
    );
    expect(late.length).toBeGreaterThan(1);
    for (const { y, sheet } of late)
      expect(causeWords(y, sheet).headline).toContain("last click too coarse and face touched ran askew");
  });
});

it("in most vises the fixed jaw is at the back, and that is what the part is set against", () => {
  const vises = demoExercises
    .map(({ exercise }) => exercise.fixture)
    .filter((fixture) => fixture.kind === "vise" && fixture.fixedJaw !== undefined);
  const back = vises.filter((fixture) => "fixedJaw" in fixture && fixture.fixedJaw === "back");
  expect(vises.length).toBeGreaterThan(10);
  expect(back.length / vises.length).toBeGreaterThan(0.8);
});
