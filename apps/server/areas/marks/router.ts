import type { MarkCell, MarksView } from "@probe-lane/contract";
import { Router } from "express";
import { actorOf, requireRole, type Actor } from "../../guards";
import type { LaneStore } from "../lanes/store";

/** Students × assignments; the best attempt counts. */
async function marksView(store: LaneStore, actor: Actor): Promise<MarksView> {
  const [assignments, students, headers, rulings] = await Promise.all([
    store.assignmentsOfClass(actor.classId), store.studentsOfClass(actor.classId), store.headersOfClass(actor.classId), store.rulingsOfClass(actor.classId),
  ]);
  const cellOf = (studentId: string, assignmentId: string): MarksView["students"][number]["cells"][string] => {
    const lanes = headers.filter((header) => header.studentId === studentId && header.assignmentId === assignmentId);
    const marked = lanes.flatMap((lane): MarkCell[] => {
      const ruling = rulings.get(lane.id);
      return ruling ? [{ laneId: lane.id, attempt: lane.attempt, total: ruling.total, outOf: ruling.outOf, strands: [...ruling.strands] }] : [];
    });
    const best = marked.reduce<MarkCell | null>((held, cell) => (held && held.total >= cell.total ? held : cell), null);
    return { best, attempts: lanes.length, isOpen: lanes.some(({ handedInAt }) => handedInAt === null) };
  };
  return {
    assignments: assignments.map(({ id, exercise }) => ({ id, title: exercise.title })),
    students: students.map(({ id, name }) => ({ id, name, cells: Object.fromEntries(assignments.map((one) => [one.id, cellOf(id, one.id)])) })),
  };
}

export function marksRouter(store: LaneStore): Router {
  const router = Router();
  router.use("/marks", requireRole("instructor"));
  router.get("/marks", async (req, res) => res.json(await marksView(store, actorOf(req))));
  return router;
}
