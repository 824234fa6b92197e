import { evolve, type EventOf, type LaneEvent, type LaneState, type MillLane, type TurningLane } from "../bench";
import { jogMm } from "../lane";
import { kitFor } from "../machines/kits";
import type { RegisterId } from "../registers";
import { lineages, type ChangePlace, type Lineage, type Placed } from "./lineage";
import type { EdgeContact, MeasuredLength, PlaceReading, SurfaceTouch, TurretContact } from "../machines/told";

/** A fact with its place in the log. */
export interface LoggedEvent {
  readonly seq: number;
  readonly atMs: number;
  readonly event: LaneEvent;
}

/** A contact or reading with the lane as it stood when it was made. */
export type Made<C, S> = C & { readonly before: S };

/** What the marking reads of every lane, gathered in one pass over its log. */
interface TraceBase<S> {
  readonly log: readonly LoggedEvent[];
  readonly final: S;
  readonly changes: readonly ChangePlace<S>[];
  /** How each register that was set came to what it holds. */
  readonly set: ReadonlyMap<RegisterId, Lineage<S>>;
  readonly readings: readonly Made<Placed<EventOf<"readingShown">>, S>[];
}
export interface MillTrace extends TraceBase<MillLane> {
  readonly kind: "mill";
  readonly contacts: readonly Made<EdgeContact, MillLane>[];
  readonly places: readonly Made<PlaceReading, MillLane>[];
  readonly touches: readonly Made<SurfaceTouch, MillLane>[];
  readonly lengths: readonly Made<MeasuredLength, MillLane>[];
}
export interface TurningTrace extends TraceBase<TurningLane> {
  readonly kind: TurningLane["kind"];
  readonly turret: readonly Made<TurretContact, TurningLane>[];
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
  const changes: ChangePlace<LaneState>[] = [];
  const readings: Made<Placed<EventOf<"readingShown">>, LaneState>[] = [];
  const told = {
    contacts: [] as Made<EdgeContact, LaneState>[],
    places: [] as Made<PlaceReading, LaneState>[],
    touches: [] as Made<SurfaceTouch, LaneState>[],
    lengths: [] as Made<MeasuredLength, LaneState>[],
    turret: [] as Made<TurretContact, LaneState>[],
  };
  for (const { seq, atMs, event } of rest) {
    if (event.type === "jogged") clickMm = jogMm(state.setup.unit, event.size);
    const before = state;
    const made = <C>(list: readonly C[]): Made<C, LaneState>[] => list.map((one) => ({ ...one, before }));
    for (const { contacts = [], places = [], touches = [], lengths = [], turret = [] } of kit.tells(
      state,
      { seq, atMs },
      event,
      clickMm,
    )) {
      told.contacts.push(...made(contacts));
      told.places.push(...made(places));
      told.touches.push(...made(touches));
      told.lengths.push(...made(lengths));
      told.turret.push(...made(turret));
    }
    if (event.type === "registerChanged") changes.push({ seq, atMs, event, before });
    if (event.type === "readingShown") readings.push({ seq, atMs, event, before });
    state = evolve(state, event);
  }
  return { kind: state.kind, log, final: state, changes, set: lineages(changes), readings, ...told } as LaneTrace;
}
