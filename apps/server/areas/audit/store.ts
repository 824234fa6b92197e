import { desc, eq, sql } from "drizzle-orm";
import type { AuditView } from "@probe-lane/contract";
import type { Database } from "../../db/client";
import { audit } from "../../db/schema";
import type { About } from "./rules";

const MOST_SHOWN = 500;

export const auditStore = (db: Database) => ({
  add: async (row: Omit<typeof audit.$inferInsert, "id">): Promise<void> => {
    await db.insert(audit).values(row);
  },
  /** The newest first. */
  async rows(classId: string): Promise<AuditView["rows"]> {
    const rows = await db
      .select()
      .from(audit)
      .where(eq(audit.classId, classId))
      .orderBy(desc(audit.at), desc(audit.id))
      .limit(MOST_SHOWN);
    return rows.map(({ id, at, byName, what, about }) => ({ id, at: at.toISOString(), by: byName, what, about }));
  },
  /** Whose or which it is, as it is called now: it may be gone once it is done. */
  async nameOf(about: About, id: string): Promise<string> {
    const title = sql`(e.body->>'title')`;
    const query = {
      student: sql`select name from users where id = ${id}`,
      lane: sql`select u.name || ', ' || ${title} as name from attempts a join users u on u.id = a.student_id
        join assignments s on s.id = a.assignment_id
        join exercises e on e.id = s.exercise_id and e.version = s.exercise_version where a.id = ${id}`,
      floorLane: sql`select u.name || ', ' || ${title} as name from floor_lanes l join users u on u.id = l.student_id
        join floor_exercises e on e.id = l.exercise_id where l.id = ${id}`,
      assignment: sql`select ${title} as name from assignments s
        join exercises e on e.id = s.exercise_id and e.version = s.exercise_version where s.id = ${id}`,
    }[about];
    const { rows } = await db.execute<{ name: string }>(query);
    return rows[0]?.name ?? "";
  },
});
export type AuditStore = ReturnType<typeof auditStore>;
