import { evolve, type LaneState } from "../bench/state";
import type { EventOf, LaneEvent } from "../bench/events";
import { jogSizesMm } from "../bench/commands";

/** A fact with its place in the log. */
export interface LoggedEvent { readonly seq: number; readonly atMs: number; readonly event: LaneEvent }

interface Placed<E> { readonly seq: number; readonly atMs: number; readonly event: E }
export interface KickPlace extends Placed<EventOf<"kicked">> { readonly rpm: number }
export interface ChangePlace extends Placed<EventOf<"registerChanged">> {
  readonly holds: LaneState["holds"];
  readonly paper: LaneState["paper"];
}
export interface SurfaceTouch {
  readonly seq: number;
  readonly atMs: number;
  readonly machineZ: number;
  readonly on: string;
  readonly by: "paper" | "metal";
  readonly clickMm: number;
  readonly feel: string;
  readonly holds: LaneState["holds"];
}

/** What the marking reads of a lane, gathered in one pass over its log. */
export interface LaneTrace {
  readonly log: readonly LoggedEvent[];
  readonly final: LaneState;
  readonly kicks: readonly KickPlace[];
  readonly changes: readonly ChangePlace[];
  readonly touches: readonly SurfaceTouch[];
}

/** Folds a log once and keeps the moments that evidence hangs on: kicks, register changes, touches of a surface. */
export function traceLane(log: readonly LoggedEvent[]): LaneTrace {
  let state: LaneState | null = null;
  let clickMm = 0;
  const kicks: KickPlace[] = [];
  const changes: ChangePlace[] = [];
  const touches: SurfaceTouch[] = [];
  for (const { seq, atMs, event } of log) {
    if (state) {
      if (event.type === "jogged") clickMm = jogSizesMm[event.size];
      if (event.type === "kicked") kicks.push({ seq, atMs, event, rpm: state.spindle.rpm });
      if (event.type === "registerChanged") changes.push({ seq, atMs, event, holds: state.holds, paper: state.paper });
      if (event.type === "paperFelt" && event.feel !== "slides") {
        touches.push({ seq, atMs, machineZ: event.machineZ, on: event.on, by: "paper", clickMm: event.clickMm || clickMm, feel: event.feel, holds: state.holds });
      }
      if (event.type === "touchedHard") {
        touches.push({ seq, atMs, machineZ: state.position.z, on: event.on, by: "metal", clickMm, feel: "metal", holds: state.holds });
      }
    }
    state = evolve(state, event);
  }
  if (!state) throw new Error("traceLane: an empty log cannot be traced");
  return { log, final: state, kicks, changes, touches };
}
