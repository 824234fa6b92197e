import { machineTasks } from "../../exercises/schools";
import { edgeOf } from "../../exercises";
import type { MillTrace } from "../../diagnosis";
import { toolName } from "../../instruments";
import { toMm } from "../../units";
import { checkedBefore, FINEST_MM, homedFirst, seqOf, speedStated, type StepRow } from "../steps";
import { firstFastMoveOnMill } from "./millHandover";

/** How near two contacts of one face must fall to agree, mm. */
const AGREE_MM = 0.008;

/** Contacts on one axis that were made before its register was last set. */
function contactsUsed(trace: MillTrace, axis: "x" | "y") {
  const lastSet = trace.changes.findLast(({ event }) => event.register === `G54.${axis}`);
  return lastSet ? trace.contacts.filter((contact) => contact.axis === axis && contact.seq < lastSet.seq) : [];
}

/** Two contacts, or two answers of a cycle or sweep, that agree; a middle wants them on both of its faces. */
function agreeing(trace: MillTrace, axis: "x" | "y"): number | null {
  const lastSet = trace.changes.findLast(({ event }) => event.register === `G54.${axis}`);
  const used = contactsUsed(trace, axis);
  const read = trace.places.filter((place) => place.axis === axis && place.seq < (lastSet?.seq ?? 0));
  const agree = (a: { atCounts: number }, b: { atCounts: number }) =>
    Math.abs(toMm(a.atCounts - b.atCounts, trace.final.scale)) <= AGREE_MM;
  const [lastRead, readBefore] = read.toReversed();
  if (lastRead && readBefore && agree(lastRead, readBefore)) return lastRead.seq;
  const pairOn = (approach: 1 | -1) => {
    const [last, before] = used.filter((contact) => contact.approach === approach).toReversed();
    return last && before && agree(last, before) ? Math.ceil(last.seq) : null;
  };
  if (edgeOf(trace.final.setup, axis)) return pairOn(1) ?? pairOn(-1);
  const [low, high] = [pairOn(1), pairOn(-1)];
  return low !== null && high !== null ? Math.max(low, high) : null;
}

function finestContact(trace: MillTrace, axis: "x" | "y"): number | null {
  const lastSet = trace.changes.findLast(({ event }) => event.register === `G54.${axis}`);
  const read = trace.places.findLast((place) => place.axis === axis && place.seq < (lastSet?.seq ?? 0));
  if (read) return read.seq;
  const last = contactsUsed(trace, axis).at(-1);
  return last && last.clickMm <= FINEST_MM ? Math.ceil(last.seq) : null;
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

/** Every tool that is marked was last touched at the finest click, or measured by a cycle. */
function finestLengths(trace: MillTrace): number | null {
  const seqs = trace.final.setup.targets.lengths.map((tool) => {
    const touch = trace.touches.findLast(({ holds, feel }) => holds === toolName(tool) && feel !== "torn");
    const read = trace.readings.findLast(({ event }) => event.tool === tool && event.values.length !== undefined);
    if (read && (!touch || touch.by === "plungerSetter")) return read.seq;
    return touch && touch.clickMm <= FINEST_MM ? touch.seq : null;
  });
  const done = seqs.filter((seq) => seq !== null);
  return done.length === seqs.length ? Math.max(...done) : null;
}

/** X and Y are found anew, and not kept from the part before. */
const isOnPlace = ({ final: { setup } }: Pick<MillTrace, "final">): boolean =>
  setup.targets.xy && setup.partBefore === null && setup.handover === undefined;
const isOwn = ({ final: { setup } }: Pick<MillTrace, "final">): boolean => setup.handover === undefined;
const asksTwoSides = ({ final: { setup } }: Pick<MillTrace, "final">): boolean =>
  setup.handover === undefined && setup.targets.xy && setup.instruments.includes("pointedTool");

/** What a mill asks for, in the order of the work. */
export const millSteps: readonly StepRow<MillTrace>[] = [
  { step: "homedFirst", strand: "method", asked: () => true, done: homedFirst },
  {
    step: "burrBeforeTouch",
    strand: "method",
    asked: (trace) => isOwn(trace) && trace.final.setup.tasks.includes("dressBurr"),
    done: (trace) => {
      const dressed = seqOf(trace, "burrDressed");
      return dressed !== null && dressed < firstContactSeq(trace) ? dressed : null;
    },
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
      const places = tasks.map(
        (task) => trace.log.find(({ event }) => event.type === "taskDone" && event.task === task)?.seq ?? Infinity,
      );
      const last = Math.max(...places);
      return last < firstContactSeq(trace) ? last : null;
    },
  },
  {
    step: "speedStated",
    strand: "method",
    asked: (trace) => isOnPlace(trace) && trace.final.setup.instruments.includes("edgeFinder"),
    done: speedStated,
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
  },
  {
    step: "twoKicksX",
    strand: "method",
    asked: isOnPlace,
    done: (trace) => agreeing(trace, "x"),
  },
  {
    step: "twoKicksY",
    strand: "method",
    asked: isOnPlace,
    done: (trace) => agreeing(trace, "y"),
  },
  {
    step: "finestX",
    strand: "method",
    asked: isOnPlace,
    done: (trace) => finestContact(trace, "x"),
  },
  {
    step: "finestY",
    strand: "method",
    asked: isOnPlace,
    done: (trace) => finestContact(trace, "y"),
  },
  {
    step: "tipClean",
    strand: "method",
    asked: (trace) => isOwn(trace) && trace.final.setup.instruments.includes("beamSetter"),
    done: ({ log, readings }) => {
      const first = readings.find(({ event }) => event.instrument === "beamSetter")?.seq ?? Infinity;
      return log.find(({ event, seq }) => event.type === "tipBlown" && seq < first)?.seq ?? null;
    },
  },
  {
    step: "finestPaper",
    strand: "method",
    asked: (trace) =>
      isOwn(trace) && trace.final.setup.targets.lengths.length > 0 && trace.final.setup.partBefore === null,
    done: finestLengths,
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
      return isFromTwo
        ? (log.findLast(({ event }) => event.type === "lookedFrom" && event.isOverZero)?.seq ?? null)
        : null;
    },
  },
  { step: "checkedBefore", strand: "proving", asked: (trace) => !asksTwoSides(trace), done: checkedBefore },
  {
    step: "slowUntilProven",
    strand: "method",
    asked: (trace) => !isOwn(trace),
    done: (trace) => (firstFastMoveOnMill(trace) === null ? (trace.log.at(-1)?.seq ?? null) : null),
  },
];
