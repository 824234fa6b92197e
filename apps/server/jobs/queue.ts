import PgBoss from "pg-boss";
import type pg from "pg";
import type { Logger } from "pino";

/** Kinds of work that wait in the queue: marking every lane again, and trying a marking that nobody has stored. */
const kinds = ["regrade", "trial"] as const;
type Kind = (typeof kinds)[number];
/** What does each kind; it may be run again from anywhere it was left. */
export type Work = Readonly<Record<Kind, (id: string) => Promise<void>>>;

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

  /** Begins to take jobs of every kind. */
  async start(work: Work): Promise<void> {
    await this.boss.start();
    for (const kind of kinds) {
      await this.boss.createQueue(kind, {
        name: kind,
        policy: "standard",
        retryLimit: RETRIES,
        retryDelay: 1,
        expireInSeconds: LOST_AFTER_SECONDS,
      });
      await this.boss.work<{ id: string }>(kind, { pollingIntervalSeconds: LOOKS_EVERY_SECONDS }, async (jobs) => {
        for (const { data } of jobs) await work[kind](data.id);
      });
    }
    this.isStarted = true;
  }

  async send(kind: Kind, id: string): Promise<void> {
    await this.boss.send(kind, { id });
  }

  async close(): Promise<void> {
    if (this.isStarted) await this.boss.stop({ graceful: false, wait: true });
    this.isStarted = false;
  }
}
