import { errorStatus, errorWords, type ErrorBody, type ErrorCode } from "@probe-lane/contract";
import type { ErrorRequestHandler, RequestHandler, Response } from "express";
import type { Logger } from "pino";
import { isUnavailable } from "./db/client";

/** A refusal of the server itself: a code of the contract's table. */
export class HttpError extends Error {
  constructor(readonly code: ErrorCode) {
    super(code);
  }
}

export function sendError(res: Response, code: ErrorCode, requestId?: string): void {
  const body: ErrorBody = { error: { code, message: errorWords[code], ...(requestId ? { requestId } : {}) } };
  res.status(errorStatus[code]).json(body);
}

const BODY_ERRORS: Record<string, ErrorCode> = {
  "entity.too.large": "tooLarge",
  "entity.parse.failed": "badRequest",
  "encoding.unsupported": "badRequest",
  "charset.unsupported": "badRequest",
};

/**
 * What of an error goes into the log: what kind it is and where it came from. Never its message: that of a failed
 * statement holds what was to be stored.
 */
function traceOf(error: unknown): { kind: string; codes: string[]; at: string[] } {
  const codes: string[] = [];
  for (let one = error; typeof one === "object" && one !== null; one = (one as { cause?: unknown }).cause) {
    const { code, constraint } = one as { code?: unknown; constraint?: unknown };
    for (const known of [code, constraint]) if (typeof known === "string") codes.push(known);
  }
  // a message of many lines may look like places in the code: what stands before them is cut off whole
  const stack = error instanceof Error ? (error.stack ?? "").replace(error.message, "") : "";
  const at = stack.split("\n").filter((line) => /^\s+at /.test(line));
  return {
    kind: error instanceof Error ? error.name : typeof error,
    codes,
    at: at.slice(0, 12).map((line) => line.trim()),
  };
}

/** The one place where an error becomes a reply. What is not known stays in the log, under the number that is sent. */
export const errorHandler =
  (logger: Logger): ErrorRequestHandler =>
  (error, _req, res, next) => {
    if (res.headersSent) return next(error);
    if (error instanceof HttpError) return sendError(res, error.code);
    const bodyError = BODY_ERRORS[String((error as { type?: unknown }).type)];
    if (bodyError) return sendError(res, bodyError);
    if (error instanceof URIError) return sendError(res, "badRequest");
    if ((error as { status?: unknown }).status === 404) return sendError(res, "notFound");
    const requestId = String(res.locals["requestId"]);
    if (isUnavailable(error)) {
      logger.warn({ requestId, ...traceOf(error) }, "database unavailable");
      return sendError(res, "unavailable", requestId);
    }
    logger.error({ requestId, ...traceOf(error) }, "request failed");
    sendError(res, "internal", requestId);
  };

export const notFoundHandler: RequestHandler = (_req, res) => sendError(res, "notFound");
