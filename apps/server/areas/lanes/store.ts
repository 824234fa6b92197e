import { and, asc, count, desc, eq, inArray, max, sql } from "drizzle-orm";
import { upgradeEvent, type LaneEvent } from "@probe-lane/core/bench";
import type { LoggedEvent } from "@probe-lane/core/diagnosis";
import { askedHere, exerciseSchema, markingSchema, mustHavesSchema, type MustHaves } from "@probe-lane/core/exercises";
import { upgradeRuling, withOverrides, type Marked, type Override, type Ruling } from "@probe-lane/core/grading";
import type { Database } from "../../db/client";
import {
  assignments,
  attempts,
  classes,
  exercises,
  laneEvents,
  markingRevisions,
  memberships,
  markOverrides,
  rulings,
  SHELF,
  users,
} from "../../db/schema";

export interface StoredEntry extends LoggedEvent {
  writer: string;
  clientSeq: number;
}
export interface NewEntry {
  seq: number;
  at: Date;
  actorId: string;
  writer: string;
  clientSeq: number;
  event: LaneEvent;
}

const headerColumns = {
  id: attempts.id,
  studentId: attempts.studentId,
  studentName: users.name,
  classId: assignments.classId,
  assignmentId: assignments.id,
  title: sql<string>`${exercises.body}->>'title'`,
  attempt: attempts.number,
  isTrial: attempts.isTrial,
  dueAt: assignments.dueAt,
  week: assignments.week,
  opensAt: assignments.opensAt,
  startsOn: classes.startsOn,
  openedAt: attempts.openedAt,
  handedInAt: attempts.handedInAt,
  attemptsAllowed: assignments.attemptsAllowed,
  school: classes.schoolName,
  exerciseId: assignments.exerciseId,
  exerciseVersion: assignments.exerciseVersion,
};

/** Revisions of an exercise’s marking that count in a school. */
export const revisionsFor = (of: { exerciseId: string; exerciseVersion: number; school: string }) =>
  and(
    eq(markingRevisions.exerciseId, of.exerciseId),
    eq(markingRevisions.exerciseVersion, of.exerciseVersion),
    inArray(markingRevisions.school, [SHELF, of.school]),
  );

/** Batches of up to so many entries go through a prepared statement; nearly every batch is that short. */
const PREPARED_ROWS = 6;

/** A statement holds 65,535 values, and a row has seven. */
const ROWS_AT_ONCE = 1000;

const placeholderRow = (row: number) => ({
  attemptId: sql.placeholder("attemptId"),
  seq: sql.placeholder(`seq${row}`),
  at: sql.placeholder(`at${row}`),
  actorId: sql.placeholder(`actorId${row}`),
  writer: sql.placeholder(`writer${row}`),
  clientSeq: sql.placeholder(`clientSeq${row}`),
  event: sql.placeholder(`event${row}`),
});

export const laneStore = (db: Database) => {
  const prepared = Array.from({ length: PREPARED_ROWS }, (_, last) =>
    db
      .insert(laneEvents)
      .values(Array.from({ length: last + 1 }, (_row, row) => placeholderRow(row)))
      .prepare(`append_${last + 1}`),
  );
  const headers = () =>
    db
      .select(headerColumns)
      .from(attempts)
      .innerJoin(assignments, eq(assignments.id, attempts.assignmentId))
      .innerJoin(classes, eq(classes.id, assignments.classId))
      .innerJoin(users, eq(users.id, attempts.studentId))
      .innerJoin(
        exercises,
        and(eq(exercises.id, assignments.exerciseId), eq(exercises.version, assignments.exerciseVersion)),
      );

  /** Marks given by an instructor, by lane, oldest first. */
  const overridesOf = async (attemptIds: readonly string[]): Promise<Map<string, Override[]>> => {
    const found = new Map<string, Override[]>();
    if (attemptIds.length === 0) return found;
    for (const { attemptId, at, byName, strand, marks, reason } of await db
      .select()
      .from(markOverrides)
      .where(inArray(markOverrides.attemptId, [...attemptIds]))
      .orderBy(asc(markOverrides.at))) {
      found.set(attemptId, [
        ...(found.get(attemptId) ?? []),
        { strand, marks, reason, by: byName, at: at.toISOString() },
      ]);
    }
    return found;
  };

  return {
    async header(id: string) {
      const [row] = await headers().where(eq(attempts.id, id)).limit(1);
      return row ?? null;
    },
    /** The newest lane of every student of a class. */
    newestOfClass: (classId: string) =>
      headers().where(
        sql`${attempts.id} in (
          select distinct on (a.student_id) a.id from ${attempts} a join ${assignments} s on s.id = a.assignment_id
          where s.class_id = ${classId} order by a.student_id, a.opened_at desc)`,
      ),
    /** Every lane of a class, and no more of it than its marks ask for. */
    attemptsOfClass: (classId: string) =>
      db
        .select({
          id: attempts.id,
          studentId: attempts.studentId,
          assignmentId: attempts.assignmentId,
          attempt: attempts.number,
          handedInAt: attempts.handedInAt,
          week: assignments.week,
          opensAt: assignments.opensAt,
          dueAt: assignments.dueAt,
          startsOn: classes.startsOn,
        })
        .from(attempts)
        .innerJoin(assignments, eq(assignments.id, attempts.assignmentId))
        .innerJoin(classes, eq(classes.id, assignments.classId))
        .where(and(eq(assignments.classId, classId), eq(attempts.isTrial, false))),
    /** The assignments of a class in their order, by the titles of their exercises. */
    titlesOfClass: (classId: string) =>
      db
        .select({ id: assignments.id, title: sql<string>`${exercises.body}->>'title'` })
        .from(assignments)
        .innerJoin(
          exercises,
          and(eq(exercises.id, assignments.exerciseId), eq(exercises.version, assignments.exerciseVersion)),
        )
        .where(eq(assignments.classId, classId))
        .orderBy(asc(assignments.place)),
    /** Lanes of a student in any class: those that count, or those that count nowhere. */
    headersOfStudent: (studentId: string, isTrial = false) =>
      headers()
        .where(and(eq(attempts.studentId, studentId), eq(attempts.isTrial, isTrial)))
        .orderBy(asc(attempts.number)),

    async log(attemptId: string): Promise<StoredEntry[]> {
      const rows = await db
        .select({
          seq: laneEvents.seq,
          at: laneEvents.at,
          writer: laneEvents.writer,
          clientSeq: laneEvents.clientSeq,
          event: laneEvents.event,
        })
        .from(laneEvents)
        .where(eq(laneEvents.attemptId, attemptId))
        .orderBy(asc(laneEvents.seq));
      return rows.map(({ at, event, ...row }) => ({ ...row, atMs: at.getTime(), event: upgradeEvent(event) }));
    },

    /** Whether somebody is in a class, and was not taken off it. */
    async isMember(userId: string, classId: string): Promise<boolean> {
      const rows = await db
        .select({ role: memberships.role })
        .from(memberships)
        .where(
          and(eq(memberships.userId, userId), eq(memberships.classId, classId), sql`${memberships.removedAt} is null`),
        )
        .limit(1);
      return rows.length === 1;
    },

    async nameOf(userId: string): Promise<string> {
      const [row] = await db.select({ name: users.name }).from(users).where(eq(users.id, userId)).limit(1);
      return row?.name ?? "";
    },
    /** Number of the last entry, 0 where there is none, and whose lane it is: two accounts may have become one. */
    async head(attemptId: string): Promise<{ seq: number; studentId: string | null }> {
      const [row] = await db
        .select({
          seq: max(laneEvents.seq),
          studentId: sql<string | null>`(select a.student_id from attempts a where a.id = ${attemptId})`,
        })
        .from(laneEvents)
        .where(eq(laneEvents.attemptId, attemptId));
      return { seq: row?.seq ?? 0, studentId: row?.studentId ?? null };
    },

    /** One statement, one commit. A taken (attempt, seq) is a unique violation: another writer was first. */
    append: async (attemptId: string, entries: readonly NewEntry[]): Promise<void> => {
      const statement = prepared[entries.length - 1];
      if (statement)
        await statement.execute({
          attemptId,
          ...Object.fromEntries(
            entries.flatMap((entry, row) => Object.entries(entry).map(([key, value]) => [key + row, value])),
          ),
        });
      else await db.insert(laneEvents).values(entries.map((entry) => ({ attemptId, ...entry })));
    },

    async handIn(attemptId: string, entries: readonly NewEntry[], at: Date): Promise<void> {
      await db.transaction(async (tx) => {
        await tx.insert(laneEvents).values(entries.map((entry) => ({ attemptId, ...entry })));
        await tx.update(attempts).set({ handedInAt: at }).where(eq(attempts.id, attemptId));
      });
    },

    /** Exercises are read in the format of today, whichever they were stored in. */
    assignmentsOfClass: async (classId: string) =>
      (
        await db
          .select({
            id: assignments.id,
            exerciseId: assignments.exerciseId,
            exerciseVersion: assignments.exerciseVersion,
            week: assignments.week,
            opensAt: assignments.opensAt,
            dueAt: assignments.dueAt,
            late: assignments.late,
            isGiven: assignments.isGiven,
            startsOn: classes.startsOn,
            isCoachOn: assignments.isCoachOn,
            attemptsAllowed: assignments.attemptsAllowed,
            exercise: exercises.body,
            isArchived: sql<boolean>`${classes.archivedAt} is not null`,
          })
          .from(assignments)
          .innerJoin(
            exercises,
            and(eq(exercises.id, assignments.exerciseId), eq(exercises.version, assignments.exerciseVersion)),
          )
          .innerJoin(classes, eq(classes.id, assignments.classId))
          .where(eq(assignments.classId, classId))
          .orderBy(asc(assignments.place))
      ).map((row) => ({ ...row, exercise: exerciseSchema.parse(row.exercise) })),

    /**
     * The newest marking of an exercise version in a school: its own, or the one that came with the exercise; with the
     * must-haves of the class, where it asks for its own.
     */
    async markingOf(key: { exerciseId: string; exerciseVersion: number; school: string; assignmentId: string }) {
      const [row] = await db
        .select({
          body: markingRevisions.body,
          own: sql<MustHaves | null>`(select a.must_haves from assignments a where a.id = ${key.assignmentId})`,
        })
        .from(markingRevisions)
        .where(revisionsFor(key))
        .orderBy(desc(markingRevisions.revision))
        .limit(1);
      if (!row) throw new Error(`markingOf: ${key.exerciseId} v${key.exerciseVersion} has no marking revision`);
      return askedHere(markingSchema.parse(row.body), row.own);
    },
    /** What stands over points in each assignment of a class that asks for something. */
    async mustHavesOfClass(classId: string): Promise<Map<string, MustHaves>> {
      const { rows } = await db.execute<{ id: string; asked: unknown }>(sql`
        select distinct on (a.id) a.id, coalesce(a.must_haves, m.body->'mustHaves') as asked
        from assignments a
        join classes c on c.id = a.class_id
        join marking_revisions m on m.exercise_id = a.exercise_id and m.exercise_version = a.exercise_version
          and m.school in (${SHELF}, c.school_name)
        where a.class_id = ${classId}
        order by a.id, m.revision desc`);
      return new Map(rows.flatMap(({ id, asked }) => (asked ? [[id, mustHavesSchema.parse(asked)] as const] : [])));
    },

    /** A new attempt with the entries it begins with, together; the next number may be taken only once. */
    async open(
      assignmentId: string,
      studentId: string,
      {
        entries,
        openedAt,
        isTrial,
      }: {
        entries: readonly Pick<StoredEntry, "atMs" | "writer" | "clientSeq" | "event">[];
        openedAt: Date;
        isTrial: boolean;
      },
    ): Promise<string> {
      return db.transaction(async (tx) => {
        const [made] = await tx
          .select({ made: count() })
          .from(attempts)
          .where(
            and(
              eq(attempts.assignmentId, assignmentId),
              eq(attempts.studentId, studentId),
              eq(attempts.isTrial, isTrial),
            ),
          );
        const [row] = await tx
          .insert(attempts)
          .values({
            assignmentId,
            studentId,
            number: (made?.made ?? 0) + 1,
            openedAt,
            isTrial,
          })
          .returning({ id: attempts.id });
        if (!row) throw new Error("open: the attempt was not stored");
        const rows = entries.map(({ atMs, writer, clientSeq, event }, place) => ({
          attemptId: row.id,
          seq: place + 1,
          at: new Date(atMs),
          actorId: studentId,
          writer,
          clientSeq,
          event,
        }));
        for (let from = 0; from < rows.length; from += ROWS_AT_ONCE)
          await tx.insert(laneEvents).values(rows.slice(from, from + ROWS_AT_ONCE));
        return row.id;
      });
    },

    async saveRuling(attemptId: string, ruling: Ruling): Promise<void> {
      await db
        .insert(rulings)
        .values({
          attemptId,
          version: ruling.version,
          markingRevision: ruling.markingRevision,
          total: ruling.total,
          body: ruling,
        })
        .onConflictDoNothing();
    },
    /** The newest ruling, with the marks that an instructor gave. */
    async rulingOf(attemptId: string): Promise<Ruling | null> {
      const [row] = await db
        .select({ body: rulings.body })
        .from(rulings)
        .where(eq(rulings.attemptId, attemptId))
        .orderBy(desc(rulings.madeAt))
        .limit(1);
      return row ? withOverrides(upgradeRuling(row.body), (await overridesOf([attemptId])).get(attemptId) ?? []) : null;
    },
    /** By which ruling lanes are marked now, and how often an instructor gave marks beside it, as one word. */
    async rulingTags(attemptIds: readonly string[]): Promise<Map<string, string>> {
      const { rows } = await db.execute<{ id: string; tag: string }>(sql`
        select distinct on (r.attempt_id) r.attempt_id as id,
          r.id || ' ' || (select count(*) from mark_overrides o where o.attempt_id = r.attempt_id) as tag
        from rulings r where r.attempt_id = any(${sql.param(attemptIds)}::uuid[])
        order by r.attempt_id, r.made_at desc`);
      return new Map(rows.map(({ id, tag }) => [id, tag]));
    },
    /** What a lane got by each marking, oldest first, without the marks that an instructor gave. */
    totalsOf: (attemptId: string) =>
      db
        .select({ revision: rulings.markingRevision, total: rulings.total, at: rulings.madeAt })
        .from(rulings)
        .where(eq(rulings.attemptId, attemptId))
        .orderBy(asc(rulings.madeAt)),
    /**
     * The marks of lanes by the newest ruling of each, with those that an instructor gave; what a ruling says besides
     * is large, and stays where it is.
     */
    async marksOf(attemptIds: readonly string[]): Promise<Map<string, Marked & { isPassed: boolean }>> {
      const { rows } = await db.execute<{ id: string; failedBy: string | null } & Marked>(sql`
        select newest.attempt_id as id, told.* from unnest(${sql.param(attemptIds)}::uuid[]) as asked (id)
        join lateral (
          select r.attempt_id, r.body from rulings r where r.attempt_id = asked.id order by r.made_at desc limit 1
        ) newest on true,
        lateral jsonb_to_record(newest.body) as told (total float8, "outOf" float8, strands jsonb, "notPassed" jsonb, "failedBy" text)`);
      const given = await overridesOf(rows.map(({ id }) => id));
      return new Map(
        rows.map(({ id, notPassed, failedBy, ...marked }) => [
          id,
          withOverrides(
            { ...marked, ...(notPassed ? { notPassed } : {}), isPassed: !notPassed && failedBy === null },
            given.get(id) ?? [],
          ),
        ]),
      );
    },
    /** Students of a class by name; those taken off it last. */
    studentsOfClass: (classId: string) =>
      db
        .select({
          id: users.id,
          name: users.name,
          login: users.login,
          number: users.studentNumber,
          isRemoved: sql<boolean>`${memberships.removedAt} is not null`,
        })
        .from(users)
        .innerJoin(memberships, eq(memberships.userId, users.id))
        .where(and(eq(memberships.classId, classId), eq(memberships.role, "student")))
        .orderBy(sql`${memberships.removedAt} is not null`, asc(users.name)),
    /** Tells every process which lanes changed, and who says so. */
    notify: async (sender: string, attemptIds: readonly string[]): Promise<void> => {
      await db.execute(
        sql`select pg_notify('lane', ${sender} || ' ' || id) from unnest(${sql.param(attemptIds)}::text[]) as id`,
      );
    },
  };
};
export type LaneStore = ReturnType<typeof laneStore>;
export type LaneHeaderRow = NonNullable<Awaited<ReturnType<LaneStore["header"]>>>;
