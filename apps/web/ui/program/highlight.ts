import { HighlightStyle, StreamLanguage, syntaxHighlighting, type StringStream } from "@codemirror/language";
import { tags } from "@lezer/highlight";

/** Words that read a register: they decide where everything lands, and stand out. */
const READS_REGISTER = /^(?:G5[4-9](?:\.1)?(?![\d.])|[HDT]\s*\d)/i;

function token(stream: StringStream): string | null {
  if (stream.eatSpace()) return null;
  if (stream.match(/^\([^)]*\)?/) || stream.match(/^;.*/)) return "comment";
  if (stream.match(/^%.*/) || stream.match(/^[NO]\s*\d+/i)) return "meta";
  if (stream.match(/^(?:WHILE|IF|GOTO|THEN|END|DO)\s*\d*/i)) return "controlKeyword";
  if (stream.match(READS_REGISTER, false)) {
    stream.match(/^[A-Z]\s*[\d.]*/i);
    return "variableName";
  }
  if (stream.match(/^[GM]\s*\d+\.?\d*/i)) return "keyword";
  if (stream.match(/^#+\d*/)) return "number";
  if (stream.match(/^[A-Z]\s*[+\-−]?\s*[\d.]+/i)) return null;
  stream.next();
  return null;
}

/** What is bold and what is cool in a program: codes, and words that read a register. */
export const programLanguage = [
  StreamLanguage.define({ token, languageData: { commentTokens: { line: ";" } } }),
  syntaxHighlighting(
    HighlightStyle.define([
      { tag: tags.keyword, fontWeight: "700" },
      { tag: tags.controlKeyword, fontWeight: "700" },
      { tag: tags.variableName, color: "var(--expected)", fontWeight: "700" },
      { tag: tags.comment, color: "var(--ink2)" },
      { tag: tags.meta, color: "var(--ink3)" },
    ]),
  ),
];
