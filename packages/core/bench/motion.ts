import type { Axis, AxisCounts } from "../registers";
import { jogClicks, jogMm, type JogSize } from "./commands";
import { quickContact, strike } from "./contact";
import { Draft } from "./draft";
import { travelCounts } from "./machine";
import { senseAfterMove, senseAll } from "./sensing";
import type { LaneState } from "./state";

/** True when a position lies inside the machine's travel on that axis. */
export function isInTravel({ setup }: Pick<LaneState, "setup">, axis: Axis, counts: number): boolean {
  const [low, high] = travelCounts[setup.unit][axis];
  return counts >= low && counts <= high;
}

/**
 * Clicks on one axis, one after another; stops after the click at which something is first felt or seen, and before
 * travel ends. A click is never divided: a contact made within it is late by what was left of it.
 */
export function jog(draft: Draft, axis: Axis, direction: 1 | -1, clicks: number, size: JogSize): void {
  const { unit } = draft.state.setup;
  const clickMm = jogMm(unit, size);
  const stepCounts = direction * jogClicks[unit][size];
  let done = 0;
  let to = draft.state.position;
  const flush = () => {
    if (done > 0) draft.emit({ type: "jogged", axis, size, direction, clicks: done, to });
    done = 0;
  };
  for (let click = 0; click < clicks; click++) {
    const from = to;
    const next = { ...from, [axis]: from[axis] + stepCounts };
    if (!isInTravel(draft.state, axis, next[axis])) break;
    to = next;
    done += 1;
    const trial = new Draft({ ...draft.state, position: to });
    const isFelt = size === "rapid" ? senseQuick(trial, from, to) : senseAll(trial, from, clickMm);
    if (trial.events.length === 0) continue;
    if (isFelt && size === "rapid" && trial.state.isStopped) to = trial.state.position;
    flush();
    for (const event of trial.events) if (event.type !== "moved") draft.emit(event);
    if (isFelt) break;
  }
  flush();
}

/** A rapid click: the tip is hard to everything; a strike stops the machine where it happens. */
function senseQuick(draft: Draft, from: AxisCounts, to: AxisCounts): boolean {
  const hit = quickContact(draft.state, from, to);
  if (!hit) return senseAfterMove(draft, from);
  draft.emit({ type: "moved", to: hit.at, isRapid: true });
  clearGap(draft);
  strike(draft, hit.on);
  return true;
}

function clearGap(draft: Draft): void {
  if (draft.state.paper) draft.emit({ type: "paperPulled" });
  if (draft.state.block) draft.emit({ type: "blockPulled" });
}

/** A straight typed move, all axes together. */
export function moveStraight(draft: Draft, to: AxisCounts, isRapid: boolean): void {
  const from = draft.state.position;
  const hit = quickContact(draft.state, from, to);
  draft.emit({ type: "moved", to: hit?.at ?? to, isRapid });
  if (hit) {
    clearGap(draft);
    strike(draft, hit.on);
    return;
  }
  if (draft.state.resting) draft.emit({ type: "leftHard" });
  senseAfterMove(draft, from);
}
