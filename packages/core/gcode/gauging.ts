import { Wrong } from "./diagnostics";
import { type Program } from "./program";
import { type Said } from "./said";

/** What a program gauges by itself, by the number of its call: built in, without a body of words. */
const CYCLES: ReadonlyMap<number, "correct" | "decide" | "length"> = new Map([
  [9501, "correct"],
  [9502, "decide"],
  [9503, "length"],
]);
export type GaugeCycle = "correct" | "decide" | "length";
export type GaugeAxis = "x" | "y" | "z";

/** What is said of a gauging by the letters of its call; lengths in the unit of the figures. */
export interface GaugeCall {
  readonly type: "gauge";
  readonly line: number;
  readonly cycle: GaugeCycle;
  /** Between two walls along X or Y, or down to a floor; null of a length. */
  readonly axis: GaugeAxis | null;
  /** First and last line of the way that is named: its tool and stock are meant. */
  readonly way: { readonly first: number; readonly last: number } | null;
  /** How much of what is off is put right, 100 where it is not said; and the most that may be written. */
  readonly percent: number;
  readonly limit: number | null;
  /** The size that is wanted, and how far from it is allowed; of a length the row that it is held against. */
  readonly size: number | null;
  readonly within: number | null;
  readonly row: number | null;
}

export const gaugeCycleOf = (number: number | null): GaugeCycle | null =>
  number === null ? null : (CYCLES.get(number) ?? null);

/** Letters that say along what is gauged. */
const AXES: readonly (readonly [string, GaugeAxis])[] = [
  ["I", "x"],
  ["J", "y"],
  ["K", "z"],
];
const ALL_PERCENT = 100;

/** A word that a call cannot do without. Throws `word-missing`. */
function needed(value: number | null): number {
  if (value === null) throw new Wrong("word-missing");
  return value;
}

const OFF = 40;

/** From the block of a number to where compensation is called off, or before the next tool. Throws `target-missing`. */
function wayFrom({ blocks, numbered }: Program, number: number): { first: number; last: number } {
  const at = numbered.get(number);
  const first = at === undefined ? undefined : blocks[at];
  if (at === undefined || !first) throw new Wrong("target-missing");
  const rest = blocks.slice(at + 1);
  const end = rest.findIndex(
    ({ letters, values }) => letters.includes("T") || [...letters].some((one, i) => one === "G" && values[i] === OFF),
  );
  const last = end < 0 ? rest.at(-1) : rest[rest[end]?.letters.includes("T") ? end - 1 : end];
  return { first: first.line, last: last?.line ?? first.line };
}

/**
 * What a call says: P9501 gauges and corrects (I1, J1 or K1 along an axis, Q the way's number, E percent, W limit);
 * P9502 gauges and decides (axis, S size, A allowed to each side); P9503 checks a length (H row, B allowed). Throws
 * `word-missing` and `target-missing`.
 */
export function readGaugeCall(
  cycle: GaugeCycle,
  said: Said,
  program: Program,
  line: number,
  length: (letter: string) => number | null,
): GaugeCall {
  const axes = AXES.filter(([letter]) => said.value(letter) !== null);
  const [axis] = axes;
  if (cycle !== "length" && axes.length !== 1) throw new Wrong("word-missing");
  const none = { way: null, percent: ALL_PERCENT, limit: null, size: null, within: null, row: null };
  const common = { type: "gauge", line, cycle, axis: axis?.[1] ?? null, ...none } as const;
  if (cycle === "correct")
    return {
      ...common,
      way: wayFrom(program, needed(said.value("Q"))),
      percent: said.value("E") ?? ALL_PERCENT,
      limit: needed(length("W")),
    };
  if (cycle === "decide") return { ...common, size: needed(length("S")), within: needed(length("A")) };
  return { ...common, axis: null, row: needed(said.value("H")), within: needed(length("B")) };
}
