import {
  assistantEntryTypes,
  combineChecks,
  floorFromTemplate,
  floorGatesOf,
  foldFloor,
  instructorEntryTypes,
  isJudgedWithin,
  paperEntryTypes,
  ruleFloor,
  signingProblems,
  type FloorEntry,
  type FloorExercise,
  type FloorState,
  type FloorTemplate,
  type SigningProblem,
  type StoredFloorEntry,
} from "@probe-lane/core/floor";
import { patternAtMachine } from "@probe-lane/core/patterns";
import { skillsShownAtMachine } from "@probe-lane/core/skills";
import type {
  ErrorCode,
  FloorBatch,
  FloorChange,
  FloorClassView,
  FloorHeld,
  FloorLaneView,
  FloorList,
  FloorWallRow,
  MarkCell,
} from "@probe-lane/contract";
import { HttpError } from "../../errors";
import { isStaff, type Actor } from "../../guards";
import type { FloorStore } from "./store";

export async function laneFor(store: FloorStore, laneId: string, actor: Actor) {
  const lane = await store.lane(laneId);
  const mayRead = lane && (isStaff(actor) ? lane.classId === actor.classId : lane.studentId === actor.id);
  if (!mayRead) throw new HttpError("notFound");
  return lane;
}

/** The class's floor exercises with their lanes; a student sees their own only. */
export async function floorList(store: FloorStore, actor: Actor): Promise<FloorList> {
  const [exercises, all] = await Promise.all([store.exercises(actor.classId), store.lanesOfClass(actor.classId)]);
  const lanes = all.filter(({ studentId }) => isStaff(actor) || studentId === actor.id);
  const entries = await store.entries(lanes.map(({ id }) => id));
  return {
    exercises: exercises
      .filter(({ id, isHidden }) => !isHidden || isStaff(actor) || lanes.some((lane) => lane.exerciseId === id))
      .map(({ id, body, madeAt, isHidden }) => ({
        id,
        exercise: body,
        madeAt: madeAt.toISOString(),
        isHidden,
        lanes: lanes
          .filter(({ exerciseId }) => exerciseId === id)
          .map((lane) => {
            const state = foldFloor(lane.exercise, entries.get(lane.id) ?? []);
            return {
              id: lane.id,
              studentName: lane.studentName,
              attempt: lane.attempt,
              gates: floorGatesOf(state),
              isHandUp: state.handUpAtMs !== null,
              isHandedIn: state.handedIn !== null,
              total: state.handedIn && actor.role !== "assistant" ? ruleFloor(state).total : null,
              isMine: lane.studentId === actor.id,
            };
          }),
      })),
  };
}

const LONGEST_TITLE = 80;
const COPY = " (copy)";
/** What a copy of an exercise is called, within what a title may be long. */
export const copiedTitle = (title: string): string => `${title.slice(0, LONGEST_TITLE - COPY.length)}${COPY}`;

/** An exercise with another title, machine, drawing and tolerances; what it is made of stays. */
export function changedExercise(
  body: FloorExercise,
  { title, machineNumber, drawingNumber, tolerancesMm }: FloorChange,
): FloorExercise {
  const { machineNumber: _machine, drawingNumber: _drawing, ...held } = body;
  return {
    ...held,
    ...(machineNumber === "" ? {} : { machineNumber }),
    ...(drawingNumber === "" ? {} : { drawingNumber }),
    title,
    registers: body.registers.map((one) => ({ ...one, toleranceMm: tolerancesMm[one.id] ?? one.toleranceMm })),
  };
}

/** Which attempt is opened: the one that stands, or another once that was handed in and another is asked for. */
export const attemptAfter = (newest: { number: number; isHandedIn: boolean } | null, isAgain: boolean): number =>
  (newest?.number ?? 1) + (newest?.isHandedIn && isAgain ? 1 : 0);

/** A check as a student sees it before the hand-in: that there is one, and nothing of what it says. */
const unread = (entry: FloorEntry): FloorEntry =>
  entry.type === "check" || entry.type === "judgedWithin"
    ? { type: "check", register: entry.register, method: "checked", mm: 0, uMm: 1 }
    : entry;

export async function floorLane(store: FloorStore, laneId: string, actor: Actor): Promise<FloorLaneView> {
  const lane = await laneFor(store, laneId, actor);
  const entries = (await store.entries([laneId])).get(laneId) ?? [];
  const state = foldFloor(lane.exercise, entries);
  const isInstructor = isStaff(actor);
  const mayMark = actor.role === "instructor";
  // the check is the truth: a student gets it with the ruling, not before
  const shown = isInstructor || state.handedIn ? entries : entries.map((one) => ({ ...one, entry: unread(one.entry) }));
  return {
    id: lane.id,
    exerciseId: lane.exerciseId,
    studentName: lane.studentName,
    attempt: lane.attempt,
    exercise: lane.exercise,
    entries: shown,
    isInstructor,
    mayMark,
    // who only helps checks, and sees no marks
    ruling: mayMark || (state.handedIn && !isInstructor) ? ruleFloor(state) : null,
  };
}

/** Who is at a real machine now: lanes that are not handed in, who needs somebody first. */
export async function floorNow(store: FloorStore, classId: string): Promise<(FloorWallRow & { studentId: string })[]> {
  const lanes = await store.openLanesOfClass(classId);
  const entries = await store.entries(lanes.map(({ id }) => id));
  const rows = lanes.flatMap(({ id, studentId, studentName, exercise }): (FloorWallRow & { studentId: string })[] => {
    const own = entries.get(id) ?? [];
    const state = foldFloor(exercise, own);
    if (own.length === 0) return [];
    return [
      {
        laneId: id,
        studentId,
        studentName,
        title: exercise.title,
        machine: machineName(exercise),
        gates: floorGatesOf(state),
        handUpAt: state.handUpAtMs === null ? null : new Date(state.handUpAtMs).toISOString(),
        isWaiting: isWaitingForCheck(state),
        signature: state.signature.state,
        lastEntryAt: new Date(Math.max(...own.map(({ atMs }) => atMs))).toISOString(),
      },
    ];
  });
  const need = ({ handUpAt, isWaiting }: FloorWallRow) => (handUpAt !== null ? 0 : isWaiting ? 1 : 2);
  return rows.sort((a, b) => need(a) - need(b) || a.lastEntryAt.localeCompare(b.lastEntryAt));
}

/** Every register is entered, and nobody has signed it as it stands. */
const isWaitingForCheck = ({ exercise, registers, signature }: FloorState): boolean =>
  signature.state !== "given" && exercise.registers.every(({ id }) => registers[id] !== undefined);

/** A machine as the shop calls it: "mill 3". */
const machineName = ({ machine, machineNumber }: FloorExercise): string => `${machine} ${machineNumber ?? ""}`.trim();

type FloorLaneRow = Awaited<ReturnType<FloorStore["lanesOfClass"]>>[number];

/** Lanes with how they stand, and since when they are handed in; null before that. */
async function foldedLanes(store: FloorStore, lanes: readonly FloorLaneRow[]) {
  const entries = await store.entries(lanes.map(({ id }) => id));
  return lanes.map((lane) => {
    const own = entries.get(lane.id) ?? [];
    const handed = own.findLast(({ entry }) => entry.type === "handedIn");
    const state = foldFloor(lane.exercise, own);
    return { lane, state, handedInAt: state.handedIn && handed ? new Date(handed.atMs) : null };
  });
}

/** What was done at real machines by a class: its exercises, and each lane with its marks once it is handed in. */
export async function floorMarks(store: FloorStore, classId: string) {
  const [exercises, lanes] = await Promise.all([store.exercises(classId), store.lanesOfClass(classId)]);
  return {
    exercises: exercises.map(({ id, body }) => ({ id, title: body.title })),
    lanes: (await foldedLanes(store, lanes)).map(
      ({ lane: { id, studentId, exerciseId, attempt }, state, handedInAt }) => {
        if (!handedInAt) return { studentId, exerciseId, best: null };
        const { total, outOf, strands } = ruleFloor(state);
        const best: MarkCell = {
          href: `/floor/${id}`,
          attempt,
          total,
          ruled: null,
          outOf,
          strands: [...strands],
          at: handedInAt.toISOString(),
          isLate: false,
          isPassed: true,
        };
        return { studentId, exerciseId, best };
      },
    ),
  };
}

/** What handed-in lanes at the real machines of a class show and get wrong, of one student or of all. */
export async function floorShown(store: FloorStore, classId: string, studentId: string | null) {
  const lanes = await store.lanesOfClass(classId);
  const folded = await foldedLanes(
    store,
    lanes.filter((lane) => studentId === null || lane.studentId === studentId),
  );
  return folded.flatMap(({ lane, state, handedInAt }) => {
    if (!handedInAt) return [];
    const ruling = ruleFloor(state);
    const { signature } = state;
    return [
      {
        studentId: lane.studentId,
        attempt: lane.attempt,
        href: `/floor/${lane.id}`,
        title: lane.exercise.title,
        machine: machineName(lane.exercise),
        at: handedInAt,
        total: ruling.total,
        outOf: ruling.outOf,
        signed: signature.state === "given" ? { by: signature.by, at: new Date(signature.atMs) } : null,
        shown: skillsShownAtMachine(lane.exercise, ruling),
        pattern: patternAtMachine(ruling),
      },
    ];
  });
}

const SIGNING: Record<SigningProblem, ErrorCode> = {
  notChecked: "floorNotChecked",
  checksDisagree: "floorChecksDisagree",
  checkTooCoarse: "floorCheckTooCoarse",
  reasonWanted: "floorReasonWanted",
};

/** What is signed is what the signer saw, and nothing else; what stands in the way of it is said. Throws. */
function checkSigning(state: FloorState, { saw, reason }: Extract<FloorEntry, { type: "signedOff" }>): void {
  const problem = signingProblems(state).find((one) => one.problem !== "reasonWanted" || reason === undefined);
  if (problem) throw new HttpError(SIGNING[problem.problem]);
  const seen = new Set(saw);
  if (seen.size !== state.binding.length || state.binding.some((id) => !seen.has(id)))
    throw new HttpError("floorChangedSince");
}

/** What an assistant enters, or strikes out again: checks; no signature, and nothing that costs or gives marks. */
function mayAssist(entry: FloorEntry, held: readonly StoredFloorEntry[]): boolean {
  if (entry.type !== "struck") return assistantEntryTypes.has(entry.type);
  const struck = held.find(({ id }) => id === entry.entry);
  return struck === undefined || assistantEntryTypes.has(struck.entry.type);
}

/** What the newest lanes of an exercise hold, for who checks a whole class at one machine. */
export async function floorClass(
  store: FloorStore,
  { id, body }: { id: string; body: FloorExercise },
  classId: string,
): Promise<FloorClassView> {
  const ofExercise = (await store.lanesOfClass(classId)).filter(({ exerciseId }) => exerciseId === id);
  // newest first within a student
  const newest = ofExercise.filter(
    (lane, at) => ofExercise.findIndex(({ studentId }) => studentId === lane.studentId) === at,
  );
  const lanes = (await foldedLanes(store, newest)).map(({ lane, state, handedInAt }) => ({
    id: lane.id,
    studentName: lane.studentName,
    attempt: lane.attempt,
    isHandedIn: handedInAt !== null,
    signature: state.signature.state,
    held: Object.fromEntries(body.registers.map(({ id: register }) => [register, heldIn(state, register)])),
  }));
  return { exercise: body, lanes };
}

function heldIn(state: FloorState, register: string): FloorHeld {
  const check = combineChecks(state.checks.filter((one) => one.register === register));
  const isDisputed = check !== null && check.outliers.length > 0;
  return {
    mm: state.registers[register]?.mm ?? null,
    shouldMm: isDisputed ? null : (check?.mm ?? null),
    isDisputed,
    isJudged: isJudgedWithin(state, register),
  };
}

type Fresh = FloorBatch["entries"][number];

/**
 * Whether an entry is of the side that sends it: a student writes what a student does, whoever teaches what they do; an
 * instructor also what stands on the student's worksheet, and takes back of it what was typed in from there.
 */
function isOwn({ entry, isFromPaper }: Fresh, actor: Actor, held: readonly StoredFloorEntry[]): boolean {
  const struck = entry.type === "struck" ? held.find(({ id }) => id === entry.entry) : undefined;
  if (isFromPaper)
    return (
      actor.role === "instructor" &&
      paperEntryTypes.has(entry.type) &&
      (entry.type !== "struck" || struck?.isFromPaper === true)
    );
  const of = entry.type === "struck" ? struck?.entry.type : entry.type;
  return of === undefined || instructorEntryTypes.has(of) === isStaff(actor);
}

/**
 * Takes entries in, each once. A student writes what a student does, an instructor what an instructor does, who helps
 * only checks; after hand-in no student writes, and nothing is typed in from paper.
 */
export async function addFloorEntries(
  store: FloorStore,
  laneId: string,
  actor: Actor,
  { entries }: FloorBatch,
  now: Date,
): Promise<void> {
  const lane = await laneFor(store, laneId, actor);
  const isInstructor = isStaff(actor);
  const held = (await store.entries([laneId])).get(laneId) ?? [];
  const known = new Set(held.map(({ id }) => id));
  const fresh = entries.filter(({ id }) => !known.has(id));
  if (fresh.length === 0) return;
  if (fresh.some((one) => !isOwn(one, actor, held))) throw new HttpError("forbidden");
  if (actor.role === "assistant" && fresh.some(({ entry }) => !mayAssist(entry, held)))
    throw new HttpError("forbidden");
  const state = foldFloor(lane.exercise, held);
  if (state.handedIn && (!isInstructor || fresh.some(({ isFromPaper }) => isFromPaper)))
    throw new HttpError("floorHandedIn");
  // what comes with it counts: a late entry takes the signature back before the lane is handed in
  const others = fresh.filter(({ entry }) => entry.type !== "handedIn");
  const after = foldFloor(lane.exercise, [...held, ...others.map((one) => ({ ...one, by: "" }))]);
  if (others.length < fresh.length && after.signature.state !== "given") throw new HttpError("floorNotSigned");
  for (const { entry } of fresh) if (entry.type === "signedOff") checkSigning(after, entry);
  // a device's clock orders its own entries; one that runs ahead of the server's is set back as a whole, so the order
  // stays
  const aheadMs = Math.max(0, ...fresh.map(({ atMs }) => atMs - now.getTime()));
  const capped = fresh.map((one) => ({ ...one, atMs: one.atMs - aheadMs }));
  await store.add(laneId, { id: actor.id, name: await store.nameOf(actor.id) }, capped, now);
}

export const makeFloorExercise = (store: FloorStore, actor: Actor, template: FloorTemplate): Promise<string> =>
  store.make(actor.classId, floorFromTemplate(template));
