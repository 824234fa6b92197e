import { z } from "zod";
import { isLoopback } from "./reach";

const schema = z.object({
  DATABASE_URL: z.string().min(1, "is missing: ./start sets it"),
  SESSION_SECRET: z.string().min(32, "is missing or too short: ./start makes one"),
  HOST: z.string().min(1).default("127.0.0.1"),
  TLS_CERT: z.string().min(1).optional(),
  TLS_KEY: z.string().min(1).optional(),
  PORT: z.coerce.number().int().min(0).max(65_535).default(4310),
  WEB_ROOT: z.string().optional(),
  MIGRATIONS: z.string().min(1),
  LOG_LEVEL: z.enum(["silent", "error", "warn", "info", "debug"]).default("warn"),
});

export interface Config {
  host: string;
  /** Files of a certificate and its key; null where it is talked in the open, which only this machine may hear. */
  tls: { certPath: string; keyPath: string } | null;
  databaseUrl: string;
  sessionSecret: string;
  port: number;
  webRoot: string | null;
  migrations: string;
  logLevel: string;
}

/** The server's settings from its environment, or one line that names the first that is wrong. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const parsed = schema.safeParse(env);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new Error(`setting ${issue?.path.join(".")} ${issue?.message}`);
  }
  const { HOST, TLS_CERT, TLS_KEY } = parsed.data;
  if ((TLS_CERT === undefined) !== (TLS_KEY === undefined))
    throw new Error("TLS_CERT and TLS_KEY belong together: give the paths of both, or of neither");
  const tls = TLS_CERT !== undefined && TLS_KEY !== undefined ? { certPath: TLS_CERT, keyPath: TLS_KEY } : null;
  if (!tls && !isLoopback(HOST))
    throw new Error(
      `HOST=${HOST} is heard by others: ./start --lan makes a certificate, or give TLS_CERT and TLS_KEY of your own`,
    );
  const { DATABASE_URL, SESSION_SECRET, PORT, WEB_ROOT, MIGRATIONS, LOG_LEVEL } = parsed.data;
  return {
    host: HOST,
    tls,
    databaseUrl: DATABASE_URL,
    sessionSecret: SESSION_SECRET,
    port: PORT,
    webRoot: WEB_ROOT ?? null,
    migrations: MIGRATIONS,
    logLevel: LOG_LEVEL,
  };
}
