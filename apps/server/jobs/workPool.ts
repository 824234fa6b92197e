import type { MessagePort } from "node:worker_threads";
import { Piscina } from "piscina";
import type { Kind, ResultOf, Task, TaskOf } from "./worker";

/** Threads for heavy work; more would take the processors from the lanes at work. */
const THREADS = 2;
const IDLE_MS = 20_000;

interface RunOptions {
  readonly signal?: AbortSignal;
  readonly ports?: readonly MessagePort[];
}

/** Worker threads: made at the first task, gone when there is nothing to do. */
export class WorkPool {
  private pool: Piscina<Task, ResultOf<Kind>> | null = null;

  /** `signal` gives the work up, also while it is done; `ports` go along with the task. */
  run<K extends Kind>(kind: K, task: TaskOf<K>, { signal, ports = [] }: RunOptions = {}): Promise<ResultOf<K>> {
    // built there is one file beside the server; from the sources the same file is read as it is
    const isSource = import.meta.url.endsWith(".ts");
    this.pool ??= new Piscina<Task, ResultOf<Kind>>({
      filename: new URL(isSource ? "./worker.ts" : "./worker.js", import.meta.url).href,
      minThreads: 0,
      maxThreads: THREADS,
      idleTimeout: IDLE_MS,
      ...(isSource ? { execArgv: ["--import", "tsx"] } : {}),
    });
    return this.pool.run({ kind, task }, { ...(signal ? { signal } : {}), transferList: [...ports] }) as Promise<
      ResultOf<K>
    >;
  }

  async close(): Promise<void> {
    await this.pool?.destroy();
    this.pool = null;
  }
}
