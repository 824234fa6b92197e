import { and, asc, desc, eq, isNotNull, isNull, notExists, sql } from "drizzle-orm";
import { markingSchema, type Marking, type MustHaves } from "@probe-lane/core/exercises";
import type { Ruling } from "@probe-lane/core/grading";
import type { Database } from "../../db/client";
import { revisionsFor } from "../lanes/store";
import {
  assignments,
  attempts,
  classes,
  exercises,
  laneEvents,
  markingRevisions,
  markingTrials,
  regrades,
  rulings,
  trialMarks,
  users,
} from "../../db/schema";

/** An exercise version as one school marks it: what a marking revision belongs to. */
export interface MarkingKey {
  readonly exerciseId: string;
  readonly exerciseVersion: number;
  readonly school: string;
}
export type RegradeRow = typeof regrades.$inferSelect;
export type TrialRow = typeof markingTrials.$inferSelect;

export const regradeStore = (db: Database) => {
  const ofExercise = ({ exerciseId, exerciseVersion, school }: MarkingKey) =>
    and(
      eq(assignments.exerciseId, exerciseId),
      eq(assignments.exerciseVersion, exerciseVersion),
      eq(classes.schoolName, school),
      isNotNull(attempts.handedInAt),
    );

  return {
    async assignment(id: string, classId: string) {
      const [row] = await db
        .select({
          exerciseId: assignments.exerciseId,
          exerciseVersion: assignments.exerciseVersion,
          school: classes.schoolName,
          title: sql<string>`${exercises.body}->>'title'`,
        })
        .from(assignments)
        .innerJoin(classes, eq(classes.id, assignments.classId))
        .innerJoin(
          exercises,
          and(eq(exercises.id, assignments.exerciseId), eq(exercises.version, assignments.exerciseVersion)),
        )
        .where(and(eq(assignments.id, id), eq(assignments.classId, classId)))
        .limit(1);
      return row ?? null;
    },
    /** The exercise and the class that an assignment joins. */
    async placeOf(assignmentId: string): Promise<(MarkingKey & { classId: string }) | null> {
      const { exerciseId, exerciseVersion, classId } = assignments;
      const [row] = await db
        .select({ exerciseId, exerciseVersion, classId, school: classes.schoolName })
        .from(assignments)
        .innerJoin(classes, eq(classes.id, classId))
        .where(eq(assignments.id, assignmentId))
        .limit(1);
      return row ?? null;
    },
    async revisions(key: MarkingKey): Promise<Marking[]> {
      const rows = await db
        .select({ body: markingRevisions.body })
        .from(markingRevisions)
        .where(revisionsFor(key))
        .orderBy(desc(markingRevisions.revision));
      return rows.map(({ body }) => markingSchema.parse(body));
    },
    /** Lanes of the exercise that are handed in: of one class, or of the whole school. */
    handedIn: (key: MarkingKey, classId: string | null) =>
      db
        .select({ id: attempts.id, studentName: users.name, attempt: attempts.number })
        .from(attempts)
        .innerJoin(assignments, eq(assignments.id, attempts.assignmentId))
        .innerJoin(classes, eq(classes.id, assignments.classId))
        .innerJoin(users, eq(users.id, attempts.studentId))
        .where(
          and(
            ofExercise(key),
            eq(attempts.isTrial, false),
            classId === null ? undefined : eq(assignments.classId, classId),
          ),
        )
        .orderBy(asc(users.name), asc(attempts.number)),
    /** Those of them that have no ruling yet by this revision and this version of the marking code. */
    unmarked: (key: MarkingKey, revision: number, version: string) =>
      db
        .select({ id: attempts.id })
        .from(attempts)
        .innerJoin(assignments, eq(assignments.id, attempts.assignmentId))
        .innerJoin(classes, eq(classes.id, assignments.classId))
        .where(
          and(
            ofExercise(key),
            notExists(
              db
                .select({ one: sql`1` })
                .from(rulings)
                .where(
                  and(
                    eq(rulings.attemptId, attempts.id),
                    eq(rulings.markingRevision, revision),
                    eq(rulings.version, version),
                  ),
                ),
            ),
          ),
        )
        .orderBy(asc(attempts.id)),
    /** What the class of a lane asks for over points, where it does itself. */
    async mustHavesOf(attemptId: string): Promise<MustHaves | null> {
      const [row] = await db
        .select({ own: assignments.mustHaves })
        .from(attempts)
        .innerJoin(assignments, eq(assignments.id, attempts.assignmentId))
        .where(eq(attempts.id, attemptId))
        .limit(1);
      return row?.own ?? null;
    },
    /** A log as it is stored: a worker thread reads it. */
    async storedLog(attemptId: string) {
      const rows = await db
        .select({ seq: laneEvents.seq, at: laneEvents.at, event: laneEvents.event })
        .from(laneEvents)
        .where(eq(laneEvents.attemptId, attemptId))
        .orderBy(asc(laneEvents.seq));
      return rows.map(({ at, ...row }) => ({ ...row, atMs: at.getTime() }));
    },
    /** A new revision and the marking again by it, together. Two at once: one is a unique violation. */
    begin: (key: MarkingKey, marking: Marking, byName: string, lanes: number): Promise<RegradeRow> =>
      db.transaction(async (tx) => {
        const { exerciseId, exerciseVersion, school } = key;
        const of = { exerciseId, exerciseVersion, school, revision: marking.revision };
        await tx.insert(markingRevisions).values({ ...of, body: marking });
        const [row] = await tx
          .insert(regrades)
          .values({ ...of, byName, lanes })
          .returning();
        if (!row) throw new Error("begin: the regrade was not stored");
        return row;
      }),
    /** A ruling and the progress that it is, together: after a crash neither stands without the other. */
    saveRuling: (regradeId: string, attemptId: string, ruling: Ruling): Promise<void> =>
      db.transaction(async (tx) => {
        const saved = await tx
          .insert(rulings)
          .values({
            attemptId,
            version: ruling.version,
            markingRevision: ruling.markingRevision,
            total: ruling.total,
            body: ruling,
          })
          .onConflictDoNothing()
          .returning({ id: rulings.id });
        if (saved.length > 0)
          await tx
            .update(regrades)
            .set({ done: sql`${regrades.done} + 1` })
            .where(eq(regrades.id, regradeId));
      }),
    finish: async (id: string): Promise<void> => {
      await db
        .update(regrades)
        .set({ finishedAt: new Date(), done: sql`${regrades.lanes}` })
        .where(and(eq(regrades.id, id), isNull(regrades.finishedAt)));
    },
    async regrade(id: string): Promise<RegradeRow | null> {
      const [row] = await db.select().from(regrades).where(eq(regrades.id, id)).limit(1);
      return row ?? null;
    },
    async latest({ exerciseId, exerciseVersion, school }: MarkingKey): Promise<RegradeRow | null> {
      const [row] = await db
        .select()
        .from(regrades)
        .where(
          and(
            eq(regrades.exerciseId, exerciseId),
            eq(regrades.exerciseVersion, exerciseVersion),
            eq(regrades.school, school),
          ),
        )
        .orderBy(desc(regrades.startedAt))
        .limit(1);
      return row ?? null;
    },
    /** A trial of a marking; those of another day are swept away. */
    beginTrial: (assignmentId: string, marking: Marking, lanes: number): Promise<TrialRow> =>
      db.transaction(async (tx) => {
        await tx.delete(markingTrials).where(sql`${markingTrials.startedAt} < now() - interval '1 day'`);
        const [row] = await tx.insert(markingTrials).values({ assignmentId, marking, lanes }).returning();
        if (!row) throw new Error("beginTrial: the trial was not stored");
        return row;
      }),
    async trial(id: string): Promise<TrialRow | null> {
      const [row] = await db.select().from(markingTrials).where(eq(markingTrials.id, id)).limit(1);
      return row ?? null;
    },
    /** Ends a trial: through, or given up. One that has ended stays as it is. */
    endTrial: async (id: string, how: "finishedAt" | "cancelledAt"): Promise<void> => {
      await db
        .update(markingTrials)
        .set({ [how]: new Date() })
        .where(and(eq(markingTrials.id, id), isNull(markingTrials.finishedAt), isNull(markingTrials.cancelledAt)));
    },
    trialMarks: (trialId: string) => db.select().from(trialMarks).where(eq(trialMarks.trialId, trialId)),
    saveTrial: async (trialId: string, attemptId: string, { total, outOf }: Ruling): Promise<void> => {
      await db.insert(trialMarks).values({ trialId, attemptId, total, outOf }).onConflictDoNothing();
    },
    /** Trials that are neither through nor given up. */
    openTrials: () =>
      db
        .select({ id: markingTrials.id })
        .from(markingTrials)
        .where(and(isNull(markingTrials.finishedAt), isNull(markingTrials.cancelledAt))),
    unfinished: () => db.select({ id: regrades.id }).from(regrades).where(isNull(regrades.finishedAt)),
  };
};
export type RegradeStore = ReturnType<typeof regradeStore>;
