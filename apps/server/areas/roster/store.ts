import { and, eq, inArray, sql } from "drizzle-orm";
import type { Database } from "../../db/client";
import { classes, memberships, users } from "../../db/schema";

export const rosterStore = (db: Database) => ({
  async classOf(classId: string) {
    const [row] = await db
      .select({ name: classes.name, joinCode: classes.joinCode })
      .from(classes)
      .where(eq(classes.id, classId))
      .limit(1);
    return row ?? null;
  },
  students: (classId: string) =>
    db
      .execute<{
        id: string;
        name: string;
        login: string;
        has_joined: boolean;
        own_code: string | null;
        lanes: number;
      }>(
        sql`
    select u.id, u.name, u.login, u.password_hash is not null as has_joined, u.own_code, (select count(*)::int from attempts a where a.student_id = u.id) as lanes
    from users u join memberships m on m.user_id = u.id where m.class_id = ${classId} and u.role = 'student' order by u.name`,
      )
      .then(({ rows }) => rows),
  async takenLogins(logins: readonly string[]): Promise<Set<string>> {
    if (logins.length === 0) return new Set();
    const rows = await db
      .select({ login: users.login })
      .from(users)
      .where(inArray(users.login, [...logins]));
    return new Set(rows.map(({ login }) => login));
  },
  /** All or nobody. */
  async add(
    classId: string,
    people: readonly { login: string; name: string; passwordHash: string | null; ownCode: string | null }[],
  ): Promise<string[]> {
    return db.transaction(async (tx) => {
      const rows = await tx
        .insert(users)
        .values(people.map((person) => ({ ...person, role: "student" as const })))
        .returning({ id: users.id });
      await tx.insert(memberships).values(rows.map(({ id }) => ({ classId, userId: id })));
      return rows.map(({ id }) => id);
    });
  },
  setCode: async (classId: string, joinCode: string): Promise<void> => {
    await db.update(classes).set({ joinCode }).where(eq(classes.id, classId));
  },
  async classByCode(joinCode: string) {
    const [row] = await db.select({ id: classes.id }).from(classes).where(eq(classes.joinCode, joinCode)).limit(1);
    return row ?? null;
  },
  async byLogin(login: string) {
    const [row] = await db
      .select({ id: users.id, role: users.role, passwordHash: users.passwordHash, classId: memberships.classId })
      .from(users)
      .innerJoin(memberships, eq(memberships.userId, users.id))
      .where(eq(users.login, login))
      .limit(1);
    return row ?? null;
  },
  async byOwnCode(ownCode: string) {
    const [row] = await db
      .select({ id: users.id, login: users.login, classId: memberships.classId })
      .from(users)
      .innerJoin(memberships, eq(memberships.userId, users.id))
      .where(and(eq(users.ownCode, ownCode), sql`${users.passwordHash} is null`))
      .limit(1);
    return row ?? null;
  },
  /** Sets a password where there is none, and uses up the code; null when somebody was first. */
  async claim(userId: string, passwordHash: string): Promise<string | null> {
    const rows = await db
      .update(users)
      .set({ passwordHash, ownCode: null })
      .where(and(eq(users.id, userId), sql`${users.passwordHash} is null`))
      .returning({ id: users.id });
    return rows[0]?.id ?? null;
  },
  /** Takes a student's password away, ends the sessions, and gives the place a new code of its own. */
  async reset(classId: string, studentId: string, ownCode: string): Promise<boolean> {
    const rows = await db
      .update(users)
      .set({ passwordHash: null, ownCode })
      .where(
        and(
          eq(users.id, studentId),
          eq(users.role, "student"),
          sql`exists (select 1 from memberships m where m.user_id = ${users.id} and m.class_id = ${classId})`,
        ),
      )
      .returning({ id: users.id });
    if (rows.length === 1) await db.execute(sql`delete from session where sess->'user'->>'id' = ${studentId}`);
    return rows.length === 1;
  },
});
export type RosterStore = ReturnType<typeof rosterStore>;
