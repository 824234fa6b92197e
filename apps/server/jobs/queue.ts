import PgBoss from "pg-boss";
import type pg from "pg";
import type { Logger } from "pino";

const REGRADE = "regrade";
/**
 * A job whose process died is taken up again after so long at the latest; a start of the server takes it up at once.
 */
const LOST_AFTER_SECONDS = 120;
const RETRIES = 5;
const LOOKS_EVERY_SECONDS = 0.5;

/** The queue of work that no request waits for, kept in the same database. */
export class JobQueue {
  private readonly boss: PgBoss;
  private isStarted = false;

  constructor(
    pool: pg.Pool,
    private readonly logger: Logger,
  ) {
    this.boss = new PgBoss({
      db: { executeSql: (text: string, values: unknown[]) => pool.query(text, values) },
      monitorStateIntervalSeconds: 60,
    });
    // a lost connection is tried again by itself; without a listener it would end the process
    this.boss.on("error", (error) => this.logger.warn({ error: String(error) }, "job queue"));
  }

  /** Begins to take jobs; each is done by `work`, which may be run again from anywhere it was left. */
  async start(work: (regradeId: string) => Promise<void>): Promise<void> {
    await this.boss.start();
    await this.boss.createQueue(REGRADE, {
      name: REGRADE,
      policy: "standard",
      retryLimit: RETRIES,
      retryDelay: 1,
      expireInSeconds: LOST_AFTER_SECONDS,
    });
    await this.boss.work<{ id: string }>(REGRADE, { pollingIntervalSeconds: LOOKS_EVERY_SECONDS }, async (jobs) => {
      for (const { data } of jobs) await work(data.id);
    });
    this.isStarted = true;
  }

  async send(regradeId: string): Promise<void> {
    await this.boss.send(REGRADE, { id: regradeId });
  }

  async close(): Promise<void> {
    if (this.isStarted) await this.boss.stop({ graceful: false, wait: true });
    this.isStarted = false;
  }
}
