import { randomUUID } from "node:crypto";
import {
  decide,
  cutsOf,
  drawnOf,
  eventSchema,
  gatesOf,
  nowOf,
  observe,
  openLane,
  provableIn,
  replay,
  type LaneEvent,
} from "@probe-lane/core/bench";
import type { Refusal } from "@probe-lane/core/lane";
import { machineOf, type Exercise } from "@probe-lane/core/exercises";
import { isValueRight, mustHavesAsked, rule, type RegisterRuling, type Ruling } from "@probe-lane/core/grading";
import type { LengthUnit } from "@probe-lane/core/units";
import { causeWords, gateWords, refusalWords, targetWords } from "@probe-lane/core/words";
import type {
  AssignmentRow,
  AttemptRow,
  BatchReply,
  CommandBatch,
  SignatureRequest,
  LaneHeader,
  LaneView,
  LiveView,
  MarksPolicy,
  MyLanes,
  Outcome,
  PartDrawing,
  ProveProgress,
  ProveReply,
  PartView,
  proveRequest,
  RulingView,
} from "@probe-lane/contract";
import { isUniqueViolation } from "../../db/client";
import { HttpError } from "../../errors";
import type { z } from "zod";
import { isStaff, type Actor } from "../../guards";
import type { ClassesNow } from "../together/classesNow";
import type { Demonstrations } from "../together/demonstrations";
import type { WorkPool } from "../../jobs/workPool";
import { advance, INSTRUCTOR_WRITER, tabWriter, type HeldLane, type LaneCache } from "./laneCache";
import { closedBy, windowOf, type Planned } from "../plan/window";
import type { SkillService } from "../skills/service";
import type { ReviewStore } from "../review/store";
import type { LaneHeaderRow, LaneStore, NewEntry } from "./store";
import { Pictures } from "./pictures";
import { Proofs } from "./proofs";

export interface LaneServiceDeps {
  skills: Pick<SkillService, "practiceAfter">;
  store: LaneStore;
  reviews: Pick<ReviewStore, "notes" | "looks">;
  cache: LaneCache;
  threads: Pick<WorkPool, "run">;
  classesNow: Pick<ClassesNow, "pausedBy" | "isArchived">;
  demonstrations: Pick<Demonstrations, "shown">;
  changed(laneId: string): void;
  policyOf(classId: string): Promise<MarksPolicy>;
  now(): Date;
}

export const headerOf = (row: LaneHeaderRow, handedInAt = row.handedInAt): LaneHeader => ({
  id: row.id,
  title: row.title,
  studentName: row.studentName,
  attempt: row.attempt,
  isTrial: row.isTrial,
  dueAt: windowOf(row).dueAt?.toISOString() ?? null,
  openedAt: row.openedAt.toISOString(),
  handedInAt: handedInAt?.toISOString() ?? null,
});

/**
 * A lane belongs to its student; who teaches or helps in its class may look.
 * Everyone else is told that there is nothing.
 */
function mayRead(header: LaneHeaderRow, actor: Actor): boolean {
  return isStaff(actor) ? header.classId === actor.classId : header.studentId === actor.id;
}

const headline = (ruling: Ruling): string => {
  const worst = [...ruling.values].filter(({ cause }) => cause.kind !== "none").sort((a, b) => a.marks - b.marks)[0];
  return worst ? causeWords(worst, ruling.sheet).headline : "Every value is right.";
};

/** Whether a value of a lane at work is there at all, and as it should be. */
function liveState(value: RegisterRuling): LiveView["values"][number]["state"] {
  const { cause } = value;
  if (cause.kind === "proven" && cause.terms.some(({ id }) => id === "neverSet")) return "notYet";
  return isValueRight(value) ? "right" : "off";
}

/** Why nothing is begun now, besides the day that an exercise opens on, which stands by itself. */
function closedNow(row: Planned & { readonly isArchived: boolean }, now: Date): AssignmentRow["closed"] {
  const closed = closedBy(row, now);
  if (row.isArchived) return "archived";
  return closed === "notOpenYet" ? null : closed;
}

/** Marks are told in tenths. */
const TENTH = 0.05;
const MINUTES_PER_GATE = 3;
const knownMinutes = new WeakMap<Exercise, number>();

/** About how long an exercise takes, to five minutes: its gates, a few minutes each. */
function minutesOf(exercise: Exercise): number {
  const known = knownMinutes.get(exercise);
  if (known !== undefined) return known;
  const gates = gatesOf(replay([eventSchema.parse(openLane(exercise, "how long", false))])).length;
  const minutes = Math.ceil((gates * MINUTES_PER_GATE) / 5) * 5;
  knownMinutes.set(exercise, minutes);
  return minutes;
}

function drawingOf({ lathe, feature, datum }: Exercise): PartDrawing {
  if (lathe) return lathe.stock.boreMm === undefined ? "turned" : "bored";
  if (feature && datum.kind === "feature") return feature.kind;
  if (datum.kind !== "corner") return "middle";
  const { x, y } = datum.edges;
  return `${y.approach === 1 ? "front" : "back"}${x.approach === 1 ? "Left" : "Right"}`;
}

/** How often work is done again where another process was first; each time one of them gets on. */
const MOST_TURNS = 8;

export class LaneService {
  private readonly queues = new Map<string, Promise<unknown>>();
  private readonly proofs: Proofs;
  private readonly pictures: Pictures;
  constructor(private readonly deps: LaneServiceDeps) {
    this.proofs = new Proofs(deps.threads);
    this.pictures = new Pictures(deps.threads);
  }

  /** One batch of a lane at a time in this process; the log's key settles it between processes. */
  private inTurn<T>(laneId: string, work: () => Promise<T>): Promise<T> {
    const before = this.queues.get(laneId) ?? Promise.resolve();
    const next = before.catch(() => undefined).then(work);
    this.queues.set(laneId, next);
    void next
      .catch(() => undefined)
      .finally(() => {
        if (this.queues.get(laneId) === next) this.queues.delete(laneId);
      });
    return next;
  }

  /** A lane that this person may read, as the log has it now, or 404. */
  async held(laneId: string, actor: Actor): Promise<HeldLane> {
    return this.allowed(await this.deps.cache.fresh(laneId), actor);
  }

  private allowed(lane: HeldLane | null, actor: Actor): HeldLane {
    if (!lane || !mayRead(lane.header, actor)) throw new HttpError("notFound");
    return lane;
  }

  async view(laneId: string, actor: Actor): Promise<LaneView> {
    const lane = await this.held(laneId, actor);
    // who tries an exercise sees what a student sees
    const isMine = lane.header.studentId === actor.id;
    return {
      lane: headerOf(lane.header, lane.state.isHandedIn ? (lane.header.handedInAt ?? new Date(lane.lastAtMs)) : null),
      turn: lane.turn,
      observation: observe(lane.state, isStaff(actor) && !isMine ? "instructor" : "student"),
      isReadOnly: !isMine || lane.state.isHandedIn,
      isMine,
    };
  }

  run(laneId: string, actor: Actor, batch: CommandBatch): Promise<BatchReply> {
    return this.inTurn(laneId, async () => {
      return this.settled(laneId, (isAgain) => this.answer(laneId, actor, batch, isAgain));
    });
  }

  /** Whether the class of a lane lets it be gone on with: that of the lane, whichever is open now. Throws. */
  private async checkClass({ classId }: LaneHeaderRow, actor: Actor): Promise<void> {
    const { classesNow, store } = this.deps;
    if (classesNow.isArchived(classId)) throw new HttpError("classArchived");
    if (classId !== actor.classId && !(await store.isMember(actor.id, classId))) throw new HttpError("notInClass");
    if (actor.role === "student" && classesNow.pausedBy(classId) !== null) throw new HttpError("classPaused");
  }

  private async answer(laneId: string, actor: Actor, batch: CommandBatch, isAgain: boolean): Promise<BatchReply> {
    const { cache } = this.deps;
    const known = await cache.get(laneId);
    let lane = known?.header.studentId === actor.id ? known : await this.held(laneId, actor);
    if (lane.header.studentId !== actor.id) throw new HttpError("readOnly");
    await this.checkClass(lane.header, actor);
    // the tab knows of an answer that this process does not: another one gave it
    if (!isAgain && lane.turn < batch.afterTurn) lane = await this.held(laneId, actor);
    const writer = tabWriter(batch.writer);
    const [first] = batch.commands;
    if (first && first.clientSeq <= (lane.writers.get(writer) ?? 0)) return this.replyAgain(laneId, lane, batch);
    if (lane.lastWriter !== writer && lane.lastWriterTurn > batch.afterTurn) throw new HttpError("laneMoved");
    return this.append(laneId, lane, actor, batch);
  }

  /** Work on a lane that is done again from the log where another process was first at its next entry. */
  private async settled<T>(laneId: string, work: (isAgain: boolean) => Promise<T>): Promise<T> {
    for (let turn = 0; ; turn++) {
      try {
        return await work(turn > 0);
      } catch (error) {
        if (!isUniqueViolation(error)) throw error;
        if (turn >= MOST_TURNS) throw new HttpError("laneMoved");
        this.deps.cache.drop(laneId);
      }
    }
  }

  /** A batch that was answered before: the same outcomes from the log, and nothing done twice. */
  private async replyAgain(laneId: string, lane: HeldLane, batch: CommandBatch): Promise<BatchReply> {
    const log = await this.deps.store.log(laneId);
    const writer = tabWriter(batch.writer);
    const outcomes = batch.commands.map(({ clientSeq }): Outcome => {
      const entries = log.filter((entry) => entry.writer === writer && entry.clientSeq === clientSeq);
      const refused = entries.map(({ event }) => event).find((event) => event.type === "commandRefused");
      if (refused) return refusedOutcome(clientSeq, refused.refusal, lane.state.setup.unit);
      return { clientSeq, kind: entries.length > 0 ? "done" : "skipped" };
    });
    return { turn: lane.turn, observation: nowOf(observe(lane.state, "student")), outcomes };
  }

  private async append(laneId: string, from: HeldLane, actor: Actor, batch: CommandBatch): Promise<BatchReply> {
    const at = this.deps.now();
    const entries: NewEntry[] = [];
    const outcomes: Outcome[] = [];
    let lane = from;
    let isStopped = false;
    for (const { clientSeq, command } of batch.commands) {
      if (isStopped) {
        outcomes.push({ clientSeq, kind: "skipped" });
        continue;
      }
      const decided = decide(lane.state, command);
      const events: LaneEvent[] = decided.ok
        ? decided.value
        : [{ type: "commandRefused", command: command.type, refusal: decided.error }];
      for (const event of events) {
        const entry = {
          seq: lane.headSeq + 1,
          at,
          actorId: actor.id,
          writer: tabWriter(batch.writer),
          clientSeq,
          event: eventSchema.parse(event),
        };
        entries.push(entry);
        lane = advance(lane, { ...entry, atMs: at.getTime() });
      }
      outcomes.push(
        decided.ok ? { clientSeq, kind: "done" } : refusedOutcome(clientSeq, decided.error, lane.state.setup.unit),
      );
      isStopped = !decided.ok;
    }
    const isHandIn = lane.state.isHandedIn && !from.state.isHandedIn;
    await this.write(laneId, entries, isHandIn ? at : null);
    this.deps.cache.put(laneId, lane);
    if (isHandIn) await this.ruling(laneId, lane.header);
    this.deps.changed(laneId);
    return { turn: lane.turn, observation: nowOf(observe(lane.state, "student"), drawnOf(from.state)), outcomes };
  }

  private async write(laneId: string, entries: readonly NewEntry[], handedInAt: Date | null): Promise<void> {
    if (entries.length === 0) return;
    try {
      await (handedInAt
        ? this.deps.store.handIn(laneId, entries, handedInAt)
        : this.deps.store.append(laneId, entries));
    } catch (error) {
      // whatever happened, the log is the truth: fold it again before the next command
      this.deps.cache.drop(laneId);
      throw error;
    }
  }

  /** The instructor has come: the hand goes down. */
  answerHand(laneId: string, actor: Actor): Promise<void> {
    return this.inTurn(laneId, () => this.settled(laneId, () => this.lowerHand(laneId, actor)));
  }

  private async lowerHand(laneId: string, actor: Actor): Promise<void> {
    const lane = await this.held(laneId, actor);
    if (lane.state.isHandUp) await this.appendByInstructor(laneId, lane, actor, [{ type: "handLowered" }]);
  }

  /** Signs for the first cut what stands in the lane now, or sends it back with a word; the hand goes down with it. */
  sign(laneId: string, actor: Actor, { isGiven, word }: SignatureRequest): Promise<void> {
    return this.inTurn(laneId, () =>
      this.settled(laneId, async () => {
        const lane = await this.held(laneId, actor);
        if (lane.state.program.signature.state !== "asked") throw new HttpError("notAskedToSign");
        const by = await this.deps.store.nameOf(actor.id);
        await this.appendByInstructor(laneId, lane, actor, [
          isGiven ? { type: "signatureGiven", by } : { type: "signatureSentBack", by, word: word.trim() },
          ...(lane.state.isHandUp ? [{ type: "handLowered" } as const] : []),
        ]);
      }),
    );
  }

  /** Facts of an instructor's on a student's lane. */
  private async appendByInstructor(
    laneId: string,
    lane: HeldLane,
    actor: Actor,
    events: readonly LaneEvent[],
  ): Promise<void> {
    const at = this.deps.now();
    const entries = events.map((event, i) => ({
      seq: lane.headSeq + 1 + i,
      at,
      actorId: actor.id,
      writer: INSTRUCTOR_WRITER,
      clientSeq: 0,
      event,
    }));
    await this.write(laneId, entries, null);
    const after = entries.reduce((held, entry) => advance(held, { ...entry, atMs: at.getTime() }), lane);
    this.deps.cache.put(laneId, after);
    this.deps.changed(laneId);
  }

  /** The stored ruling, made from the log when there is none yet. */
  private async ruling(laneId: string, header: LaneHeaderRow): Promise<Ruling> {
    const stored = await this.deps.store.rulingOf(laneId);
    if (stored) return stored;
    const marking = await this.deps.store.markingOf(header);
    const log = await this.deps.store.log(laneId);
    // a part that is cut takes a while: lanes at work are answered meanwhile
    const isCut = (await this.deps.cache.get(laneId))?.state.setup.features !== undefined;
    const made = isCut ? await this.deps.threads.run("rule", { log, marking }) : rule(log, marking);
    await this.deps.store.saveRuling(laneId, made);
    return made;
  }

  /** What the values of a lane would be ruled to be now, and what their causes are. */
  async live(header: LaneHeaderRow): Promise<LiveView> {
    const marking = await this.deps.store.markingOf(header);
    const log = await this.deps.store.log(header.id);
    const { values, sheet } = await this.deps.threads.run("rule", { log, marking });
    return {
      values: values.map((value) => ({
        name: targetWords(value.target),
        words: causeWords(value, sheet).headline,
        state: liveState(value),
      })),
    };
  }

  async rulingView(laneId: string, actor: Actor): Promise<RulingView> {
    const lane = await this.held(laneId, actor);
    if (!lane.state.isHandedIn) throw new HttpError("notHandedIn");
    const ruling = await this.ruling(laneId, lane.header);
    const { header } = lane;
    const alike = async (isTrial: boolean) =>
      (await this.deps.store.headersOfStudent(header.studentId, isTrial)).filter(
        ({ assignmentId }) => assignmentId === header.assignmentId,
      );
    const siblings = await alike(header.isTrial);
    const counted = header.isTrial ? await alike(false) : siblings;
    const ruled = (
      await Promise.all(
        siblings.map(async ({ id, attempt }) => ({ id, attempt, total: (await this.deps.store.rulingOf(id))?.total })),
      )
    ).flatMap(({ total, ...one }) => (total === undefined ? [] : [{ ...one, total }]));
    const earlier = (await this.deps.store.totalsOf(laneId))
      .slice(0, -1)
      .map(({ at, ...one }) => ({ ...one, at: at.toISOString() }));
    return {
      earlier,
      lane: headerOf(header, header.handedInAt ?? new Date(lane.lastAtMs)),
      ruling,
      notes: await this.deps.reviews.notes(laneId),
      looks: await this.deps.reviews.looks(laneId),
      practice: await this.deps.skills.practiceAfter(header, ruling),
      assignmentId: header.assignmentId,
      ruled,
      bestTotal: Math.max(...ruled.map(({ total }) => total)),
      provableIn: provableIn(lane.state),
      attemptsLeft: Math.max(0, header.attemptsAllowed - counted.length),
    };
  }

  /** Runs a program with the registers of a lane that was handed in, on its machine as it really is. */
  async prove(
    laneId: string,
    actor: Actor,
    asked: z.infer<typeof proveRequest>,
    gone: AbortSignal,
  ): Promise<ProveReply> {
    const { state } = await this.held(laneId, actor);
    if (!state.isHandedIn) throw new HttpError("notHandedIn");
    const log = await this.deps.store.log(laneId);
    const proof = provableIn(state)
      ? await this.proofs.follow(actor.id, { log: log.map(({ event }) => ({ event })), ...asked }, gone)
      : null;
    if (!proof) throw new HttpError("notProvable");
    return { proof, unit: state.setup.unit };
  }

  /** How far the program that an account runs is. */
  /**
   * The part that is held: as an eye sees it for who works the lane, exactly as it came out for an instructor and, once
   * it is handed in, for everybody who may see the lane.
   */
  async part(laneId: string, actor: Actor): Promise<PartView> {
    const { state, header } = await this.held(laneId, actor);
    const isExact = state.isHandedIn || (actor.role === "instructor" && header.studentId !== actor.id);
    const { current } = state.program.parts;
    const cut = cutsOf(state);
    const picture =
      cut === 0
        ? null
        : await this.pictures.of(`${laneId} ${current} ${cut} ${isExact}`, async () => ({
            isExact,
            log: (await this.deps.store.log(laneId)).map(({ event }) => ({ event })),
          }));
    return { part: current, cut, picture };
  }

  async proveProgress(laneId: string, actor: Actor): Promise<ProveProgress> {
    await this.held(laneId, actor);
    return { moves: this.proofs.moves(actor.id) };
  }

  /** The lane record with its log: for instructors, and for `cli replay`. It holds the truth. */
  async record(laneId: string, actor: Actor) {
    const { header } = await this.held(laneId, actor);
    if (actor.role !== "instructor") throw new HttpError("forbidden");
    const log = await this.deps.store.log(laneId);
    return {
      format: "probe-lane/lane",
      version: 1,
      lane: headerOf(header),
      marking: await this.deps.store.markingOf(header),
      events: log.map(({ seq, atMs, event }) => ({ seq, atMs, event })),
    };
  }

  private async attemptRow(row: LaneHeaderRow): Promise<AttemptRow> {
    const lane = await this.deps.cache.get(row.id);
    const gates = lane ? gatesOf(lane.state) : [];
    const next = gates.find(({ isPassed }) => !isPassed);
    const ruling = lane?.state.isHandedIn ? await this.ruling(row.id, row) : null;
    return {
      id: row.id,
      number: row.attempt,
      openedAt: row.openedAt.toISOString(),
      handedInAt: row.handedInAt?.toISOString() ?? null,
      gatesPassed: gates.filter(({ isPassed }) => isPassed).length,
      gateCount: gates.length,
      nextGate: next ? gateWords(next) : null,
      total: ruling?.total ?? null,
      outOf: ruling?.outOf ?? null,
      headline: ruling ? headline(ruling) : null,
      before: ruling ? await this.before(row.id) : null,
      isAnswered: ruling !== null && (await this.deps.reviews.looks(row.id)).some(({ answer }) => answer !== null),
    };
  }

  /** What a lane had before it was marked again, where that was another total. */
  private async before(laneId: string): Promise<number | null> {
    const [was, is] = (await this.deps.store.totalsOf(laneId)).slice(-2);
    return was && is && Math.abs(was.total - is.total) >= TENTH ? was.total : null;
  }

  async myLanes(actor: Actor): Promise<MyLanes> {
    const [rows, mine, trials, mustHaves] = await Promise.all([
      this.deps.store.assignmentsOfClass(actor.classId),
      this.deps.store.headersOfStudent(actor.id),
      this.deps.store.headersOfStudent(actor.id, true),
      this.deps.store.mustHavesOfClass(actor.classId),
    ]);
    const goneOn = trials
      .filter(({ classId, handedInAt }) => classId === actor.classId && handedInAt === null)
      .map(({ id, title, openedAt }) => ({ id, title, openedAt: openedAt.toISOString() }));
    const now = this.deps.now();
    const begun = new Set(mine.map(({ assignmentId }) => assignmentId));
    const assignments = await Promise.all(
      // what is taken back again stays with who has begun it
      rows
        .flatMap((row) => (row.isGiven || begun.has(row.id) ? [{ row, window: windowOf(row) }] : []))
        .map(async ({ row, window }) => ({
          id: row.id,
          title: row.exercise.title,
          story: row.exercise.story,
          partName: row.exercise.part.name,
          machine: machineOf(row.exercise),
          drawing: drawingOf(row.exercise),
          minutes: minutesOf(row.exercise),
          week: row.week,
          opensAt: window.opensAt && window.opensAt > now ? window.opensAt.toISOString() : null,
          dueAt: window.dueAt?.toISOString() ?? null,
          closed: closedNow(row, now),
          isCoachOn: row.isCoachOn,
          mustHaves: mustHavesAsked(row.exercise, row.isCoachOn, mustHaves.get(row.id)),
          attemptsAllowed: row.attemptsAllowed,
          attempts: await Promise.all(
            mine.filter(({ assignmentId }) => assignmentId === row.id).map((header) => this.attemptRow(header)),
          ),
        })),
    );
    const isShowing = (await this.deps.demonstrations.shown(actor.classId)) !== null;
    return { assignments, isShowing, goneOn, policy: await this.deps.policyOf(actor.classId) };
  }

  /** A new attempt draws a new truth. An attempt still open is gone on with instead. */
  start(assignmentId: string, actor: Actor): Promise<string> {
    return this.begin(assignmentId, actor, false);
  }

  /** An instructor looks at an exercise as a student would, whenever they like; it counts nowhere. */
  try(assignmentId: string, actor: Actor): Promise<string> {
    return this.begin(assignmentId, actor, true);
  }

  private async begin(assignmentId: string, actor: Actor, isTrial: boolean): Promise<string> {
    const row = (await this.deps.store.assignmentsOfClass(actor.classId)).find(({ id }) => id === assignmentId);
    if (!row) throw new HttpError("notFound");
    if (row.isArchived) throw new HttpError("classArchived");
    const mine = (await this.deps.store.headersOfStudent(actor.id, isTrial)).filter(
      (header) => header.assignmentId === assignmentId,
    );
    const open = mine.find(({ handedInAt }) => handedInAt === null);
    if (open) return open.id;
    if (!isTrial) {
      const closed = closedBy(row, this.deps.now());
      if (closed !== null) throw new HttpError(closed === "notGiven" ? "notFound" : closed);
      if (mine.length >= row.attemptsAllowed) throw new HttpError("attemptsUsedUp");
    }
    try {
      const at = this.deps.now();
      const event = eventSchema.parse(openLane(row.exercise, randomUUID(), row.isCoachOn));
      const id = await this.deps.store.open(assignmentId, actor.id, {
        entries: [{ event, atMs: at.getTime(), writer: "server", clientSeq: 0 }],
        openedAt: at,
        isTrial,
      });
      this.deps.changed(id);
      return id;
    } catch (error) {
      throw isUniqueViolation(error) ? new HttpError("laneMoved") : error;
    }
  }
}

const refusedOutcome = (clientSeq: number, refusal: Refusal, unit: LengthUnit): Outcome => ({
  clientSeq,
  kind: "refused",
  refusal,
  message: refusalWords(refusal, unit),
});
