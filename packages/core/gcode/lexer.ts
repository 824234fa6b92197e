/**
 * block   := { word | space | comment }
 * word    := letter [space] number
 * number  := [sign] digits [ "." digits ] | [sign] "." digits
 * comment := "(" … ")" | ";" … end of line
 */
export type Token =
  | { type: "word"; letter: string; value: number; hasPoint: boolean; text: string; span: readonly [number, number] }
  | { type: "unreadable"; text: string; span: readonly [number, number] };

const WORD = /([A-Za-z])\s*([+-]?(?:\d+\.?\d*|\.\d+))/y;
const SKIP = /\s+|\([^()]*\)|;.*/y;
/** What cannot be read is taken up to the next space, so that one complaint names it whole. */
const REST = /\S[^\s;(]*/y;

/** The words of a block and what could not be read, in order, each with its `[start, end)`. */
export function lex(text: string): Token[] {
  const plain = text.replace(/[\u2212\u2013\u2014]/g, "-");
  const tokens: Token[] = [];
  let at = 0;
  const match = (pattern: RegExp): RegExpExecArray | null => {
    pattern.lastIndex = at;
    return pattern.exec(plain);
  };
  while (at < plain.length) {
    const skipped = match(SKIP);
    if (skipped) {
      at += skipped[0].length;
      continue;
    }
    const word = match(WORD);
    const next = word ?? match(REST);
    const found = next?.[0] ?? plain.slice(at);
    const span = [at, at + found.length] as const;
    if (word) {
      const digits = word[2] ?? "";
      tokens.push({
        type: "word",
        letter: (word[1] ?? "").toUpperCase(),
        value: Number(digits),
        hasPoint: digits.includes("."),
        text: found,
        span,
      });
    } else tokens.push({ type: "unreadable", text: found, span });
    at += found.length;
  }
  return tokens;
}
