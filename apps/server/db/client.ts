import { drizzle, type NodePgDatabase } from "drizzle-orm/node-postgres";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import pg from "pg";
import * as schema from "./schema";

export type Database = NodePgDatabase<typeof schema>;

/** Any number; the same one in every process, so that two starts cannot migrate at once. */
const MIGRATION_LOCK = 724_001;

/** No statement of a request takes so long; one that does is given up, and its connection is free again, ms. */
const STATEMENT_MS = 15_000;

export function openPool(databaseUrl: string, size = 12): pg.Pool {
  const pool = new pg.Pool({
    connectionString: databaseUrl,
    max: size,
    connectionTimeoutMillis: 4000,
    statement_timeout: STATEMENT_MS,
    idle_in_transaction_session_timeout: STATEMENT_MS,
  });
  // an idle connection that breaks is dropped and replaced; without a listener it would end the process
  pool.on("error", () => undefined);
  return pool;
}

export const openDatabase = (pool: pg.Pool): Database => drizzle({ client: pool, schema, casing: "snake_case" });

/** Brings the database to the newest shape. */
export async function migrateDatabase(pool: pg.Pool, migrationsFolder: string): Promise<void> {
  const client = await pool.connect();
  try {
    // another start may be at it, and a large table takes its time
    await client.query("set statement_timeout = 0");
    await client.query("select pg_advisory_lock($1)", [MIGRATION_LOCK]);
    await migrate(drizzle({ client, schema, casing: "snake_case" }), { migrationsFolder });
  } finally {
    await client.query("select pg_advisory_unlock($1)", [MIGRATION_LOCK]);
    await client.query(`set statement_timeout = ${STATEMENT_MS}`);
    client.release();
  }
}

const UNIQUE_VIOLATION = "23505";
/**
 * Connection refused, broken, closed to us, the server going down, its disk or memory full, a statement that took too
 * long: the request may be tried again later.
 */
const UNAVAILABLE = new Set([
  "ECONNREFUSED",
  "ECONNRESET",
  "EPIPE",
  "57P01",
  "57P02",
  "57P03",
  "08006",
  "08001",
  "53300",
  "55000",
  "3D000",
  "53100",
  "53200",
  "57014",
  "25P03",
]);

function chain(error: unknown): { code?: unknown; message?: unknown }[] {
  const found: { code?: unknown; message?: unknown; cause?: unknown }[] = [];
  for (
    let at = error;
    typeof at === "object" && at !== null && found.length < 6;
    at = (at as { cause?: unknown }).cause
  )
    found.push(at);
  return found;
}

export const isUniqueViolation = (error: unknown): boolean =>
  chain(error).some(({ code }) => code === UNIQUE_VIOLATION);

export const isUnavailable = (error: unknown): boolean =>
  chain(error).some(
    ({ code, message }) =>
      UNAVAILABLE.has(String(code)) ||
      /connection terminated|timeout exceeded when trying to connect/i.test(String(message)),
  );
