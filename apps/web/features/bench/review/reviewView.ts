import type { LaneNote } from "@probe-lane/contract";
import type { Moment, MomentKind } from "@probe-lane/core/review";

/**
 * How long the replay stays at an entry, ms: the student's own pace at this speed, but never so long that one waits,
 * nor so short that nothing is seen.
 */
export function stayMs(moments: readonly Moment[], index: number, speed: number): number {
  const [now, next] = [moments[index], moments[index + 1]];
  if (!now || !next) return 0;
  return Math.min(1500, Math.max(40, (next.atMs - now.atMs) / speed));
}

/**
 * The nearest entry before or after `index` that is of one of these kinds, or carries a note; null when there is none.
 */
export function jumpTo(
  moments: readonly Moment[],
  notes: readonly LaneNote[],
  index: number,
  step: 1 | -1,
  kinds: ReadonlySet<MomentKind>,
): number | null {
  const noted = new Set(notes.map(({ seq }) => seq));
  for (let at = index + step; at >= 0 && at < moments.length; at += step) {
    const moment = moments[at];
    if (moment && (kinds.has(moment.kind) || noted.has(moment.seq))) return at;
  }
  return null;
}

/** Where an entry of the log stands among the moments; the last one before it when it is not there itself. */
export function indexOfSeq(moments: readonly Moment[], seq: number): number {
  const at = moments.findLastIndex((moment) => moment.seq <= seq);
  return Math.max(0, at);
}

/** Time since the lane was opened, "12:04". */
export function clockOf(moments: readonly Moment[], index: number): string {
  const seconds = Math.max(0, Math.round(((moments[index]?.atMs ?? 0) - (moments[0]?.atMs ?? 0)) / 1000));
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}
