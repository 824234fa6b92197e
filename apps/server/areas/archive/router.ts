import { Router } from "express";
import { HttpError } from "../../errors";
import { actorOf, idOf, requireRole } from "../../guards";
import type { ClassStore } from "../classes/store";
import type { FloorStore } from "../floor/store";
import type { LaneStore } from "../lanes/store";
import type { ReviewStore } from "../review/store";

interface Deps {
  readonly lanes: LaneStore;
  readonly reviews: Pick<ReviewStore, "notes">;
  readonly floor: FloorStore;
  readonly classes: ClassStore;
  readonly now: () => Date;
}

/** Everything of one student in this class, as one file: lanes with their logs, rulings and notes, and floor lanes. */
async function archiveOf({ lanes, reviews, floor, now }: Deps, classId: string, studentId: string) {
  const student = (await lanes.studentsOfClass(classId)).find(({ id }) => id === studentId);
  if (!student) throw new HttpError("notFound");
  const all = await Promise.all([lanes.headersOfStudent(studentId), lanes.headersOfStudent(studentId, true)]);
  const headers = all.flat().filter((header) => header.classId === classId);
  const bench = [];
  // one after another: a log is long, and lanes at work come first
  for (const { id, title, attempt, isTrial, exerciseId, exerciseVersion, openedAt, handedInAt } of headers)
    bench.push({
      title,
      attempt,
      isTrial,
      exerciseId,
      exerciseVersion,
      openedAt,
      handedInAt,
      log: (await lanes.log(id)).map(({ seq, atMs, event }) => ({ seq, at: new Date(atMs), event })),
      ruling: await lanes.rulingOf(id),
      earlier: (await lanes.totalsOf(id)).slice(0, -1),
      notes: await reviews.notes(id),
    });
  const floorLanes = (await floor.lanesOfClass(classId)).filter((lane) => lane.studentId === studentId);
  const entries = await floor.entries(floorLanes.map(({ id }) => id));
  return {
    format: 1,
    madeAt: now(),
    student: { name: student.name, login: student.login, number: student.number, isRemoved: student.isRemoved },
    bench,
    floor: floorLanes.map(({ id, exercise }) => ({ exercise, entries: entries.get(id) ?? [] })),
  };
}

export function archiveRouter(deps: Deps): Router {
  const router = Router();
  router.get("/class/students/:id/archive", requireRole("instructor"), async (req, res) => {
    const { classId } = actorOf(req);
    const id = idOf(req);
    const held = await deps.classes.roleIn(id, classId);
    if (held?.role !== "student") throw new HttpError("notFound");
    const archive = await archiveOf(deps, classId, id);
    res.attachment(`${archive.student.login}.json`).json(archive);
  });
  return router;
}
