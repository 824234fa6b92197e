import type { PartPicture } from "@probe-lane/core/bench";
import type { WorkPool } from "../../jobs/workPool";
import type { TaskOf } from "../../jobs/worker";

/** So many pictures are kept, some tens of kilobytes each. */
const KEPT = 100;

/** Pictures of parts that were cut, drawn on a thread and kept until others took their place. */
export class Pictures {
  private readonly kept = new Map<string, Promise<PartPicture | null>>();
  constructor(private readonly threads: Pick<WorkPool, "run">) {}

  /** The picture by its key: lane, part, and how often that was cut. What is asked for twice is drawn once. */
  of(key: string, task: () => Promise<TaskOf<"picture">>): Promise<PartPicture | null> {
    const known = this.kept.get(key);
    const picture = known ?? task().then((log) => this.threads.run("picture", log));
    this.kept.delete(key);
    this.kept.set(key, picture);
    // what failed is drawn again
    picture.catch(() => this.kept.delete(key));
    const [oldest] = this.kept.keys();
    if (this.kept.size > KEPT && oldest !== undefined) this.kept.delete(oldest);
    return picture;
  }
}
