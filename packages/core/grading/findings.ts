import type { CheckName } from "../bench/commands";
import type { IncidentCode } from "../bench/events";
import type { LaneTrace } from "../diagnosis";
import { edgeOf, type Setup, type Truth } from "../exercises";
import { toolName } from "../instruments";
import { toCounts, toMm } from "../units";
import { firstFastMove, type HandoverFinding } from "./handover";
import type { WorkingFinding } from "./working";

export const methodSteps = [
  "homedFirst",
  "burrBeforeTouch",
  "seatedFirst",
  "speedStated",
  "twoKicksX",
  "twoKicksY",
  "finestX",
  "finestY",
  "finestPaper",
  "lookedTwoSides",
  "tasterTrued",
  "toolWiped",
  "tipClean",
  "checkedBefore",
  "spindleLooked",
  "slowUntilProven",
  "facedClean",
  "measuredTwice",
  "bandClean",
  "finestTurret",
  "armFolded",
  "recallChecked",
  "sumChecked",
  "barMeasured",
  "feedDown",
  "overhangClear",
  "headstockTaken",
  "gaugeZeroedFirst",
  "declaredAtStart",
  "coneProven",
] as const;
export type MethodStep = (typeof methodSteps)[number];

/** One reason for a mark: what was done or missed, or what happened, with its place in the log. */
export type Finding =
  | {
      readonly code: "stepDone" | "stepMissed";
      readonly step: MethodStep;
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number | null;
    }
  | {
      readonly code: "incident";
      readonly incident: IncidentCode;
      readonly cost: number;
      readonly failsOutright: boolean;
      readonly seq: number;
      readonly atMs: number;
      readonly rpm?: number | undefined;
    }
  | { readonly code: "noIncident"; readonly marks: number }
  | WorkingFinding
  | HandoverFinding;

/** How near two contacts of one face must fall to agree, mm. */
const AGREE_MM = 0.008;
/** A contact at this click, or finer, was found at the finest. An inch machine's least click is 2.54 µm. */
const FINEST_MM = 0.003;

/** Contacts on one axis that were made before its register was last set. */
function contactsUsed(trace: LaneTrace, axis: "x" | "y") {
  const lastSet = trace.changes.findLast(({ event }) => event.register === `G54.${axis}`);
  return lastSet ? trace.contacts.filter((contact) => contact.axis === axis && contact.seq < lastSet.seq) : [];
}

/** Two contacts, or two answers of a cycle or sweep, that agree; a middle wants them on both of its faces. */
function agreeing(trace: LaneTrace, axis: "x" | "y"): number | null {
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

function finestContact(trace: LaneTrace, axis: "x" | "y"): number | null {
  const lastSet = trace.changes.findLast(({ event }) => event.register === `G54.${axis}`);
  const read = trace.places.findLast((place) => place.axis === axis && place.seq < (lastSet?.seq ?? 0));
  if (read) return read.seq;
  const last = contactsUsed(trace, axis).at(-1);
  return last && last.clickMm <= FINEST_MM ? Math.ceil(last.seq) : null;
}

function firstContactSeq({ log }: LaneTrace): number {
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
function finestLengths(trace: LaneTrace): number | null {
  const seqs = trace.final.setup.targets.lengths.map((tool) => {
    const touch = trace.touches.findLast(({ holds, feel }) => holds === toolName(tool) && feel !== "torn");
    const read = trace.readings.findLast(({ event }) => event.tool === tool && event.values.length !== undefined);
    if (read && (!touch || touch.by === "plungerSetter")) return read.seq;
    return touch && touch.clickMm <= FINEST_MM ? touch.seq : null;
  });
  const done = seqs.filter((seq) => seq !== null);
  return done.length === seqs.length ? Math.max(...done) : null;
}

/**
 * A check with what was expected said first, judged as it looked; a surprise with the machine stopped and put right
 * counts as much.
 */
function checkedBefore({ log }: LaneTrace): number | null {
  let expected: number | null = null;
  let seen: number | null | undefined;
  for (const [place, { seq, event }] of log.entries()) {
    if (event.type === "checkExpected") expected = event.mm;
    if (event.type === "checkLooked") seen = event.seenMm;
    if (event.type !== "checkJudged" || expected === null || seen === undefined) continue;
    const isOff = seen !== null && Math.abs(seen - expected) > 1.5;
    const isHonest = event.isAsExpected ? !isOff : isOff || seen === null;
    const isPutRight =
      event.isAsExpected ||
      log.slice(place).some(({ event: later }) => later.type === "registerChanged" || later.type === "handRaised");
    if (isHonest && isPutRight) return seq;
    expected = null;
    seen = undefined;
  }
  return null;
}

/** A skimmed diameter read at two places round it, the chuck turned by hand in between. */
function measuredTwice({ log }: LaneTrace): number | null {
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

/** One check by its name, judged as it looked: figures that are read must agree this well, mm. */
const READ_ALIKE_MM = 0.06;
function checkedBy({ log }: LaneTrace, check: CheckName): number | null {
  let expected: number | null = null;
  let seen: number | null = null;
  for (const { seq, event } of log) {
    if (event.type === "checkExpected") [expected, seen] = [event.check === check ? event.mm : null, null];
    if (event.type === "checkLooked") seen = event.seenMm;
    if (event.type !== "checkJudged" || expected === null || seen === null) continue;
    if (event.isAsExpected === Math.abs(seen - expected) <= READ_ALIKE_MM) return seq;
  }
  return null;
}

/** Every tool that was changed came in the first time with the feed turned down. */
function feedDown({ log, final }: LaneTrace): number | null {
  let station = final.setup.lathe?.tools[0]?.number ?? 1;
  let isLow = false;
  const fresh = new Set<number>();
  const came = new Map<number, { isLow: boolean; seq: number }>();
  for (const { seq, event } of log) {
    if (event.type === "turretIndexed") station = event.station;
    if (event.type === "feedTurned") isLow = event.isLow;
    if (event.type === "toolChanged") fresh.add(event.tool);
    if ((event.type === "moved" || event.type === "jogged") && fresh.delete(station)) came.set(station, { isLow, seq });
  }
  const changed = final.setup.lathe?.gang?.changed ?? [];
  const all = changed.map((tool) => came.get(tool));
  return all.every((one) => one?.isLow === true) ? (all.at(-1)?.seq ?? null) : null;
}

const seqOf = ({ log }: LaneTrace, type: string): number | null =>
  log.find(({ event }) => event.type === type)?.seq ?? null;

/** Where in the log each step was done; null when it was not. */
const DONE: Record<MethodStep, (trace: LaneTrace) => number | null> = {
  homedFirst: ({ log }) => {
    const homed = log.find(({ event }) => event.type === "homed");
    const jogged = log.find(({ event }) => event.type === "jogged" || event.type === "blockRan");
    return homed && homed.seq < (jogged?.seq ?? Infinity) ? homed.seq : null;
  },
  burrBeforeTouch: (trace) => {
    const dressed = seqOf(trace, "burrDressed");
    return dressed !== null && dressed < firstContactSeq(trace) ? dressed : null;
  },
  seatedFirst: (trace) => {
    const tasks = trace.final.setup.tasks.filter(
      (task) => task !== "dressBurr" && task !== "releaseStop" && task !== "lowRapid",
    );
    const places = tasks.map(
      (task) => trace.log.find(({ event }) => event.type === "taskDone" && event.task === task)?.seq ?? Infinity,
    );
    const last = Math.max(...places);
    return last < firstContactSeq(trace) ? last : null;
  },
  speedStated: ({ log }) => {
    const starts = log.filter(({ event }) => event.type === "spindleStarted");
    return starts.length > 0 && starts.every(({ event }) => event.type === "spindleStarted" && event.isStated)
      ? (starts[0]?.seq ?? null)
      : null;
  },
  twoKicksX: (trace) => agreeing(trace, "x"),
  twoKicksY: (trace) => agreeing(trace, "y"),
  finestX: (trace) => finestContact(trace, "x"),
  finestY: (trace) => finestContact(trace, "y"),
  finestPaper: finestLengths,
  lookedTwoSides: ({ log, final }) => {
    const { sidesOverZero } = final.evidence;
    const isFromTwo =
      sidesOverZero.some((side) => side === "front" || side === "back") &&
      sidesOverZero.some((side) => side === "left" || side === "right");
    return isFromTwo
      ? (log.findLast(({ event }) => event.type === "lookedFrom" && event.isOverZero)?.seq ?? null)
      : null;
  },
  tasterTrued: (trace) => {
    const trued = seqOf(trace, "tasterTrued");
    const first = trace.contacts.find(({ by }) => by === "taster")?.seq ?? Infinity;
    return trued !== null && trued < first ? trued : null;
  },
  toolWiped: ({ log }) => {
    const wiped = log.find(({ event }) => event.type === "taskDone" && event.task === "wipeTaper")?.seq ?? null;
    const loaded = log.find(({ event }) => event.type === "loaded")?.seq ?? Infinity;
    return wiped !== null && wiped < loaded ? wiped : null;
  },
  tipClean: ({ log, readings }) => {
    const first = readings.find(({ event }) => event.instrument === "beamSetter")?.seq ?? Infinity;
    return log.find(({ event, seq }) => event.type === "tipBlown" && seq < first)?.seq ?? null;
  },
  checkedBefore,
  spindleLooked: ({ log }) => {
    const swapped = log.find(({ event }) => event.type === "pocketsSwapped")?.seq ?? null;
    const strike =
      log.find(({ event }) => event.type === "incidentHappened" && event.code === "toolChipped")?.seq ?? Infinity;
    return swapped !== null && swapped < strike ? swapped : null;
  },
  facedClean: ({ turret }) => {
    const faced = turret.find(({ by, on, isClean }) => by === "cut" && on === "face" && isClean)?.seq ?? null;
    const touched = turret.find(({ axis, by }) => axis === "z" && by !== "cut" && by !== "arm")?.seq ?? Infinity;
    return faced !== null && faced < touched ? faced : null;
  },
  measuredTwice,
  bandClean: ({ turret, readings, changes, final }) => {
    // a readout's corner is a place and no diameter: it is zeroed where it was cut, and not measured
    const measured =
      final.setup.lathe?.control === "readout"
        ? changes.findLast(({ event }) => event.register === "G54.x")
        : readings.findLast(({ event }) => event.what === "turned");
    const band = turret.findLast(
      ({ by, axis, on, seq }) => by === "cut" && axis === "x" && on === "diameter" && seq < (measured?.seq ?? 0),
    );
    return measured && band?.isClean ? measured.seq : null;
  },
  finestTurret: ({ turret }) => {
    const touched = turret.filter(({ by }) => by !== "cut" && by !== "arm");
    const last = new Map(touched.map((one) => [`${one.tool}${one.axis}`, one]));
    return touched.length > 0 && [...last.values()].every(({ clickMm }) => clickMm <= FINEST_MM)
      ? (touched.at(-1)?.seq ?? null)
      : null;
  },
  armFolded: ({ log }) => {
    const folded = log.findLast(({ event }) => event.type === "armSwung" && !event.isDown)?.seq ?? null;
    const down = log.findLast(({ event }) => event.type === "armSwung" && event.isDown)?.seq ?? 0;
    return folded !== null && folded > down ? folded : null;
  },
  recallChecked: (trace) => checkedBy(trace, "recalled"),
  sumChecked: (trace) => checkedBy(trace, "sumByHand"),
  barMeasured: ({ readings, changes, turret, final }) => {
    const measured = readings.find(({ event }) => event.what === "turned")?.seq ?? null;
    const changed = new Set(final.setup.lathe?.gang?.changed);
    const set = Math.min(
      changes.find(({ event }) => [...changed].some((tool) => event.register === `X${tool}`))?.seq ?? Infinity,
      turret.find(({ by }) => by === "slid")?.seq ?? Infinity,
    );
    return measured !== null && measured < set ? measured : null;
  },
  feedDown,
  headstockTaken: ({ log }) => {
    const said = log.findLast(({ event }) => event.type === "heightStated" && event.what === "axisHeight")?.seq ?? 0;
    const went = log.findLast(({ seq, event }) => seq < said && event.type === "stackTried" && event.goes);
    return went?.event.type === "stackTried" && went.event.under === "spindle" ? went.seq : null;
  },
  gaugeZeroedFirst: ({ log }) => {
    const read = log.findLast(({ event }) => event.type === "gaugeRead");
    return read?.event.type === "gaugeRead" && read.event.isZeroed && read.event.from === "below" ? read.seq : null;
  },
  declaredAtStart: ({ changes, final }) => {
    const { start, targets: wanted } = final.setup.lathe ?? {};
    const declared = changes.filter(({ event }) => event.how === "declared");
    const isAtStart = (axis: "x" | "z", at: number) =>
      Math.abs(at - toCounts(axis === "x" ? (start?.xMm ?? 0) : (start?.zMm ?? 0), final.scale)) <= 1;
    const isRight = declared.every(
      ({ event, station }) =>
        station === wanted?.z[0] &&
        isAtStart(
          event.register === "common.x" ? "x" : "z",
          event.register === "common.x" ? event.machine.x : event.machine.z,
        ),
    );
    return isRight ? (declared.at(-1)?.seq ?? null) : null;
  },
  overhangClear: ({ log, final }) => {
    const { gang } = final.setup.lathe ?? {};
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
  coneProven: ({ log, changes, final }) => {
    const tools = (final.setup.lathe?.targets.z ?? []).map((tool) => {
      const set = changes.findLast(({ event }) => event.register === `Z${tool}`)?.seq ?? Infinity;
      return (
        log.find(
          ({ seq, event }) => seq > set && event.type === "coneRan" && event.tool === tool && event.looks === "skims",
        )?.seq ?? null
      );
    });
    return tools.every((seq) => seq !== null) ? (tools.at(-1) ?? null) : null;
  },
  slowUntilProven: (trace) => (firstFastMove(trace) === null ? (trace.log.at(-1)?.seq ?? null) : null),
};

/** Checks that a school has of its own. */
const OWN_CHECKS = new Set<MethodStep>(["sumChecked", "recallChecked", "coneProven"]);

/** The steps that an exercise asks for, by what it sets and with what. */
export function stepsFor(setup: Setup, truth: Pick<Truth, "pockets">): MethodStep[] {
  const { targets, instruments, tasks, partBefore } = setup;
  if (setup.handover) return ["homedFirst", "checkedBefore", "slowUntilProven"];
  const isOnPlace = targets.xy && partBefore === null;
  const hasFinder = instruments.includes("edgeFinder");
  if (setup.lathe) {
    const { targets: wanted, tools, schools, control = "turret", alreadySet = [] } = setup.lathe;
    const isTurned = wanted.x.length + wanted.z.length > 0;
    const isOnBar = control === "gang";
    const [school] = schools;
    const isCut =
      !isOnBar &&
      !schools.every((school) => school === "setter-arm") &&
      tools.some(({ number, kind }) => wanted.x.includes(number) && (kind === "turning" || kind === "profiling"));
    const isTouched = tools.some(
      ({ number, kind }) =>
        (wanted.x.includes(number) && kind !== "turning" && kind !== "profiling" && kind !== "boring") ||
        (wanted.z.includes(number) && kind !== "turning"),
    );
    const lathe: [MethodStep, boolean][] = [
      ["homedFirst", control !== "readout"],
      ["speedStated", isTurned],
      ["headstockTaken", setup.lathe.axis !== undefined],
      ["gaugeZeroedFirst", setup.lathe.axis !== undefined],
      ["facedClean", wanted.z.length > 0 && alreadySet.length === 0],
      ["bandClean", isCut],
      ["measuredTwice", (isCut && control === "turret") || (alreadySet.length > 0 && !isOnBar)],
      ["barMeasured", isOnBar],
      ["feedDown", isOnBar],
      ["overhangClear", isOnBar],
      ["declaredAtStart", setup.lathe.start !== undefined],
      ["finestTurret", isTouched && !schools.every((school) => school === "setter-arm")],
      ["armFolded", schools.length === 1 && school === "setter-arm"],
      ["sumChecked", schools.length === 1 && school === "setter-arm"],
      ["recallChecked", control === "readout" && isTurned],
      ["coneProven", setup.lathe.cone !== undefined],
    ];
    const asked = lathe.filter(([, isAsked]) => isAsked).map(([step]) => step);
    // a check of the school's own is a check with its answer said first
    return asked.some((step) => OWN_CHECKS.has(step)) || !isTurned ? asked : [...asked, "checkedBefore"];
  }
  const steps: [MethodStep, boolean][] = [
    ["homedFirst", true],
    ["burrBeforeTouch", tasks.includes("dressBurr")],
    ["toolWiped", tasks.includes("wipeTaper")],
    [
      "seatedFirst",
      tasks.some(
        (task) => task === "pushToStop" || task === "tapDown" || task === "seatOnParallels" || task === "sweepJaw",
      ),
    ],
    ["speedStated", hasFinder && isOnPlace],
    ["tasterTrued", instruments.includes("taster")],
    ["twoKicksX", isOnPlace],
    ["twoKicksY", isOnPlace],
    ["finestX", isOnPlace],
    ["finestY", isOnPlace],
    ["tipClean", instruments.includes("beamSetter")],
    ["finestPaper", targets.lengths.length > 0 && partBefore === null],
    ["spindleLooked", truth.pockets !== undefined],
    ["lookedTwoSides", targets.xy && instruments.includes("pointedTool")],
  ];
  const asked = steps.filter(([, isAsked]) => isAsked).map(([step]) => step);
  return asked.includes("lookedTwoSides") ? asked : [...asked, "checkedBefore"];
}

/** Steps that prove what was set; they have a strand of their own where the marking gives it weight. */
const PROVING = new Set<MethodStep>(["lookedTwoSides", "checkedBefore", "sumChecked", "recallChecked", "coneProven"]);

/**
 * Each required step of a strand, with an equal share of it. Without a weight for proving its steps count as method.
 */
export function stepFindings(
  trace: LaneTrace,
  strand: "method" | "proving",
  { method, proving }: { method: number; proving: number },
): Finding[] {
  const outOf = strand === "method" ? method : proving;
  // of a setup that was handed over the strand of proving is what was found in it
  const isProved = (step: MethodStep) => PROVING.has(step) && proving > 0 && !trace.final.setup.handover;
  const steps = stepsFor(trace.final.setup, trace.final.truth).filter(
    (step) => (strand === "proving") === isProved(step),
  );
  const share = steps.length > 0 ? outOf / steps.length : 0;
  return steps.map((step) => {
    const seq = DONE[step](trace);
    return { code: seq === null ? "stepMissed" : "stepDone", step, marks: seq === null ? 0 : share, outOf: share, seq };
  });
}

/** Share of the safety strand that each incident costs. */
const COST: Record<IncidentCode, number> = {
  finderThrown: 0.4,
  finderBent: 0.2,
  finderBroken: 0.4,
  toolChipped: 0.4,
  noseStruck: 1,
  paperUnderTurningTool: 1,
  paperTorn: 0.1,
  tasterBroken: 0.4,
  probeBroken: 0.4,
  indicatorBroken: 0.4,
  startedWithInstrument: 0.6,
  changerStruck: 0.6,
  blockCrushed: 0.4,
  gaugeDamaged: 0.2,
  setterDamaged: 0.3,
  insertChipped: 0.4,
  jawStruck: 1,
  armStruck: 0.4,
  handAtChuck: 1,
  neighborStruck: 0.4,
};

export function safetyFindings({ log }: LaneTrace, outOf: number): Finding[] {
  const incidents = log.flatMap(({ seq, atMs, event }): Finding[] =>
    event.type === "incidentHappened"
      ? [
          {
            code: "incident",
            incident: event.code,
            cost: COST[event.code] * outOf,
            failsOutright: event.failsOutright,
            seq,
            atMs,
            rpm: event.rpm,
          },
        ]
      : [],
  );
  return incidents.length > 0 ? incidents : [{ code: "noIncident", marks: outOf }];
}
