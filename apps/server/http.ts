import { createServer, type Server } from "node:http";
import type { Express } from "express";

/** How long a client may take to say what it wants, ms: a request that is begun and not finished holds a connection. */
const REQUEST_MS = 12_000;
const LOOKED_AFTER_MS = 1000;
/** A little longer than a browser keeps a connection that it does not use, ms. */
const KEPT_MS = 65_000;

/** The application behind a port that waits for nobody for long. */
export function httpServer(app: Express, requestMs = REQUEST_MS): Server {
  return createServer(
    {
      headersTimeout: requestMs,
      requestTimeout: requestMs,
      connectionsCheckingInterval: LOOKED_AFTER_MS,
      keepAliveTimeout: KEPT_MS,
    },
    app,
  );
}
