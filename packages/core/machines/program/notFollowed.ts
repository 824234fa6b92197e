import { type Dialect, type Program } from "../../gcode";

/** Codes whose ways are not followed: second reference points, declared positions. */
const NOT_FOLLOWED: Readonly<Record<Dialect, ReadonlySet<number>>> = {
  mill: new Set([30]),
  lathe: new Set([30, 50]),
};
const LIMITS_SPEED = 50;

/** The first block that says something which is not followed, and what; G50 that only limits the speed is. */
export function notFollowed({ dialect, blocks }: Program): { readonly line: number; readonly word: string } | null {
  for (const { line, letters, values } of blocks)
    for (let i = 0; i < letters.length; i++) {
      const code = values[i];
      if (letters[i] !== "G" || typeof code !== "number" || !NOT_FOLLOWED[dialect].has(code)) continue;
      if (code !== LIMITS_SPEED || /[XZUW]/.test(letters)) return { line, word: `G${code}` };
    }
  return null;
}
