import type pg from "pg";
import type { Logger } from "pino";

const LEAST_GAP_MS = 250;
const RECONNECT_MS = 2000;

/** Says that a lane changed: ids only, outside the command's transaction, at most four times a second for each lane. */
export class ChangeSender {
  private readonly waiting = new Map<string, NodeJS.Timeout>();
  private readonly sentAt = new Map<string, number>();
  constructor(private readonly send: (laneId: string) => Promise<void>) {}

  changed(laneId: string): void {
    if (this.waiting.has(laneId)) return;
    const wait = Math.max(0, (this.sentAt.get(laneId) ?? 0) + LEAST_GAP_MS - Date.now());
    this.waiting.set(laneId, setTimeout(() => {
      this.waiting.delete(laneId);
      if (this.sentAt.size > 5000) this.sentAt.clear();
      this.sentAt.set(laneId, Date.now());
      // a lost message costs the wall one refresh, never a lane its entry
      this.send(laneId).catch(() => undefined);
    }, wait));
  }

  close(): void {
    for (const timer of this.waiting.values()) clearTimeout(timer);
    this.waiting.clear();
  }
}

/** Hears what any server process sends, on a connection of its own that is made again when it breaks. */
export class ChangeListener {
  private client: pg.PoolClient | null = null;
  private timer: NodeJS.Timeout | null = null;
  private isClosed = false;
  private readonly ears = new Set<(laneId: string) => void>();
  constructor(private readonly pool: pg.Pool, private readonly logger: Logger) {}

  async start(): Promise<void> {
    try {
      const client = await this.pool.connect();
      if (this.isClosed) {
        client.release(true);
        return;
      }
      this.client = client;
      client.on("notification", ({ payload }) => {
        if (payload) for (const ear of this.ears) ear(payload);
      });
      client.on("error", () => this.again());
      await client.query("listen lane");
    } catch (error) {
      this.logger.warn({ err: error }, "change listener not connected");
      this.again();
    }
  }

  private again(): void {
    this.client?.release(true);
    this.client = null;
    if (this.isClosed || this.timer) return;
    this.timer = setTimeout(() => {
      this.timer = null;
      void this.start();
    }, RECONNECT_MS);
  }

  listen(ear: (laneId: string) => void): () => void {
    this.ears.add(ear);
    return () => this.ears.delete(ear);
  }

  close(): void {
    this.isClosed = true;
    if (this.timer) clearTimeout(this.timer);
    this.client?.release(true);
    this.client = null;
  }
}
