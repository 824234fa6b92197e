import { reply } from "../../reply";
import { floorBatch } from "@probe-lane/contract";
import { templateSchema } from "@probe-lane/core/floor";
import { Router } from "express";
import { HttpError } from "../../errors";
import { actorOf, idOf, parseBody, requireRole } from "../../guards";
import { addFloorEntries, floorLane, floorList, makeFloorExercise } from "./service";
import type { FloorStore } from "./store";

export function floorRouter(store: FloorStore, now: () => Date): Router {
  const router = Router();
  router.use(requireRole("student", "assistant", "instructor"));
  router.get("/", async (req, res) => reply(res, "/floor", await floorList(store, actorOf(req))));
  router.post("/exercises", requireRole("instructor"), async (req, res) => {
    res.status(201).json({ id: await makeFloorExercise(store, actorOf(req), parseBody(templateSchema, req.body)) });
  });
  router.post("/exercises/:id/lanes", requireRole("student"), async (req, res) => {
    const actor = actorOf(req);
    const exercise = await store.exercise(idOf(req), actor.classId);
    if (!exercise) throw new HttpError("notFound");
    if (exercise.isArchived) throw new HttpError("classArchived");
    res.status(201).json({ id: await store.open(exercise.id, actor.id) });
  });
  router.get("/lanes/:id", async (req, res) =>
    reply(res, "/floor/lanes/:id", await floorLane(store, idOf(req), actorOf(req))),
  );
  router.post("/lanes/:id/entries", async (req, res) => {
    await addFloorEntries(store, idOf(req), actorOf(req), parseBody(floorBatch, req.body), now());
    res.status(204).end();
  });
  return router;
}
