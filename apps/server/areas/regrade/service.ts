import pLimit from "p-limit";
import type pg from "pg";
import type { MarkingDraft, MarkingView, RegradeProgress, TrialView } from "@probe-lane/contract";
import { askedHere, type Marking } from "@probe-lane/core/exercises";
import { rulingVersion, type Ruling } from "@probe-lane/core/grading";
import { isUniqueViolation } from "../../db/client";
import { HttpError } from "../../errors";
import type { Actor } from "../../guards";
import type { JobQueue } from "../../jobs/queue";
import type { WorkPool } from "../../jobs/workPool";
import type { LaneStore } from "../lanes/store";
import type { MarkingKey, RegradeRow, RegradeStore, TrialRow } from "./store";

export interface RegradeDeps {
  store: RegradeStore;
  lanes: Pick<LaneStore, "rulingOf">;
  /** Tells every process that these lanes have a new ruling. */
  notify(laneIds: readonly string[]): Promise<void>;
  pool: pg.Pool;
  threads: WorkPool;
  queue: JobQueue;
  nameOf(id: string): Promise<string>;
}

/** Logs in memory at a time: enough to keep the threads busy while others are read. */
const AT_ONCE = 6;
/** Lanes are told to the pages in packs of so many. */
const TOLD_TOGETHER = 20;
/** Any number; with a regrade's own it keeps two processes from doing the same one at once. */
const LOCK = 724_002;

const progressOf = ({ id, revision, byName, lanes, done, startedAt, finishedAt }: RegradeRow): RegradeProgress => ({
  id,
  revision,
  by: byName,
  lanes,
  done: Math.min(done, lanes),
  startedAt: startedAt.toISOString(),
  finishedAt: finishedAt?.toISOString() ?? null,
});

export class RegradeService {
  constructor(private readonly deps: RegradeDeps) {}

  private async keyOf(assignmentId: string, actor: Actor): Promise<MarkingKey & { title: string }> {
    const found = await this.deps.store.assignment(assignmentId, actor.classId);
    if (!found) throw new HttpError("notFound");
    return found;
  }

  async view(assignmentId: string, actor: Actor): Promise<MarkingView> {
    const key = await this.keyOf(assignmentId, actor);
    const [revisions, handedIn, latest] = await Promise.all([
      this.deps.store.revisions(key),
      this.deps.store.handedIn(key, actor.classId),
      this.deps.store.latest(key),
    ]);
    return { title: key.title, revisions, lanes: handedIn.length, regrade: latest ? progressOf(latest) : null };
  }

  /** By a marking, with what the lane's own class asks for over points. */
  private async ruled(attemptId: string, marking: Marking): Promise<Ruling> {
    const [log, own] = await Promise.all([
      this.deps.store.storedLog(attemptId),
      this.deps.store.mustHavesOf(attemptId),
    ]);
    return this.deps.threads.run("rule", { log, marking: askedHere(marking, own) });
  }

  /** Queues the trial of a marking that is not stored, on every lane of the own class that is handed in. */
  async beginTrial(assignmentId: string, actor: Actor, draft: MarkingDraft): Promise<TrialView> {
    const key = await this.keyOf(assignmentId, actor);
    const [revision, handedIn] = await Promise.all([
      this.nextRevision(key),
      this.deps.store.handedIn(key, actor.classId),
    ]);
    const row = await this.deps.store.beginTrial(assignmentId, { ...draft, revision }, handedIn.length);
    await this.deps.queue.send("trial", row.id);
    return { id: row.id, lanes: row.lanes, done: 0, preview: null };
  }

  private async trialOf(assignmentId: string, trialId: string, actor: Actor) {
    const key = await this.keyOf(assignmentId, actor);
    const row = await this.deps.store.trial(trialId);
    if (row?.assignmentId !== assignmentId || row.cancelledAt) throw new HttpError("notFound");
    return { key, row };
  }

  /**
   * How far a trial has come; once it is through, who of the own class would change by how much. Given marks are not
   * counted: they stay as they are.
   */
  async trial(assignmentId: string, trialId: string, actor: Actor): Promise<TrialView> {
    const { key, row } = await this.trialOf(assignmentId, trialId, actor);
    const marks = await this.deps.store.trialMarks(trialId);
    const view = { id: row.id, lanes: row.lanes, done: Math.min(marks.length, row.lanes) };
    if (!row.finishedAt) return { ...view, preview: null };
    const then = new Map(marks.map((one) => [one.attemptId, one]));
    const limit = pLimit(AT_ONCE);
    const lanes = await Promise.all(
      (await this.deps.store.handedIn(key, actor.classId)).map(({ id, studentName, attempt }) =>
        limit(async () => {
          const after = then.get(id);
          // handed in since the trial began: it is not among those that were tried
          if (!after) return [];
          const before = await this.deps.lanes.rulingOf(id);
          return [
            {
              laneId: id,
              studentName,
              attempt,
              before: before?.strands.reduce((sum, { marks, given }) => sum + (given?.earned ?? marks), 0) ?? null,
              beforeOutOf: before?.outOf ?? null,
              after: after.total,
              outOf: after.outOf,
            },
          ];
        }),
      ),
    );
    return { ...view, preview: { lanes: lanes.flat() } };
  }

  async cancelTrial(assignmentId: string, trialId: string, actor: Actor): Promise<void> {
    await this.trialOf(assignmentId, trialId, actor);
    await this.deps.store.endTrial(trialId, "cancelledAt");
  }

  /** Rules every lane of a trial that is not ruled yet; stops where it was given up. */
  async tryOut(trialId: string): Promise<void> {
    const { store } = this.deps;
    const isOpen = (row: TrialRow | null): row is TrialRow => row !== null && !row.finishedAt && !row.cancelledAt;
    const trial = await store.trial(trialId);
    if (!isOpen(trial)) return;
    const place = await store.placeOf(trial.assignmentId);
    if (!place) return;
    const done = new Set((await store.trialMarks(trialId)).map(({ attemptId }) => attemptId));
    const limit = pLimit(AT_ONCE);
    await Promise.all(
      (await store.handedIn(place, place.classId))
        .filter(({ id }) => !done.has(id))
        .map(({ id }) =>
          limit(async () => {
            if (isOpen(await store.trial(trialId)))
              await store.saveTrial(trialId, id, await this.ruled(id, trial.marking));
          }),
        ),
    );
    await store.endTrial(trialId, "finishedAt");
  }

  private async nextRevision(key: MarkingKey): Promise<number> {
    const [newest] = await this.deps.store.revisions(key);
    return (newest?.revision ?? 0) + 1;
  }

  /** Stores the marking as a new revision and queues the marking again of every lane that is handed in. */
  async begin(assignmentId: string, actor: Actor, draft: MarkingDraft): Promise<RegradeProgress> {
    const key = await this.keyOf(assignmentId, actor);
    const [revision, handedIn, byName] = await Promise.all([
      this.nextRevision(key),
      this.deps.store.handedIn(key, null),
      this.deps.nameOf(actor.id),
    ]);
    try {
      const row = await this.deps.store.begin(key, { ...draft, revision }, byName, handedIn.length);
      await this.deps.queue.send("regrade", row.id);
      return progressOf(row);
    } catch (error) {
      throw isUniqueViolation(error) ? new HttpError("markingMoved") : error;
    }
  }

  /** Takes up what a process that died has left. */
  async takeUp(): Promise<void> {
    for (const { id } of await this.deps.store.unfinished()) await this.deps.queue.send("regrade", id);
    for (const { id } of await this.deps.store.openTrials()) await this.deps.queue.send("trial", id);
  }

  /**
   * Marks every lane that has no ruling yet by the regrade's revision. May be run again from wherever it was left;
   * earlier rulings stay. Another process at the same regrade holds its lock, and this one leaves it to that.
   */
  async work(regradeId: string): Promise<void> {
    const regrade = await this.deps.store.regrade(regradeId);
    if (!regrade || regrade.finishedAt) return;
    const client = await this.deps.pool.connect();
    try {
      const { rows } = await client.query<{ ours: boolean }>("select pg_try_advisory_lock($1, hashtext($2)) as ours", [
        LOCK,
        regradeId,
      ]);
      if (rows[0]?.ours !== true) return;
      try {
        await this.markAll(regrade);
      } finally {
        await client.query("select pg_advisory_unlock($1, hashtext($2))", [LOCK, regradeId]);
      }
    } finally {
      client.release();
    }
  }

  private async markAll(regrade: RegradeRow): Promise<void> {
    const { store, notify } = this.deps;
    const marking = (await store.revisions(regrade)).find(({ revision }) => revision === regrade.revision);
    if (!marking) throw new Error(`markAll: ${regrade.exerciseId} has no revision ${regrade.revision}`);
    const limit = pLimit(AT_ONCE);
    let told: string[] = [];
    await Promise.all(
      (await store.unmarked(regrade, regrade.revision, rulingVersion)).map(({ id }) =>
        limit(async () => {
          await store.saveRuling(regrade.id, id, await this.ruled(id, marking));
          told.push(id);
          if (told.length < TOLD_TOGETHER) return;
          const pack = told;
          told = [];
          await notify(pack);
        }),
      ),
    );
    if (told.length > 0) await notify(told);
    await store.finish(regrade.id);
  }
}
