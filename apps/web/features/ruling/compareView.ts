import { isValueRight, type Ruling } from "@probe-lane/core/grading";
import { causeWords, findingWords, incidentWords, targetWords } from "@probe-lane/core/words";
import { marks, shown, STRANDS } from "./show";

/** One line of the comparison; `better`: which of the two was better there, null when neither. */
export interface CompareRow {
  name: string;
  left: string;
  right: string;
  better: "left" | "right" | null;
}

const LEAST = 0.05;
const better = (left: number, right: number): CompareRow["better"] => {
  if (Math.abs(left - right) < LEAST) return null;
  return left > right ? "left" : "right";
};

/**
 * Two rulings of one exercise, strand by strand and value by value. Every attempt has a part of its own, so closures
 * are compared and never registers.
 */
export function compareRows(left: Ruling, right: Ruling): { strands: CompareRow[]; values: CompareRow[] } {
  const of = <T>(found: T | undefined, words: (one: T) => string) => (found === undefined ? "–" : words(found));
  const strands = (Object.keys(STRANDS) as (keyof typeof STRANDS)[]).flatMap((name): CompareRow[] => {
    const [a, b] = [left, right].map(({ strands: all }) => all.find((one) => one.name === name));
    if (!a && !b) return [];
    const say = (one: NonNullable<typeof a>) => `${marks(one.marks)} / ${one.outOf}`;
    return [
      { name: STRANDS[name], left: of(a, say), right: of(b, say), better: a && b ? better(a.marks, b.marks) : null },
    ];
  });
  const targets = [...new Map([...left.values, ...right.values].map(({ target }) => [target.id, target])).values()];
  const values = targets.map((target): CompareRow => {
    const [a, b] = [
      left.values.find((one) => one.target.id === target.id),
      right.values.find((one) => one.target.id === target.id),
    ];
    const say = (ruling: Ruling) => (one: NonNullable<typeof a>) =>
      `${one.closureMm > 0 ? "+" : ""}${shown(one, one.closureMm, ruling.sheet)}`;
    return {
      name: `${targetWords(target)}, off by`,
      left: of(a, say(left)),
      right: of(b, say(right)),
      better: a && b ? better(a.marks, b.marks) : null,
    };
  });
  return { strands, values };
}

/** What went wrong in a ruling, a line each: causes, incidents, then what else cost marks. */
export function wentWrong(ruling: Ruling): string[] {
  const { sheet } = ruling;
  const causes = ruling.values
    .filter((value) => !isValueRight(value))
    .map((value) => causeWords(value, sheet).headline);
  const incidents = ruling.findings.flatMap((finding) =>
    finding.code === "incident"
      ? [`${incidentWords[finding.incident].charAt(0).toUpperCase()}${incidentWords[finding.incident].slice(1)}.`]
      : [],
  );
  const rest = ruling.findings
    .filter((finding) => finding.code === "stepMissed" || (finding.code === "working" && finding.fault !== null))
    .map((finding) => findingWords(finding, sheet.unit));
  return [...causes, ...incidents, ...rest];
}
