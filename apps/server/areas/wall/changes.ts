import type pg from "pg";
import type { Logger } from "pino";

const LEAST_GAP_MS = 250;
const RECONNECT_MS = 2000;
/** Third word of a message that is about a person and not a lane. */
export const PERSON = "person";
/** And of one about a whole class: something was said to it, or it was paused. */
export const CLASS = "class";
/** And of one about a lane at a real machine. */
export const FLOOR = "floor";

/** Says which lanes changed: ids only, outside the command's transaction, together, at most four times a second. */
export class ChangeSender {
  private readonly waiting = new Set<string>();
  private timer: NodeJS.Timeout | null = null;
  private sentAt = 0;
  constructor(private readonly send: (laneIds: readonly string[]) => Promise<void>) {}

  changed(laneId: string): void {
    this.waiting.add(laneId);
    this.timer ??= setTimeout(() => this.flush(), Math.max(0, this.sentAt + LEAST_GAP_MS - Date.now()));
  }

  private flush(): void {
    const laneIds = [...this.waiting];
    this.waiting.clear();
    this.timer = null;
    this.sentAt = Date.now();
    // a lost message costs the wall one refresh, never a lane its entry
    this.send(laneIds).catch(() => undefined);
  }

  close(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
  }
}

/** Hears what any server process sends, on a connection of its own that is made again when it breaks. */
export class ChangeListener {
  private client: pg.PoolClient | null = null;
  private timer: NodeJS.Timeout | null = null;
  private isClosed = false;
  private readonly ears = new Set<(laneId: string, isOwn: boolean) => void>();
  private readonly personEars = new Set<(userId: string) => void>();
  private readonly classEars = new Set<(classId: string) => void>();
  private readonly floorEars = new Set<(laneId: string) => void>();
  constructor(
    private readonly pool: pg.Pool,
    private readonly logger: Logger,
    /** By what this process signs what it sends itself. */
    private readonly own: string,
  ) {}

  async start(): Promise<void> {
    try {
      const client = await this.pool.connect();
      if (this.isClosed) {
        client.release(true);
        return;
      }
      this.client = client;
      client.on("notification", ({ payload }) => {
        const [sender, id, of] = (payload ?? "").split(" ");
        if (!id) return;
        if (of === PERSON) for (const ear of this.personEars) ear(id);
        else if (of === CLASS) for (const ear of this.classEars) ear(id);
        else if (of === FLOOR) for (const ear of this.floorEars) ear(id);
        else for (const ear of this.ears) ear(id, sender === this.own);
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

  listen(ear: (laneId: string, isOwn: boolean) => void): () => void {
    this.ears.add(ear);
    return () => this.ears.delete(ear);
  }

  /** Hears whose sessions have ended. */
  listenPeople(ear: (userId: string) => void): void {
    this.personEars.add(ear);
  }

  /** Hears of classes to which something was said, or that were paused. */
  listenClasses(ear: (classId: string) => void): () => void {
    this.classEars.add(ear);
    return () => this.classEars.delete(ear);
  }

  /** Hears of lanes at real machines in which something was entered, checked or signed. */
  listenFloor(ear: (laneId: string) => void): () => void {
    this.floorEars.add(ear);
    return () => this.floorEars.delete(ear);
  }

  close(): void {
    this.isClosed = true;
    if (this.timer) clearTimeout(this.timer);
    this.client?.release(true);
    this.client = null;
  }
}
