import type { MustHaves } from "@probe-lane/core/exercises";
import { mustHaveNames, type MustHave } from "@probe-lane/core/grading";

/** What stands over points, as it is typed. */
export interface MustHaveTexts {
  names: Record<MustHave, boolean>;
  /** How much deeper than told a tool may go, mm. */
  deepest: string;
  capPercent: string;
}

/** What counts at most where something is missing, while nobody said otherwise. */
const CAP_PERCENT = 40;
/** And so much deeper than told strikes, mm. */
const DEEPEST_MM = 1;

export const figure = (text: string): number | null =>
  /^\d+([.,]\d+)?$/.test(text.trim()) ? Number(text.trim().replace(",", ".")) : null;

export const mustHaveTexts = (mustHaves: MustHaves | null | undefined): MustHaveTexts => ({
  names: Object.fromEntries(mustHaveNames.map((name) => [name, mustHaves?.[name] ?? false])) as MustHaveTexts["names"],
  deepest: String(mustHaves?.deepestMm ?? DEEPEST_MM),
  capPercent: String(mustHaves?.capPercent ?? CAP_PERCENT),
});

/** What is typed, or what has to be mended first, in one sentence. */
export function readMustHaves({
  names,
  deepest,
  capPercent,
}: MustHaveTexts): { mustHaves: MustHaves } | { problem: string } {
  const cap = figure(capPercent);
  if (cap === null || cap > 100) return { problem: "What counts at most is a figure from 0 to 100." };
  const deepestMm = figure(deepest);
  if (deepestMm === null || deepestMm <= 0 || deepestMm > 100)
    return { problem: "How much deeper a tool may go is a figure above zero, in mm, such as 1." };
  return { mustHaves: { ...names, deepestMm, capPercent: cap } };
}
