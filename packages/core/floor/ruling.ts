import type { Figures } from "../diagnosis/catalog";
import { explain, habitsOf, type Explained } from "../diagnosis/explain";
import type { MistakeId } from "../diagnosis/catalog";
import type { TermName } from "../lane/names";
import { combineChecks, type Combined } from "./checks";
import { isReadOff, readingsWanted, type FloorRegister } from "./exercise";
import { isJudgedWithin } from "./signature";
import type { FloorState } from "./state";
import { termsLeftOut } from "./terms";

export interface FloorValue {
  readonly register: FloorRegister;
  readonly heldMm: number | null;
  readonly check: Combined | null;
  readonly closureMm: number | null;
  /**
   * Within the check's uncertainty of the limit nobody can say: it is not failed, and a better check is asked for.
   * Judged within the tolerance by a touch, no figure of it is known. Checks that contradict each other, or are less
   * sure than the tolerance, decide nothing, and nothing is earned yet.
   */
  readonly verdict: "right" | "within" | "wrong" | "tooClose" | "missing" | "checksDisagree" | "checkTooCoarse";
  readonly explained: Explained | null;
  readonly marks: number;
  /** The student's own arithmetic: did the written sum follow from reading and terms? */
  readonly working: "adds up" | "leaves a term out" | "does not add up" | "not written";
  /** Terms that lie between reading and register here, and were not written, where the value is wrong. */
  readonly leftOut: readonly TermName[];
  readonly workingMarks: number;
  /** As far as the entries show it: cautions first, then as many readings as asked for, then the register. */
  readonly isInOrder: boolean;
}
export interface FloorRuling {
  readonly values: readonly FloorValue[];
  readonly strands: readonly {
    readonly name: "values" | "working" | "method" | "safety";
    readonly marks: number;
    readonly outOf: number;
  }[];
  readonly habits: readonly { readonly id: MistakeId; readonly registers: readonly string[] }[];
  readonly total: number;
  readonly outOf: number;
}

const WEIGHTS = { values: 55, working: 20, method: 10, safety: 15 } as const;
const ZERO_AT_MULTIPLE = 4;
const SUM_AGREES_MM = 0.0025;

function inOrder(state: FloorState, register: FloorRegister): boolean {
  const set = state.registers[register.id];
  if (!set || state.cautionsReadAtMs === null || state.cautionsReadAtMs > set.atMs) return false;
  if (isReadOff(register)) return true;
  const before = state.readings.filter((one) => one.register === register.id && one.atMs <= set.atMs);
  return before.length >= readingsWanted(state.exercise, register);
}

/** What a sum may begin from: any reading; of a middle what lies between its touches, all of them or the last two. */
function startsOf({ method }: FloorRegister, readings: readonly { readonly mm: number }[]): number[] {
  const all = readings.map(({ mm }) => mm);
  if (method !== "mill-center") return all;
  const mean = (some: readonly number[]) => some.reduce((sum, mm) => sum + mm, 0) / some.length;
  return all.length === 0 ? [] : [mean(all), mean(all.slice(-2))];
}

/** Why a check decides nothing; null where it does. */
function undecidedBy({ outliers, expandedMm }: Combined, { toleranceMm }: FloorRegister) {
  if (outliers.length > 0) return "checksDisagree";
  return expandedMm > toleranceMm ? "checkTooCoarse" : null;
}
const decided = (offMm: number, { toleranceMm }: FloorRegister) => (offMm <= toleranceMm ? "right" : "wrong");

/** The figures of a register with what its check tells of them, mm. */
function figuresOf({ method, holds, figures }: FloorRegister, checkMm: number): Figures {
  const known = { ...figures, wanted: checkMm };
  if (method !== "mill-diameter") return known;
  return holds === "difference" ? { ...known, oldWear: checkMm } : { ...known, cutterDiameter: checkMm };
}

function ruleValue(state: FloorState, register: FloorRegister, share: number, workingShare: number): FloorValue {
  const heldMm = state.registers[register.id]?.mm ?? null;
  const check = combineChecks(state.checks.filter((one) => one.register === register.id));
  const reading = state.readings.findLast((one) => one.register === register.id)?.mm;
  const sum = state.sums[register.id]?.mm;
  const termsMm = state.terms.filter((one) => one.register === register.id).reduce((total, { mm }) => total + mm, 0);
  const readings = state.readings.filter((one) => one.register === register.id);
  const starts = startsOf(register, readings);
  const addsUp = sum !== undefined && starts.some((mm) => Math.abs(mm + termsMm - sum) <= SUM_AGREES_MM);
  const isInOrder = inOrder(state, register);
  const isWritten = reading !== undefined && sum !== undefined;
  const sumWorking = addsUp ? "adds up" : "does not add up";
  const ofSum = isWritten ? sumWorking : "not written";
  // a sum can add up and still leave out what lies between: where the value is wrong it does
  const isWrong = heldMm !== null && check !== null && Math.abs(heldMm - check.mm) > register.toleranceMm;
  const written = state.terms.filter((one) => one.register === register.id).map(({ term }) => term);
  const leftOut = addsUp && isWrong ? termsLeftOut(register, written) : [];
  const asWritten = isReadOff(register) ? "adds up" : ofSum;
  const working = leftOut.length > 0 ? "leaves a term out" : asWritten;
  const workingMarks = working === "adds up" ? workingShare : 0;
  const common = { register, heldMm, check, working, leftOut, workingMarks, isInOrder } as const;
  if (check === null && isJudgedWithin(state, register.id))
    return { ...common, closureMm: null, verdict: "within", explained: null, marks: share };
  if (heldMm === null || check === null)
    return { ...common, closureMm: null, verdict: "missing", explained: null, marks: 0 };
  const closureMm = heldMm - check.mm;
  const off = Math.abs(closureMm);
  const undecided = undecidedBy(check, register);
  if (undecided) return { ...common, closureMm, verdict: undecided, explained: null, marks: 0 };
  const isClose = Math.abs(off - register.toleranceMm) <= check.expandedMm;
  const verdict = isClose ? "tooClose" : decided(off, register);
  const u = Math.hypot(register.uMm, check.expandedMm / 2);
  const explained =
    verdict === "wrong"
      ? explain({
          method: register.method,
          closure: closureMm,
          figures: figuresOf(register, check.mm),
          u,
          resolution: 0.001,
        })
      : null;
  const inTolerances = off / register.toleranceMm;
  const marks =
    verdict !== "wrong" ? share : Math.max(0, (share * (ZERO_AT_MULTIPLE - inTolerances)) / (ZERO_AT_MULTIPLE - 1));
  return { ...common, closureMm, verdict, explained, marks };
}

/**
 * The marked result of a floor lane: values against the instructor's check, working as entered, safety as noted. Pure.
 */
export function ruleFloor(state: FloorState): FloorRuling {
  const { registers } = state.exercise;
  const values = registers.map((register) =>
    ruleValue(state, register, WEIGHTS.values / registers.length, WEIGHTS.working / registers.length),
  );
  const sum = (pick: (value: FloorValue) => number) => values.reduce((total, value) => total + pick(value), 0);
  const cost = state.safety.reduce((total, noted) => total + noted.cost, 0);
  const strands = [
    { name: "values" as const, marks: sum(({ marks }) => marks), outOf: WEIGHTS.values },
    { name: "working" as const, marks: sum(({ workingMarks }) => workingMarks), outOf: WEIGHTS.working },
    {
      name: "method" as const,
      marks: sum(({ isInOrder }) => (isInOrder ? WEIGHTS.method / registers.length : 0)),
      outOf: WEIGHTS.method,
    },
    { name: "safety" as const, marks: Math.max(0, WEIGHTS.safety - cost), outOf: WEIGHTS.safety },
  ];
  const outOf = strands.reduce((total, strand) => total + strand.outOf, 0);
  return {
    values,
    strands,
    outOf,
    habits: habitsOf(
      values.flatMap(({ register, explained }) => (explained ? [{ register: register.label, explained }] : [])),
    ),
    total: state.override?.marks ?? strands.reduce((total, { marks }) => total + marks, 0),
  };
}
