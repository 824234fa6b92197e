import { and, eq, ne, sql } from "drizzle-orm";
import type { Database } from "../../db/client";
import { classes, memberships, users } from "../../db/schema";
import { DEMO_SCHOOL, fillShelf } from "../../shelf";

interface FirstPerson {
  readonly login: string;
  readonly name: string;
  readonly passwordHash: string;
}

/** Two who are first at once: one of them waits here, and is second. */
const ONE_AT_A_TIME = 7_120_319;

type Reader = Pick<Database, "select">;

const isAnyone = async (db: Reader): Promise<boolean> => {
  const rows = await db
    .select({ id: users.id })
    .from(users)
    .innerJoin(memberships, eq(memberships.userId, users.id))
    .innerJoin(classes, eq(classes.id, memberships.classId))
    .where(and(eq(memberships.role, "instructor"), ne(classes.schoolName, DEMO_SCHOOL)))
    .limit(1);
  return rows.length > 0;
};

export const firstStore = (db: Database) => ({
  /** Whether a school of its own is here: an instructor who is none of the demo. */
  hasInstructor: (): Promise<boolean> => isAnyone(db),
  /** Whether a sign-in name is somebody's. */
  async isTaken(login: string): Promise<boolean> {
    const rows = await db.select({ id: users.id }).from(users).where(eq(users.login, login)).limit(1);
    return rows.length > 0;
  },
  /** The school's first class with its instructor and the exercises; null where somebody was first. */
  begin: (
    person: FirstPerson,
    held: { readonly schoolName: string; readonly className: string; readonly joinCode: string },
    now: Date,
  ): Promise<{ id: string; classId: string } | null> =>
    db.transaction(async (tx) => {
      await tx.execute(sql`select pg_advisory_xact_lock(${ONE_AT_A_TIME})`);
      if (await isAnyone(tx)) return null;
      const [made] = await tx
        .insert(classes)
        .values({ name: held.className, schoolName: held.schoolName, joinCode: held.joinCode })
        .returning({ id: classes.id });
      const [row] = await tx.insert(users).values(person).returning({ id: users.id });
      if (!made || !row) throw new Error("begin: the class was not stored");
      await tx.insert(memberships).values({ classId: made.id, userId: row.id, role: "instructor" });
      await fillShelf(tx, made.id, { now, due: 0 });
      return { id: row.id, classId: made.id };
    }),
});
export type FirstStore = ReturnType<typeof firstStore>;
