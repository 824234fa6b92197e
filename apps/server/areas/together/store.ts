import { and, asc, eq, gte, isNotNull, isNull, or, sql } from "drizzle-orm";
import type { TogetherView } from "@probe-lane/contract";
import type { Database } from "../../db/client";
import { classes, messages } from "../../db/schema";

const MOST_SHOWN = 20;

export const togetherStore = (db: Database) => ({
  say: async (said: typeof messages.$inferInsert): Promise<void> => {
    await db.insert(messages).values(said);
  },
  /** What was said to everybody or to this lane since a moment, the newest last. */
  async saidTo(lane: { classId: string; id: string; openedAt: Date }): Promise<TogetherView["messages"]> {
    const rows = await db
      .select()
      .from(messages)
      .where(
        and(
          eq(messages.classId, lane.classId),
          gte(messages.at, lane.openedAt),
          or(isNull(messages.attemptId), eq(messages.attemptId, lane.id)),
        ),
      )
      .orderBy(asc(messages.at));
    return rows.slice(-MOST_SHOWN).map(({ id, text, byName, at, attemptId }) => ({
      id,
      text,
      by: byName,
      at: at.toISOString(),
      isToAll: attemptId === null,
    }));
  },
  pause: async (classId: string, by: { at: Date; name: string } | null): Promise<void> => {
    await db
      .update(classes)
      .set({ pausedAt: by?.at ?? null, pausedBy: by?.name ?? null })
      .where(eq(classes.id, classId));
  },
  show: async (classId: string, shownLaneId: string | null): Promise<void> => {
    await db.update(classes).set({ shownLaneId }).where(eq(classes.id, classId));
  },
  /** Classes that are held, by whom, or archived, or to which a lane is shown. */
  closed: (classId?: string) =>
    db
      .select({
        id: classes.id,
        pausedBy: sql<
          string | null
        >`case when ${classes.pausedAt} is null then null else coalesce(${classes.pausedBy}, '') end`,
        isArchived: sql<boolean>`${classes.archivedAt} is not null`,
        shownLaneId: classes.shownLaneId,
      })
      .from(classes)
      .where(
        and(
          or(isNotNull(classes.pausedAt), isNotNull(classes.archivedAt), isNotNull(classes.shownLaneId)),
          classId === undefined ? undefined : eq(classes.id, classId),
        ),
      ),
});
export type TogetherStore = ReturnType<typeof togetherStore>;
