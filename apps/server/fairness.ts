import type { RequestHandler } from "express";
import { setTimeout as sleep } from "node:timers/promises";
import { sendError } from "./errors";
import type { Actor } from "./guards";

/**
 * What an account may have done for it: so much at once, so much a second after that. A class at work stays far below:
 * a held key is twenty units a second. Who asks for more waits, so that nobody else does.
 */
const CAPACITY = 2400;
const PER_SECOND = 400;
/** Requests of one account that may wait; more are refused. */
const MOST_WAITING = 40;
const FORGOTTEN_MS = 60_000;
const MOST_KEPT = 5000;

/** What a request costs, by what it makes the server do: a command is one unit, a replay of a whole lane a hundred. */
export function costOf(method: string, path: string, body: unknown): number {
  if (/\/commands$/.test(path)) {
    const commands = (body as { commands?: unknown } | undefined)?.commands;
    return 1 + (Array.isArray(commands) ? commands.length : 0);
  }
  if (/\/review$/.test(path)) return 100;
  if (/\/(record|ruling|marking|trials)\b/.test(path)) return 20;
  return method === "GET" ? 4 : 8;
}

interface Account {
  units: number;
  at: number;
  waiting: number;
}

/** A bucket for each account, filled again as time goes. */
export class FairShare {
  private readonly accounts = new Map<string, Account>();
  constructor(
    private readonly now: () => number = Date.now,
    private readonly wait: (ms: number) => Promise<unknown> = (ms) => sleep(ms),
  ) {}

  /** Takes the units of a request, after a wait where the account has none left; false where too many wait already. */
  async take(id: string, units: number): Promise<boolean> {
    const account = this.accountOf(id);
    account.units -= units;
    if (account.units >= 0) return true;
    if (account.waiting >= MOST_WAITING) {
      account.units += units;
      return false;
    }
    account.waiting += 1;
    try {
      await this.wait((-account.units / PER_SECOND) * 1000);
    } finally {
      account.waiting -= 1;
    }
    return true;
  }

  private accountOf(id: string): Account {
    const now = this.now();
    const held = this.accounts.get(id) ?? { units: CAPACITY, at: now, waiting: 0 };
    held.units = Math.min(CAPACITY, held.units + ((now - held.at) / 1000) * PER_SECOND);
    held.at = now;
    this.accounts.delete(id);
    this.accounts.set(id, held);
    const [[oldest, { at, waiting }] = ["", held]] = this.accounts;
    if (this.accounts.size > MOST_KEPT || (oldest !== id && waiting === 0 && now - at > FORGOTTEN_MS))
      this.accounts.delete(oldest);
    return held;
  }
}

/** One account's floods are its own: they wait, and the others are answered meanwhile. */
export const fairShare =
  (share = new FairShare()): RequestHandler =>
  async (req, res, next) => {
    const actor = res.locals["actor"] as Actor | undefined;
    if (!actor || (await share.take(actor.id, costOf(req.method, req.path, req.body)))) next();
    else sendError(res, "tooFast");
  };
