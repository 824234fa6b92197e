import { Piscina } from "piscina";
import type { Ruling } from "@probe-lane/core/grading";
import type { RuleTask } from "./ruleWorker";

/** Threads for rulings; more would take the processors from the lanes at work. */
const THREADS = 2;
const IDLE_MS = 20_000;

/** Worker threads that rule lanes: made at the first task, gone when there is nothing to do. */
export class RulePool {
  private pool: Piscina<RuleTask, Ruling> | null = null;

  rule(task: RuleTask): Promise<Ruling> {
    // built there is one file beside the server; from the sources the same file is read as it is
    const isSource = import.meta.url.endsWith(".ts");
    this.pool ??= new Piscina<RuleTask, Ruling>({
      filename: new URL(isSource ? "./ruleWorker.ts" : "./ruleWorker.js", import.meta.url).href,
      minThreads: 0,
      maxThreads: THREADS,
      idleTimeout: IDLE_MS,
      ...(isSource ? { execArgv: ["--import", "tsx"] } : {}),
    });
    return this.pool.run(task);
  }

  async close(): Promise<void> {
    await this.pool?.destroy();
    this.pool = null;
  }
}
