import { execFileSync } from "node:child_process";
import { closeSync, mkdtempSync, openSync, rmdirSync, rmSync, writeSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { post, started, type BenchLane } from "../../bench/server";

/** A small disk of its own, mounted for this; null where one may not. */
export function smallDisk(sizeMb: number) {
  if (process.getuid?.() !== 0) return null;
  const path = mkdtempSync(join(tmpdir(), "small-disk-"));
  execFileSync("mount", ["-t", "tmpfs", "-o", `size=${sizeMb}m,mode=711`, "tmpfs", path]);
  const filler = join(path, "filler");
  return {
    home: join(path, "database"),
    /** Writes until nothing goes on it any more. */
    fill: (): void => {
      const file = openSync(filler, "a");
      try {
        for (const block = Buffer.alloc(1 << 16); ;) writeSync(file, block);
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== "ENOSPC") throw error;
      } finally {
        closeSync(file);
      }
    },
    clear: (): void => rmSync(filler, { force: true }),
    end: (): void => {
      execFileSync("umount", [path]);
      rmdirSync(path);
    },
  };
}

/** A port of loopback that nobody listens on. */
export const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const server = createServer();
    server.once("error", reject);
    server.listen(0, "127.0.0.1", () => {
      const address = server.address();
      server.close(() => resolve(typeof address === "object" && address ? address.port : 0));
    });
  });

export type Server = Awaited<ReturnType<typeof started>>;

export type Ground = Awaited<ReturnType<typeof ground>>;
/** A database of its own cluster, in a folder that may be named, and how to start processes on it. Loopback only. */
export async function ground(home?: string) {
  const env = { ...process.env, PG_NAME: "attack", ...(home === undefined ? {} : { PG_HOME: home }) };
  const pgScript = (...words: string[]): string =>
    execFileSync("scripts/pg.sh", words, { env, encoding: "utf8" }).trim();
  const base = pgScript("start");
  const name = `attack_${process.pid}`;
  const admin = new pg.Client({ connectionString: base });
  admin.on("error", () => undefined);
  await admin.connect();
  await admin.query(`create database ${name}`);
  await admin.end();
  const url = base.replace(/[^/]*$/, name);
  return {
    url,
    serve: (port: number): Promise<Server> =>
      // as ./start has it
      started(["--max-semi-space-size=8", "dist/server/main.js"], {
        DATABASE_URL: url,
        MALLOC_ARENA_MAX: "2",
        SESSION_SECRET: "attack attack attack attack attack attack",
        MIGRATIONS: "apps/server/db/migrations",
        WEB_ROOT: "dist/web",
        NODE_ENV: "production",
        LOG_LEVEL: "silent",
        PORT: String(port),
      }),
    /** Kills every process of this cluster, and of no other, as a power cut would, and starts it again. */
    killDatabase: (): void => {
      for (const pid of pgScript("pids").split("\n").filter(Boolean)) process.kill(Number(pid), "SIGKILL");
      pgScript("start");
    },
    end: (): void => void pgScript("destroy"),
  };
}

export function stop(server: Server, signal: NodeJS.Signals = "SIGKILL"): Promise<void> {
  server.removeAllListeners("exit");
  const gone = new Promise<void>((resolve) => server.once("exit", () => resolve()));
  server.kill(signal);
  return gone;
}

/** One click of a lane's tab, there and back by turns. The same batch again where no answer came. */
export const batchOf = (lane: BenchLane, clientSeq: number) => ({
  writer: lane.writer,
  afterTurn: lane.turn,
  commands: [
    {
      clientSeq,
      command: { type: "jog", axis: "x", direction: clientSeq % 2 ? -1 : 1, clicks: 1, size: "middle" },
    },
  ],
});

export async function send(lane: BenchLane, port: number, body: unknown): Promise<{ status: number; turn: number }> {
  const { status, text } = await post(port, `/api/lanes/${lane.id}/commands`, body, lane.cookie);
  return { status, turn: Number(/"turn":(\d+)/.exec(text.slice(0, 60))?.[1] ?? lane.turn) };
}
