import type { MillSeen } from "@probe-lane/core/bench";
import type { Thing } from "@probe-lane/core/instruments";
import type { MillBench } from "../../bench";
import { moveTo, reachIn } from "../../moves";

export function swapTo(lane: MillBench, thing: Thing | null): void {
  if (lane.seen.holds === thing) return;
  if (lane.seen.spindle.isOn) lane.do({ type: "stopSpindle" });
  moveTo(lane, { z: 0 });
  reachIn(lane);
  if (lane.seen.holds) lane.do({ type: "unload" });
  if (thing) lane.do({ type: "load", thing });
}

/** The middle of the blank, as an eye sees it. */
export function middleOf({ boxes: { stock } }: MillSeen): { x: number; y: number } {
  return { x: (stock.low.x + stock.high.x) / 2, y: (stock.low.y + stock.high.y) / 2 };
}

/** Up, across, then down to a height of the tip over something seen. */
export function standAt(lane: MillBench, at: { x: number; y: number }, tipZ: number): void {
  moveTo(lane, { z: 0 });
  moveTo(lane, at);
  moveTo(lane, { z: tipZ + lane.seen.heldLengthMm });
}
