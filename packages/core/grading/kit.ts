import type { LaneTrace } from "../diagnosis";
import type { Fault, LatheSchool, Marking, MillLengthSchool, Target } from "../exercises";
import type { LedgerLine } from "../lane";
import type { RegisterId } from "../registers";
import type { Counts } from "../units";
import type { StepRow } from "./steps";
import type { Deeper, RegisterRuling } from "./values";

export type SchoolRead = MillLengthSchool | LatheSchool | "unclear";

/** What a reading tells of something that was handed over: where in the log it was last read before a moment. */
export type Read<T> = (trace: T, before: number) => number | null;

/** How lanes of one machine are marked: its values, its steps, what a working needs, what a reading separates. */
export interface MarkingKit<T extends LaneTrace> {
  /** One value against its tolerance, with its cause. */
  ruleValue(trace: T, target: Target, marking: Marking, outOf: number): RegisterRuling;
  /** The school as the log tells it; where it does not, the one that was named at hand-in. */
  school(trace: T): { readonly school: SchoolRead; readonly isNamed: boolean };
  /** Values that one mistake may put off together, so that it costs once. */
  readonly sharing: readonly ((target: Target) => boolean)[];
  /** How much deeper than it is told each tool goes by its values, mm; below zero it stays clear by so much. */
  deeper(trace: T, values: readonly RegisterRuling[]): readonly Deeper[];
  /** Values that are right given an earlier wrong one keep their marks. */
  followThrough(trace: T, values: readonly RegisterRuling[], marking: Marking): RegisterRuling[];
  readonly steps: readonly StepRow<T>[];
  readonly working: WorkingRules<T>;
  readonly handover: HandoverRules<T>;
}

/** The radius jogged in, the control's own sum, a tool put where its register says. */
export type NoWorking = "motion" | "control" | "slid";

/** What the marking of a ledger asks of a machine. */
export interface WorkingRules<T extends LaneTrace> {
  /** Registers in whose lines the values are worked out; null where nothing is to be worked out. */
  registerOf(trace: T, target: Target): RegisterId | null;
  /** Whether a reading stands for something that the log knows. */
  isTaken(trace: T, line: LedgerLine): boolean;
  /** What the readings and terms of a register come to, counts. */
  expected(trace: T, register: RegisterId, readings: readonly LedgerLine[], terms: Counts): number;
  /** How a value came there that nobody had to work out: the log is the working. */
  without(trace: T, register: RegisterId): NoWorking | null;
  /** Under which register a working is named, in which rows its lines may stand, and in which one it ends. */
  rows(
    trace: T,
    register: RegisterId,
  ): { readonly register: RegisterId; readonly standsIn: readonly RegisterId[]; readonly endsIn: RegisterId };
}

/** What the marking of someone else's setup asks of a machine. */
export interface HandoverRules<T extends LaneTrace> {
  /** The first move at speed: from there on nothing is found in time. */
  firstFastMove(trace: T): number | null;
  /** The reading that tells a fault from the others, by what it puts off and by how much. */
  separates(fault: Fault): Read<T>;
  /** A reading that says something of one value. */
  readingOf(target: Target): Read<T>;
  /** Registers in which a fault can be put right. */
  mends(trace: T, fault: Fault): readonly string[];
  /** The moment at which a fault that is no register was put right. */
  mendedAt(trace: T, fault: Fault): number | null | undefined;
}

/** The latest of some moments; null when there was none. */
export const last = (...seqs: (number | undefined | null)[]): number | null =>
  seqs.reduce<number | null>((best, seq) => (seq != null && seq > (best ?? -1) ? Math.ceil(seq) : best), null);
