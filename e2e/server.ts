import { spawn, type ChildProcess } from "node:child_process";
import { createServer } from "node:net";
import pg from "pg";

async function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === "object" && address ? address.port : 0));
    });
  });
}

/** One statement on the database that the tests share, as its owner. */
export async function onShared(statement: string): Promise<void> {
  const client = new pg.Client({ connectionString: process.env["DATABASE_URL"] ?? "" });
  await client.connect();
  try {
    await client.query(statement);
  } finally {
    await client.end();
  }
}

/** The address of a new database with the demo as it is on its first day, copied from the one that e2e.sh keeps. */
export async function ownDemo(name: string): Promise<string> {
  const own = `${name}_${process.pid}`;
  await onShared(`create database ${own} template ${process.env["E2E_SEED"] ?? ""}`);
  return Object.assign(new URL(process.env["DATABASE_URL"] ?? ""), { pathname: `/${own}` }).href;
}

/** A second server process on the tests' database, to be killed and started again. */
export class OwnServer {
  constructor(
    private readonly env: Record<string, string> = {},
    private readonly words: readonly string[] = [],
  ) {}
  private child: ChildProcess | null = null;
  port = 0;
  /** What it has said on its terminal. */
  said = "";
  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }
  async start(): Promise<void> {
    if (this.port === 0) this.port = await freePort();
    const child = spawn("node", ["dist/server/main.js", ...this.words], {
      env: { ...process.env, ...this.env, PORT: String(this.port) },
      stdio: ["ignore", "pipe", "inherit"],
    });
    this.child = child;
    this.said = "";
    await new Promise<void>((resolve, reject) => {
      child.stdout.on("data", (chunk: Buffer) => {
        this.said += chunk.toString();
        if (this.said.includes("Stop it with")) resolve();
      });
      child.on("exit", (code) => reject(new Error(`the server ended with ${code}`)));
    });
  }
  /** kill -9: no goodbye. */
  async kill(): Promise<void> {
    const { child } = this;
    if (!child) return;
    child.removeAllListeners("exit");
    const gone = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGKILL");
    await gone;
    this.child = null;
  }
}
