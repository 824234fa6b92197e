import type { TogetherStore } from "./store";

/** Classes that are held, known in every process without asking for each click. */
export class Pauses {
  private readonly held = new Map<string, string>();
  constructor(private readonly store: Pick<TogetherStore, "paused">) {}

  async start(): Promise<void> {
    for (const { id, by } of await this.store.paused()) this.held.set(id, by ?? "");
  }

  /** One class as it stands now. */
  async heard(classId: string): Promise<void> {
    const [row] = await this.store.paused(classId);
    if (row) this.held.set(classId, row.by ?? "");
    else this.held.delete(classId);
  }

  /** Who holds a class; null where nobody does. */
  by = (classId: string): string | null => this.held.get(classId) ?? null;
}
