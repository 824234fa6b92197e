import { createHmac } from "node:crypto";
import { reply } from "../../reply";
import { enterRequest, passwordRequest, signInRequest, type Me } from "@probe-lane/contract";
import { Router, type Request } from "express";
import { HttpError } from "../../errors";
import { actorOf, parseBody, type Actor } from "../../guards";
import { failureLimiter, SignInWaits } from "../../limits";
import { changePassword, signIn } from "./service";
import type { AuthStore } from "./store";

/** Kept by a browser in which an account has signed in: it says so by a number that only the server can make. */
const KNOWN_COOKIE = "probe-lane-known";
const KNOWN_MS = 180 * 24 * 60 * 60 * 1000;

const knownMark = (secret: string, login: string): string =>
  createHmac("sha256", secret).update(`known ${login}`).digest("base64url");
const isKnown = (req: Request, secret: string, login: string): boolean =>
  (req.headers.cookie ?? "").split(/;\s*/).includes(`${KNOWN_COOKIE}=${knownMark(secret, login)}`);

/** More failures than a class makes in its first minutes; a machine that guesses is stopped. */
const MOST_FAILURES_AT_ADDRESS = 120;
const loginOf = ({ body }: Request): string => {
  const login = (body as { login?: unknown } | undefined)?.login;
  return typeof login === "string" ? login.trim().toLowerCase() : "";
};

/** A session's callback as a promise. */
const done = (act: (callback: (error?: unknown) => void) => void): Promise<void> =>
  new Promise((resolve, reject) =>
    act((error) =>
      error ? reject(error instanceof Error ? error : new Error("session store failed", { cause: error })) : resolve(),
    ),
  );

/** Begins a session of this person's own; what the browser held before is dropped. */
export async function signInAs(req: Request, actor: Actor): Promise<void> {
  await done((callback) => req.session.regenerate(callback));
  req.session.user = actor;
}

export function authRouter(
  store: AuthStore,
  secret: string,
  { ended, now }: { ended: (userId: string) => void; now: () => Date },
): Router {
  const router = Router();
  const waits = new SignInWaits();
  // many names tried from one address; a browser in which that account has signed in before is not counted with them
  const spraying = failureLimiter(MOST_FAILURES_AT_ADDRESS, (req) => isKnown(req, secret, loginOf(req)));
  router.post("/session", spraying, async (req, res) => {
    const { login, password } = parseBody(signInRequest, req.body);
    const name = login.toLowerCase();
    const key = `${isKnown(req, secret, name) ? "known" : req.ip} ${name}`;
    if (waits.waitMs(key) > 0) waits.lift(key, await store.liftedAt(name));
    const waitMs = waits.waitMs(key);
    if (waitMs > 0) {
      res.setHeader("retry-after", Math.ceil(waitMs / 1000));
      throw new HttpError("tooManyTries");
    }
    const actor = await signIn(store, name, password).catch((error: unknown) => {
      if (error instanceof HttpError) waits.failed(key);
      throw error;
    });
    waits.succeeded(key);
    await signInAs(req, actor);
    res.cookie(KNOWN_COOKIE, knownMark(secret, name), {
      httpOnly: true,
      sameSite: "strict",
      secure: req.secure,
      maxAge: KNOWN_MS,
      path: "/api/session",
    });
    res.json((await store.profile(actor)) satisfies Me | null);
  });
  router.get("/session", async (req, res) => {
    const me = await store.profile(actorOf(req));
    if (!me) throw new HttpError("notSignedIn");
    reply(res, "/session", me);
  });
  router.post("/session/class", async (req, res) => {
    const { id } = actorOf(req);
    const { classId } = parseBody(enterRequest, req.body);
    const actor = await store.enter(id, classId, now());
    if (!actor) throw new HttpError("notFound");
    req.session.user = actor;
    await done((callback) => req.session.save(callback));
    // what other processes remember of this cookie is asked of the store again
    ended(id);
    res.json((await store.profile(actor)) satisfies Me | null);
  });
  router.post("/session/password", async (req, res) => {
    const actor = actorOf(req);
    const request = parseBody(passwordRequest, req.body);
    const key = `password ${actor.id}`;
    const waitMs = waits.waitMs(key);
    if (waitMs > 0) {
      res.setHeader("retry-after", Math.ceil(waitMs / 1000));
      throw new HttpError("tooManyTries");
    }
    await changePassword(store, actor.id, req.sessionID, request).catch((error: unknown) => {
      if (error instanceof HttpError && error.code === "passwordWrong") waits.failed(key);
      throw error;
    });
    waits.succeeded(key);
    ended(actor.id);
    res.status(204).end();
  });
  router.delete("/session", async (req, res) => {
    const { user } = req.session;
    await done((callback) => req.session.destroy(callback));
    if (user) ended(user.id);
    res.clearCookie("probe-lane").status(204).end();
  });
  return router;
}
