import {
  commandSchema,
  type IncidentCode,
  type Observation,
  type ObservationNow,
  type PartPicture,
  type ProgramProof,
} from "@probe-lane/core/bench";
import type { Dialect } from "@probe-lane/core/gcode";
import type { Gate, Refusal } from "@probe-lane/core/lane";
import { markingSchema, mustHavesSchema, type Machine, type Marking, type MustHaves } from "@probe-lane/core/exercises";
import {
  entrySchema,
  type FloorExercise,
  type FloorGateName,
  type FloorRuling,
  type FloorSignature,
  type StoredFloorEntry,
} from "@probe-lane/core/floor";
import { strandNames, type MustHave, type Ruling } from "@probe-lane/core/grading";
import type { ClassPatterns, GatePace } from "@probe-lane/core/patterns";
import type { SkillId, Stand } from "@probe-lane/core/skills";
import type { Review } from "@probe-lane/core/review";
import type { LengthUnit } from "@probe-lane/core/units";
import { z } from "zod";
import { rosterFields } from "./names";

export const signInRequest = z.strictObject({
  login: z.string().trim().min(1).max(80),
  password: z.string().min(1).max(200),
});
export type SignInRequest = z.infer<typeof signInRequest>;

/** The password that somebody has, and the one that they want. */
export const passwordRequest = z.strictObject({
  current: z.string().min(1).max(200),
  next: z.string().min(1).max(200),
});
export type PasswordRequest = z.infer<typeof passwordRequest>;

/** Small letters, digits and what an e-mail address has besides. */
export const SIGN_IN_NAME = /^[a-z0-9][a-z0-9._@+-]{1,63}$/;

/**
 * What a student types to join: the class code and a new sign-in name, or the code of a place of the roster and the
 * sign-in name that stands there; and a password of their own.
 */
export const joinRequest = z.strictObject({
  code: z.string().trim().min(1).max(20),
  login: z.string().trim().toLowerCase().regex(SIGN_IN_NAME),
  name: z.string().trim().min(2).max(80),
  password: z.string().min(1).max(200),
});
export type JoinRequest = z.infer<typeof joinRequest>;
/**
 * What a join did: a new account, or the one that stood on the roster was taken (with another password after a reset);
 * whoever had an account already was let in with it, or came back.
 */
export type Joined = "madeNew" | "tookPlace" | "letIn" | "cameBack";
export interface JoinReply {
  readonly did: Joined;
}

/** The first instructor of an empty school begins it, with the code that the terminal shows. */
export const firstRequest = z.strictObject({
  ...joinRequest.shape,
  schoolName: z.string().trim().min(2).max(80),
  className: z.string().trim().min(2).max(80),
});
export type FirstRequest = z.infer<typeof firstRequest>;
/** Whether the first instructor is still asked for. */
export interface FirstView {
  readonly isOpen: boolean;
}

const named = z.string().trim().min(2).max(80);
const term = z.string().trim().max(40);
/** A class of the same school: with the exercises of the shelf, or as the open class has them. */
export const newClassRequest = z.strictObject({ name: named, term, copiesPlan: z.boolean() });
export type NewClassRequest = z.infer<typeof newClassRequest>;
export const changeClassRequest = z.strictObject({ name: named, term, isArchived: z.boolean() });
export type ChangeClassRequest = z.infer<typeof changeClassRequest>;
export const inviteRequest = z.strictObject({ role: z.enum(["assistant", "instructor"]) });
export type InviteRequest = z.infer<typeof inviteRequest>;
export const renameRequest = z.strictObject({ name: named, number: z.string().trim().max(40).optional() });
/** Into which account of the same person another one goes. */
export const mergeRequest = z.strictObject({ into: z.uuid() });
/** A code of a class, or of an invitation to one, by somebody who has an account. */
export const codeRequest = z.strictObject({ code: z.string().trim().min(1).max(20) });

/** Opens another class of one's own. */
export const enterRequest = z.strictObject({ classId: z.uuid() });

/** Which column holds what, counted from 0. */
export const rosterColumns = z.partialRecord(z.enum(rosterFields), z.number().int().min(0).max(199));
export type RosterColumns = z.infer<typeof rosterColumns>;
/**
 * A list of students: as typed, or a file's bytes in base64. Columns as the instructor chose them; left out, they are
 * taken from the headings, or as this instructor chose them last time under the same headings.
 */
export const rosterRequest = z.strictObject({
  list: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("typed"), text: z.string().min(1).max(50_000) }),
    z.strictObject({ kind: z.literal("file"), base64: z.base64().min(1).max(600_000) }),
  ]),
  columns: rosterColumns.optional(),
  hasHeadings: z.boolean().optional(),
});
export type RosterRequest = z.infer<typeof rosterRequest>;
export interface RosterLine {
  line: number;
  login: string;
  name: string;
  /** Student number; empty where the list has none. */
  number: string;
  /** `numbered`: already there, and gets the number; `left`: of the list, and no student of it. */
  status: "new" | "already" | "numbered" | "left" | "bad";
  /** Why it cannot be read, or is left out. */
  problem: string | null;
}
export interface RosterPreview {
  /** The columns by their headings, or by what stands in them first. */
  headings: string[];
  hasHeadings: boolean;
  columns: RosterColumns;
  /** Chosen like this last time. */
  isRemembered: boolean;
  lines: RosterLine[];
  /** Why nothing of it can be read. */
  problem: string | null;
}
/** Where a server is found by others than its own machine. */
export interface ReachView {
  readonly isShared: boolean;
  /** Each with a picture (SVG) of the code that opens its page to join. */
  readonly addresses: readonly { readonly url: string; readonly code: string }[];
  /** Of its certificate (SHA-256), as a browser shows it; null where it is talked in the open. */
  readonly fingerprint: string | null;
}

const percent = z.number().int().min(0).max(100);
const LONGEST_LAPSE_MONTHS = 60;
/**
 * What of a lane's marks counts in a class, from where it is passed, of a hundred, and how long what was shown holds.
 */
export const marksPolicy = z.strictObject({
  /** Besides its must-haves; at zero no marks are asked for. */
  passPercent: percent,
  /** Of the marks of a lane that came late. */
  latePercent: percent,
  /** What was shown or signed longer ago has lapsed; at zero nothing does. */
  lapseMonths: z.number().int().min(0).max(LONGEST_LAPSE_MONTHS),
});
export type MarksPolicy = z.infer<typeof marksPolicy>;
export interface ClassView {
  policy: MarksPolicy;
  className: string;
  term: string;
  isArchived: boolean;
  /** Who teaches and helps in it. */
  staff: { id: string; name: string; login: string; role: Role; isMe: boolean }[];
  /** Codes of invitations that nobody has used yet. */
  invitations: { code: string; role: Role }[];
  joinCode: string | null;
  students: {
    id: string;
    name: string;
    login: string;
    /** As the school numbers its students; empty where nobody said. */
    number: string;
    hasJoined: boolean;
    /** By which the place of the roster is taken, once; null of who has joined. */
    ownCode: string | null;
    lanes: number;
  }[];
}

/** Entries of a floor lane, each with the id that the device gave it and the time it was made there. */
export const floorBatch = z.strictObject({
  entries: z
    .array(
      z.strictObject({
        id: z.uuid(),
        atMs: z.number().int().min(0).max(4e12),
        entry: entrySchema,
        /** An instructor types it in from the student's worksheet. */
        isFromPaper: z.literal(true).optional(),
      }),
    )
    .min(1)
    .max(100),
});
export type FloorBatch = z.infer<typeof floorBatch>;
export interface FloorLaneView {
  id: string;
  exerciseId: string;
  studentName: string;
  attempt: number;
  exercise: FloorExercise;
  entries: StoredFloorEntry[];
  /** Teaches or helps in the class. */
  isInstructor: boolean;
  /** Signs, and gives marks. */
  mayMark: boolean;
  /** Before it is handed in, or for a student before the instructor's sign-off, there is none. */
  ruling: FloorRuling | null;
}
export interface FloorExerciseRow {
  id: string;
  exercise: FloorExercise;
  madeAt: string;
  /** Students see it only where they have begun it. */
  isHidden: boolean;
  lanes: {
    id: string;
    studentName: string;
    attempt: number;
    gates: { name: FloorGateName; isPassed: boolean }[];
    isHandUp: boolean;
    isHandedIn: boolean;
    total: number | null;
    isMine: boolean;
  }[];
}
/** A student's lane at a machine: the one that stands, or another attempt once that was handed in. */
export const floorBegin = z.strictObject({
  isAgain: z.boolean().default(false),
  /** Whose worksheet is typed in: an instructor opens a lane for them. */
  studentId: z.uuid().optional(),
});
/** What one lane of a class at a real machine holds in a register, and what the checks of it say. */
export interface FloorHeld {
  /** As it stands in the control; null before it was entered. */
  mm: number | null;
  /** What the checks together say it should hold; null before there is one, or where they contradict each other. */
  shouldMm: number | null;
  /** The checks contradict each other. */
  isDisputed: boolean;
  /** Touched by who checks, and found good as it stands, without a figure. */
  isJudged: boolean;
}
/** The newest lanes of one exercise at a real machine, student by student, by register. */
export interface FloorClassView {
  exercise: FloorExercise;
  lanes: {
    id: string;
    studentName: string;
    attempt: number;
    isHandedIn: boolean;
    signature: FloorSignature["state"];
    held: Record<string, FloorHeld>;
  }[];
}
/** Somebody at a real machine, as the wall shows it. */
export interface FloorWallRow {
  laneId: string;
  studentName: string;
  title: string;
  machine: string;
  gates: { name: FloorGateName; isPassed: boolean }[];
  /** Since when a hand is up; null where none is. */
  handUpAt: string | null;
  /** Everything is entered and wants a check and a signature. */
  isWaiting: boolean;
  signature: FloorSignature["state"];
  lastEntryAt: string;
}
/** What of a floor exercise is changed before anybody has begun it; a tolerance for each of its registers, mm. */
export const floorChange = z.strictObject({
  title: z.string().trim().min(3).max(80),
  machineNumber: z.string().trim().max(12),
  drawingNumber: z.string().trim().max(24),
  tolerancesMm: z.record(z.string(), z.number().positive().max(5)),
});
export type FloorChange = z.infer<typeof floorChange>;
export const floorHide = z.strictObject({ isHidden: z.boolean() });
export interface FloorList {
  exercises: FloorExerciseRow[];
}

/** Who somebody is in a class: an assistant sees the wall, writes notes and checks, and gives no marks. */
export const roles = ["student", "assistant", "instructor"] as const;
export type Role = (typeof roles)[number];
/** A class that somebody is in. */
export interface OwnClass {
  readonly id: string;
  readonly name: string;
  readonly term: string;
  readonly schoolName: string;
  readonly role: Role;
  readonly isArchived: boolean;
}
export interface Me {
  id: string;
  name: string;
  /** What they sign in with. */
  login: string;
  /** In the class that is open now. */
  role: Role;
  classId: string;
  className: string;
  schoolName: string;
  /** Every class of theirs, the open one among them; archived ones last. */
  classes: readonly OwnClass[];
}

/** How long a batch may be; a held key sends clicks as one command. */
const LONGEST_BATCH = 20;

/**
 * Commands of one tab, in order. `writer` names the tab, `clientSeq` counts its commands (resending is harmless), and
 * `afterTurn` is the last answer that the tab knows of: when another tab has written since, the batch is refused whole
 * (409).
 */
export const commandBatch = z.strictObject({
  writer: z.string().regex(/^[A-Za-z0-9-]{8,64}$/),
  afterTurn: z.number().int().min(1),
  commands: z
    .array(z.strictObject({ clientSeq: z.number().int().min(1), command: commandSchema }))
    .min(1)
    .max(LONGEST_BATCH),
});
export type CommandBatch = z.infer<typeof commandBatch>;

/** What became of one command. `skipped`: an earlier one of the batch was refused. */
export type Outcome = { clientSeq: number } & (
  { kind: "done" } | { kind: "skipped" } | { kind: "refused"; refusal: Refusal; message: string }
);

export interface LaneHeader {
  id: string;
  title: string;
  studentName: string;
  attempt: number;
  /** Tried by who teaches, or gone on with from what was shown: it counts nowhere. */
  isTrial: boolean;
  dueAt: string | null;
  openedAt: string;
  handedInAt: string | null;
}
export interface LaneView {
  lane: LaneHeader;
  /** How many commands the lane has answered; facts that nobody could perceive are not counted. */
  turn: number;
  observation: Observation;
  isReadOnly: boolean;
  /** Of who looks, who may also be an instructor that tries the exercise. */
  isMine: boolean;
}
/** What changed with a batch; what never changes came with the `LaneView`. */
export interface BatchReply {
  turn: number;
  observation: ObservationNow;
  outcomes: Outcome[];
}

export interface AttemptRow {
  id: string;
  number: number;
  openedAt: string;
  handedInAt: string | null;
  gatesPassed: number;
  gateCount: number;
  nextGate: string | null;
  total: number | null;
  outOf: number | null;
  headline: string | null;
  /** What it had before it was marked again; null where it was marked once. */
  before: number | null;
  /** A question about it was answered. */
  isAnswered: boolean;
}
export type PartDrawing =
  "frontLeft" | "frontRight" | "backLeft" | "backRight" | "middle" | "bore" | "boss" | "pocket" | "turned" | "bored";

export interface AssignmentRow {
  id: string;
  title: string;
  story: string;
  partName: string;
  machine: Machine;
  /** What the part looks like, for a small drawing: a blank by where its zero lies, or a bar. */
  drawing: PartDrawing;
  /** About how long it takes, by how many gates it has. */
  minutes: number;
  week: number | null;
  /** Not to be begun before; null where it is open. */
  opensAt: string | null;
  dueAt: string | null;
  /** Why no attempt is begun now, besides its day; null where one may be. */
  closed: "windowOver" | "notGiven" | "archived" | null;
  isCoachOn: boolean;
  /** What stands over points: without it a lane is not passed. */
  mustHaves: MustHave[];
  attemptsAllowed: number;
  attempts: AttemptRow[];
}
/** What is kept of what those do who teach. */
export type AuditWhat =
  | "signed"
  | "sentBack"
  | "signedAtMachine"
  | "sentBackAtMachine"
  | "withdrawnAtMachine"
  | "marksGiven"
  | "marksTakenBack"
  | "marksGivenAtMachine"
  | "markedAgain"
  | "lookAnswered"
  | "marksSaved"
  | "recordTaken"
  | "archiveTaken"
  | "studentTakenOff"
  | "studentDeleted"
  | "accountsMerged"
  | "passwordReset"
  | "waitLifted"
  | "policyChanged"
  | "rosterAdded";
export interface AuditView {
  /** The newest first. */
  rows: { id: number; at: string; by: string; what: AuditWhat; about: string }[];
}

/** What who teaches says to everybody, or to who works one lane. */
export const messageRequest = z.strictObject({ text: z.string().trim().min(1).max(300), laneId: z.uuid().nullable() });
export const pauseRequest = z.strictObject({ isPaused: z.boolean() });
/** Which lane of their own an instructor shows to the class; null ends it. */
export const showRequest = z.strictObject({ laneId: z.uuid().nullable() });
/** What an instructor shows to the class, as it stands: no student, no answer. Null where nothing is shown. */
export interface DemonstrationView {
  shown: { laneId: string; title: string; by: string; turn: number; observation: Observation } | null;
}
/** What comes to a bench from others while it is worked: words, notes, and whether everybody holds. */
export interface TogetherView {
  /** The newest last, since the lane was opened. */
  messages: { id: string; text: string; by: string; at: string; isToAll: boolean }[];
  notes: LaneNote[];
  /** Who holds the class; null where nobody does. */
  pausedBy: string | null;
  /** Somebody shows an exercise to the class now. */
  isShowing: boolean;
}
/** A lane as it would be ruled now: for the instructor alone. */
export interface LiveView {
  values: {
    name: string;
    /** The cause's headline, or that it is right. */
    words: string;
    state: "notYet" | "right" | "off";
  }[];
}

/** What an assignment is given on: a day of its own goes before that of its week. */
export const planChange = z.strictObject({
  week: z.number().int().min(1).max(60).nullable(),
  opensAt: z.iso.datetime().nullable(),
  dueAt: z.iso.datetime().nullable(),
  late: z.enum(["taken", "refused"]),
  attemptsAllowed: z.number().int().min(1).max(50),
  isCoachOn: z.boolean(),
  isGiven: z.boolean(),
  /** What this class asks for over points; null for what the exercise's marking asks for. */
  mustHaves: mustHavesSchema.nullable(),
});
export type PlanChange = z.infer<typeof planChange>;
/** The day on which the first week begins, as 2026-12-01. */
export const planStart = z.strictObject({ startsOn: z.iso.date().nullable() });
/** All assignments of the class, in the order that they shall have. */
export const planOrder = z.strictObject({ ids: z.array(z.uuid()).min(1).max(500) });
export interface PlanRow extends PlanChange {
  id: string;
  title: string;
  story: string;
  machine: Machine;
  /** What the exercise's own marking asks for over points, and what of all that the exercise can miss. */
  markedOn: MustHaves | null;
  canMiss: MustHave[];
  /** When it opens and is due in the end, by its own day or its week. */
  opens: string | null;
  due: string | null;
  /** Lanes that students have begun. */
  lanes: number;
}
export interface PlanView {
  startsOn: string | null;
  rows: PlanRow[];
}

export interface MyLanes {
  /** Somebody shows an exercise to the class now. */
  isShowing: boolean;
  /** Lanes that go on from what was shown, and are not handed in. */
  goneOn: { id: string; title: string; openedAt: string }[];
  policy: MarksPolicy;
  assignments: AssignmentRow[];
}
export interface StartedLane {
  id: string;
}

/** A question about a ruling, or its answer. */
export const lookRequest = z.strictObject({ text: z.string().trim().min(3).max(500) });
export interface Look {
  id: string;
  asked: string;
  at: string;
  answer: string | null;
  by: string | null;
  answeredAt: string | null;
}
export interface RulingView {
  lane: LaneHeader;
  ruling: Ruling;
  notes: LaneNote[];
  /** What the student asked to be looked at again, and what was answered; oldest first. */
  looks: Look[];
  bestTotal: number;
  attemptsLeft: number;
  assignmentId: string;
  /** The student's attempts at this exercise that have a ruling, this one among them, oldest first. */
  ruled: { id: string; attempt: number; total: number }[];
  /** What this lane got by earlier markings, oldest first. */
  earlier: { revision: number; total: number; at: string }[];
  /** One thing to practice next, and the exercise that asks for it; null when everything on offer is used up. */
  practice: Practice | null;
  /** In which dialect a program can be run with the registers of this lane; null where none can be. */
  provableIn: Dialect | null;
}

/** Longest program that is run for a lane, characters. */
export const PROGRAM_LIMIT = 48_000;
/** A program to be run with the registers of a lane that was handed in. */
export const proveRequest = z.strictObject({
  program: z.string().min(1).max(PROGRAM_LIMIT),
  /** Blocks after a slash are passed over. */
  blockDelete: z.boolean().optional(),
});
/** An instructor signs for the first cut of a lane, or sends it back with a word. */
export const signatureRequest = z
  .strictObject({ isGiven: z.boolean(), word: z.string().max(300) })
  .refine(({ isGiven, word }) => isGiven || word.trim() !== "", "say why it is sent back");
export type SignatureRequest = z.infer<typeof signatureRequest>;
/** The part that a lane holds, as an eye sees it after it was cut so often; null before that. */
export interface PartView {
  readonly part: number;
  readonly cut: number;
  readonly picture: PartPicture | null;
}

/** How many moves of a program that is being run were followed; null where none is. */
export interface ProveProgress {
  moves: number | null;
}
export interface ProveReply {
  proof: ProgramProof;
  unit: LengthUnit;
}

export interface Practice {
  skill: SkillId;
  /** Why this one: what it cost in the lane just ruled, marks; how it stands; or that it was shown too long ago. */
  why: { lost: number } | { stand: Stand } | { isLapsed: true };
  assignmentId: string;
  title: string;
}
export interface SkillRow {
  skill: SkillId;
  stand: Stand;
  /** It stands, and was shown so long ago that the class wants to see it again. */
  isLapsed: boolean;
  /** Each lane that asked for it, oldest first, where its ruling stands, and the real machine that it was at. */
  shown: { href: string; title: string; machine: string | null; at: string; isGood: boolean }[];
}
/** Where a student stands, from the rulings of bench lanes and of those at real machines. */
export interface SkillsView {
  studentName: string;
  skills: SkillRow[];
  practice: Practice | null;
}
/** A setup at a real machine that was signed and handed in: the newest of a student at it. */
export interface MachineSigned {
  href: string;
  title: string;
  by: string;
  at: string;
  isPassed: boolean;
  isLapsed: boolean;
}
export type SkillStanding = Pick<SkillRow, "stand" | "isLapsed"> & { at: string };
/** Who can do what: students × real machines, and students × skills that somebody was asked for. */
export interface StandingsView {
  className: string;
  lapseMonths: number;
  machines: string[];
  skills: SkillId[];
  students: {
    id: string;
    name: string;
    number: string;
    machines: Record<string, MachineSigned>;
    skills: Partial<Record<SkillId, SkillStanding>>;
  }[];
}

/** A lane that a class's patterns are made of. */
export interface PatternLane {
  /** What the patterns call it, and where it is read. */
  href: string;
  studentName: string;
  title: string;
  attempt: number;
  /** Worked at a real machine: incidents and steps are told of benches alone. */
  isAtMachine: boolean;
}
/** What a class gets wrong, on its benches and at real machines. */
export interface PatternsView {
  className: string;
  /** Exercises of the bench with how many of their lanes are handed in. */
  exercises: { id: string; title: string; lanes: number }[];
  lanes: PatternLane[];
  patterns: Pick<ClassPatterns, "mistakes" | "incidents" | "missed">;
}
/** What a class gets wrong in one exercise, and how long its gates take. */
export interface ExercisePatternsView {
  unit: LengthUnit;
  lanes: PatternLane[];
  patterns: ClassPatterns;
  pace: (GatePace & { kind: string; tool?: number })[];
}

/** An instructor's note, pinned to an entry of the log. */
export const noteRequest = z.strictObject({ seq: z.number().int().min(1), text: z.string().trim().min(1).max(1000) });
export type NoteRequest = z.infer<typeof noteRequest>;
export interface LaneNote {
  id: string;
  seq: number;
  text: string;
  by: string;
  at: string;
}
/** A lane to replay. `canWrite`: notes may be pinned by whoever asks. */
export interface ReviewView {
  lane: LaneHeader;
  review: Review;
  notes: LaneNote[];
  canWrite: boolean;
}

/** Other marks for one strand, and why; null goes back to what the log earned. */
export const overrideRequest = z.strictObject({
  strand: z.enum(strandNames),
  marks: z.number().min(0).max(1000).nullable(),
  reason: z.string().trim().min(3).max(500),
});
export type OverrideRequest = z.infer<typeof overrideRequest>;

/** A marking that is proposed: everything but the number that it gets when it is stored. */
export const markingDraft = markingSchema
  .omit({ revision: true })
  .refine(({ weights }) => Object.values(weights).some((weight) => weight > 0), "give at least one strand a weight");
export type MarkingDraft = z.infer<typeof markingDraft>;
/** Marking again of an exercise's lanes: how far it has come. */
export interface RegradeProgress {
  id: string;
  revision: number;
  by: string;
  lanes: number;
  done: number;
  startedAt: string;
  finishedAt: string | null;
}
/** The markings of an exercise, newest first, how many lanes are handed in, and the last marking again. */
export interface MarkingView {
  title: string;
  revisions: Marking[];
  lanes: number;
  regrade: RegradeProgress | null;
}
/** A marking on trial: how far it has come, and once it is through whom it would change. */
export interface TrialView {
  id: string;
  lanes: number;
  done: number;
  preview: RegradePreview | null;
}
export interface RegradePreview {
  lanes: {
    laneId: string;
    studentName: string;
    attempt: number;
    before: number | null;
    beforeOutOf: number | null;
    after: number;
    outOf: number;
  }[];
}

export interface WallRow {
  laneId: string;
  studentName: string;
  title: string;
  attempt: number;
  gates: readonly Gate[];
  incidents: IncidentCode[];
  isHandUp: boolean;
  isStopped: boolean;
  isHandedIn: boolean;
  lastEventAt: string;
  lastProgressAt: string;
  total: number | null;
  outOf: number | null;
}
export interface WallView {
  /** Who holds the class; null where nobody does. */
  pausedBy: string | null;
  className: string;
  rows: WallRow[];
  /** Who is at a real machine. */
  floor: FloorWallRow[];
  idle: { studentName: string }[];
  now: string;
}

export interface MarkCell {
  /** Where its ruling stands. */
  href: string;
  attempt: number;
  /** What counts by the rules of the class. */
  total: number;
  /** What the ruling gives, where less of it counts; null where all of it does. */
  ruled: number | null;
  outOf: number;
  strands: { name: string; marks: number; outOf: number }[];
  /** When it was handed in. */
  at: string;
  isLate: boolean;
  isPassed: boolean;
}
/** What a file of marks can hold of each student besides the marks. */
export const markColumns = ["number", "login", "name"] as const;
/** A file of marks: as a table, or as the two that other software for schools takes in. */
export const exportQuery = z.strictObject({
  as: z.enum(["table", "results", "lineItems"]),
  /** Of a table: what it holds, separated by commas; the marks always. */
  columns: z
    .string()
    .transform((text) => text.split(",").filter(Boolean))
    .pipe(z.array(z.enum([...markColumns, "strands", "attempts"])))
    .default([]),
});
export type ExportQuery = z.infer<typeof exportQuery>;
export interface MarksView {
  /** Lanes of which a student asked for another look, and waits. */
  looks: { laneId: string; studentName: string; title: string; asked: string }[];
  assignments: { id: string; title: string; isFloor: boolean }[];
  students: {
    id: string;
    name: string;
    login: string;
    /** As the school numbers its students; empty where nobody said. */
    number: string;
    /** Taken off the class; what they did is kept. */
    isRemoved: boolean;
    cells: Record<string, { best: MarkCell | null; attempts: number; isOpen: boolean }>;
  }[];
}
