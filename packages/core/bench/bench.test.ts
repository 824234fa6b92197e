import type { MillSeen } from "@probe-lane/core/bench";
import { describe, expect, it } from "vitest";
import { millLane, type LaneDriver, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { decide, observe, replay, evolve, foldFrom, eventSchema, type Command } from ".";
import fc from "fast-check";

const { exercise } = findDemoExercise("focuser-plate-lower-left");
const fresh = (seed = "bench") => millLane(exercise, seed);
/** Homed, door shut, edge finder in, beside the left face. */
function besideLeft(seed = "bench", depthMm = 4): LaneDriver<MillSeen> {
  const lane = fresh(seed);
  lane.do({ type: "home" });
  lane.do({ type: "setDoor", isOpen: true });
  lane.do({ type: "dressBurr" });
  lane.do({ type: "load", thing: "edgeFinder" });
  lane.do({ type: "setDoor", isOpen: false });
  const { stock } = lane.seen.boxes;
  const { heldLengthMm } = lane.seen;
  const r = lane.seen.sheet.tipDiameterMm / 2;
  lane.do({
    type: "runBlock",
    text: `G53 G0 X${(stock.low.x - r - 4).toFixed(3)} Y${((stock.low.y + stock.high.y) / 2).toFixed(3)}`,
  });
  lane.do({ type: "runBlock", text: `G53 G0 Z${(stock.high.z + heldLengthMm - depthMm).toFixed(3)}` });
  return lane;
}
const refusalOf = (lane: LaneDriver, command: Command) => lane.attempt(command)?.code ?? "done";

describe("refusals say no and change nothing", () => {
  it("before the reference return nothing can be captured and no block moves", () => {
    const lane = fresh();
    expect(refusalOf(lane, { type: "captureRegister", register: "G54.x", asText: "0" })).toBe("notHomed");
    expect(refusalOf(lane, { type: "runBlock", text: "G0 X-10" })).toBe("notHomed");
  });
  it("hands stay out of a shut door and away from a turning spindle", () => {
    const lane = fresh();
    lane.do({ type: "home" });
    expect(refusalOf(lane, { type: "load", thing: "tool1" })).toBe("doorShutReach");
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 500 });
    expect(refusalOf(lane, { type: "load", thing: "tool1" })).toBe("spindleTurning");
    expect(refusalOf(lane, { type: "startSpindle", direction: "forward", rpm: 900 })).toBe("doorOpenSpeed");
    expect(refusalOf(lane, { type: "jog", axis: "x", direction: -1, clicks: 1, size: "rapid" })).toBe("doorOpenRapid");
  });
  it.each(["1e999", "abc", "1/0", "", "1234567890123456789012345678901234567890", "NaN", "--5", "5 mm mm"])(
    "a register of %j is refused in words",
    (text) => {
      const lane = fresh();
      lane.do({ type: "home" });
      const before = lane.state;
      expect(lane.attempt({ type: "typeRegister", register: "G54.x", text, how: "set", isConfirmed: true })?.code).toBe(
        "text",
      );
      expect(lane.state).toEqual(before);
    },
  );
  it("a large typed change asks once more, and stays within what the register holds", () => {
    const lane = fresh();
    lane.do({ type: "home" });
    expect(
      refusalOf(lane, { type: "typeRegister", register: "G54.x", text: "-329.672", how: "set", isConfirmed: false }),
    ).toBe("registerGuard");
    lane.do({ type: "typeRegister", register: "G54.x", text: "-329.672", how: "set", isConfirmed: true });
    expect(lane.state.registers.work.G54.x).toBe(-329_672);
    expect(
      refusalOf(lane, { type: "typeRegister", register: "G54.x", text: "-900", how: "add", isConfirmed: true }),
    ).toBe("registerOutOfRange");
    lane.do({ type: "undoRegister" });
    expect(lane.state.registers.work.G54.x).toBe(0);
  });
  it("every refused command leaves the state as it was", () => {
    const lane = besideLeft();
    const commands: Command[] = [
      { type: "runBlock", text: "G0 X1 R5" },
      { type: "runBlock", text: "G1 X0" },
      { type: "runBlock", text: "???" },
      { type: "placePaper" },
      { type: "feelPaper" },
      { type: "load", thing: "tool1" },
      { type: "undoRegister" },
      { type: "lowerHand" },
      { type: "strikeLine", line: 9 },
    ];
    for (const command of commands) {
      const decided = decide(lane.state, command);
      expect(decided.ok, JSON.stringify(command)).toBe(false);
    }
  });
});

describe("edge finder", () => {
  it("the kick comes within a few micrometres past tangency, and two kicks agree", () => {
    for (let seed = 0; seed < 25; seed++) {
      const lane = besideLeft(`kick ${seed}`);
      workKick(lane);
      const first = lane.state.position.x;
      lane.do({ type: "jog", axis: "x", direction: -1, clicks: 15, size: "coarse" });
      lane.do({ type: "setWobbling" });
      workKick(lane);
      const { truth, setup } = lane.state;
      const lateMm = first / 1000 + setup.tipDiameterMm / 2 - truth.datumMm.x;
      expect(lateMm).toBeGreaterThanOrEqual(0);
      expect(lateMm).toBeLessThan(0.016);
      expect(Math.abs(lane.state.position.x - first)).toBeLessThanOrEqual(5);
    }
  });
  it("wobble only falls while closing in", () => {
    const lane = besideLeft();
    lane.do({ type: "lookFrom", side: "left" });
    lane.do({ type: "setWobbling" });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 600 });
    const order = ["wide", "large", "middling", "small", "slight", "shiver", "true"];
    let last = 0;
    for (let turn = 0; turn < 900 && lane.seen.tip?.kind !== "aside"; turn++) {
      lane.do({ type: "jog", axis: "x", direction: 1, clicks: 1, size: "middle" });
      const { tip } = lane.seen;
      const now = tip?.kind === "running" ? order.indexOf(tip.wobble) : order.length;
      expect(now).toBeGreaterThanOrEqual(last);
      last = now;
    }
    expect(lane.seen.tip?.kind).toBe("aside");
  });
  it("a kick along the line of sight looks like running true, until one looks across", () => {
    const lane = besideLeft();
    lane.do({ type: "lookFrom", side: "front" });
    lane.do({ type: "setWobbling" });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 600 });
    lane.do({ type: "jog", axis: "x", direction: 1, clicks: 60, size: "coarse" });
    for (let turn = 0; turn < 30 && !lane.log.some(({ event }) => event.type === "kicked"); turn++)
      lane.do({ type: "jog", axis: "x", direction: 1, clicks: 5, size: "middle" });
    expect(lane.seen.tip).toEqual({ kind: "running", wobble: "true" });
    expect(lane.seen.evidence.kicks.x).toBe(0);
    lane.do({ type: "lookFrom", side: "right" });
    expect(lane.seen.tip).toEqual({ kind: "aside" });
    expect(lane.seen.evidence.kicks.x).toBe(1);
  });
  it("a stopped spindle gives no kick, and the tip bends in silence half its radius further", () => {
    const lane = besideLeft();
    lane.do({
      type: "jog",
      axis: "x",
      direction: 1,
      clicks: Math.round(40 + lane.seen.sheet.tipDiameterMm * 0.38 * 10),
      size: "coarse",
    });
    expect(lane.log.some(({ event }) => event.type === "kicked")).toBe(false);
    expect(lane.state.finder.condition).toBe("bent");
    expect(lane.seen.incidents).toEqual([]);
    expect(observe(lane.state, "instructor").incidents).toEqual(["finderBent"]);
  });
  it("a tip no deeper than the edge break touches late", () => {
    const shallow = besideLeft("shallow", 0.2);
    workKick(shallow);
    const kick = shallow.log.findLast(({ event }) => event.type === "kicked")?.event;
    expect(kick?.type === "kicked" && kick.parts.lateMm).toBeGreaterThan(0);
  });
  it("above its rating it is thrown, and another one has its own kick", () => {
    const lane = besideLeft();
    lane.do({ type: "startSpindle", direction: "forward" });
    expect(lane.seen.tip).toEqual({ kind: "destroyed" });
    expect(lane.seen.incidents).toEqual(["finderThrown"]);
  });
  it("a rapid click into the part breaks it and stops the machine until a reset", () => {
    const lane = besideLeft();
    lane.do({ type: "jog", axis: "x", direction: 1, clicks: 20, size: "rapid" });
    expect(lane.seen.isStopped).toBe(true);
    expect(refusalOf(lane, { type: "jog", axis: "x", direction: -1, clicks: 1, size: "fine" })).toBe("machineStopped");
    lane.do({ type: "reset" });
    expect(refusalOf(lane, { type: "jog", axis: "x", direction: -1, clicks: 1, size: "coarse" })).toBe("done");
  });
});

function workKick(lane: LaneDriver<MillSeen>): void {
  if (!lane.seen.spindle.isOn) {
    lane.do({ type: "lookFrom", side: "left" });
    lane.do({ type: "setWobbling" });
    lane.do({ type: "startSpindle", direction: "forward", rpm: 600 });
  }
  for (let turn = 0; turn < 400 && lane.seen.tip?.kind !== "aside"; turn++) {
    const { tip } = lane.seen;
    const near = tip?.kind === "running" && ["slight", "shiver", "true"].includes(tip.wobble);
    lane.do({ type: "jog", axis: "x", direction: 1, clicks: near ? 1 : 5, size: near ? "fine" : "middle" });
  }
}

describe("paper", () => {
  function overStock(): LaneDriver<MillSeen> {
    const lane = fresh("paper");
    lane.do({ type: "home" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "load", thing: "tool1" });
    lane.do({ type: "setDoor", isOpen: false });
    const { stock } = lane.seen.boxes;
    lane.do({ type: "runBlock", text: `G53 G0 X${(stock.low.x + 40).toFixed(3)} Y${(stock.low.y + 20).toFixed(3)}` });
    lane.do({ type: "runBlock", text: `G53 G0 Z${(stock.high.z + lane.seen.heldLengthMm + 1).toFixed(3)}` });
    lane.do({ type: "setDoor", isOpen: true });
    return lane;
  }
  it("slides, drags, is held, is pinched and tears as the gap closes", () => {
    const lane = overStock();
    lane.do({ type: "placePaper" });
    const feels = new Set<string>();
    for (let turn = 0; turn < 3000 && lane.seen.paper; turn++) {
      lane.do({ type: "jog", axis: "z", direction: -1, clicks: 1, size: "fine" });
      if (lane.seen.paper) feels.add(lane.seen.paper.feel);
    }
    expect([...feels]).toEqual(["slides", "drags", "held", "pinched"]);
    expect(lane.seen.incidents).toEqual(["paperTorn"]);
    expect(lane.seen.resting).toBe("stock");
  });
  it("drags between 0.92 and 1.00 of the sheet's own thickness", () => {
    const lane = overStock();
    lane.do({ type: "placePaper" });
    for (let turn = 0; turn < 200 && lane.seen.paper?.feel === "slides"; turn++)
      lane.do({ type: "jog", axis: "z", direction: -1, clicks: 20, size: "fine" });
    const { truth, setup, position } = lane.state;
    const gapMm = position.z / 1000 - (truth.lengthsMm.tool1 ?? 0) - truth.datumMm.z - setup.facingAllowanceMm;
    expect(gapMm / (truth.gapsMm.paper ?? 0)).toBeGreaterThan(0.9);
    expect(gapMm / (truth.gapsMm.paper ?? 0)).toBeLessThanOrEqual(1);
  });
  it("under a turning tool it fails outright", () => {
    const lane = overStock();
    lane.do({ type: "startSpindle", direction: "forward", rpm: 500 });
    lane.do({ type: "placePaper" });
    expect(lane.log.some(({ event }) => event.type === "incidentHappened" && event.failsOutright)).toBe(true);
    expect(lane.seen.paper).toBeNull();
  });
  it("a coarse click onto metal chips the tool and stops the machine", () => {
    const lane = overStock();
    lane.do({ type: "jog", axis: "z", direction: -1, clicks: 40, size: "coarse" });
    expect(lane.seen.incidents).toEqual(["toolChipped"]);
    expect(lane.state.harm.shorterMm.tool1).toBeGreaterThan(0);
  });
});

describe("the log", () => {
  const worked = fresh("log");
  workLane(worked, {});
  const events = worked.log.map(({ event }) => event);

  it("splitting the log anywhere changes nothing, and a stored event reads back the same", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: events.length - 1 }), (cut) => {
        expect(foldFrom(replay(events.slice(0, cut)), events.slice(cut))).toEqual(worked.state);
      }),
      { numRuns: 20 },
    );
    for (const event of events) expect(eventSchema.parse(JSON.parse(JSON.stringify(event)))).toEqual(event);
  });
  it("folding never changes an earlier state", () => {
    const freeze = <T>(value: T): T => {
      if (typeof value === "object" && value !== null && !Object.isFrozen(value)) {
        Object.freeze(value);
        Object.values(value).forEach(freeze);
      }
      return value;
    };
    const [first, ...rest] = events;
    if (!first) throw new Error("empty");
    expect(rest.reduce((state, event) => freeze(evolve(state, event)), freeze(evolve(null, first))).isHandedIn).toBe(
      true,
    );
  });
  it("no sequence of commands makes the bench throw", () => {
    const command = fc.oneof(
      fc.record({
        type: fc.constant("jog" as const),
        axis: fc.constantFrom("x" as const, "y" as const, "z" as const),
        direction: fc.constantFrom(1 as const, -1 as const),
        clicks: fc.integer({ min: 1, max: 200 }),
        size: fc.constantFrom("rapid" as const, "coarse" as const, "middle" as const, "fine" as const),
      }),
      fc.record({
        type: fc.constant("load" as const),
        thing: fc.constantFrom("edgeFinder" as const, "tool1" as const, "pointedTool" as const),
      }),
      fc.constantFrom<Command>(
        { type: "home" },
        { type: "unload" },
        { type: "stopSpindle" },
        { type: "setWobbling" },
        { type: "placePaper" },
        { type: "pullPaper" },
        { type: "reset" },
        { type: "setDoor", isOpen: true },
        { type: "setDoor", isOpen: false },
        { type: "startSpindle", direction: "forward", rpm: 600 },
      ),
      fc.record({
        type: fc.constant("runBlock" as const),
        text: fc.oneof(
          fc.string({ maxLength: 30 }),
          fc.constantFrom(
            "G53 G0 Z0",
            "G53 G0 X-330 Y-180",
            "G91 G1 Z-40 F300",
            "G90 G54 G0 X0 Y0",
            "T1 M6",
            "M3 S600",
          ),
        ),
      }),
    );
    fc.assert(
      fc.property(fc.array(command, { maxLength: 40 }), (commands) => {
        const lane = fresh("fuzz");
        for (const one of commands) {
          lane.attempt(one);
          for (const axis of ["x", "y", "z"] as const)
            expect(Number.isSafeInteger(lane.state.position[axis])).toBe(true);
        }
      }),
      { numRuns: 150 },
    );
  });
});
