import { mmFromCounts } from "../units";
import type { CauseId } from "./cause";

/** A signature that hit, in whole counts, with its name. */
export interface NamedCounts {
  readonly id: CauseId;
  readonly counts: number;
}

/** Sums agree when they differ by no more than the display's last digit on two readings. */
const AGREE_COUNTS = 2;

/**
 * The one mistake, or the pair, whose counts make up `left`; empty when nothing is left, null when nothing fits.
 * Singles before pairs, in the order given. Exact arithmetic on the display's counts: this proves, it does not guess.
 */
export function matchCounts(left: number, candidates: readonly NamedCounts[]): readonly NamedCounts[] | null {
  if (Math.abs(left) <= AGREE_COUNTS) return [];
  const single = candidates.find(({ counts }) => Math.abs(counts - left) <= AGREE_COUNTS);
  if (single) return [single];
  for (const [i, first] of candidates.entries()) {
    for (const second of candidates.slice(i + 1)) {
      if (Math.abs(first.counts + second.counts - left) <= AGREE_COUNTS) return [first, second];
    }
  }
  return null;
}

/** Slips of a typed number: what was typed against what should have been, both in counts. */
export function typingSlip(typed: number, wanted: number): CauseId | null {
  if (wanted !== 0 && Math.abs(typed + wanted) <= AGREE_COUNTS) return "wholeSignTurned";
  const nearTenth = (a: number, b: number) => a !== 0 && Math.abs(a * 10 - b) <= 10;
  if (nearTenth(typed, wanted) || nearTenth(wanted, typed)) return "decimalShifted";
  return digitsSwapped(typed, wanted) ? "digitsSwapped" : null;
}

function digitsSwapped(typed: number, wanted: number): boolean {
  const [a, b] = [mmFromCounts(Math.abs(typed)).toFixed(3), mmFromCounts(Math.abs(wanted)).toFixed(3)];
  if (a.length !== b.length || typed === wanted) return false;
  const places = [...a].flatMap((digit, i) => (digit === b[i] ? [] : [i]));
  const [i, j] = places;
  if (places.length !== 2 || i === undefined || j === undefined || a[i] !== b[j] || a[j] !== b[i]) return false;
  return j === i + 1 || (j === i + 2 && a[i + 1] === ".");
}
