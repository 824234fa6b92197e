import type { Request } from "express";
import { rateLimit } from "express-rate-limit";
import { sendError } from "./errors";

const WINDOW_MS = 5 * 60 * 1000;

/** Only failures count: a class that signs in together from one address is not locked out. */
export const failureLimiter = (limit: number, key?: (req: Request) => string) =>
  rateLimit({
    windowMs: WINDOW_MS,
    limit,
    skipSuccessfulRequests: true,
    standardHeaders: "draft-8",
    legacyHeaders: false,
    ...(key ? { keyGenerator: key } : {}),
    handler: (_req, res) => sendError(res, "tooManyTries"),
  });
