import type { MillSeen } from "@probe-lane/core/bench";
import { millLane, type LaneDriver } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import type { Command } from "../bench";
import { exerciseSchema, type Exercise } from "../exercises";
import { scales, showLength } from "../units";

const text = (lane: LaneDriver, mm: number) => showLength(mm, scales[lane.state.setup.unit]);
export const door = (lane: LaneDriver, isOpen: boolean) =>
  lane.seen.isDoorOpen !== isOpen && lane.do({ type: "setDoor", isOpen });
export const go = (lane: LaneDriver, at: Partial<Record<"x" | "y" | "z", number>>) => {
  door(lane, false);
  lane.do({
    type: "runBlock",
    text: `G53 G0 ${Object.entries(at)
      .map(([axis, mm]) => axis.toUpperCase() + text(lane, mm))
      .join(" ")}`,
  });
};
export const refusal = (lane: LaneDriver, command: Command) => lane.attempt(command)?.code ?? "done";

/** A homed lane of an exercise of the pack, changed where a test wants it so, with something in the spindle. */
export function lane(
  id: string,
  holds: Parameters<typeof loaded>[1] = null,
  change: Partial<Exercise> = {},
  seed = "bench",
): LaneDriver<MillSeen> {
  const file = findDemoExercise(id).exercise;
  return loaded(millLane(exerciseSchema.parse({ ...file, ...change }), seed), holds);
}
export function loaded(
  made: LaneDriver<MillSeen>,
  thing: "taster" | "probe" | "indicator" | "edgeFinder" | "tool1" | "tool2" | "tool3" | "tool5" | null,
): LaneDriver<MillSeen> {
  for (const task of made.seen.sheet.tasks.filter((one) => one === "releaseStop" || one === "lowRapid"))
    made.do({ type: "doTask", task });
  made.do({ type: "home" });
  door(made, true);
  if (made.seen.sheet.tasks.includes("dressBurr")) made.do({ type: "dressBurr" });
  if (thing) made.do({ type: "load", thing });
  return made;
}
export const last = (made: LaneDriver<MillSeen>) => made.seen.readings.at(-1);
export const middle = ({
  seen: {
    boxes: { stock },
  },
}: LaneDriver<MillSeen>) => ({ x: (stock.low.x + stock.high.x) / 2, y: (stock.low.y + stock.high.y) / 2 });
/** Beside the left face, so far from it and so deep below the top, mm by eye. */
export function besideLeft(made: LaneDriver<MillSeen>, offMm: number, deepMm = 5): LaneDriver<MillSeen> {
  const { stock } = made.seen.boxes;
  go(made, { x: stock.low.x - offMm, y: middle(made).y });
  go(made, { z: stock.high.z + made.seen.heldLengthMm - deepMm });
  return made;
}
