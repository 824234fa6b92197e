import type {
  MachineSigned,
  MarksPolicy,
  Practice,
  SkillRow,
  SkillStanding,
  SkillsView,
  StandingsView,
} from "@probe-lane/contract";
import { machineOf } from "@probe-lane/core/exercises";
import type { Ruling } from "@probe-lane/core/grading";
import {
  practiceNext,
  skillIds,
  skillsAsked,
  skillsShown,
  standOf,
  wantedSkills,
  type SkillId,
  type SkillShown,
} from "@probe-lane/core/skills";
import { addMonths } from "date-fns";
import { HttpError } from "../../errors";
import { floorShown } from "../floor/service";
import type { FloorStore } from "../floor/store";
import type { LaneHeaderRow, LaneStore } from "../lanes/store";
import { isEnough } from "../marks/policy";
import { closedBy } from "../plan/window";
import type { RulingBook } from "../lanes/rulingBook";

/** A skill that wants practice, and why. */
type Wanted = Pick<Practice, "skill" | "why">;

/** The exercise of the class that asks for the first of these skills and may still be taken. */
async function practiceFor(
  store: LaneStore,
  classId: string,
  headers: readonly LaneHeaderRow[],
  wanted: readonly Wanted[],
  now = new Date(),
): Promise<Practice | null> {
  const assignments = await store.assignmentsOfClass(classId);
  const shelf = assignments.map(({ id, attemptsAllowed, exercise, ...planned }) => ({
    id,
    isOpen: closedBy(planned, now) === null,
    title: exercise.title,
    attemptsAllowed,
    taken: headers.filter(({ assignmentId }) => assignmentId === id).length,
    machine: machineOf(exercise),
    asks: skillsAsked(exercise),
  }));
  const offers = shelf.filter(({ taken, attemptsAllowed, isOpen }) => isOpen && taken < attemptsAllowed);
  const latest = headers.toSorted((a, b) => a.openedAt.getTime() - b.openedAt.getTime()).at(-1);
  const on = shelf.find(({ id }) => id === latest?.assignmentId) ?? null;
  const next = practiceNext(
    wanted.map(({ skill }) => skill),
    offers,
    on?.machine ?? null,
  );
  const title = offers.find(({ id }) => id === next?.id)?.title;
  const why = wanted.find(({ skill }) => skill === next?.skill)?.why;
  return next && title !== undefined && why ? { skill: next.skill, why, assignmentId: next.id, title } : null;
}

/** Skills as they stand, the most urgent first. */
export function byStand(skills: readonly Pick<SkillRow, "skill" | "stand" | "isLapsed">[]): Wanted[] {
  const stands = new Map(skills.map(({ skill, stand }) => [skill, stand]));
  const lapsed = new Set(skills.flatMap(({ skill, isLapsed }) => (isLapsed ? [skill] : [])));
  return wantedSkills(stands, lapsed).map((skill) => {
    const stand = stands.get(skill) ?? "untried";
    return { skill, why: stand === "mastered" ? { isLapsed: true } : { stand } };
  });
}

interface Deps {
  readonly store: LaneStore;
  readonly floor: FloorStore;
  readonly book: RulingBook<readonly SkillShown[]>;
  readonly policyOf: (classId: string) => Promise<MarksPolicy>;
  readonly now: () => Date;
}

/** What one lane showed, wherever it was worked. */
interface Showing {
  readonly href: string;
  readonly title: string;
  readonly machine: string | null;
  readonly at: Date;
  readonly shown: readonly SkillShown[];
}

/** Where each skill stands by what was shown of it, in the order of the work. */
export function skillRows(showings: readonly Showing[], isLapsed: (at: Date) => boolean): SkillRow[] {
  const inTime = showings.toSorted((a, b) => a.at.getTime() - b.at.getTime());
  return skillIds.map((skill) => {
    const own = inTime.flatMap((one) => {
      const found = one.shown.find((each) => each.skill === skill);
      return found ? [{ ...one, isGood: found.isGood }] : [];
    });
    const stand = standOf(own.map(({ isGood }) => isGood));
    const last = own.at(-1);
    return {
      skill,
      stand,
      isLapsed: last?.isGood === true && isLapsed(last.at),
      shown: own.map(({ href, title, machine, at, isGood }) => ({
        href,
        title,
        machine,
        at: at.toISOString(),
        isGood,
      })),
    };
  });
}

/** Whether what was shown at a moment is too old for the class. */
export const lapsing =
  ({ lapseMonths }: Pick<MarksPolicy, "lapseMonths">, now: Date) =>
  (at: Date): boolean =>
    lapseMonths > 0 && addMonths(at, lapseMonths) < now;

/** What the bench lanes behind these headers showed. */
async function benchShowings(
  book: RulingBook<readonly SkillShown[]>,
  headers: readonly LaneHeaderRow[],
): Promise<Showing[]> {
  const shown = await book.readIn(headers.flatMap(({ id, handedInAt }) => (handedInAt ? [id] : [])));
  return headers.flatMap(({ id, title, handedInAt }) => {
    const own = shown.get(id);
    return own && handedInAt ? [{ href: `/lanes/${id}/ruling`, title, machine: null, at: handedInAt, shown: own }] : [];
  });
}

type AtMachine = Awaited<ReturnType<typeof floorShown>>[number];

/** The newest setup of each machine that was signed, by the machine. */
function signedAt(
  lanes: readonly AtMachine[],
  policy: MarksPolicy,
  isLapsed: (at: Date) => boolean,
): [string, MachineSigned][] {
  const inTime = lanes.toSorted((a, b) => a.at.getTime() - b.at.getTime());
  return inTime.flatMap(({ machine, href, title, total, outOf, signed }): [string, MachineSigned][] => {
    if (!signed) return [];
    const { by, at } = signed;
    const isPassed = isEnough(total, outOf, policy);
    return [[machine, { href, title, by, at: at.toISOString(), isPassed, isLapsed: isLapsed(at) }]];
  });
}

/** Where students stand, from the rulings of bench lanes and of those at real machines. */
export class SkillService {
  constructor(private readonly deps: Deps) {}

  private async rowsOf(classId: string, studentId: string, headers: readonly LaneHeaderRow[]): Promise<SkillRow[]> {
    const { book, floor, policyOf, now } = this.deps;
    const [bench, atMachines, policy] = await Promise.all([
      benchShowings(book, headers),
      floorShown(floor, classId, studentId),
      policyOf(classId),
    ]);
    return skillRows([...bench, ...atMachines], lapsing(policy, now()));
  }

  /** Where a student of the class stands, and what to practice next. */
  async view(classId: string, studentId: string): Promise<SkillsView> {
    const { store } = this.deps;
    const student = (await store.studentsOfClass(classId)).find(({ id }) => id === studentId);
    if (!student) throw new HttpError("notFound");
    const headers = await store.headersOfStudent(studentId);
    const skills = await this.rowsOf(classId, studentId, headers);
    const wanted = byStand(skills);
    return { studentName: student.name, skills, practice: await practiceFor(store, classId, headers, wanted) };
  }

  /** What to practice after this ruling: what cost most in it; when nothing did, what stands worst. */
  async practiceAfter({ classId, studentId }: LaneHeaderRow, ruling: Ruling): Promise<Practice | null> {
    const { store } = this.deps;
    const headers = await store.headersOfStudent(studentId);
    const failed = skillsShown(ruling)
      .filter(({ isGood }) => !isGood)
      .map(({ skill, lost }): Wanted => ({ skill, why: { lost } }));
    const wanted = failed.length > 0 ? failed : byStand(await this.rowsOf(classId, studentId, headers));
    return practiceFor(store, classId, headers, wanted);
  }

  /** Who of a class can do what: at which machine a setup was signed, and how each skill stands. */
  async standings(classId: string, className: string): Promise<StandingsView> {
    const { store, floor, book, policyOf, now } = this.deps;
    const [students, lanes, atMachines, policy] = await Promise.all([
      store.studentsOfClass(classId),
      store.attemptsOfClass(classId),
      floorShown(floor, classId, null),
      policyOf(classId),
    ]);
    const shown = await book.readIn(lanes.flatMap(({ id, handedInAt }) => (handedInAt ? [id] : [])));
    const isLapsed = lapsing(policy, now());
    const rows = students
      .filter(({ isRemoved }) => !isRemoved)
      .map(({ id, name, number }) => {
        const bench = lanes.flatMap((lane): Showing[] => {
          const own = lane.studentId === id ? shown.get(lane.id) : undefined;
          return own && lane.handedInAt
            ? [{ href: `/lanes/${lane.id}/ruling`, title: "", machine: null, at: lane.handedInAt, shown: own }]
            : [];
        });
        const floorOwn = atMachines.filter(({ studentId }) => studentId === id);
        const signed = signedAt(floorOwn, policy, isLapsed);
        const standing = skillRows([...bench, ...floorOwn], isLapsed).flatMap(
          ({ skill, stand, isLapsed: lapsed, shown: own }): [SkillId, SkillStanding][] => {
            const last = own.at(-1);
            return last ? [[skill, { stand, isLapsed: lapsed, at: last.at }]] : [];
          },
        );
        return { id, name, number, machines: Object.fromEntries(signed), skills: Object.fromEntries(standing) };
      });
    return {
      className,
      lapseMonths: policy.lapseMonths,
      machines: [...new Set(atMachines.map(({ machine }) => machine))].sort((a, b) =>
        a.localeCompare(b, "en", { numeric: true }),
      ),
      skills: skillIds.filter((skill) => rows.some((row) => skill in row.skills)),
      students: rows,
    };
  }
}
