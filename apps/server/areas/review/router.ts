import { reply } from "../../reply";
import { setImmediate as otherWork } from "node:timers/promises";
import { lookRequest, noteRequest, overrideRequest } from "@probe-lane/contract";
import type { LoggedEvent } from "@probe-lane/core/diagnosis";
import { reviewSteps, type Moment, type Review } from "@probe-lane/core/review";
import { Router } from "express";
import { HttpError } from "../../errors";
import { actorOf, idOf, isStaff, parseBody, requireRole } from "../../guards";
import type { AuthStore } from "../auth/store";
import { headerOf, type LaneService } from "../lanes/service";
import type { LaneStore } from "../lanes/store";
import type { ReviewStore } from "./store";

export interface ReviewDeps {
  lanes: LaneService;
  store: LaneStore;
  reviews: ReviewStore;
  people: Pick<AuthStore, "nameOf">;
  /** Tells a class that a note was pinned to one of its lanes. */
  noted(classId: string): Promise<void>;
  now(): Date;
}

const MOMENTS_AT_ONCE = 100;

/** The replay of a long lane takes a quarter of a second; lanes at work are answered in between. */
async function reviewBetween(log: readonly LoggedEvent[]): Promise<Review> {
  const steps = reviewSteps(log);
  const moments: Moment[] = [];
  for (;;) {
    const { done, value } = steps.next();
    if (done) return { first: value, moments };
    if (moments.push(value) % MOMENTS_AT_ONCE === 0) await otherWork();
  }
}

/**
 * Replay, notes and other marks. A student replays an own lane after hand-in; an instructor any lane of the class, at
 * any time.
 */
export function reviewRouter({ lanes, store, reviews, people, noted, now }: ReviewDeps): Router {
  const router = Router();
  const nameOf = async (id: string): Promise<string> => {
    const name = await people.nameOf(id);
    if (name === null) throw new HttpError("notSignedIn");
    return name;
  };
  router.get("/lanes/:id/review", async (req, res) => {
    const actor = actorOf(req);
    const lane = await lanes.held(idOf(req), actor);
    if (actor.role === "student" && !lane.state.isHandedIn) throw new HttpError("notHandedIn");
    const [log, notes] = await Promise.all([store.log(lane.header.id), reviews.notes(lane.header.id)]);
    return reply(res, "/lanes/:id/review", {
      lane: headerOf(lane.header),
      review: await reviewBetween(log),
      notes,
      canWrite: isStaff(actor),
    });
  });
  router.post("/lanes/:id/notes", requireRole("assistant", "instructor"), async (req, res) => {
    const actor = actorOf(req);
    const lane = await lanes.held(idOf(req), actor);
    const note = parseBody(noteRequest, req.body);
    if (note.seq > lane.headSeq) throw new HttpError("noSuchMoment");
    await reviews.addNote(lane.header.id, note, await nameOf(actor.id));
    await noted(lane.header.classId);
    res.status(204).end();
  });
  router.delete("/lanes/:id/notes/:note", requireRole("assistant", "instructor"), async (req, res) => {
    const lane = await lanes.held(idOf(req), actorOf(req));
    if (!(await reviews.removeNote(lane.header.id, idOf(req, "note")))) throw new HttpError("notFound");
    res.status(204).end();
  });
  router.post("/lanes/:id/look", requireRole("student"), async (req, res) => {
    const lane = await lanes.held(idOf(req), actorOf(req));
    const { text } = parseBody(lookRequest, req.body);
    // nothing of it is in the marks, so there is nothing to look at again
    if (lane.header.isTrial) throw new HttpError("forbidden");
    if (!lane.state.isHandedIn) throw new HttpError("notHandedIn");
    if (!(await reviews.ask(lane.header.id, text, now()))) throw new HttpError("lookAsked");
    res.status(201).json({});
  });
  router.post("/lanes/:id/look/answer", requireRole("instructor"), async (req, res) => {
    const actor = actorOf(req);
    const lane = await lanes.held(idOf(req), actor);
    const { text: answer } = parseBody(lookRequest, req.body);
    const answered = { answer, byName: await nameOf(actor.id), answeredAt: now() };
    if (!(await reviews.answer(lane.header.id, answered))) throw new HttpError("noLookAsked");
    res.status(204).end();
  });
  router.post("/lanes/:id/overrides", requireRole("instructor"), async (req, res) => {
    const actor = actorOf(req);
    const { lane, ruling } = await lanes.rulingView(idOf(req), actor);
    const given = parseBody(overrideRequest, req.body);
    const strand = ruling.strands.find(({ name }) => name === given.strand);
    if (!strand) throw new HttpError("badRequest");
    if (given.marks !== null && given.marks > strand.outOf) throw new HttpError("tooManyMarks");
    await reviews.addOverride(lane.id, given, await nameOf(actor.id));
    res.status(204).end();
  });
  return router;
}
