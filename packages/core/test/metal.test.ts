import { describe, expect, it } from "vitest";
import { LaneDriver, millLane, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import type { MillSeen } from "../bench";
import { rule } from "../grading";
import { sweepReadings } from "../instruments/sweep";
import { feelAt } from "../instruments/paper";
import { sweepError } from "../registers";
import { ballBeside } from "../machines/mill/acts/probe/trigger";
import { tipPoint, trueLengthMm, trueScene } from "../machines/mill/solids";
import { findingWords } from "../words";

const FOCUSER = "focuser-plate-lower-left";
type Lane = LaneDriver<MillSeen>;

/** An edge finder run at a speed, brought to the left face by fine clicks until it is thrown or kicks. */
function kickAt(rpm: number, seed = "metal"): Lane {
  const lane = millLane(findDemoExercise(FOCUSER).exercise, seed);
  lane.do({ type: "home" });
  lane.do({ type: "setDoor", isOpen: true });
  lane.do({ type: "dressBurr" });
  lane.do({ type: "load", thing: "edgeFinder" });
  lane.do({ type: "setDoor", isOpen: false });
  lane.do({ type: "lookFrom", side: "left" });
  const { stock } = lane.seen.boxes;
  const r = lane.seen.sheet.tipDiameterMm / 2;
  const y = (stock.low.y + stock.high.y) / 2;
  lane.do({ type: "runBlock", text: `G53 G0 X${(stock.low.x - r - 4).toFixed(3)} Y${y.toFixed(3)}` });
  lane.do({ type: "runBlock", text: `G53 G0 Z${(stock.high.z + lane.seen.heldLengthMm - 4).toFixed(3)}` });
  lane.do({ type: "startSpindle", direction: "forward", rpm });
  if (lane.seen.incidents.length > 0) return lane;
  lane.do({ type: "setWobbling" });
  for (let turn = 0; turn < 400 && lane.seen.tip?.kind === "running"; turn++)
    lane.do({ type: "jog", axis: "x", direction: 1, clicks: 20, size: "fine" });
  return lane;
}
const kickOf = (lane: Lane) => {
  const event = lane.log.findLast((one) => one.event.type === "kicked")?.event;
  return event?.type === "kicked" ? event : null;
};

describe("an edge finder above its rating", () => {
  it("at its speed it kicks where it is tangent, at twice that hundredths away, at three times it is gone", () => {
    const [fair, fast] = [kickOf(kickAt(800)), kickOf(kickAt(2400))];
    expect(fair?.parts.scatterMm).toBe(0);
    expect(Math.abs(fast?.parts.scatterMm ?? 0)).toBeGreaterThan(0.01);
    const apartMm = Math.abs((fast?.atCounts ?? 0) - (fair?.atCounts ?? 0)) / 1000;
    expect(apartMm).toBeCloseTo(Math.abs(fast?.parts.scatterMm ?? 0), 2);
    expect(kickAt(3400).seen.incidents).toEqual(["finderThrown"]);
  });
});

it("a spindle grows by a few to twenty micrometres between its speeds", () => {
  for (const seed of ["a", "b", "c", "d", "e"]) {
    const { exercise } = findDemoExercise("lengths-at-speed");
    const { truth } = millLane(exercise, seed).state;
    for (const { workingRpm } of exercise.tools) {
      const grown = (truth.growthMmPer1000 * workingRpm) / 1000;
      expect(grown).toBeGreaterThan(0.003);
      expect(grown).toBeLessThanOrEqual(0.02);
    }
  }
});

it("paper drags over about a third of its thickness", () => {
  const dragging = [...Array(100).keys()].filter((percent) => feelAt((percent / 100) * 0.1, 0.1) === "drags");
  expect(dragging.length).toBeGreaterThanOrEqual(27);
  expect(dragging.length).toBeLessThanOrEqual(36);
});

describe("a ball that hangs only partly below the edge", () => {
  const probing = (belowMm: number) => {
    const lane = millLane(findDemoExercise("clamp-middle-probe").exercise, "ball");
    lane.do({ type: "home" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "load", thing: "probe" });
    lane.do({ type: "setDoor", isOpen: false });
    const box = lane.seen.boxes.stock;
    const at = (axis: "x" | "y", mm: number) => `${axis.toUpperCase()}${mm.toFixed(3)}`;
    lane.do({ type: "runBlock", text: `G53 G0 ${at("x", box.low.x - 9)} ${at("y", (box.low.y + box.high.y) / 2)}` });
    // down until the ball hangs just so far below the true top
    const top = trueScene(lane.state).stock.highZ;
    const z = lane.seen.machine.z / 1000 + (top - belowMm - tipPoint(lane.state, lane.state.position).z);
    lane.do({ type: "runBlock", text: `G53 G0 Z${z.toFixed(3)}` });
    lane.do({ type: "askProbe", question: "face", axis: "x", direction: 1, size: "15" });
    return { lane, reading: lane.seen.readings.at(-1) };
  };
  it("gives a figure, and a false one: late by r − √(r² − h²)", () => {
    const whole = probing(6).reading;
    const partly = probing(1).reading;
    expect([whole?.outcome, partly?.outcome]).toEqual(["found", "found"]);
    const r = (probing(6).lane.seen.sheet.probe?.ballDiameterMm ?? 0) / 2;
    const late = r - Math.sqrt(r * r - (r - 1) ** 2);
    expect((partly?.values.at ?? 0) - (whole?.values.at ?? 0)).toBeCloseTo(late, 2);
  });
  it("above it all there is nothing", () => expect(probing(-0.5).reading?.outcome).toBe("missed"));
  it("and above its whole girth it is the equator that counts", () => {
    const { lane } = probing(6);
    const tipZ = tipPoint(lane.state, lane.state.position).z;
    expect(ballBeside(lane.state, { highZ: tipZ }, tipZ, "x", 1)).toBeNull();
  });
});

describe("the sweep dial", () => {
  it("shows where it happens to stand: its readings mean nothing until halves of differences are formed", () => {
    const read = sweepReadings([0.12, -0.05], "bore", "dial", 1);
    if (!read) throw new Error("out of range");
    expect(Math.abs(read[0] + read[2]) / 2).toBeGreaterThan(0.01);
    expect((read[0] + read[2]) / 2).toBeCloseTo((read[1] + read[3]) / 2, 2);
    const { error } = sweepError(read, "bore");
    expect(error[0]).toBeCloseTo(0.12, 2);
    expect(error[1]).toBeCloseTo(-0.05, 2);
  });
});

describe("a taster lowered onto the part", () => {
  it("shows on its dial how far it is pushed up, and driven on it breaks", () => {
    const lane = millLane(findDemoExercise("clamp-corner-taster").exercise, "over");
    lane.do({ type: "home" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "load", thing: "taster" });
    lane.do({ type: "setDoor", isOpen: false });
    const { stock } = lane.seen.boxes;
    const middle = `X${((stock.low.x + stock.high.x) / 2).toFixed(3)} Y${((stock.low.y + stock.high.y) / 2).toFixed(3)}`;
    lane.do({ type: "runBlock", text: `G53 G0 ${middle}` });
    lane.do({ type: "runBlock", text: `G53 G0 Z${(stock.high.z + lane.seen.heldLengthMm + 3).toFixed(3)}` });
    for (let turn = 0; turn < 200 && lane.state.taster.touch === null; turn++)
      lane.do({ type: "jog", axis: "z", direction: -1, clicks: 10, size: "middle" });
    expect(lane.state.taster.touch?.axis).toBe("z");
    lane.do({ type: "takeReading", register: "G54.z" });
    expect(lane.seen.incidents).toEqual([]);
    for (let turn = 0; turn < 300 && !lane.seen.isStopped; turn++)
      lane.do({ type: "jog", axis: "z", direction: -1, clicks: 20, size: "middle" });
    expect(lane.seen.incidents).toEqual(["tasterBroken"]);
  });
});

describe("what an incident costs is the exercise's to say", () => {
  const { exercise, marking } = findDemoExercise(FOCUSER);
  const lane = new LaneDriver(exercise, "grave");
  workLane(lane, { paperUnderTurningTool: true });
  const ruled = (grave: "costs" | "failsSafety" | "failsLane") =>
    rule(lane.log, { ...marking, severity: { ...marking.severity, grave } });
  it("paper under a turning tool endangers a hand: it fails the lane, and the ruling says so", () => {
    const ruling = ruled("failsLane");
    expect(ruling.failedBy).toBe("paperUnderTurningTool");
    const finding = ruling.findings.find(({ code }) => code === "incident");
    expect(finding && findingWords(finding)).toContain("This alone fails the lane");
  });
  it("an author may let it take the strand of safety only, or its share", () => {
    expect(ruled("failsSafety").failedBy).toBeUndefined();
    expect(ruled("failsSafety").strands.find(({ name }) => name === "safety")?.marks).toBe(0);
    const finding = ruled("costs").findings.find(({ code }) => code === "incident");
    expect(finding && findingWords(finding)).not.toContain("alone fails");
  });
  it("a broken tool costs its share and fails nothing, unless the author says so", () => {
    const thrown = new LaneDriver(exercise, "tool");
    workLane(thrown, { startsAtRememberedSpeed: true });
    expect(rule(thrown.log, marking).failedBy).toBeUndefined();
    const strict = rule(thrown.log, { ...marking, severity: { ...marking.severity, tool: "failsLane" } });
    expect(strict.failedBy).toBe("finderThrown");
  });
});

describe("the successor of a smashed probe", () => {
  const { exercise } = findDemoExercise("probe-calibrated");
  const smashed = () => {
    const lane = millLane(exercise, "smashed");
    lane.do({ type: "home" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "load", thing: "probe" });
    lane.do({ type: "setDoor", isOpen: false });
    const { stock } = lane.seen.boxes;
    const [x, y] = [(stock.low.x + stock.high.x) / 2, (stock.low.y + stock.high.y) / 2];
    lane.do({ type: "runBlock", text: `G53 G0 X${x.toFixed(3)} Y${y.toFixed(3)}` });
    lane.do({ type: "runBlock", text: `G53 G0 Z${(stock.high.z + lane.seen.heldLengthMm + 3).toFixed(3)}` });
    for (let turn = 0; turn < 40 && !lane.seen.isStopped; turn++)
      lane.do({ type: "jog", axis: "z", direction: -1, clicks: 3, size: "coarse" });
    expect(lane.seen.incidents).toContain("probeBroken");
    lane.do({ type: "reset" });
    lane.do({ type: "runBlock", text: "G53 G0 Z0" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "unload" });
    return lane;
  };
  it("has a card of its own, by rule, and is true to it only once it is calibrated", () => {
    const lane = smashed();
    const first = lane.seen.sheet.probe;
    lane.do({ type: "load", thing: "probe" });
    const card = { ...lane.seen.cards };
    expect(Math.abs((card.probeLength ?? 0) - (first?.lengthMm ?? 0))).toBeGreaterThan(0.05);
    const trueMm = () => trueLengthMm(lane.state);
    lane.do({ type: "setDoor", isOpen: false });
    lane.do({ type: "calibrate", what: "probeLength", by: "block" });
    lane.do({ type: "calibrate", what: "probeRadius", by: "ring" });
    expect(lane.seen.cards.probeLength).toBeCloseTo(trueMm(), 2);
    expect(lane.seen.cards.probeRadius).toBeLessThan((first?.ballDiameterMm ?? 0) / 2);
    expect(card.probeRadius).toBe((first?.ballDiameterMm ?? 0) / 2);
  });
  it("what does not calibrate a thing is refused, and so is a calibration without masters", () => {
    const lane = smashed();
    expect(lane.attempt({ type: "calibrate", what: "probeRadius", by: "block" })?.code).toBe("notCalibratedBy");
    const other = millLane(findDemoExercise("clamp-middle-probe").exercise, "none");
    expect(other.attempt({ type: "calibrate", what: "probeRadius", by: "ring" })?.code).toBe("noMastersHere");
  });
});

describe("a beam that was taken off and put back", () => {
  const lane = millLane(findDemoExercise("beam-calibrated").exercise, "beam");
  const { truth } = lane.state;
  const offMm = truth.doubt?.byMm ?? 0;
  const measured = () => {
    lane.do({ type: "askBeam", what: "length", rpm: 0, isAtEdge: false });
    return lane.seen.readings.at(-1)?.values.length ?? 0;
  };
  const byPin = { type: "calibrate", what: "setter", by: "pin" } as const;

  it("measures short by what its card states too much, until the master pin has told where it hangs", () => {
    lane.do({ type: "home" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "load", thing: "tool3" });
    lane.do({ type: "blowTip" });
    lane.do({ type: "setDoor", isOpen: false });
    expect(Math.abs(offMm)).toBeGreaterThanOrEqual(0.12);
    const trueMm = trueLengthMm(lane.state);
    // approach N(0, 1 µm), and a count of rounding
    expect(Math.abs(measured() - (trueMm - offMm))).toBeLessThan(0.005);
    expect(lane.attempt(byPin)?.code).toBe("spindleHolds");
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "unload" });
    lane.do({ type: "setDoor", isOpen: false });
    expect(lane.attempt({ ...byPin, by: "nose" })?.code).toBe("notCalibratedBy");
    lane.do(byPin);
    expect(lane.seen.readings.at(-1)).toMatchObject({ instrument: "beamSetter", what: "setter" });
    lane.do({ type: "setDoor", isOpen: true });
    lane.do({ type: "load", thing: "tool3" });
    lane.do({ type: "setDoor", isOpen: false });
    expect(Math.abs(measured() - trueMm)).toBeLessThan(0.008);
  });
});

describe("what the control sets by itself", () => {
  const worked = (id: string, habits: Parameters<typeof workLane>[1]) => {
    const { exercise, marking } = findDemoExercise(id);
    const lane = millLane(exercise, "by itself");
    workLane(lane, habits);
    return { lane, ruling: rule(lane.log, marking) };
  };
  it("a cycle may write the offset that it is asked to write, where the machine is set so", () => {
    const { lane, ruling } = worked("clamp-middle-probe", { writesByCycle: true });
    expect(lane.log.some(({ event }) => event.type === "registerChanged" && event.how === "byCycle")).toBe(true);
    expect(ruling.total).toBeCloseTo(100, 6);
    const words = ruling.findings.map((finding) => findingWords(finding)).join(" ");
    expect(words).toContain("the control added it up and wrote it itself");
    const other = millLane(findDemoExercise("plate-bore-probe").exercise, "no");
    other.do({ type: "home" });
    other.do({ type: "setDoor", isOpen: true });
    other.do({ type: "load", thing: "probe" });
    other.do({ type: "setDoor", isOpen: false });
    const ask = { type: "askProbe", question: "surface", size: "5", into: "G54" } as const;
    expect(other.attempt(ask)?.code).toBe("cyclesDoNotWrite");
  });
  it("a middle set from points kept by hand is as right as one worked out", () => {
    for (const id of ["clamp-middle-finder", "clamp-middle-taster"])
      expect(worked(id, { setsFromPoints: true }).ruling.total, id).toBeCloseTo(100, 6);
  });
  it("and one point is no middle", () => {
    const { lane } = worked("clamp-middle-finder", { stopsAfter: "homed" });
    const set = { type: "setFromPoints", what: "middle", axis: "x", into: "G54" } as const;
    expect(lane.attempt(set)?.code).toBe("pointsMissing");
    expect(lane.attempt({ type: "keepPoint" })?.code).toBe("contactFirst");
  });
});
