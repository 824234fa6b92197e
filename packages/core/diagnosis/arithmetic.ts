import { mmFromCounts } from "../units";
import type { CauseId, ProvenTerm } from "./cause";

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

/** A register's sum against the contact that it came from, in counts of the machine. */
interface Procedure {
  readonly held: number;
  readonly wanted: number;
  /** How far the machine had moved since the contact when the value was taken, what that is called, and where. */
  readonly stray: { readonly counts: number; readonly id: CauseId; readonly seq: number };
  readonly candidates: readonly NamedCounts[];
  /** The figure was typed, so that it may hold a slip of typing. */
  readonly isTyped: boolean;
  readonly seq: number;
  mmOf(counts: number): number;
}

/**
 * What was done wrong after the contact, in terms that add up exactly, mm: mistakes alone; a move that was not counted,
 * and mistakes beside it; a slip of typing. Nothing where none of them does.
 */
export function procedureTerms({ held, wanted, stray, candidates, isTyped, seq, mmOf }: Procedure): ProvenTerm[] {
  const left = held - wanted;
  const terms = (rows: readonly NamedCounts[]): ProvenTerm[] =>
    rows.map(({ id, counts }) => ({ id, mm: mmOf(counts), seq }));
  const direct = matchCounts(left, candidates);
  if (direct) return terms(direct);
  const moved = stray.counts === 0 ? null : matchCounts(left - stray.counts, candidates);
  if (moved) return [{ id: stray.id, mm: mmOf(stray.counts), seq: stray.seq }, ...terms(moved)];
  const slip = isTyped ? typingSlip(held, wanted) : null;
  return slip ? [{ id: slip, mm: mmOf(left), seq }] : [];
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
