import type { LengthMethod, TurretMethod } from "../exercises/bias";
import type { AxisCounts } from "../registers";
import type { Counts } from "../units";
import type { EventOf, LaneEvent } from "./events";
import type { Thing } from "../instruments";

/** What the facts of a log tell of contacts and touches; each act says what its own are evidence of. */

/** What is known to be wrong with a contact or a reading, by the act that made it. */
export type ContactFault =
  | "burr"
  | "edgeBreak"
  | "bentFinder"
  | "slowSpindle"
  | "kickScattered"
  | "tasterNotTrued"
  | "gaugeDirt"
  | "gaugeHit"
  | "setterMoved"
  | "presetterOff"
  | "chipOnTip"
  | "spindleGrowth";

/** Its signed share of the figure, mm: plus where the figure came out too high. */
export interface KnownFault {
  readonly id: ContactFault;
  readonly mm: number;
}

/** A tool's length as an instrument said it, mm. */
export interface MeasuredLength {
  readonly seq: number;
  readonly atMs: number;
  readonly tool: number;
  readonly mm: number;
  /** It hung in the spindle, so that dirt in its taper is in the figure. */
  readonly isHeld: boolean;
  readonly isByCycle: boolean;
  readonly known: readonly KnownFault[];
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
  /** How far past the face its own way takes it, toward the part, mm; 0 where the instrument stores none. */
  readonly kickMm: number;
  /** The spindle turned faster than the instrument is rated. */
  readonly isTooFast: boolean;
  readonly known: readonly KnownFault[];
}

/** A middle, an axis or a corner that one reading gave, counts. */
export interface PlaceReading {
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
  readonly by: LengthMethod;
  /** What stood in the gap, by what is written on it, mm. */
  readonly thicknessMm: number;
  readonly clickMm: number;
  readonly feel: string;
  readonly holds: Thing | null;
  readonly seatMm: number;
  readonly known: readonly KnownFault[];
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
  /** Met by the far edge of a blade, from behind. */
  readonly isFarEdge?: boolean;
  /** Radius that a cut left, mm; 0 for other contacts. */
  readonly radiusMm: number;
  /** Where the face stood then, mm in the slide's frame; null when there was none. */
  readonly faceMm: number | null;
  /** The band that a cut left had cleaned up all round; the face that it left goes to the middle. */
  readonly isClean: boolean;
}

/** Where in its log a fact stands. */
export interface At {
  readonly seq: number;
  readonly atMs: number;
}

/** What one fact tells. */
export interface Told {
  readonly contacts?: readonly EdgeContact[];
  readonly places?: readonly PlaceReading[];
  readonly touches?: readonly SurfaceTouch[];
  readonly lengths?: readonly MeasuredLength[];
  readonly turret?: readonly TurretContact[];
}

/**
 * What facts tell before they are folded, by their type; `clickMm` is the size of the click made last.
 */
export type Tells<S> = {
  readonly [T in LaneEvent["type"]]?: (before: S, at: At, event: EventOf<T>, clickMm: number) => Told;
};

/** What several acts tell together. */
export function tellingOf<S>(acts: readonly { readonly tells?: Tells<S> }[]) {
  type Tell = (before: S, at: At, event: LaneEvent, clickMm: number) => Told;
  const byType = new Map<LaneEvent["type"], Tell[]>();
  for (const { tells = {} } of acts)
    for (const [type, tell] of Object.entries(tells) as [LaneEvent["type"], Tell][])
      byType.set(type, [...(byType.get(type) ?? []), tell]);
  return (before: S, at: At, event: LaneEvent, clickMm: number): readonly Told[] =>
    (byType.get(event.type) ?? []).map((tell) => tell(before, at, event, clickMm));
}
