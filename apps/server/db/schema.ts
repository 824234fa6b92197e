import type { Exercise, Marking } from "@probe-lane/core/exercises";
import type { LaneEvent } from "@probe-lane/core/bench";
import type { Ruling } from "@probe-lane/core/grading";
import { boolean, doublePrecision, foreignKey, index, integer, json, jsonb, pgTable, primaryKey, text, timestamp, unique, uuid, varchar } from "drizzle-orm/pg-core";

const moment = () => timestamp({ withTimezone: true, mode: "date" });

export const users = pgTable("users", {
  id: uuid().primaryKey().defaultRandom(),
  login: text().notNull().unique(),
  name: text().notNull(),
  role: text({ enum: ["student", "instructor"] }).notNull(),
  /** Null until the student has joined with the class code, and after a reset. */
  passwordHash: text(),
});

/** The table of the session store; its column names are the store's. */
export const sessions = pgTable("session", {
  sid: varchar().primaryKey(),
  sess: json().notNull(),
  expire: timestamp({ precision: 6, mode: "date" }).notNull(),
}, (table) => [index("session_expire").on(table.expire)]);

export const classes = pgTable("classes", {
  id: uuid().primaryKey().defaultRandom(),
  name: text().notNull(),
  schoolName: text().notNull(),
  /** Lets students of the class choose their password; an instructor can renew it. */
  joinCode: text().unique(),
});

export const memberships = pgTable("memberships", {
  classId: uuid().notNull().references(() => classes.id, { onDelete: "cascade" }),
  userId: uuid().notNull().references(() => users.id, { onDelete: "cascade" }),
}, (table) => [primaryKey({ columns: [table.classId, table.userId] })]);

export const exercises = pgTable("exercises", {
  id: text().notNull(),
  version: integer().notNull(),
  body: jsonb().$type<Exercise>().notNull(),
}, (table) => [primaryKey({ columns: [table.id, table.version] })]);

/** Append-only: a ruling cites the exercise version and one of these. */
export const markingRevisions = pgTable("marking_revisions", {
  exerciseId: text().notNull(),
  exerciseVersion: integer().notNull(),
  revision: integer().notNull(),
  body: jsonb().$type<Marking>().notNull(),
}, (table) => [
  primaryKey({ columns: [table.exerciseId, table.exerciseVersion, table.revision] }),
  foreignKey({ columns: [table.exerciseId, table.exerciseVersion], foreignColumns: [exercises.id, exercises.version] }),
]);

export const assignments = pgTable("assignments", {
  id: uuid().primaryKey().defaultRandom(),
  classId: uuid().notNull().references(() => classes.id, { onDelete: "cascade" }),
  exerciseId: text().notNull(),
  exerciseVersion: integer().notNull(),
  place: integer().notNull(),
  dueAt: moment(),
  isCoachOn: boolean().notNull(),
  attemptsAllowed: integer().notNull(),
}, (table) => [foreignKey({ columns: [table.exerciseId, table.exerciseVersion], foreignColumns: [exercises.id, exercises.version] })]);

export const attempts = pgTable("attempts", {
  id: uuid().primaryKey().defaultRandom(),
  assignmentId: uuid().notNull().references(() => assignments.id, { onDelete: "cascade" }),
  studentId: uuid().notNull().references(() => users.id, { onDelete: "cascade" }),
  number: integer().notNull(),
  openedAt: moment().notNull().defaultNow(),
  handedInAt: moment(),
}, (table) => [unique("attempts_number").on(table.assignmentId, table.studentId, table.number)]);

/** The log. (attempt, seq) is its key, so two writers collide cleanly; writer and client seq make resending harmless. */
export const laneEvents = pgTable("lane_events", {
  attemptId: uuid().notNull().references(() => attempts.id, { onDelete: "cascade" }),
  seq: integer().notNull(),
  at: moment().notNull().defaultNow(),
  actorId: uuid().notNull(),
  writer: text().notNull(),
  clientSeq: integer().notNull(),
  event: jsonb().$type<LaneEvent>().notNull(),
}, (table) => [primaryKey({ columns: [table.attemptId, table.seq] })]);

/** Append-only: a later ruling of the same lane stands beside the earlier one. */
export const rulings = pgTable("rulings", {
  id: uuid().primaryKey().defaultRandom(),
  attemptId: uuid().notNull().references(() => attempts.id, { onDelete: "cascade" }),
  version: text().notNull(),
  markingRevision: integer().notNull(),
  madeAt: moment().notNull().defaultNow(),
  total: doublePrecision().notNull(),
  body: jsonb().$type<Ruling>().notNull(),
}, (table) => [unique("rulings_once").on(table.attemptId, table.version, table.markingRevision)]);
