import { and, eq, isNull, sql } from "drizzle-orm";
import type { Role, RosterColumns } from "@probe-lane/contract";
import type { Database } from "../../db/client";
import { classes, invitations, memberships, rosterColumns, users } from "../../db/schema";

export const rosterStore = (db: Database) => ({
  async codeOf(classId: string): Promise<string | null> {
    const [row] = await db.select({ joinCode: classes.joinCode }).from(classes).where(eq(classes.id, classId)).limit(1);
    return row?.joinCode ?? null;
  },
  students: (classId: string) =>
    db
      .execute<{
        id: string;
        name: string;
        login: string;
        student_number: string;
        has_joined: boolean;
        own_code: string | null;
        lanes: number;
      }>(
        sql`
    select u.id, u.name, u.login, u.student_number, u.password_hash is not null as has_joined, u.own_code,
      (select count(*)::int from attempts a join assignments s on s.id = a.assignment_id where a.student_id = u.id and s.class_id = ${classId}) as lanes
    from users u join memberships m on m.user_id = u.id
    where m.class_id = ${classId} and m.role = 'student' and m.removed_at is null order by u.name`,
      )
      .then(({ rows }) => rows),
  /** Of these sign-in names and those made from them by a number behind, who has which already. */
  async holders(logins: readonly string[], classId: string) {
    if (logins.length === 0) return [];
    const { rows } = await db.execute<{
      id: string;
      login: string;
      name: string;
      number: string;
      is_here: boolean;
    }>(sql`
      select u.id, u.login, u.name, u.student_number as number, exists (
        select 1 from memberships m
        where m.user_id = u.id and m.class_id = ${classId} and m.role = 'student' and m.removed_at is null) as is_here
      from users u where regexp_replace(u.login, '[0-9]+$', '') in ${logins.map((login) => login.replace(/[0-9]+$/, ""))}`);
    return rows;
  },
  async columnsFor(userId: string, headings: string): Promise<RosterColumns | null> {
    const [row] = await db
      .select({ columns: rosterColumns.columns })
      .from(rosterColumns)
      .where(and(eq(rosterColumns.userId, userId), eq(rosterColumns.headings, headings)))
      .limit(1);
    return row?.columns ?? null;
  },
  async keepColumns(userId: string, headings: string, columns: RosterColumns): Promise<void> {
    await db
      .insert(rosterColumns)
      .values({ userId, headings, columns })
      .onConflictDoUpdate({ target: [rosterColumns.userId, rosterColumns.headings], set: { columns } });
  },
  async setNumbers(numbers: readonly { readonly id: string; readonly number: string }[]): Promise<void> {
    await db.transaction(async (tx) => {
      for (const { id, number } of numbers)
        await tx.update(users).set({ studentNumber: number }).where(eq(users.id, id));
    });
  },
  /** All or nobody. */
  async add(
    classId: string,
    people: readonly {
      login: string;
      name: string;
      passwordHash: string | null;
      ownCode: string | null;
      studentNumber?: string;
    }[],
    role: Role = "student",
  ): Promise<string[]> {
    return db.transaction(async (tx) => {
      const rows = await tx
        .insert(users)
        .values([...people])
        .returning({ id: users.id });
      await tx.insert(memberships).values(rows.map(({ id }) => ({ classId, userId: id, role })));
      return rows.map(({ id }) => id);
    });
  },
  setCode: async (classId: string, joinCode: string): Promise<void> => {
    await db.update(classes).set({ joinCode }).where(eq(classes.id, classId));
  },
  /** Who is invited by a code, which is used up by it; null where the code is none. */
  async takeInvitation(code: string) {
    const [row] = await db
      .delete(invitations)
      .where(eq(invitations.code, code))
      .returning({ classId: invitations.classId, role: invitations.role });
    return row ?? null;
  },
  async invitation(code: string) {
    const [row] = await db
      .select({ classId: invitations.classId, role: invitations.role })
      .from(invitations)
      .where(eq(invitations.code, code))
      .limit(1);
    return row ?? null;
  },
  async classByCode(joinCode: string) {
    const [row] = await db
      .select({ id: classes.id })
      .from(classes)
      .where(and(eq(classes.joinCode, joinCode), isNull(classes.archivedAt)))
      .limit(1);
    return row ?? null;
  },
  async byLogin(login: string) {
    const [row] = await db
      .select({ id: users.id, role: memberships.role, passwordHash: users.passwordHash, classId: memberships.classId })
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
  /** A student who had to wait after failed sign-ins may try again at once; false where there is no such student. */
  async lift(classId: string, studentId: string, now: Date): Promise<boolean> {
    const rows = await db
      .update(users)
      .set({ liftedAt: now })
      .where(
        and(
          eq(users.id, studentId),
          sql`exists (select 1 from memberships m where m.user_id = ${users.id} and m.class_id = ${classId} and m.role = 'student' and m.removed_at is null)`,
        ),
      )
      .returning({ id: users.id });
    return rows.length === 1;
  },
  /** Takes a student's password away, ends the sessions, and gives the place a new code of its own. */
  async reset(classId: string, studentId: string, ownCode: string): Promise<boolean> {
    const rows = await db
      .update(users)
      .set({ passwordHash: null, ownCode })
      .where(
        and(
          eq(users.id, studentId),
          sql`exists (select 1 from memberships m where m.user_id = ${users.id} and m.class_id = ${classId} and m.role = 'student' and m.removed_at is null)`,
          // who teaches elsewhere is nobody's to let in anew
          sql`not exists (select 1 from memberships m where m.user_id = ${users.id} and m.role <> 'student' and m.removed_at is null)`,
        ),
      )
      .returning({ id: users.id });
    if (rows.length === 1) await db.execute(sql`delete from session where sess->'user'->>'id' = ${studentId}`);
    return rows.length === 1;
  },
});
export type RosterStore = ReturnType<typeof rosterStore>;
