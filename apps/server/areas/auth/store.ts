import type { Me } from "@probe-lane/contract";
import { and, eq, isNull, sql } from "drizzle-orm";
import type { Actor } from "../../guards";
import type { Database } from "../../db/client";
import { classes, memberships, users } from "../../db/schema";

export const authStore = (db: Database) => ({
  async byLogin(login: string) {
    const [row] = await db
      .select({ id: users.id, role: memberships.role, passwordHash: users.passwordHash, classId: memberships.classId })
      .from(users)
      .innerJoin(memberships, eq(memberships.userId, users.id))
      .innerJoin(classes, eq(classes.id, memberships.classId))
      .where(and(eq(users.login, login), isNull(memberships.removedAt)))
      // the one that they were in last; an archived one only where there is no other
      .orderBy(sql`${classes.archivedAt} is not null`, sql`${memberships.lastAt} desc nulls last`, classes.name)
      .limit(1);
    return row ?? null;
  },
  /** Since when failed sign-ins of this name are to count; null where nobody lifted them. */
  async liftedAt(login: string): Promise<Date | null> {
    const [row] = await db.select({ liftedAt: users.liftedAt }).from(users).where(eq(users.login, login)).limit(1);
    return row?.liftedAt ?? null;
  },
  async byId(id: string) {
    const [row] = await db
      .select({ login: users.login, name: users.name, passwordHash: users.passwordHash })
      .from(users)
      .where(eq(users.id, id))
      .limit(1);
    return row ?? null;
  },
  /** Sets a password, and ends every session of that person but one. */
  setPassword: (id: string, passwordHash: string, session: string): Promise<void> =>
    db.transaction(async (change) => {
      await change.update(users).set({ passwordHash }).where(eq(users.id, id));
      await change.execute(sql`delete from session where sess->'user'->>'id' = ${id} and sid <> ${session}`);
    }),
  async nameOf(id: string): Promise<string | null> {
    const [row] = await db.select({ name: users.name }).from(users).where(eq(users.id, id)).limit(1);
    return row?.name ?? null;
  },
  /** Who somebody is in the class that is open, and every other class of theirs; null where they are not in it. */
  async profile({ id, classId }: { id: string; classId: string }): Promise<Me | null> {
    const rows = await db
      .select({
        person: { id: users.id, name: users.name, login: users.login },
        held: {
          id: classes.id,
          name: classes.name,
          term: classes.term,
          schoolName: classes.schoolName,
          role: memberships.role,
          isArchived: sql<boolean>`${classes.archivedAt} is not null`,
        },
      })
      .from(users)
      .innerJoin(memberships, eq(memberships.userId, users.id))
      .innerJoin(classes, eq(classes.id, memberships.classId))
      .where(and(eq(users.id, id), isNull(memberships.removedAt)))
      .orderBy(sql`${classes.archivedAt} is not null`, classes.name, classes.id);
    const open = rows.find(({ held }) => held.id === classId);
    if (!open) return null;
    const { person, held } = open;
    return {
      ...person,
      role: held.role,
      classId,
      className: held.name,
      schoolName: held.schoolName,
      classes: rows.map((row) => row.held),
    };
  },
  /** Opens another class of somebody's own; null where they are in none of that id. */
  async enter(id: string, classId: string, now: Date): Promise<Actor | null> {
    const [row] = await db
      .update(memberships)
      .set({ lastAt: now })
      .where(and(eq(memberships.userId, id), eq(memberships.classId, classId), isNull(memberships.removedAt)))
      .returning({ role: memberships.role });
    return row ? { id, classId, role: row.role } : null;
  },
});
export type AuthStore = ReturnType<typeof authStore>;
