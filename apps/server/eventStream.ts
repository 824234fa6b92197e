import type { Response } from "express";

const HEARTBEAT_MS = 15_000;

/** Answers with a stream of events that stays open, a sign of life now and then; `stop` is called when it closes. */
export function openStream(res: Response, stop: () => void): void {
  res.writeHead(200, { "content-type": "text/event-stream", "cache-control": "no-store", "x-accel-buffering": "no" });
  res.write("retry: 2000\n\n");
  const heartbeat = setInterval(() => res.write(": on\n\n"), HEARTBEAT_MS);
  res.on("close", () => {
    clearInterval(heartbeat);
    stop();
  });
}
