import type { CauseId } from "../diagnosis";
import type { Setup, Target } from "../exercises";
import type { RegisterRuling } from "../grading";
import { formatMm, formatUm, scales, showLength, type LengthUnit } from "../units";
import { CAUSES, headlineOf } from "./causes";
import { EXPLAIN } from "./explanations";
import { latheDirection, latheValueWords } from "./machines/latheValues";
import { millDirection } from "./machines/millValues";
import { targetWords } from "./names";
import type { ValueWords } from "./values";

export const signatureWords = (id: CauseId): string => CAUSES[id];

const show = (mm: number, sheet: Setup): string => showLength(mm, scales[sheet.unit]);
const direction = (value: RegisterRuling, sheet: Setup): string =>
  sheet.kind === "mill" ? millDirection(value) : latheDirection(value, sheet);

const percent = (probability: number): string =>
  probability > 0.995 ? "more than 99 in 100" : `about ${Math.max(1, Math.round(probability * 100))} in 100`;

const valueOf = (value: RegisterRuling, figure: number, sheet: Setup): string =>
  value.target.kind === "turn" ? `${formatMm(figure)}°` : show(figure, sheet);

/**
 * What was said or chosen of a value that is right or not: a nose radius off a designation, a digit, whether a tool
 * fits; null for values that are measured.
 */
export function choiceWords(
  { target: { kind } }: { readonly target: Pick<Target, "kind"> },
  figure: number,
  unit: LengthUnit = "mm",
): string | null {
  if (kind === "nose") return showLength(figure, scales[unit]);
  if (kind === "tipCode") return String(Math.round(figure));
  if (kind !== "fit") return null;
  if (figure === 1) return "fits";
  return figure === 0 ? "does not fit" : "nothing said";
}

/** The ruling of one value in words: headline, the working in the student's numbers, and how it is known. */
export function causeWords(value: RegisterRuling, sheet: Setup): ValueWords {
  const name = targetWords(value.target);
  const off = `${show(Math.abs(value.closureMm), sheet)} ${sheet.unit === "mm" ? "mm" : "in"}`;
  const { cause } = value;
  const holds = ` You hold ${valueOf(value, value.held, sheet)}; it should be ${valueOf(value, value.wanted, sheet)}.`;
  const own = sheet.kind === "mill" ? null : latheValueWords(value, sheet);
  if (own) return own;
  if (cause.kind === "none" && Math.abs(value.closureMm) <= value.toleranceMm) {
    return {
      name,
      headline: `${name} is right, within ${formatUm(Math.abs(value.closureMm)).replace("+", "")} µm.`,
      proof: "",
      body: `The method itself leads one to expect ${formatUm(value.biasMm)} µm, give or take ${formatUm(2 * value.uMm).replace("+", "")}.`,
    };
  }
  const lead =
    value.target.kind === "turn"
      ? `${name} is ${direction(value, sheet)}: the far end misses by ${off}`
      : `${name} is ${off} ${direction(value, sheet)}`;
  if (cause.kind === "proven") {
    return {
      name,
      headline: `${lead}. Cause: ${cause.terms.map(({ id }) => headlineOf(id)).join(" and ")}.`,
      body: cause.terms.map((term) => EXPLAIN[term.id]?.(term, value, sheet) ?? "").join(" ") + holds,
      proof: "The log shows this step, so it is the cause and not a guess.",
    };
  }
  if (cause.kind === "inferred") {
    const [first] = cause.ranked;
    const ids = (first?.ids ?? []) as CauseId[];
    const predicted = (id: CauseId) => value.signatures.find((one) => one.id === id)?.predictedMm ?? 0;
    const others = cause.ranked
      .slice(1)
      .filter(({ ids: rest }) => rest.length > 0)
      .map(
        ({ ids: rest, probability }) =>
          `${rest.map((id) => CAUSES[id as CauseId] ?? id).join(" with ")} (${percent(probability)})`,
      );
    return {
      name,
      headline: `${lead}. Most likely: ${ids.map(headlineOf).join(" and ")}.`,
      body: ids.map((id) => EXPLAIN[id]?.({ mm: predicted(id) }, value, sheet) ?? "").join(" ") + holds,
      proof: `Inferred from the number, the log leaves it open: ${percent(first?.probability ?? 0)}.${others.length ? ` Also possible: ${others.join(", ")}.` : ""}`,
    };
  }
  return {
    name,
    headline: `${lead}. No known mistake explains it.`,
    body: `Neither the log nor any single or double mistake leads to this number.${holds}`,
    proof: "Unexplained, so nothing is claimed.",
  };
}
