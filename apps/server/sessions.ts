import connectPg from "connect-pg-simple";
import session from "express-session";
import type { RequestHandler } from "express";
import type pg from "pg";
import type { Role } from "@probe-lane/contract";

declare module "express-session" {
  interface SessionData { user: { id: string; role: Role; classId: string } }
}

const CACHE_MS = 5000;
const CACHE_SIZE = 2000;
/** An evening's class with its overtime. */
const SESSION_MS = 8 * 60 * 60 * 1000;
/** A session in use is written back this often, not at every key press. */
const TOUCH_MS = 5 * 60 * 1000;

const PgStore = connectPg(session);

/** Sessions live in PostgreSQL; each process remembers what it read for a few seconds. */
class CachedStore extends PgStore {
  private readonly seen = new Map<string, { at: number; data: session.SessionData | null | undefined }>();
  private readonly touched = new Map<string, number>();

  override get(sid: string, callback: (error: unknown, data?: session.SessionData | null) => void): void {
    const held = this.seen.get(sid);
    if (held && Date.now() - held.at < CACHE_MS) {
      callback(null, held.data ? structuredClone(held.data) : held.data);
      return;
    }
    super.get(sid, (error: unknown, data?: session.SessionData | null) => {
      if (!error) this.remember(sid, data);
      callback(error, data);
    });
  }

  override set(sid: string, data: session.SessionData, callback?: () => void): void {
    this.seen.delete(sid);
    super.set(sid, data, callback);
  }

  override destroy(sid: string, callback?: () => void): void {
    this.seen.delete(sid);
    super.destroy(sid, callback);
  }

  override touch(sid: string, data: session.SessionData, callback?: () => void): void {
    if (Date.now() - (this.touched.get(sid) ?? 0) < TOUCH_MS) {
      callback?.();
      return;
    }
    if (this.touched.size > CACHE_SIZE) this.touched.clear();
    this.touched.set(sid, Date.now());
    super.touch(sid, data, callback);
  }

  private remember(sid: string, data: session.SessionData | null | undefined): void {
    if (this.seen.size > CACHE_SIZE) this.seen.clear();
    this.seen.set(sid, { at: Date.now(), data: data ? structuredClone(data) : data });
  }
}

export function sessionHandler(pool: pg.Pool, secret: string): { handler: RequestHandler; close(): void } {
  const store = new CachedStore({ pool, tableName: "session", createTableIfMissing: false, pruneSessionInterval: 900 });
  const handler = session({
    name: "probe-lane", secret, store, resave: false, saveUninitialized: false, rolling: false,
    cookie: { httpOnly: true, sameSite: "strict", secure: "auto", maxAge: SESSION_MS },
  });
  return { handler, close: () => store.close() };
}
