import type { Request, RequestHandler } from "express";
import { rateLimit } from "express-rate-limit";
import { sendError } from "./errors";

const WINDOW_MS = 5 * 60 * 1000;

/** Only failures count: a class that signs in together from one address is not locked out. */
export const failureLimiter = (limit: number, skip: (req: Request) => boolean = () => false) =>
  rateLimit({
    windowMs: WINDOW_MS,
    limit,
    skipSuccessfulRequests: true,
    standardHeaders: "draft-8",
    legacyHeaders: false,
    skip,
    handler: (_req, res) => sendError(res, "tooManyTries"),
  });

/** So many failures cost nothing; after that each one doubles the wait, up to the longest, and all is forgotten. */
const FREE_FAILURES = 5;
const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 60_000;
const FORGOTTEN_MS = 15 * 60 * 1000;
const MOST_KEPT = 20_000;

interface Tried {
  failures: number;
  at: number;
  until: number;
}

/**
 * Waits between failed sign-ins, by account and address together: what somebody tries elsewhere never keeps the owner
 * of an account out. A browser in which the account has signed in before is counted by itself, so that a neighbor at
 * the same address cannot lock it either. Waits grow and end.
 */
export class SignInWaits {
  private readonly tried = new Map<string, Tried>();
  constructor(private readonly now: () => number = Date.now) {}

  /** How long this key still has to wait, ms; 0 when it may try. */
  waitMs(key: string): number {
    const held = this.tried.get(key);
    if (!held) return 0;
    const now = this.now();
    if (now - held.at > FORGOTTEN_MS) {
      this.tried.delete(key);
      return 0;
    }
    return Math.max(0, held.until - now);
  }

  failed(key: string): void {
    const now = this.now();
    const failures = (this.tried.get(key)?.failures ?? 0) + 1;
    const beyond = failures - FREE_FAILURES;
    const wait = beyond < 0 ? 0 : Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** beyond);
    this.tried.delete(key);
    this.tried.set(key, { failures, at: now, until: now + wait });
    const [oldest] = this.tried.keys();
    if (this.tried.size > MOST_KEPT && oldest !== undefined) this.tried.delete(oldest);
  }

  /** What failed before this moment counts no more. */
  lift(key: string, at: Date | null): void {
    const held = this.tried.get(key);
    if (held && at && held.at <= at.getTime()) this.tried.delete(key);
  }

  succeeded(key: string): void {
    this.tried.delete(key);
  }
}

/** Text that no field takes: a zero byte, which the database has not, and half of a sign. */
const isUnwritable = (text: string): boolean => text.includes("\u0000") || /\p{Cs}/u.test(text);
const hasUnwritable = (value: unknown): boolean => {
  if (typeof value === "string") return isUnwritable(value);
  if (value === null || typeof value !== "object") return false;
  return Object.entries(value).some(([key, one]) => isUnwritable(key) || hasUnwritable(one));
};

/** A body that could not be stored as it was sent is refused before anything is done with it. */
export const writableOnly: RequestHandler = (req, res, next) =>
  hasUnwritable(req.body) ? sendError(res, "badRequest") : next();
