import type { Observation } from "@probe-lane/core/bench";
import { scales, showLength, toCounts, toMm } from "@probe-lane/core/units";
import type { Bench } from "./bench";

/** A length as this student types it: in the machine's unit, to its least increment. */
export const text = (lane: Bench, mm: number): string => showLength(mm, scales[lane.seen.sheet.unit]);
/** A machine figure in mm. */
export const machineMm = (lane: Bench, axis: "x" | "y" | "z"): number =>
  toMm(lane.seen.machine[axis], scales[lane.seen.sheet.unit]);

export function moveTo(lane: Bench, at: Partial<Record<"x" | "y" | "z", number>>): Observation {
  door(lane, false);
  if (lane.seen.kind === "readout") {
    for (const axis of ["x", "z"] as const) if (at[axis] !== undefined) wind(lane, axis, at[axis], "rapid");
    return lane.seen;
  }
  const words = Object.entries(at)
    .map(([axis, mm]) => axis.toUpperCase() + text(lane, mm))
    .join(" ");
  return lane.do({ type: "runBlock", text: `G53 G0 ${words}` });
}

const WHEELS = [
  ["rapid", 1000],
  ["coarse", 100],
  ["middle", 10],
  ["fine", 1],
] as const;
const MOST_CLICKS = 200;

/** Winds a slide to a machine figure by its wheel, no coarser than stated; stops where something is met. */
export function wind(lane: Bench, axis: "x" | "z", mm: number, coarsest: "rapid" | "coarse"): void {
  for (const [size, counts] of WHEELS.slice(coarsest === "rapid" ? 0 : 1)) {
    for (;;) {
      const left = toCounts(mm, scales.mm) - lane.seen.machine[axis];
      const clicks = Math.min(MOST_CLICKS, Math.trunc(Math.abs(left) / counts));
      if (clicks === 0 || lane.seen.isStopped) break;
      const before = lane.seen.machine[axis];
      lane.do({ type: "jog", axis, direction: left > 0 ? 1 : -1, clicks, size });
      if (lane.seen.machine[axis] === before) break;
    }
  }
}

export function door(lane: Bench, isOpen: boolean): void {
  if (lane.seen.isDoorOpen !== isOpen) lane.do({ type: "setDoor", isOpen });
}

/** Hands in the machine: spindle still, door open. */
export function reachIn(lane: Bench): void {
  if (lane.seen.spindle.isOn) lane.do({ type: "stopSpindle" });
  door(lane, true);
}
