import { Cursor } from "./cursor";
import { type Diagnostic, Wrong } from "./diagnostics";
import { type Dialect, type DialectTable, dialects } from "./dialects";
import { type Expression, readSum, readTarget, readTruth, readValue, type Truth } from "./expressions";

type Assignment = { readonly kind: "assign"; readonly target: Expression; readonly value: Expression };
type Jump = { readonly kind: "goto"; readonly to: Expression };

/** What a block of a macro says instead of words. `end` and `start` are places in the list of blocks. */
export type Statement =
  | Assignment
  | Jump
  | { readonly kind: "if"; readonly test: Truth; readonly then: Assignment | Jump }
  | { readonly kind: "while"; readonly test: Truth; readonly loop: number; end: number }
  | { readonly kind: "end"; readonly loop: number; start: number };

/** One block: its words as letters and values side by side, or one statement. Kept small: programs have many. */
export interface ProgramBlock {
  readonly line: number;
  /** Begins with a slash. */
  readonly isOptional: boolean;
  readonly number: number | null;
  /** A letter for each value; N and O are not among them. */
  readonly letters: string;
  readonly values: readonly Expression[];
  readonly statement: Statement | null;
}

export interface Program {
  readonly dialect: Dialect;
  readonly blocks: readonly ProgramBlock[];
  /** Place of the first block with each number. */
  readonly numbered: ReadonlyMap<number, number>;
  /** Place of the block that begins each program of this text: O1234. */
  readonly named: ReadonlyMap<number, number>;
  /** Everything that cannot be read, in order; where there is any, nothing runs. */
  readonly diagnostics: readonly Diagnostic[];
  /** The line of the second %, or the last one that is not blank; 0 of an empty text. */
  readonly lastLine: number;
}

const isCapital = (code: number): boolean => code >= 65 && code <= 90;

interface Reading {
  readonly table: DialectTable;
  readonly cursor: Cursor;
  letters: string;
  readonly values: Expression[];
  number: number | null;
  name: number | null;
}

/** Ten times a code's number; −1 where that is not whole. */
export const codeKey = (value: number): number => {
  const key = Math.round(value * 10);
  return Math.abs(value * 10 - key) < 1e-6 ? key : -1;
};

/** Refuses codes that this machine does not have, and two of one group. */
function checkCodes({ table, letters, values, cursor }: Reading): void {
  const seen = new Set<string>();
  for (let i = 0; i < letters.length; i++) {
    const letter = letters[i] ?? "";
    const value = values[i];
    if ((letter !== "G" && letter !== "M") || typeof value !== "number") continue;
    const group = (letter === "G" ? table.g : table.m).get(codeKey(value));
    if (!group) throw new Wrong("unknown-code", placeOf(cursor.text, letter, value), `${letter}${value}`);
    // M7 and M8 may stand together, M9 with neither
    if (group === "coolant" && !seen.has("coolantOff")) seen.add(group);
    else if (seen.has(group) || (group === "coolantOff" && seen.has("coolant")) || group === "coolant")
      throw new Wrong("two-of-a-group", placeOf(cursor.text, letter, value), `${letter}${value}`);
    seen.add(group);
  }
}

/** Where a code stands in its line, for a message; 0 where it is written in some odd way. */
function placeOf(text: string, letter: string, value: number): number {
  const found = new RegExp(`${letter}\\s*0*${String(value).replace(".", "\\.")}(?![\\d.])`, "i").exec(text);
  return found?.index ?? 0;
}

/** Refuses a letter that stands twice, and X beside U or Z beside W. */
function checkLetters({ table, letters, cursor }: Reading, isCall: boolean): void {
  for (let i = 1; i < letters.length; i++) {
    const letter = letters[i] ?? "";
    if (letter === "G" || letter === "M") continue;
    const before = letters.slice(0, i);
    const twin = isCall ? undefined : table.twins[letter];
    if (before.includes(letter) || (twin && before.includes(twin)))
      throw new Wrong("word-twice", cursor.text.toUpperCase().lastIndexOf(letter), letter);
  }
}

/** Refuses letters that this machine does not have. */
function checkKnown({ table, letters, cursor }: Reading): void {
  for (const letter of letters)
    if (!table.letters.has(letter))
      throw new Wrong("unknown-letter", cursor.text.toUpperCase().indexOf(letter), letter);
}

function readWords(reading: Reading): void {
  const { cursor, values } = reading;
  for (;;) {
    const code = cursor.next();
    if (Number.isNaN(code)) break;
    const letter = String.fromCharCode(code & ~32);
    const at = cursor.at;
    if (!isCapital(code & ~32) || code > 122) throw new Wrong("unknown-letter", at, cursor.text.slice(at, at + 1));
    cursor.at += 1;
    const value = readValue(cursor);
    if (letter === "N" && typeof value === "number") {
      if (reading.number !== null) throw new Wrong("word-twice", at, "N");
      reading.number = value;
    } else if (letter === "O" && typeof value === "number") reading.name = value;
    else if (letter !== "N" && letter !== "O") {
      reading.letters += letter;
      values.push(value);
    }
  }
  const isCall = reading.letters.split("").some((letter, i) => letter === "G" && values[i] === 65);
  if (!isCall) checkKnown(reading);
  checkLetters(reading, isCall);
  if (!isCall) checkCodes(reading);
}

function readAssignment(cursor: Cursor): Assignment {
  const target = readTarget(cursor);
  if (!cursor.take("=")) throw new Wrong("expression", cursor.at);
  return { kind: "assign", target, value: readSum(cursor) };
}

function readLoopNumber(cursor: Cursor): number {
  const from = cursor.at;
  const loop = cursor.number();
  if (loop !== 1 && loop !== 2 && loop !== 3) throw new Wrong("loop", from, String(loop));
  return loop;
}

function readStatement(cursor: Cursor): Statement | null {
  if (cursor.next() === "#".charCodeAt(0)) return readAssignment(cursor);
  if (cursor.takeWord("GOTO")) return { kind: "goto", to: readValue(cursor) };
  if (cursor.takeWord("END")) return { kind: "end", loop: readLoopNumber(cursor), start: -1 };
  if (cursor.takeWord("WHILE")) {
    const test = readTruth(cursor);
    if (!cursor.takeWord("DO")) throw new Wrong("expression", cursor.at);
    return { kind: "while", test, loop: readLoopNumber(cursor), end: -1 };
  }
  if (!cursor.takeWord("IF")) return null;
  const test = readTruth(cursor);
  if (cursor.takeWord("GOTO")) return { kind: "if", test, then: { kind: "goto", to: readValue(cursor) } };
  if (!cursor.takeWord("THEN") || cursor.next() !== "#".charCodeAt(0)) throw new Wrong("expression", cursor.at);
  return { kind: "if", test, then: readAssignment(cursor) };
}

/** Words that only a statement begins with; a macro's DO without WHILE and THEN without IF are none. */
const STARTS = new Set([..."#GEWI"].map((char) => char.charCodeAt(0)));

/** One line, without its slash: what it says, or `Wrong`; null where it says nothing. */
function readLine(text: string, table: DialectTable): (Reading & { statement: Statement | null }) | null {
  const cursor = new Cursor(text);
  const reading: Reading = { table, cursor, letters: "", values: [], number: null, name: null };
  let statement: Statement | null = null;
  if (Number.isNaN(cursor.next())) return null;
  if (cursor.takeWord("N")) reading.number = cursor.number();
  const code = cursor.next();
  if (STARTS.has(code >= 97 ? code & ~32 : code)) statement = readStatement(cursor);
  if (statement && !Number.isNaN(cursor.next())) throw new Wrong("expression", cursor.at);
  if (!statement) readWords(reading);
  return { ...reading, statement };
}

/** Ties every WHILE to its END; what is left over is a diagnostic at its own line. */
function pairLoops(blocks: readonly ProgramBlock[]): Diagnostic[] {
  const open: number[] = [];
  const bad = (index: number): Diagnostic => ({ code: "loop", line: blocks[index]?.line ?? 0, column: 1, said: "" });
  const wrong: Diagnostic[] = [];
  blocks.forEach(({ statement }, index) => {
    if (statement?.kind === "while") {
      const isOpen = open.some((one) => {
        const outer = blocks[one]?.statement;
        return outer?.kind === "while" && outer.loop === statement.loop;
      });
      if (isOpen) wrong.push(bad(index));
      open.push(index);
    } else if (statement?.kind === "end") {
      const start = open.at(-1);
      const opener = start === undefined ? null : blocks[start]?.statement;
      if (start === undefined || opener?.kind !== "while" || opener.loop !== statement.loop) wrong.push(bad(index));
      else {
        open.pop();
        opener.end = index;
        statement.start = start;
      }
    }
  });
  return [...wrong, ...open.map(bad)];
}

/**
 * A program read whole: blocks with their words, and a diagnostic for every line that cannot be read (one a line).
 * Spaces and case do not matter; `(…)` and what follows `;` are comments; a number without a point is in whole units.
 * Throws nothing.
 */
export function readProgram(text: string, dialect: Dialect): Program {
  const table = dialects[dialect];
  const blocks: ProgramBlock[] = [];
  const numbered = new Map<number, number>();
  const named = new Map<number, number>();
  const diagnostics: Diagnostic[] = [];
  let lastLine = 0;
  let percents = 0;
  let line = 0;
  let from = 0;
  while (from <= text.length && percents < 2) {
    const end = text.indexOf("\n", from);
    const upTo = end < 0 ? text.length : end;
    line += 1;
    const raw = text.slice(from, upTo);
    from = upTo + 1;
    const start = raw.search(/\S/);
    if (start < 0) continue;
    lastLine = line;
    if (raw[start] === "%") {
      percents += 1;
      continue;
    }
    const isOptional = raw[start] === "/";
    try {
      const said = readLine(isOptional ? `${raw.slice(0, start)} ${raw.slice(start + 1)}` : raw, table);
      if (!said) continue;
      const { number, name, letters, values, statement } = said;
      if (number !== null && !numbered.has(number)) numbered.set(number, blocks.length);
      if (name !== null && !named.has(name)) named.set(name, blocks.length);
      blocks.push({ line, isOptional, number, letters, values, statement });
    } catch (error) {
      if (!(error instanceof Wrong)) throw error;
      diagnostics.push({ code: error.code, line, column: error.at + 1, said: error.said.trim() });
    }
  }
  const unpaired = pairLoops(blocks).filter(({ line: at }) => !diagnostics.some((one) => one.line === at));
  const all = [...diagnostics, ...unpaired].sort((a, b) => a.line - b.line);
  return { dialect, blocks, numbered, named, diagnostics: all, lastLine };
}
