import {
  isReadOff,
  readingsWanted,
  termsOffered,
  type FloorEntry,
  type FloorExercise,
  type FloorRegister,
  type FloorState,
} from "@probe-lane/core/floor";
import type { TermName } from "@probe-lane/core/lane";
import { termWords } from "@probe-lane/core/words";
import { exerciseFor, lengthsOf } from "./show";

/** A line of a register's screen, filled by the pad. */
export type LineId = `stood${number}` | `term ${TermName}` | "sum" | "shows";

export interface WalkLine {
  readonly id: LineId;
  readonly label: string;
  /** Figures of the sheet that one press puts in, with either sign. */
  readonly offers: readonly string[];
}

export type Typed = Readonly<Partial<Record<LineId, string>>>;

/** The lines of a register: where it stood, what may lie between, the sum; what is read off has none of them. */
export function linesOf(exercise: FloorExercise, register: FloorRegister): WalkLine[] {
  if (isReadOff(register)) return [];
  const { show } = lengthsOf(exerciseFor(exercise, register));
  const needed = readingsWanted(exercise, register);
  const stood = Array.from({ length: needed }, (_, index): WalkLine => ({
    id: `stood${index + 1}`,
    label: needed === 1 ? "stood at, in contact" : `stood at, ${index + 1} of ${needed}`,
    offers: [],
  }));
  const terms = termsOffered(register).map(({ term, givenMm }): WalkLine => ({
    id: `term ${term}`,
    label: termWords[term],
    offers: givenMm === null ? [] : [show(givenMm), show(-givenMm)],
  }));
  const sum = register.method === "mill-center" ? "my middle" : "my sum";
  return [...stood, ...terms, { id: "sum", label: sum, offers: [] }];
}

/** What pressing a key of the pad makes of a line. */
export function pressed(text: string, key: string): string {
  if (key === "erase") return text.slice(0, -1);
  if (key === "clear") return "";
  if (key === "±") return /^[-−]/.test(text) ? text.slice(1) : `−${text}`;
  if (key === "." && text.includes(".")) return text;
  return text + key;
}

/** Entries that a filled screen comes to, or the line that is missing or cannot be read, and why. */
export function entriesOf(
  state: FloorState,
  register: FloorRegister,
  typed: Typed,
): { entries: FloorEntry[] } | { problem: string; at: LineId } {
  const { exercise } = state;
  const { read } = lengthsOf(exerciseFor(exercise, register));
  const id = register.id;
  // what stood there before is struck: a screen that is filled again replaces it
  const entries: FloorEntry[] = [...state.readings, ...state.terms].flatMap((one) =>
    one.register === id ? [{ type: "struck", entry: one.id } as const] : [],
  );
  const lines: readonly LineId[] = [...linesOf(exercise, register).map((line) => line.id), "shows"];
  for (const line of lines) {
    const text = (typed[line] ?? "").trim();
    if (text === "" && line.startsWith("term")) continue;
    if (text === "") return { problem: MISSING[line] ?? "Write where it stood, in contact.", at: line };
    const length = read(text);
    if ("problem" in length) return { problem: length.problem, at: line };
    const { mm } = length;
    if (line === "sum") entries.push({ type: "sum", register: id, mm });
    else if (line === "shows") entries.push({ type: "register", register: id, mm });
    else if (line.startsWith("stood")) entries.push({ type: "reading", register: id, mm });
    else entries.push({ type: "term", register: id, term: line.slice("term ".length) as TermName, mm });
  }
  return { entries };
}
const MISSING: Partial<Record<LineId, string>> = {
  sum: "Write your own sum: nothing is added up for you here.",
  shows: "Read the control and say what it shows.",
};
