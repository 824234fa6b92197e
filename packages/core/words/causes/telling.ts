import type { Figures, Term } from "../../diagnosis";
import { oneDigitApart } from "../../diagnosis/figures";
import type { Setup } from "../../exercises";
import type { RegisterRuling } from "../../grading";
import { formatMm, scales, showLength, toCounts } from "../../units";
import { registerWords, targetWords } from "../names";

/** The words of one cause. */
export interface CauseWords {
  /** What it is called. */
  readonly name: string;
  /** What it is called in a headline, where that is another name. */
  readonly headline?: string;
  /** What it means, in the student's own numbers. */
  readonly told?: (term: Term, value: RegisterRuling, sheet: Setup) => string;
  /** The prediction of a signature in the person's own figures. */
  readonly equation?: (f: Figures, show: (value: number) => string) => string;
  /** What to look at to tell it from others. */
  readonly check?: string;
}
type Show = (value: number) => string;

export const show = (mm: number, sheet: Setup): string => showLength(mm, scales[sheet.unit]);
/** A length with its unit, in the unit of the lane. */
export const say = (mm: number, sheet: Setup): string => `${show(mm, sheet)} ${sheet.unit === "mm" ? "mm" : "in"}`;
/** What lay between tip and face, as it counts. */
export function gapWords({ figure, mm }: Term, sheet: Setup): string {
  const belongs = Math.abs(figure?.belongsMm ?? mm);
  return `Between the tip and the face lay ${say(belongs, sheet)}.`;
}

/** The skin over the datum, as it counts. */
export const skinWords = ({ figure, mm }: Term, sheet: Setup): string =>
  `The touched skin stands ${say(Math.abs(figure?.belongsMm ?? mm), sheet)} over the datum.`;

export const nameOf = (value: RegisterRuling): string => targetWords(value.target);
const digits = ({ saidMm, belongsMm }: NonNullable<Term["figure"]>, sheet: Setup): string => {
  const [said, belongs] = [saidMm, belongsMm].map((mm) => toCounts(mm, scales[sheet.unit])) as [number, number];
  return oneDigitApart(said, belongs, 1) ? " The two differ in one digit." : "";
};

/** A figure that is none of the known ones: what was stated, and what belonged. */
export function figureTold({ figure, register, mm }: Term, value: RegisterRuling, sheet: Setup): string {
  if (register) return `${registerWords(register)} holds ${say(figure?.saidMm ?? mm, sheet)}; nothing belongs there.`;
  if (!figure) return `The figure was ${say(Math.abs(mm), sheet)} off the one that belongs.`;
  const { saidMm, belongsMm } = figure;
  if (value.target.kind === "turn") return `${formatMm(saidMm)}° was called; ${formatMm(belongsMm)}° was read.`;
  if (value.target.kind === "height")
    return `It was moved by ${show(saidMm, sheet)}; ${show(belongsMm, sheet)} was wanted.`;
  return `You told the machine ${show(saidMm, sheet)} where ${show(belongsMm, sheet)} belonged.${digits(figure, sheet)}`;
}

export const keysWords = ({ figure }: Term, what: string, sheet: Setup): string =>
  figure
    ? `${show(figure.saidMm, sheet)} went in where ${show(figure.belongsMm, sheet)} belonged: ${what}`
    : `The figure is right but for one thing: ${what}`;

export const times = (count: string, name: string, value: number | undefined, show: Show): string =>
  `${count}${name} ${show(value ?? 0)}`;
export const toward = ({ approach }: Figures, isSame: boolean): string => ((approach === 1) === isSame ? "+" : "−");
