import type { StoredProgram } from "../../exercises/setup";
import type { CoachMark } from "../../lane/coach";
import type { ProgramSeen } from "./observe";

/** The lines that a control holds, put together from the store on the sheet and what was changed in them. */
export function linesSeen(
  { number, own, changed }: Pick<ProgramSeen, "number" | "own" | "changed">,
  store: readonly StoredProgram[] | undefined,
): readonly string[] {
  if (own) return own;
  const text = store?.find((one) => one.number === number)?.text;
  return text === undefined ? [] : text.split(/\r\n|\r|\n/).map((line, at) => changed[at + 1] ?? line);
}

/** Tools that the held program calls, in order. */
export const toolsAsked = (program: Pick<ProgramSeen, "asks"> | undefined): readonly number[] => [
  ...new Set((program?.asks ?? []).flatMap(({ tool }) => (tool === null ? [] : [tool]))),
];

/** What the proving of a program is made of, each school done or not. */
export const provingMarks = (program: Pick<ProgramSeen, "proved"> | undefined): CoachMark[] =>
  (program?.proved ?? []).map(({ school, isDone }) => ({ code: "proved", school, isDone }));

const O_WORD = /^(\s*)O\d+/i;
/** Place of the line that bears the program's own number; -1 where none does. */
export const numberedLine = (lines: readonly string[]): number => lines.findIndex((line) => O_WORD.test(line));

/** Lines whose O word bears another number; as they are where none is asked for. */
export function renumbered(lines: readonly string[], as: number | undefined): readonly string[] {
  const at = numberedLine(lines);
  return as === undefined || at === -1 ? lines : lines.with(at, (lines[at] ?? "").replace(O_WORD, `$1O${as}`));
}
