import { proveProgram, type EventOf, type LaneEvent, type LaneState } from "../bench";
import type { LaneTrace } from "../diagnosis";
import { ownRegister, type ProgramFault, type ProgramFaultKind, type ProvingSchool, type Target } from "../exercises";
import { isAllLookedUp } from "../lane/programDesk";
import { LIFT_MM, type AskKind } from "../lane/programNames";
import { incidents } from "../machines/program/schema";
import { struckAs } from "../machines/program/struck";
import { readRegister, writeRegister, type RegisterId } from "../registers";
import { toCounts, toMm } from "../units";
import { keptSteps } from "./kept";
import { asFirstCut, partSteps } from "./parts";
import type { StepRow } from "./steps";
import { tenth } from "./tenths";
import { isValueRight, type RegisterRuling } from "./values";

/** An eye beside a rule reads a gap this well, mm; display and gap further apart than the second do not agree. */
const SEEN_WITHIN_MM = 2;
const AGREE_MM = 1;

/** What can go wrong in a run of a program. */
const STRUCK: ReadonlySet<string> = new Set(Object.keys(incidents));

type Log = LaneTrace["log"];
const seqWhere = (log: Log, is: (event: LaneEvent) => boolean): number | null =>
  log.find(({ event }) => is(event))?.seq ?? null;

const firstStrike = (log: Log): number =>
  seqWhere(log, (event) => event.type === "incidentHappened" && STRUCK.has(event.code)) ?? Infinity;

/** A run of a log: where it began and ended, how, and how much higher than at the end the common Z stood, mm. */
interface RunRead {
  readonly startSeq: number;
  readonly endSeq: number | null;
  readonly why: EventOf<"runEnded">["why"] | null;
  readonly liftMm: number;
}

function runsOf({ log, final }: Pick<LaneTrace, "log" | "final">): RunRead[] {
  const { scale, registers } = final;
  let common = log.reduceRight(
    (at, { event }) => (event.type === "registerChanged" && event.register === "common.z" ? event.from : at),
    registers.common.z,
  );
  const runs: RunRead[] = [];
  for (const { seq, event } of log) {
    if (event.type === "registerChanged" && event.register === "common.z") common = event.to;
    if (event.type === "cycleStarted")
      runs.push({ startSeq: seq, endSeq: null, why: null, liftMm: toMm(common - registers.common.z, scale) });
    const last = runs.at(-1);
    if (event.type === "runEnded" && last) runs[runs.length - 1] = { ...last, endSeq: seq, why: event.why };
  }
  return runs;
}

/** The first run that was not lifted clear: what is to be proved is proved before it. */
const firstRealRun = (trace: Pick<LaneTrace, "log" | "final">): number =>
  runsOf(trace).find(({ liftMm }) => liftMm < LIFT_MM)?.startSeq ?? Infinity;

const isProgrammed = ({ final }: Pick<LaneTrace, "final">): boolean => final.setup.programs !== undefined;
const asks =
  (school: ProvingSchool) =>
  (trace: Pick<LaneTrace, "final">): boolean =>
    isProgrammed(trace) && (trace.final.setup.proving ?? []).includes(school);

const never =
  (type: LaneEvent["type"]) =>
  ({ log }: LaneTrace): boolean =>
    !log.some(({ event }) => event.type === type);

/** Everything that is asked stands answered, was read right and called what it is, before anything was cut. */
function lookedUp(trace: LaneTrace): number | null {
  const before = firstRealRun(trace);
  // a correction after the first part takes back what was looked up before it
  const { program } = asFirstCut(trace).final;
  const answers = program.asks.map(({ ask, tool }) =>
    trace.log.findLast(
      ({ seq, event }) =>
        seq < before && event.type === "lookedUp" && event.ask === ask && (event.tool ?? null) === tool,
    ),
  );
  const isRight = answers.every(
    (one) => one?.event.type === "lookedUp" && one.event.isRight && isCalledRight(one.event),
  );
  return isAllLookedUp(program) && isRight ? Math.max(...answers.map((one) => one?.seq ?? 0)) : null;
}

/**
 * Whether it was called what it is. Of a row that holds something, whether that is right is for the ruling of values:
 * calling it a fault is no mistake of reading.
 */
const isCalledRight = ({ ask, isSound, isAsItShould }: EventOf<"lookedUp">): boolean =>
  isSound === isAsItShould || ((ask === "held" || ask === "matters") && isAsItShould);

/** Which answers tell a fault of a program. */
const TOLD_BY: Readonly<Record<ProgramFaultKind, readonly AskKind[]>> = {
  otherRow: ["rows", "held"],
  otherUnits: ["units", "deepest"],
  otherOffset: ["offset"],
  tooDeep: ["deepest"],
  // a move in rapid that should be fed is read in its line alone
  wrongLine: [],
  otherTools: ["deepest", "spindle"],
  liftLeft: ["lift", "deepest"],
  nearSwing: ["swing"],
  otherWay: ["gaugedWay"],
};

/** A fault that was named: something that is not as it should be was called so, of its tool where it is about one. */
const isNamed = (fault: ProgramFault, { ask, tool, isSound, isAsItShould, isRight }: EventOf<"lookedUp">): boolean =>
  !isSound &&
  !isAsItShould &&
  isRight &&
  TOLD_BY[fault.kind].includes(ask) &&
  (tool === undefined || fault.tool === null || tool === fault.tool);

/**
 * Where the fault of a program was found: named when it was looked up, seen beside the part or in a gap that does not
 * agree, its line changed, or the other work offset that it calls set.
 */
function faultFound({ log, final }: LaneTrace): number | null {
  const fault = final.truth.programFault;
  if (!fault) return null;
  const before = firstStrike(log);
  const loaded = seqWhere(log, ({ type }) => type === "programLoaded") ?? Infinity;
  const isFinding = (seq: number, event: LaneEvent): boolean => {
    if (event.type === "lineMended") return fault.lines.includes(event.line);
    if (event.type === "lookedUp") return isNamed(fault, event);
    if (event.type === "deepestJudged")
      return fault.kind === "tooDeep" && event.tool === fault.tool && event.outcome === "wouldHit";
    // the eye told it: what was seen does not agree with the display, and it does not
    if (event.type === "gapSaid")
      return !event.isAlike && isSeenTrue(event) && (fault.tool === null || event.tool === fault.tool);
    return (
      event.type === "registerChanged" &&
      fault.kind === "otherOffset" &&
      seq > loaded &&
      /^G5[5-9]\./.test(event.register)
    );
  };
  return log.find(({ seq, event }) => seq < before && isFinding(seq, event))?.seq ?? null;
}

const isSeenTrue = ({ mm, displayMm, offMm, isAlike }: EventOf<"gapSaid">): boolean =>
  Math.abs(mm - (displayMm + offMm)) <= SEEN_WITHIN_MM && isAlike === Math.abs(offMm) <= AGREE_MM;

const heldText = ({ program }: LaneState): string | null => program.held?.lines.join("\n") ?? null;

function runsClear({ final, log }: LaneTrace): number | null {
  const text = heldText(final);
  const isClear = text !== null && proveProgram(final, text)?.kind === "clear";
  return isClear ? (log.at(-1)?.seq ?? null) : null;
}

const rows: readonly StepRow[] = [
  {
    step: "programRead",
    strand: "proving",
    asked: asks("lookedUp"),
    done: lookedUp,
    isAbsent: never("lookedUp"),
  },
  {
    step: "programFaultFound",
    strand: "proving",
    asked: (trace) => isProgrammed(trace) && (trace.final.truth.programFault ?? null) !== null,
    done: faultFound,
    isAbsent: never("programLoaded"),
  },
  {
    step: "deepestBeside",
    strand: "proving",
    asked: asks("deepestBeside"),
    done: (trace) => {
      const before = firstRealRun(trace);
      const told = trace.log.filter(({ seq, event }) => event.type === "deepestJudged" && seq < before);
      const isTrue = ({ event }: (typeof told)[number]) =>
        event.type === "deepestJudged" && event.isStood && event.outcome === event.really;
      const isOfIt = told.some(({ event }) => event.type === "deepestJudged" && event.isMattering);
      return isOfIt && told.every(isTrue) ? (told.at(-1)?.seq ?? null) : null;
    },
    isAbsent: never("deepestJudged"),
  },
  {
    step: "airRun",
    strand: "proving",
    asked: asks("airRun"),
    done: (trace) => {
      const before = firstRealRun(trace);
      return (
        runsOf(trace).find(({ liftMm, why, endSeq }) => liftMm >= LIFT_MM && why === "end" && (endSeq ?? 0) < before)
          ?.endSeq ?? null
      );
    },
    isAbsent: never("cycleStarted"),
  },
  {
    step: "gapCompared",
    strand: "proving",
    asked: asks("gapCompared"),
    done: ({ log }) => {
      const before = firstStrike(log);
      return log.find(({ seq, event }) => event.type === "gapSaid" && seq < before && isSeenTrue(event))?.seq ?? null;
    },
    isAbsent: never("gapSaid"),
  },
  {
    step: "ranThrough",
    strand: "proving",
    asked: isProgrammed,
    done: (trace) => runsOf(trace).find(({ liftMm, why }) => liftMm < LIFT_MM && why === "end")?.endSeq ?? null,
    isAbsent: never("cycleStarted"),
  },
  {
    step: "runsClear",
    strand: "proving",
    asked: isProgrammed,
    done: runsClear,
    isAbsent: ({ final }) => final.program.held === null,
  },
  ...partSteps,
  ...keptSteps,
];
/** What is marked of proving a program, on every machine that runs one. */
export const programSteps = rows.map((row): StepRow => ({ ...row, isOfRun: true }));

/** What the program as it was handed in would strike, and what alone, put right, would let it pass. */
export interface StrikeFinding {
  readonly code: "programStrikes";
  readonly line: number;
  readonly met: string;
  readonly with: string;
  /** Lines with a fault that came with the program, or that were changed. */
  readonly lines: readonly number[];
  /** Values that are off; and whether a lift in the common Z is among what alone is to blame. */
  readonly targets: readonly { readonly target: Target; readonly closureMm: number }[];
  readonly isByLift: boolean;
  /** Neither looked at in time nor struck: it costs of the safety strand what its weight is. */
  readonly isUnchecked: boolean;
  readonly cost: number;
}

/** A strike that did not happen, and that nobody had seen coming, costs this share of one that does. */
const UNCHECKED_SHARE = 0.5;

/** Whether anything that was said before the hand-in tells that it would strike. */
const isSeenComing = ({ log }: LaneTrace): boolean =>
  log.some(
    ({ event }) =>
      (event.type === "deepestJudged" && event.outcome === "wouldHit" && event.really === "wouldHit") ||
      (event.type === "lookedUp" && !event.isSound && !event.isAsItShould && event.isRight) ||
      (event.type === "gapSaid" && !event.isAlike && isSeenTrue(event)),
  );

/** The program of the part as it should stand: of one that was never loaded only registers can be to blame. */
function rightText({ setup, truth }: LaneState): string | null {
  const text = setup.programs?.find(({ number }) => number === setup.program)?.text;
  const { lines, right }: Pick<ProgramFault, "lines" | "right"> = truth.programFault ?? { lines: [], right: [] };
  return (
    text
      ?.split(/\r\n|\r|\n/)
      .map((line, at) => right[lines.indexOf(at + 1)] ?? line)
      .join("\n") ?? null
  );
}

const isClear = (state: LaneState, text: string): boolean => proveProgram(state, text)?.kind === "clear";

/** Lines that alone, as they should stand or as they came, let a program pass. */
function linesToBlame(final: LaneState): number[] {
  const { held } = final.program;
  if (!held) return [];
  const fault: Pick<ProgramFault, "lines" | "right"> = final.truth.programFault ?? { lines: [], right: [] };
  const came = final.setup.programs?.find(({ number }) => number === held.number)?.text.split(/\r\n|\r|\n/) ?? [];
  const rightOf = (line: number): string | undefined => fault.right[fault.lines.indexOf(line)] ?? came[line - 1];
  const isClearWith = (lines: readonly number[]): boolean =>
    isClear(
      final,
      held.lines.map((stands, at) => (lines.includes(at + 1) ? (rightOf(at + 1) ?? stands) : stands)).join("\n"),
    );
  const other = [...new Set([...fault.lines, ...held.mended])].filter((line) => {
    const right = rightOf(line);
    return right !== undefined && right !== held.lines[line - 1];
  });
  const alone = other.filter((line) => isClearWith([line]));
  if (alone.length > 0) return alone;
  // lines that are wrong together are right only together
  const together = other.filter((line) => fault.lines.includes(line));
  return together.length > 1 && isClearWith(together) ? together : [];
}

/** The finding of a program that would strike; nothing where it runs clear, or where there is none. */
export function strikeFindings(
  trace: LaneTrace,
  values: readonly RegisterRuling[],
  outOfSafety: number,
): StrikeFinding[] {
  const { final } = trace;
  const text = heldText(final) ?? rightText(final);
  if (text === null || !final.setup.programs) return [];
  const proof = proveProgram(final, text);
  if (proof?.kind !== "contact") return [];
  const { line, kind, with: what } = proof.contact;
  const withRegister = (register: RegisterId, counts: number): LaneState => ({
    ...final,
    registers: writeRegister(final.registers, register, counts),
  });
  const targets = values.flatMap((value) => {
    const register = ownRegister(value.target);
    if (isValueRight(value) || register === undefined || value.target.unit !== "mm") return [];
    const right = readRegister(final.registers, register) - toCounts(value.closureMm, final.scale);
    return isClear(withRegister(register, right), text) ? [{ target: value.target, closureMm: value.closureMm }] : [];
  });
  const isUnchecked = firstStrike(trace.log) === Infinity && !isSeenComing(trace);
  return [
    {
      code: "programStrikes",
      isUnchecked,
      cost: isUnchecked ? tenth(UNCHECKED_SHARE * incidents[struckAs[kind]] * outOfSafety) : 0,
      line,
      met: kind,
      with: what,
      lines: linesToBlame(final),
      targets,
      isByLift: final.registers.common.z !== 0 && isClear(withRegister("common.z", 0), text),
    },
  ];
}
