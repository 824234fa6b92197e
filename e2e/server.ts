import { spawn, type ChildProcess } from "node:child_process";
import { createServer } from "node:net";

async function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === "object" && address ? address.port : 0));
    });
  });
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
