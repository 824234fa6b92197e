import { firstRequest } from "@probe-lane/contract";
import { Router } from "express";
import { parseBody } from "../../guards";
import { failureLimiter } from "../../limits";
import { reply } from "../../reply";
import { signInAs } from "../auth/router";
import type { FirstInstructor } from "./service";

/** Whoever reads a terminal may mistype; a machine that guesses is stopped. */
const MOST_FAILURES = 20;

export function firstRouter(first: FirstInstructor): Router {
  const router = Router();
  router.get("/session/first", (_req, res) => {
    reply(res, "/session/first", { isOpen: first.isOpen });
  });
  router.post("/session/first", failureLimiter(MOST_FAILURES), async (req, res) => {
    await signInAs(req, await first.begin(parseBody(firstRequest, req.body)));
    res.status(201).json({});
  });
  return router;
}
