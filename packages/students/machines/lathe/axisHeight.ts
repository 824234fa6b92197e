import type { LatheBench } from "../../bench";
import type { Habits } from "../../habits";
import { reachIn, text } from "../../moves";
import { lastReading } from "../../readings";
import { seenOf, setNoses, sheetOf } from "./turning";

/** Steps of the search, mm: halves first, then finer. */
const FINEST_MM = 0.0005;

/** Blocks of the metric set for a size, taken digit by digit from the last, as it is done by hand. */
function stackFor(mm: number): number[] {
  const blocks: number[] = [];
  let left = Math.round(mm * 2000);
  const take = (halfMicrons: number) => {
    blocks.push(halfMicrons / 2000);
    left -= halfMicrons;
  };
  if (left % 2 === 1) take(2001);
  const thousandths = (left / 2) % 10;
  if (thousandths > 0) take(2000 + 2 * thousandths);
  const hundredths = (left / 20) % 50;
  if (hundredths > 0) take(2000 + 20 * hundredths);
  if (left >= 200_000) take(200_000);
  const tens = Math.floor(left / 20_000) * 20_000;
  if (tens > 0) take(tens);
  if (left > 0) take(left);
  return blocks;
}

/** The highest stack that goes, found by halving between what goes and what does not. */
function highestStack(lane: LatheBench, aboutMm: number, under: "spindle" | "tailstock"): number {
  const goes = (mm: number): boolean => {
    lane.do({ type: "tryStack", text: stackFor(mm).join(" + "), under });
    return seenOf(lane).stacks.at(-1)?.goes ?? false;
  };
  let [low, high] = [Math.round(aboutMm - 3), Math.round(aboutMm + 3)];
  while (high - low > FINEST_MM * 1.5) {
    const middle = Math.round((low + high) / 2 / FINEST_MM) * FINEST_MM;
    if (goes(middle)) low = middle;
    else high = middle;
  }
  goes(low);
  return low;
}

/** The height of the axis by a stack under the pin, and the setting gauge compared with it. */
export function findAxis(lane: LatheBench, habits: Habits): void {
  const { axis } = sheetOf(lane);
  if (!axis) return;
  reachIn(lane);
  const stack = highestStack(lane, axis.aboutMm - axis.pinMm / 2, habits.atTailstock ? "tailstock" : "spindle");
  const height = stack + (habits.axisPin === "none" ? 0 : habits.axisPin === "whole" ? axis.pinMm : axis.pinMm / 2);
  lane.do({ type: "stateHeight", what: "axisHeight", text: text(lane, height) });
  if (habits.gauge !== "notZeroed") lane.do({ type: "zeroGauge" });
  lane.do({ type: "readGauge", from: habits.gauge === "fromAbove" ? "above" : "below" });
  const read = lastReading(lane).values.height ?? 0;
  lane.do({ type: "stateHeight", what: "gaugeError", text: text(lane, read - axis.pinMm / 2 - height) });
  lane.do({ type: "handIn" });
}

/** Noses and tip codes, and which of the tools does for the part: a lane of looking and knowing. */
export function sayWhatFits(lane: LatheBench, habits: Habits): void {
  const { tools, targets, profile } = sheetOf(lane);
  setNoses(lane, habits);
  const angles: Record<string, number> = { C: 80, D: 55, E: 75, K: 55, S: 90, T: 60, V: 35, W: 80 };
  for (const number of targets.fit ?? []) {
    const tool = tools.find((one) => one.number === number);
    const nose = angles[tool?.insert.slice(0, 1) ?? ""];
    const clears =
      tool?.leadDeg === undefined ||
      nose === undefined ||
      180 - tool.leadDeg - nose - 2 >= (profile?.steepestFallDeg ?? 0);
    lane.do({
      type: "stateFit",
      tool: number,
      fits: habits.allFit === true || (clears && (tool?.deepestMm ?? Infinity) >= (profile?.grooveMm ?? 0)),
    });
  }
  lane.do({ type: "handIn" });
}
