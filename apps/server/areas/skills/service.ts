import type { Practice, SkillsView } from "@probe-lane/contract";
import type { Ruling } from "@probe-lane/core/grading";
import {
  practiceNext,
  skillIds,
  skillsAsked,
  skillsShown,
  standOf,
  wantedSkills,
  type SkillId,
} from "@probe-lane/core/skills";
import { HttpError } from "../../errors";
import type { LaneHeaderRow, LaneStore } from "../lanes/store";

/** The exercise of the class that asks for the first of these skills and may still be taken. */
async function practiceFor(
  store: LaneStore,
  classId: string,
  headers: readonly LaneHeaderRow[],
  wanted: readonly SkillId[],
): Promise<Practice | null> {
  const assignments = await store.assignmentsOfClass(classId);
  const offers = assignments
    .map(({ id, attemptsAllowed, exercise }) => ({
      id,
      title: exercise.title,
      attemptsAllowed,
      taken: headers.filter(({ assignmentId }) => assignmentId === id).length,
      asks: skillsAsked(exercise),
    }))
    .filter(({ taken, attemptsAllowed }) => taken < attemptsAllowed);
  const next = practiceNext(wanted, offers);
  const title = offers.find(({ id }) => id === next?.id)?.title;
  return next && title !== undefined ? { skill: next.skill, assignmentId: next.id, title } : null;
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

/** Where a student of the class stands, and what to practice next. */
export async function skillsView(store: LaneStore, classId: string, studentId: string): Promise<SkillsView> {
  const student = (await store.studentsOfClass(classId)).find(({ id }) => id === studentId);
  if (!student) throw new HttpError("notFound");
  const headers = await store.headersOfStudent(studentId);
  const skills = await historyOf(store, headers);
  const wanted = wantedSkills(new Map(skills.map(({ skill, stand }) => [skill, stand])));
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
    .map(({ skill }) => skill);
  const skills = failed.length > 0 ? [] : await historyOf(store, headers);
  return practiceFor(
    store,
    classId,
    headers,
    failed.length > 0 ? failed : wantedSkills(new Map(skills.map(({ skill, stand }) => [skill, stand]))),
  );
}
