import { skillsShown, type SkillShown } from "@probe-lane/core/skills";
import pLimit from "p-limit";
import type { LaneStore } from "../lanes/store";

/** Lanes whose skills are kept: a large school's term, each a few hundred bytes; beyond them it begins anew. */
const MOST_KEPT = 20_000;
/** Rulings are large; more of them at once would hold up the clicks of a class at work. */
const AT_ONCE = 2;

/**
 * What rulings show of skills. A ruling is large and never changes, so what was read out of it is kept until the lane
 * has another one, or other marks are given beside it.
 */
export class SkillBook {
  private readonly kept = new Map<string, { tag: string; shown: readonly SkillShown[] }>();
  private readonly atOnce = pLimit(AT_ONCE);
  constructor(private readonly store: Pick<LaneStore, "rulingTags" | "rulingOf">) {}

  /** What each of these lanes shows; lanes without a ruling are left out. */
  async shownIn(laneIds: readonly string[]): Promise<Map<string, readonly SkillShown[]>> {
    const tags = await this.store.rulingTags(laneIds);
    const read = await Promise.all([...tags].map(([id, tag]) => this.atOnce(() => this.read(id, tag))));
    return new Map(read);
  }

  private async read(id: string, tag: string): Promise<[string, readonly SkillShown[]]> {
    const held = this.kept.get(id);
    if (held?.tag === tag) return [id, held.shown];
    const ruling = await this.store.rulingOf(id);
    const shown = ruling ? skillsShown(ruling) : [];
    if (this.kept.size >= MOST_KEPT) this.kept.clear();
    this.kept.set(id, { tag, shown });
    return [id, shown];
  }
}
