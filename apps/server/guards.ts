import type { Role } from "@probe-lane/contract";
import type { Request, RequestHandler } from "express";
import type { z } from "zod";
import { HttpError } from "./errors";

export interface Actor {
  id: string;
  role: Role;
  classId: string;
}

/** The signed-in person, or 401. */
export function actorOf(req: Request): Actor {
  const actor = req.res?.locals["actor"] as Actor | undefined;
  if (!actor) throw new HttpError("notSignedIn");
  return actor;
}

/** Whether somebody teaches or helps in the class: sees all of its lanes, and works in none. */
export const isStaff = ({ role }: Actor): boolean => role !== "student";

/** Mounted on an area's router: who may enter at all. */
export const requireRole =
  (...roles: Role[]): RequestHandler =>
  (req, _res, next) => {
    const actor = actorOf(req);
    next(roles.includes(actor.role) ? undefined : new HttpError("forbidden"));
  };

/** A request body by its schema, or 400; nothing of a bad one is used. */
export function parseBody<S extends z.ZodType>(schema: S, body: unknown): z.output<S> {
  const parsed = schema.safeParse(body);
  if (!parsed.success) throw new HttpError("badRequest");
  return parsed.data;
}

const UUID = /^[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/i;

/** An id of an address, or 404. */
export function idOf(req: Request, name = "id"): string {
  const id = req.params[name];
  if (typeof id !== "string" || !UUID.test(id)) throw new HttpError("notFound");
  return id;
}

/** A change may only come from our own pages: browsers say where a request was made. */
export const sameSiteOnly: RequestHandler = (req, _res, next) => {
  const { origin, host } = req.headers;
  // "null" and the like have no host, and are nobody's
  const isOurs = origin === undefined || (URL.canParse(origin) && new URL(origin).host === host);
  next(req.method === "GET" || isOurs ? undefined : new HttpError("crossSite"));
};
