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
