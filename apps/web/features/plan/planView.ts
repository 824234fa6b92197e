import type { PlanChange, PlanRow, PlanView } from "@probe-lane/contract";
import type { MustHave } from "@probe-lane/core/grading";
import { machineWords, mustHaveWords } from "@probe-lane/core/words";
import { addDays, format, parseISO } from "date-fns";

const DAYS = 7;
const LEAST_WEEKS = 20;

/** Weeks that can be chosen; one that is later already stays among them. */
export const weeksOffered = (held: number | null): number[] =>
  Array.from({ length: Math.max(LEAST_WEEKS, held ?? 0) }, (_, at) => at + 1);

/** What of a row is changed and sent; the rest of it is only shown. */
export const changeOf = ({
  week,
  opensAt,
  dueAt,
  late,
  attemptsAllowed,
  isCoachOn,
  isGiven,
  mustHaves,
}: PlanRow): PlanChange => ({
  week,
  opensAt,
  dueAt,
  late,
  attemptsAllowed,
  isCoachOn,
  isGiven,
  mustHaves,
});

/** What stands over points in a row, by the class or by the exercise's marking: those of it that can be missed. */
export const askedOf = ({ mustHaves, markedOn, canMiss }: PlanRow): MustHave[] =>
  canMiss.filter((name) => (mustHaves ?? markedOn)?.[name] === true);

/** What is asked for over points, in words. */
export const overWords = (names: readonly MustHave[]): string =>
  names.length === 0 ? "Nothing: points alone count." : `${names.map((name) => mustHaveWords[name].asks).join("; ")}.`;

const shown = (at: string): string => format(new Date(at), "EEE d MMM, HH:mm");

/** When a row opens and is due, in words; nothing where it always is open. */
export function dayWords({ opens, due, late }: PlanRow): string[] {
  return [
    ...(opens ? [`opens ${shown(opens)}`] : []),
    ...(due ? [`due ${shown(due)}`, late === "taken" ? "late is taken" : "late is refused"] : []),
  ];
}

interface Group {
  readonly name: string;
  readonly note: string;
  /** The week of today. */
  readonly isNow: boolean;
  readonly rows: readonly PlanRow[];
}

const exercises = (many: number): string => (many === 1 ? "1 exercise" : `${many} exercises`);

/** The plan as it is read: weeks, then what has a day without a week, then the shelf, then what is not given. */
export function groupsOf({ startsOn, rows }: PlanView, now: Date): Group[] {
  const given = rows.filter(({ isGiven }) => isGiven);
  const weeks = [...new Set(given.flatMap(({ week }) => (week === null ? [] : [week])))].sort((a, b) => a - b);
  const first = startsOn === null ? null : parseISO(startsOn);
  const ofWeek = (week: number): Group => {
    const of = given.filter((row) => row.week === week);
    const from = first && addDays(first, (week - 1) * DAYS);
    const to = from && addDays(from, DAYS);
    const isNow = from !== null && to !== null && now >= from && now < to;
    const days = from && to ? `${format(from, "d MMM")} to ${format(addDays(to, -1), "d MMM")} · ` : "";
    return {
      name: `Week ${week}`,
      note: `${isNow ? "this week · " : ""}${days}${exercises(of.length)}`,
      isNow,
      rows: of,
    };
  };
  const others: [string, readonly PlanRow[]][] = [
    ["By a day of its own", given.filter(({ week, dueAt, opensAt }) => week === null && (dueAt ?? opensAt) !== null)],
    ["Practice shelf", given.filter(({ week, dueAt, opensAt }) => week === null && (dueAt ?? opensAt) === null)],
    ["Not given", rows.filter(({ isGiven }) => !isGiven)],
  ];
  return [
    ...weeks.map(ofWeek),
    ...others
      .filter(([, of]) => of.length > 0)
      .map(([name, of]) => ({ name, note: exercises(of.length), isNow: false, rows: of })),
  ];
}

/** Rows that have every word that is sought, in their title, story or machine. */
export function soughtIn(rows: readonly PlanRow[], sought: string): PlanRow[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  return rows.filter(({ title, story, machine }) => {
    const text = `${title} ${story} ${machineWords[machine]}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
}

/** All assignments in their order, two of them exchanged. */
export const swapped = (rows: readonly PlanRow[], one: string, other: string): string[] =>
  rows.map(({ id }) => (id === one ? other : id === other ? one : id));
