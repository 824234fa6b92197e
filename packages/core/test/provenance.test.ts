import { describe, expect, it } from "vitest";
import {
  LaneDriver,
  NonsenseBench,
  SlippingBench,
  WanderingBench,
  settingsOf,
  slipKinds,
  workLane,
  type Bench,
  type Habits,
  type SlipKind,
} from "@probe-lane/students";
import { demoExercises, findDemoExercise } from "../../../demo";
import { kickFace } from "../../students/machines/mill/edges";
import type { Command, MillSeen, Observation } from "../bench";
import type { CauseId } from "../diagnosis";
import { edgeOf } from "../exercises";
import { rule, type RegisterRuling, type Ruling } from "../grading";
import { readRegister, type RegisterId } from "../registers";
import { scales, showLength } from "../units";
import { causeWords } from "../words";

/** A bench on which some commands are done otherwise. */
function otherwise<S extends Observation>(
  bench: Bench<S>,
  change: (command: Command, seen: S) => readonly Command[],
): Bench<S> {
  return {
    get seen() {
      return bench.seen;
    },
    attempt: (command) =>
      change(command, bench.seen).reduce<ReturnType<Bench["attempt"]>>((_last, one) => bench.attempt(one), null),
    do: (command) => {
      for (const one of change(command, bench.seen)) bench.do(one);
      return bench.seen;
    },
  };
}

function worked(
  id: string,
  habits: Habits,
  seed: string,
  change: (command: Command, seen: Observation) => readonly Command[] = (command) => [command],
): Ruling {
  const { exercise, marking } = findDemoExercise(id);
  const lane = new LaneDriver(exercise, seed);
  workLane(otherwise(lane, change), habits);
  return rule(lane.log, marking);
}

const valueOf = (ruling: Ruling, target: string): RegisterRuling => {
  const value = ruling.values.find((one) => one.target.id === target);
  if (!value) throw new Error(`valueOf: no value ${target}`);
  return value;
};
/** What is claimed of a value, the largest share first; with a question mark where it is inferred. */
function said({ cause }: RegisterRuling): string {
  if (cause.kind === "proven") return cause.terms.map(({ id }) => id).join(" ");
  return cause.kind === "inferred" ? `? ${cause.ranked[0]?.ids.join(" ") ?? ""}` : cause.kind;
}
const sentenceOf = (ruling: Ruling, target: string): string => {
  const words = causeWords(valueOf(ruling, target), ruling.sheet);
  return `${words.headline} ${words.body} ${words.proof}`;
};
const isSetting = (command: Command, register: RegisterId) =>
  (command.type === "captureRegister" || command.type === "typeRegister") && command.register === register;
const show = (mm: number) => showLength(mm, scales.mm);
/** A figure as it was typed, mm. */
const figure = (text: string) => Number(text.replace("−", "-"));

/** By how much terms and own error miss the closure, mm. */
const missOf = ({ provenance, closureMm }: RegisterRuling): number =>
  provenance ? provenance.terms.reduce((sum, { mm }) => sum + mm, provenance.ownMm) - closureMm : 0;

describe("a closure taken apart adds up, to the increment", () => {
  it("whatever nonsense is pressed between the strokes, on every machine and in every school", () => {
    let values = 0;
    for (const [turn, { exercise, marking }] of demoExercises.entries()) {
      // a little nonsense and much of it, in turn
      const lane = new LaneDriver(exercise, `nonsense ${turn}`);
      try {
        workLane(new NonsenseBench(lane, turn + 1, turn % 2 === 0 ? 0.02 : 0.05), {});
      } catch {
        // keys pressed at random end many a student's work; what there is of it is ruled
      }
      const increment = scales[exercise.unit].countMm;
      for (const value of rule(lane.log, marking).values) {
        values += 1;
        expect(Math.abs(missOf(value)), `${exercise.id} ${value.target.id}`).toBeLessThanOrEqual(increment);
      }
    }
    expect(values).toBeGreaterThan(200);
  });
  it("and what a careful student leaves is the method's own error, however they wander", () => {
    for (const [turn, { exercise, marking }] of demoExercises.entries()) {
      const lane = new LaneDriver(exercise, `wanders ${turn}`);
      workLane(new WanderingBench(lane, turn * 31 + 7), {});
      const ruling = rule(lane.log, marking);
      expect(ruling.values.filter(({ cause }) => cause.kind !== "none").map(said), exercise.id).toEqual([]);
      expect(ruling.total, exercise.id).toBeCloseTo(100, 6);
    }
  });
});

/** What a slip may be called: the thing itself, or what it comes to where a term is the whole figure. */
const NAMES: Record<SlipKind, readonly CauseId[]> = {
  digitsSwapped: ["digitsSwapped", "decimalShifted"],
  digitMistyped: ["digitMistyped", "otherFigure"],
  signTurned: [
    "wholeSignTurned",
    "radiusSignTurned",
    "edgeWorkSignTurned",
    "paperWrongWay",
    "gapWrongWay",
    "blockWrongWay",
    "otherBladeEdge",
    "librarySign",
    "wearSignTurned",
  ],
  decimalShifted: ["decimalShifted", "facingForgotten", "otherFigure"],
  inchForMm: ["inchForMm", "otherFigure", "paperForgotten", "gapForgotten", "decimalShifted"],
  offFigure: ["otherFigure", "wrongSum", "cornerNotZero", "carriedOver"],
  leftFirst: ["capturedAfterLeaving", "notOverMiddle", "dialNotAtZero", "carriedOver"],
  otherOffset: [
    "otherRegister",
    "neverSet",
    "keptChanged",
    "otherFigure",
    "paperForgotten",
    "facingForgotten",
    "leftoverWorkZ",
    "masterNotCleared",
    "oldWear",
    "blockForgotten",
    "shiftMissing",
    "carriedOver",
    "plateMetEarly",
  ],
  notSet: [
    "neverSet",
    "keptChanged",
    "otherFigure",
    "paperForgotten",
    "facingForgotten",
    "leftoverWorkZ",
    "masterNotCleared",
    "oldWear",
    "blockForgotten",
    "shiftMissing",
    "liftMissing",
    "carriedOver",
    "plateMetEarly",
  ],
  undone: [
    "takenBack",
    "otherFigure",
    "paperForgotten",
    "facingForgotten",
    "leftoverWorkZ",
    "masterNotCleared",
    "oldWear",
    "blockForgotten",
    "shiftMissing",
    "liftMissing",
    "carriedOver",
    "plateMetEarly",
  ],
  addedAgain: ["otherFigure", "carriedOver", "diameterForRadius", "gapWrongWay"],
};

/** Registers are what this is about: no program is run. */
const SETS_ONLY = { runsNothing: true } as const;

describe("slips of the hand, on every register of every exercise", () => {
  it("are called what they are", () => {
    let made = 0;
    for (const { exercise, marking } of demoExercises) {
      if (exercise.handover || exercise.lathe?.cone) continue;
      const lane = settingsOf(new LaneDriver(exercise, "slips"));
      workLane(lane, SETS_ONLY);
      // every kind on most exercises, in turn over their registers
      for (const [place, register] of [...new Set(lane.made)].entries())
        for (const [turn, kind] of slipKinds.entries()) {
          if (/^[RQ]\d/.test(register) || (place + turn) % 12 !== 0) continue;
          const driver = new LaneDriver(exercise, "slips");
          const slip = new SlippingBench(driver, { kind, register, nth: 0, turn });
          try {
            workLane(slip, SETS_ONLY);
          } catch {
            // a slip may lead where a later step is refused, and the work ends
            continue;
          }
          if (!slip.isMade) continue;
          const off = rule(driver.log, marking).values.filter(
            (value) => Math.abs(value.closureMm) > value.toleranceMm && value.target.registers.includes(register),
          );
          for (const value of off) {
            made += 1;
            expect(NAMES[kind], `${kind} ${exercise.id} ${register} ${value.target.id}: ${said(value)}`).toContain(
              said(value).replace("? ", "").split(" ")[0],
            );
          }
        }
    }
    expect(made).toBeGreaterThan(100);
  }, 240_000);
});

describe("stories of wrong numbers", () => {
  it("a face mill measured on center: the figure is the reading, and the reading is short", () => {
    const ruling = worked("five-tools-gauge-line", {}, "center", (command) =>
      command.type === "askSetter" ? [{ ...command, offset: "0" }] : [command],
    );
    const wide = ruling.values.filter(({ closureMm, toleranceMm }) => Math.abs(closureMm) > toleranceMm);
    expect(wide.map(said)).toEqual(["measuredOnCenter"]);
    expect(sentenceOf(ruling, wide[0]?.target.id ?? "")).toMatch(
      /measured on center: its recessed middle met the plunger/,
    );
  });
  it("work Z off the nose: paper left out, left first, and both", () => {
    const leave = (command: Command): readonly Command[] =>
      command.type === "takeReading" && command.register === "G54.z"
        ? [{ type: "jog", axis: "z", direction: 1, clicks: 13, size: "coarse" }, command]
        : [command];
    expect(said(valueOf(worked("five-tools-gauge-line", { paper: "forgotten" }, "nose"), "workZ"))).toBe(
      "paperForgotten",
    );
    // the student takes the reading late, and works with the place at the touch
    const captured =
      (asText: string) =>
      (command: Command): readonly Command[] =>
        command.type === "typeRegister" && command.register === "G54.z"
          ? [{ type: "captureRegister", register: "G54.z", asText }]
          : leave(command);
    const { sheet } = worked("five-tools-gauge-line", {}, "nose");
    const paper = sheet.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0;
    expect(said(valueOf(worked("five-tools-gauge-line", {}, "nose", captured(show(paper))), "workZ"))).toBe(
      "capturedAfterLeaving",
    );
    expect(said(valueOf(worked("five-tools-gauge-line", {}, "nose", captured("0")), "workZ"))).toBe(
      "capturedAfterLeaving paperForgotten",
    );
  });
  it("a probe's answer typed into another offset: which one", () => {
    const ruling = worked("clamp-middle-probe", {}, "row", (command) =>
      isSetting(command, "G54.x") ? [{ ...command, register: "G56.x" } as Command] : [command],
    );
    expect(said(valueOf(ruling, "x"))).toBe("otherRegister");
    expect(sentenceOf(ruling, "x")).toContain("The value was put into G56 X; G54 X itself was not set.");
  });
  it("the left face touched where the sheet means the right one: the face, once, with the radius that is right for it", () => {
    const { exercise, marking } = findDemoExercise("roller-bracket-back-right");
    const lane = new LaneDriver<MillSeen>(exercise, "left face");
    const edge = edgeOf(lane.seen.sheet, "x");
    workLane(lane, { stopsAfter: "dressed" });
    if (lane.seen.holds !== "edgeFinder") {
      if (!lane.seen.isDoorOpen) lane.do({ type: "setDoor", isOpen: true });
      lane.do({ type: "load", thing: "edgeFinder" });
    }
    expect(edge?.approach).toBe(-1);
    kickFace(lane, "x", 1, {});
    const r = lane.seen.sheet.tipDiameterMm / 2;
    const at = (approach: 1 | -1) => {
      const again = new LaneDriver<MillSeen>(exercise, "left face");
      again.log.splice(0, again.log.length, ...lane.log);
      again.state = lane.state;
      again.do({ type: "captureRegister", register: "G54.x", asText: show((edge?.edgeWorkMm ?? 0) - approach * r) });
      return valueOf(rule(again.log, marking), "x");
    };
    // +r is right for the left face; with the sheet's own figure it is the face as well, and nothing else
    expect(said(at(1))).toBe("otherEdge");
    expect(said(at(-1))).toBe("otherEdge");
  });
  it("an old work Z that stood while Z was captured and was cleared afterwards: every tool, once", () => {
    const ruling = worked("collar-five-tools-face", { leavesOldWorkZ: true }, "cleared late", (command) =>
      command.type === "handIn"
        ? [{ type: "typeRegister", register: "G54.z", text: "0", how: "set", isConfirmed: true }, command]
        : [command],
    );
    const zs = ruling.values.filter(({ target }) => target.axis === "z");
    expect(zs.map(said)).toEqual(zs.map(() => "leftoverWorkZ"));
    expect(new Set(zs.map(({ sharedMm }) => sharedMm !== 0))).toEqual(new Set([true]));
    expect(zs.slice(1).every(({ marks, outOf }) => Math.abs(marks - outOf) < 1e-9)).toBe(true);
    expect(sentenceOf(ruling, "Z2")).toContain("was cleared only afterwards");
  });
  it("Z of three tools that was never set is that, though the leftover was cleared", () => {
    const never: readonly RegisterId[] = ["Z2", "Z3", "Z4"];
    const ruling = worked("collar-five-tools-face", {}, "never", (command) =>
      never.some((register) => isSetting(command, register)) ? [] : [command],
    );
    expect(never.map((register) => said(valueOf(ruling, register)))).toEqual(never.map(() => "neverSet"));
  });
  it("the feeler in the gap and the paper counted: another thing of the drawer", () => {
    const ruling = worked("five-tools-part-touch", {}, "feeler", (command) =>
      command.type === "placePaper" ? [{ ...command, id: "feeler" }] : [command],
    );
    expect(said(valueOf(ruling, "H3"))).toBe("otherGap");
    expect(sentenceOf(ruling, "H3")).toMatch(/What stood in the gap counts 0\.200 mm; 0\.0\d\d mm was counted/);
  });
  it("5 told where the tip's radius is 3: both figures, and no name that is not known", () => {
    const seed = [..."abcdefghijkl"].find(
      (one) =>
        new LaneDriver<MillSeen>(findDemoExercise("focuser-plate-lower-left").exercise, one).seen.sheet
          .tipDiameterMm === 6,
    );
    const ruling = worked("focuser-plate-lower-left", {}, seed ?? "a", (command) =>
      command.type === "captureRegister" && command.register === "G54.x" ? [{ ...command, asText: "-5" }] : [command],
    );
    expect(said(valueOf(ruling, "x"))).toMatch(/^(otherFigure|otherTipRadius)$/);
    expect(valueOf(ruling, "x").cause).toMatchObject({ terms: [{ mm: 2 }] });
  });
  it("left by exactly twice the allowance before Z was taken: a move, and no allowance counted the wrong way", () => {
    const ruling = worked("roller-bracket-back-right", {}, "twice", (command, seen) => {
      if (command.type !== "captureRegister" || command.register !== "H1" || seen.kind !== "mill") return [command];
      // a batch stops where the paper comes free: one click first, then the rest
      const clicks = Math.round(2 * seen.sheet.facingAllowanceMm * 10) - 1;
      const up = { type: "jog", axis: "z", direction: 1, size: "coarse" } as const;
      return [{ ...up, clicks: 1 }, { ...up, clicks }, command];
    });
    expect(said(valueOf(ruling, "z1"))).toBe("capturedAfterLeaving");
  });
  it("left by 2.9, then the radius entered by motion: 2.9, and no radius left out", () => {
    const ruling = worked("focuser-plate-lower-left", { way: "motion", backsOffFirst: { x: 290 } }, "motion");
    const value = valueOf(ruling, "x");
    expect(said(value)).toBe("capturedAfterLeaving");
    expect(value.cause).toMatchObject({ terms: [{ mm: expect.closeTo(-2.9, 3) as number }] });
  });
  it("a height raised where the pip was rubbed", () => {
    const rubbed = [..."abcdefghijklmnop"].map((seed) => worked("knob-center-height", { shims: "wrongWay" }, seed));
    for (const ruling of rubbed) expect(said(valueOf(ruling, "C1"))).toBe("heightWrongWay");
    expect(sentenceOf(rubbed[0] as Ruling, "C1")).toContain("it was moved the other way");
  });
  it("a sum written a micrometre beside its lines is rounding, and no fault", () => {
    const ruling = worked("five-tools-part-touch", {}, "rounds", (command) =>
      command.type === "writeSum" ? [{ ...command, text: show(figure(command.text) + 0.001) }] : [command],
    );
    expect(ruling.total).toBeCloseTo(100, 6);
    expect(ruling.values.map(said)).toEqual(ruling.values.map(() => "none"));
  });
  it("100.000 off in one length is a digit", () => {
    const ruling = worked("five-tools-master", {}, "hundred", (command) =>
      command.type === "typeRegister" && command.register === "H4"
        ? [{ ...command, text: show(figure(command.text) + 100) }]
        : [command],
    );
    expect(said(valueOf(ruling, "H4"))).toBe("digitMistyped");
  });
  it("X and Y swapped", () => {
    const ruling = worked("clamp-middle-probe", {}, "swapped", (command, seen) => {
      if (command.type !== "typeRegister" || !/^G54\.[xy]$/.test(command.register)) return [command];
      // both are known when Y is typed: they go into each other's rows
      if (command.register === "G54.x") return [{ ...command, register: "G59.x" }];
      const x = showLength(readRegister(seen.registers, "G59.x") / 1000, scales.mm);
      return [
        { ...command, register: "G54.x", text: command.text },
        { ...command, register: "G54.y", text: x },
      ];
    });
    expect(said(valueOf(ruling, "x"))).toBe("axesSwapped");
    expect(said(valueOf(ruling, "y"))).toBe("axesSwapped");
  });
  it("a display read after leaving, and typed", () => {
    const ruling = worked("five-tools-part-touch", {}, "display", (command, seen) => {
      if (!isSetting(command, "H3") || seen.kind !== "mill")
        return command.type === "takeReading" && command.register === "H3" ? [] : [command];
      // what the student would add to a capture is in the figure already
      if (command.type === "typeRegister") return [];
      const { gaps, facingAllowanceMm } = seen.sheet;
      const paper = gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0;
      const z = (seen.machine.z + 1700) / 1000 - paper - facingAllowanceMm;
      return [
        { type: "jog", axis: "z", direction: 1, clicks: 1, size: "coarse" },
        { type: "jog", axis: "z", direction: 1, clicks: 16, size: "coarse" },
        { type: "typeRegister", register: "H3", text: show(z), how: "set", isConfirmed: true },
      ];
    });
    expect(said(valueOf(ruling, "H3"))).toBe("capturedAfterLeaving");
  });
});
