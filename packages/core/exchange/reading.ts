import { lex, type Token } from "../gcode/lexer";
import { parseLengthMm } from "../units";

/** A line of an import: a register and its value, or what is wrong with the line. Lengths in mm. */
export interface ReadRegister {
  readonly line: number;
  readonly register: string;
  readonly mm: number | null;
  readonly problem: string | null;
}

const INCH_MM = 25.4;
type Word = Extract<Token, { type: "word" }>;

/** Rows of a mill: L10 and L11 length geometry and wear, L12 and L13 diameter geometry and wear. */
const MILL_ROWS: Record<number, string> = { 10: "H", 11: "HW", 12: "D", 13: "DW" };

/**
 * Registers that a G10 block sets: L2 work offsets P1–P6 (P0 the common one), L20 extended work offsets, a mill's rows
 * by L10 to L13; lathe L10/L11 rows with X, Y (center height), Z, R and Q.
 */
function fromG10(
  words: ReadonlyMap<string, Word>,
  line: number,
  machine: "mill" | "lathe",
  unitMm: number,
): ReadRegister[] {
  const bad = (problem: string): ReadRegister[] => [{ line, register: "", mm: null, problem }];
  const [l, p] = [words.get("L")?.value, words.get("P")?.value];
  if (l === undefined || p === undefined) return bad("G10 needs an L and a P word.");
  const axis = (letter: string, register: string): ReadRegister[] => {
    const word = words.get(letter);
    return word ? [{ line, register, mm: word.value * unitMm, problem: null }] : [];
  };
  if (l === 2 || l === 20) {
    if (!Number.isInteger(p) || p < (l === 2 ? 0 : 1) || p > 6) return bad(`P${p} is not a work offset: use P1 to P6.`);
    const name = l === 20 ? `P${p}` : p === 0 ? "common" : `G${53 + p}`;
    const found = ["X", "Y", "Z"].flatMap((letter) => axis(letter, `${name}.${letter.toLowerCase()}`));
    return found.length > 0 ? found : bad("This G10 sets no axis.");
  }
  if (machine === "lathe" && (l === 10 || l === 11)) {
    const row = p >= 10_000 ? p - 10_000 : p;
    const suffix = l === 11 && p < 10_000 ? "w" : "";
    const code = words.get("Q");
    const found = [
      ...["X", ...(suffix === "" ? ["Y"] : []), "Z", "R"].flatMap((letter) =>
        axis(letter, `T${row}.${letter.toLowerCase()}${suffix}`),
      ),
      ...(code && suffix === "" ? [{ line, register: `T${row}.tip`, mm: code.value, problem: null }] : []),
    ];
    return found.length > 0 ? found : bad("This G10 sets none of X, Z, R and Q.");
  }
  const row = MILL_ROWS[l];
  if (row !== undefined) {
    const value = words.get("R");
    return value
      ? [{ line, register: `${row}${p}`, mm: value.value * unitMm, problem: null }]
      : bad("This G10 needs an R word.");
  }
  return bad(`L${l} is not a register that is read here.`);
}

/** No register of a machine holds more than this, mm. */
const LARGEST_MM = 10_000;

/** What is wrong with the words of a line that sets registers; null when nothing is. */
function oddWord(words: readonly Word[], codes: readonly number[], unitMm: number): string | null {
  const letters = words.filter(({ letter }) => letter !== "G").map(({ letter }) => letter);
  const twice = letters.find((letter, i) => letters.indexOf(letter) !== i);
  if (twice) return `${twice} stands twice in this line: once is enough.`;
  if (codes.includes(91)) return "G91 adds to a register: state the whole value, with G90 or without.";
  const row = words.find(({ letter }) => letter === "P")?.value;
  if (row !== undefined && (row < 0 || !Number.isInteger(row))) return `P${row} is no row: use a whole number.`;
  const far = words.find(({ letter, value }) => /[XYZR]/.test(letter) && Math.abs(value * unitMm) > LARGEST_MM);
  return far ? `${far.letter}${far.value} is more than a register holds.` : null;
}

function readG10(lines: readonly string[], machine: "mill" | "lathe", unit: "mm" | "inch"): ReadRegister[] {
  let unitMm = unit === "mm" ? 1 : INCH_MM;
  return lines.flatMap((text, index): ReadRegister[] => {
    const line = index + 1;
    const tokens = lex(text.replace(/^\s*%.*/, ""));
    const odd = tokens.find(({ type }) => type === "unreadable");
    if (odd) return [{ line, register: "", mm: null, problem: `“${odd.text.slice(0, 20)}” cannot be read.` }];
    const words = tokens.filter(
      (token): token is Word => token.type === "word" && token.letter !== "N" && token.letter !== "O",
    );
    const codes = words.filter(({ letter }) => letter === "G").map(({ value }) => value);
    if (codes.includes(20)) unitMm = INCH_MM;
    if (codes.includes(21)) unitMm = 1;
    if (!codes.includes(10)) {
      const isHarmless =
        words.length === 0 ||
        words.every(
          ({ letter, value }) =>
            (letter === "G" && [20, 21, 90].includes(value)) || (letter === "M" && [2, 30].includes(value)),
        );
      return isHarmless ? [] : [{ line, register: "", mm: null, problem: "This line sets no register." }];
    }
    const problem = oddWord(words, codes, unitMm);
    if (problem) return [{ line, register: "", mm: null, problem }];
    return fromG10(
      new Map(words.filter(({ letter }) => letter !== "G").map((word) => [word.letter, word])),
      line,
      machine,
      unitMm,
    );
  });
}

/** What is wrong with the figure of a table's line; null when nothing is. */
function oddCell(text: string, value: string, mm: number | null): string | null {
  // with commas between the cells a comma inside a figure would be a cell of its own
  const isSplit = !/[;\t]/.test(text) && /,.*,/.test(text) && !/^[^,]*,\s*"[^"]*"\s*$/.test(text);
  if (isSplit)
    return "This line has more than one comma: put semicolons between the cells, or a point into the figure.";
  return mm === null ? `“${value.slice(0, 20)}” is not a length.` : null;
}

/** "register,value" or "register;value", one a line; a heading line and blank lines are passed over. */
function readTable(lines: readonly string[], unit: "mm" | "inch"): ReadRegister[] {
  return lines.flatMap((text, index): ReadRegister[] => {
    const line = index + 1;
    if (text.trim() === "") return [];
    const cells = text.includes(";")
      ? text.split(";")
      : text.includes("\t")
        ? text.split("\t")
        : [text.slice(0, text.indexOf(",")), text.slice(text.indexOf(",") + 1)];
    const [name = "", value = ""] = cells.map((cell) => cell.trim().replace(/^"|"$/g, ""));
    if (index === 0 && /^(register|name)$/i.test(name)) return [];
    if (!/[,;\t]/.test(text))
      return [{ line, register: "", mm: null, problem: "A line is a register, a comma, and its value." }];
    const read = parseLengthMm(value, unit);
    const problem = oddCell(text, value, read.ok ? read.value : null);
    return [
      {
        line,
        register: name.replace(/\s+/g, "."),
        mm: read.ok && problem === null ? read.value : null,
        problem,
      },
    ];
  });
}

/** A row of a lathe as the bench names its registers: "T3.x" is "X3", "T3.zw" is "ZW3", "T3.tip" is "Q3". */
function benchName(register: string): string {
  const [, row, column = ""] = /^T(\d)\.(x|y|z|xw|zw|r|tip)$/.exec(register) ?? [];
  return row === undefined ? register : `${column === "tip" ? "Q" : column.toUpperCase()}${row}`;
}

/** Two letters for each way in which a shop writes the same register. */
const same = (a: string, b: string): boolean =>
  a.replace(/[.\s_-]/g, "").toLowerCase() === b.replace(/[.\s_-]/g, "").toLowerCase();

/**
 * Registers out of pasted text or a file: a G10 program or a table. Every line that cannot be used says why; a register
 * that the exercise does not ask for is named, and one that stands twice is named the second time. Nothing is taken
 * over here.
 */
export function readRegisters(
  text: string,
  wanted: readonly string[],
  machine: "mill" | "lathe",
  unit: "mm" | "inch",
): ReadRegister[] {
  const lines = text.replace(/^\uFEFF/, "").split(/\r?\n/);
  const rows = /\bG10\b|\bG10L|^\s*%/i.test(text) ? readG10(lines, machine, unit) : readTable(lines, unit);
  const seen = new Set<string>();
  return rows.map((row) => {
    if (row.problem) return row;
    const register = wanted.find((id) => same(id, row.register) || same(id, benchName(row.register)));
    if (!register) return { ...row, problem: `${row.register} is not asked for in this exercise.` };
    if (seen.has(register)) return { ...row, register, problem: `${register} stands twice.` };
    seen.add(register);
    return { ...row, register };
  });
}
