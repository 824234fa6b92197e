/** Marks are given in tenths, so that what is shown adds up to what is counted. */
export const tenth = (marks: number): number => Math.round(marks * 10 + 1e-9) / 10;

interface Share {
  readonly marks: number;
  readonly outOf: number;
}

/** Shares of a strand in tenths: what they are out of still adds up to the same, and each keeps its part of it. */
export function inTenths<T extends Share>(shares: readonly T[]): T[] {
  let before = 0;
  return shares.map((share) => {
    const after = before + share.outOf;
    const outOf = tenth(tenth(after) - tenth(before));
    before = after;
    const part = share.outOf > 0 ? (share.marks / share.outOf) * outOf : share.marks;
    return { ...share, outOf, marks: tenth(part) };
  });
}
