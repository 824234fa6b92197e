import { reply } from "../../reply";
import { commandBatch, proveRequest, signatureRequest, type StartedLane } from "@probe-lane/contract";
import { Router } from "express";
import { actorOf, idOf, parseBody, requireRole } from "../../guards";
import type { LaneService } from "./service";

/** What tells marks, or what a lane came to, is not for who only helps. */
const noMarks = requireRole("student", "instructor");

export function laneRouter(service: LaneService): Router {
  const router = Router();
  router.post("/lanes/:id/commands", async (req, res) => {
    res.json(await service.run(idOf(req), actorOf(req), parseBody(commandBatch, req.body)));
  });
  router.use(requireRole("student", "assistant", "instructor"));
  router.get("/lanes", requireRole("student"), async (req, res) =>
    reply(res, "/lanes", await service.myLanes(actorOf(req))),
  );
  router.post("/assignments/:id/lanes", requireRole("student"), async (req, res) => {
    const id = await service.start(idOf(req), actorOf(req));
    res.status(201).json({ id } satisfies StartedLane);
  });
  router.get("/lanes/:id", async (req, res) => reply(res, "/lanes/:id", await service.view(idOf(req), actorOf(req))));
  router.get("/lanes/:id/ruling", noMarks, async (req, res) =>
    reply(res, "/lanes/:id/ruling", await service.rulingView(idOf(req), actorOf(req))),
  );
  router.post("/lanes/:id/prove", noMarks, async (req, res) => {
    const gone = new AbortController();
    res.on("close", () => gone.abort());
    res.json(await service.prove(idOf(req), actorOf(req), parseBody(proveRequest, req.body), gone.signal));
  });
  router.get("/lanes/:id/prove", noMarks, async (req, res) =>
    reply(res, "/lanes/:id/prove", await service.proveProgress(idOf(req), actorOf(req))),
  );
  router.get("/lanes/:id/part", async (req, res) =>
    reply(res, "/lanes/:id/part", await service.part(idOf(req), actorOf(req))),
  );
  router.get("/lanes/:id/record", requireRole("instructor"), async (req, res) => {
    const id = idOf(req);
    res.attachment(`lane-${id}.json`).json(await service.record(id, actorOf(req)));
  });
  router.post("/lanes/:id/hand", requireRole("assistant", "instructor"), async (req, res) => {
    await service.answerHand(idOf(req), actorOf(req));
    res.status(204).end();
  });
  router.post("/lanes/:id/signature", requireRole("instructor"), async (req, res) => {
    await service.sign(idOf(req), actorOf(req), parseBody(signatureRequest, req.body));
    res.status(204).end();
  });
  return router;
}
