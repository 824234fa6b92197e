import { and, asc, eq, sql } from "drizzle-orm";
import type { Database } from "../../db/client";
import { assignments, classes, exercises, markingRevisions, SHELF } from "../../db/schema";

export type PlanChange = Pick<
  typeof assignments.$inferInsert,
  "week" | "opensAt" | "dueAt" | "late" | "attemptsAllowed" | "isCoachOn" | "isGiven" | "mustHaves"
>;

export const planStore = (db: Database) => {
  const own = (classId: string, id: string) => and(eq(assignments.id, id), eq(assignments.classId, classId));
  return {
    rows: (classId: string) =>
      db
        .select({
          id: assignments.id,
          exerciseId: assignments.exerciseId,
          exercise: exercises.body,
          week: assignments.week,
          opensAt: assignments.opensAt,
          dueAt: assignments.dueAt,
          late: assignments.late,
          attemptsAllowed: assignments.attemptsAllowed,
          isCoachOn: assignments.isCoachOn,
          isGiven: assignments.isGiven,
          mustHaves: assignments.mustHaves,
          markedOn: sql<unknown>`(select m.body->'mustHaves' from ${markingRevisions} m
            where m.exercise_id = ${assignments.exerciseId} and m.exercise_version = ${assignments.exerciseVersion}
              and m.school in (${SHELF}, ${classes.schoolName}) order by m.revision desc limit 1)`,
          lanes: sql<number>`(select count(*)::int from attempts a where a.assignment_id = ${assignments.id} and not a.is_trial)`,
        })
        .from(assignments)
        .innerJoin(
          exercises,
          and(eq(exercises.id, assignments.exerciseId), eq(exercises.version, assignments.exerciseVersion)),
        )
        .innerJoin(classes, eq(classes.id, assignments.classId))
        .where(eq(assignments.classId, classId))
        .orderBy(asc(assignments.place), asc(assignments.id)),
    async startsOn(classId: string): Promise<string | null> {
      const [row] = await db.select({ day: classes.startsOn }).from(classes).where(eq(classes.id, classId)).limit(1);
      return row?.day ?? null;
    },
    setStart: async (classId: string, startsOn: string | null): Promise<void> => {
      await db.update(classes).set({ startsOn }).where(eq(classes.id, classId));
    },
    /** False where the class has no such assignment. */
    async change(classId: string, id: string, change: PlanChange): Promise<boolean> {
      const rows = await db.update(assignments).set(change).where(own(classId, id)).returning({ id: assignments.id });
      return rows.length === 1;
    },
    /** Puts the assignments of a class in this order; false, and nothing changed, where these are not all of them. */
    order: (classId: string, ids: readonly string[]): Promise<boolean> =>
      db.transaction(async (tx) => {
        const held = await tx
          .select({ id: assignments.id })
          .from(assignments)
          .where(eq(assignments.classId, classId))
          .for("update");
        const known = new Set(held.map(({ id }) => id));
        if (ids.length !== known.size || new Set(ids).size !== ids.length || ids.some((id) => !known.has(id)))
          return false;
        for (const [place, id] of ids.entries()) await tx.update(assignments).set({ place }).where(own(classId, id));
        return true;
      }),
  };
};
export type PlanStore = ReturnType<typeof planStore>;
