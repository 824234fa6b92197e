import type { FloorBatch } from "@probe-lane/contract";
import type { FloorEntry, StoredFloorEntry } from "@probe-lane/core/floor";

export type PendingEntry = FloorBatch["entries"][number];

/** Where entries wait on this device until the server has them. */
export interface Shelf {
  read(): PendingEntry[];
  write(entries: PendingEntry[]): void;
}

export const shelfOf = (laneId: string, storage: Kept = localStorage): Shelf => {
  const key = `probe-lane.floor.${laneId}`;
  return {
    read: () => {
      try {
        return JSON.parse(storage.getItem(key) ?? "[]") as PendingEntry[];
      } catch {
        return [];
      }
    },
    write: (entries) =>
      entries.length === 0 ? storage.removeItem(key) : storage.setItem(key, JSON.stringify(entries)),
  };
};

type Kept = Pick<Storage, "getItem" | "setItem" | "removeItem">;

/** Figures that are typed at a machine and not entered yet: they outlast a page that is closed, on this device. */
export function typedShelf<T extends object>(laneId: string, storage: Kept = localStorage) {
  const key = `probe-lane.floor.${laneId}.typed`;
  return {
    read: (): T | null => {
      try {
        return JSON.parse(storage.getItem(key) ?? "null") as T | null;
      } catch {
        return null;
      }
    },
    write: (typed: T): void =>
      Object.keys(typed).length === 0 ? storage.removeItem(key) : storage.setItem(key, JSON.stringify(typed)),
  };
}

/** What the server has, and what still waits here, each entry once. */
export function merged(stored: readonly StoredFloorEntry[], pending: readonly PendingEntry[]): StoredFloorEntry[] {
  const known = new Set(stored.map(({ id }) => id));
  return [
    ...stored,
    ...pending
      .filter(({ id }) => !known.has(id))
      .map((one): StoredFloorEntry => {
        const { isFromPaper, ...held } = one;
        return { ...held, by: "", ...(isFromPaper ? { isFromPaper } : {}) };
      }),
  ];
}

/**
 * Entries of one lane on their way: kept on the device first, sent after, and taken off the shelf only once the server
 * has answered. Sending twice is harmless, since each entry keeps its id.
 */
export class FloorQueue {
  private isSending = false;
  constructor(
    private readonly shelf: Shelf,
    private readonly send: (entries: PendingEntry[]) => Promise<void>,
    private readonly onChange: () => void,
    /** True when the server has said no to what was sent, so that sending it again is of no use. */
    private readonly isRefusal: (error: unknown) => boolean,
  ) {}

  pending = (): PendingEntry[] => this.shelf.read();

  add(
    entries: readonly FloorEntry[],
    atMs: number,
    newId: () => string,
    more: Pick<PendingEntry, "isFromPaper"> = {},
  ): void {
    this.shelf.write([
      ...this.shelf.read(),
      ...entries.map((entry, index) => ({ id: newId(), atMs: atMs + index, entry, ...more })),
    ]);
    this.onChange();
  }

  /**
   * Sends what waits. Throws what the server said of an entry that it refuses; a lost link leaves everything where it
   * is.
   */
  async flush(): Promise<void> {
    const batch = this.shelf.read().slice(0, 100);
    if (this.isSending || batch.length === 0) return;
    this.isSending = true;
    try {
      await this.deliver(batch);
    } finally {
      this.isSending = false;
    }
  }

  /** Together if they can be, else one by one, so that a refused entry does not take the others with it. */
  private async deliver(batch: PendingEntry[]): Promise<void> {
    try {
      await this.send(batch);
      this.drop(batch);
      return;
    } catch (error) {
      if (!this.isRefusal(error)) throw error;
      if (batch.length === 1) {
        this.drop(batch);
        throw error;
      }
    }
    let refusal: Error | null = null;
    for (const one of batch) {
      try {
        await this.deliver([one]);
      } catch (error) {
        if (!this.isRefusal(error)) throw error;
        refusal = error instanceof Error ? error : new Error("refused");
      }
    }
    if (refusal) throw refusal;
  }

  /** Takes entries off the shelf: sent, or refused for good. */
  private drop(batch: readonly PendingEntry[]): void {
    const gone = new Set(batch.map(({ id }) => id));
    this.shelf.write(this.shelf.read().filter(({ id }) => !gone.has(id)));
    this.onChange();
  }
}
