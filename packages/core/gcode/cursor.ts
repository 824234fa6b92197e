import { Wrong } from "./diagnostics";

const SPACE = 32;
const [ZERO, NINE, POINT, PLUS, MINUS] = [48, 57, 46, 43, 45] as const;
const [OPEN, SEMICOLON] = [40, 59] as const;

const isDigit = (code: number): boolean => code >= ZERO && code <= NINE;

/** Beyond this many digits a number says nothing more, and sums of it would no longer be exact. */
const MOST_DIGITS = 15;

/** A place in one line of a program: passes over spaces and comments, reads numbers and words of letters. */
export class Cursor {
  at = 0;
  readonly text: string;

  constructor(text: string) {
    // a minus that was typed on a page is one too
    this.text = /[\u2212\u2013\u2014]/.test(text) ? text.replace(/[\u2212\u2013\u2014]/g, "-") : text;
  }

  skipSpaces(): void {
    while (this.text.charCodeAt(this.at) <= SPACE) this.at += 1;
  }

  /** Code of the next character that says something; NaN at the end of the line. */
  next(): number {
    const { text } = this;
    for (;;) {
      const code = text.charCodeAt(this.at);
      if (code <= SPACE) this.at += 1;
      else if (code === OPEN) {
        const end = text.indexOf(")", this.at);
        if (end < 0) throw new Wrong("bracket", this.at, "(");
        this.at = end + 1;
      } else if (code === SEMICOLON) this.at = text.length;
      else return code;
    }
  }

  /** True, and passed, where `char` comes next. */
  take(char: string): boolean {
    if (this.next() !== char.charCodeAt(0)) return false;
    this.at += 1;
    return true;
  }

  /** True, and passed, where these letters come next, however they are written and spaced. */
  takeWord(word: string): boolean {
    const from = this.at;
    for (const letter of word) {
      const code = this.next();
      if ((code & ~SPACE) !== letter.charCodeAt(0)) {
        this.at = from;
        return false;
      }
      this.at += 1;
    }
    return true;
  }

  /** +1 or −1; no sign is +1. */
  sign(): 1 | -1 {
    const code = this.next();
    if (code !== PLUS && code !== MINUS) return 1;
    this.at += 1;
    return code === MINUS ? -1 : 1;
  }

  /** A number without sign: digits and at most one point, spaces between them allowed. */
  number(): number {
    const { text } = this;
    this.next();
    const from = this.at;
    let hasDigit = false;
    let digits = 0;
    let whole = 0;
    let decimals = -1;
    for (;;) {
      const code = text.charCodeAt(this.at);
      if (isDigit(code)) {
        hasDigit = true;
        if (digits < MOST_DIGITS) {
          whole = whole * 10 + (code - ZERO);
          if (decimals >= 0) decimals += 1;
        } else if (decimals < 0) throw new Wrong("unreadable-number", from, text.slice(from, from + 12));
        if (whole > 0) digits += 1;
      } else if (code === POINT && decimals < 0) decimals = 0;
      else if (code === POINT) throw new Wrong("unreadable-number", from, text.slice(from, this.at + 2));
      else if (!(code <= SPACE)) break;
      this.at += 1;
    }
    if (!hasDigit) throw new Wrong("unreadable-number", from, text.slice(from, from + 8));
    return decimals > 0 ? whole / 10 ** decimals : whole;
  }
}
