import { MessageChannel } from "node:worker_threads";
import type { ProgramProof } from "@probe-lane/core/bench";
import { HttpError } from "../../errors";
import type { WorkPool } from "../../jobs/workPool";
import type { TaskOf } from "../../jobs/worker";

interface Running {
  moves: number;
  readonly giveUp: AbortController;
}

/** Programs that are being followed on the threads: one for each account, so that nobody takes them all. */
export class Proofs {
  private readonly running = new Map<string, Running>();
  constructor(private readonly threads: Pick<WorkPool, "run">) {}

  /** How many moves of an account's program were followed; null where none is under way. */
  moves(account: string): number | null {
    return this.running.get(account)?.moves ?? null;
  }

  /** Follows a program to its first contact; `gone` is aborted when nobody waits for it any more. */
  async follow(account: string, task: Omit<TaskOf<"prove">, "told">, gone: AbortSignal): Promise<ProgramProof | null> {
    // a second one of the same account takes the place of the first
    this.running.get(account)?.giveUp.abort();
    const { port1, port2 } = new MessageChannel();
    const one: Running = { moves: 0, giveUp: new AbortController() };
    const giveUp = () => one.giveUp.abort();
    gone.addEventListener("abort", giveUp);
    if (gone.aborted) giveUp();
    port1.on("message", (moves: number) => (one.moves = moves));
    this.running.set(account, one);
    try {
      return await this.threads.run("prove", { ...task, told: port2 }, { signal: one.giveUp.signal, ports: [port2] });
    } catch (error) {
      if (one.giveUp.signal.aborted) throw new HttpError("givenUp");
      throw error;
    } finally {
      gone.removeEventListener("abort", giveUp);
      port1.close();
      if (this.running.get(account) === one) this.running.delete(account);
    }
  }
}
