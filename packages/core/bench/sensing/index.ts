/** What eyes, ears and fingers get after each small step, one file for each instrument. */
import type { AxisCounts } from "../../registers";
import { senseHard } from "../contact";
import type { Draft } from "../draft";
import type { LaneEvent } from "../events";
import { senseFinder } from "./finder";
import { senseBlock, sensePaper } from "./gap";
import { senseGauges } from "./gauges";
import { senseProbe } from "./probe";
import { senseTaster } from "./taster";

export { gapOverMm, recessMm } from "./gap";
export { effectiveRadiusMm } from "./probe";
export { tasterReads, tasterRunoutMm } from "./taster";

/** Everything that can be noticed after a small step; true when something was. */
export function senseAll(draft: Draft, from: AxisCounts, clickMm: number): boolean {
  const incidentsBefore = draft.state.incidents.length;
  const felt = [senseBlock(draft, from), sensePaper(draft, clickMm)];
  const isStruck = () => draft.state.incidents.length > incidentsBefore && draft.state.isStopped;
  if (isStruck()) return true;
  felt.push(senseHard(draft, from, clickMm));
  if (isStruck()) return true;
  return [...felt, ...senseTips(draft, from, clickMm)].some(Boolean);
}

function senseTips(draft: Draft, from: AxisCounts, clickMm: number): boolean[] {
  return [
    senseFinder(draft, clickMm),
    senseTaster(draft, from, clickMm),
    senseProbe(draft, from, clickMm),
    senseGauges(draft, clickMm),
  ];
}

/** What can still be noticed after a quick move that struck nothing. */
export function senseAfterMove(draft: Draft, from: AxisCounts): boolean {
  return [senseBlock(draft, from), sensePaper(draft, 1), ...senseTips(draft, from, 1)].some(Boolean);
}

/** What changes when the spindle starts, stops or the tip is nudged, without a move. */
export function senseInPlace(draft: Draft): LaneEvent[] {
  senseFinder(draft, 0);
  return draft.events;
}
