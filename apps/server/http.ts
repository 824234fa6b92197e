import { createServer, type Server as HttpServer } from "node:http";
import { createServer as createSecure } from "node:https";
import { createServer as createDoor, type Server, type Socket } from "node:net";
import type { Express } from "express";

/** How long a client may take to say what it wants, ms: a request that is begun and not finished holds a connection. */
const REQUEST_MS = 12_000;
const LOOKED_AFTER_MS = 1000;
/** A little longer than a browser keeps a connection that it does not use, ms. */
const KEPT_MS = 65_000;

export interface Secrets {
  readonly cert: string | Buffer;
  readonly key: string | Buffer;
}

const timesOf = (requestMs: number) => ({
  headersTimeout: requestMs,
  requestTimeout: requestMs,
  connectionsCheckingInterval: LOOKED_AFTER_MS,
  keepAliveTimeout: KEPT_MS,
});

/** The application behind a port that waits for nobody for long. */
export const httpServer = (app: Express, requestMs = REQUEST_MS): HttpServer => createServer(timesOf(requestMs), app);

/** What a secure port needs to be ended: nobody new, then who only waits, then everybody. */
export interface SecureServer {
  readonly door: Server;
  closeIdleConnections(): void;
  closeAllConnections(): void;
}

/** The first byte of somebody who wants to talk in secret. */
const HANDSHAKE = 0x16;

/**
 * The application behind a port that talks in secret. Who comes by plain http, because an address was typed without
 * its "https", is sent there.
 */
export function secureServer(app: Express, secrets: Secrets, requestMs = REQUEST_MS): SecureServer {
  const secure = createSecure({ ...timesOf(requestMs), ...secrets, handshakeTimeout: requestMs }, app);
  const plain = createServer(timesOf(requestMs), (req, res) => {
    const to = req.headers.host === undefined ? null : `https://${req.headers.host}${req.url ?? "/"}`;
    res.writeHead(to === null || !URL.canParse(to) ? 400 : 308, to === null ? {} : { location: to });
    res.end();
  });
  const open = new Set<Socket>();
  const door = createDoor((socket) => {
    open.add(socket);
    socket.on("close", () => open.delete(socket));
    // a connection that is broken off is nobody's error
    socket.on("error", () => socket.destroy());
    socket.setTimeout(requestMs, () => socket.destroy());
    socket.once("data", (first) => {
      socket.setTimeout(0);
      socket.pause();
      socket.unshift(first);
      (first[0] === HANDSHAKE ? secure : plain).emit("connection", socket);
      process.nextTick(() => socket.resume());
    });
  });
  return {
    door,
    closeIdleConnections: () => {
      secure.closeIdleConnections();
      plain.closeIdleConnections();
    },
    closeAllConnections: () => {
      for (const socket of open) socket.destroy();
    },
  };
}
