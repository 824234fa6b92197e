import type { RegisterRuling, Ruling } from "@probe-lane/core/grading";
import { choiceWords } from "@probe-lane/core/words";
import { scales, showLength } from "@probe-lane/core/units";

export const STRANDS = {
  values: "Values",
  working: "Working",
  method: "Method",
  safety: "Safety",
  proving: "Proving",
} as const;

/** Marks to one decimal, none where they are whole. */
export const marks = (value: number): string =>
  Math.abs(value - Math.round(value)) < 0.05 ? String(Math.round(value)) : value.toFixed(1);

/** A figure of a value in the unit of its lane; a turn in degrees. */
export const shown = (value: RegisterRuling, figure: number, sheet: Ruling["sheet"]): string =>
  choiceWords(value, figure, sheet.unit) ??
  (value.target.unit === "degree" ? `${figure.toFixed(3).replace("-", "−")}°` : showLength(figure, scales[sheet.unit]));
