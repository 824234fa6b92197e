import type { ExercisePatternsView } from "@probe-lane/contract";
import { causeName } from "@probe-lane/core/words";
import { scaleSymlog } from "d3-scale";
import { placeLabels, type PlacedLabel } from "../../ui/axisLabels";

type Spread = ExercisePatternsView["patterns"]["values"][number];

interface Dot {
  readonly lane: string;
  readonly closureMm: number;
  readonly isRight: boolean;
  readonly x: number;
  /** How many stand below it at the same place. */
  readonly level: number;
}
interface Line extends PlacedLabel {
  readonly id: string;
  readonly x: number;
  readonly label: string;
}
export interface SpreadView {
  readonly ticks: readonly { readonly x: number; readonly label: string }[];
  readonly zero: number;
  readonly band: readonly [number, number];
  readonly dots: readonly Dot[];
  readonly lines: readonly Line[];
  readonly rows: number;
  readonly levels: number;
}

const SIDE_PX = 12;
const TICKS_MM = [0.01, 0.1, 1, 10, 100];
const ROWS = 3;
/** A dot takes so much of the axis; what is nearer stands on top of one another. */
export const DOT_PX = 9;

/**
 * The lanes of a class on the axis of one value of `width` px: linear inside the tolerance, logarithmic outside of it.
 * What most made is named first.
 */
export function spreadView({ dots, lines, toleranceMm }: Spread, width: number): SpreadView {
  const farthest = Math.max(
    ...dots.map(({ closureMm }) => Math.abs(closureMm)),
    ...lines.map(({ mm }) => Math.abs(mm)),
  );
  const reach = Math.max(farthest, toleranceMm * 20) * 1.5;
  const scale = scaleSymlog()
    .constant(toleranceMm)
    .domain([-reach, reach])
    .range([SIDE_PX, width - SIDE_PX]);
  const taken = new Map<number, number>();
  const placed = dots
    .toSorted((a, b) => a.closureMm - b.closureMm)
    .map(({ lane, closureMm, isRight }): Dot => {
      const column = Math.round(scale(closureMm) / DOT_PX);
      const level = taken.get(column) ?? 0;
      taken.set(column, level + 1);
      return { lane, closureMm, isRight, x: column * DOT_PX, level };
    });
  const named = lines.map(({ id, mm, lanes }) => ({ id, x: scale(mm), label: `${causeName(id)}, ${lanes}` }));
  const places = placeLabels(named, width, ROWS);
  const drawn = named.map((line, at): Line => ({ ...line, ...(places[at] ?? { row: null, anchor: "middle" }) }));
  return {
    ticks: [...TICKS_MM.map((mm) => -mm).reverse(), 0, ...TICKS_MM]
      .filter((mm) => Math.abs(mm) < reach && (mm === 0 || Math.abs(mm) > toleranceMm))
      .map((mm) => ({ x: scale(mm), label: mm === 0 ? "0" : `${mm < 0 ? "−" : "+"}${Math.abs(mm)}` })),
    zero: scale(0),
    band: [scale(-toleranceMm), scale(toleranceMm)],
    dots: placed,
    lines: drawn,
    rows: Math.max(0, ...drawn.map(({ row }) => (row === null ? 0 : row + 1))),
    levels: Math.max(1, ...taken.values()),
  };
}
