import { openStream } from "../../eventStream";
import { reply } from "../../reply";
import { Router } from "express";
import { actorOf, requireRole } from "../../guards";
import type { FloorStore } from "../floor/store";
import type { LaneCache } from "../lanes/laneCache";
import type { LaneStore } from "../lanes/store";
import type { AuthStore } from "../auth/store";
import type { ChangeListener } from "./changes";
import { wallView } from "./service";

export function wallRouter(deps: {
  store: LaneStore;
  floor: FloorStore;
  cache: LaneCache;
  people: AuthStore;
  changes: ChangeListener;
  pausedBy(classId: string): string | null;
  now(): Date;
}): Router {
  const router = Router();
  router.use("/wall", requireRole("assistant", "instructor"));
  router.get("/wall", async (req, res) => reply(res, "/wall", await wallView(deps, actorOf(req), deps.now())));
  router.get("/wall/stream", async (req, res) => {
    const { classId } = actorOf(req);
    const stop = deps.changes.listen((laneId) => {
      void deps.cache
        .get(laneId)
        .then((lane) => lane?.header.classId === classId && res.write(`event: lane\ndata: ${laneId}\n\n`))
        .catch(() => undefined);
    });
    const stopClass = deps.changes.listenClasses((id) => id === classId && res.write(`event: class\ndata: ${id}\n\n`));
    openStream(res, () => {
      stopClass();
      stop();
    });
  });
  return router;
}
