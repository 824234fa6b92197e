import { eq, sql } from "drizzle-orm";
import type { Database } from "../../db/client";
import { attempts, floorLanes, memberships, users } from "../../db/schema";

/**
 * Whether somebody is a student only, in classes that one instructor teaches: their account is that instructor's to
 * dissolve.
 */
export async function isTheirsAlone(db: Database, studentId: string, instructorId: string): Promise<boolean> {
  const { rows } = await db.execute<{ others: number }>(sql`
    select count(*)::int as others from memberships m
    where m.user_id = ${studentId} and (
      (m.role <> 'student' and m.removed_at is null)
      or not exists (
        select 1 from memberships i
        where i.class_id = m.class_id and i.user_id = ${instructorId} and i.role = 'instructor' and i.removed_at is null))`);
  return rows[0]?.others === 0;
}

/**
 * Two accounts of one person become one: lanes, real machines and classes of one go to the other, numbered behind what
 * stands there already, and the account is gone with its sessions. Sign-in name, password and name of the one that is
 * kept stay; it takes over a student number where it has none.
 */
export const mergeStudents = (db: Database, goneId: string, keptId: string): Promise<void> =>
  db.transaction(async (tx) => {
    await tx.execute(sql`select 1 from ${users} where id in (${goneId}, ${keptId}) order by id for update`);
    await tx.execute(sql`
      update ${attempts} a set student_id = ${keptId}, number = a.number + coalesce((
        select max(k.number) from ${attempts} k
        where k.student_id = ${keptId} and k.assignment_id = a.assignment_id and k.is_trial = a.is_trial), 0)
      where a.student_id = ${goneId}`);
    await tx.execute(sql`
      update ${floorLanes} l set student_id = ${keptId}, number = l.number + coalesce((
        select max(k.number) from ${floorLanes} k where k.student_id = ${keptId} and k.exercise_id = l.exercise_id), 0)
      where l.student_id = ${goneId}`);
    // who is in a class with either of them is in it; one that both were taken off stays as it is
    await tx.execute(sql`
      insert into ${memberships} (class_id, user_id, role, last_at, removed_at)
      select class_id, ${keptId}, 'student', last_at, removed_at from ${memberships} where user_id = ${goneId}
      on conflict (class_id, user_id) do update set removed_at = null
      where excluded.removed_at is null and memberships.role = 'student'`);
    await tx.execute(sql`
      update ${users} k set student_number = g.student_number from ${users} g
      where k.id = ${keptId} and g.id = ${goneId} and k.student_number = ''`);
    await tx.execute(sql`delete from session where sess->'user'->>'id' = ${goneId}`);
    await tx.delete(users).where(eq(users.id, goneId));
  });
