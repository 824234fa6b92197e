import { workOffsetNames, type Axis, type WorkOffsetName } from "../registers";
import { type Dialect, dialects } from "./dialects";
import { lex, type Token } from "./lexer";
import { codeKey } from "./program";

export type MotionMode = "rapid" | "feed";
type Span = readonly [number, number];

/** One block, its words sorted by meaning. Lengths in mm, feed in mm/min. */
export interface Block {
  motion?: MotionMode;
  isMachineFrame: boolean;
  distance?: "absolute" | "incremental";
  workOffset?: WorkOffsetName;
  lengthComp?: "on" | "off";
  lengthRow?: number;
  /** G68 turns what is programmed about work zero; the angle comes as R, degrees. */
  rotation?: "on" | "off";
  rotationDeg?: number;
  /** Which extended work offset G54.1 calls. */
  extended?: number;
  axesMm: Partial<Record<Axis, number>>;
  /** Lathe: U and W, steps from where it stands. */
  stepsMm: Partial<Record<Axis, number>>;
  feedMmPerMin?: number;
  spindle?: "forward" | "reverse" | "stop";
  spindleRpm?: number;
  tool?: number;
  isToolChange: boolean;
  /** Lathe: tool and row of a tool word, T0303 tool 3 with row 3, T0300 without any. */
  station?: { readonly tool: number; readonly row: number | null };
  /** Lathe: the block returns to the reference (G28), declares where the tool stands (G50), or sets registers (G10). */
  service?: "reference" | "declare" | "setData";
}

export type BlockDiagnostic =
  | { code: "blockEmpty" }
  | { code: "blockTooLong"; limit: number }
  | { code: "blockHasLines" }
  | { code: "blockUnreadable"; text: string; span: Span }
  | { code: "wordUnknown"; word: string; span: Span }
  | { code: "codeOfProgram"; word: string; span: Span }
  | { code: "wordTwice"; word: string; span: Span }
  | { code: "groupTwice"; first: string; second: string; span: Span }
  | { code: "wordNeedsWhole"; word: string; span: Span }
  | { code: "wordOutOfRange"; word: string; span: Span }
  | { code: "lengthRowMissing" }
  | { code: "rotationAngleMissing" }
  | { code: "rotationHasAxes"; span: Span }
  | { code: "extendedMissing" }
  | { code: "feedMissing" }
  | { code: "changeWithoutTool" }
  | { code: "toolWordNeedsRow"; word: string; span: Span };

type WordToken = Extract<Token, { type: "word" }>;

const LONGEST_BLOCK = 200;
const LARGEST_MM = 10_000;

/** What a code that may be typed sets, by letter and number; which group it is of is the dialect's. */
const SHARED: Record<string, Partial<Block>> = {
  G0: { motion: "rapid" },
  G1: { motion: "feed" },
  G53: { isMachineFrame: true },
  M3: { spindle: "forward" },
  M4: { spindle: "reverse" },
  M5: { spindle: "stop" },
  ...Object.fromEntries(
    workOffsetNames.filter((name) => name.startsWith("G")).map((name) => [name, { workOffset: name }]),
  ),
};

const TYPED: Record<Dialect, Record<string, Partial<Block>>> = {
  mill: {
    ...SHARED,
    G90: { distance: "absolute" },
    G91: { distance: "incremental" },
    G43: { lengthComp: "on" },
    G49: { lengthComp: "off" },
    G68: { rotation: "on" },
    G69: { rotation: "off" },
    "G54.1": {},
    M6: { isToolChange: true },
  },
  lathe: {
    ...SHARED,
    G10: { service: "setData" },
    G28: { service: "reference" },
    G50: { service: "declare" },
  },
};

/** Letters that only say something beside the code that takes them: registers by G10, the way home by G28. */
const WORDS_OF_SERVICE: Record<NonNullable<Block["service"]>, string> = {
  setData: "LPXYZRQ",
  reference: "UW",
  declare: "",
};

const AXES: Record<Dialect, Record<string, Axis>> = { mill: { X: "x", Y: "y", Z: "z" }, lathe: { X: "x", Z: "z" } };

/** Largest value of the words that take a plain number. */
const NUMBER_WORDS: Record<string, { limit: number; isWhole: boolean; set(value: number): Partial<Block> }> = {
  F: { limit: 20_000, isWhole: false, set: (value) => ({ feedMmPerMin: value }) },
  S: { limit: 99_999, isWhole: true, set: (value) => ({ spindleRpm: value }) },
  T: { limit: 99, isWhole: true, set: (value) => ({ tool: value }) },
  P: { limit: 6, isWhole: true, set: (value) => ({ extended: value }) },
  H: { limit: 99, isWhole: true, set: (value) => ({ lengthRow: value }) },
};

const LATHE_NUMBERS = "FS";

const MM_PER_INCH = 25.4;
const MOST_DEG = 360;

const codeOf = ({ letter, value }: WordToken, dialect: Dialect): Partial<Block> | undefined =>
  TYPED[dialect][`${letter}${value}`];

/** Steps of a lathe's block, counted from where it stands. */
const STEPS: Record<Dialect, Record<string, Axis>> = { mill: {}, lathe: { U: "x", W: "z" } };

/** A block being read: its words so far, by group and by letter. */
interface Reading {
  readonly block: Block;
  readonly dialect: Dialect;
  readonly groups: Map<string, string>;
  readonly seen: Set<string>;
  readonly unitMm: number;
  /** Letters that belong to the service that the block asks for. */
  readonly served: string;
}

/** Tool and row of a lathe's tool word: the last two digits are the row. */
function readStation({ text, value, span }: WordToken, word: string, block: Block): BlockDiagnostic | null {
  if (!/^T\s*\d{3,4}$/i.test(text)) return { code: "toolWordNeedsRow", word, span };
  const row = value % 100;
  block.station = { tool: Math.trunc(value / 100), row: row === 0 ? null : row };
  return null;
}

function readWord(token: WordToken, reading: Reading): BlockDiagnostic | null {
  const { block, dialect, groups, seen, unitMm, served } = reading;
  const { letter, value, span } = token;
  const word = token.text.replace(/\s/g, "").toUpperCase();
  if (letter === "N") return null;
  if (letter === "G" || letter === "M") {
    const group = (letter === "G" ? dialects[dialect].g : dialects[dialect].m).get(codeKey(value));
    const code = codeOf(token, dialect);
    if (!code || !group) return { code: group ? "codeOfProgram" : "wordUnknown", word, span };
    const before = groups.get(group);
    if (before !== undefined) return { code: "groupTwice", first: before, second: word, span };
    groups.set(group, word);
    Object.assign(block, code);
    return null;
  }
  const twin = dialects[dialect].twins[letter];
  if (twin && seen.has(twin)) return { code: "groupTwice", first: twin, second: letter, span };
  if (seen.has(letter)) return { code: "wordTwice", word: letter, span };
  seen.add(letter);
  if (served.includes(letter)) return null;
  if (letter === "T" && dialect === "lathe") return readStation(token, word, block);
  const [axis, step] = [AXES[dialect][letter], STEPS[dialect][letter]];
  if (axis ?? step) {
    if (Math.abs(value * unitMm) > LARGEST_MM) return { code: "wordOutOfRange", word, span };
    if (axis) block.axesMm[axis] = value * unitMm;
    if (step) block.stepsMm[step] = value * unitMm;
    return null;
  }
  if (letter === "R" && dialect === "mill") {
    if (Math.abs(value) > MOST_DEG) return { code: "wordOutOfRange", word, span };
    block.rotationDeg = value;
    return null;
  }
  const plain = NUMBER_WORDS[letter];
  if (!plain || (dialect === "lathe" && !LATHE_NUMBERS.includes(letter))) return { code: "wordUnknown", word, span };
  if (value < 0 || value > plain.limit) return { code: "wordOutOfRange", word, span };
  if (plain.isWhole && !Number.isInteger(value)) return { code: "wordNeedsWhole", word, span };
  Object.assign(block, plain.set(value));
  return null;
}

/**
 * A block read whole, or every complaint about it; a block with a complaint is never half done.
 * `modal` says what stays in force from earlier blocks (motion and feed); axis words and feed are in `unit`.
 */
export function readBlock(
  text: string,
  modal: { motion: MotionMode; feedMmPerMin: number | null; tool: number | null },
  unit: "mm" | "inch" = "mm",
  dialect: Dialect = "mill",
): { block: Block; diagnostics: BlockDiagnostic[] } {
  const block: Block = { isMachineFrame: false, axesMm: {}, stepsMm: {}, isToolChange: false };
  if (text.length > LONGEST_BLOCK) return { block, diagnostics: [{ code: "blockTooLong", limit: LONGEST_BLOCK }] };
  // a line's end ends a block: what stands below it is another one
  if (/[\r\n\u2028\u2029]/.test(text.trim())) return { block, diagnostics: [{ code: "blockHasLines" }] };
  const tokens = lex(text);
  if (tokens.length === 0) return { block, diagnostics: [{ code: "blockEmpty" }] };
  const diagnostics: BlockDiagnostic[] = [];
  const unitMm = unit === "mm" ? 1 : MM_PER_INCH;
  const groups = new Map<string, string>();
  const seen = new Set<string>();
  const service = tokens.map((token) => (token.type === "word" ? codeOf(token, dialect)?.service : undefined));
  const served = service.flatMap((one) => (one ? [WORDS_OF_SERVICE[one]] : [])).join("");
  const reading: Reading = { block, dialect, groups, seen, unitMm, served };
  for (const token of tokens) {
    const complaint =
      token.type === "word"
        ? readWord(token, reading)
        : { code: "blockUnreadable" as const, text: token.text.slice(0, 24), span: token.span };
    if (complaint) diagnostics.push(complaint);
  }
  if (block.lengthComp === "on" && block.lengthRow === undefined) diagnostics.push({ code: "lengthRowMissing" });
  if (block.feedMmPerMin !== undefined) block.feedMmPerMin *= unitMm;
  // R and P have no meaning of their own: only beside the code that takes them
  const words = tokens.filter((token) => token.type === "word");
  const stray =
    dialect === "lathe"
      ? []
      : words.filter(
          ({ letter }) =>
            (letter === "R" && block.rotation !== "on") || (letter === "P" && groups.get("frame") !== "G54.1"),
        );
  for (const { text: word, span } of stray)
    diagnostics.push({ code: "wordUnknown", word: word.replace(/\s/g, "").toUpperCase(), span });
  const axisOfRotation = block.rotation === undefined ? undefined : words.find(({ letter }) => AXES[dialect][letter]);
  if (axisOfRotation) diagnostics.push({ code: "rotationHasAxes", span: axisOfRotation.span });
  if (block.rotation === "on" && block.rotationDeg === undefined) diagnostics.push({ code: "rotationAngleMissing" });
  if (groups.get("frame") === "G54.1") {
    const name = block.extended === undefined ? undefined : workOffsetNames.find((one) => one === `P${block.extended}`);
    if (name) block.workOffset = name;
    else diagnostics.push({ code: "extendedMissing" });
  }
  const moves = Object.keys(block.axesMm).length + Object.keys(block.stepsMm).length > 0;
  const hasFeed = (block.feedMmPerMin ?? modal.feedMmPerMin ?? 0) > 0;
  if (moves && (block.motion ?? modal.motion) === "feed" && !hasFeed) diagnostics.push({ code: "feedMissing" });
  if (block.isToolChange && (block.tool ?? modal.tool) === null) diagnostics.push({ code: "changeWithoutTool" });
  const startOf = (diagnostic: BlockDiagnostic): number => ("span" in diagnostic ? diagnostic.span[0] : LONGEST_BLOCK);
  return { block, diagnostics: diagnostics.sort((a, b) => startOf(a) - startOf(b)) };
}
