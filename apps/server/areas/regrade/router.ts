import { reply } from "../../reply";
import { markingDraft } from "@probe-lane/contract";
import { Router } from "express";
import { actorOf, idOf, parseBody, requireRole } from "../../guards";
import type { RegradeService } from "./service";

/** Tolerances and weights of an exercise: what they are, whom others would change, and marking again by them. */
export function regradeRouter(service: RegradeService): Router {
  const router = Router();
  router.use("/assignments/:id/marking", requireRole("instructor"));
  router.get("/assignments/:id/marking", async (req, res) =>
    reply(res, "/assignments/:id/marking", await service.view(idOf(req), actorOf(req))),
  );
  router.post("/assignments/:id/marking/trials", async (req, res) =>
    res.status(202).json(await service.beginTrial(idOf(req), actorOf(req), parseBody(markingDraft, req.body))),
  );
  router.get("/assignments/:id/marking/trials/:trial", async (req, res) =>
    reply(
      res,
      "/assignments/:id/marking/trials/:trial",
      await service.trial(idOf(req), idOf(req, "trial"), actorOf(req)),
    ),
  );
  router.delete("/assignments/:id/marking/trials/:trial", async (req, res) => {
    await service.cancelTrial(idOf(req), idOf(req, "trial"), actorOf(req));
    res.status(204).end();
  });
  router.post("/assignments/:id/marking", async (req, res) =>
    res.status(202).json(await service.begin(idOf(req), actorOf(req), parseBody(markingDraft, req.body))),
  );
  return router;
}
