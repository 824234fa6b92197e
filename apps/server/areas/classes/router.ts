import {
  changeClassRequest,
  codeRequest,
  inviteRequest,
  isOddName,
  marksPolicy,
  mergeRequest,
  newClassRequest,
  renameRequest,
  type Role,
} from "@probe-lane/contract";
import { Router, type Request } from "express";
import { HttpError } from "../../errors";
import { actorOf, idOf, parseBody, requireRole, type Actor } from "../../guards";
import { failureLimiter } from "../../limits";
import { newJoinCode } from "../roster/service";
import type { RosterStore } from "../roster/store";
import type { ClassStore } from "./store";

interface Deps {
  readonly store: ClassStore;
  readonly roster: RosterStore;
  readonly ended: (userId: string) => void;
  /** Tells every process that a class is not what it was. */
  readonly tell: (classId: string) => Promise<void>;
  readonly now: () => Date;
}

/** A class may mistype its code from one address; a machine that guesses is stopped. */
const MOST_FAILURES = 40;

/** What a code makes of somebody who is signed in: a student of its class, or what an invitation says. */
async function admitted({ store, roster }: Deps, actor: Actor, code: string): Promise<string> {
  const typed = code.replace(/[\s-]/g, "").toUpperCase();
  const invited = await roster.invitation(typed);
  const classId = invited?.classId ?? (await roster.classByCode(typed))?.id;
  if (classId === undefined) throw new HttpError("joinRefused");
  const held = await store.roleIn(actor.id, classId);
  const role: Role = invited?.role ?? "student";
  const isInAlready = held !== null && !held.isRemoved;
  // an invitation makes an assistant an instructor; no code makes anybody less, the last instructor least of all
  if (isInAlready && !(held.role === "assistant" && role === "instructor")) throw new HttpError("inClassAlready");
  if (invited && !(await roster.takeInvitation(typed))) throw new HttpError("joinRefused");
  await store.admit(actor.id, classId, role);
  return classId;
}

/** A student of the open class by an id, that of the address where none is given; or 404. */
async function studentOf({ store }: Deps, req: Request, id = idOf(req)): Promise<string> {
  const held = await store.roleIn(id, actorOf(req).classId);
  if (held?.role !== "student" || held.isRemoved) throw new HttpError("notFound");
  return id;
}

const named = (...names: readonly string[]): void => {
  if (names.some(isOddName)) throw new HttpError("nameOdd");
};

/** Classes of an instructor: new ones, who teaches and helps there, who is taken off. */
export function classRouter(deps: Deps): Router {
  const { store, ended, tell, now } = deps;
  const router = Router();
  router.post("/session/classes", failureLimiter(MOST_FAILURES), async (req, res) => {
    const { code } = parseBody(codeRequest, req.body);
    res.status(201).json({ id: await admitted(deps, actorOf(req), code) });
  });
  const teaches = requireRole("instructor");
  router.post("/classes", teaches, async (req, res) => {
    const { id: userId, classId } = actorOf(req);
    const { name, term, copiesPlan } = parseBody(newClassRequest, req.body);
    named(name, term);
    const open = await store.classOf(classId);
    if (!open) throw new HttpError("notFound");
    const rules = copiesPlan ? open.policy : {};
    const held = { name, term, schoolName: open.schoolName, joinCode: newJoinCode(), ...rules };
    const id = await store.make(held, { userId, planOf: copiesPlan ? classId : null }, now());
    res.status(201).json({ id });
  });
  router.put("/class", teaches, async (req, res) => {
    const { name, term, isArchived } = parseBody(changeClassRequest, req.body);
    named(name, term);
    const { classId } = actorOf(req);
    await store.change(classId, { name, term, archivedAt: isArchived ? now() : null });
    await tell(classId);
    res.status(204).end();
  });
  router.put("/class/policy", teaches, async (req, res) => {
    const { classId } = actorOf(req);
    await store.change(classId, parseBody(marksPolicy, req.body));
    await tell(classId);
    res.status(204).end();
  });
  router.post("/class/invitations", teaches, async (req, res) => {
    const { role } = parseBody(inviteRequest, req.body);
    const code = newJoinCode();
    await store.invite(actorOf(req).classId, code, role, now());
    res.status(201).json({ code });
  });
  router.delete("/class/invitations/:code", teaches, async (req, res) => {
    const { code } = req.params;
    if (typeof code !== "string" || !(await store.withdraw(actorOf(req).classId, code)))
      throw new HttpError("notFound");
    res.status(204).end();
  });
  router.delete("/class/staff/:id", teaches, async (req, res) => {
    const { classId } = actorOf(req);
    const id = idOf(req);
    const held = await store.roleIn(id, classId);
    if (!held || held.role === "student" || held.isRemoved) throw new HttpError("notFound");
    if (!(await store.removeStaff(classId, id, now()))) throw new HttpError("lastInstructor");
    await store.signOut(classId, id);
    ended(id);
    res.status(204).end();
  });
  router.put("/class/students/:id", teaches, async (req, res) => {
    const id = await studentOf(deps, req);
    const { name, number } = parseBody(renameRequest, req.body);
    named(name);
    await store.rename(id, name, number);
    res.status(204).end();
  });
  router.post("/class/students/:id/merge", teaches, async (req, res) => {
    const { classId, id: instructorId } = actorOf(req);
    const { into } = parseBody(mergeRequest, req.body);
    const [gone, kept] = [await studentOf(deps, req), await studentOf(deps, req, into)];
    if (gone === kept) throw new HttpError("badRequest");
    if (!(await store.isTheirsAlone(gone, instructorId))) throw new HttpError("accountElsewhere");
    await store.merge(gone, kept);
    ended(gone);
    await tell(classId);
    res.status(204).end();
  });
  router.delete("/class/students/:id", teaches, async (req, res) => {
    const { classId } = actorOf(req);
    const id = await studentOf(deps, req);
    const { lanes } = req.query;
    if (lanes !== "keep" && lanes !== "delete") throw new HttpError("badRequest");
    await store.removeStudent(classId, id, { keeps: lanes === "keep", now: now() });
    await store.signOut(classId, id);
    ended(id);
    res.status(204).end();
  });
  return router;
}
