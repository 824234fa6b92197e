import type { StoredProgram } from "../../exercises/setup";
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
