import { and, asc, eq, isNull, sql } from "drizzle-orm";
import type { LaneNote, Look, NoteRequest, OverrideRequest } from "@probe-lane/contract";
import type { Database } from "../../db/client";
import { assignments, attempts, exercises, laneNotes, looks, markOverrides, users } from "../../db/schema";

export const reviewStore = (db: Database) => ({
  async notes(attemptId: string): Promise<LaneNote[]> {
    const rows = await db
      .select()
      .from(laneNotes)
      .where(eq(laneNotes.attemptId, attemptId))
      .orderBy(asc(laneNotes.seq), asc(laneNotes.at));
    return rows.map(({ id, seq, text, byName, at }) => ({ id, seq, text, by: byName, at: at.toISOString() }));
  },
  addNote: async (attemptId: string, { seq, text }: NoteRequest, byName: string): Promise<void> => {
    await db.insert(laneNotes).values({ attemptId, seq, text, byName });
  },
  removeNote: async (attemptId: string, id: string): Promise<boolean> =>
    (
      await db
        .delete(laneNotes)
        .where(and(eq(laneNotes.attemptId, attemptId), eq(laneNotes.id, id)))
        .returning({ id: laneNotes.id })
    ).length > 0,
  async looks(attemptId: string): Promise<Look[]> {
    const rows = await db.select().from(looks).where(eq(looks.attemptId, attemptId)).orderBy(asc(looks.at));
    return rows.map(({ id, asked, at, answer, byName, answeredAt }) => ({
      id,
      asked,
      at: at.toISOString(),
      answer,
      by: byName,
      answeredAt: answeredAt?.toISOString() ?? null,
    }));
  },
  /** False where a question waits already. */
  async ask(attemptId: string, asked: string, at: Date): Promise<boolean> {
    const rows = await db
      .insert(looks)
      .values({ attemptId, asked, at })
      .onConflictDoNothing()
      .returning({ id: looks.id });
    return rows.length === 1;
  },
  /** False where none waits. */
  async answer(attemptId: string, answered: { answer: string; byName: string; answeredAt: Date }): Promise<boolean> {
    const rows = await db
      .update(looks)
      .set(answered)
      .where(and(eq(looks.attemptId, attemptId), isNull(looks.answer)))
      .returning({ id: looks.id });
    return rows.length === 1;
  },
  /** Lanes of a class of which a question waits, the oldest first. */
  openLooks: (classId: string) =>
    db
      .select({
        laneId: attempts.id,
        studentName: users.name,
        title: sql<string>`${exercises.body}->>'title'`,
        asked: looks.asked,
      })
      .from(looks)
      .innerJoin(attempts, eq(attempts.id, looks.attemptId))
      .innerJoin(assignments, eq(assignments.id, attempts.assignmentId))
      .innerJoin(users, eq(users.id, attempts.studentId))
      .innerJoin(
        exercises,
        and(eq(exercises.id, assignments.exerciseId), eq(exercises.version, assignments.exerciseVersion)),
      )
      .where(and(eq(assignments.classId, classId), isNull(looks.answer)))
      .orderBy(asc(looks.at)),
  addOverride: async (attemptId: string, { strand, marks, reason }: OverrideRequest, byName: string): Promise<void> => {
    await db.insert(markOverrides).values({ attemptId, strand, marks, reason, byName });
  },
});
export type ReviewStore = ReturnType<typeof reviewStore>;
