const O_WORD = /^(\s*)O\d+/i;
/** Place of the line that bears the program's own number; -1 where none does. */
export const numberedLine = (lines: readonly string[]): number => lines.findIndex((line) => O_WORD.test(line));

/** Lines whose O word bears another number; as they are where none is asked for. */
export function renumbered(lines: readonly string[], as: number | undefined): readonly string[] {
  const at = numberedLine(lines);
  return as === undefined || at === -1 ? lines : lines.with(at, (lines[at] ?? "").replace(O_WORD, `$1O${as}`));
}
