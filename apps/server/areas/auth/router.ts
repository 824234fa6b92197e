import { signInRequest, type Me } from "@probe-lane/contract";
import { Router, type Request } from "express";
import { rateLimit } from "express-rate-limit";
import { HttpError, sendError } from "../../errors";
import { actorOf, parseBody } from "../../guards";
import { signIn } from "./service";
import type { AuthStore } from "./store";

const WINDOW_MS = 5 * 60 * 1000;

/** Only failures count: a class that signs in together from one address is not locked out. */
const limiter = (limit: number, key?: (req: Request) => string) => rateLimit({
  windowMs: WINDOW_MS, limit, skipSuccessfulRequests: true, standardHeaders: "draft-8", legacyHeaders: false,
  ...(key ? { keyGenerator: key } : {}),
  handler: (_req, res) => sendError(res, "tooManyTries"),
});

const loginKey = (req: Request): string => {
  const login = (req.body as { login?: unknown } | undefined)?.login;
  return `login:${typeof login === "string" ? login.slice(0, 80).toLowerCase() : ""}`;
};

/** A session's callback as a promise. */
const done = (act: (callback: (error?: unknown) => void) => void): Promise<void> =>
  new Promise((resolve, reject) => act((error) => (error ? reject(error instanceof Error ? error : new Error("session store failed", { cause: error })) : resolve())));

export function authRouter(store: AuthStore): Router {
  const router = Router();
  router.post("/session", limiter(60), limiter(10, loginKey), async (req, res) => {
    const { login, password } = parseBody(signInRequest, req.body);
    const actor = await signIn(store, login, password);
    await done((callback) => req.session.regenerate(callback));
    req.session.user = actor;
    res.json((await store.profile(actor.id)) satisfies Me | null);
  });
  router.get("/session", async (req, res) => {
    const me = await store.profile(actorOf(req).id);
    if (!me) throw new HttpError("notSignedIn");
    res.json(me satisfies Me);
  });
  router.delete("/session", async (req, res) => {
    await done((callback) => req.session.destroy(callback));
    res.clearCookie("probe-lane").status(204).end();
  });
  return router;
}
