import type { MessagePort } from "node:worker_threads";
import { Piscina } from "piscina";
import type { Kind, ResultOf, Task, TaskOf } from "./worker";

/**
 * Threads for heavy work of each kind; more would take the processors from the lanes at work. Programs are followed,
 * parts drawn, and the pace of lanes read, on a thread of their own each, which stands behind everything else.
 */
const THREADS: Readonly<Record<Kind, number>> = { rule: 2, prove: 1, picture: 1, pace: 1 };
const IDLE_MS = 20_000;

interface RunOptions {
  readonly signal?: AbortSignal;
  readonly ports?: readonly MessagePort[];
}

/** Worker threads: made at the first task, gone when there is nothing to do. */
export class WorkPool {
  private readonly pools = new Map<Kind, Piscina<Task, ResultOf<Kind>>>();

  /** `signal` gives the work up, also while it is done; `ports` go along with the task. */
  run<K extends Kind>(kind: K, task: TaskOf<K>, { signal, ports = [] }: RunOptions = {}): Promise<ResultOf<K>> {
    const options = { ...(signal ? { signal } : {}), transferList: [...ports] };
    return this.poolOf(kind).run({ kind, task }, options) as Promise<ResultOf<K>>;
  }

  private poolOf(kind: Kind): Piscina<Task, ResultOf<Kind>> {
    const known = this.pools.get(kind);
    if (known) return known;
    // built there is one file beside the server; from the sources the same file is read as it is
    const isSource = import.meta.url.endsWith(".ts");
    const pool = new Piscina<Task, ResultOf<Kind>>({
      filename: new URL(isSource ? "./worker.ts" : "./worker.js", import.meta.url).href,
      minThreads: 0,
      maxThreads: THREADS[kind],
      idleTimeout: IDLE_MS,
      ...(isSource ? { execArgv: ["--import", "tsx"] } : {}),
    });
    this.pools.set(kind, pool);
    return pool;
  }

  async close(): Promise<void> {
    await Promise.all([...this.pools.values()].map((pool) => pool.destroy()));
    this.pools.clear();
  }
}
