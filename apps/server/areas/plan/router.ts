import { planChange, planOrder, planStart, type PlanView, type StartedLane } from "@probe-lane/contract";
import { exerciseSchema, machineOf, mustHavesSchema } from "@probe-lane/core/exercises";
import { mustHaveNames, mustHavesAsked } from "@probe-lane/core/grading";
import { Router } from "express";
import { HttpError } from "../../errors";
import { actorOf, idOf, parseBody, requireRole } from "../../guards";
import { reply } from "../../reply";
import type { LaneService } from "../lanes/service";
import type { PlanStore } from "./store";
import { windowOf } from "./window";

/** All that an exercise could be asked for over points. */
const EVERYTHING = mustHavesSchema.parse(Object.fromEntries(mustHaveNames.map((name) => [name, true])));

const iso = (at: Date | null): string | null => at?.toISOString() ?? null;

async function planView(store: PlanStore, classId: string): Promise<PlanView> {
  const [rows, startsOn] = await Promise.all([store.rows(classId), store.startsOn(classId)]);
  return {
    startsOn,
    rows: rows.map(({ exercise: body, exerciseId: _, markedOn, ...row }) => {
      const { title, story, lathe, program } = exerciseSchema.parse(body);
      const { opensAt, dueAt } = windowOf({ ...row, startsOn });
      return {
        ...row,
        title,
        story,
        machine: machineOf({ lathe }),
        markedOn: mustHavesSchema.nullable().parse(markedOn),
        canMiss: mustHavesAsked({ program }, row.isCoachOn, EVERYTHING),
        opensAt: iso(row.opensAt),
        dueAt: iso(row.dueAt),
        opens: iso(opensAt),
        due: iso(dueAt),
      };
    }),
  };
}

/** What a class is given, when, and on which terms; an instructor's page. */
export function planRouter(store: PlanStore, lanes: Pick<LaneService, "try">): Router {
  const router = Router();
  router.use("/plan", requireRole("instructor"));
  router.get("/plan", async (req, res) => reply(res, "/plan", await planView(store, actorOf(req).classId)));
  router.put("/plan", async (req, res) => {
    await store.setStart(actorOf(req).classId, parseBody(planStart, req.body).startsOn);
    res.status(204).end();
  });
  router.put("/plan/order", async (req, res) => {
    const { ids } = parseBody(planOrder, req.body);
    if (!(await store.order(actorOf(req).classId, ids))) throw new HttpError("planMoved");
    res.status(204).end();
  });
  router.put("/plan/:id", async (req, res) => {
    const { opensAt, dueAt, ...change } = parseBody(planChange, req.body);
    const [opens, due] = [opensAt, dueAt].map((at) => (at === null ? null : new Date(at)));
    if (opens && due && opens >= due) throw new HttpError("windowTurned");
    const isThere = await store.change(actorOf(req).classId, idOf(req), {
      ...change,
      opensAt: opens ?? null,
      dueAt: due ?? null,
    });
    if (!isThere) throw new HttpError("notFound");
    res.status(204).end();
  });
  router.post("/plan/:id/try", async (req, res) => {
    const id = await lanes.try(idOf(req), actorOf(req));
    res.status(201).json({ id } satisfies StartedLane);
  });
  return router;
}
