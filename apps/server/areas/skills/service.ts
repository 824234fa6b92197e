import type { Practice, SkillsView } from "@probe-lane/contract";
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
  type Stand,
} from "@probe-lane/core/skills";
import { HttpError } from "../../errors";
import type { LaneHeaderRow, LaneStore } from "../lanes/store";
import { closedBy } from "../plan/window";

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

async function historyOf(store: LaneStore, headers: readonly LaneHeaderRow[]) {
  const ruled = await Promise.all(
    headers.map(async (header) => ({ header, ruling: header.handedInAt ? await store.rulingOf(header.id) : null })),
  );
  const lanes = ruled
    .flatMap(({ header, ruling }) =>
      ruling && header.handedInAt ? [{ header, at: header.handedInAt, shown: skillsShown(ruling) }] : [],
    )
    .sort((a, b) => a.at.getTime() - b.at.getTime());
  return skillIds.map((skill) => {
    const shown = lanes.flatMap(({ header, at, shown: skills }) => {
      const found = skills.find((one) => one.skill === skill);
      return found ? [{ laneId: header.id, title: header.title, at: at.toISOString(), isGood: found.isGood }] : [];
    });
    return { skill, stand: standOf(shown.map(({ isGood }) => isGood)), shown };
  });
}

/** Skills as they stand, the most urgent first. */
function byStand(skills: readonly { skill: SkillId; stand: Stand }[]): Wanted[] {
  const stands = new Map(skills.map(({ skill, stand }) => [skill, stand]));
  return wantedSkills(stands).map((skill) => ({ skill, why: { stand: stands.get(skill) ?? "untried" } }));
}

/** Where a student of the class stands, and what to practice next. */
export async function skillsView(store: LaneStore, classId: string, studentId: string): Promise<SkillsView> {
  const student = (await store.studentsOfClass(classId)).find(({ id }) => id === studentId);
  if (!student) throw new HttpError("notFound");
  const headers = await store.headersOfStudent(studentId);
  const skills = await historyOf(store, headers);
  const wanted = byStand(skills);
  return { studentName: student.name, skills, practice: await practiceFor(store, classId, headers, wanted) };
}

/** What to practice after this ruling: what cost most in it; when nothing did, what stands worst. */
export async function practiceAfter(
  store: LaneStore,
  { classId, studentId }: LaneHeaderRow,
  ruling: Ruling,
): Promise<Practice | null> {
  const headers = await store.headersOfStudent(studentId);
  const failed = skillsShown(ruling)
    .filter(({ isGood }) => !isGood)
    .map(({ skill, lost }): Wanted => ({ skill, why: { lost } }));
  const skills = failed.length > 0 ? [] : await historyOf(store, headers);
  return practiceFor(store, classId, headers, failed.length > 0 ? failed : byStand(skills));
}
