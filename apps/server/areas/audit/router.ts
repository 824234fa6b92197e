import { Router, type RequestHandler } from "express";
import type { Logger } from "pino";
import { actorOf, requireRole, type Actor } from "../../guards";
import { reply } from "../../reply";
import { auditRules, plainPath } from "./rules";
import type { AuditStore } from "./store";

interface Deps {
  readonly store: AuditStore;
  readonly nameOf: (userId: string) => Promise<string>;
  readonly now: () => Date;
  readonly logger: Logger;
}

/** Keeps what was done by whom, once it is answered well; what it is about is named before, when it is still there. */
export function audited({ store, nameOf, now, logger }: Deps): RequestHandler {
  return (req, res, next) => {
    const address = plainPath(req.path);
    const rule = auditRules.find(({ method, path }) => method === req.method && path.test(address));
    const actor = res.locals["actor"] as Actor | undefined;
    if (!rule || !actor || actor.role === "student") return next();
    const id = rule.path.exec(address)?.[1];
    const named = rule.about === null || id === undefined ? Promise.resolve("") : store.nameOf(rule.about, id);
    named
      .then((about) => {
        res.on("finish", () => {
          const what = res.statusCode < 300 ? rule.what(req) : null;
          if (what === null) return;
          nameOf(actor.id)
            .then((byName) => store.add({ classId: actor.classId, at: now(), byName, what, about }))
            .catch((error: unknown) => logger.error({ err: error }, "what was done is not in the list"));
        });
        next();
      })
      .catch(next);
  };
}

export function auditRouter(store: AuditStore): Router {
  const router = Router();
  router.get("/audit", requireRole("instructor"), async (req, res) =>
    reply(res, "/audit", { rows: await store.rows(actorOf(req).classId) }),
  );
  return router;
}
