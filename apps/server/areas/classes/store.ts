import { and, asc, eq, isNull, ne, sql } from "drizzle-orm";
import type { Role, MarksPolicy } from "@probe-lane/contract";
import type { Database } from "../../db/client";
import {
  assignments,
  attempts,
  classes,
  floorExercises,
  floorLanes,
  invitations,
  memberships,
  users,
} from "../../db/schema";
import { fillShelf } from "../../shelf";
import { isTheirsAlone, mergeStudents } from "./merge";

type Staff = Exclude<Role, "student">;

export const classStore = (db: Database) => ({
  async classOf(classId: string) {
    const [row] = await db
      .select({
        name: classes.name,
        term: classes.term,
        schoolName: classes.schoolName,
        policy: {
          passPercent: classes.passPercent,
          latePercent: classes.latePercent,
          lapseMonths: classes.lapseMonths,
        },
        isArchived: sql<boolean>`${classes.archivedAt} is not null`,
      })
      .from(classes)
      .where(eq(classes.id, classId))
      .limit(1);
    return row ?? null;
  },
  staff: (classId: string) =>
    db
      .select({ id: users.id, name: users.name, login: users.login, role: memberships.role })
      .from(memberships)
      .innerJoin(users, eq(users.id, memberships.userId))
      .where(and(eq(memberships.classId, classId), ne(memberships.role, "student"), isNull(memberships.removedAt)))
      .orderBy(asc(users.name)),
  invitations: (classId: string) =>
    db
      .select({ code: invitations.code, role: invitations.role })
      .from(invitations)
      .where(eq(invitations.classId, classId))
      .orderBy(asc(invitations.madeAt)),
  invite: async (classId: string, code: string, role: Staff, madeAt: Date): Promise<void> => {
    await db.insert(invitations).values({ code, classId, role, madeAt });
  },
  withdraw: async (classId: string, code: string): Promise<boolean> => {
    const rows = await db
      .delete(invitations)
      .where(and(eq(invitations.code, code), eq(invitations.classId, classId)))
      .returning({ code: invitations.code });
    return rows.length > 0;
  },
  change: async (
    classId: string,
    change: { name?: string; term?: string; archivedAt?: Date | null } & Partial<MarksPolicy>,
  ): Promise<void> => {
    await db.update(classes).set(change).where(eq(classes.id, classId));
  },
  async roleIn(userId: string, classId: string): Promise<{ role: Role; isRemoved: boolean } | null> {
    const [row] = await db
      .select({ role: memberships.role, isRemoved: sql<boolean>`${memberships.removedAt} is not null` })
      .from(memberships)
      .where(and(eq(memberships.userId, userId), eq(memberships.classId, classId)))
      .limit(1);
    return row ?? null;
  },
  /** Makes somebody a member, or another kind of one; who was taken off is one again. */
  admit: async (userId: string, classId: string, role: Role): Promise<void> => {
    await db
      .insert(memberships)
      .values({ userId, classId, role })
      .onConflictDoUpdate({
        target: [memberships.classId, memberships.userId],
        set: { role, removedAt: null },
      });
  },
  /** A class of the same school with its instructor: its exercises those of the shelf, or as another class has them. */
  make: (
    held: { name: string; term: string; schoolName: string; joinCode: string } & Partial<MarksPolicy>,
    by: { userId: string; planOf: string | null },
    now: Date,
  ): Promise<string> =>
    db.transaction(async (tx) => {
      const [made] = await tx.insert(classes).values(held).returning({ id: classes.id });
      if (!made) throw new Error("make: the class was not stored");
      await tx.insert(memberships).values({ classId: made.id, userId: by.userId, role: "instructor" });
      if (by.planOf === null) await fillShelf(tx, made.id, { now, due: 0 });
      else {
        const plan = await tx.select().from(assignments).where(eq(assignments.classId, by.planOf));
        if (plan.length > 0)
          await tx.insert(assignments).values(
            // days of the last term are none of the next
            plan.map(({ id: _id, ...one }) => ({ ...one, classId: made.id, opensAt: null, dueAt: null })),
          );
      }
      return made.id;
    }),
  /** Takes one of the staff off a class that keeps an instructor; false where it would not. */
  removeStaff: (classId: string, userId: string, now: Date): Promise<boolean> =>
    db.transaction(async (tx) => {
      const held = await tx
        .select({ userId: memberships.userId })
        .from(memberships)
        .where(and(eq(memberships.classId, classId), eq(memberships.role, "instructor"), isNull(memberships.removedAt)))
        .for("update");
      if (held.every((one) => one.userId === userId)) return false;
      await tx
        .update(memberships)
        .set({ removedAt: now })
        .where(and(eq(memberships.classId, classId), eq(memberships.userId, userId), ne(memberships.role, "student")));
      return true;
    }),
  /** Ends the sessions of somebody in one class. */
  signOut: async (classId: string, userId: string): Promise<void> => {
    await db.execute(
      sql`delete from session where sess->'user'->>'id' = ${userId} and sess->'user'->>'classId' = ${classId}`,
    );
  },
  /** Another name, and another student number where one is given. */
  rename: async (userId: string, name: string, studentNumber?: string): Promise<void> => {
    await db
      .update(users)
      .set({ name, ...(studentNumber === undefined ? {} : { studentNumber }) })
      .where(eq(users.id, userId));
  },
  /** Takes a student off a class; what they did is kept, under "removed", or deleted with their place. */
  removeStudent: (classId: string, userId: string, { keeps, now }: { keeps: boolean; now: Date }): Promise<void> =>
    db.transaction(async (tx) => {
      const place = and(eq(memberships.classId, classId), eq(memberships.userId, userId));
      if (keeps) {
        await tx.update(memberships).set({ removedAt: now }).where(place);
        return;
      }
      const ofClass = (id: unknown) => sql`${id} in (select id from ${assignments} where class_id = ${classId})`;
      await tx.delete(attempts).where(and(eq(attempts.studentId, userId), ofClass(attempts.assignmentId)));
      await tx
        .delete(floorLanes)
        .where(
          and(
            eq(floorLanes.studentId, userId),
            sql`${floorLanes.exerciseId} in (select id from ${floorExercises} where class_id = ${classId})`,
          ),
        );
      await tx.delete(memberships).where(place);
      // nobody is left who is in no class at all
      await tx
        .delete(users)
        .where(and(eq(users.id, userId), sql`not exists (select 1 from memberships m where m.user_id = ${userId})`));
    }),
  isTheirsAlone: (studentId: string, instructorId: string) => isTheirsAlone(db, studentId, instructorId),
  merge: (goneId: string, keptId: string) => mergeStudents(db, goneId, keptId),
});
export type ClassStore = ReturnType<typeof classStore>;
