import { Cursor } from "./cursor";
import { Wrong } from "./diagnostics";

/**
 * block   := { word | space | comment }
 * word    := letter number
 * number  := [sign] digits [ "." digits ] | [sign] "." digits, spaces anywhere
 * comment := "(" … ")" | ";" … end of line
 */
export type Token =
  | { type: "word"; letter: string; value: number; text: string; span: readonly [number, number] }
  | { type: "unreadable"; text: string; span: readonly [number, number] };

/** What cannot be read is taken up to the next space, so that one complaint names it whole. */
const REST = /\S[^\s;(]*/y;
const LETTER = /[A-Za-z]/;

function readWord(cursor: Cursor): Token | null {
  const from = cursor.at;
  const letter = cursor.text.charAt(from);
  if (!LETTER.test(letter)) return null;
  try {
    cursor.at += 1;
    const value = cursor.sign() * cursor.number();
    const text = cursor.text.slice(from, cursor.at).trimEnd();
    return { type: "word", letter: letter.toUpperCase(), value: value || 0, text, span: [from, from + text.length] };
  } catch (error) {
    if (!(error instanceof Wrong)) throw error;
    cursor.at = from;
    return null;
  }
}

function readRest(cursor: Cursor): Token {
  const from = cursor.at;
  REST.lastIndex = from;
  const text = REST.exec(cursor.text)?.[0] ?? cursor.text.slice(from);
  cursor.at = from + text.length;
  return { type: "unreadable", text, span: [from, cursor.at] };
}

/** True where nothing more stands in the line; a comment that is not shut is left to be named. */
function isAtEnd(cursor: Cursor): boolean {
  try {
    return Number.isNaN(cursor.next());
  } catch (error) {
    if (error instanceof Wrong) return false;
    throw error;
  }
}

/** The words of a block and what could not be read, in order, each with its `[start, end)`. Throws nothing. */
export function lex(text: string): Token[] {
  const cursor = new Cursor(text);
  const tokens: Token[] = [];
  while (!isAtEnd(cursor)) tokens.push(readWord(cursor) ?? readRest(cursor));
  return tokens;
}
