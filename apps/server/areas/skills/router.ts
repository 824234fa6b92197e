import { Router } from "express";
import { actorOf, idOf, requireRole } from "../../guards";
import { reply } from "../../reply";
import type { SkillService } from "./service";

/** A student's own skills; an instructor sees those of every student of the class, one by one and all in a table. */
export function skillsRouter(skills: SkillService, nameOfClass: (classId: string) => Promise<string>): Router {
  const router = Router();
  router.get("/skills", requireRole("student"), async (req, res) => {
    const { classId, id } = actorOf(req);
    reply(res, "/skills", await skills.view(classId, id));
  });
  router.get("/students/:id/skills", requireRole("instructor"), async (req, res) =>
    reply(res, "/students/:id/skills", await skills.view(actorOf(req).classId, idOf(req))),
  );
  router.get("/standings", requireRole("instructor"), async (req, res) => {
    const { classId } = actorOf(req);
    reply(res, "/standings", await skills.standings(classId, await nameOfClass(classId)));
  });
  return router;
}
