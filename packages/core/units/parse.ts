import { accept, refuse, type Result } from "../result";

export type LengthRefusal =
  | { code: "lengthEmpty" }
  | { code: "lengthUnreadable"; text: string }
  | { code: "lengthDividedByZero"; text: string }
  | { code: "lengthTooLong"; digits: number }
  | { code: "lengthOutOfRange"; limitMm: number };

const MM_PER_INCH = 25.4;
const LONGEST_TEXT = 24;
/** Far beyond any travel, and far below where a count loses its exactness. */
const LIMIT_MM = 10_000;

/**
 * The length that a person typed, in mm. Reads "12.4", "12,4 mm", ".0478", "3/64 in", "1 1/8 in" and every common minus
 * sign; a plain number is in `unit`. Inches become mm here, once, by 25.4. Refuses everything else and changes nothing.
 */
export function parseLengthMm(text: string, unit: "mm" | "inch" = "mm"): Result<number, LengthRefusal> {
  const plain = text
    .trim()
    .replace(/[\u2212\u2013\u2014\u2010\u2011\uFE63\uFF0D]/g, "-")
    .replace(/\s+/g, " ");
  if (plain === "") return refuse({ code: "lengthEmpty" });
  if (plain.length > LONGEST_TEXT) return refuse({ code: "lengthTooLong", digits: LONGEST_TEXT });
  const shown = plain.slice(0, LONGEST_TEXT);
  const match = /^([+-]?) ?(?:(\d*[.,]?\d*)|(?:(\d+) )?(\d+)\/(\d+)) ?(mm|inch|in|")?$/i.exec(plain);
  if (!match) return refuse({ code: "lengthUnreadable", text: shown });
  const [, sign, decimal, whole, over, under, suffix] = match;
  let amount: number;
  if (over !== undefined && under !== undefined) {
    if (Number(under) === 0) return refuse({ code: "lengthDividedByZero", text: shown });
    amount = Number(whole ?? "0") + Number(over) / Number(under);
  } else {
    const digits = (decimal ?? "").replace(",", ".");
    if (!/\d/.test(digits)) return refuse({ code: "lengthUnreadable", text: shown });
    amount = Number(digits);
  }
  const inInches = suffix === undefined ? unit === "inch" : suffix.toLowerCase() !== "mm";
  const mm = amount * (inInches ? MM_PER_INCH : 1) * (sign === "-" ? -1 : 1);
  if (!Number.isFinite(mm) || Math.abs(mm) > LIMIT_MM) return refuse({ code: "lengthOutOfRange", limitMm: LIMIT_MM });
  return accept(mm === 0 ? 0 : mm);
}
