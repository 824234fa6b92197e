import type { AuditWhat, RosterColumns } from "@probe-lane/contract";
import type { Exercise, Marking, MustHaves } from "@probe-lane/core/exercises";
import type { FloorEntry, FloorExercise } from "@probe-lane/core/floor";
import type { LaneEvent } from "@probe-lane/core/bench";
import type { Ruling, StrandName } from "@probe-lane/core/grading";
import { sql } from "drizzle-orm";
import {
  boolean,
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  json,
  jsonb,
  pgTable,
  primaryKey,
  serial,
  text,
  timestamp,
  unique,
  uniqueIndex,
  uuid,
  varchar,
  type AnyPgColumn,
} from "drizzle-orm/pg-core";

const moment = () => timestamp({ withTimezone: true, mode: "date" });

export const users = pgTable("users", {
  id: uuid().primaryKey().defaultRandom(),
  login: text().notNull().unique(),
  name: text().notNull(),
  /** Null until the student has joined, and after a reset. */
  passwordHash: text(),
  /** By which a student of the roster joins, once; null when it was used, and of who came by the class code. */
  ownCode: text().unique(),
  /** As the school numbers its students; empty where nobody said. */
  studentNumber: text().notNull().default(""),
  /** Failed sign-ins before this moment make nobody wait any more: an instructor said so. */
  liftedAt: moment(),
});

/** How an instructor read the columns of a roster last time, by its headings. */
export const rosterColumns = pgTable(
  "roster_columns",
  {
    userId: uuid()
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    headings: text().notNull(),
    columns: jsonb().$type<RosterColumns>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.userId, table.headings] })],
);

/** The table of the session store; its column names are the store's. */
export const sessions = pgTable(
  "session",
  {
    sid: varchar().primaryKey(),
    sess: json().notNull(),
    expire: timestamp({ precision: 6, mode: "date" }).notNull(),
  },
  (table) => [index("session_expire").on(table.expire)],
);

export const classes = pgTable("classes", {
  id: uuid().primaryKey().defaultRandom(),
  name: text().notNull(),
  schoolName: text().notNull(),
  /** Lets students of the class choose their password; an instructor can renew it. */
  joinCode: text().unique(),
  /** "Autumn 2026" and the like; empty where nobody said. */
  term: text().notNull().default(""),
  /** Nothing new is begun in an archived class; all that was done there can be read. */
  archivedAt: moment(),
  /** While it is set nothing of the class's lanes is gone on with; who said so. */
  pausedAt: moment(),
  pausedBy: text(),
  /** A lane of an instructor's own that is shown to the class while they work in it; null where none is. */
  shownLaneId: uuid(),
  /** The day on which the first week of its plan begins, as 2026-12-01; null where it follows no weeks. */
  startsOn: date({ mode: "string" }),
  /** From how many of a hundred marks a lane is passed, must-haves apart; nothing is asked for at zero. */
  passPercent: integer().notNull().default(0),
  /** How many of a hundred of its marks count of a lane that came late. */
  latePercent: integer().notNull().default(100),
  /** What was shown or signed longer ago than so many months has lapsed; nothing does at zero. */
  lapseMonths: integer().notNull().default(0),
});

/** Who somebody is in a class: an assistant sees the wall, writes notes and checks, and gives no marks. */
export const memberships = pgTable(
  "memberships",
  {
    classId: uuid()
      .notNull()
      .references(() => classes.id, { onDelete: "cascade" }),
    userId: uuid()
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    role: text({ enum: ["student", "assistant", "instructor"] })
      .notNull()
      .default("student"),
    /** When this class was last the one that its member worked in. */
    lastAt: moment(),
    /** Taken off the class, while what they did in it is kept. */
    removedAt: moment(),
  },
  (table) => [primaryKey({ columns: [table.classId, table.userId] }), index("memberships_user").on(table.userId)],
);

/** A code by which one person becomes an instructor or an assistant of a class, once. */
export const invitations = pgTable("invitations", {
  code: text().primaryKey(),
  classId: uuid()
    .notNull()
    .references(() => classes.id, { onDelete: "cascade" }),
  role: text({ enum: ["assistant", "instructor"] }).notNull(),
  madeAt: moment().notNull(),
});

/** A student asks for another look at a ruling, with a word, and is answered. */
export const looks = pgTable(
  "looks",
  {
    id: uuid().primaryKey().defaultRandom(),
    attemptId: uuid()
      .notNull()
      .references((): AnyPgColumn => attempts.id, { onDelete: "cascade" }),
    asked: text().notNull(),
    at: moment().notNull(),
    answer: text(),
    byName: text(),
    answeredAt: moment(),
  },
  (table) => [
    // one question at a time
    uniqueIndex("looks_open")
      .on(table.attemptId)
      .where(sql`${table.answer} is null`),
    index("looks_attempt").on(table.attemptId),
  ],
);

/** What somebody who teaches did that others may ask about later; named as it was called then. */
export const audit = pgTable(
  "audit",
  {
    id: serial().primaryKey(),
    classId: uuid()
      .notNull()
      .references(() => classes.id, { onDelete: "cascade" }),
    at: moment().notNull(),
    byName: text().notNull(),
    what: text().$type<AuditWhat>().notNull(),
    about: text().notNull(),
  },
  (table) => [index("audit_class").on(table.classId, table.at)],
);

/** What who teaches says during class: to everybody, or to who works one lane. */
export const messages = pgTable(
  "messages",
  {
    id: uuid().primaryKey().defaultRandom(),
    classId: uuid()
      .notNull()
      .references(() => classes.id, { onDelete: "cascade" }),
    attemptId: uuid().references((): AnyPgColumn => attempts.id, { onDelete: "cascade" }),
    text: text().notNull(),
    byName: text().notNull(),
    at: moment().notNull(),
  },
  (table) => [index("messages_class").on(table.classId, table.at)],
);

export const exercises = pgTable(
  "exercises",
  {
    id: text().notNull(),
    version: integer().notNull(),
    body: jsonb().$type<Exercise>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.id, table.version] })],
);

/** The school that a marking which came with its exercise belongs to: none, and so to all of them. */
export const SHELF = "";

/**
 * Append-only: a ruling cites the exercise version and one of these. What came with the exercise is everybody's; a
 * revision that an instructor made is the own school's and nobody else's.
 */
export const markingRevisions = pgTable(
  "marking_revisions",
  {
    exerciseId: text().notNull(),
    exerciseVersion: integer().notNull(),
    school: text().notNull().default(SHELF),
    revision: integer().notNull(),
    body: jsonb().$type<Marking>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.exerciseId, table.exerciseVersion, table.school, table.revision] }),
    foreignKey({
      columns: [table.exerciseId, table.exerciseVersion],
      foreignColumns: [exercises.id, exercises.version],
    }),
  ],
);

export const assignments = pgTable(
  "assignments",
  {
    id: uuid().primaryKey().defaultRandom(),
    classId: uuid()
      .notNull()
      .references(() => classes.id, { onDelete: "cascade" }),
    exerciseId: text().notNull(),
    exerciseVersion: integer().notNull(),
    place: integer().notNull(),
    /** Week of the class's plan, from 1: it opens and is due with it, unless it has a day of its own. */
    week: integer(),
    opensAt: moment(),
    dueAt: moment(),
    /** What is begun after its day: taken and called late, or refused. */
    late: text({ enum: ["taken", "refused"] })
      .notNull()
      .default("taken"),
    isCoachOn: boolean().notNull(),
    attemptsAllowed: integer().notNull(),
    /** What this class asks for over points; null where it is as the exercise's marking has it. */
    mustHaves: jsonb().$type<MustHaves>(),
    /** Students see it, and may begin it in its time. */
    isGiven: boolean().notNull().default(true),
  },
  (table) => [
    foreignKey({
      columns: [table.exerciseId, table.exerciseVersion],
      foreignColumns: [exercises.id, exercises.version],
    }),
  ],
);

export const attempts = pgTable(
  "attempts",
  {
    id: uuid().primaryKey().defaultRandom(),
    assignmentId: uuid()
      .notNull()
      .references(() => assignments.id, { onDelete: "cascade" }),
    studentId: uuid()
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    number: integer().notNull(),
    openedAt: moment().notNull().defaultNow(),
    handedInAt: moment(),
    /**
     * Of an instructor who looks at the exercise as a student would, or of a student who goes on from what was shown:
     * it counts nowhere, and is numbered by itself.
     */
    isTrial: boolean().notNull().default(false),
  },
  (table) => [unique("attempts_number").on(table.assignmentId, table.studentId, table.isTrial, table.number)],
);

/**
 * The log. (attempt, seq) is its key, so two writers collide cleanly; writer and client seq make resending harmless.
 */
export const laneEvents = pgTable(
  "lane_events",
  {
    attemptId: uuid()
      .notNull()
      .references(() => attempts.id, { onDelete: "cascade" }),
    seq: integer().notNull(),
    at: moment().notNull().defaultNow(),
    actorId: uuid().notNull(),
    writer: text().notNull(),
    clientSeq: integer().notNull(),
    event: jsonb().$type<LaneEvent>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.attemptId, table.seq] })],
);

/** Append-only: a later ruling of the same lane stands beside the earlier one. */
export const rulings = pgTable(
  "rulings",
  {
    id: uuid().primaryKey().defaultRandom(),
    attemptId: uuid()
      .notNull()
      .references(() => attempts.id, { onDelete: "cascade" }),
    version: text().notNull(),
    markingRevision: integer().notNull(),
    madeAt: moment().notNull().defaultNow(),
    total: doublePrecision().notNull(),
    body: jsonb().$type<Ruling>().notNull(),
  },
  (table) => [unique("rulings_once").on(table.attemptId, table.version, table.markingRevision)],
);

/** One marking again of an exercise's lanes by a newer marking revision: how far it has come. */
export const regrades = pgTable(
  "regrades",
  {
    id: uuid().primaryKey().defaultRandom(),
    exerciseId: text().notNull(),
    exerciseVersion: integer().notNull(),
    school: text().notNull().default(SHELF),
    revision: integer().notNull(),
    byName: text().notNull(),
    startedAt: moment().notNull().defaultNow(),
    finishedAt: moment(),
    lanes: integer().notNull(),
    done: integer().notNull().default(0),
  },
  (table) => [unique("regrades_once").on(table.exerciseId, table.exerciseVersion, table.school, table.revision)],
);

/** A marking tried on a class's lanes before anybody stores it: how far it has come, and that it was given up. */
export const markingTrials = pgTable("marking_trials", {
  id: uuid().primaryKey().defaultRandom(),
  assignmentId: uuid()
    .notNull()
    .references(() => assignments.id, { onDelete: "cascade" }),
  marking: jsonb().$type<Marking>().notNull(),
  lanes: integer().notNull(),
  startedAt: moment().notNull().defaultNow(),
  finishedAt: moment(),
  cancelledAt: moment(),
});

/** What each lane would come to by a trial. */
export const trialMarks = pgTable(
  "trial_marks",
  {
    trialId: uuid()
      .notNull()
      .references(() => markingTrials.id, { onDelete: "cascade" }),
    attemptId: uuid()
      .notNull()
      .references(() => attempts.id, { onDelete: "cascade" }),
    total: doublePrecision().notNull(),
    outOf: doublePrecision().notNull(),
  },
  (table) => [primaryKey({ columns: [table.trialId, table.attemptId] })],
);

/** Notes that an instructor pins to an entry of a lane's log. */
export const laneNotes = pgTable(
  "lane_notes",
  {
    id: uuid().primaryKey().defaultRandom(),
    attemptId: uuid()
      .notNull()
      .references(() => attempts.id, { onDelete: "cascade" }),
    seq: integer().notNull(),
    text: text().notNull(),
    byName: text().notNull(),
    at: moment().notNull().defaultNow(),
  },
  (table) => [index("lane_notes_attempt").on(table.attemptId)],
);

/**
 * Append-only: other marks that an instructor gave for a strand, with the reason; the newest counts, null takes it
 * back.
 */
export const markOverrides = pgTable(
  "mark_overrides",
  {
    id: uuid().primaryKey().defaultRandom(),
    attemptId: uuid()
      .notNull()
      .references(() => attempts.id, { onDelete: "cascade" }),
    strand: text().$type<StrandName>().notNull(),
    marks: doublePrecision(),
    reason: text().notNull(),
    byName: text().notNull(),
    at: moment().notNull().defaultNow(),
  },
  (table) => [index("mark_overrides_attempt").on(table.attemptId)],
);

/** Exercises for the shop, given to a class by its instructor. One in use is not changed: a new one is made. */
export const floorExercises = pgTable("floor_exercises", {
  id: uuid().primaryKey().defaultRandom(),
  classId: uuid()
    .notNull()
    .references(() => classes.id, { onDelete: "cascade" }),
  madeAt: moment().notNull().defaultNow(),
  body: jsonb().$type<FloorExercise>().notNull(),
  /** Students do not see it, but for those who have begun it. */
  isHidden: boolean().notNull().default(false),
});

export const floorLanes = pgTable(
  "floor_lanes",
  {
    id: uuid().primaryKey().defaultRandom(),
    exerciseId: uuid()
      .notNull()
      .references(() => floorExercises.id, { onDelete: "cascade" }),
    studentId: uuid()
      .notNull()
      .references(() => users.id, { onDelete: "cascade" }),
    /** Which attempt of this student it is, from one. */
    number: integer().notNull().default(1),
    openedAt: moment().notNull().defaultNow(),
  },
  (table) => [unique("floor_lanes_once").on(table.exerciseId, table.studentId, table.number)],
);

/** Entries keep the id that the student's device gave them: one that is sent again is there once. */
export const floorEntries = pgTable(
  "floor_entries",
  {
    id: uuid().primaryKey(),
    laneId: uuid()
      .notNull()
      .references(() => floorLanes.id, { onDelete: "cascade" }),
    /** When it was made, by the device; and when it came here. */
    at: moment().notNull(),
    receivedAt: moment().notNull().defaultNow(),
    byId: uuid().notNull(),
    byName: text().notNull(),
    /** Typed in from the student's worksheet. */
    isFromPaper: boolean().notNull().default(false),
    entry: jsonb().$type<FloorEntry>().notNull(),
  },
  (table) => [index("floor_entries_lane").on(table.laneId)],
);
