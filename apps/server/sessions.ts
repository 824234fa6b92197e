import connectPg from "connect-pg-simple";
import session from "express-session";
import type { RequestHandler } from "express";
import type pg from "pg";
import type { Actor } from "./guards";

declare module "express-session" {
  interface SessionData {
    user: Actor;
  }
}

const SESSION_COOKIE = "probe-lane";
const CACHE_MS = 5000;
const CACHE_SIZE = 2000;
/** An evening's class with its overtime. */
const SESSION_MS = 8 * 60 * 60 * 1000;
/** A session in use is written back this often, not at every key press. */
const TOUCH_MS = 5 * 60 * 1000;

const PgStore = connectPg(session);

/** Sessions live in PostgreSQL. One in use is written back every few minutes, not at every request. */
class QuietStore extends PgStore {
  private readonly touched = new Map<string, number>();

  override touch(sid: string, data: session.SessionData, callback?: () => void): void {
    if (Date.now() - (this.touched.get(sid) ?? 0) < TOUCH_MS) {
      callback?.();
      return;
    }
    if (this.touched.size > CACHE_SIZE) this.touched.clear();
    this.touched.set(sid, Date.now());
    super.touch(sid, data, callback);
  }
}

/** Who a cookie belongs to, as this process found out within the last seconds. */
class KnownCookies {
  private readonly actors = new Map<string, { actor: Actor; at: number }>();
  find(cookie: string | undefined): Actor | null {
    const held = cookie === undefined ? undefined : this.actors.get(cookie);
    return held && Date.now() - held.at < CACHE_MS ? held.actor : null;
  }
  keep(cookie: string | undefined, actor: Actor): void {
    if (cookie === undefined) return;
    if (this.actors.size > CACHE_SIZE) this.actors.clear();
    this.actors.set(cookie, { actor, at: Date.now() });
  }
  forget(cookie: string | undefined): void {
    if (cookie !== undefined) this.actors.delete(cookie);
  }
  forgetPerson(id: string): void {
    for (const [cookie, { actor }] of this.actors) if (actor.id === id) this.actors.delete(cookie);
  }
}

/** Signing in and out always goes to the store; everything else asks who is there, which is remembered for seconds. */
const isSessionPath = (path: string): boolean => path === "/session" || path.startsWith("/session/");

export function sessionHandler(
  pool: pg.Pool,
  secret: string,
): {
  handler: RequestHandler;
  /** What this process remembers of a person’s sessions is asked of the store again. */
  forget(userId: string): void;
  close(): void;
} {
  const store = new QuietStore({ pool, tableName: "session", createTableIfMissing: false, pruneSessionInterval: 900 });
  const handler = session({
    name: SESSION_COOKIE,
    secret,
    store,
    resave: false,
    saveUninitialized: false,
    rolling: false,
    cookie: { httpOnly: true, sameSite: "strict", secure: "auto", maxAge: SESSION_MS },
  });
  const known = new KnownCookies();
  const withActor: RequestHandler = (req, res, next) => {
    // other cookies of ours come along on some paths: a session is known by its own
    const cookie = req.headers.cookie?.split(/;\s*/).find((one) => one.startsWith(`${SESSION_COOKIE}=`));
    if (isSessionPath(req.path)) known.forget(cookie);
    else {
      const actor = known.find(cookie);
      if (actor) {
        res.locals["actor"] = actor;
        return next();
      }
    }
    return handler(req, res, (error?: unknown) => {
      const { user } = error ? ({} as Partial<session.SessionData>) : req.session;
      if (user) {
        res.locals["actor"] = user;
        if (!isSessionPath(req.path)) known.keep(cookie, user);
      }
      next(error);
    });
  };
  return { handler: withActor, forget: (userId) => known.forgetPerson(userId), close: () => store.close() };
}
