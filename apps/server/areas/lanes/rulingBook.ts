import type { Ruling } from "@probe-lane/core/grading";
import pLimit from "p-limit";
import type { LaneStore } from "./store";

/** Lanes of which something is kept: a large school's term, each a few hundred bytes; beyond them it begins anew. */
const MOST_KEPT = 20_000;
/** Rulings are large; more of them at once would hold up the clicks of a class at work. */
const AT_ONCE = 2;

/**
 * What is read out of rulings, a little of each. A ruling is large and never changes, so what was read out of it is
 * kept until the lane has another one, or other marks are given beside it.
 */
export class RulingBook<T> {
  private readonly kept = new Map<string, { tag: string; read: T }>();
  private readonly atOnce = pLimit(AT_ONCE);
  constructor(
    private readonly store: Pick<LaneStore, "rulingTags" | "rulingOf">,
    private readonly read: (ruling: Ruling) => T,
  ) {}

  /** What is read out of the ruling of each of these lanes; lanes without a ruling are left out. */
  async readIn(laneIds: readonly string[]): Promise<Map<string, T>> {
    const tags = await this.store.rulingTags(laneIds);
    const read = await Promise.all([...tags].map(([id, tag]) => this.atOnce(() => this.readOne(id, tag))));
    return new Map(read.flat());
  }

  private async readOne(id: string, tag: string): Promise<[string, T][]> {
    const held = this.kept.get(id);
    if (held?.tag === tag) return [[id, held.read]];
    const ruling = await this.store.rulingOf(id);
    // deleted in between
    if (!ruling) return [];
    const read = this.read(ruling);
    if (this.kept.size >= MOST_KEPT) this.kept.clear();
    this.kept.set(id, { tag, read });
    return [[id, read]];
  }
}
