import { reply } from "../../reply";
import { floorBatch, floorBegin, floorChange, floorHide } from "@probe-lane/contract";
import { templateSchema } from "@probe-lane/core/floor";
import { Router, type Request } from "express";
import { HttpError } from "../../errors";
import { openStream } from "../../eventStream";
import { actorOf, idOf, parseBody, requireRole } from "../../guards";
import {
  addFloorEntries,
  attemptAfter,
  changedExercise,
  copiedTitle,
  floorClass,
  floorLane,
  floorList,
  laneFor,
  makeFloorExercise,
} from "./service";
import type { ChangeListener } from "../wall/changes";
import type { FloorStore } from "./store";

interface Deps {
  store: FloorStore;
  now: () => Date;
  /** Says to whoever looks at the wall of a class that something has changed there. */
  tell(classId: string): Promise<void>;
  /** Says to whoever has a lane open that something was entered there. */
  tellLane(laneId: string): Promise<void>;
  changes: Pick<ChangeListener, "listenFloor">;
  isStudent(userId: string, classId: string): Promise<boolean>;
}

export function floorRouter({ store, now, changes, tell, tellLane, isStudent }: Deps): Router {
  const router = Router();
  // a lost message costs the wall one refresh, never an entry
  const told = (classId: string) => void tell(classId).catch(() => undefined);
  router.use(requireRole("student", "assistant", "instructor"));
  router.get("/", async (req, res) => reply(res, "/floor", await floorList(store, actorOf(req))));
  router.post("/exercises", requireRole("instructor"), async (req, res) => {
    res.status(201).json({ id: await makeFloorExercise(store, actorOf(req), parseBody(templateSchema, req.body)) });
  });
  const own = async (req: Request) => {
    const exercise = await store.exercise(idOf(req), actorOf(req).classId);
    if (!exercise) throw new HttpError("notFound");
    return exercise;
  };
  router.put("/exercises/:id", requireRole("instructor"), async (req, res) => {
    const change = parseBody(floorChange, req.body);
    const { id, body } = await own(req);
    if (!(await store.change(id, changedExercise(body, change)))) throw new HttpError("floorInUse");
    res.status(204).end();
  });
  router.put("/exercises/:id/hidden", requireRole("instructor"), async (req, res) => {
    const { isHidden } = parseBody(floorHide, req.body);
    await store.hide((await own(req)).id, isHidden);
    res.status(204).end();
  });
  router.post("/exercises/:id/copy", requireRole("instructor"), async (req, res) => {
    const { body } = await own(req);
    const id = await store.make(actorOf(req).classId, { ...body, title: copiedTitle(body.title) });
    res.status(201).json({ id });
  });
  router.delete("/exercises/:id", requireRole("instructor"), async (req, res) => {
    const { id } = await own(req);
    if (!(await store.change(id, null))) throw new HttpError("floorInUse");
    res.status(204).end();
  });
  router.get("/exercises/:id/class", requireRole("assistant", "instructor"), async (req, res) =>
    reply(res, "/floor/exercises/:id/class", await floorClass(store, await own(req), actorOf(req).classId)),
  );
  router.post("/exercises/:id/lanes", requireRole("student", "instructor"), async (req, res) => {
    const actor = actorOf(req);
    const { isAgain, studentId } = parseBody(floorBegin, req.body ?? {});
    // a student opens their own lane, who teaches that of a student whose worksheet is typed in
    if ((actor.role === "instructor") !== (studentId !== undefined)) throw new HttpError("forbidden");
    const exercise = await own(req);
    const forId = studentId ?? actor.id;
    if (studentId !== undefined && !(await isStudent(studentId, actor.classId))) throw new HttpError("notFound");
    const newest = await store.newestOf(exercise.id, forId);
    // who has begun it goes on
    if (exercise.isHidden && newest === null && studentId === undefined) throw new HttpError("notFound");
    if (exercise.isArchived) throw new HttpError("classArchived");
    res.status(201).json({ id: await store.open(exercise.id, forId, attemptAfter(newest, isAgain)) });
    told(actor.classId);
  });
  router.get("/lanes/:id", async (req, res) =>
    reply(res, "/floor/lanes/:id", await floorLane(store, idOf(req), actorOf(req))),
  );
  router.post("/lanes/:id/entries", async (req, res) => {
    const actor = actorOf(req);
    await addFloorEntries(store, idOf(req), actor, parseBody(floorBatch, req.body), now());
    res.status(204).end();
    told(actor.classId);
    tellLane(idOf(req)).catch(() => undefined);
  });
  // who may read the lane hears of it, wherever it is open: on the phone at the machine, and beside it
  router.get("/lanes/:id/stream", async (req, res) => {
    const { id } = await laneFor(store, idOf(req), actorOf(req));
    const stop = changes.listenFloor((laneId) => laneId === id && res.write(`event: lane\ndata: ${laneId}\n\n`));
    openStream(res, stop);
  });
  return router;
}
