import { eq } from "drizzle-orm";
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
  async profile(id: string) {
    const [row] = await db
      .select({
        id: users.id,
        name: users.name,
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
