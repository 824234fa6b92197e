import type { LaneTrace, LoggedEvent } from "../diagnosis";
import { isAlike, isReadOff, type CheckName } from "../lane";
import type { RegisterId } from "../registers";

/** What is said beside a check: how it was answered, or what has withdrawn it. Millimetres. */
export type CheckNote =
  | { readonly code: "calledAsExpected" | "calledOff" | "sawNotRight"; readonly mm: number; readonly isByEye: boolean }
  | { readonly code: "withdrawn"; readonly register: RegisterId }
  | { readonly code: "staleWere"; readonly registers: readonly RegisterId[] }
  | { readonly code: "staleOther"; readonly missing: readonly RegisterId[]; readonly needless: readonly RegisterId[] };

/** A check that was answered: said first, looked at, and what became of it. */
interface Answer {
  readonly seq: number;
  readonly check: CheckName;
  readonly offMm: number;
  readonly isAsExpected: boolean;
  /** What was answered is what was seen. */
  readonly isTrue: boolean;
  /** A register that it hung on was changed afterwards. */
  readonly changed: RegisterId | null;
  /** The machine was stopped over it, or what it hung on was changed. */
  readonly isPutRight: boolean;
}

function answersOf(log: readonly LoggedEvent[]): Answer[] {
  const answers: Answer[] = [];
  let said: { check: CheckName; mm: number } | null = null;
  let seenMm: number | null | undefined;
  for (const [place, { seq, event }] of log.entries()) {
    if (event.type === "checkExpected") [said, seenMm] = [{ check: event.check, mm: event.mm }, undefined];
    if (event.type === "checkLooked") seenMm = event.seenMm;
    if (event.type !== "checkJudged" || said === null || seenMm === undefined) continue;
    const { covers } = event;
    const later = log.slice(place + 1);
    const change = later.find(
      ({ event: after }) =>
        after.type === "registerChanged" &&
        after.from !== after.to &&
        // lanes of before checks named their registers withdraw nothing
        (covers?.includes(after.register) ?? !event.isAsExpected),
    )?.event;
    const isOff = seenMm !== null && !isAlike(said.check, said.mm, seenMm);
    answers.push({
      seq,
      check: said.check,
      offMm: seenMm === null ? 0 : seenMm - said.mm,
      isAsExpected: event.isAsExpected,
      isTrue: event.isAsExpected ? !isOff : isOff || seenMm === null,
      changed: change?.type === "registerChanged" ? change.register : null,
      isPutRight: change !== undefined || later.some(({ event: after }) => after.type === "handRaised"),
    });
    [said, seenMm] = [null, undefined];
  }
  return answers;
}

/** It counts when it was answered as it looked; a surprise counts as much, and then a change is what it was for. */
const counts = ({ isTrue, isAsExpected, changed }: Answer): boolean => isTrue && (!isAsExpected || changed === null);

const ofKind = ({ log }: LaneTrace, check?: CheckName): Answer[] =>
  answersOf(log).filter((answer) => check === undefined || answer.check === check);

/** Where a check was made with its expectation said first, judged as it looked, whose registers still stand. */
export const checkedBefore = (trace: LaneTrace, check?: CheckName): number | null =>
  ofKind(trace, check).find(counts)?.seq ?? null;

export const neverChecked = (trace: LaneTrace, check?: CheckName): boolean => ofKind(trace, check).length === 0;

const seenOff = ({ offMm, check }: Answer) => ({ mm: offMm, isByEye: !isReadOff(check) });

/** What is to be said beside the check that counts, or the last one where none does. */
export function checkNote(trace: LaneTrace, check?: CheckName): CheckNote | null {
  const answers = ofKind(trace, check);
  const good = answers.find(counts);
  if (good) return good.isAsExpected || good.isPutRight ? null : { code: "sawNotRight", ...seenOff(good) };
  const last = answers.at(-1);
  if (!last) return null;
  if (!last.isTrue) return { code: last.isAsExpected ? "calledAsExpected" : "calledOff", ...seenOff(last) };
  return last.changed === null ? null : { code: "withdrawn", register: last.changed };
}
