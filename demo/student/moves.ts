import type { Observation } from "@probe-lane/core/bench";
import type { Thing } from "@probe-lane/core/instruments";
import { scales, showLength, toCounts, toMm } from "@probe-lane/core/units";
import type { LaneDriver } from "../laneDriver";

/** A length as this student types it: in the machine's unit, to its least increment. */
export const text = (lane: LaneDriver, mm: number): string => showLength(mm, scales[lane.state.setup.unit]);
/** A machine figure in mm. */
export const machineMm = (lane: LaneDriver, axis: "x" | "y" | "z"): number =>
  toMm(lane.seen.machine[axis], scales[lane.state.setup.unit]);

export function moveTo(lane: LaneDriver, at: Partial<Record<"x" | "y" | "z", number>>): Observation {
  door(lane, false);
  if (lane.seen.sheet.lathe?.control === "readout") {
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
export function wind(lane: LaneDriver, axis: "x" | "z", mm: number, coarsest: "rapid" | "coarse"): void {
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

export function door(lane: LaneDriver, isOpen: boolean): void {
  if (lane.seen.isDoorOpen !== isOpen) lane.do({ type: "setDoor", isOpen });
}

/** Hands in the machine: spindle still, door open. */
export function reachIn(lane: LaneDriver): void {
  if (lane.seen.spindle.isOn) lane.do({ type: "stopSpindle" });
  door(lane, true);
}

export function swapTo(lane: LaneDriver, thing: Thing | null): void {
  if (lane.seen.holds === thing) return;
  if (lane.seen.spindle.isOn) lane.do({ type: "stopSpindle" });
  moveTo(lane, { z: 0 });
  reachIn(lane);
  if (lane.seen.holds) lane.do({ type: "unload" });
  if (thing) lane.do({ type: "load", thing });
}

/** The middle of the blank, as an eye sees it. */
export function middleOf({ boxes: { stock } }: Observation): { x: number; y: number } {
  return { x: (stock.low.x + stock.high.x) / 2, y: (stock.low.y + stock.high.y) / 2 };
}

/** Up, across, then down to a height of the tip over something seen. */
export function standAt(lane: LaneDriver, at: { x: number; y: number }, tipZ: number): void {
  moveTo(lane, { z: 0 });
  moveTo(lane, at);
  moveTo(lane, { z: tipZ + lane.seen.heldLengthMm });
}
