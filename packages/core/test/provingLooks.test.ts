import { describe, expect, it } from "vitest";
import { latheLane, millLane, workLane, workUpTo, type LaneDriver } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { evolve, proveProgram, type MillSeen, type TurningSeen } from "../bench";
import { isValueRight, rule } from "../grading";
import { marksOf } from "../machines";
import { linesSeen } from "../machines/program";
import { findingWords } from "../words";
import { exercise, marking, seedWith, ready, runOut, lookUp, standDeepest, steps } from "./provingLane";

describe("what is looked up, and what takes it back", () => {
  it("started at a tool unread, what is in force stays so: another work offset moves the slot by as much", () => {
    const lane = ready(null);
    lane.do({ type: "mendLine", line: 27, text: "N200 G0 X40. Y20." });
    lane.do({ type: "typeRegister", register: "G55.x", text: "-200", how: "set", isConfirmed: true });
    lane.do({ type: "typeRegister", register: "G55.y", text: "-200", how: "set", isConfirmed: true });
    lane.do({ type: "runBlock", text: "G55" });
    const stoodAt = (isUnread: boolean): number => {
      lane.do({ type: "setPace", isSingle: true });
      lane.do({ type: "startCycle", fromTool: 3, ...(isUnread ? { isUnread } : {}) });
      // the tool, then the way to the slot
      runOut(lane);
      lane.do({ type: "resumeCycle" });
      runOut(lane);
      expect(lane.state.program.run).toMatchObject({ line: 29, held: "block" });
      const { x } = lane.state.position;
      lane.do({ type: "reset" });
      lane.do({ type: "runBlock", text: "G53 G0 Z0" });
      lane.do({ type: "runBlock", text: "G55" });
      return x;
    };
    const { x } = lane.state.registers.work.G54;
    // read first it stands in G54, which line 5 calls; unread in the G55 that was called by hand
    expect(stoodAt(false)).toBe(x + 40_000);
    expect(stoodAt(true)).toBe(-200_000 + 40_000);
    const started = lane.log.map(({ event }) => event).findLast(({ type }) => type === "cycleStarted");
    expect(started).toMatchObject({ fromLine: 26, isUnread: true });
  });

  it("what would have struck and was looked at by nobody costs of safety, also where nothing was run or loaded", () => {
    const safetyOf = (lane: LaneDriver<MillSeen>) => {
      lane.do({ type: "handIn" });
      const { strands, findings } = rule(lane.log, marking);
      const strike = findings.find(({ code }) => code === "programStrikes");
      return [strands.find(({ name }) => name === "safety")?.marks, strike && findingWords(strike)] as const;
    };
    // half of what a strike of the jaw costs: 0.5 × 1 × 20
    const [unlooked, told] = safetyOf(ready("tooDeep"));
    expect(unlooked).toBe(10);
    expect(told).toContain("Nothing that was looked at said so");
    const looked = ready("tooDeep");
    standDeepest(looked, 2, -14);
    looked.do({ type: "judgeDeepest", tool: 2, outcome: "wouldHit" });
    expect(safetyOf(looked)[0]).toBe(20);
    // a register alone, the program never loaded: tool 2 believed 10 too short is let down 10 too deep
    const unloaded = millLane(exercise, seedWith("tooDeep"));
    workLane(unloaded, { stopsAfter: "zero" });
    const row = (unloaded.state.registers.lengthGeometry[2] ?? 0) / 1000;
    unloaded.do({ type: "typeRegister", register: "H2", text: String(row - 10), how: "set", isConfirmed: true });
    const [marks, why] = safetyOf(unloaded);
    expect(marks).toBe(10);
    expect(why).toMatch(/^Line 21: .*back jaw.*Put right alone, each of these lets it pass: .*tool 2/);
  });

  it("of two wrong lengths neither is to blame alone where the other would strike all the same", () => {
    const lane = ready(null);
    for (const [register, mm] of [
      ["H2", -10],
      ["H3", -40],
    ] as const)
      lane.do({ type: "typeRegister", register, text: String(mm), how: "add", isConfirmed: true });
    lane.do({ type: "handIn" });
    const strike = rule(lane.log, marking).findings.find(({ code }) => code === "programStrikes");
    expect(strike).toMatchObject({ line: 21, targets: [], lines: [], isByLift: false });
    expect(strike && findingWords(strike)).toContain("No single line or value, put right alone, lets it pass.");
    // and of one it is that one: not what all tools share
    const one = ready(null);
    one.do({ type: "typeRegister", register: "H2", text: "-10", how: "add", isConfirmed: true });
    one.do({ type: "handIn" });
    const alone = rule(one.log, marking).findings.find(({ code }) => code === "programStrikes");
    expect(alone).toMatchObject({ targets: [{ target: { tool: 2 } }] });
  });

  it("what was seen beside the part, and a signature, hold for as long as the part lies so", () => {
    const lane = ready(null);
    standDeepest(lane, 2, -8);
    lane.do({ type: "judgeDeepest", tool: 2, outcome: "clear" });
    lane.do({ type: "askSignature" });
    const after = evolve(lane.state, { type: "taskDone", task: "tapDown" });
    expect(after.program.deepest).toEqual([]);
    expect(after.program.signature).toEqual({ state: "withdrawn", changed: "seat" });
  });

  it("the coach names the school of proving that is next, and ticks what the log has", () => {
    const lane = ready(null, true);
    const next = () => {
      const gate = lane.seen.gates.find(({ isPassed }) => !isPassed);
      return [lane.seen.coach?.school, gate ? marksOf(lane.seen, gate).map(({ isDone }) => isDone) : []];
    };
    expect(next()).toEqual(["lookedUp", [false, false, false]]);
    lookUp(lane);
    expect(next()).toEqual(["deepestBeside", [true, false, false]]);
    standDeepest(lane, 2, -8);
    // wrong or not: that it was said is what is ticked
    lane.do({ type: "judgeDeepest", tool: 2, outcome: "wouldHit" });
    expect(next()).toEqual(["gapCompared", [true, true, false]]);
  });

  it("a lift that was left in the program is read in its line, added to the common offset", () => {
    const lane = ready("liftLeft");
    const [line = 0] = lane.state.truth.programFault?.lines ?? [];
    expect(lane.state.program.held?.lines[line - 1]).toBe("G52 Z25. (SLOT)");
    const told = (text: string, isSound: boolean) => {
      const from = lane.log.length;
      lane.do({ type: "lookUp", ask: "lift", text, isSound });
      const event = lane.log.slice(from).find(({ event: { type } }) => type === "lookedUp")?.event;
      return event?.type === "lookedUp" ? [event.isRight, event.isAsItShould, event.lines] : null;
    };
    expect(told("0", true)).toEqual([false, false, [line]]);
    expect(told("25", false)).toEqual([true, false, [line]]);
    lane.do({ type: "mendLine", line, text: "(SLOT)" });
    expect(lane.seen.program?.asks.find(({ ask }) => ask === "lift")).toMatchObject({ said: null, withdrawnBy: line });
    expect(told("0", true)).toEqual([true, true, []]);
  });

  it("what a running program writes acts from there on, is logged, and takes nothing back", () => {
    const lane = ready(null);
    const { x } = lane.state.registers.work.G54;
    const line = (lane.state.program.held?.lines ?? []).indexOf("(SLOT)") + 1;
    lane.do({ type: "mendLine", line, text: `G10 L2 P1 X${(x + 5000) / 1000}` });
    lookUp(lane);
    lane.do({ type: "startCycle" });
    runOut(lane, 20_000);
    expect(lane.seen.program?.last).toMatchObject({ why: "end" });
    const events = lane.log.map(({ event }) => event);
    // no step of the student's: what is taken back is the last one of theirs
    expect(lane.state.desk.undo.some(({ register, counts }) => register === "G54.x" && counts === x)).toBe(false);
    expect(events.find((event) => event.type === "registerChanged" && event.how === "byProgram")).toMatchObject({
      register: "G54.x",
      from: x,
      to: x + 5000,
    });
    // X40 of the slot is 5 further in the machine, X15 of the holes before it is not
    const highest = (from: number, to: number) =>
      Math.max(
        ...events.flatMap((event) =>
          event.type === "ran" && event.line >= from && event.line < to ? [event.to.x] : [],
        ),
      );
    expect(highest(27, 34)).toBe(x + 70_000 + 5000);
    expect(highest(6, 13)).toBe(x + 95_000);
    expect(lane.seen.program?.asks.every(({ said }) => said !== null)).toBe(true);
    // proved once more from its head, with the zero as it was written: everything stands 5 further, and nothing is met
    expect(proveProgram(lane.state, (lane.state.program.held?.lines ?? []).join("\n"))).toEqual({ kind: "clear" });
    lane.do({ type: "mendLine", line, text: "G10 L2 P9 X1" });
    lane.do({ type: "startCycle" });
    runOut(lane, 20_000);
    expect(lane.seen.program?.last).toMatchObject({ why: "wrong", line, code: "no-such-register" });
  });

  it("a program is loaded under the number that it is given; another program stays another under the number of the sheet", () => {
    const lane = ready(null);
    lane.do({ type: "loadProgram", number: 1041, as: 2041, isConfirmed: true });
    expect(lane.seen.program).toMatchObject({ number: 1041, as: 2041 });
    expect(lane.seen.program && linesSeen(lane.seen.program, lane.seen.sheet.programs).slice(0, 2)).toEqual([
      "%",
      "O2041 (FOCUSER PLATE, FIRST BATCH, THICKER BLANK)",
    ]);
    lane.do({ type: "lookUp", ask: "program", text: "O2041", isSound: true });
    expect(lane.log.map(({ event }) => event).findLast(({ type }) => type === "lookedUp")).toMatchObject({
      isRight: true,
      isAsItShould: false,
    });
    lane.do({ type: "loadProgram", number: 2041, as: 7, isConfirmed: true });
    expect(lane.state.program.held?.lines[1]).toBe("O7 (FOCUSER PLATE, TOP)");
  });

  it("tools by another list are told by how deep each goes, and the lines are to blame only together", () => {
    const lane = ready("otherTools");
    lookUp(lane, { rows2: ["2", true], deepest2: ["-3", false], spindle2: ["forward 4800", false] });
    lane.do({ type: "handIn" });
    const { findings } = rule(lane.log, marking);
    expect(steps(findings)).toMatchObject({ programFaultFound: true });
  });

  it("an instrument in the spindle and changed pockets are looked at again when they change, tools of the program are not", () => {
    const lane = ready(null);
    lookUp(lane);
    const open = () => lane.seen.program?.asks.flatMap(({ ask, said }) => (said === null ? [ask] : []));
    lane.do({ type: "runBlock", text: "T3 M6" });
    expect(open()).toEqual([]);
    lane.do({ type: "lookUp", ask: "pockets", text: "None", isSound: true });
    expect(lane.log.map(({ event }) => event).findLast(({ type }) => type === "lookedUp")).toMatchObject({
      isRight: true,
    });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "unload" });
    expect(open()).toEqual([]);
    lane.do({ type: "load", thing: "edgeFinder" });
    expect(open()).toEqual(["hangs"]);
    lane.do({ type: "lookUp", ask: "hangs", text: "instrument", isSound: false });
    lane.do({ type: "unload" });
    expect(lane.seen.program?.asks.find(({ ask }) => ask === "hangs")).toMatchObject({ withdrawnBy: "spindle" });
    lane.do({ type: "swapPockets", a: 2, b: 3 });
    expect(open()).toEqual(["pockets", "hangs"]);
    lane.do({ type: "lookUp", ask: "pockets", text: "none", isSound: true });
    const said = lane.log.map(({ event }) => event).findLast(({ type }) => type === "lookedUp");
    expect(said).toMatchObject({ isRight: false, isAsItShould: false });
    lane.do({ type: "lookUp", ask: "pockets", text: "None of the four", isSound: true });
    expect(lane.log.map(({ event }) => event).findLast(({ type }) => type === "lookedUp")).toMatchObject({
      isRight: false,
    });
    lane.do({ type: "lookUp", ask: "pockets", text: "2, 3", isSound: false });
    expect(lane.log.map(({ event }) => event).findLast(({ type }) => type === "lookedUp")).toMatchObject({
      isRight: true,
      isAsItShould: false,
    });
  });

  it("an axis that would leave its travel is worked out from program and registers: X122 over a zero 10 before the end", () => {
    const lane = ready(null);
    const answer = () => lane.log.map(({ event }) => event).findLast(({ type }) => type === "lookedUp");
    lane.do({ type: "lookUp", ask: "travel", text: "none", isSound: true });
    expect(answer()).toMatchObject({ isRight: true, isAsItShould: true });
    lane.do({ type: "typeRegister", register: "G54.x", text: "-10", how: "set", isConfirmed: true });
    expect(lane.seen.program?.asks.find(({ ask }) => ask === "travel")?.withdrawnBy).toBe("G54.x");
    // X122 of the edge step is 112 past the end, which is at 0
    lane.do({ type: "lookUp", ask: "travel", text: "x", isSound: false });
    expect(answer()).toMatchObject({ isRight: true, isAsItShould: false });
    expect(lane.attempt({ type: "lookUp", ask: "travel", text: "perhaps", isSound: true })).toMatchObject({
      code: "answerUnreadable",
    });
  });
});

describe("a bar that swings in while another tool stands near", () => {
  const collar = findDemoExercise("collar-program");
  /** The collar set, its program with the bar's fault loaded. */
  function withBar(): LaneDriver<TurningSeen> {
    for (let turn = 0; turn < 200; turn++) {
      const lane = latheLane(collar.exercise, `bar ${turn}`);
      if (lane.state.truth.programFault?.kind !== "nearSwing") continue;
      workUpTo(lane, ({ type }) => type === "loadProgram");
      lane.do({ type: "loadProgram", number: 3055, isConfirmed: false });
      return lane;
    }
    throw new Error("no seed has the bar near");
  }
  it("is worked out from program and registers: Z-20 and the difference of two rows, and withdrawn by either", () => {
    const lane = withBar();
    const z = lane.state.registers.turret?.z ?? {};
    const stands = -20 + ((z[1] ?? 0) - (z[2] ?? 0)) / 1000;
    expect(stands).toBeLessThan(-40);
    lane.do({ type: "lookUp", ask: "swing", text: stands.toFixed(3), isSound: false });
    const answer = () => lane.log.map(({ event }) => event).findLast(({ type }) => type === "lookedUp");
    expect(answer()).toMatchObject({ isRight: true, isAsItShould: false });
    lane.do({ type: "typeRegister", register: "ZW2", text: "0.05", how: "set", isConfirmed: true });
    expect(lane.seen.program?.asks.find(({ ask }) => ask === "swing")?.withdrawnBy).toBe("ZW2");
    lane.do({ type: "handIn" });
    expect(steps(rule(lane.log, collar.marking).findings)).toMatchObject({ programFaultFound: true });
  });
  it("unlooked at it meets the chuck, and the line that stood too near is to blame", () => {
    const lane = withBar();
    lane.do({ type: "setDoor", isOpen: false });
    lane.do({ type: "startCycle" });
    for (let turn = 0; turn < 3000 && lane.state.program.run; turn++) lane.do({ type: "runOn", ms: 2000 });
    expect(lane.seen.program?.last).toMatchObject({ why: "contact", met: "tool-in-chuck" });
    lane.do({ type: "handIn" });
    const strike = rule(lane.log, collar.marking).findings.find(({ code }) => code === "programStrikes");
    const [line] = lane.state.truth.programFault?.lines ?? [];
    expect(strike).toMatchObject({ lines: [line], targets: [], cost: 0 });
  });
});

describe("other parallels", () => {
  const toZero = (lane: LaneDriver<MillSeen>) => {
    lane.do({ type: "runBlock", text: "G53 G0 Z0" });
    lane.do({ type: "setDoor", isOpen: true });
  };
  it("lift the part and nothing else, close the gate of work Z, and end where the jaws would hold too little", () => {
    const lane = ready(null);
    const before = lane.seen.boxes;
    const gates = () => lane.seen.gates.filter(({ isPassed }) => !isPassed).map(({ name }) => name);
    expect(gates()).not.toContain("workZ");
    toZero(lane);
    lane.do({ type: "changeParallels", byMm: 2 });
    expect(lane.seen.boxes.stock.high.z - before.stock.high.z).toBeCloseTo(2, 6);
    expect(lane.seen.boxes.backJaw).toEqual(before.backJaw);
    expect(gates()).toContain("workZ");
    expect(gates()).not.toContain("xSet");
    // 20 high, 12 proud: 14 and 16 leave 6 and 4 in the jaws, 18 would leave 2
    lane.do({ type: "changeParallels", byMm: 2 });
    expect(lane.attempt({ type: "changeParallels", byMm: 2 })).toEqual({ code: "gripTooLittle" });
    const other = millLane(findDemoExercise("focuser-plate-lower-left").exercise, "no program");
    other.do({ type: "home" });
    other.do({ type: "setDoor", isOpen: true });
    expect(other.attempt({ type: "changeParallels", byMm: 2 })).toEqual({ code: "noParallels" });
  });
  it("let a step pass that would have met the jaw, once work Z is set again; and take back what was seen", () => {
    const lane = ready("tooDeep");
    standDeepest(lane, 2, -14);
    lane.do({ type: "judgeDeepest", tool: 2, outcome: "wouldHit" });
    toZero(lane);
    lane.do({ type: "changeParallels", byMm: 2 });
    lane.do({ type: "changeParallels", byMm: 2 });
    expect(lane.state.program.deepest).toEqual([]);
    const text = (lane.state.program.held?.lines ?? []).join("\n");
    // Z as it was, 2 over the old top is 2 under the new one
    expect(proveProgram(lane.state, text)).toMatchObject({ kind: "contact" });
    lane.do({ type: "typeRegister", register: "G54.z", text: "4", how: "add", isConfirmed: true });
    expect(proveProgram(lane.state, text)).toEqual({ kind: "clear" });
  });
  it("raised after Z was touched, the ruling says that the part was moved, by all of it and by nothing else", () => {
    const lane = ready(null);
    toZero(lane);
    lane.do({ type: "changeParallels", byMm: 2 });
    lane.do({ type: "handIn" });
    const ruling = rule(lane.log, marking);
    for (const value of ruling.values.filter(({ target }) => target.axis === "z")) {
      expect(value.closureMm).toBeCloseTo(-2, 1);
      expect(value.cause).toMatchObject({ kind: "proven", terms: [{ id: "partMoved", mm: -2 }] });
    }
    expect(ruling.values.filter(({ target }) => target.axis !== "z").every((value) => isValueRight(value))).toBe(true);
  });
});
