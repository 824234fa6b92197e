import { Router } from "express";
import { actorOf, idOf, requireRole } from "../../guards";
import { reply } from "../../reply";
import type { PatternService } from "./service";

/** What a class gets wrong; an instructor's page. */
export function patternsRouter(patterns: PatternService, nameOfClass: (classId: string) => Promise<string>): Router {
  const router = Router();
  router.get("/patterns", requireRole("instructor"), async (req, res) => {
    const { classId } = actorOf(req);
    reply(res, "/patterns", await patterns.ofClass(classId, await nameOfClass(classId)));
  });
  router.get("/patterns/:id", requireRole("instructor"), async (req, res) => {
    reply(res, "/patterns/:id", await patterns.ofExercise(actorOf(req).classId, idOf(req)));
  });
  return router;
}
