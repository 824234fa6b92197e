import { and, asc, desc, eq, inArray, sql } from "drizzle-orm";
import type { FloorBatch } from "@probe-lane/contract";
import type { FloorExercise, StoredFloorEntry } from "@probe-lane/core/floor";
import type { Database } from "../../db/client";
import { classes, floorEntries, floorExercises, floorLanes, users } from "../../db/schema";

const laneColumns = {
  id: floorLanes.id,
  exerciseId: floorLanes.exerciseId,
  studentId: floorLanes.studentId,
  studentName: users.name,
  attempt: floorLanes.number,
  classId: floorExercises.classId,
  exercise: floorExercises.body,
};

export const floorStore = (db: Database) => {
  const lanes = () =>
    db
      .select(laneColumns)
      .from(floorLanes)
      .innerJoin(floorExercises, eq(floorExercises.id, floorLanes.exerciseId))
      .innerJoin(users, eq(users.id, floorLanes.studentId));
  /** The newest attempt of a student at an exercise, and whether it was handed in; null before the first. */
  async function newestOf(exerciseId: string, studentId: string) {
    const [row] = await db
      .select({
        id: floorLanes.id,
        number: floorLanes.number,
        isHandedIn: sql<boolean>`exists (select 1 from floor_entries e where e.lane_id = floor_lanes.id and e.entry->>'type' = 'handedIn')`,
      })
      .from(floorLanes)
      .where(and(eq(floorLanes.exerciseId, exerciseId), eq(floorLanes.studentId, studentId)))
      .orderBy(desc(floorLanes.number))
      .limit(1);
    return row ?? null;
  }
  return {
    exercises: (classId: string) =>
      db.select().from(floorExercises).where(eq(floorExercises.classId, classId)).orderBy(desc(floorExercises.madeAt)),
    async exercise(id: string, classId: string) {
      const [row] = await db
        .select({
          id: floorExercises.id,
          body: floorExercises.body,
          isHidden: floorExercises.isHidden,
          isArchived: sql<boolean>`${classes.archivedAt} is not null`,
          isBegun: sql<boolean>`exists (select 1 from floor_lanes l where l.exercise_id = ${floorExercises.id})`,
        })
        .from(floorExercises)
        .innerJoin(classes, eq(classes.id, floorExercises.classId))
        .where(and(eq(floorExercises.id, id), eq(floorExercises.classId, classId)))
        .limit(1);
      return row ?? null;
    },
    async make(classId: string, body: FloorExercise): Promise<string> {
      const [row] = await db.insert(floorExercises).values({ classId, body }).returning({ id: floorExercises.id });
      if (!row) throw new Error("make: the floor exercise was not stored");
      return row.id;
    },
    hide: async (id: string, isHidden: boolean): Promise<void> => {
      await db.update(floorExercises).set({ isHidden }).where(eq(floorExercises.id, id));
    },
    /** Another text of an exercise, or its end (null); false where somebody has begun it meanwhile. */
    async change(id: string, body: FloorExercise | null): Promise<boolean> {
      const unused = and(
        eq(floorExercises.id, id),
        sql`not exists (select 1 from floor_lanes l where l.exercise_id = ${floorExercises.id})`,
      );
      const rows =
        body === null
          ? await db.delete(floorExercises).where(unused).returning({ id: floorExercises.id })
          : await db.update(floorExercises).set({ body }).where(unused).returning({ id: floorExercises.id });
      return rows.length === 1;
    },
    lanesOfClass: (classId: string) =>
      lanes().where(eq(floorExercises.classId, classId)).orderBy(asc(users.name), desc(floorLanes.number)),
    /** Lanes of a class that are not handed in. */
    openLanesOfClass: (classId: string) =>
      lanes().where(
        and(
          eq(floorExercises.classId, classId),
          sql`not exists (select 1 from floor_entries e where e.lane_id = floor_lanes.id and e.entry->>'type' = 'handedIn')`,
        ),
      ),
    async lane(id: string) {
      const [row] = await lanes().where(eq(floorLanes.id, id)).limit(1);
      return row ?? null;
    },
    newestOf,
    /** Opens an attempt of this exercise, unless it is there already; the student's newest then. */
    async open(exerciseId: string, studentId: string, number: number): Promise<string> {
      await db.insert(floorLanes).values({ exerciseId, studentId, number }).onConflictDoNothing();
      const row = await newestOf(exerciseId, studentId);
      if (!row) throw new Error("open: the floor lane was not stored");
      return row.id;
    },
    async entries(laneIds: readonly string[]): Promise<Map<string, StoredFloorEntry[]>> {
      const rows =
        laneIds.length === 0
          ? []
          : await db
              .select()
              .from(floorEntries)
              .where(inArray(floorEntries.laneId, [...laneIds]));
      const byLane = new Map<string, StoredFloorEntry[]>(laneIds.map((id) => [id, []]));
      for (const { id, laneId, at, receivedAt, byName, isFromPaper, entry } of rows)
        byLane.get(laneId)?.push({
          id,
          atMs: at.getTime(),
          receivedAtMs: receivedAt.getTime(),
          by: byName,
          ...(isFromPaper ? { isFromPaper } : {}),
          entry,
        });
      return byLane;
    },
    add: async (
      laneId: string,
      by: { id: string; name: string },
      entries: FloorBatch["entries"],
      receivedAt: Date,
    ): Promise<void> => {
      await db
        .insert(floorEntries)
        .values(
          entries.map(({ id, atMs, isFromPaper, entry }) => ({
            id,
            laneId,
            at: new Date(atMs),
            receivedAt,
            byId: by.id,
            byName: by.name,
            isFromPaper: isFromPaper ?? false,
            entry,
          })),
        )
        .onConflictDoNothing();
    },
    async nameOf(userId: string): Promise<string> {
      const [row] = await db.select({ name: users.name }).from(users).where(eq(users.id, userId)).limit(1);
      return row?.name ?? "";
    },
  };
};
export type FloorStore = ReturnType<typeof floorStore>;
