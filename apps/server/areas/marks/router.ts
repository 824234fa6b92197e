import { reply } from "../../reply";
import { exportQuery, type MarksPolicy, type MarksView } from "@probe-lane/contract";
import { Router } from "express";
import { actorOf, parseBody, requireRole, type Actor } from "../../guards";
import { floorMarks } from "../floor/service";
import type { FloorStore } from "../floor/store";
import type { LaneStore } from "../lanes/store";
import type { ReviewStore } from "../review/store";
import { windowOf } from "../plan/window";
import { marksFile } from "./export";
import { byPolicy } from "./policy";

interface Deps {
  readonly store: LaneStore;
  readonly floor: FloorStore;
  readonly policyOf: (classId: string) => Promise<MarksPolicy>;
  readonly reviews: Pick<ReviewStore, "openLooks">;
  readonly now: () => Date;
}

type Cell = MarksView["students"][number]["cells"][string];
const NOT_BEGUN: Cell = { best: null, attempts: 0, isOpen: false };

const isAfter = (at: Date | null, due: Date | null): boolean => at !== null && due !== null && at > due;

/** What is known of a student and an assignment, by both. */
const keyOf = (studentId: string, assignmentId: string): string => `${studentId} ${assignmentId}`;

/** The best attempt counts. */
async function benchCells(store: LaneStore, classId: string, policy: MarksPolicy): Promise<Map<string, Cell>> {
  const lanes = await store.attemptsOfClass(classId);
  const marks = await store.marksOf(lanes.flatMap(({ id, handedInAt }) => (handedInAt ? [id] : [])));
  const cells = new Map<string, Cell>();
  for (const { id, studentId, assignmentId, attempt, handedInAt, ...planned } of lanes) {
    const key = keyOf(studentId, assignmentId);
    const held = cells.get(key) ?? NOT_BEGUN;
    const marked = marks.get(id);
    const { total, outOf, strands, isPassed } = marked ?? { total: 0, outOf: 0, strands: [], isPassed: false };
    const own = byPolicy(
      {
        href: `/lanes/${id}/ruling`,
        attempt,
        total,
        ruled: null,
        outOf,
        strands: [...strands],
        at: handedInAt?.toISOString() ?? "",
        isLate: isAfter(handedInAt, windowOf(planned).dueAt),
        isPassed,
      },
      policy,
    );
    const isBest = marked && (!held.best || own.total > held.best.total);
    cells.set(key, {
      best: isBest ? own : held.best,
      attempts: held.attempts + 1,
      isOpen: held.isOpen || handedInAt === null,
    });
  }
  return cells;
}

/** Students × assignments, and what was done at real machines: the best attempt counts there too. */
async function marksView(
  { store, floor, policyOf }: Pick<Deps, "store" | "floor" | "policyOf">,
  actor: Actor,
): Promise<Omit<MarksView, "looks">> {
  const policy = await policyOf(actor.classId);
  const [assignments, students, bench, atMachines] = await Promise.all([
    store.titlesOfClass(actor.classId),
    store.studentsOfClass(actor.classId),
    benchCells(store, actor.classId, policy),
    floorMarks(floor, actor.classId),
  ]);
  const all = [
    ...assignments.map((one) => ({ ...one, isFloor: false })),
    ...atMachines.exercises.map(({ id, title }) => ({ id, title, isFloor: true })),
  ];
  const cells = new Map(bench);
  for (const { studentId, exerciseId, best: ruled } of atMachines.lanes) {
    const best = ruled && byPolicy(ruled, policy);
    const key = keyOf(studentId, exerciseId);
    const held = cells.get(key) ?? NOT_BEGUN;
    const isBest = best !== null && (!held.best || best.total > held.best.total);
    cells.set(key, {
      best: isBest ? best : held.best,
      attempts: held.attempts + 1,
      isOpen: held.isOpen || best === null,
    });
  }
  return {
    assignments: all,
    students: students.map((student) => ({
      ...student,
      cells: Object.fromEntries(all.map(({ id }) => [id, cells.get(keyOf(student.id, id)) ?? NOT_BEGUN])),
    })),
  };
}

export function marksRouter({ store, floor, policyOf, reviews, now }: Deps): Router {
  const router = Router();
  router.use("/marks", requireRole("instructor"));
  router.get("/marks", async (req, res) => {
    const actor = actorOf(req);
    const [view, looks] = await Promise.all([
      marksView({ store, floor, policyOf }, actor),
      reviews.openLooks(actor.classId),
    ]);
    reply(res, "/marks", { ...view, looks });
  });
  router.get("/marks/file", async (req, res) => {
    const query = parseBody(exportQuery, req.query);
    const file = marksFile(await marksView({ store, floor, policyOf }, actorOf(req)), query, now());
    const name = { table: "marks", results: "results", lineItems: "lineItems" }[query.as];
    // a mark for spreadsheets that the file is UTF-8
    res.attachment(`${name}.csv`).type("text/csv; charset=utf-8").send(`\uFEFF${file}`);
  });
  return router;
}
