import type { LatheBench } from "../../bench";
import type { Habits } from "../../habits";
import { machineMm, moveTo, text } from "../../moves";
import {
  bring,
  face,
  leaveFace,
  lookBeforeFace,
  measure,
  retract,
  setZ,
  sheetOf,
  skim,
  touchDiameter,
  touchFace,
} from "./turning";

interface Place {
  readonly xMm: number;
  readonly zMm: number;
}

/** Declares at the start point where the tip of the first tool stands from axis and face. */
function declare(lane: LatheBench, start: Place, own: Place, offMm: number): void {
  moveTo(lane, { z: start.zMm + offMm });
  moveTo(lane, { x: start.xMm });
  lane.do({ type: "runBlock", text: `G50 X${text(lane, start.xMm - own.xMm)} Z${text(lane, start.zMm - own.zMm)}` });
}

/**
 * A position declared with the first tool; the others' rows hold their difference; then a second start, and declared
 * once more.
 */
export function workPreset(lane: LatheBench, habits: Habits): void {
  const { tools, targets, start } = sheetOf(lane);
  const [first, ...others] = tools.filter(({ number }) => targets.x.includes(number) || targets.z.includes(number));
  if (!first || !start) return;
  bring(lane, first);
  face(lane);
  const zMm = machineMm(lane, "z");
  lane.do({ type: "takeReading", register: "common.z" });
  lane.do({ type: "writeSum", register: "common.z", text: text(lane, zMm) });
  skim(lane, habits);
  const diameter = measure(lane, "turned", habits);
  const xMm = machineMm(lane, "x") - diameter;
  lane.do({ type: "takeReading", register: "common.x" });
  lane.do({ type: "writeTerm", register: "common.x", term: "diameter", text: text(lane, -diameter) });
  lane.do({ type: "writeSum", register: "common.x", text: text(lane, xMm) });
  declare(lane, start, { xMm, zMm }, 0);
  for (const tool of others) {
    setZ(lane, tool.number, touchFace(lane, tool, 8), tool.bladeMm ?? 0, habits);
    leaveFace(lane);
    touchDiameter(lane, tool, diameter, habits);
  }
  retract(lane);
  lane.do({ type: "switchOff" });
  lane.do({ type: "home" });
  const other = others.at(-1);
  if (habits.declaresAgain === "withOther" && other)
    lane.do({ type: "index", station: other.number, withOffset: true });
  else bring(lane, first);
  if (habits.declaresAgain !== "never")
    declare(lane, start, { xMm, zMm }, habits.declaresAgain === "elsewhere" ? -4 : 0);
  bring(lane, first);
  lookBeforeFace(lane);
  lane.do({ type: "handIn" });
}
