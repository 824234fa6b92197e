import { randomBytes, randomUUID } from "node:crypto";
import { hash } from "@node-rs/argon2";
import { and, eq, notExists, or, sql } from "drizzle-orm";
import { rule } from "@probe-lane/core/grading";
import { floorFromTemplate } from "@probe-lane/core/floor";
import { LaneDriver, workLane } from "@probe-lane/students";
import { demoClass, demoExercises, demoFloor, findDemoExercise } from "../../demo";
import { fillShelf, type Writer } from "./shelf";
import { newJoinCode } from "./areas/roster/service";
import type { Database } from "./db/client";
import {
  assignments,
  attempts,
  classes,
  floorEntries,
  floorExercises,
  floorLanes,
  laneEvents,
  markingRevisions,
  memberships,
  regrades,
  rulings,
  users,
} from "./db/schema";

/**
 * The demo accounts share one password, which the start command prints. It protects made-up people on loopback only.
 */
const DEMO_PASSWORD = "fernhollow";
const MINUTE_MS = 60_000;

async function addPerson(
  tx: Writer,
  classId: string,
  person: { login: string; name: string; role: "student" | "instructor" },
  passwordHash: string,
) {
  const { role, ...named } = person;
  // one of the demo who is in another school too was left when the demo was dropped
  const [row] = await tx
    .insert(users)
    .values({ ...named, passwordHash })
    .onConflictDoUpdate({ target: users.login, set: { passwordHash } })
    .returning({ id: users.id });
  if (!row) throw new Error(`addPerson: ${person.login} was not stored`);
  await tx.insert(memberships).values({ classId, userId: row.id, role });
  return row.id;
}

/** The first two exercises are due; in the second of them nobody coaches. */
const DUE = 2;
const isCoachOn = (place: number): boolean => place !== 1;

/** Works one demo lane with a simulated student and stores its log as if it had been sent. */
async function addLane(
  tx: Writer,
  student: { id: string; number: number },
  assignmentId: string,
  now: Date,
  {
    exerciseId,
    habits,
    minutesAgo,
    raisesHand,
  }: (typeof demoClass)["students"][number]["lanes"][number] & { raisesHand?: boolean },
): Promise<void> {
  const { exercise, marking } = findDemoExercise(exerciseId);
  const isCoachOn = demoExercises[1]?.exercise.id !== exerciseId;
  const lane = new LaneDriver(exercise, randomUUID(), {
    isCoachOn,
    startMs: now.getTime() - minutesAgo * MINUTE_MS,
    commandMs: 4000,
  });
  workLane(lane, habits);
  if (raisesHand) lane.do({ type: "raiseHand" });
  const handedInAt = lane.state.isHandedIn ? new Date(lane.atMs) : null;
  const openedAt = new Date(now.getTime() - minutesAgo * MINUTE_MS);
  const [row] = await tx
    .insert(attempts)
    .values({ assignmentId, studentId: student.id, number: student.number, openedAt, handedInAt })
    .returning({ id: attempts.id });
  if (!row) throw new Error("addLane: the attempt was not stored");
  await tx.insert(laneEvents).values(
    lane.log.map(({ seq, atMs, event }) => ({
      attemptId: row.id,
      seq,
      at: new Date(atMs),
      actorId: student.id,
      writer: "demo-lane",
      clientSeq: seq,
      event,
    })),
  );
  if (!handedInAt) return;
  const ruling = rule(lane.log, marking);
  await tx.insert(rulings).values({
    attemptId: row.id,
    version: ruling.version,
    markingRevision: ruling.markingRevision,
    total: ruling.total,
    body: ruling,
    madeAt: handedInAt,
  });
}

/** Two exercises at the real machines, one of them with a lane that waits for the instructor's check. */
async function addFloor(
  tx: Writer,
  classId: string,
  studentIds: ReadonlyMap<string, string>,
  now: Date,
): Promise<void> {
  for (const { template, lanes } of demoFloor) {
    const [exercise] = await tx
      .insert(floorExercises)
      .values({ classId, body: floorFromTemplate(template), madeAt: now })
      .returning({ id: floorExercises.id });
    for (const { login, entries } of lanes) {
      const studentId = studentIds.get(login);
      if (!exercise || !studentId) throw new Error(`addFloor: ${login} is not in the demo class`);
      const [lane] = await tx
        .insert(floorLanes)
        .values({ exerciseId: exercise.id, studentId, openedAt: now })
        .returning({ id: floorLanes.id });
      if (!lane) throw new Error("addFloor: the lane was not stored");
      await tx.insert(floorEntries).values(
        entries.map((entry, index) => ({
          id: randomUUID(),
          laneId: lane.id,
          at: new Date(now.getTime() - (entries.length - index) * MINUTE_MS),
          receivedAt: new Date(now.getTime() - (entries.length - index) * MINUTE_MS),
          byId: studentId,
          byName: login,
          entry,
        })),
      );
    }
  }
}

/** The demo's class, whatever it was renamed to; it is known by its school. */
const findDemo = async (db: Database) => {
  const [row] = await db
    .select({ id: classes.id })
    .from(classes)
    .where(eq(classes.schoolName, demoClass.school))
    .orderBy(sql`${classes.name} <> ${demoClass.name}`)
    .limit(1);
  return row ?? null;
};
const inDemo = sql`select id from ${classes} where school_name = ${demoClass.school}`;
/** Who is in the demo, and in no other school. */
const onlyInDemo = sql`
  select user_id from ${memberships} where class_id in (${inDemo})
  except select user_id from ${memberships} where class_id not in (${inDemo})`;

/** Whether the demo class is here. */
export const hasDemo = async (db: Database): Promise<boolean> => (await findDemo(db)) !== null;

/** What goes with the demo class when it is loaded anew; null where there is none. */
export async function demoToDrop(db: Database): Promise<string | null> {
  if (!(await hasDemo(db))) return null;
  const { rows } = await db.execute<{ held: number; people: number; lanes: number }>(sql`
    select (select count(*)::int from (${inDemo}) c) as held,
      (select count(*)::int from (${onlyInDemo}) p) as people,
      (select count(*)::int from attempts a join assignments s on s.id = a.assignment_id
       where s.class_id in (${inDemo})) as lanes`);
  const { held = 0, people = 0, lanes = 0 } = rows[0] ?? {};
  const all = [`${held} ${held === 1 ? "class" : "classes"}`, `${people} people`, `${lanes} lanes`].join(", ");
  return `The demo, “${demoClass.school}”, is dropped and made anew: ${all}. Nothing else is touched.`;
}

/** Loads the demo class once, or again from scratch with `reset`; says in one line which accounts there are. */
export async function loadDemo(db: Database, { reset, now }: { reset: boolean; now: Date }): Promise<string> {
  const accounts =
    `Demo accounts: instructor ${demoClass.instructor.login}, students ${demoClass.students
      .slice(0, 3)
      .map(({ login }) => login)
      .join(", ")} …; ` + `password of all: ${DEMO_PASSWORD}`;
  const existing = await findDemo(db);
  if (existing && !reset) {
    const has = await db
      .select({ id: assignments.exerciseId })
      .from(assignments)
      .where(eq(assignments.classId, existing.id));
    await fillShelf(db, existing.id, { now, due: DUE, has: new Set(has.map(({ id }) => id)), isCoachOn });
    return accounts;
  }
  const passwordHash = await hash(DEMO_PASSWORD, { salt: randomBytes(16) });
  await db.transaction(async (tx) => {
    if (existing) {
      await tx.execute(sql`delete from session where sess->'user'->>'classId' in (select id::text from (${inDemo}) c)`);
      await tx.execute(sql`delete from users where id in (${onlyInDemo})`);
      await tx.delete(classes).where(eq(classes.schoolName, demoClass.school));
      // markings that were changed for this class go with it; those of exercises that another class has stay
      for (const table of [regrades, markingRevisions]) {
        await tx.delete(table).where(
          or(
            eq(table.school, demoClass.school),
            notExists(
              tx
                .select({ one: sql`1` })
                .from(assignments)
                .where(
                  and(
                    eq(assignments.exerciseId, table.exerciseId),
                    eq(assignments.exerciseVersion, table.exerciseVersion),
                  ),
                ),
            ),
          ),
        );
      }
    }
    const [made] = await tx
      .insert(classes)
      .values({ name: demoClass.name, schoolName: demoClass.school, joinCode: newJoinCode() })
      .returning({ id: classes.id });
    if (!made) throw new Error("loadDemo: the class was not stored");
    await addPerson(tx, made.id, { ...demoClass.instructor, role: "instructor" }, passwordHash);
    const assignmentIds = await fillShelf(tx, made.id, { now, due: DUE, isCoachOn });
    const studentIds = new Map<string, string>();
    for (const { login, name, lanes } of demoClass.students) {
      const id = await addPerson(tx, made.id, { login, name, role: "student" }, passwordHash);
      studentIds.set(login, id);
      const numbers = new Map<string, number>();
      for (const lane of lanes) {
        const number = (numbers.get(lane.exerciseId) ?? 0) + 1;
        numbers.set(lane.exerciseId, number);
        await addLane(tx, { id, number }, assignmentIds.get(lane.exerciseId) ?? "", now, lane);
      }
    }
    await addFloor(tx, made.id, studentIds, now);
  });
  return accounts;
}
