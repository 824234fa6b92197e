import { reply } from "../../reply";
import { signInRequest, type Me } from "@probe-lane/contract";
import { Router, type Request } from "express";
import { HttpError } from "../../errors";
import { actorOf, parseBody, type Actor } from "../../guards";
import { failureLimiter } from "../../limits";
import { signIn } from "./service";
import type { AuthStore } from "./store";

const loginKey = (req: Request): string => {
  const login = (req.body as { login?: unknown } | undefined)?.login;
  return `login:${typeof login === "string" ? login.slice(0, 80).toLowerCase() : ""}`;
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

export function authRouter(store: AuthStore): Router {
  const router = Router();
  router.post("/session", failureLimiter(60), failureLimiter(10, loginKey), async (req, res) => {
    const { login, password } = parseBody(signInRequest, req.body);
    const actor = await signIn(store, login, password);
    await signInAs(req, actor);
    res.json((await store.profile(actor.id)) satisfies Me | null);
  });
  router.get("/session", async (req, res) => {
    const me = await store.profile(actorOf(req).id);
    if (!me) throw new HttpError("notSignedIn");
    reply(res, "/session", me);
  });
  router.delete("/session", async (req, res) => {
    await done((callback) => req.session.destroy(callback));
    res.clearCookie("probe-lane").status(204).end();
  });
  return router;
}
