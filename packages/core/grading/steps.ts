import type { LaneTrace } from "../diagnosis";
import type { CheckName } from "../lane";
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
}

/** A contact at this click, or finer, was found at the finest. An inch machine's least click is 2.54 µm. */
const FINEST_MM = 0.003;
/** The last click is at most this share of the tolerance; the finest one always does. */
const CLICK_SHARE = 0.25;

/** Whether a contact came at a click that its tolerance can do with, mm; a move that was no click has none. */
export const isFineEnough = (clickMm: number, toleranceMm: number): boolean =>
  clickMm <= Math.max(FINEST_MM, toleranceMm * CLICK_SHARE) + 1e-9;

/** The first motion that is not the reference return's own. */
const firstMotion = ({ log }: LaneTrace): number =>
  log.find(
    ({ event }, place) => event.type === "jogged" || (event.type === "moved" && log[place + 1]?.event.type !== "homed"),
  )?.seq ?? Infinity;
export const neverMoved = (trace: LaneTrace): boolean => firstMotion(trace) === Infinity;
export const neverStarted = (trace: LaneTrace): boolean => seqOf(trace, "spindleStarted") === null;

export const seqOf = ({ log }: LaneTrace, type: string): number | null =>
  log.find(({ event }) => event.type === type)?.seq ?? null;

/**
 * A check with what was expected said first, judged as it looked; a surprise with the machine stopped and put right
 * counts as much.
 */
export function checkedBefore({ log }: LaneTrace): number | null {
  let expected: number | null = null;
  let seen: number | null | undefined;
  for (const [place, { seq, event }] of log.entries()) {
    if (event.type === "checkExpected") expected = event.mm;
    if (event.type === "checkLooked") seen = event.seenMm;
    if (event.type !== "checkJudged" || expected === null || seen === undefined) continue;
    const isOff = seen !== null && Math.abs(seen - expected) > 1.5;
    const isHonest = event.isAsExpected ? !isOff : isOff || seen === null;
    const isPutRight =
      event.isAsExpected ||
      log.slice(place).some(({ event: later }) => later.type === "registerChanged" || later.type === "handRaised");
    if (isHonest && isPutRight) return seq;
    expected = null;
    seen = undefined;
  }
  return null;
}

/** Figures that are read off a display must agree this well, mm. */
const READ_ALIKE_MM = 0.06;

/** One check by its name, judged as it looked. */
export function checkedBy({ log }: LaneTrace, check: CheckName): number | null {
  let expected: number | null = null;
  let seen: number | null = null;
  for (const { seq, event } of log) {
    if (event.type === "checkExpected") [expected, seen] = [event.check === check ? event.mm : null, null];
    if (event.type === "checkLooked") seen = event.seenMm;
    if (event.type !== "checkJudged" || expected === null || seen === null) continue;
    if (event.isAsExpected === Math.abs(seen - expected) <= READ_ALIKE_MM) return seq;
  }
  return null;
}

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
