import { messageRequest, pauseRequest, showRequest, type StartedLane } from "@probe-lane/contract";
import { Router } from "express";
import { HttpError } from "../../errors";
import { openStream } from "../../eventStream";
import { actorOf, idOf, parseBody, requireRole } from "../../guards";
import { reply } from "../../reply";
import type { LaneService } from "../lanes/service";
import type { ReviewStore } from "../review/store";
import type { ChangeListener } from "../wall/changes";
import type { ClassesNow } from "./classesNow";
import type { Demonstrations } from "./demonstrations";
import type { TogetherStore } from "./store";

interface Deps {
  readonly store: TogetherStore;
  readonly classesNow: ClassesNow;
  readonly lanes: LaneService;
  readonly demonstrations: Demonstrations;
  readonly reviews: Pick<ReviewStore, "notes">;
  readonly changes: ChangeListener;
  /** Tells every process that something was said to a class, or that it was paused. */
  readonly tell: (classId: string) => Promise<void>;
  readonly nameOf: (userId: string) => Promise<string>;
  readonly now: () => Date;
}

/** During class: words from who teaches to the benches, everybody held at once, and what stands wrong in a lane. */
export function togetherRouter(deps: Deps): Router {
  const { store, classesNow, lanes, demonstrations, reviews, changes, now } = deps;
  const router = Router();
  router.post("/wall/messages", requireRole("assistant", "instructor"), async (req, res) => {
    const actor = actorOf(req);
    const { text, laneId } = parseBody(messageRequest, req.body);
    if (laneId !== null) await lanes.held(laneId, actor);
    const byName = await deps.nameOf(actor.id);
    await store.say({ classId: actor.classId, attemptId: laneId, text, byName, at: now() });
    await deps.tell(actor.classId);
    res.status(201).json({});
  });
  router.put("/wall/pause", requireRole("instructor"), async (req, res) => {
    const { id, classId } = actorOf(req);
    const { isPaused } = parseBody(pauseRequest, req.body);
    await store.pause(classId, isPaused ? { at: now(), name: await deps.nameOf(id) } : null);
    // at once here, and in the other processes as soon as they hear of it
    await classesNow.heard(classId);
    await deps.tell(classId);
    res.status(204).end();
  });
  router.put("/wall/demonstration", requireRole("instructor"), async (req, res) => {
    const actor = actorOf(req);
    const { laneId } = parseBody(showRequest, req.body);
    if (laneId !== null) {
      const { header } = await lanes.held(laneId, actor);
      // nobody's work is put before the class but one's own, where it counts nowhere
      if (header.studentId !== actor.id || !header.isTrial) throw new HttpError("forbidden");
    }
    await store.show(actor.classId, laneId);
    await classesNow.heard(actor.classId);
    await deps.tell(actor.classId);
    res.status(204).end();
  });
  const everybody = requireRole("student", "assistant", "instructor");
  router.get("/demonstration", everybody, async (req, res) =>
    reply(res, "/demonstration", { shown: await demonstrations.shown(actorOf(req).classId) }),
  );
  router.post("/demonstration/lanes", requireRole("student"), async (req, res) => {
    res.status(201).json({ id: await demonstrations.goOn(actorOf(req)) } satisfies StartedLane);
  });
  router.get("/demonstration/stream", everybody, (req, res) => {
    const { classId: own } = actorOf(req);
    const stops = [
      changes.listenClasses((classId) => classId === own && res.write(`event: class\ndata: ${classId}\n\n`)),
      changes.listen((laneId) => laneId === classesNow.shownIn(own) && res.write(`event: lane\ndata: ${laneId}\n\n`)),
    ];
    openStream(res, () => stops.forEach((stop) => stop()));
  });
  router.get("/lanes/:id/together", requireRole("student", "assistant", "instructor"), async (req, res) => {
    const { header } = await lanes.held(idOf(req), actorOf(req));
    const [messages, notes] = await Promise.all([store.saidTo(header), reviews.notes(header.id)]);
    return reply(res, "/lanes/:id/together", {
      messages,
      notes,
      pausedBy: classesNow.pausedBy(header.classId),
      isShowing: (await demonstrations.shown(header.classId)) !== null,
    });
  });
  router.get("/lanes/:id/together/stream", requireRole("student", "assistant", "instructor"), async (req, res) => {
    const { header } = await lanes.held(idOf(req), actorOf(req));
    const stop = changes.listenClasses(
      (classId) => classId === header.classId && res.write(`event: class\ndata: ${classId}\n\n`),
    );
    openStream(res, stop);
  });
  router.get("/lanes/:id/live", requireRole("instructor"), async (req, res) => {
    const actor = actorOf(req);
    const { header, state } = await lanes.held(idOf(req), actor);
    // who tries an exercise finds out as a student does
    if (header.studentId === actor.id || state.isHandedIn) throw new HttpError("forbidden");
    return reply(res, "/lanes/:id/live", await lanes.live(header));
  });
  return router;
}
