import { demoClass, demoExercises } from "../../demo";
import type { Database } from "./db/client";
import { assignments, exercises, markingRevisions } from "./db/schema";

export type Writer = Pick<Database, "insert">;

/** The school of the demo, which is nobody's own. */
export const DEMO_SCHOOL = demoClass.school;

const DAY_MS = 24 * 60 * 60 * 1000;
const DAYS_APART = 3;
const ATTEMPTS_ALLOWED = 5;

interface ShelfOptions {
  readonly now: Date;
  /** So many of the first are due, one after another; the rest lies on the practice shelf. */
  readonly due: number;
  /** Exercises that the class has already are left alone. */
  readonly has?: ReadonlySet<string>;
  readonly isCoachOn?: (place: number) => boolean;
}

/** Gives a class the exercises that come with the product; the ids of what it was given, by exercise. */
export async function fillShelf(
  tx: Writer,
  classId: string,
  { now, due, has = new Set(), isCoachOn = () => true }: ShelfOptions,
): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  for (const [place, { exercise, marking }] of demoExercises.entries()) {
    if (has.has(exercise.id)) continue;
    const key = { exerciseId: exercise.id, exerciseVersion: exercise.version };
    await tx
      .insert(exercises)
      .values({ id: exercise.id, version: exercise.version, body: exercise })
      .onConflictDoNothing();
    await tx
      .insert(markingRevisions)
      .values({ ...key, revision: marking.revision, body: marking })
      .onConflictDoNothing();
    const dueAt = place < due ? new Date(now.getTime() + (place + 1) * DAYS_APART * DAY_MS) : null;
    const [row] = await tx
      .insert(assignments)
      .values({ classId, ...key, place, dueAt, isCoachOn: isCoachOn(place), attemptsAllowed: ATTEMPTS_ALLOWED })
      .returning({ id: assignments.id });
    if (row) ids.set(exercise.id, row.id);
  }
  return ids;
}
