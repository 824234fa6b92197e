import { reply } from "../../reply";
import { joinRequest, rosterRequest, type JoinReply } from "@probe-lane/contract";
import { Router } from "express";
import { failureLimiter } from "../../limits";
import { HttpError } from "../../errors";
import { actorOf, idOf, parseBody, requireRole } from "../../guards";
import { signInAs } from "../auth/router";
import { addRoster, classView, join, newJoinCode, previewRoster } from "./service";
import type { ClassStore } from "../classes/store";
import type { RosterStore } from "./store";

/** A whole class may mistype the code from one address; a machine that guesses is stopped. */
const MOST_FAILED_JOINS = 40;

export function rosterRouter(store: RosterStore, held: ClassStore, ended: (userId: string) => void): Router {
  const router = Router();
  router.post("/session/join", failureLimiter(MOST_FAILED_JOINS), async (req, res) => {
    const { actor, did } = await join(store, held, parseBody(joinRequest, req.body));
    await signInAs(req, actor);
    res.status(201).json({ did } satisfies JoinReply);
  });
  router.use("/class", requireRole("instructor"));
  router.get("/class", async (req, res) => reply(res, "/class", await classView(store, held, actorOf(req))));
  router.post("/class/code", async (req, res) => {
    await store.setCode(actorOf(req).classId, newJoinCode());
    res.status(204).end();
  });
  router.post("/class/roster/preview", async (req, res) =>
    res.json(await previewRoster(store, actorOf(req), parseBody(rosterRequest, req.body))),
  );
  router.post("/class/roster", async (req, res) =>
    res.status(201).json(await addRoster(store, actorOf(req), parseBody(rosterRequest, req.body))),
  );
  router.post("/class/students/:id/lift", async (req, res) => {
    if (!(await store.lift(actorOf(req).classId, idOf(req), new Date()))) throw new HttpError("notFound");
    res.status(204).end();
  });
  router.post("/class/students/:id/reset", async (req, res) => {
    if (!(await store.reset(actorOf(req).classId, idOf(req), newJoinCode()))) throw new HttpError("notFound");
    ended(idOf(req));
    res.status(204).end();
  });
  return router;
}
