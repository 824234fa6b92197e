import type { TurretMethod } from "../exercises";
import { readsAt } from "../bench/lathe/display";
import type { EventOf, LaneEvent } from "../bench/events";
import { jogMm } from "../bench/commands";
import { cleanRadiusMm, faceMm } from "../bench/lathe/contact";
import { isFacedToMiddle } from "../bench/lathe/state";
import { evolve, type LaneState } from "../bench/state";
import { burrNowMm } from "../bench/solids";
import { tasterReads, tasterRunoutMm } from "../bench/sensing";
import { toMm, toCounts, type Counts } from "../units";
import { sweepError, type AxisCounts } from "../registers";

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
export interface ChangePlace extends Placed<EventOf<"registerChanged">> {
  readonly holds: LaneState["holds"];
  readonly paper: LaneState["paper"];
  readonly isTouching: boolean;
  /** On a lathe: the tool in the working position, and whose offset row was called. */
  readonly station?: number | undefined;
  readonly row?: number | null | undefined;
}

/** One face met in X or Y: where the spindle axis stood, counts, and what still lies between it and the face, mm. */
export interface EdgeContact {
  readonly seq: number;
  readonly atMs: number;
  readonly axis: "x" | "y";
  readonly approach: 1 | -1;
  readonly atCounts: number;
  readonly radiusMm: number;
  readonly by: "edgeFinder" | "taster" | "probe";
  readonly clickMm: number;
  readonly rpm: number;
  /** What a ball that was not trued added toward the face, mm. */
  readonly runoutMm: number;
  /** Height of the burr that still stood on the faces across this axis, mm. */
  readonly burrMm: number;
  /** Shares of the contact's error that its event stored, mm; null where the instrument stores none. */
  readonly parts: EventOf<"kicked">["parts"] | null;
}

/** A middle, an axis or a corner that one reading gave, counts. */
interface PlaceReading {
  readonly seq: number;
  readonly atMs: number;
  readonly axis: "x" | "y";
  readonly atCounts: number;
  readonly by: "probe" | "indicator";
}

/** One touch in Z with whatever hung in the spindle. */
export interface SurfaceTouch {
  readonly seq: number;
  readonly atMs: number;
  readonly machineZ: number;
  readonly on: string;
  readonly by: "paper" | "feeler" | "block" | "pin" | "metal" | "lampGauge" | "plungerSetter" | "probe";
  /** What stood in the gap, by what is written on it, mm. */
  readonly thicknessMm: number;
  readonly clickMm: number;
  readonly feel: string;
  readonly holds: LaneState["holds"];
  readonly seatMm: number;
}

/**
 * One contact of a turret tool with the part or the setter arm: where the machine stood, counts, and what it was made
 * with.
 */
export interface TurretContact {
  readonly seq: number;
  readonly atMs: number;
  readonly tool: number;
  readonly axis: "x" | "z";
  readonly on: "face" | "diameter" | "bore" | "arm" | "shank" | "cone" | "edge";
  readonly by: TurretMethod;
  readonly at: AxisCounts;
  /** What a student read off the machine there, counts. */
  readonly shown: Readonly<Record<"x" | "z", Counts>>;
  /** What a hand leaning on the post gave way by, mm. */
  readonly leanMm: number;
  /** What stood in the gap, by what is written on it, mm. */
  readonly thicknessMm: number;
  readonly clickMm: number;
  readonly feel: string;
  /** Radius that a cut left, mm; 0 for other contacts. */
  readonly radiusMm: number;
  /** Where the face stood then, mm in the slide's frame; null when there was none. */
  readonly faceMm: number | null;
  /** The band that a cut left had cleaned up all round; the face that it left goes to the middle. */
  readonly isClean: boolean;
}

/** What the marking reads of a lane, gathered in one pass over its log. */
export interface LaneTrace {
  readonly log: readonly LoggedEvent[];
  readonly final: LaneState;
  readonly contacts: readonly EdgeContact[];
  readonly places: readonly PlaceReading[];
  readonly changes: readonly ChangePlace[];
  readonly touches: readonly SurfaceTouch[];
  readonly readings: readonly Placed<EventOf<"readingShown">>[];
  /** Only on a lathe. */
  readonly turret: readonly TurretContact[];
}

type Gathered = { -readonly [K in Exclude<keyof LaneTrace, "log" | "final">]: LaneTrace[K][number][] };

/** The taster stands at its dial's reading: the face is where it would read zero. */
function tasterContact(state: LaneState, seq: number, atMs: number): EdgeContact | null {
  const { touch } = state.taster;
  if (state.holds !== "taster" || !touch || touch.axis === "z") return null;
  const past = toCounts(tasterReads(state), state.scale);
  return {
    seq,
    atMs,
    axis: touch.axis,
    approach: touch.approach,
    atCounts: state.position[touch.axis] - touch.approach * past,
    radiusMm: 0,
    by: "taster",
    clickMm: 0,
    rpm: 0,
    parts: null,
    runoutMm: tasterRunoutMm(state),
    burrMm: burrNowMm(state, touch.axis),
  };
}

function placesOf({ seq, atMs, event }: Placed<EventOf<"readingShown">>, state: LaneState): PlaceReading[] {
  const { values, what } = event;
  const at = (axis: "x" | "y", mm: number | undefined, by: PlaceReading["by"]): PlaceReading[] =>
    mm === undefined ? [] : [{ seq, atMs, axis, atCounts: toCounts(mm, state.scale), by }];
  if (event.instrument === "indicator") {
    const { at0, at90, at180, at270 } = values;
    if (at0 === undefined || at90 === undefined || at180 === undefined || at270 === undefined) return [];
    const { move } = sweepError([at0, at90, at180, at270], state.setup.feature?.kind === "boss" ? "boss" : "bore");
    return [
      ...at("x", toMm(state.position.x, state.scale) + move[0], "indicator"),
      ...at("y", toMm(state.position.y, state.scale) + move[1], "indicator"),
    ];
  }
  if (event.instrument !== "probe") return [];
  if (what === "middleX") return at("x", values.middle, "probe");
  if (what === "middleY") return at("y", values.middle, "probe");
  return what === "round" || what === "corner" ? [...at("x", values.x, "probe"), ...at("y", values.y, "probe")] : [];
}

/** The contact that an entry of a lathe's log is; before the entry was folded, but with the face that a cut leaves. */
function turretContact({ seq, atMs, event }: LoggedEvent, before: LaneState, clickMm: number): TurretContact[] {
  if (!before.lathe) return [];
  const base = {
    seq,
    atMs,
    tool: before.lathe.station,
    thicknessMm: 0,
    leanMm: 0,
    shown: { x: readsAt(before, "x"), z: readsAt(before, "z") },
    clickMm,
    feel: "",
    radiusMm: 0,
    faceMm: faceMm(before),
    isClean: true,
  };
  const nominal = (id: string) => before.setup.gaps.find((gap) => gap.id === id);
  if (event.type === "turned") {
    return [
      {
        ...base,
        axis: event.axis === "x" ? "z" : "x",
        on: event.axis === "x" ? "face" : event.kind === "bore" ? "bore" : "diameter",
        by: "cut",
        at: event.at,
        clickMm: event.clickMm,
        radiusMm: event.radiusMm,
        faceMm: event.axis === "x" ? event.fromMm : base.faceMm,
        isClean:
          event.axis === "x"
            ? isFacedToMiddle(before.lathe, event)
            : event.kind === "bore" || event.radiusMm <= cleanRadiusMm(before),
      },
    ];
  }
  if (event.type === "readingShown" && event.what === "shank") {
    const { at0, at90, at180, at270 } = event.values;
    if (at0 === undefined || at90 === undefined || at180 === undefined || at270 === undefined) return [];
    // the tool moves by plus the error, on a diameter by twice that: there it stands on the axis
    const { error } = sweepError([at0, at90, at180, at270], "boss");
    return [
      {
        ...base,
        axis: "x",
        on: "shank",
        by: "indicator",
        at: { ...before.position, x: before.position.x + toCounts(2 * error[0], before.scale) },
        clickMm: 0,
      },
    ];
  }
  if (event.type === "armTripped")
    return [{ ...base, axis: event.axis, on: "arm", by: "arm", at: event.at, clickMm: 0 }];
  if (event.type === "edgeSighted")
    return event.looks === "over" ? [{ ...base, axis: "z", on: "edge", by: "eye", at: event.at, clickMm: 0 }] : [];
  if (event.type === "toolSlid") return [{ ...base, axis: "x", on: "diameter", by: "slid", at: event.at, clickMm: 0 }];
  const onPart = event.type === "turretFelt" || event.type === "turretTried" || event.type === "metalTouched";
  if (!onPart) return [];
  const at = {
    ...base,
    axis: event.on === "face" || event.on === "cone" ? ("z" as const) : ("x" as const),
    on: event.on,
    at: event.at,
    clickMm: event.clickMm,
    leanMm: before.lathe.gap?.leanMm ?? 0,
  };
  if (event.type === "metalTouched") return [{ ...at, by: "metal" }];
  const thing = nominal(event.id);
  const thicknessMm = thing?.nominalMm ?? 0;
  if (event.type === "turretTried")
    return event.goes && event.isOpened ? [{ ...at, by: thing?.kind ?? "block", thicknessMm }] : [];
  return event.feel === "slides" || event.feel === "torn"
    ? []
    : [
        {
          ...at,
          by: event.id === "straightEdge" ? "straightEdge" : (thing?.kind ?? "paper"),
          thicknessMm,
          feel: event.feel,
        },
      ];
}

function gather(all: Gathered, state: LaneState, { seq, atMs, event }: LoggedEvent, clickMm: number): void {
  const touch = (
    machineZ: number,
    on: string,
    by: SurfaceTouch["by"],
    thicknessMm: number,
    feel: string,
    click = clickMm,
  ) =>
    all.touches.push({
      seq,
      atMs,
      machineZ,
      on,
      by,
      thicknessMm,
      clickMm: click,
      feel,
      holds: state.holds,
      seatMm: state.carried.seatMm,
    });
  const gapThing = (id: string) => state.setup.gaps.find((gap) => gap.id === id);
  if (event.type === "kicked") {
    all.contacts.push({
      seq,
      atMs,
      axis: event.axis,
      approach: event.approach,
      atCounts: event.atCounts,
      radiusMm: state.setup.tipDiameterMm / 2,
      by: "edgeFinder",
      clickMm: event.parts.clickMm,
      rpm: state.spindle.rpm,
      parts: event.parts,
      runoutMm: 0,
      burrMm: event.parts.burrMm,
    });
  } else if (event.type === "touchBegan") {
    if (event.by === "probe" && event.axis !== "z") {
      all.contacts.push({
        seq,
        atMs,
        axis: event.axis,
        approach: event.approach,
        atCounts: event.at[event.axis],
        radiusMm: state.setup.probe?.effectiveRadiusMm ?? 0,
        by: "probe",
        clickMm: event.clickMm,
        rpm: 0,
        parts: null,
        runoutMm: 0,
        burrMm: burrNowMm(state, event.axis),
      });
    } else if (event.axis === "z" && event.by !== "taster") {
      const on = { plungerSetter: "setter", lampGauge: state.seat.lamp?.on ?? "stock", probe: "stock" }[event.by];
      touch(event.at.z, on, event.by, event.by === "lampGauge" ? state.setup.lampGaugeMm : 0, "lit", event.clickMm);
    }
  } else if (event.type === "registerChanged") {
    const contact = tasterContact(state, seq - 0.5, atMs);
    if (contact) all.contacts.push(contact);
    const isTouching =
      contact !== null || state.probe.touch !== null || state.lamp.touch !== null || state.setter.touch !== null;
    all.changes.push({
      seq,
      atMs,
      event,
      holds: state.holds,
      paper: state.paper,
      isTouching,
      ...(state.lathe ? { station: state.lathe.station, row: state.lathe.row } : {}),
    });
  } else if (event.type === "lineWritten") {
    const contact = event.kind === "reading" ? tasterContact(state, seq, atMs) : null;
    if (contact) all.contacts.push(contact);
  } else if (event.type === "paperFelt" && event.feel !== "slides") {
    const sheet = gapThing(state.paper?.id ?? "paper");
    touch(
      event.machineZ,
      event.on,
      sheet?.kind ?? "paper",
      sheet?.nominalMm ?? 0,
      event.feel,
      event.clickMm || clickMm,
    );
  } else if (event.type === "blockTried" && event.goes && event.isOpened) {
    const block = gapThing(event.id);
    touch(event.machineZ, event.on, block?.kind ?? "block", block?.nominalMm ?? 0, "goes", event.clickMm);
  } else if (event.type === "touchedHard") {
    touch(state.position.z, event.on, "metal", 0, "metal");
  } else if (event.type === "readingShown") {
    all.readings.push({ seq, atMs, event });
    all.places.push(...placesOf({ seq, atMs, event }, state));
  }
}

/**
 * Folds a log once and keeps the moments that evidence hangs on: contacts, readings, register changes, touches of a
 * surface.
 */
export function traceLane(log: readonly LoggedEvent[]): LaneTrace {
  let state: LaneState | null = null;
  let clickMm = 0;
  const all: Gathered = { contacts: [], places: [], changes: [], touches: [], readings: [], turret: [] };
  for (const entry of log) {
    if (state) {
      if (entry.event.type === "jogged") clickMm = jogMm(state.setup.unit, entry.event.size);
      gather(all, state, entry, clickMm);
      all.turret.push(...turretContact(entry, state, clickMm));
    }
    state = evolve(state, entry.event);
  }
  if (!state) throw new Error("traceLane: an empty log cannot be traced");
  return { log, final: state, ...all };
}
