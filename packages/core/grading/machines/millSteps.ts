import { machineTasks, type SetupTask } from "../../exercises/schools";
import { setterOf } from "../../machines/mill/acts/calibration/names";
import { edgeOf } from "../../exercises";
import type { MillTrace } from "../../diagnosis";
import { toolName } from "../../instruments";
import { toMm } from "../../units";
import { homedFirst, isFineEnough, neverMoved, neverStarted, seqOf, speedStated, type StepRow } from "../steps";
import { isAnew } from "../kept";
import { programSteps } from "../proving";
import type { RegisterId } from "../../registers";
import { checkedBefore, checkNote, neverChecked } from "../checking";
import { firstFastMoveOnMill } from "./millHandover";

/** How near two contacts of one face must fall to agree, mm. */
const AGREE_MM = 0.008;

/** When the place on an axis was last set, in whatever offset; what was found after that was not used. */
function lastSet({ changes }: MillTrace, axis: "x" | "y"): number {
  const set = changes.filter(({ event }) => /^G5\d\./.test(event.register) && event.register.endsWith(axis));
  const own = set.findLast(({ event }) => event.register === `G54.${axis}`);
  return (own ?? set.at(-1))?.seq ?? Infinity;
}

/** A length that was measured without touching: what hangs on the tip is in it. */
const isUntouchedLength = ({ event: { values } }: MillTrace["readings"][number]): boolean =>
  values.length !== undefined && values.rpm !== undefined;

/** Contacts on one axis that were made before its register was last set. */
const contactsUsed = (trace: MillTrace, axis: "x" | "y") =>
  trace.contacts.filter((contact) => contact.axis === axis && contact.seq < lastSet(trace, axis));
const placesUsed = (trace: MillTrace, axis: "x" | "y") =>
  trace.places.filter((place) => place.axis === axis && place.seq < lastSet(trace, axis));
const isUntouched = (trace: MillTrace, axis: "x" | "y"): boolean =>
  contactsUsed(trace, axis).length === 0 && placesUsed(trace, axis).length === 0;

/** Two contacts, or two answers of a cycle or sweep, that agree; a middle wants them on both of its faces. */
function agreeing(trace: MillTrace, axis: "x" | "y"): number | null {
  const used = contactsUsed(trace, axis);
  const read = placesUsed(trace, axis);
  const agree = (a: { atCounts: number }, b: { atCounts: number }) =>
    Math.abs(toMm(a.atCounts - b.atCounts, trace.final.scale)) <= AGREE_MM;
  // the last of them with any one before it
  const pairOf = (list: readonly { atCounts: number; seq: number }[]) => {
    const last = list.at(-1);
    return last && list.slice(0, -1).some((one) => agree(one, last)) ? Math.ceil(last.seq) : null;
  };
  const isRead = pairOf(read);
  if (isRead !== null) return isRead;
  const pairOn = (approach: 1 | -1) => pairOf(used.filter((contact) => contact.approach === approach));
  if (edgeOf(trace.final.setup, axis)) return pairOn(1) ?? pairOn(-1);
  const [low, high] = [pairOn(1), pairOn(-1)];
  return low !== null && high !== null ? Math.max(low, high) : null;
}

function fineContact(trace: MillTrace, axis: "x" | "y", toleranceMm: number): number | null {
  const read = placesUsed(trace, axis).at(-1);
  if (read) return read.seq;
  const last = contactsUsed(trace, axis).at(-1);
  return last && isFineEnough(last.clickMm, toleranceMm) ? Math.ceil(last.seq) : null;
}

/** Nothing met an edge: neither by a tip nor by a cycle. */
const noEdgeTouched = ({ contacts, places }: MillTrace): boolean => contacts.length === 0 && places.length === 0;
/** The contact or answer that each place was set from; what was touched before and given up counts for nothing. */
function edgesCounted(trace: MillTrace): number[] {
  const last = (["x", "y"] as const).flatMap((axis) => {
    const used = [...contactsUsed(trace, axis), ...placesUsed(trace, axis)].map(({ seq }) => seq);
    return used.length === 0 ? [] : [Math.max(...used)];
  });
  return last.length > 0 ? last : [...trace.contacts, ...trace.places].map(({ seq }) => seq);
}

function firstContactSeq({ log }: MillTrace): number {
  return (
    log.find(
      ({ event }) =>
        event.type === "approachBegan" ||
        event.type === "kicked" ||
        event.type === "touchBegan" ||
        event.type === "paperFelt" ||
        event.type === "blockTried",
    )?.seq ?? Infinity
  );
}

/** Every tool that is marked was last touched at a click fine enough, or measured by a cycle. */
function fineLengths(trace: MillTrace, toleranceMm: number): number | null {
  const seqs = lengthsAnew(trace).map((tool) => {
    const touch = trace.touches.findLast(({ holds, feel }) => holds === toolName(tool) && feel !== "torn");
    const read = trace.readings.findLast(({ event }) => event.tool === tool && event.values.length !== undefined);
    if (read && (!touch || touch.by === "plungerSetter")) return read.seq;
    return touch && isFineEnough(touch.clickMm, toleranceMm) ? touch.seq : null;
  });
  const done = seqs.filter((seq) => seq !== null);
  return done.length === seqs.length ? Math.max(...done) : null;
}

/** X or Y is found anew, and not kept: from the part before, or with a whole setup. */
const isOnAxis =
  (axis: "x" | "y") =>
  (trace: Pick<MillTrace, "final">): boolean =>
    isOnPlace(trace) && isAnew(trace, `G54.${axis}`);
/** Its faces are touched: of a kept setup only where X or Y is found anew. */
const isOnSides = (trace: Pick<MillTrace, "final">): boolean =>
  trace.final.setup.kept === undefined || isOnAnyAxis(trace);
const isOnAnyAxis = (trace: Pick<MillTrace, "final">): boolean => isOnAxis("x")(trace) || isOnAxis("y")(trace);
/** Lengths that are found on this lane. */
const lengthsAnew = (trace: Pick<MillTrace, "final">): readonly number[] =>
  trace.final.setup.targets.lengths.filter((tool) => isAnew(trace, `H${tool}` as RegisterId));

const isOnPlace = ({ final: { setup } }: Pick<MillTrace, "final">): boolean =>
  setup.targets.xy && setup.partBefore === null && setup.handover === undefined;
const isOwn = ({ final: { setup } }: Pick<MillTrace, "final">): boolean => setup.handover === undefined;
const asksTwoSides = ({ final: { setup } }: Pick<MillTrace, "final">): boolean =>
  setup.handover === undefined && setup.targets.xy && setup.instruments.includes("pointedTool");

/** Where a task was done; a jaw where it was swept last before anything was touched. */
function taskAt(trace: MillTrace, task: SetupTask): number {
  const done = trace.log.find(({ event }) => event.type === "taskDone" && event.task === task)?.seq;
  const swept = trace.readings.findLast(({ event, seq }) => event.what === "jaw" && seq < firstContactSeq(trace))?.seq;
  return done ?? (task === "sweepJaw" ? (swept ?? Infinity) : Infinity);
}

const overZeroLooks = (log: MillTrace["log"]) =>
  log.filter(({ event }) => event.type === "lookedFrom" && event.isOverZero);

/** What a mill asks for, in the order of the work. */
export const millSteps: readonly StepRow<MillTrace>[] = [
  { step: "homedFirst", strand: "method", asked: () => true, done: homedFirst, isAbsent: neverMoved },
  {
    step: "burrBeforeTouch",
    strand: "method",
    asked: (trace) => isOwn(trace) && isOnSides(trace) && trace.final.setup.tasks.includes("dressBurr"),
    done: (trace) => {
      const dressed = seqOf(trace, "burrDressed");
      return dressed !== null && dressed < Math.min(...edgesCounted(trace)) ? dressed : null;
    },
    isAbsent: noEdgeTouched,
  },
  {
    step: "toolWiped",
    strand: "method",
    asked: (trace) => isOwn(trace) && trace.final.setup.tasks.includes("wipeTaper"),
    done: ({ log }) => {
      const wiped = log.find(({ event }) => event.type === "taskDone" && event.task === "wipeTaper")?.seq ?? null;
      const loaded = log.find(({ event }) => event.type === "loaded")?.seq ?? Infinity;
      return wiped !== null && wiped < loaded ? wiped : null;
    },
    isAbsent: (trace) => seqOf(trace, "loaded") === null,
  },
  {
    step: "seatedFirst",
    strand: "method",
    asked: (trace) =>
      isOwn(trace) &&
      trace.final.setup.tasks.some(
        (task) => task !== "dressBurr" && task !== "wipeTaper" && !machineTasks.includes(task),
      ),
    done: (trace) => {
      const tasks = trace.final.setup.tasks.filter(
        (task) => task !== "dressBurr" && task !== "releaseStop" && task !== "lowRapid",
      );
      const places = tasks.map((task) => taskAt(trace, task));
      const last = Math.max(...places);
      return last < firstContactSeq(trace) ? last : null;
    },
    isAbsent: (trace) => firstContactSeq(trace) === Infinity,
  },
  {
    step: "speedStated",
    strand: "method",
    asked: (trace) => isOnAnyAxis(trace) && trace.final.setup.instruments.includes("edgeFinder"),
    done: speedStated,
    isAbsent: neverStarted,
  },
  {
    step: "tasterTrued",
    strand: "method",
    asked: (trace) => isOwn(trace) && trace.final.setup.instruments.includes("taster"),
    done: (trace) => {
      const trued = seqOf(trace, "tasterTrued");
      const first = trace.contacts.find(({ by }) => by === "taster")?.seq ?? Infinity;
      return trued !== null && trued < first ? trued : null;
    },
    isAbsent: ({ contacts }) => !contacts.some(({ by }) => by === "taster"),
  },
  {
    step: "twoKicksX",
    strand: "method",
    asked: isOnAxis("x"),
    done: (trace) => agreeing(trace, "x"),
    isAbsent: (trace) => isUntouched(trace, "x"),
  },
  {
    step: "twoKicksY",
    strand: "method",
    asked: isOnAxis("y"),
    done: (trace) => agreeing(trace, "y"),
    isAbsent: (trace) => isUntouched(trace, "y"),
  },
  {
    step: "finestX",
    strand: "method",
    asked: isOnAxis("x"),
    done: (trace, { x }) => fineContact(trace, "x", x),
    isAbsent: (trace) => isUntouched(trace, "x"),
  },
  {
    step: "finestY",
    strand: "method",
    asked: isOnAxis("y"),
    done: (trace, { y }) => fineContact(trace, "y", y),
    isAbsent: (trace) => isUntouched(trace, "y"),
  },
  {
    step: "tipClean",
    strand: "method",
    asked: (trace) => isOwn(trace) && Object.keys(trace.final.truth.chipsMm).length > 0,
    done: ({ log, readings }) => {
      const first = readings.find(isUntouchedLength)?.seq ?? Infinity;
      return log.find(({ event, seq }) => event.type === "tipBlown" && seq < first)?.seq ?? null;
    },
    isAbsent: ({ readings }) => !readings.some(isUntouchedLength),
  },
  {
    step: "calibratedFirst",
    strand: "method",
    asked: ({ final }) => final.setup.hasMasters === true && setterOf(final.setup.instruments) !== null,
    done: ({ log, readings, final }) => {
      const seq = log.findLast(({ event }) => event.type === "calibrated" && event.what === "setter")?.seq ?? null;
      const measured = final.setup.targets.lengths.map(
        (tool) =>
          readings.findLast(({ event }) => event.tool === tool && event.values.length !== undefined)?.seq ?? Infinity,
      );
      return seq !== null && seq < Math.min(...measured) ? seq : null;
    },
    isAbsent: ({ log }) => !log.some(({ event }) => event.type === "calibrated" && event.what === "setter"),
  },
  {
    step: "finestPaper",
    strand: "method",
    asked: (trace) => isOwn(trace) && lengthsAnew(trace).length > 0 && trace.final.setup.partBefore === null,
    done: (trace, { z }) => fineLengths(trace, z),
    isAbsent: ({ touches, readings }) =>
      touches.length === 0 && !readings.some(({ event }) => event.values.length !== undefined),
  },
  {
    step: "spindleLooked",
    strand: "method",
    asked: (trace) => isOwn(trace) && trace.final.truth.pockets !== undefined,
    done: ({ log }) => {
      const swapped = log.find(({ event }) => event.type === "pocketsSwapped")?.seq ?? null;
      const strike =
        log.find(({ event }) => event.type === "incidentHappened" && event.code === "toolChipped")?.seq ?? Infinity;
      return swapped !== null && swapped < strike ? swapped : null;
    },
  },
  {
    step: "lookedTwoSides",
    strand: "proving",
    asked: asksTwoSides,
    done: ({ log, final }) => {
      const { sidesOverZero } = final.evidence;
      const isFromTwo =
        sidesOverZero.some((side) => side === "front" || side === "back") &&
        sidesOverZero.some((side) => side === "left" || side === "right");
      return isFromTwo ? (overZeroLooks(log).at(-1)?.seq ?? null) : null;
    },
    isAbsent: ({ log }) => overZeroLooks(log).length === 0,
    note: ({ log, final: { evidence, checking } }) => {
      const lost = checking.withdrawn.findLast(({ check }) => check === "overZero");
      return overZeroLooks(log).length > 0 && evidence.sidesOverZero.length === 0 && lost
        ? { code: "withdrawn", register: lost.register }
        : null;
    },
  },
  {
    step: "checkedBefore",
    strand: "proving",
    asked: () => true,
    done: (trace) => checkedBefore(trace),
    isAbsent: (trace) => neverChecked(trace),
    note: (trace) => checkNote(trace),
  },
  {
    step: "slowUntilProven",
    strand: "method",
    asked: (trace) => !isOwn(trace),
    done: (trace) => (firstFastMoveOnMill(trace) === null ? (trace.log.at(-1)?.seq ?? null) : null),
  },
  ...programSteps,
];
