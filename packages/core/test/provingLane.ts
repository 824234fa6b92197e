import { millLane, workLane, type LaneDriver } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import type { Command, MillLane, MillSeen } from "../bench";
import type { Finding } from "../grading";

export const { exercise, marking } = findDemoExercise("plate-program-top");
export type Fault = NonNullable<MillLane["truth"]["programFault"]>["kind"];

/** A seed whose program has this fault; null: none. */
export function seedWith(kind: Fault | null): string {
  for (let turn = 0; turn < 200; turn++) {
    const lane = millLane(exercise, `seed ${turn}`);
    if ((lane.state.truth.programFault?.kind ?? null) === kind) return `seed ${turn}`;
  }
  throw new Error(`no seed has ${kind ?? "a sound program"}`);
}

/** A careful setup, its program loaded, nothing in the spindle. */
export function ready(kind: Fault | null, isCoachOn = false): LaneDriver<MillSeen> {
  const lane = millLane(exercise, seedWith(kind), { isCoachOn });
  workLane(lane, { stopsAfter: "zero" });
  lane.do({ type: "runBlock", text: "G53 G0 Z0" });
  lane.do({ type: "setDoor", isOpen: true });
  lane.do({ type: "unload" });
  lane.do({ type: "setDoor", isOpen: false });
  lane.do({ type: "loadProgram", number: 2041, isConfirmed: false });
  return lane;
}

export function runOut(lane: LaneDriver<MillSeen>, ms = 2000): void {
  for (let turn = 0; turn < 3000 && lane.state.program.run && !lane.state.program.run.held; turn++)
    lane.do({ type: "runOn", ms });
}

export const RIGHT: readonly (readonly [Extract<Command, { type: "lookUp" }>["ask"], number | undefined, string])[] = [
  ["program", undefined, "O2041"],
  ["units", undefined, "mm"],
  ["offset", undefined, "G54"],
  ["lift", undefined, "0"],
  ["wear", undefined, "none"],
  ["travel", undefined, "none"],
  ["pockets", undefined, "none"],
  ["hangs", undefined, "none"],
  ["matters", undefined, "2 fixedJaw"],
  ["rows", 1, "H1"],
  ["rows", 2, "2"],
  ["rows", 3, "3"],
  ["rows", 4, "H4"],
  ["spindle", 1, "forward 3000"],
  ["spindle", 2, "forward 2400"],
  ["spindle", 3, "forward 4800"],
  ["spindle", 4, "forward 2600"],
  ["deepest", 1, "-2"],
  ["deepest", 2, "-8"],
  ["deepest", 3, "-3"],
  ["deepest", 4, "-23"],
];

/** Looks everything up as it stands; `said` and what is called a fault can be told otherwise. */
export function lookUp(
  lane: LaneDriver<MillSeen>,
  otherwise: Readonly<Record<string, readonly [string, boolean]>> = {},
): void {
  for (const [ask, tool, text] of RIGHT) {
    const [said, isSound] = otherwise[`${ask}${tool ?? ""}`] ?? [text, true];
    lane.do({ type: "lookUp", ask, ...(tool === undefined ? {} : { tool }), text: said, isSound });
  }
  for (const tool of [1, 2, 3, 4]) {
    const row = lane.state.registers.lengthGeometry[tool] ?? 0;
    lane.do({ type: "lookUp", ask: "held", tool, text: String(row / 1000), isSound: true });
  }
}

/** Tool 2 in the spindle, its row called, the display brought to its deepest Z beside the part. */
export function standDeepest(lane: LaneDriver<MillSeen>, tool: number, z: number): void {
  lane.do({ type: "runBlock", text: `T${tool} M6` });
  lane.do({ type: "runBlock", text: "G54 G0 X-40 Y25" });
  lane.do({ type: "runBlock", text: `G43 H${tool} G1 Z${z} F500` });
}

export const steps = (findings: readonly Finding[]) =>
  Object.fromEntries(
    findings.flatMap((finding) =>
      finding.code === "stepDone" || finding.code === "stepMissed" ? [[finding.step, finding.code === "stepDone"]] : [],
    ),
  );
