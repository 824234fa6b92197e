import type { ExercisePatternsView, PatternLane, PatternsView } from "@probe-lane/contract";
import { gatesOf, openLane, replay } from "@probe-lane/core/bench";
import { machineOf } from "@probe-lane/core/exercises";
import { gatePace, patternsOf, type GatePassed, type LanePattern, type Met } from "@probe-lane/core/patterns";
import { HttpError } from "../../errors";
import type { WorkPool } from "../../jobs/workPool";
import { floorShown } from "../floor/service";
import type { FloorStore } from "../floor/store";
import type { RulingBook } from "../lanes/rulingBook";
import type { LaneStore } from "../lanes/store";

/** Lanes of which the pace is kept; beyond them it begins anew. */
const MOST_KEPT = 5000;

interface Deps {
  readonly store: LaneStore;
  readonly floor: FloorStore;
  readonly book: RulingBook<LanePattern>;
  readonly threads: Pick<WorkPool, "run">;
}

type Known = PatternLane & { readonly id: string; readonly assignmentId: string };

/** What a class gets wrong, of all its lanes that are handed in and ruled. */
export class PatternService {
  /** A lane that is handed in has one pace for good. */
  private readonly paces = new Map<string, Promise<GatePassed[]>>();
  constructor(private readonly deps: Deps) {}

  /** The ruled bench lanes of a class, with what each says. */
  private async benchLanes(classId: string): Promise<{ lane: Known; pattern: LanePattern }[]> {
    const { store, book } = this.deps;
    const [students, titles, attempts] = await Promise.all([
      store.studentsOfClass(classId),
      store.titlesOfClass(classId),
      store.attemptsOfClass(classId),
    ]);
    const read = await book.readIn(attempts.flatMap(({ id, handedInAt }) => (handedInAt ? [id] : [])));
    return attempts.flatMap(({ id, studentId, assignmentId, attempt }) => {
      const pattern = read.get(id);
      const student = students.find((one) => one.id === studentId);
      if (!pattern || !student || student.isRemoved) return [];
      const title = titles.find((one) => one.id === assignmentId)?.title ?? "";
      return [
        { lane: { id, href: `/lanes/${id}/ruling`, studentName: student.name, title, attempt, assignmentId }, pattern },
      ];
    });
  }

  /** All lanes of the class, of the bench and of real machines. */
  async ofClass(classId: string, className: string): Promise<PatternsView> {
    const { store, floor } = this.deps;
    const [bench, atMachines, students, titles] = await Promise.all([
      this.benchLanes(classId),
      floorShown(floor, classId, null),
      store.studentsOfClass(classId),
      store.titlesOfClass(classId),
    ]);
    const shop = atMachines.flatMap(({ href, studentId, title, attempt, pattern }) => {
      const student = students.find(({ id, isRemoved }) => id === studentId && !isRemoved);
      return student ? [{ lane: { href, studentName: student.name, title, attempt }, pattern }] : [];
    });
    const { mistakes, incidents, missed } = patternsOf(
      [...bench, ...shop].map(({ lane, pattern }): Met => ({ lane: lane.href, pattern })),
    );
    return {
      className,
      exercises: titles
        .map(({ id, title }) => ({
          id,
          title,
          lanes: bench.filter(({ lane }) => lane.assignmentId === id).length,
        }))
        .filter(({ lanes }) => lanes > 0),
      lanes: [...bench, ...shop].map(({ lane: { href, studentName, title, attempt } }) => ({
        href,
        studentName,
        title,
        attempt,
      })),
      patterns: { mistakes, incidents, missed },
    };
  }

  /** The lanes of one exercise of the class. */
  async ofExercise(classId: string, className: string, assignmentId: string): Promise<ExercisePatternsView> {
    const { store } = this.deps;
    const [all, assignments] = await Promise.all([this.benchLanes(classId), store.assignmentsOfClass(classId)]);
    const assignment = assignments.find(({ id }) => id === assignmentId);
    if (!assignment) throw new HttpError("notFound");
    const { exercise } = assignment;
    const own = all.filter(({ lane }) => lane.assignmentId === assignmentId);
    const paces = await Promise.all(own.map(({ lane }) => this.paceOf(lane.id)));
    // the row of gates as a lane of this exercise begins with it
    const gates = gatesOf(replay([openLane(exercise, "gates", assignment.isCoachOn)]));
    const pace = gatePace(
      gates.map(({ name }) => name),
      paces,
    );
    return {
      className,
      title: exercise.title,
      kind: machineOf(exercise),
      unit: exercise.unit,
      lanes: own.map(({ lane: { href, studentName, title, attempt } }) => ({ href, studentName, title, attempt })),
      patterns: patternsOf(own.map(({ lane, pattern }): Met => ({ lane: lane.href, pattern }))),
      pace: pace.flatMap((one) => {
        const gate = gates.find(({ name }) => name === one.gate);
        return gate ? [{ ...one, kind: gate.kind, ...(gate.tool === undefined ? {} : { tool: gate.tool }) }] : [];
      }),
    };
  }

  private paceOf(id: string): Promise<GatePassed[]> {
    const known = this.paces.get(id);
    if (known) return known;
    if (this.paces.size >= MOST_KEPT) this.paces.clear();
    const read = this.deps.store.log(id).then((log) => this.deps.threads.run("pace", { log }));
    this.paces.set(id, read);
    // what failed is asked for again
    read.catch(() => this.paces.delete(id));
    return read;
  }
}
