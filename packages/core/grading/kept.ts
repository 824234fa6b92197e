import type { RegisterId } from "../registers";
import type { LaneTrace } from "../diagnosis";
import type { StepRow } from "./steps";

/** Registers of a kept setup that what has changed since puts off. */
const staleOf = ({ final }: Pick<LaneTrace, "final">): ReadonlySet<RegisterId> =>
  new Set((final.truth.keptChanges ?? []).flatMap(({ offs }) => offs.map(({ register }) => register)));

const isKept = ({ final }: Pick<LaneTrace, "final">): boolean => final.setup.kept !== undefined;

/** Whether a register is found on this lane: every one, but of a kept setup only what has changed. */
export const isAnew = (trace: Pick<LaneTrace, "final">, register: RegisterId): boolean =>
  !isKept(trace) || staleOf(trace).has(register);

/** Something went, or was touched; the reference return moves nothing toward the part. */
const MOVES: ReadonlySet<string> = new Set(["jogged", "moved", "kicked", "touchBegan", "paperFelt", "cycleStarted"]);

/** What was named last before anything moved, where the machine was not only sent to its reference. */
function namedInTime({ log }: LaneTrace) {
  const moved = log.find(({ event }, at) => MOVES.has(event.type) && log[at + 1]?.event.type !== "homed");
  return log.findLast(({ seq, event }) => event.type === "staleNamed" && seq < (moved?.seq ?? Infinity));
}

/** What is marked of a setup that was kept and taken back. */
export const keptSteps: readonly StepRow[] = [
  {
    step: "staleNamed",
    strand: "proving",
    // it is what such a lane is about
    shares: 4,
    asked: isKept,
    done: (trace) => {
      const named = namedInTime(trace);
      if (named?.event.type !== "staleNamed") return null;
      const stale = staleOf(trace);
      const { registers } = named.event;
      return registers.length === stale.size && registers.every((one) => stale.has(one)) ? named.seq : null;
    },
    isAbsent: (trace) => namedInTime(trace) === undefined,
    note: (trace) => {
      const named = namedInTime(trace);
      if (named?.event.type !== "staleNamed") return { code: "staleWere", registers: [...staleOf(trace)] };
      const { registers } = named.event;
      const stale = staleOf(trace);
      const missing = [...stale].filter((one) => !registers.includes(one));
      const needless = registers.filter((one) => !stale.has(one));
      return missing.length + needless.length === 0 ? null : { code: "staleOther", missing, needless };
    },
  },
];
