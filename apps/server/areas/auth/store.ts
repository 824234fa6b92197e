import { eq, sql } from "drizzle-orm";
import type { Database } from "../../db/client";
import { classes, memberships, users } from "../../db/schema";

export const authStore = (db: Database) => ({
  async byLogin(login: string) {
    const [row] = await db
      .select({ id: users.id, role: users.role, passwordHash: users.passwordHash, classId: memberships.classId })
      .from(users)
      .innerJoin(memberships, eq(memberships.userId, users.id))
      .where(eq(users.login, login))
      .limit(1);
    return row ?? null;
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
  async profile(id: string) {
    const [row] = await db
      .select({
        id: users.id,
        name: users.name,
        login: users.login,
        role: users.role,
        className: classes.name,
        schoolName: classes.schoolName,
      })
      .from(users)
      .innerJoin(memberships, eq(memberships.userId, users.id))
      .innerJoin(classes, eq(classes.id, memberships.classId))
      .where(eq(users.id, id))
      .limit(1);
    return row ?? null;
  },
});
export type AuthStore = ReturnType<typeof authStore>;
