import { mmFromCounts } from "../units";
import type { LedgerLine, TermName } from "../lane";
import type { RegisterId } from "../registers";
import type { Counts } from "../units";
import type { CauseId } from "./cause";
import { catalog } from "./catalog";
import type { Ranked } from "./infer";

/**
 * What a figure was made of, against what belongs in it. All counts are signed as they add to the register: a tip
 * radius of 5 toward minus is −5000.
 */

/** What a share would come to if it were taken in a known wrong way. */
interface Slip {
  readonly id: CauseId;
  readonly counts: Counts;
}

/** One term of the figure that belongs, and the wrong ways of taking it. */
export interface Share {
  readonly term: TermName;
  readonly counts: Counts;
  readonly slips: readonly Slip[];
}

/** A whole other way to a figure: another contact, another column, another tool; by how much it differs. */
export interface OtherWay {
  readonly id: CauseId;
  readonly counts: Counts;
  readonly seq?: number | undefined;
  readonly tool?: number | undefined;
  readonly register?: RegisterId | undefined;
  /** It is about where the reading was taken: a working that has the contact's own rules it out. */
  readonly isReading?: boolean | undefined;
}

/** One share of a difference, with its name. */
interface NamedShare extends OtherWay {
  /** The figure that was stated, and the one that belonged; where the difference is one between two figures. */
  readonly figure?: { readonly said: Counts; readonly belongs: Counts } | undefined;
}

/** A difference taken apart: shares that add up to it, and what else the figure may be when more than one name fits. */
export interface Naming {
  readonly shares: readonly NamedShare[];
  readonly ranked: readonly Ranked[] | null;
  /** The working shows it line by line. */
  readonly isWritten?: boolean | undefined;
}

export interface FigureQuestion {
  /** What was stated less what belongs. */
  readonly delta: Counts;
  readonly shares: readonly Share[];
  readonly others: readonly OtherWay[];
  /** The figure as it went in by the keys, and the one that belonged there. */
  readonly keyed: { readonly said: Counts; readonly belongs: Counts };
  /** A figure that was added last, as it went in, where one was. */
  readonly addedCounts: Counts | null;
  /** A whole register was typed, so that digits may have slipped; a term of one sentence is too short to tell. */
  readonly isWholeRegister: boolean;
  readonly written: Written | null;
  /** What a right working has: the reading that the figure hangs on, and the terms beside it. */
  readonly ledger: { readonly sourceCounts: Counts; readonly shares: readonly Share[] };
}

/** The lines of one register: its last reading, each term, what was written under another name, the sum. */
export interface Written {
  readonly reading: Counts | null;
  readonly terms: ReadonlyMap<TermName, Counts>;
  readonly sum: Counts | null;
  /** The reading's own line. */
  readonly line: number | null;
}

/** Figures agree when they differ by no more than rounding on two readings, counts. */
export const AGREE_COUNTS = 2;
/** A figure this small agrees with too many others to be two increments off what it is named by, counts. */
const SHORT_COUNTS = 100;
/** A name stands alone when no other comes nearer to the figure than this beyond the agreement, counts. */
const APART_COUNTS = 3;
/** How often another figure happens to differ in one digit. */
const ROUND_FIGURE_PRIOR = 0.005;
/** A name this unlikely beside another one is not weighed. */
const LEAST_ODDS = 0.02;
const PAIR_FACTOR = 0.1;
/** Names that no catalog weighs are as frequent as the middle of it. */
const USUAL_PRIOR = 0.05;

const priorOf = (id: CauseId): number =>
  Object.hasOwn(catalog, id) ? catalog[id as keyof typeof catalog].prior : USUAL_PRIOR;
const isNear = (a: Counts, b: Counts, within = AGREE_COUNTS): boolean => Math.abs(a - b) <= within;

/**
 * The lines that a register's working has; null where there is none. Of a middle the reading is that of its last two on
 * both sides, further apart than `apartCounts`.
 */
export function writtenIn(
  ledger: readonly LedgerLine[],
  registers: readonly RegisterId[],
  apartCounts = Infinity,
): Written | null {
  const lines = ledger.filter(({ register, isHandedOver }) => registers.includes(register) && !isHandedOver);
  if (lines.length === 0) return null;
  const readings = lines.filter(({ kind }) => kind === "reading");
  const reading = readings.at(-1);
  const other = readings.findLast(({ counts }) => Math.abs(counts - (reading?.counts ?? 0)) > apartCounts);
  const terms = new Map<TermName, Counts>();
  for (const { kind, term, counts } of lines)
    if (kind === "term" && term) terms.set(term, (terms.get(term) ?? 0) + counts);
  return {
    reading: reading ? Math.round((reading.counts + (other ?? reading).counts) / 2) : null,
    line: reading?.line ?? null,
    terms,
    sum: lines.findLast(({ kind }) => kind === "sum")?.counts ?? null,
  };
}

interface Candidate {
  readonly parts: readonly NamedShare[];
  readonly counts: Counts;
  readonly weight: number;
}

const alone = (part: NamedShare): Candidate => ({ parts: [part], counts: part.counts, weight: priorOf(part.id) });

/** Every single wrong way: of a share, or of the whole figure. Ways that leave nothing are none. */
function singles({
  shares,
  others,
  written,
  ledger,
  isWholeRegister,
}: FigureQuestion): { of: number; candidate: Candidate }[] {
  // a term that the working has as it belongs was not taken wrongly where the register was typed from that working
  const isRight = ({ term, counts }: Share) =>
    isWholeRegister && written?.terms.has(term) === true && isNear(written.terms.get(term) ?? 0, counts);
  const ofShares = shares.flatMap((share, of) => {
    const { counts, slips } = share;
    return isRight(share)
      ? []
      : slips.map((slip) => ({
          of,
          candidate: alone({
            id: slip.id,
            counts: slip.counts - counts,
            figure: { said: slip.counts, belongs: counts },
          }),
        }));
  });
  const isReadRight = written !== null && written.reading !== null && isNear(written.reading, ledger.sourceCounts);
  const ways = others.filter(({ isReading }) => !(isReading && isReadRight));
  return [...ofShares, ...ways.map((other) => ({ of: -1, candidate: alone(other) }))].filter(
    ({ candidate }) => candidate.counts !== 0,
  );
}

/** Two wrong ways at once: of two shares, or of one and of the whole. A share is left out or turned, never both. */
function pairs(ways: ReturnType<typeof singles>): Candidate[] {
  return ways.flatMap((first, i) =>
    ways.slice(i + 1).flatMap((second) =>
      first.of === second.of
        ? []
        : [
            {
              parts: [...first.candidate.parts, ...second.candidate.parts],
              counts: first.candidate.counts + second.candidate.counts,
              weight: first.candidate.weight * second.candidate.weight * PAIR_FACTOR,
            },
          ],
    ),
  );
}

/** What it is called where this figure's sign is turned. */
function signOf({ delta, keyed: { said, belongs }, others }: FigureQuestion): CauseId {
  const sign = said - belongs === delta ? 1 : -1;
  return others.find(({ counts }) => isNear(counts, sign * -2 * belongs))?.id ?? "wholeSignTurned";
}

/** A wrong way, and the sign of the whole figure turned besides. */
function turnedWhole(question: FigureQuestion, ways: ReturnType<typeof singles>): Candidate[] {
  const { said, belongs } = question.keyed;
  const sign = said - belongs === question.delta ? 1 : -1;
  const id = signOf(question);
  return ways.flatMap(({ candidate }) => {
    const meant = belongs + sign * candidate.counts;
    if (meant === 0 || !isNear(said, -meant)) return [];
    const turned = { id, counts: sign * -2 * meant, figure: { said, belongs: meant } };
    return [
      {
        parts: [turned, ...candidate.parts],
        counts: turned.counts + candidate.counts,
        weight: candidate.weight * priorOf("wholeSignTurned") * PAIR_FACTOR,
      },
    ];
  });
}

/** Slips of the keys: sign, decimal point, unit, two digits changed round; each with the figure that it would give. */
function keyed({ delta, keyed: whole, addedCounts, shares }: FigureQuestion): Candidate[] {
  // what was added went in by keys of its own; where it is a share as it belongs, what it was added to was wrong
  const isShare = shares.some(({ counts }) => isNear(counts, addedCounts ?? 0));
  const figures =
    addedCounts === null
      ? [whole]
      : [
          { said: addedCounts, belongs: addedCounts - delta },
          ...(isShare ? [{ said: whole.said - addedCounts, belongs: whole.belongs - addedCounts }] : []),
        ];
  return figures.flatMap((figure) => {
    // what was meant may have been rounded the other way
    const slip = [0, 1, -1].reduce<ReturnType<typeof slipOfKeys>>(
      (found, by) => found ?? slipOfKeys(figure.said, figure.belongs + by),
      null,
    );
    if (slip === null) return [];
    // signed as the difference is: a capture is told its value with the other sign
    const sign = figure.said - figure.belongs === delta ? 1 : -1;
    const counts = sign * Math.round(slip.gives - figure.belongs);
    return [{ ...alone({ id: slip.id, counts: delta, figure }), counts }];
  });
}

/** Figures smaller than these are a tenth, or an inch, of too many others. */
const LEAST_TOLD_COUNTS = { tenth: 5, inch: 20 } as const;

/** What slip of the keys makes one figure of another, and the figure that it gives exactly; null when none does. */
export function slipOfKeys(said: Counts, belongs: Counts): { readonly id: CauseId; readonly gives: number } | null {
  if (belongs === 0 || said === belongs) return null;
  // a figure of a few digits is a digit from many others
  const isLong = Math.abs(belongs) >= TELLING_PLACE_COUNTS;
  if (isNear(said, -belongs)) return { id: "wholeSignTurned", gives: -belongs };
  const least = Math.min(Math.abs(said), Math.abs(belongs));
  for (const times of [10, 0.1]) {
    if (least >= LEAST_TOLD_COUNTS.tenth && isNear(said, belongs * times, 1))
      return { id: "decimalShifted", gives: belongs * times };
  }
  for (const times of [25.4, 1 / 25.4]) {
    if (least >= LEAST_TOLD_COUNTS.inch && isNear(said, belongs * times, 1))
      return { id: "inchForMm", gives: belongs * times };
  }
  // one digit and a nought changed round is the point in another place
  const isPoint = said === belongs * 10 || belongs === said * 10;
  if (digitsSwapped(said, belongs)) return { id: isPoint ? "decimalShifted" : "digitsSwapped", gives: said };
  return isLong && isDigitMistyped(said, belongs) ? { id: "digitMistyped", gives: said } : null;
}

function digitsSwapped(said: Counts, belongs: Counts): boolean {
  const rows = [said, belongs].map((counts) => mmFromCounts(Math.abs(counts)).toFixed(3));
  const length = Math.max(...rows.map((row) => row.length));
  // a nought in front is no digit that is shown
  const [a = "", b = ""] = rows.map((row) => row.padStart(length, "0"));
  if (said === belongs || Math.sign(said) !== Math.sign(belongs)) return false;
  const places = [...a].flatMap((digit, i) => (digit === b[i] ? [] : [i]));
  const [i, j] = places;
  if (places.length !== 2 || i === undefined || j === undefined || a[i] !== b[j] || a[j] !== b[i]) return false;
  return j === i + 1 || (j === i + 2 && a[i + 1] === ".");
}

/** A digit from this place up is told from rounding. */
const TELLING_DIGIT_COUNTS = 1000;
/** Digits from this place up are told from other slips by the figure alone: nothing in a setup is a round 10 mm off. */
const TELLING_PLACE_COUNTS = 10_000;

/** One digit is another one, or one is missing, at a place that nothing but a slip of the finger puts off. */
function isDigitMistyped(said: Counts, belongs: Counts): boolean {
  const off = Math.abs(said - belongs);
  const place = 10 ** Math.floor(Math.log10(Math.max(1, off)));
  const isOneDigit = off >= TELLING_PLACE_COUNTS && isNear(off % place, 0) && off / place < 9.5;
  return isOneDigit || oneDigitApart(said, belongs, TELLING_PLACE_COUNTS);
}

/** Whether two figures of one sign differ in one digit of their row, no smaller than a place; or in one left out. */
export function oneDigitApart(said: Counts, belongs: Counts, leastCounts: Counts): boolean {
  if (said === belongs || Math.sign(said) !== Math.sign(belongs)) return false;
  const [a, b] = [said, belongs].map((counts) => String(Math.abs(counts)).padStart(4, "0")) as [string, string];
  if (a.length === b.length) {
    const places = [...a].flatMap((digit, i) => (digit === b[i] ? [] : [i]));
    const [place = 0] = places;
    return places.length === 1 && 10 ** (a.length - 1 - place) >= leastCounts;
  }
  const [longer, shorter] = a.length > b.length ? [a, b] : [b, a];
  return (
    longer.length === shorter.length + 1 &&
    [...longer].some((_, i) => longer.slice(0, i) + longer.slice(i + 1) === shorter) &&
    Math.abs(said - belongs) >= leastCounts
  );
}

/** How far a figure may be rounded off what it is named by, deviations in counts. */
const ROUNDED_BY = 1.5;
const oddsOf = ({ weight, counts }: Candidate, delta: Counts): number =>
  weight * Math.exp(-0.5 * ((counts - delta) / ROUNDED_BY) ** 2);

/**
 * The likeliest of those that meet the difference, with what else comes as near; null when none does. `besides` may
 * come as near as well, but a way that gives the very same figure is the same thing by another name.
 */
function bestOf(candidates: readonly Candidate[], delta: Counts, besides: readonly Candidate[] = []): Naming | null {
  const hits = candidates
    .filter(({ counts }) => isNear(counts, delta, Math.abs(counts) < SHORT_COUNTS ? 1 : AGREE_COUNTS))
    .sort((a, b) => oddsOf(b, delta) - oddsOf(a, delta));
  const [first] = hits;
  if (!first) return null;
  const name = ({ parts }: Candidate) => parts.map(({ id }) => id).join(" ");
  const near = [...candidates, ...besides.filter(({ counts }) => counts !== first.counts)].filter(({ counts }) =>
    isNear(counts, delta, AGREE_COUNTS + APART_COUNTS),
  );
  const distinct = near
    .filter((one, i) => near.findIndex((two) => name(two) === name(one)) === i)
    .sort((a, b) => oddsOf(b, delta) - oddsOf(a, delta));
  const [best = first] = distinct;
  const total = distinct.reduce((sum, one) => sum + oddsOf(one, delta), 0);
  const ranked = distinct
    .map((one) => ({ ids: one.parts.map(({ id }) => id), probability: oddsOf(one, delta) / total }))
    .filter(({ probability }) => probability >= LEAST_ODDS);
  return { shares: exactly(best.parts, delta), ranked: ranked.length > 1 ? ranked : null };
}

/** Named shares that add up to the difference itself: what rounding left stays with the largest. */
function exactly(parts: readonly NamedShare[], delta: Counts): NamedShare[] {
  const left = delta - parts.reduce((sum, { counts }) => sum + counts, 0);
  const largest = parts.reduce((best, one) => (Math.abs(one.counts) > Math.abs(best.counts) ? one : best));
  return parts.map((one) => (one === largest ? { ...one, counts: one.counts + left } : one));
}

/**
 * What the ledger itself says of a figure, line by line; null where it does not lead to what was stated. A working that
 * is right and a figure that is not is a slip at the keys.
 */
function byLedger({ written, ledger, delta, others }: FigureQuestion): Naming | "right" | null {
  if (!written || written.reading === null) return null;
  const { sourceCounts, shares } = ledger;
  const found: NamedShare[] = [];
  const readingOff = written.reading - sourceCounts;
  if (!isNear(readingOff, 0)) {
    const other = others.find(({ counts }) => isNear(counts, readingOff));
    found.push({
      ...(other ?? { id: "otherReading" as const }),
      counts: readingOff,
      figure: { said: written.reading, belongs: sourceCounts },
    });
  }
  found.push(...termsOff(written, shares));
  const lines = written.reading + [...written.terms.values()].reduce((sum, counts) => sum + counts, 0);
  if (written.sum !== null && !isNear(written.sum, lines))
    found.push({ id: "wrongSum", counts: written.sum - lines, figure: { said: written.sum, belongs: lines } });
  const leads = found.reduce((sum, { counts }) => sum + counts, 0);
  if (isNear(leads, delta, AGREE_COUNTS * 2) && found.length > 0)
    return { shares: exactly(found, delta), ranked: null };
  return found.length === 0 && written.sum !== null ? "right" : null;
}

/** Terms of a ledger against those that belong: left out, turned, another figure, or too many. */
function termsOff({ terms }: Written, shares: readonly Share[]): NamedShare[] {
  const names = new Set(shares.map(({ term }) => term));
  let extra = [...terms].reduce((sum, [term, counts]) => (names.has(term) ? sum : sum + counts), 0);
  const off = [...names].flatMap((name): NamedShare[] => {
    const own = shares.filter(({ term }) => term === name);
    const belongs = own.reduce((sum, { counts }) => sum + counts, 0);
    const said = terms.get(name) ?? 0;
    if (isNear(said, belongs)) return [];
    // written under another name
    if (said === 0 && isNear(extra, belongs)) {
      extra = 0;
      return [];
    }
    const slip = own
      .flatMap(({ counts, slips }) => slips.map((one) => ({ id: one.id, total: belongs - counts + one.counts })))
      .find(({ total }) => isNear(total, said));
    return [{ id: slip?.id ?? "otherFigure", counts: said - belongs, figure: { said, belongs } }];
  });
  return isNear(extra, 0) ? off : [...off, { id: "otherFigure", counts: extra, figure: { said: extra, belongs: 0 } }];
}

/** A short figure in the other unit comes to one digit, too: then the digit is not singled out. */
const isOtherUnit = (said: Counts, worked: Counts): boolean =>
  isNear(said, worked / 25.4, 1) || isNear(said, worked * 25.4, 13);

/**
 * Takes the difference between a stated figure and the one that belongs apart. Nothing below rounding is named; what
 * nothing names is said as it is: the figure, and the one that belonged.
 */
export function nameFigure(question: FigureQuestion): Naming {
  const { delta, keyed: figure } = question;
  if (isNear(delta, 0)) return { shares: delta === 0 ? [] : [{ id: "rounding", counts: delta }], ranked: null };
  const ledger = byLedger(question);
  const written = ledger !== "right" && ledger !== null ? { ...ledger, shares: told(ledger.shares, question) } : null;
  if (written && written.shares.every(({ id }) => !VAGUE.has(id))) return { ...written, isWritten: true };
  const ways = singles(question);
  const slips = keyed(question);
  const one = bestOf(
    ways.map(({ candidate }) => candidate),
    delta,
    slips,
  );
  if (one) return one;
  if (written) return written;
  const [slip] = slips;
  if (slip) return { shares: slip.parts, ranked: doubtOf(slip, ledger === "right") };
  // the working is right to the last line: what stands in the register is a slip of the finger, one digit of it
  const worked = workedOut(question);
  // in a sentence the working may have been rounded the other way, which tells nothing of its last digits
  const isOneDigit =
    (oneDigitApart(figure.said, worked, 1) && !isOtherUnit(figure.said, worked)) ||
    [1, -1].some((by) => oneDigitApart(figure.said, worked + by, TELLING_DIGIT_COUNTS));
  if (ledger === "right" && isOneDigit)
    return { shares: [{ id: "digitMistyped", counts: delta, figure }], ranked: null };
  const two = bestOf([...pairs(ways), ...turnedWhole(question, ways)], delta);
  return two ?? { shares: [{ id: "otherFigure", counts: delta, figure }], ranked: null };
}

/** Lines that a working leaves without a name, by what a wrong way would make of them. */
function told(shares: readonly NamedShare[], question: FigureQuestion): readonly NamedShare[] {
  const ways = singles(question).map(({ candidate }) => candidate);
  return shares.flatMap((share) => {
    if (share.id !== "wrongSum" || !share.figure) return [share];
    const { said, belongs } = share.figure;
    if (isNear(said, -belongs)) return [{ ...share, id: signOf(question) }];
    return bestOf(ways, share.counts)?.shares ?? [share];
  });
}

/** The figure that a right working leads to, as it would go in by the keys: exact, where what belongs is only near. */
function workedOut({ keyed: { said, belongs }, delta, written, isWholeRegister }: FigureQuestion): Counts {
  if (written === null || written.sum === null) return belongs;
  const worked = isWholeRegister ? written.sum : written.sum - (written.reading ?? 0);
  return said - belongs === delta ? worked : -worked;
}

/** One digit that is another one may be another figure as well, where no working shows what was meant. */
function doubtOf({ parts }: Candidate, isWorkingRight: boolean): readonly Ranked[] | null {
  if (isWorkingRight || parts[0]?.id !== "digitMistyped") return null;
  const digit = priorOf("digitMistyped");
  const total = digit + ROUND_FIGURE_PRIOR;
  return [
    { ids: ["digitMistyped"], probability: digit / total },
    { ids: ["otherFigure"], probability: ROUND_FIGURE_PRIOR / total },
  ];
}

/** Names that say only that a line of the ledger is another than the one that belongs. */
const VAGUE: ReadonlySet<CauseId> = new Set(["otherFigure", "otherReading", "wrongSum"]);
