import { execFileSync } from "node:child_process";

/** Vitest's global set-up: a PostgreSQL of the tests' own, left running for the next run and stopped by ./test. */
export default function setup(): void {
  process.env["TEST_DATABASE_URL"] ??= execFileSync("scripts/pg.sh", ["start"], {
    env: { ...process.env, PG_NAME: "test" },
    encoding: "utf8",
  }).trim();
}
