/** When an exercise may be begun: as it says itself, or by its week of a class that says when the first one begins. */
export interface Planned {
  readonly week: number | null;
  readonly opensAt: Date | null;
  readonly dueAt: Date | null;
  readonly late: "taken" | "refused";
  readonly isGiven: boolean;
  /** The day on which the first week of the class begins, as 2026-12-01. */
  readonly startsOn: string | null;
}
export interface Window {
  readonly opensAt: Date | null;
  readonly dueAt: Date | null;
}

const DAYS = 7;
/** Midnight, by the clock of this machine, so many days after a day. */
function dayAfter(day: string, days: number): Date {
  const [year = 0, month = 1, date = 1] = day.split("-").map(Number);
  return new Date(year, month - 1, date + days);
}

/** An own day goes before that of the week; a week ends with its last minute. */
export function windowOf({ week, opensAt, dueAt, startsOn }: Omit<Planned, "late" | "isGiven">): Window {
  if (week === null || startsOn === null) return { opensAt, dueAt };
  const end = new Date(dayAfter(startsOn, week * DAYS).getTime() - 60_000);
  return { opensAt: opensAt ?? dayAfter(startsOn, (week - 1) * DAYS), dueAt: dueAt ?? end };
}

/** What keeps a student from beginning now; null where nothing does. */
export function closedBy(row: Planned, now: Date): "notGiven" | "notOpenYet" | "windowOver" | null {
  const { opensAt, dueAt } = windowOf(row);
  if (!row.isGiven) return "notGiven";
  if (opensAt && now < opensAt) return "notOpenYet";
  return dueAt && now > dueAt && row.late === "refused" ? "windowOver" : null;
}
