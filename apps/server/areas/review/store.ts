import { and, asc, eq } from "drizzle-orm";
import type { LaneNote, NoteRequest, OverrideRequest } from "@probe-lane/contract";
import type { Database } from "../../db/client";
import { laneNotes, markOverrides } from "../../db/schema";

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
  addOverride: async (attemptId: string, { strand, marks, reason }: OverrideRequest, byName: string): Promise<void> => {
    await db.insert(markOverrides).values({ attemptId, strand, marks, reason, byName });
  },
});
export type ReviewStore = ReturnType<typeof reviewStore>;
