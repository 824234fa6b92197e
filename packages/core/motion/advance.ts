/** Steps along a move are never shorter than this, mm; a grazing move does not stand still. */
const LEAST_STEP_MM = 0.004;
/** Halvings that bring the place of a contact far below a least increment. */
const HALVINGS = 40;

/**
 * How far along a straight move (0 start, 1 end) what moves first meets something; null when it arrives. `gapAt` is the
 * daylight at a share of the way, mm, below zero inside. It must change no faster than the mover does: then a step as
 * long as the gap cannot jump over a contact.
 */
export function advance(lengthMm: number, gapAt: (share: number) => number): number | null {
  if (lengthMm === 0) return null;
  let free = 0;
  let gap = gapAt(0);
  if (gap < 0) return 0;
  for (let share = 0; share < 1;) {
    share = Math.min(1, free + Math.max(gap, LEAST_STEP_MM) / lengthMm);
    gap = gapAt(share);
    if (gap < 0) {
      let inside = share;
      for (let i = 0; i < HALVINGS; i++) {
        const middle = (free + inside) / 2;
        if (gapAt(middle) < 0) inside = middle;
        else free = middle;
      }
      return free;
    }
    free = share;
  }
  return null;
}
