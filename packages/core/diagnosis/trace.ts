import { evolve, type EventOf, type LaneEvent, type LaneState, type MillLane, type TurningLane } from "../bench";
import { jogMm } from "../lane";
import { kitFor } from "../machines/kits";
import type { EdgeContact, PlaceReading, SurfaceTouch, TurretContact } from "../machines/told";

/** A fact with its place in the log. */
export interface LoggedEvent {
  readonly seq: number;
  readonly atMs: number;
  readonly event: LaneEvent;
}

interface Placed<E> {
  readonly seq: number;
  readonly atMs: number;
  readonly event: E;
}
/** A register change, with the lane as it stood before it. */
interface ChangePlace<S = LaneState> extends Placed<EventOf<"registerChanged">> {
  readonly before: S;
}

/** What the marking reads of every lane, gathered in one pass over its log. */
interface TraceBase<S> {
  readonly log: readonly LoggedEvent[];
  readonly final: S;
  readonly changes: readonly ChangePlace<S>[];
  readonly readings: readonly Placed<EventOf<"readingShown">>[];
}
export interface MillTrace extends TraceBase<MillLane> {
  readonly kind: "mill";
  readonly contacts: readonly EdgeContact[];
  readonly places: readonly PlaceReading[];
  readonly touches: readonly SurfaceTouch[];
}
export interface TurningTrace extends TraceBase<TurningLane> {
  readonly kind: TurningLane["kind"];
  readonly turret: readonly TurretContact[];
}
export type LaneTrace = MillTrace | TurningTrace;

/**
 * Folds a log once and keeps the moments that evidence hangs on: contacts, readings, register changes, touches of a
 * surface.
 */
export function traceLane(log: readonly LoggedEvent[]): LaneTrace {
  const [opened, ...rest] = log;
  if (!opened) throw new Error("traceLane: an empty log cannot be traced");
  let state = evolve(null, opened.event);
  const kit = kitFor(state.kind);
  let clickMm = 0;
  const changes: ChangePlace[] = [];
  const readings: Placed<EventOf<"readingShown">>[] = [];
  const told = {
    contacts: [] as EdgeContact[],
    places: [] as PlaceReading[],
    touches: [] as SurfaceTouch[],
    turret: [] as TurretContact[],
  };
  for (const { seq, atMs, event } of rest) {
    if (event.type === "jogged") clickMm = jogMm(state.setup.unit, event.size);
    for (const { contacts = [], places = [], touches = [], turret = [] } of kit.tells(
      state,
      { seq, atMs },
      event,
      clickMm,
    )) {
      told.contacts.push(...contacts);
      told.places.push(...places);
      told.touches.push(...touches);
      told.turret.push(...turret);
    }
    if (event.type === "registerChanged") changes.push({ seq, atMs, event, before: state });
    if (event.type === "readingShown") readings.push({ seq, atMs, event });
    state = evolve(state, event);
  }
  return { kind: state.kind, log, final: state, changes, readings, ...told } as LaneTrace;
}
