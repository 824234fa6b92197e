import type { CauseId, Term } from "../diagnosis";
import type { Setup, Target } from "../exercises";
import { isValueRight, type RegisterRuling } from "../grading";
import { formatMm, formatUm, scales, showLength, type LengthUnit } from "../units";
import { causeName, explain, headlineOf, questionOf } from "./causes";
import { latheDirection, latheValueWords } from "./machines/latheValues";
import { millDirection } from "./machines/millValues";
import { targetWords } from "./names";
import type { ValueWords } from "./values";

const show = (mm: number, sheet: Setup): string => showLength(mm, scales[sheet.unit]);
const direction = (value: RegisterRuling, sheet: Setup): string =>
  sheet.kind === "mill" ? millDirection(value) : latheDirection(value, sheet);

/** Shares below this are not shown by themselves, mm. */
const LEAST_SHARE_MM = 0.001;
const signed = (mm: number, sheet: Setup): string => `${mm > 0 ? "+" : ""}${show(mm, sheet)}`;

export const oddsWords = (probability: number): string =>
  probability > 0.99 ? "nothing else known comes near" : `about ${Math.max(1, Math.round(probability * 100))} in 100`;

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

/** Names that say only that a figure or a place was another one. */
const UNNAMED: ReadonlySet<CauseId> = new Set(["otherFigure", "otherReading", "contactOff"]);

/** Names that say that something was not done. */
const UNDONE: ReadonlySet<CauseId> = new Set(["neverSet", "noContact", "liftMissing", "shiftMissing", "turnForgotten"]);

/** Names of what was so of the things themselves, and no step of anybody's. */
const SO_IN_THE_LANE: ReadonlySet<CauseId> = new Set([
  "burr",
  "setterMoved",
  "presetterOff",
  "probeLengthWrong",
  "armOff",
  "spindleGrowth",
  "chipOnTip",
  "taperDirt",
  "notSeated",
  "gaugeDirt",
  "gaugeHit",
]);

function proofWords(terms: readonly Term[]): string {
  if (terms.every(({ id }) => UNNAMED.has(id))) return "The log shows it. Why it was so, it does not say.";
  if (terms.every(({ id }) => SO_IN_THE_LANE.has(id)))
    return "That is how things stood in this lane, and the log shows nothing that was done about it.";
  if (terms.every(({ id }) => UNDONE.has(id))) return "The log has no such step, so that is the cause and not a guess.";
  return new Set(terms.map(({ id }) => id)).size > 1
    ? "The log shows each of them, so they are the cause and not a guess."
    : "The log shows this step, so it is the cause and not a guess.";
}

function listed(names: readonly string[]): string {
  const [last = "", ...rest] = [...new Set(names)].reverse();
  return rest.length === 0 ? last : `${rest.reverse().join(", ")} and ${last}`;
}

/** The terms of an inferred cause; of a ruling of earlier days what each name predicts. */
function termsOf({ cause, signatures }: RegisterRuling, ids: readonly CauseId[]): Term[] {
  if (cause.kind === "inferred" && cause.terms.length > 0) return [...cause.terms];
  return ids.map((id) => ({ id, mm: signatures.find((one) => one.id === id)?.predictedMm ?? 0, seq: 0 }));
}

const termsWords = (terms: readonly Term[], value: RegisterRuling, sheet: Setup): string =>
  [...new Set(terms.map((term) => explain(term, value, sheet)))].filter(Boolean).join(" ");

/** What each made of the whole, where there is more than one, and what the contact left by itself. */
function sharesWords(terms: readonly Term[], value: RegisterRuling, sheet: Setup): string {
  if (terms.length < 2 || value.target.kind === "turn") return "";
  // one thing that happened at two contacts is one share
  const ids = [...new Set(terms.map(({ id }) => id))];
  const shares = ids.map((id) => {
    const mm = terms.reduce((sum, term) => sum + (term.id === id ? term.mm : 0), 0);
    return `${signed(mm, sheet)} ${causeName(id)}`;
  });
  const rest = value.closureMm - terms.reduce((sum, { mm }) => sum + mm, 0);
  const isShown = Math.abs(rest) >= LEAST_SHARE_MM;
  return ` Together ${signed(value.closureMm, sheet)}: ${shares.join(", ")}${isShown ? `, ${signed(rest, sheet)} the method itself` : ""}.`;
}

/** What of a value is this shop's way of touching, and what it costs. */
function allowedWords({ id, mm }: NonNullable<RegisterRuling["allowed"]>[number], sheet: Setup): string {
  const by = `${show(Math.abs(mm), sheet)} ${sheet.unit === "mm" ? "mm" : "in"}`;
  return id === "clickBack"
    ? `One click was taken back after the contact, as this shop may: ${signed(mm, sheet)} of it, and no fault.`
    : `The paper was not counted, as this shop may: the tool stands ${by} high, and leaves that much on the part.`;
}

/** The ruling of one value in words: headline, the working in the student's numbers, and how it is known. */
export function causeWords(value: RegisterRuling, sheet: Setup): ValueWords {
  const name = targetWords(value.target);
  const off = `${show(Math.abs(value.closureMm), sheet)} ${sheet.unit === "mm" ? "mm" : "in"}`;
  const { cause } = value;
  const holds = ` You hold ${valueOf(value, value.held, sheet)}; it should be ${valueOf(value, value.wanted, sheet)}.`;
  const own = sheet.kind === "mill" ? null : latheValueWords(value, sheet);
  if (own) return own;
  if (cause.kind === "none" && isValueRight(value) && value.isKept)
    return {
      name,
      headline: `${name} is right, within ${formatUm(Math.abs(value.closureMm)).replace("+", "")} µm.`,
      proof: "",
      body: "It stands as it was kept, and what it hangs on is as it was.",
    };
  if (cause.kind === "none" && isValueRight(value)) {
    const restMm = value.closureMm - (value.allowed ?? []).reduce((sum, { mm }) => sum + mm, 0);
    return {
      name,
      headline: `${name} is right, within ${formatUm(Math.abs(restMm)).replace("+", "")} µm.`,
      proof: "",
      body: `${(value.allowed ?? []).map((one) => `${allowedWords(one, sheet)} `).join("")}The method itself leads one to expect ${formatUm(value.biasMm)} µm, give or take ${formatUm(2 * value.uMm).replace("+", "")}.`,
    };
  }
  const lead =
    value.target.kind === "turn"
      ? `${name} is ${direction(value, sheet)}: the far end misses by ${off}`
      : `${name} is ${off} ${direction(value, sheet)}`;
  if (cause.kind === "proven") {
    return {
      name,
      headline: `${lead}. Cause: ${listed(cause.terms.map(({ id }) => headlineOf(id)))}.`,
      body: `${termsWords(cause.terms, value, sheet)}${sharesWords(cause.terms, value, sheet)}${holds}`,
      proof: proofWords(cause.terms),
    };
  }
  if (cause.kind === "inferred") {
    const [first, ...rest] = cause.ranked;
    const ids = (first?.ids ?? []) as CauseId[];
    const terms = termsOf(value, ids);
    const others = rest
      .filter(({ ids: more }) => more.length > 0)
      .map(
        ({ ids: more, probability }) =>
          `${more.map((id) => causeName(id as CauseId)).join(" with ")} (${oddsWords(probability)})`,
      );
    const question = ids.map(questionOf).find((one) => one !== null);
    return {
      name,
      headline: `${lead}. Most likely: ${listed(ids.map(headlineOf))}.`,
      body: `${termsWords(terms, value, sheet)}${sharesWords(terms, value, sheet)}${holds}`,
      proof: [
        `The log shows the figure; which slip made it is inferred from it: ${oddsWords(first?.probability ?? 0)}.`,
        ...(others.length > 0 ? [`Also possible: ${others.join(", ")}.`] : []),
        ...(question ? [`What decides: ${question}`] : []),
      ].join(" "),
    };
  }
  if (cause.kind === "none") {
    return {
      name,
      headline: `${lead}. That is what the way of finding it leaves by itself.`,
      body: `Every step from the contact to the register is right. This way leads one to expect ${formatUm(value.biasMm)} µm, give or take ${formatUm(2 * value.uMm).replace("+", "")}: it takes a better one for this tolerance.${holds}`,
      proof: "Nothing in the log makes it a mistake.",
    };
  }
  return {
    name,
    headline: `${lead}. No known mistake explains it.`,
    body: `Neither the log nor any single or double mistake leads to this number.${holds}`,
    proof: "Unexplained, so nothing is claimed.",
  };
}
