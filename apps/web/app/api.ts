import type { ErrorBody, ErrorCode } from "@probe-lane/contract";

/** A reply that says no, with its one sentence; `status` 0 means that no reply came. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: ErrorCode | "linkLost",
    message: string,
    readonly requestId?: string,
  ) {
    super(message);
  }
  /** The same request may succeed later. */
  get isPassing(): boolean {
    return this.status === 0 || this.status === 503 || this.code === "tooFast";
  }
}

const LINK_LOST = "The server does not answer. Check the network; the page tries again by itself.";
const TIMEOUT_MS = 8000;

async function send(
  method: string,
  path: string,
  body?: unknown,
  signal: AbortSignal = AbortSignal.timeout(TIMEOUT_MS),
): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      signal,
      credentials: "same-origin",
      ...(body === undefined ? {} : { headers: { "content-type": "application/json" }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new ApiError(0, "linkLost", LINK_LOST);
  }
  if (response.status === 204) return null;
  const reply = (await response.json().catch(() => null)) as ErrorBody | null;
  if (response.ok) return reply;
  if (!reply?.error)
    throw new ApiError(response.status === 502 || response.status === 504 ? 0 : response.status, "linkLost", LINK_LOST);
  throw new ApiError(response.status, reply.error.code, reply.error.message, reply.error.requestId);
}

export const api = {
  get: async <T>(path: string): Promise<T> => (await send("GET", path)) as T,
  post: async <T>(path: string, body: unknown = {}): Promise<T> => (await send("POST", path, body)) as T,
  /** What may take long, and is given up by hand. */
  postUntil: async <T>(path: string, body: unknown, signal: AbortSignal): Promise<T> =>
    (await send("POST", path, body, signal)) as T,
  put: async (path: string, body: unknown): Promise<void> => void (await send("PUT", path, body)),
  delete: async (path: string): Promise<void> => void (await send("DELETE", path)),
};
