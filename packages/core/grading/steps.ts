import type { LaneTrace } from "../diagnosis";
import { FINEST_CLICK_MM } from "../diagnosis/felt";
import type { CheckNote } from "./checking";
import type { Marking } from "../exercises";
import type { MethodStep } from "./stepNames";

/**
 * One step that a lane may ask for: where it counts, whether this lane asks for it, and where in its log it was done.
 */
export interface StepRow<T extends LaneTrace = LaneTrace> {
  readonly step: MethodStep;
  readonly strand: "method" | "proving";
  asked(trace: Pick<T, "final">): boolean;
  /** Its place in the log; null when it was not done. */
  done(trace: T, tolerancesMm: Marking["tolerancesMm"]): number | null;
  /** Nothing was done that the step is about, so that it is not late or wrong but absent. */
  isAbsent?(trace: T): boolean;
  /** How many shares of its strand it is worth; one where it is left out. */
  readonly shares?: number;
  /** It is about the program and its parts: read in the whole log, where others are read as the first part was cut. */
  readonly isOfRun?: true;
  /** What more is to be said of how it was done or missed. */
  note?(trace: T): CheckNote | null;
}

/** The last click is at most this share of the tolerance; the finest one always does. */
const CLICK_SHARE = 0.25;

/** Whether a contact came at a click that its tolerance can do with, mm; a move that was no click has none. */
export const isFineEnough = (clickMm: number, toleranceMm: number): boolean =>
  clickMm <= Math.max(FINEST_CLICK_MM, toleranceMm * CLICK_SHARE) + 1e-9;

/** The first motion that is not the reference return's own. */
const firstMotion = ({ log }: LaneTrace): number =>
  log.find(
    ({ event }, place) => event.type === "jogged" || (event.type === "moved" && log[place + 1]?.event.type !== "homed"),
  )?.seq ?? Infinity;
export const neverMoved = (trace: LaneTrace): boolean => firstMotion(trace) === Infinity;
export const neverStarted = (trace: LaneTrace): boolean => seqOf(trace, "spindleStarted") === null;

export const seqOf = ({ log }: LaneTrace, type: string): number | null =>
  log.find(({ event }) => event.type === type)?.seq ?? null;

/** The reference return came before anything moved. */
export const homedFirst = (trace: LaneTrace): number | null => {
  const homed = seqOf(trace, "homed");
  return homed !== null && homed < firstMotion(trace) ? homed : null;
};

/** Every start of the spindle had its speed stated. */
export const speedStated = ({ log }: LaneTrace): number | null => {
  const starts = log.filter(({ event }) => event.type === "spindleStarted");
  return starts.length > 0 && starts.every(({ event }) => event.type === "spindleStarted" && event.isStated)
    ? (starts[0]?.seq ?? null)
    : null;
};
