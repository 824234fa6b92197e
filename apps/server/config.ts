import { z } from "zod";

const schema = z.object({
  DATABASE_URL: z.string().min(1, "is missing: ./start sets it"),
  SESSION_SECRET: z.string().min(32, "is missing or too short: ./start makes one"),
  PORT: z.coerce.number().int().min(0).max(65_535).default(4310),
  WEB_ROOT: z.string().optional(),
  MIGRATIONS: z.string().min(1),
  LOG_LEVEL: z.enum(["silent", "error", "warn", "info", "debug"]).default("warn"),
});

export interface Config {
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
  const { DATABASE_URL, SESSION_SECRET, PORT, WEB_ROOT, MIGRATIONS, LOG_LEVEL } = parsed.data;
  return {
    databaseUrl: DATABASE_URL,
    sessionSecret: SESSION_SECRET,
    port: PORT,
    webRoot: WEB_ROOT ?? null,
    migrations: MIGRATIONS,
    logLevel: LOG_LEVEL,
  };
}
