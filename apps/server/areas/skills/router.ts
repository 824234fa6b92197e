import { reply } from "../../reply";
import { Router } from "express";
import { actorOf, idOf, requireRole } from "../../guards";
import type { LaneStore } from "../lanes/store";
import { skillsView } from "./service";

/** A student's own skills; an instructor sees those of every student of the class. */
export function skillsRouter(store: LaneStore): Router {
  const router = Router();
  router.get("/skills", requireRole("student"), async (req, res) => {
    const { classId, id } = actorOf(req);
    reply(res, "/skills", await skillsView(store, classId, id));
  });
  router.get("/students/:id/skills", requireRole("instructor"), async (req, res) =>
    reply(res, "/students/:id/skills", await skillsView(store, actorOf(req).classId, idOf(req))),
  );
  return router;
}
