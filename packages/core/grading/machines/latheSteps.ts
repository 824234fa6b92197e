import type { TurningTrace } from "../../diagnosis";
import { toCounts } from "../../units";
import { homedFirst, isFineEnough, neverMoved, neverStarted, seqOf, speedStated, type StepRow } from "../steps";
import { programSteps } from "../proving";
import { checkedBefore, checkNote, neverChecked } from "../checking";
import { firstFastTurn } from "./latheHandover";

/** A skimmed diameter read at two places round it, the chuck turned by hand in between. */
function measuredTwice({ log }: TurningTrace): number | null {
  let isRead = false;
  let isTurned = false;
  for (const { seq, event } of log) {
    if (event.type === "turned" && event.axis === "z") [isRead, isTurned] = [false, false];
    if (event.type === "chuckTurned" && isRead) isTurned = true;
    if (event.type !== "readingShown" || event.what !== "turned") continue;
    if (isTurned) return seq;
    isRead = true;
  }
  return null;
}

/** Every tool that was changed came in the first time with the feed turned down. */
function feedDown({ log, final }: TurningTrace): number | null {
  let station = final.setup.lathe.tools[0]?.number ?? 1;
  let isLow = false;
  const fresh = new Set<number>();
  const came = new Map<number, { isLow: boolean; seq: number }>();
  for (const { seq, event } of log) {
    if (event.type === "turretIndexed") station = event.station;
    if (event.type === "feedTurned") isLow = event.isLow;
    if (event.type === "toolChanged") fresh.add(event.tool);
    if ((event.type === "moved" || event.type === "jogged") && fresh.delete(station)) came.set(station, { isLow, seq });
  }
  const changed = final.setup.lathe.gang?.changed ?? [];
  const all = changed.map((tool) => came.get(tool));
  return all.every((one) => one?.isLow === true) ? (all.at(-1)?.seq ?? null) : null;
}

type Sheet = Pick<TurningTrace, "final">;
const isOwn = ({ final: { setup } }: Sheet): boolean => setup.handover === undefined;
const wantedOf = ({ final: { setup } }: Sheet) => setup.lathe.targets;
/** Something is touched with a tool and set. */
const isTurned = (trace: Sheet): boolean => wantedOf(trace).x.length + wantedOf(trace).z.length > 0;
const isByArm = ({ final: { setup } }: Sheet): boolean =>
  setup.lathe.schools.every((school) => school === "setter-arm");
const isPrescribedArm = (trace: Sheet): boolean => isByArm(trace) && trace.final.setup.lathe.schools.length === 1;
/** Face and band come cut, by whoever set the other tools; a library that is kept says nothing of the part. */
const isSetAlready = ({ final: { kind, setup } }: Sheet): boolean =>
  kind !== "readout" && (setup.lathe.alreadySet ?? []).length > 0;
const turns = ({ kind }: { kind: string }): boolean => kind === "turning" || kind === "profiling";
/** A band is cut to set X by: not over a bar, and not by the arm. */
const isCut = (trace: Sheet): boolean =>
  isOwn(trace) &&
  trace.final.kind !== "gang" &&
  !isByArm(trace) &&
  !isSetAlready(trace) &&
  trace.final.setup.lathe.tools.some((tool) => wantedOf(trace).x.includes(tool.number) && turns(tool));
/** Some tool meets the part by a touch and not by a cut. */
const isTouched = (trace: Sheet): boolean =>
  trace.final.setup.lathe.tools.some(
    (tool) =>
      (wantedOf(trace).x.includes(tool.number) && !turns(tool) && tool.kind !== "boring") ||
      (wantedOf(trace).z.includes(tool.number) && tool.kind !== "turning"),
  );
/** A check that the school has of its own: the sum at the face, a row recalled, the cone's pass. */
const hasOwnCheck = (trace: Sheet): boolean =>
  isPrescribedArm(trace) ||
  (trace.final.kind === "readout" && isTurned(trace)) ||
  trace.final.setup.lathe.cone !== undefined;
const isTouch = ({ by }: { by: string }): boolean => by !== "cut" && by !== "arm";
const isOnBar = (trace: Sheet): boolean => isOwn(trace) && trace.final.kind === "gang";

/** What a lathe asks for, in the order of the work. */
export const latheSteps: readonly StepRow<TurningTrace>[] = [
  {
    step: "homedFirst",
    strand: "method",
    asked: (trace) => !isOwn(trace) || trace.final.kind !== "readout",
    done: homedFirst,
    isAbsent: neverMoved,
  },
  {
    step: "speedStated",
    strand: "method",
    asked: (trace) =>
      isOwn(trace) &&
      isTurned(trace) &&
      (!isSetAlready(trace) || trace.final.kind === "gang" || trace.final.setup.lathe.cone !== undefined),
    done: speedStated,
    isAbsent: neverStarted,
  },
  {
    step: "headstockTaken",
    strand: "method",
    asked: (trace) => isOwn(trace) && trace.final.setup.lathe.axis !== undefined,
    done: ({ log }) => {
      const said = log.findLast(({ event }) => event.type === "heightStated" && event.what === "axisHeight")?.seq ?? 0;
      const went = log.findLast(({ seq, event }) => seq < said && event.type === "stackTried" && event.goes);
      return went?.event.type === "stackTried" && went.event.under === "spindle" ? went.seq : null;
    },
    isAbsent: ({ log }) => !log.some(({ event }) => event.type === "stackTried" && event.goes),
  },
  {
    step: "gaugeZeroedFirst",
    strand: "method",
    asked: (trace) => isOwn(trace) && trace.final.setup.lathe.axis !== undefined,
    done: ({ log }) => {
      const read = log.findLast(({ event }) => event.type === "gaugeRead");
      return read?.event.type === "gaugeRead" && read.event.isZeroed && read.event.from === "below" ? read.seq : null;
    },
    isAbsent: (trace) => seqOf(trace, "gaugeRead") === null,
  },
  {
    step: "insertFresh",
    strand: "method",
    asked: ({ final }) => (final.setup.lathe.freshInsert ?? []).length > 0,
    done: ({ log, turret, final }) => {
      const seqs = (final.setup.lathe.freshInsert ?? []).map((tool) => {
        const changed = log.find(({ event }) => event.type === "insertChanged" && event.tool === tool)?.seq ?? null;
        const touched = turret.find((one) => one.tool === tool)?.seq ?? Infinity;
        return changed !== null && changed < touched ? changed : null;
      });
      return seqs.every((seq) => seq !== null) ? (seqs.at(-1) ?? null) : null;
    },
    isAbsent: (trace) => seqOf(trace, "insertChanged") === null,
  },
  {
    step: "raisedFromBelow",
    strand: "method",
    asked: ({ final }) => final.setup.lathe.hasHeightGauge === true,
    done: ({ log }) => {
      const last = log.findLast(({ event }) => event.type === "toolRaised");
      return last?.event.type === "toolRaised" && last.event.from === "below" ? last.seq : null;
    },
    isAbsent: (trace) => seqOf(trace, "toolRaised") === null,
  },
  {
    step: "facedClean",
    strand: "method",
    asked: (trace) => isOwn(trace) && wantedOf(trace).z.length > 0 && !isSetAlready(trace),
    done: ({ turret }) => {
      const faced = turret.find(({ by, on, isClean }) => by === "cut" && on === "face" && isClean)?.seq ?? null;
      const touched = turret.find(({ axis, by }) => axis === "z" && by !== "cut" && by !== "arm")?.seq ?? Infinity;
      return faced !== null && faced < touched ? faced : null;
    },
    isAbsent: ({ turret }) => !turret.some(({ axis, by }) => axis === "z" && by !== "arm"),
  },
  {
    step: "bandClean",
    strand: "method",
    asked: isCut,
    done: ({ turret, readings, changes, final }) => {
      // a readout's corner is a place and no diameter: it is zeroed where it was cut, and not measured
      const measured =
        final.kind === "readout"
          ? changes.findLast(({ event }) => event.register === "G54.x")
          : readings.findLast(({ event }) => event.what === "turned");
      const band = turret.findLast(
        ({ by, axis, on, seq }) => by === "cut" && axis === "x" && on === "diameter" && seq < (measured?.seq ?? 0),
      );
      return measured && band?.isClean ? measured.seq : null;
    },
    isAbsent: ({ turret }) => !turret.some(({ by, on }) => by === "cut" && on === "diameter"),
  },
  {
    step: "measuredTwice",
    strand: "method",
    asked: (trace) =>
      isOwn(trace) &&
      ((isCut(trace) && trace.final.kind === "turret") || (isSetAlready(trace) && trace.final.kind !== "gang")),
    done: measuredTwice,
  },
  {
    step: "barMeasured",
    strand: "method",
    asked: isOnBar,
    done: ({ readings, changes, turret, final }) => {
      const measured = readings.find(({ event }) => event.what === "turned")?.seq ?? null;
      const changed = new Set(final.setup.lathe.gang?.changed);
      const set = Math.min(
        changes.find(({ event }) => [...changed].some((tool) => event.register === `X${tool}`))?.seq ?? Infinity,
        turret.find(({ by }) => by === "slid")?.seq ?? Infinity,
      );
      return measured !== null && measured < set ? measured : null;
    },
    isAbsent: ({ turret, changes }) =>
      !turret.some(({ by }) => by === "slid") && !changes.some(({ event }) => event.register.startsWith("X")),
  },
  {
    step: "feedDown",
    strand: "method",
    asked: isOnBar,
    done: feedDown,
  },
  {
    step: "overhangClear",
    strand: "method",
    asked: isOnBar,
    done: ({ log, final }) => {
      const { gang } = final.setup.lathe;
      const last = (gang?.changed ?? []).map((tool) =>
        log.findLast(({ event }) => event.type === "toolChanged" && event.tool === tool),
      );
      const isClear = last.every(
        (entry) =>
          entry?.event.type === "toolChanged" &&
          Math.abs(entry.event.overhangMm - (gang?.overhangMm ?? 0)) < (gang?.clearanceMm ?? 0),
      );
      return isClear ? (last.at(-1)?.seq ?? null) : null;
    },
  },
  {
    step: "declaredAtStart",
    strand: "method",
    asked: (trace) => isOwn(trace) && trace.final.setup.lathe.start !== undefined,
    done: ({ changes, final }) => {
      const { start, targets: wanted } = final.setup.lathe;
      const declared = changes.filter(({ event }) => event.how === "declared");
      const isAtStart = (axis: "x" | "z", at: number) =>
        Math.abs(at - toCounts(axis === "x" ? (start?.xMm ?? 0) : (start?.zMm ?? 0), final.scale)) <= 1;
      const isRight = declared.every(
        ({ event, before }) =>
          before.lathe.station === wanted.z[0] &&
          isAtStart(
            event.register === "common.x" ? "x" : "z",
            event.register === "common.x" ? event.machine.x : event.machine.z,
          ),
      );
      return isRight ? (declared.at(-1)?.seq ?? null) : null;
    },
  },
  {
    step: "finestTurret",
    strand: "method",
    asked: (trace) => isOwn(trace) && isTouched(trace) && !isByArm(trace),
    done: ({ turret }, tolerancesMm) => {
      const touched = turret.filter(isTouch);
      const last = new Map(touched.map((one) => [`${one.tool}${one.axis}`, one]));
      return touched.length > 0 &&
        [...last.values()].every(({ axis, clickMm }) => isFineEnough(clickMm, tolerancesMm[axis]))
        ? (touched.at(-1)?.seq ?? null)
        : null;
    },
    isAbsent: ({ turret }) => !turret.some(isTouch),
  },
  {
    step: "armFolded",
    strand: "method",
    asked: (trace) => isOwn(trace) && isPrescribedArm(trace),
    done: ({ log }) => {
      const folded = log.findLast(({ event }) => event.type === "armSwung" && !event.isDown)?.seq ?? null;
      const down = log.findLast(({ event }) => event.type === "armSwung" && event.isDown)?.seq ?? 0;
      return folded !== null && folded > down ? folded : null;
    },
  },
  {
    step: "sumChecked",
    strand: "proving",
    asked: (trace) => isOwn(trace) && isPrescribedArm(trace),
    done: (trace) => checkedBefore(trace, "sumByHand"),
    isAbsent: (trace) => neverChecked(trace, "sumByHand"),
    note: (trace) => checkNote(trace, "sumByHand"),
  },
  {
    step: "recallChecked",
    strand: "proving",
    asked: (trace) => isOwn(trace) && trace.final.kind === "readout" && isTurned(trace),
    done: (trace) => checkedBefore(trace, "recalled"),
    isAbsent: (trace) => neverChecked(trace, "recalled"),
    note: (trace) => checkNote(trace, "recalled"),
  },
  {
    step: "coneProven",
    strand: "proving",
    asked: (trace) => isOwn(trace) && trace.final.setup.lathe.cone !== undefined,
    done: ({ log, changes, final }) => {
      const tools = (final.setup.lathe.targets.z ?? []).map((tool) => {
        const set = changes.findLast(({ event }) => event.register === `Z${tool}`)?.seq ?? Infinity;
        return (
          log.find(
            ({ seq, event }) => seq > set && event.type === "coneRan" && event.tool === tool && event.looks === "skims",
          )?.seq ?? null
        );
      });
      return tools.every((seq) => seq !== null) ? (tools.at(-1) ?? null) : null;
    },
  },
  {
    step: "checkedBefore",
    strand: "proving",
    // a check of the school's own is a check with its answer said first
    asked: (trace) => !isOwn(trace) || (isTurned(trace) && !hasOwnCheck(trace)),
    done: (trace) => checkedBefore(trace),
    isAbsent: (trace) => neverChecked(trace),
    note: (trace) => checkNote(trace),
  },
  {
    step: "slowUntilProven",
    strand: "method",
    asked: (trace) => !isOwn(trace),
    done: (trace) => (firstFastTurn(trace) === null ? (trace.log.at(-1)?.seq ?? null) : null),
  },
  ...programSteps,
];
