import { evolve, gatesOf, type LaneEvent, type LaneState } from "@probe-lane/core/bench";
import type { LaneHeaderRow, LaneStore } from "./store";

/** A lane as this process last knew it: folded state, head of the log, and who wrote last. */
export interface HeldLane {
  readonly header: LaneHeaderRow;
  readonly state: LaneState;
  readonly headSeq: number;
  /**
   * How many commands have been answered. This is what a viewer is told: facts that cannot be perceived are entries of
   * the log, and are not counted.
   */
  readonly turn: number;
  /** Last command counted for each tab, so that a resent batch is recognized. */
  readonly writers: ReadonlyMap<string, number>;
  /** The last entry by a student's tab, and which tab: another tab must not write past what it has not seen. */
  readonly lastWriter: string;
  readonly lastWriterTurn: number;
  readonly lastAtMs: number;
  readonly progressAtMs: number;
}

/** Entries by an instructor carry this writer; they never collide with the student's tab. */
export const INSTRUCTOR_WRITER = "instructor";
/** Names of writers are the server's: what a tab calls itself never is the name of somebody else. */
export const tabWriter = (name: string): string => `tab:${name}`;

const openGates = (state: LaneState): number => gatesOf(state).filter(({ isPassed }) => isPassed).length;

/** The lane one entry further on. */
export function advance(
  held: HeldLane,
  entry: { seq: number; atMs: number; writer: string; clientSeq: number; event: LaneEvent },
): HeldLane {
  const state = evolve(held.state, entry.event);
  const isInstructor = entry.writer === INSTRUCTOR_WRITER;
  const isSameTab = held.writers.get(entry.writer) === entry.clientSeq;
  const turn = held.turn + (isSameTab && !isInstructor ? 0 : 1);
  return {
    header: held.header,
    state,
    headSeq: entry.seq,
    turn,
    writers: isInstructor || isSameTab ? held.writers : new Map(held.writers).set(entry.writer, entry.clientSeq),
    lastWriter: isInstructor ? held.lastWriter : entry.writer,
    lastWriterTurn: isInstructor ? held.lastWriterTurn : turn,
    lastAtMs: entry.atMs,
    progressAtMs: openGates(state) > openGates(held.state) ? entry.atMs : held.progressAtMs,
  };
}

/**
 * Folded lanes by id, the least recently used dropped first. Any process can rebuild any of them from the log. What is
 * held never goes back: a load that was begun before a write, or before a drop, is not kept over what came after it.
 */
export class LaneCache {
  private readonly lanes = new Map<string, HeldLane>();
  private readonly loads = new Map<string, Promise<HeldLane | null>>();
  constructor(
    private readonly store: Pick<LaneStore, "header" | "log" | "head">,
    private readonly size = 400,
  ) {}

  async get(id: string): Promise<HeldLane | null> {
    const held = this.lanes.get(id);
    if (held) {
      this.put(id, held);
      return held;
    }
    const loading = this.loads.get(id) ?? this.begin(id);
    const loaded = await loading;
    // only the load that is still the newest is kept; a command may have gone further meanwhile
    if (loaded && this.loads.get(id) === loading) this.put(id, loaded);
    if (this.loads.get(id) === loading) this.loads.delete(id);
    return this.lanes.get(id) ?? loaded;
  }

  /** The lane as the log has it now, whichever process wrote last. */
  async fresh(id: string): Promise<HeldLane | null> {
    const held = this.lanes.get(id);
    if (held) {
      const { seq, studentId } = await this.store.head(id);
      if (seq > held.headSeq || studentId !== held.header.studentId) this.drop(id);
    }
    return this.get(id);
  }

  put(id: string, lane: HeldLane): void {
    const held = this.lanes.get(id);
    this.lanes.delete(id);
    this.lanes.set(id, held && held.headSeq > lane.headSeq ? held : lane);
    if (this.lanes.size <= this.size) return;
    const [oldest] = this.lanes.keys();
    if (oldest) this.lanes.delete(oldest);
  }

  drop(id: string): void {
    this.lanes.delete(id);
    this.loads.delete(id);
  }

  private begin(id: string): Promise<HeldLane | null> {
    const loading = this.load(id);
    this.loads.set(id, loading);
    loading.catch(() => this.loads.delete(id));
    return loading;
  }

  private async load(id: string): Promise<HeldLane | null> {
    const header = await this.store.header(id);
    const log = header ? await this.store.log(id) : [];
    const [first, ...rest] = log;
    if (!header || !first) return null;
    const opened: HeldLane = {
      header,
      state: evolve(null, first.event),
      headSeq: first.seq,
      turn: 1,
      writers: new Map([[first.writer, first.clientSeq]]),
      lastWriter: first.writer,
      lastWriterTurn: 1,
      lastAtMs: first.atMs,
      progressAtMs: first.atMs,
    };
    return rest.reduce(advance, opened);
  }
}
