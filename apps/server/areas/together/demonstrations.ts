import type { DemonstrationView } from "@probe-lane/contract";
import { observe } from "@probe-lane/core/bench";
import { isUniqueViolation } from "../../db/client";
import { HttpError } from "../../errors";
import type { Actor } from "../../guards";
import type { LaneCache } from "../lanes/laneCache";
import type { LaneStore } from "../lanes/store";
import type { ClassesNow } from "./classesNow";

/** Lanes of one student that go on from demonstrations of one exercise: more is a finger on a button. */
const MOST_GONE_ON = 20;

interface Deps {
  readonly store: Pick<LaneStore, "log" | "headersOfStudent" | "open">;
  readonly cache: Pick<LaneCache, "fresh">;
  readonly classesNow: Pick<ClassesNow, "shownIn" | "isArchived">;
  readonly changed: (laneId: string) => void;
  readonly now: () => Date;
}

/** What an instructor shows to a class in a lane of their own, and lanes that go on from it. */
export class Demonstrations {
  constructor(private readonly deps: Deps) {}

  private async lane(classId: string) {
    const laneId = this.deps.classesNow.shownIn(classId);
    const lane = laneId === null ? null : await this.deps.cache.fresh(laneId);
    return lane && lane.header.classId === classId && !lane.state.isHandedIn ? lane : null;
  }

  /** What is shown to a class, as whoever works in it sees it; null where nothing is, or that lane is over. */
  async shown(classId: string): Promise<DemonstrationView["shown"]> {
    const lane = await this.lane(classId);
    if (!lane) return null;
    const { id, title, studentName } = lane.header;
    return { laneId: id, title, by: studentName, turn: lane.turn, observation: observe(lane.state, "student") };
  }

  /**
   * Goes on from what is shown, as it stands now, in a lane of the student's own that counts nowhere: the same log up
   * to here, and the same machine. Gives its id. Throws where nothing is shown, or too many were gone on with.
   */
  async goOn(actor: Actor): Promise<string> {
    const { store, classesNow, now, changed } = this.deps;
    const shown = await this.lane(actor.classId);
    if (!shown) throw new HttpError("notFound");
    if (classesNow.isArchived(actor.classId)) throw new HttpError("classArchived");
    const { id: shownId, assignmentId } = shown.header;
    const [entries, trials] = await Promise.all([store.log(shownId), store.headersOfStudent(actor.id, true)]);
    const before = trials.filter((one) => one.assignmentId === assignmentId);
    if (before.length >= MOST_GONE_ON) throw new HttpError("attemptsUsedUp");
    try {
      const id = await store.open(assignmentId, actor.id, { entries, openedAt: now(), isTrial: true });
      changed(id);
      return id;
    } catch (error) {
      // pressed in two places at once
      throw isUniqueViolation(error) ? new HttpError("laneMoved") : error;
    }
  }
}
