import { randomBytes, randomUUID } from "node:crypto";
import { hash } from "@node-rs/argon2";
import { and, eq, notExists, or, sql } from "drizzle-orm";
import { rule } from "@probe-lane/core/grading";
import { floorFromTemplate } from "@probe-lane/core/floor";
import { LaneDriver, workLane } from "@probe-lane/students";
import { demoClass, demoExercises, demoFloor, findDemoExercise } from "../../demo";
import { newJoinCode } from "./areas/roster/service";
import type { Database } from "./db/client";
import {
  assignments,
  attempts,
  classes,
  exercises,
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
const ATTEMPTS_ALLOWED = 5;

type Writer = Pick<Database, "insert">;

async function addPerson(
  tx: Writer,
  classId: string,
  person: { login: string; name: string; role: "student" | "instructor" },
  passwordHash: string,
) {
  const [row] = await tx
    .insert(users)
    .values({ ...person, passwordHash })
    .returning({ id: users.id });
  if (!row) throw new Error(`addPerson: ${person.login} was not stored`);
  await tx.insert(memberships).values({ classId, userId: row.id });
  return row.id;
}

/**
 * The first two exercises are due; the rest of the pack lies on the practice shelf. Those the class has already are
 * left alone.
 */
const DUE = 2;

async function addAssignments(
  tx: Writer,
  classId: string,
  now: Date,
  has: ReadonlySet<string> = new Set(),
): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  for (const [place, { exercise, marking }] of demoExercises.entries()) {
    if (has.has(exercise.id)) continue;
    const key = { exerciseId: exercise.id, exerciseVersion: exercise.version };
    await tx
      .insert(exercises)
      .values({ id: exercise.id, version: exercise.version, body: exercise })
      .onConflictDoNothing();
    await tx
      .insert(markingRevisions)
      .values({ ...key, revision: marking.revision, body: marking })
      .onConflictDoNothing();
    const dueAt = place < DUE ? new Date(now.getTime() + (place + 1) * 3 * 24 * 60 * MINUTE_MS) : null;
    const [row] = await tx
      .insert(assignments)
      .values({ classId, ...key, place, dueAt, isCoachOn: place !== 1, attemptsAllowed: ATTEMPTS_ALLOWED })
      .returning({ id: assignments.id });
    if (row) ids.set(exercise.id, row.id);
  }
  return ids;
}

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
          byId: studentId,
          byName: login,
          entry,
        })),
      );
    }
  }
}

/** Loads the demo class once, or again from scratch with `reset`; says in one line which accounts there are. */
export async function loadDemo(db: Database, { reset, now }: { reset: boolean; now: Date }): Promise<string> {
  const accounts =
    `Demo accounts: instructor ${demoClass.instructor.login}, students ${demoClass.students
      .slice(0, 3)
      .map(({ login }) => login)
      .join(", ")} …; ` + `password of all: ${DEMO_PASSWORD}`;
  const [existing] = await db.select({ id: classes.id }).from(classes).where(eq(classes.name, demoClass.name)).limit(1);
  if (existing && !reset) {
    const has = await db
      .select({ id: assignments.exerciseId })
      .from(assignments)
      .where(eq(assignments.classId, existing.id));
    await addAssignments(db, existing.id, now, new Set(has.map(({ id }) => id)));
    return accounts;
  }
  const passwordHash = await hash(DEMO_PASSWORD, { salt: randomBytes(16) });
  await db.transaction(async (tx) => {
    if (existing) {
      await tx.execute(
        sql`delete from users where id in (select user_id from memberships where class_id = ${existing.id})`,
      );
      await tx.delete(classes).where(eq(classes.id, existing.id));
      await tx.execute(sql`delete from session`);
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
    const assignmentIds = await addAssignments(tx, made.id, now);
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
