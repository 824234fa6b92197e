/** The machines that programs are written for: which letters and codes each takes. Tables, no rules. */
export type Dialect = "mill" | "lathe";

/** Codes of which a block may hold one: each has the name of its group. */
type GroupName =
  | "motion"
  | "cycle"
  | "plane"
  | "units"
  | "compensation"
  | "length"
  | "frame"
  | "path"
  | "turned"
  | "distance"
  | "feed"
  | "return"
  | "surface"
  | "once"
  | "flow"
  | "spindle"
  | "coolant"
  | "coolantOff"
  | "change";

/** Codes are kept as ten times their number, so that G54.1 is a whole one: 541. */
type Codes = ReadonlyMap<number, GroupName>;

export interface DialectTable {
  /** Axis letters in the order in which a place is given. */
  readonly axes: readonly string[];
  readonly letters: ReadonlySet<string>;
  readonly g: Codes;
  readonly m: Codes;
  /** Pairs of letters that say the same axis: only one of them in a block. */
  readonly twins: Readonly<Record<string, string>>;
  readonly startPlane: 17 | 18;
}

const group = (name: GroupName, ...codes: readonly number[]): (readonly [number, GroupName])[] =>
  codes.map((code) => [Math.round(code * 10), name]);

const span = (from: number, to: number): number[] => Array.from({ length: to - from + 1 }, (_, i) => from + i);

const SHARED_M = [
  ...group("flow", 0, 1, 2, 30, 98, 99),
  ...group("spindle", 3, 4, 5, 19),
  ...group("coolant", 7, 8),
  ...group("coolantOff", 9),
];

const FRAMES = group("frame", ...span(54, 59), 54.1);

export const dialects: Readonly<Record<Dialect, DialectTable>> = {
  mill: {
    axes: ["X", "Y", "Z"],
    letters: new Set("DFGHIJKLMNOPQRSTXYZ"),
    g: new Map([
      ...group("motion", 0, 1, 2, 3),
      ...group("cycle", 73, 76, ...span(80, 89)),
      ...group("plane", 17, 18, 19),
      ...group("units", 20, 21),
      ...group("compensation", 40, 41, 42),
      ...group("length", 43, 44, 49),
      ...FRAMES,
      ...group("path", 61, 64),
      ...group("turned", 68, 69),
      ...group("distance", 90, 91),
      ...group("feed", 93, 94, 95),
      ...group("return", 98, 99),
      ...group("once", 4, 10, 28, 30, 31, 52, 53, 65),
    ]),
    m: new Map([...SHARED_M, ...group("change", 6)]),
    twins: {},
    startPlane: 17,
  },
  lathe: {
    axes: ["X", "Z"],
    letters: new Set("FGIKLMNOPQRSTUWXZ"),
    g: new Map([
      ...group("motion", 0, 1, 2, 3, 32, 90, 92, 94),
      ...group("plane", 18),
      ...group("units", 20, 21),
      ...group("compensation", 40, 41, 42),
      ...FRAMES,
      ...group("surface", 96, 97),
      ...group("feed", 98, 99),
      ...group("once", 4, 10, 28, 30, 31, 50, 53, 65, ...span(70, 76)),
    ]),
    m: new Map(SHARED_M),
    twins: { X: "U", U: "X", Z: "W", W: "Z" },
    startPlane: 18,
  },
};

/** Which variable each letter of a G65 block fills. */
export const ARGUMENTS: ReadonlyMap<string, number> = new Map([
  ...[..."ABC"].map((letter, i) => [letter, 1 + i] as const),
  ...[..."IJK"].map((letter, i) => [letter, 4 + i] as const),
  ["D", 7],
  ["E", 8],
  ["F", 9],
  ["H", 11],
  ["M", 13],
  ...[..."QRSTUVWXYZ"].map((letter, i) => [letter, 17 + i] as const),
]);
