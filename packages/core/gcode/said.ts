import { Wrong } from "./diagnostics";
import { type DialectTable } from "./dialects";
import { evaluate, type Variables } from "./expressions";
import { codeKey, type ProgramBlock } from "./program";

/** The words of the block that runs now, their values worked out: one object for a whole run. */
export class Said {
  /** By letter, A first; meaningful where `has`. */
  private readonly values = new Float64Array(26);
  private mask = 0;
  /** Ten times the codes' numbers, by group. */
  private readonly codes = new Map<string, number>();
  hasCodes = false;

  constructor(private readonly table: DialectTable) {}

  /** Takes over a block's words; a word with an empty value is as if it were not written. */
  read(block: ProgramBlock, variables: Variables): void {
    const { letters, values } = block;
    this.mask = 0;
    if (this.hasCodes) this.codes.clear();
    this.hasCodes = false;
    for (let i = 0; i < letters.length; i++) {
      const written = values[i] ?? 0;
      const value = typeof written === "number" ? written : evaluate(written, variables);
      if (value === null) continue;
      const letter = letters.charCodeAt(i) - 65;
      if (letter === 6 || letter === 12) this.code(letters.charAt(i), value);
      this.values[letter] = value;
      this.mask |= 1 << letter;
    }
  }

  private code(letter: string, value: number): void {
    const key = codeKey(value);
    const group = (letter === "G" ? this.table.g : this.table.m).get(key);
    this.hasCodes = true;
    if (group) this.codes.set(group, key);
    else this.codes.set(letter, key);
  }

  /** Refuses a code that came out of a variable and is none. */
  checkCodes(): void {
    if (this.hasCodes && (this.codes.has("G") || this.codes.has("M"))) throw new Wrong("unknown-code");
  }

  /** The code of a group, its number; null where none is written. */
  of(group: string): number | null {
    if (!this.hasCodes) return null;
    const key = this.codes.get(group);
    return key === undefined ? null : key / 10;
  }

  has(letter: string): boolean {
    return (this.mask & (1 << (letter.charCodeAt(0) - 65))) !== 0;
  }

  /** The value of a letter; null where it is not written. */
  value(letter: string): number | null {
    const index = letter.charCodeAt(0) - 65;
    return (this.mask & (1 << index)) === 0 ? null : (this.values[index] ?? 0);
  }

  /** Every word that is written, by letter. */
  all(): Record<string, number> {
    const words: Record<string, number> = {};
    for (let i = 0; i < 26; i++)
      if ((this.mask & (1 << i)) !== 0) words[String.fromCharCode(65 + i)] = this.values[i] ?? 0;
    return words;
  }
}
