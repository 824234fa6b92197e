import { eyeShiftMm } from "../lane/eye";
import type { TurningSeen } from "@probe-lane/core/bench";
import fc from "fast-check";
import { LaneDriver, latheLane, workLane, type Bench, type Habits } from "@probe-lane/students";
import { demoExercises, findDemoExercise } from "../../../demo";
import { describe, expect, it } from "vitest";
import { carve, endAt, lastCut, type Outline } from "../machines/lathe/outline";
import type { TargetId } from "../exercises";
import { rule, type Ruling } from "../grading";
import { causeWords, coachWords, findingWords, gateWords, momentWords } from "../words";

const open = (id: string, seed: string): LaneDriver<TurningSeen> => latheLane(findDemoExercise(id).exercise, seed);
const latheIds = demoExercises.filter(({ exercise }) => exercise.lathe).map(({ exercise }) => exercise.id);

function ruled(id: string, habits: Habits, seed: string): { ruling: Ruling; lane: LaneDriver<TurningSeen> } {
  const lane = open(id, seed);
  workLane(lane, habits);
  return { lane, ruling: rule(lane.log, findDemoExercise(id).marking) };
}
const causeOf = ({ values }: Ruling, target: TargetId): string => {
  const cause = values.find((value) => value.target.id === target)?.cause;
  return cause?.kind === "proven" ? cause.terms.map(({ id }) => id).join() : (cause?.kind ?? "no such value");
};

describe("the part as it is turned", () => {
  const blank: Outline = [{ fromMm: 0, toMm: 40, radiusMm: 20, cut: 0 }];
  it("a skim at 19 from 30 to the face leaves two stretches", () =>
    expect(carve(blank, "outer", 30, 999, 19, 1)).toEqual([
      { fromMm: 0, toMm: 30, radiusMm: 20, cut: 0 },
      { fromMm: 30, toMm: 40, radiusMm: 19, cut: 1 },
    ]));
  it("a facing cut to the middle moves the end", () =>
    expect(endAt(carve(blank, "outer", 39.2, 999, 0, 1), [], 1)).toBe(39.2));
  it("a blade takes its width and no more", () =>
    expect(carve(blank, "outer", 10, 13, 15, 1).map(({ fromMm, toMm, radiusMm }) => [fromMm, toMm, radiusMm])).toEqual([
      [0, 10, 20],
      [10, 13, 15],
      [13, 40, 20],
    ]));
  it("no cut adds material, whatever the order, and stretches meet without gaps", () => {
    const cuts = fc.array(
      fc.record({
        from: fc.double({ min: -5, max: 45, noNaN: true }),
        width: fc.double({ min: 0.5, max: 60, noNaN: true }),
        radius: fc.double({ min: 0, max: 25, noNaN: true }),
      }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(cuts, (list) => {
        const end = list.reduce<Outline>(
          (at, { from, width, radius }, n) => carve(at, "outer", from, from + width, radius, n + 1),
          blank,
        );
        for (const [n, step] of end.entries()) {
          expect(step.radiusMm).toBeLessThanOrEqual(20);
          expect(step.fromMm).toBeCloseTo(n === 0 ? 0 : (end[n - 1]?.toMm ?? NaN), 5);
        }
        expect(end.at(-1)?.toMm).toBe(40);
        const least = list.reduce(
          (r, { from, width, radius }) => (from < 20 && from + width > 20 ? Math.min(r, radius) : r),
          20,
        );
        expect(end.find(({ fromMm, toMm }) => fromMm < 20 && toMm >= 20)?.radiusMm).toBe(least);
      }),
    );
  });
  it("a gauge finds no band that is narrower than a millimetre", () =>
    expect(lastCut(carve(blank, "outer", 39.5, 999, 19, 1))).toBeNull());
});

describe("one mistake on the lathe, named from the log", () => {
  const cases: [string, string, Habits, TargetId, string][] = [
    ["a radius where a diameter belongs", "knob-first-tool", { radiusForX: true }, "X1", "diameterAsRadius"],
    ["X moved on after the skim", "knob-first-tool", { movesBeforeX: 7 }, "X1", "capturedAfterLeaving"],
    ["Z moved on after facing", "knob-first-tool", { movesBeforeZ: 7 }, "Z1", "capturedAfterLeaving"],
    ["a band that had not cleaned up", "knob-first-tool", { skimsThin: true }, "X1", "notCleanedUp"],
    ["the feeler counted once", "collar-five-tools-face", { feelerOnce: true }, "X3", "feelerOnce"],
    ["the feeler left out", "collar-five-tools-face", { paper: "forgotten" }, "X4", "feelerForgotten"],
    ["the pin left out", "collar-five-tools-face", { gapForgotten: true }, "Z2", "gapForgotten"],
    ["the other edge of the blade", "collar-parting-edge", { otherBladeEdge: true }, "Z4", "otherBladeEdge"],
    ["touched where the stock runs out", "collar-five-tools-face", { touchesRaw: true }, "X4", "touchedRunout"],
    ["the face cut again", "collar-five-tools-face", { facesAgain: true }, "Z2", "faceCutAgain"],
    ["work Z with no offset called", "collar-five-tools-arm", { offsetNotCalled: true }, "Z2", "toolNotActive"],
    ["the shift missing", "knob-master-shift", { shiftMissing: true }, "Z2", "shiftMissing"],
    ["an old value in the master's row", "knob-master-shift", { leavesOldRow: true }, "Z1", "masterNotCleared"],
  ];
  for (const [name, id, habits, target, cause] of cases) {
    it(name, () => {
      let named = 0;
      for (let seed = 0; seed < 6; seed++) {
        const { ruling } = ruled(id, habits, `turned ${seed}`);
        // what stays inside the tolerance leaves nothing to name
        expect([cause, "none"], `seed ${seed}`).toContain(causeOf(ruling, target));
        named += Number(causeOf(ruling, target) === cause);
        for (const value of ruling.values)
          expect(Object.values(causeWords(value, ruling.sheet)).join(" ")).not.toMatch(/undefined|NaN|null/);
        for (const finding of ruling.findings) expect(findingWords(finding)).toMatch(/[.!]$/);
      }
      expect(named).toBeGreaterThanOrEqual(4);
    });
  }
  it("a drill taken where it was swept, and not moved", () => {
    let named = 0;
    for (let seed = 0; seed < 5; seed++) {
      const { ruling } = ruled("ring-drill-sweep", { sweepsOnly: true }, `swept ${seed}`);
      expect(["notOverMiddle", "none"]).toContain(causeOf(ruling, "X7"));
      named += Number(causeOf(ruling, "X7") === "notOverMiddle");
    }
    expect(named).toBeGreaterThanOrEqual(4);
  });
  it("shimmed the wrong way a tool stands twice as far off, by the whole pip as far on the other side", () => {
    const heightOf = (habits: Habits) => {
      const { ruling, lane } = ruled("knob-center-height", habits, "shims");
      return (
        (ruling.values.find(({ target }) => target.id === "C1")?.closureMm ?? NaN) /
        (lane.state.truth.lathe.tools[1]?.heightMm ?? NaN)
      );
    };
    expect(heightOf({ shims: "wrongWay" })).toBeCloseTo(2, 0);
    expect(heightOf({ shims: "whole" })).toBeCloseTo(-1, 0);
  });
  it("the feeler counted once leaves every diameter large by its thickness", () => {
    const { ruling, lane } = ruled("collar-five-tools-face", { feelerOnce: true }, "once");
    const t = lane.state.setup.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0;
    for (const target of ["X2", "X3", "X4", "X5"])
      expect(Math.abs((ruling.values.find((value) => value.target.id === target)?.closureMm ?? 0) - t)).toBeLessThan(
        0.04,
      );
  });
  it("what all tools carry in Z costs once", () => {
    const { ruling } = ruled("collar-five-tools-arm", { offsetNotCalled: true }, "shared");
    expect(ruling.values.filter(({ target, marks, outOf }) => target.id.startsWith("Z") && marks < outOf)).toHaveLength(
      1,
    );
  });
});

describe("the face under what is touched", () => {
  const facedTo = (overEdgeMm: number) => {
    const { lane } = ruled("ring-boring-bar", {}, "ring");
    const edgeMm = (lane.state.truth.lathe.stock.boreMm ?? NaN) / 2;
    const log = lane.log.map((entry) =>
      entry.event.type === "turned" && entry.event.kind === "outer" && entry.event.axis === "x"
        ? { ...entry, event: { ...entry.event, radiusMm: edgeMm + overEdgeMm } }
        : entry,
    );
    return rule(log, findDemoExercise("ring-boring-bar").marking).findings.find(
      (finding) => "step" in finding && finding.step === "facedClean",
    )?.code;
  };
  it("a ring faced to the edge of its hole is clean to the middle", () => expect(facedTo(0)).toBe("stepDone"));
  it("a ring faced short of its hole is not", () => expect(facedTo(1)).toBe("stepMissed"));
});

describe("safety and the machine", () => {
  it("a hand at the turning chuck fails outright and stops the machine", () => {
    const { ruling, lane } = ruled("knob-first-tool", { measuresWhileTurning: true }, "hand");
    expect(lane.seen.isStopped).toBe(true);
    expect(ruling.strands.find(({ name }) => name === "safety")?.marks).toBe(0);
    expect(ruling.findings).toContainEqual(
      expect.objectContaining({ code: "incident", incident: "handAtChuck", failsOutright: true }),
    );
  });
  it("the door limit of a chuck is lower than a mill spindle's", () => {
    const lane = open("knob-first-tool", "door");
    lane.do({ type: "home" });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 800 });
    expect(lane.attempt({ type: "setDoor", isOpen: true })).toEqual({ code: "doorOpenSpeed", rpm: 800, limitRpm: 60 });
  });
  it("rapid into the part chips the insert, and so does a tool driven into the jaws", () => {
    const lane = open("knob-first-tool", "rapid");
    lane.do({ type: "home" });
    const { tip } = lane.seen.lathe ?? { tip: { radiusMm: 0, zMm: 0, faceMm: 0 } };
    const x = lane.state.position.x / 1000 - 2 * (tip.radiusMm - 10);
    lane.do({ type: "runBlock", text: `G53 G0 X${x.toFixed(3)}` });
    lane.do({
      type: "runBlock",
      text: `G53 G0 Z${(lane.state.position.z / 1000 + tip.faceMm - tip.zMm - 5).toFixed(3)}`,
    });
    expect(lane.seen.incidents).toEqual(["insertChipped"]);
  });
  it("the turret does not swing where it would strike the part, and a fold-down arm keeps the spindle from starting safely", () => {
    const lane = open("collar-five-tools-arm", "swing");
    lane.do({ type: "home" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "swingArm", isDown: true });
    lane.do({ type: "setDoor", isOpen: false });
    expect(lane.attempt({ type: "index", station: 2, withOffset: false })).toEqual({ code: "armIsDown" });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 500 });
    expect(lane.seen.incidents).toEqual(["armStruck"]);
  });
  it("a tool word calls tool and row, T0300 without one, and a reset drops the row", () => {
    const lane = open("collar-five-tools-face", "word");
    lane.do({ type: "home" });
    lane.do({ type: "runBlock", text: "T0303" });
    expect(lane.seen.lathe).toMatchObject({ station: 3, row: 3 });
    lane.do({ type: "runBlock", text: "T0300" });
    expect(lane.seen.lathe).toMatchObject({ station: 3, row: null });
    lane.do({ type: "index", station: 3, withOffset: true });
    lane.do({ type: "reset" });
    expect(lane.seen.lathe?.row).toBeNull();
  });
  it("the display takes off geometry and wear of the row in use, X as a diameter", () => {
    const lane = open("knob-first-tool", "display");
    lane.do({ type: "home" });
    for (const [register, text] of [
      ["X1", "-280"],
      ["XW1", "0.02"],
      ["Z1", "-300"],
      ["G54.z", "2"],
    ] as const)
      lane.do({ type: "typeRegister", register, text, how: "set", isConfirmed: true });
    expect(lane.seen.work).toMatchObject({ x: 0, z: -2000 });
    lane.do({ type: "index", station: 1, withOffset: true });
    // 0 − (−280 + 0.02) and 0 − 2 + 300
    expect(lane.seen.work).toMatchObject({ x: 279_980, z: 298_000 });
  });
  it("what belongs to a mill is refused in words, and the other way round", () => {
    const lane = open("knob-first-tool", "mill");
    expect(lane.attempt({ type: "dressBurr" })).toEqual({ code: "notOnThisMachine" });
    const mill = new LaneDriver(findDemoExercise("focuser-plate-lower-left").exercise, "lathe");
    expect(mill.attempt({ type: "turnChuck" })).toEqual({
      code: "notOnThisMachine",
    });
  });
});

describe("nothing before hand-in is an oracle", () => {
  it("two truths within one step of the eye, the same moves, no contact: the same bytes", () => {
    const lane = open("collar-five-tools-face", "eye");
    const other = open("collar-five-tools-face", "eye");
    const { lathe } = other.state.truth;
    if (!lathe) throw new Error("not a lathe");
    const shifted = {
      ...other.state.truth,
      lathe: {
        ...lathe,
        skinMm: lathe.skinMm,
        tools: Object.fromEntries(
          Object.entries(lathe.tools).map(([n, { kxMm, qMm, heightMm }]) => [
            n,
            {
              heightMm,
              kxMm: nudge(kxMm, eyeShiftMm(other.state.truth, "x", Number(n))),
              qMm: nudge(qMm, eyeShiftMm(other.state.truth, "reach", Number(n))),
            },
          ]),
        ),
      },
    };
    other.state = { ...other.state, truth: shifted };
    for (const one of [lane, other]) {
      one.do({ type: "home" });
      one.do({ type: "runBlock", text: "G53 G0 Z-150" });
      one.do({ type: "runBlock", text: "G53 G0 X-120" });
      one.do({ type: "jog", axis: "x", direction: -1, clicks: 40, size: "coarse" });
    }
    expect(JSON.stringify(other.seen)).toBe(JSON.stringify(lane.seen));
  });
  /** Another truth that an eye rounds to the same place. */
  const nudge = (mm: number, offset: number): number => {
    const at = (one: number) => Math.round((one - offset) / 0.5);
    return at(mm + 0.03) === at(mm) ? mm + 0.03 : mm - 0.03;
  };
  it("a drawn radius stands on a grid of its lane's own: plunging until it flips tells no X", () => {
    const offGrid = [...Array(24).keys()].map((seed) => {
      const { partRadiusMm } = open("knob-first-tool", `grid ${seed}`).seen.lathe.tip;
      return ((partRadiusMm % 0.5) + 0.5) % 0.5;
    });
    // as many in each quarter of the step as chance would have it, and none at its edge alone
    const quarters = [0, 1, 2, 3].map((quarter) => offGrid.filter((mm) => Math.floor(mm / 0.125) === quarter).length);
    expect(Math.min(...quarters)).toBeGreaterThan(0);
    expect(new Set(offGrid.map((mm) => mm.toFixed(3))).size).toBeGreaterThan(18);
  });
  it("no hidden figure and no seed is in what leaves the server", () => {
    for (const id of latheIds) {
      const lane = open(id, "secret seed");
      workLane(lane, { stopsAfter: "homed" });
      const wire = JSON.stringify(lane.seen);
      const { lathe } = lane.state.truth;
      for (const mm of [
        lathe?.skinMm,
        ...Object.values(lathe?.tools ?? {}).flatMap(({ kxMm, qMm }) => [kxMm, qMm]),
        lathe?.stock.runoutMm,
      ])
        expect(wire).not.toContain(String(mm));
      expect(wire).not.toContain("secret seed");
    }
  });
});

it("gates, coach and log speak in words all the way through every lathe exercise", () => {
  for (const id of latheIds) {
    const { exercise } = findDemoExercise(id);
    const lane = latheLane(exercise, "words", { isCoachOn: true });
    for (const gate of lane.seen.gates) expect(gateWords(gate).length).toBeGreaterThan(2);
    if (exercise.lathe?.control !== "readout") lane.do({ type: "home" });
    if (lane.seen.coach) expect(coachWords(lane.seen.coach, lane.seen)).toMatch(/.{30,}/);
    workLane(lane, {});
    for (const { event } of lane.log)
      expect(momentWords(event, lane.state.setup)).toMatch(/^(?!.*(undefined|NaN)).{4,}$/);
  }
});

it("the sum by hand is taken where Z stands at a face that was just cut, and not once Z has moved", () => {
  const lane = open("collar-five-tools-arm", "cut face");
  const looks: (string | null)[] = [];
  const bench: Bench<TurningSeen> = {
    get seen() {
      return lane.seen;
    },
    attempt: (command) => lane.attempt(command),
    do: (command) => {
      const seen = lane.do(command);
      const expectation = { type: "expectCheck", check: "sumByHand", text: "0", tool: 1 } as const;
      if (command.type === "home") lane.do(expectation);
      if (command.type !== "captureRegister" || command.register !== "G54.z") return seen;
      // said here it would be read off the display
      looks.push(lane.attempt(expectation)?.code ?? null);
      const look = () => looks.push(lane.attempt({ type: "lookCheck" })?.code ?? null);
      look();
      lane.do({ type: "jog", axis: "z", direction: 1, clicks: 1, size: "middle" });
      look();
      return lane.seen;
    },
  };
  try {
    workLane(bench, {});
  } catch {
    // the rest of the student's work does not count on the move
  }
  expect(looks).toEqual(["answerShows", null, "touchFirst"]);
});
