import type { ExercisePatternsView, PatternLane, PatternsView } from "@probe-lane/contract";
import { gatesOf, openLane, replay } from "@probe-lane/core/bench";
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

interface Ruled {
  readonly id: string;
  readonly assignmentId: string;
  readonly lane: PatternLane;
  readonly pattern: LanePattern;
}

const met = ({ lane, pattern }: { lane: PatternLane; pattern: Met["pattern"] }): Met => ({ lane: lane.href, pattern });

/** What a class gets wrong, of all its lanes that are handed in and ruled. */
export class PatternService {
  /** A lane that is handed in has one pace for good. */
  private readonly paces = new Map<string, Promise<GatePassed[]>>();
  constructor(private readonly deps: Deps) {}

  /** Who is in a class, what it is given, and its ruled bench lanes with what each says. */
  private async bench(classId: string) {
    const { store, book } = this.deps;
    const [everybody, titles, attempts] = await Promise.all([
      store.studentsOfClass(classId),
      store.titlesOfClass(classId),
      store.attemptsOfClass(classId),
    ]);
    const students = new Map(everybody.flatMap(({ id, name, isRemoved }) => (isRemoved ? [] : [[id, name]])));
    const read = await book.readIn(attempts.flatMap(({ id, handedInAt }) => (handedInAt ? [id] : [])));
    const lanes = attempts.flatMap(({ id, studentId, assignmentId, attempt }): Ruled[] => {
      const pattern = read.get(id);
      const studentName = students.get(studentId);
      if (!pattern || studentName === undefined) return [];
      const title = titles.find((one) => one.id === assignmentId)?.title ?? "";
      return [
        {
          id,
          assignmentId,
          lane: { href: `/lanes/${id}/ruling`, studentName, title, attempt, isAtMachine: false },
          pattern,
        },
      ];
    });
    return { students, titles, lanes };
  }

  /** All lanes of the class, of the bench and of real machines. */
  async ofClass(classId: string, className: string): Promise<PatternsView> {
    const [{ students, titles, lanes }, atMachines] = await Promise.all([
      this.bench(classId),
      floorShown(this.deps.floor, classId, null),
    ]);
    const shop = atMachines.flatMap(({ href, studentId, title, attempt, pattern }) => {
      const studentName = students.get(studentId);
      return studentName === undefined
        ? []
        : [{ lane: { href, studentName, title, attempt, isAtMachine: true }, pattern }];
    });
    const all = [...lanes, ...shop];
    const { mistakes, incidents, missed } = patternsOf(all.map(met));
    return {
      className,
      exercises: titles
        .map(({ id, title }) => ({ id, title, lanes: lanes.filter((one) => one.assignmentId === id).length }))
        .filter((one) => one.lanes > 0),
      lanes: all.map(({ lane }) => lane),
      patterns: { mistakes, incidents, missed },
    };
  }

  /** The lanes of one exercise of the class. */
  async ofExercise(classId: string, assignmentId: string): Promise<ExercisePatternsView> {
    const { store } = this.deps;
    const [{ lanes }, assignments] = await Promise.all([this.bench(classId), store.assignmentsOfClass(classId)]);
    const assignment = assignments.find(({ id }) => id === assignmentId);
    if (!assignment) throw new HttpError("notFound");
    const { exercise } = assignment;
    const own = lanes.filter((one) => one.assignmentId === assignmentId);
    const paces = await Promise.all(own.map(({ id }) => this.paceOf(id)));
    // the row of gates as a lane of this exercise begins with it
    const gates = gatesOf(replay([openLane(exercise, "gates", assignment.isCoachOn)]));
    const pace = gatePace(
      gates.map(({ name }) => name),
      paces,
    );
    return {
      unit: exercise.unit,
      lanes: own.map(({ lane }) => lane),
      patterns: patternsOf(own.map(met)),
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
