/** Width of a character of a small label, px. */
const CHAR_PX = 6.4;
/** Room between two labels of one row, px. */
const APART_PX = 5;

export interface PlacedLabel {
  /** The row that it stands in, from 0; null where every row is taken there. */
  readonly row: number | null;
  readonly anchor: "start" | "middle" | "end";
}

/**
 * Labels over an axis of `width` px, the first of them first: each takes the first row in which it touches no other,
 * and hangs to one side where it would be cut off.
 */
export function placeLabels(
  labels: readonly { readonly x: number; readonly label: string }[],
  width: number,
  rows: number,
): PlacedLabel[] {
  const taken: [number, number][][] = Array.from({ length: rows }, () => []);
  return labels.map(({ x, label }) => {
    const half = (label.length * CHAR_PX) / 2;
    const anchor = x - half < 0 ? "start" : x + half > width ? "end" : "middle";
    const left = anchor === "start" ? x : anchor === "end" ? x - half * 2 : x - half;
    const span: [number, number] = [left - APART_PX, left + half * 2 + APART_PX];
    const row = label === "" ? -1 : taken.findIndex((spans) => spans.every(([a, b]) => span[1] < a || span[0] > b));
    if (row >= 0) taken[row]?.push(span);
    return { row: row >= 0 ? row : null, anchor };
  });
}
