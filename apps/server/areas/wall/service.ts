import { gatesOf } from "@probe-lane/core/bench";
import type { WallRow, WallView } from "@probe-lane/contract";
import { HttpError } from "../../errors";
import type { Actor } from "../../guards";
import type { AuthStore } from "../auth/store";
import { floorNow } from "../floor/service";
import type { FloorStore } from "../floor/store";
import type { LaneCache } from "../lanes/laneCache";
import type { LaneHeaderRow, LaneStore } from "../lanes/store";

interface Deps {
  store: LaneStore;
  cache: LaneCache;
  floor: FloorStore;
  people: AuthStore;
  pausedBy(classId: string): string | null;
}

async function rowOf(
  { cache }: Deps,
  header: LaneHeaderRow,
  total: { total: number; outOf: number } | undefined,
): Promise<WallRow[]> {
  const lane = await cache.get(header.id);
  if (!lane) return [];
  const { state } = lane;
  return [
    {
      laneId: header.id,
      studentName: header.studentName,
      title: header.isTrial ? `${header.title}, counts nowhere` : header.title,
      attempt: header.attempt,
      gates: gatesOf(state),
      incidents: state.incidents.map(({ code }) => code),
      isHandUp: state.isHandUp,
      isStopped: state.isStopped,
      isHandedIn: state.isHandedIn,
      lastEventAt: new Date(lane.lastAtMs).toISOString(),
      lastProgressAt: new Date(lane.progressAtMs).toISOString(),
      total: total?.total ?? null,
      outOf: total?.outOf ?? null,
    },
  ];
}

/**
 * Who needs help first: a raised hand, then a stopped machine, then who has not got on for longest; handed in comes
 * last.
 */
function byNeed(a: WallRow, b: WallRow): number {
  const rank = (row: WallRow) => {
    if (row.isHandedIn) return 3;
    if (row.isHandUp) return 0;
    return row.isStopped ? 1 : 2;
  };
  return (
    rank(a) - rank(b) || a.lastProgressAt.localeCompare(b.lastProgressAt) || a.studentName.localeCompare(b.studentName)
  );
}

/** The class as it stands: each student's newest lane, and who has not begun. */
export async function wallView(deps: Deps, actor: Actor, now: Date): Promise<WallView> {
  const [profile, headers, students, atMachines] = await Promise.all([
    deps.people.profile(actor),
    deps.store.newestOfClass(actor.classId),
    deps.store.studentsOfClass(actor.classId),
    floorNow(deps.floor, actor.classId),
  ]);
  if (!profile) throw new HttpError("notSignedIn");
  const isHere = new Set(students.flatMap(({ id, isRemoved }) => (isRemoved ? [] : [id])));
  const newest = headers.filter(({ studentId }) => isHere.has(studentId));
  const begun = new Set(newest.map(({ studentId }) => studentId));
  // who only helps sees no marks
  const ruled = actor.role === "instructor" ? newest.filter(({ handedInAt }) => handedInAt) : [];
  const marks = await deps.store.marksOf(ruled.map(({ id }) => id));
  const rows = (await Promise.all(newest.map((header) => rowOf(deps, header, marks.get(header.id))))).flat();
  return {
    className: profile.className,
    pausedBy: deps.pausedBy(actor.classId),
    rows: rows.sort(byNeed),
    floor: atMachines.filter(({ studentId }) => isHere.has(studentId)).map(({ studentId: _, ...row }) => row),
    now: now.toISOString(),
    idle: students.filter(({ id }) => isHere.has(id) && !begun.has(id)).map(({ name }) => ({ studentName: name })),
  };
}
