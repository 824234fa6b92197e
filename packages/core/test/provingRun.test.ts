import { describe, expect, it } from "vitest";
import { proveProgram } from "../bench";
import { rule } from "../grading";
import { findingWords } from "../words";
import { marking, ready, runOut, RIGHT, lookUp, standDeepest, steps } from "./provingLane";

describe("a program on a lane", () => {
  it("a sound one is looked up, proved, run and handed in with every mark of proving", () => {
    const lane = ready(null);
    lookUp(lane);
    standDeepest(lane, 2, -8);
    lane.do({ type: "judgeDeepest", tool: 2, outcome: "clear" });
    lane.do({ type: "runBlock", text: "G53 G0 Z0" });
    lane.do({ type: "setPace", isSingle: true, rapidPercent: 25 });
    lane.do({ type: "startCycle" });
    // one block at a time to the first approach, held 50 above the part
    for (let block = 0; block < 30; block++) {
      runOut(lane);
      if (lane.state.program.run?.line === 9) break;
      lane.do({ type: "resumeCycle" });
    }
    expect(lane.state.program.run).toMatchObject({ line: 9, held: "block" });
    const display = lane.seen.work.z / 1000;
    expect(display).toBeCloseTo(50, 3);
    lane.do({ type: "sayGap", text: "50", isAlike: true });
    lane.do({ type: "setPace", isSingle: false });
    lane.do({ type: "resumeCycle" });
    runOut(lane);
    expect(lane.seen.program?.last).toMatchObject({ why: "end" });
    expect(lane.seen.gates.filter(({ isPassed }) => !isPassed).map(({ kind }) => kind)).toEqual(["handIn"]);
    lane.do({ type: "handIn" });
    const ruling = rule(lane.log, marking);
    expect(steps(ruling.findings)).toMatchObject({
      programRead: true,
      deepestBeside: true,
      gapCompared: true,
      ranThrough: true,
      runsClear: true,
    });
    expect(ruling.findings.some(({ code }) => code === "programStrikes")).toBe(false);
  });

  it("single block stands after each block, and nothing else is moved or changed meanwhile", () => {
    const lane = ready(null);
    lane.do({ type: "setPace", isSingle: true });
    lane.do({ type: "startCycle" });
    runOut(lane, 20_000);
    expect(lane.state.program.run?.held).toBe("block");
    expect(lane.attempt({ type: "runOn", ms: 10 })).toEqual({ code: "cycleHeld" });
    expect(lane.attempt({ type: "jog", axis: "z", direction: 1, clicks: 1, size: "coarse" })).toEqual({
      code: "programRuns",
    });
    expect(lane.attempt({ type: "typeRegister", register: "H1", text: "1", how: "set", isConfirmed: true })).toEqual({
      code: "programRuns",
    });
    const before = lane.state.position;
    lane.do({ type: "reset" });
    expect(lane.state.program.run).toBeNull();
    expect(lane.state.position).toEqual(before);
    expect(lane.seen.program?.last).toMatchObject({ why: "reset" });
    lane.do({ type: "jog", axis: "z", direction: -1, clicks: 1, size: "coarse" });
  });

  it("is started again at a tool, with what holds there, after a reset", () => {
    const lane = ready(null);
    lane.do({ type: "startCycle", fromTool: 3 });
    expect(lane.state.program.run?.fromLine).toBe(26);
    runOut(lane);
    expect(lane.seen.program?.last).toMatchObject({ why: "end" });
    const brought = lane.log.flatMap(({ event }) =>
      event.type === "loaded" && event.isByChanger === true ? [event.thing] : [],
    );
    expect(brought).toEqual(["tool3", "tool4"]);
    expect(lane.attempt({ type: "startCycle", fromTool: 7 })).toEqual({ code: "toolNotCalled", tool: 7 });
  });

  it("an end mill too deep at the edge is caught beside the part and mended; unchecked it strikes the jaw", () => {
    const caught = ready("tooDeep");
    lookUp(caught, { deepest2: ["-14", false] });
    standDeepest(caught, 2, -14);
    caught.do({ type: "judgeDeepest", tool: 2, outcome: "wouldHit" });
    caught.do({ type: "runBlock", text: "G53 G0 Z0" });
    const line = caught.state.truth.programFault?.lines[0] ?? 0;
    caught.do({ type: "mendLine", line, text: "N160 G1 Z-8. F200" });
    // what hung on the line is withdrawn by its number
    expect(caught.seen.program?.asks.filter(({ withdrawnBy }) => withdrawnBy === line).map(({ tool }) => tool)).toEqual(
      [null, null, 2, 2, 2, 2],
    );
    caught.do({ type: "startCycle" });
    runOut(caught);
    expect(caught.seen.program?.last).toMatchObject({ why: "end" });
    caught.do({ type: "handIn" });
    expect(steps(rule(caught.log, marking).findings)).toMatchObject({
      programFaultFound: true,
      deepestBeside: true,
      runsClear: true,
    });

    const struck = ready("tooDeep");
    struck.do({ type: "startCycle" });
    runOut(struck);
    expect(struck.seen.program?.last).toMatchObject({ why: "contact", met: "tool-in-fixture", with: "backJaw" });
    expect(struck.seen).toMatchObject({ isStopped: true, incidents: ["ranIntoFixture"] });
    // the tool that struck is to be set anew
    expect(struck.seen.gates.find(({ name }) => name === "tool2")?.isPassed).toBe(false);
    struck.do({ type: "handIn" });
    const ruling = rule(struck.log, marking);
    expect(steps(ruling.findings)).toMatchObject({ programFaultFound: false, ranThrough: false, runsClear: false });
    expect(ruling.strands.find(({ name }) => name === "safety")?.marks).toBe(0);
    const strike = ruling.findings.find(({ code }) => code === "programStrikes");
    expect(strike && findingWords(strike)).toBe(
      "Line 21: the tool would have run into the back jaw. Put right alone, each of these lets it pass: line 21 of the program.",
    );
  });

  it("where something was met is nowhere to be read, however small the steps", () => {
    const lane = ready("tooDeep");
    lane.do({ type: "setPace", isSingle: true });
    lane.do({ type: "startCycle" });
    for (let block = 0; block < 60 && lane.state.program.run?.line !== 21; block++) {
      runOut(lane, 20_000);
      if (lane.state.program.run?.line !== 21) lane.do({ type: "resumeCycle" });
    }
    const text = lane.state.program.held?.lines.join("\n") ?? "";
    const proof = proveProgram(lane.state, text);
    const [, , contactZ = 0] = proof?.kind === "contact" ? proof.contact.at : [];
    expect(contactZ).toBeLessThan(-10);
    lane.do({ type: "resumeCycle" });
    let last = 0;
    for (let turn = 0; turn < 20_000 && lane.state.program.run; turn++) {
      last = lane.seen.work.z / 1000;
      lane.do({ type: "runOn", ms: 20 });
    }
    expect(lane.seen.program?.last?.why).toBe("contact");
    // the last place before it halted is well past it
    expect(last).toBeLessThan(contactZ - 0.12);
  });

  it("nobody gets away by holding or resetting between what is met and its being noticed", () => {
    for (const stop of ["holdCycle", "reset"] as const) {
      const lane = ready("tooDeep");
      lane.do({ type: "startCycle" });
      const text = lane.state.program.held?.lines.join("\n") ?? "";
      const proof = proveProgram(lane.state, text);
      const [, , contactZ = 0] = proof?.kind === "contact" ? proof.contact.at : [];
      for (let turn = 0; turn < 20_000 && lane.state.program.run; turn++) {
        const isPast = lane.state.program.run.line === 21 && lane.seen.work.z / 1000 < contactZ - 0.05;
        if (isPast) break;
        lane.do({ type: "runOn", ms: 20 });
      }
      expect(lane.state.program.run).not.toBeNull();
      lane.do({ type: stop });
      expect(lane.seen.incidents).toEqual(["ranIntoFixture"]);
      expect(lane.seen.program?.last?.why).toBe("contact");
    }
  });

  it("another row is called: named a fault it is found, named sound it is not", () => {
    const found = ready("otherRow");
    lookUp(found, { rows3: ["H2", false], held3: ["0", true] });
    found.do({ type: "handIn" });
    expect(steps(rule(found.log, marking).findings)).toMatchObject({ programFaultFound: true });
    const missed = ready("otherRow");
    lookUp(missed, { rows3: ["H2", true] });
    missed.do({ type: "handIn" });
    expect(steps(rule(missed.log, marking).findings)).toMatchObject({ programFaultFound: false, programRead: false });
  });

  it("a length that is off is blamed by its register, and by nothing else", () => {
    const lane = ready(null);
    lane.do({ type: "typeRegister", register: "H3", text: "-20", how: "add", isConfirmed: true });
    lane.do({ type: "startCycle" });
    runOut(lane);
    expect(lane.seen.program?.last?.why).toBe("contact");
    lane.do({ type: "handIn" });
    const strike = rule(lane.log, marking).findings.find(({ code }) => code === "programStrikes");
    expect(strike).toMatchObject({ lines: [], targets: [{ target: { id: "z3" } }] });
  });

  it("a line that the student spoiled is blamed by its number, and a row that is called faulty costs nothing", () => {
    const lane = ready(null);
    lookUp(lane);
    lane.do({
      type: "lookUp",
      ask: "held",
      tool: 2,
      text: String((lane.state.registers.lengthGeometry[2] ?? 0) / 1000),
      isSound: false,
    });
    lane.do({ type: "mendLine", line: 19, text: "N140 G43 H2 Z-30." });
    lookUp(lane, { deepest2: ["-30", false] });
    lane.do({ type: "handIn" });
    const { findings } = rule(lane.log, marking);
    expect(steps(findings)).toMatchObject({ programRead: true, runsClear: false });
    expect(findings.find(({ code }) => code === "programStrikes")).toMatchObject({
      lines: [19],
      targets: [],
      isByLift: false,
    });
  });

  it("under G41 it runs beside its way by the row that is called", () => {
    const lane = ready(null);
    // along the back edge with the tool left of the way: 0.2 clear of the jaw's plan with the right radius
    const beside = [
      "N150 Z2.",
      "N155 G41 D2 X-12. Y56.2 F300",
      "N160 G1 Z-14. F200",
      "N170 X122. F320",
      "N175 G40 Y80.",
    ];
    const text = (lane.state.program.held?.lines ?? []).join("\n");
    const practice = ready(null, true);
    const edged = text.replace("N150 Z2.\nN160 G1 Z-8. F200\nN170 X122. F320", beside.join("\n"));
    practice.do({ type: "takeProgram", text: edged, isConfirmed: true });
    practice.do({ type: "typeRegister", register: "D2", text: "60", how: "set", isConfirmed: true });
    practice.do({ type: "setPace", isSingle: false });
    practice.do({ type: "startCycle" });
    runOut(practice, 5000);
    // a diameter of 60 in the row is 30 beside the way
    const ran = practice.log.flatMap(({ event }) => (event.type === "ran" && event.line === 22 ? [event.to.y] : []));
    const zero = practice.state.registers.work.G54.y;
    expect((ran.at(-1) ?? 0) - zero).toBe(56_200 + 30_000);
  });

  it("an air run counts when its lift was taken off again", () => {
    const lane = ready(null);
    lane.do({ type: "typeRegister", register: "common.z", text: "30", how: "set", isConfirmed: true });
    lane.do({ type: "startCycle" });
    runOut(lane);
    expect(lane.seen.program?.last).toMatchObject({ why: "end" });
    expect(lane.seen.gates.find(({ kind }) => kind === "ran")?.isPassed).toBe(true);
    lane.do({ type: "typeRegister", register: "common.z", text: "0", how: "set", isConfirmed: true });
    // with the lift off nothing was run yet
    expect(lane.seen.gates.find(({ kind }) => kind === "ran")?.isPassed).toBe(false);
  });

  it("a changed register withdraws what was looked up in it, and only that", () => {
    const lane = ready(null);
    lookUp(lane);
    lane.do({ type: "typeRegister", register: "HW2", text: "0.01", how: "set", isConfirmed: true });
    const gone = lane.seen.program?.asks
      .filter(({ said }) => said === null)
      .map(({ ask, tool }) => `${ask}${tool ?? ""}`);
    expect(gone).toEqual(["wear", "travel", "held2"]);
    expect(lane.seen.program?.asks.find(({ ask }) => ask === "wear")?.withdrawnBy).toBe("HW2");
  });

  it("is not looked up while one of its tools is left out, and another program leaves nothing of the first behind", () => {
    const lane = ready(null);
    for (const tool of [1, 2]) {
      const row = lane.state.registers.lengthGeometry[tool] ?? 0;
      lane.do({ type: "lookUp", ask: "held", tool, text: String(row / 1000), isSound: true });
    }
    for (const [ask, tool, text] of RIGHT)
      if (tool === undefined || tool < 3)
        lane.do({ type: "lookUp", ask, ...(tool === undefined ? {} : { tool }), text, isSound: true });
    const isOpen = () => lane.state.program.asks.length - lane.state.program.looked.length;
    expect(isOpen()).toBe(8);
    lane.do({ type: "handIn" });
    expect(steps(rule(lane.log, marking).findings)).toMatchObject({ programRead: false });

    const other = ready(null);
    lookUp(other);
    other.do({ type: "loadProgram", number: 2014, isConfirmed: true });
    // it calls tool 2 alone: what was said of the others is gone, and is not asked for again
    expect(other.seen.program?.asks.filter(({ tool }) => tool !== null && tool !== 2)).toEqual([]);
    expect(other.state.program.withdrawn.filter(({ tool }) => tool !== null && tool !== 2)).toEqual([]);
    expect(other.seen.program?.asks.every(({ said }) => said === null)).toBe(true);
  });

  it("only practice confirms an answer, and nothing seen says whether it is a fault", () => {
    const graded = ready("otherRow");
    graded.do({ type: "lookUp", ask: "rows", tool: 3, text: "H3", isSound: true });
    expect(graded.seen.program?.asks.find(({ ask, tool }) => ask === "rows" && tool === 3)?.agrees).toBeNull();
    const practice = ready("otherRow", true);
    practice.do({ type: "lookUp", ask: "rows", tool: 3, text: "H3", isSound: true });
    expect(practice.seen.program?.asks.find(({ ask, tool }) => ask === "rows" && tool === 3)?.agrees).toBe(false);
    expect(JSON.stringify(graded.seen)).not.toMatch(/isRight|isAsItShould|programFault|otherRow|really|offMm/);
  });

  it("loading another asks first, an unreadable answer and a missing program are told in words", () => {
    const lane = ready(null);
    expect(lane.attempt({ type: "loadProgram", number: 2014, isConfirmed: false })).toEqual({
      code: "programHeld",
      number: 2041,
    });
    expect(lane.attempt({ type: "loadProgram", number: 9, isConfirmed: true })).toEqual({
      code: "programNotHere",
      number: 9,
    });
    expect(lane.attempt({ type: "lookUp", ask: "lift", text: "much", isSound: true })).toEqual({
      code: "answerUnreadable",
      ask: "lift",
      tool: null,
    });
    expect(lane.attempt({ type: "takeProgram", text: "G0 X1", isConfirmed: true })).toEqual({
      code: "ownProgramInPractice",
    });
    lane.do({ type: "mendLine", line: 12, text: "N70 G30 Z0." });
    expect(lane.attempt({ type: "startCycle" })).toMatchObject({ code: "programNotFollowed", line: 12, word: "G30" });
    lane.do({ type: "mendLine", line: 12, text: "N70 X95." });
    lane.do({ type: "mendLine", line: 8, text: "N50 G43 H44 Z50." });
    lane.do({ type: "startCycle" });
    runOut(lane);
    expect(lane.seen.program?.last).toMatchObject({ why: "wrong", line: 8, code: "no-such-row" });
    lane.do({ type: "mendLine", line: 8, text: "N50 G43 H1 Z50." });
    lane.do({ type: "mendLine", line: 12, text: "N70 X95..5" });
    expect(lane.attempt({ type: "startCycle" })).toMatchObject({ code: "programWrong", line: 12 });
  });
});
