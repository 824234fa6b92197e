import { reply } from "../../reply";
import type { MarkCell, MarksView } from "@probe-lane/contract";
import { Router } from "express";
import { actorOf, requireRole, type Actor } from "../../guards";
import { floorList, floorRulingOf } from "../floor/service";
import type { FloorStore } from "../floor/store";
import type { LaneStore } from "../lanes/store";

/** Students × assignments; the best attempt counts. */
async function marksView(store: LaneStore, actor: Actor): Promise<MarksView> {
  const [assignments, students, headers, rulings] = await Promise.all([
    store.assignmentsOfClass(actor.classId),
    store.studentsOfClass(actor.classId),
    store.headersOfClass(actor.classId),
    store.rulingsOfClass(actor.classId),
  ]);
  const cellOf = (studentId: string, assignmentId: string): MarksView["students"][number]["cells"][string] => {
    const lanes = headers.filter((header) => header.studentId === studentId && header.assignmentId === assignmentId);
    const marked = lanes.flatMap((lane): MarkCell[] => {
      const ruling = rulings.get(lane.id);
      return ruling
        ? [
            {
              href: `/lanes/${lane.id}/ruling`,
              attempt: lane.attempt,
              total: ruling.total,
              outOf: ruling.outOf,
              strands: [...ruling.strands],
            },
          ]
        : [];
    });
    const best = marked.reduce<MarkCell | null>((held, cell) => (held && held.total >= cell.total ? held : cell), null);
    return { best, attempts: lanes.length, isOpen: lanes.some(({ handedInAt }) => handedInAt === null) };
  };
  return {
    assignments: assignments.map(({ id, exercise }) => ({ id, title: exercise.title, isFloor: false })),
    students: students.map(({ id, name, isRemoved }) => ({
      id,
      name,
      isRemoved,
      cells: Object.fromEntries(assignments.map((one) => [one.id, cellOf(id, one.id)])),
    })),
  };
}

/** Marks of the floor: one lane a student and exercise. */
async function withFloor(view: MarksView, floor: FloorStore, actor: Actor): Promise<MarksView> {
  const { exercises } = await floorList(floor, actor);
  const lanes = await floor.lanesOfClass(actor.classId);
  const rulings = new Map(
    await Promise.all(lanes.map(async ({ id }) => [id, await floorRulingOf(floor, id)] as const)),
  );
  return {
    assignments: [
      ...view.assignments,
      ...exercises.map(({ id, exercise }) => ({ id, title: exercise.title, isFloor: true })),
    ],
    students: view.students.map((student) => ({
      ...student,
      cells: {
        ...student.cells,
        ...Object.fromEntries(
          exercises.map(({ id }) => {
            const lane = lanes.find(({ exerciseId, studentId }) => exerciseId === id && studentId === student.id);
            const ruling = lane ? rulings.get(lane.id) : null;
            const best: MarkCell | null =
              lane && ruling
                ? {
                    href: `/floor/${lane.id}`,
                    attempt: 1,
                    total: ruling.total,
                    outOf: ruling.outOf,
                    strands: [...ruling.strands],
                  }
                : null;
            return [id, { best, attempts: lane ? 1 : 0, isOpen: lane !== undefined && !ruling }];
          }),
        ),
      },
    })),
  };
}

export function marksRouter(store: LaneStore, floor: FloorStore): Router {
  const router = Router();
  router.use("/marks", requireRole("instructor"));
  router.get("/marks", async (req, res) =>
    reply(res, "/marks", await withFloor(await marksView(store, actorOf(req)), floor, actorOf(req))),
  );
  return router;
}
