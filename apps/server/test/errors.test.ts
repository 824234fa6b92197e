import { expect, it } from "vitest";
import type { Request, Response } from "express";
import { pino } from "pino";
import { errorHandler } from "../errors";

/** An error through the handler: what is answered, and what stands in the log. */
function handled(error: unknown): { body: unknown; log: string } {
  let log = "";
  let body: unknown;
  const logger = pino({ level: "warn" }, { write: (line: string) => void (log += line) });
  const res = {
    headersSent: false,
    locals: { requestId: "number" },
    status: () => res,
    json: (sent: unknown) => {
      body = sent;
      return res;
    },
  };
  errorHandler(logger)(error, {} as Request, res as unknown as Response, () => undefined);
  return { body, log };
}

it("a failed statement is logged by its kind and place, and nothing that it was to store", () => {
  const cause = Object.assign(new Error("duplicate key (login)=(sorrel)"), {
    code: "23505",
    constraint: "users_login",
  });
  const failed = new Error(
    "Failed query: insert into users values ($1) params: sorrel,$argon2id$v=19$secret\n    at sorrel (typed)",
    {
      cause,
    },
  );
  const { body, log } = handled(failed);
  expect(JSON.stringify(body)).toMatch(/"code":"internal".*"requestId":"number"/);
  expect(log).toContain("23505");
  expect(log).toContain("users_login");
  expect(log).toContain("errors.test.ts");
  expect(log).not.toMatch(/argon2|sorrel|insert into/);
});

it("a bad escape in a path is bad input, in one sentence and not in the log", () => {
  const { body, log } = handled(new URIError("URI malformed"));
  expect(JSON.stringify(body)).toContain("badRequest");
  expect(log).toBe("");
});
