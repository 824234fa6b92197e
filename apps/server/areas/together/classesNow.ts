import type { TogetherStore } from "./store";

/**
 * Classes in which nothing is gone on with now, or something is shown, known in every process without asking for each
 * click.
 */
export class ClassesNow {
  private readonly held = new Map<string, string>();
  private readonly archived = new Set<string>();
  private readonly shown = new Map<string, string>();
  constructor(private readonly store: Pick<TogetherStore, "closed">) {}

  async start(): Promise<void> {
    for (const row of await this.store.closed()) this.take(row);
  }

  /** One class as it stands now. */
  async heard(classId: string): Promise<void> {
    const [row] = await this.store.closed(classId);
    this.held.delete(classId);
    this.archived.delete(classId);
    this.shown.delete(classId);
    if (row) this.take(row);
  }

  private take({ id, pausedBy, isArchived, shownLaneId }: Awaited<ReturnType<TogetherStore["closed"]>>[number]): void {
    if (pausedBy !== null) this.held.set(id, pausedBy);
    if (isArchived) this.archived.add(id);
    if (shownLaneId !== null) this.shown.set(id, shownLaneId);
  }

  /** Who holds a class; null where nobody does. */
  pausedBy = (classId: string): string | null => this.held.get(classId) ?? null;
  /** The lane that is shown to a class; null where none is. */
  shownIn = (classId: string): string | null => this.shown.get(classId) ?? null;
  isArchived = (classId: string): boolean => this.archived.has(classId);
}
