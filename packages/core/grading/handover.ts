import type { CauseId, LaneTrace, LoggedEvent } from "../diagnosis";
import { skinZMm, SLOW_BELOW_MM, type Fault, type FaultKind, type TargetId } from "../exercises";
import { toolName, toolNumber } from "../instruments";
import { toMm } from "../units";
import type { RegisterRuling } from "./ruling";

/** What became of a setup that was handed over: each fault, what was sound, and what was said of the whole. */
export type HandoverFinding =
  | {
      readonly code: "faultFound";
      readonly fault: Fault;
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number;
    }
  | {
      readonly code: "faultMissed";
      readonly fault: Fault;
      readonly why: "noReading" | "notPutRight" | "tooLate";
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number | null;
    }
  | {
      readonly code: "soundRead" | "soundUnread";
      readonly target: TargetId;
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number | null;
    }
  | {
      readonly code: "soundSpoiled";
      readonly target: TargetId;
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number | null;
    }
  | {
      readonly code: "verdict";
      readonly said: "sound" | "faulty" | null;
      readonly isTrue: boolean;
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number | null;
    };

/** What an eye or a rule can tell, mm. */
const BY_EYE_MM = 1.5;
const BY_RULE_MM = 3;
const TOUCHING_UP_MM = 0.02;
/** Share of the strand for what is said of the whole; the faults have the rest. */
const VERDICT_SHARE = 0.2;
/** Share of the strand that spoiling one sound value costs. */
const SPOILED_SHARE = 0.25;

/** The first rapid move that read a register and ended low over the part: from there on nothing is found in time. */
export function firstFastMove(trace: LaneTrace): number | null {
  const { log, final } = trace;
  const { setup, truth, scale } = final;
  if (truth.lathe) return firstFastTurn(trace);
  // a block's own move is the first after it; what a cycle does later reads no register
  let readsRegisters = false;
  let holds: string | null = null;
  for (const { seq, event } of log) {
    if (event.type === "blockRan") readsRegisters = !/G53/i.test(event.text);
    if (event.type === "loaded") holds = event.thing;
    if (event.type === "unloaded") holds = null;
    if (event.type !== "moved") continue;
    const isByBlock = readsRegisters;
    readsRegisters = false;
    if (!event.isRapid || !isByBlock) continue;
    const tipMm =
      toMm(event.to.z, scale) - (holds === null ? 0 : (truth.lengthsMm[holds as keyof typeof truth.lengthsMm] ?? 0));
    if (tipMm < skinZMm(setup, truth.datumMm.z) + SLOW_BELOW_MM) return seq;
  }
  return null;
}

/**
 * On a lathe: a rapid move that reads registers and ends with the tip this near to the part, before its face and beside
 * it.
 */
function firstFastTurn({ log, final }: LaneTrace): number | null {
  const { truth, scale } = final;
  const { tools = {}, handed, stock } = truth.lathe ?? {};
  let readsRegisters = false;
  let station = final.setup.lathe?.tools[0]?.number ?? 1;
  for (const { seq, event } of log) {
    if (event.type === "blockRan") readsRegisters = !/G53/i.test(event.text);
    if (event.type === "turretIndexed") station = event.station;
    if (event.type !== "moved") continue;
    const isByBlock = readsRegisters;
    readsRegisters = false;
    const { kxMm, qMm } = tools[station] ?? { kxMm: 0, qMm: 0 };
    const isNear =
      toMm(event.to.z, scale) - qMm < (handed?.faceMm ?? 0) + SLOW_BELOW_MM &&
      (toMm(event.to.x, scale) - kxMm) / 2 < (stock?.diameterMm ?? 0) / 2 + SLOW_BELOW_MM;
    if (event.isRapid && isByBlock && isNear) return seq;
  }
  return null;
}

type Read = (trace: LaneTrace, before: number) => number | null;
const last = (...seqs: (number | undefined | null)[]): number | null =>
  seqs.reduce<number | null>((best, seq) => (seq != null && seq > (best ?? -1) ? Math.ceil(seq) : best), null);

const contactOn =
  (axis: "x" | "y"): Read =>
  ({ contacts, places }, before) =>
    last(
      contacts.findLast((one) => one.axis === axis && one.seq < before)?.seq,
      places.findLast((one) => one.axis === axis && one.seq < before)?.seq,
    );

/** Stood over the zero and looked along the other axis, so that an error of some mm shows. */
const lookOver =
  (axis: "x" | "y"): Read =>
  ({ log }, before) => {
    const across = axis === "x" ? ["front", "back"] : ["left", "right"];
    return last(
      log.findLast(
        ({ seq, event }) =>
          seq < before && event.type === "lookedFrom" && event.isOverZero && across.includes(event.side),
      )?.seq,
    );
  };

const placeRead =
  (axis: "x" | "y", byMm: number): Read =>
  (trace, before) =>
    last(contactOn(axis)(trace, before), Math.abs(byMm) >= BY_EYE_MM ? lookOver(axis)(trace, before) : null);

/** The tool was let down on something, or a setter gave its length. */
const toolMeasured =
  (tool: number): Read =>
  ({ touches, readings }, before) =>
    last(
      touches.findLast(({ seq, holds, feel }) => seq < before && holds === toolName(tool) && feel !== "torn")?.seq,
      readings.findLast(({ seq, event }) => seq < before && event.tool === tool && event.values.length !== undefined)
        ?.seq,
    );

/** A rule beside the tool: enough for a length that is grossly wrong. */
const toolRuled =
  (tool: number): Read =>
  ({ readings, log }, before) => {
    const checks = log.filter(
      ({ seq, event }) =>
        seq < before && event.type === "checkExpected" && event.check === "ruleBeside" && event.tool === tool,
    );
    return last(
      readings.findLast(({ seq, event }) => seq < before && event.what === "reach" && event.tool === tool)?.seq,
      checks.at(-1)?.seq,
    );
  };

const toolRead =
  (tool: number, byMm: number): Read =>
  (trace, before) =>
    last(toolMeasured(tool)(trace, before), Math.abs(byMm) >= BY_RULE_MM ? toolRuled(tool)(trace, before) : null);

/** The part touched with something whose length does not hang on the setter: the bare nose, or the probe. */
const partTouched =
  (isByNose: boolean): Read =>
  ({ touches }, before) =>
    last(
      touches.findLast(
        ({ seq, on, holds, feel }) =>
          seq < before &&
          (on === "stock" || on === "boss") &&
          feel !== "torn" &&
          (!isByNose || holds === null || holds === "probe"),
      )?.seq,
    );

/** The setter proved: by the bare nose on its plunger, or by the part touched with the nose and with a tool. */
const setterRead: Read = (trace, before) => {
  const nose = trace.touches.findLast(({ seq, on, holds }) => seq < before && on === "setter" && holds === null)?.seq;
  const byNose = partTouched(true)(trace, before);
  const byTool = trace.touches.findLast(
    ({ seq, on, holds }) => seq < before && on === "stock" && toolNumber(holds) !== null,
  )?.seq;
  return last(nose, byNose !== null && byTool !== undefined ? Math.max(byNose, byTool) : null);
};

/** A turret tool met the part on an axis, or cut it. */
const turretRead =
  (tool: number, axis: "x" | "z"): Read =>
  ({ turret }, before) =>
    last(turret.findLast((one) => one.tool === tool && one.axis === axis && one.seq < before)?.seq);
const anyFace: Read = ({ turret }, before) =>
  last(turret.findLast(({ axis, seq }) => axis === "z" && seq < before)?.seq);
const isTurning = ({ final }: LaneTrace): boolean => final.setup.lathe !== undefined;

const effectOn = ({ effects }: Fault, target: TargetId): number =>
  effects.find((one) => one.target === target)?.mm ?? 0;

/** The reading that tells a fault from the others, by what it puts off and by how much. */
const SEPARATES: Record<FaultKind, (fault: Fault) => Read> = {
  feelerOnce: ({ tool = 0 }) => turretRead(tool, "x"),
  bladeEdge: ({ tool = 0 }) => turretRead(tool, "z"),
  oldWorkZ: () => anyFace,
  facedAgain: () => anyFace,
  neighborRow: (fault) => (trace, before) =>
    isTurning(trace)
      ? last(
          ...fault.effects.map(({ target }) =>
            turretRead(Number(target.slice(1)), target.startsWith("X") ? "x" : "z")(trace, before),
          ),
        )
      : last(...fault.effects.map(({ target, mm }) => toolRead(Number(target.slice(1)), mm)(trace, before))),
  staleWear:
    ({ tool = 0 }) =>
    (trace, before) =>
      (isTurning(trace) ? turretRead(tool, "x") : toolMeasured(tool))(trace, before),
  schoolMixed: (fault) => toolRead(fault.tool ?? 0, effectOn(fault, `z${fault.tool ?? 0}`)),
  radiusSign: (fault) => placeRead(fault.axis ?? "x", effectOn(fault, fault.axis ?? "x")),
  setterMoved: () => setterRead,
  wrongOffset: (fault) => (trace, before) =>
    last(
      placeRead("x", effectOn(fault, "x"))(trace, before),
      placeRead("y", effectOn(fault, "y"))(trace, before),
      partTouched(false)(trace, before),
    ),
  offStop: (fault) => placeRead("x", effectOn(fault, "x")),
};

const CAUSES: Record<FaultKind, CauseId> = {
  neighborRow: "neighborRow",
  staleWear: "oldWear",
  schoolMixed: "schoolsMixed",
  radiusSign: "radiusSignTurned",
  setterMoved: "setterMoved",
  wrongOffset: "otherRegister",
  offStop: "partMoved",
  feelerOnce: "feelerOnce",
  bladeEdge: "otherBladeEdge",
  oldWorkZ: "leftoverWorkZ",
  facedAgain: "faceCutAgain",
};

/** The moment that put a fault right: the last change of what it hangs on. */
function changedAt(trace: LaneTrace, { kind, registers, effects }: Fault): number | null {
  if (kind === "offStop")
    return trace.log.findLast(({ event }) => event.type === "taskDone" && event.task === "pushToStop")?.seq ?? null;
  // a sum can be put right in any of its registers
  const sums = effects.some(({ target }) => target.startsWith("z"))
    ? effects.flatMap(({ target }) => [`H${target.slice(1)}`, `HW${target.slice(1)}`]).concat("G54.z", "common.z")
    : [];
  const turned = effects.flatMap(({ target }) =>
    /^[XZ]\d/.test(target)
      ? [target, `${target.slice(0, 1)}W${target.slice(1)}`, `G54.${target.startsWith("X") ? "x" : "z"}`]
      : [],
  );
  const all = new Set<string>([...registers, ...sums, ...turned]);
  const changes = trace.changes.filter(({ event }) => all.has(event.register));
  // a few micrometres of touching up later do not make what was put right late
  const large = changes.findLast(
    ({ event }) => Math.abs(toMm(event.to - event.from, trace.final.scale)) > TOUCHING_UP_MM,
  );
  return (large ?? changes.at(-1))?.seq ?? null;
}

/**
 * Which faults still stand: of all subsets the one whose effects come nearest to the closures as they were handed in. A
 * fault is put right when it is not among them and no value that it touches is off by anything else.
 */
function standing(faults: readonly Fault[], values: readonly RegisterRuling[]): readonly Fault[] {
  const subsets = faults.reduce<Fault[][]>((all, fault) => [...all, ...all.map((some) => [...some, fault])], [[]]);
  const missBy = (some: readonly Fault[]) =>
    values.reduce(
      (total, { target, closureMm }) =>
        total + Math.abs(closureMm - some.reduce((sum, fault) => sum + effectOn(fault, target), 0)),
      0,
    );
  return subsets.reduce((best, some) => (missBy(some) < missBy(best) - 1e-9 ? some : best));
}

const leftMm = ({ target, closureMm }: RegisterRuling, faults: readonly Fault[]): number =>
  closureMm - faults.reduce((sum, fault) => sum + effectOn(fault, target), 0);

/**
 * A value that a standing fault explains is caused by it and by nothing the student did: proven, because it was handed
 * over so. One fault that puts several values off costs once: the first of them carries it, the others are marked on
 * what else they are off by.
 */
export function withFaults(
  { final }: LaneTrace,
  values: readonly RegisterRuling[],
  marksFor: (value: RegisterRuling, closureMm: number) => number,
): RegisterRuling[] {
  const left = standing(final.truth.faults ?? [], values);
  return values.map((value) => {
    const own = left.filter((fault) => effectOn(fault, value.target) !== 0);
    if (
      own.length === 0 ||
      Math.abs(value.closureMm) <= value.toleranceMm ||
      Math.abs(leftMm(value, own)) > value.toleranceMm
    )
      return value;
    const isFirst = (fault: Fault) => values.find(({ target }) => effectOn(fault, target) !== 0) === value;
    const sharedMm = own
      .filter((fault) => fault.effects.length > 1)
      .reduce((sum, fault) => sum + effectOn(fault, value.target), 0);
    const chargedMm = own
      .filter(isFirst)
      .reduce((sum, fault) => sum + effectOn(fault, value.target), leftMm(value, own));
    return {
      ...value,
      sharedMm,
      marks: marksFor(value, chargedMm),
      cause: {
        kind: "proven",
        terms: own.map((fault) => ({ id: CAUSES[fault.kind], mm: effectOn(fault, value.target), seq: 1 })),
      },
    };
  });
}

const readingOf = (target: TargetId): Read => {
  if (/^[XZ]\d/.test(target)) return turretRead(Number(target.slice(1)), target.startsWith("X") ? "x" : "z");
  return target === "x" || target === "y"
    ? (trace, before) => last(contactOn(target)(trace, before), lookOver(target)(trace, before))
    : toolMeasured(Number(target.slice(1)));
};

const registersOf = (target: TargetId): string[] => {
  if (/^[XZ]\d/.test(target)) return [target, `${target.slice(0, 1)}W${target.slice(1)}`];
  return target === "x" || target === "y" ? [`G54.${target}`] : [`H${target.slice(1)}`, `HW${target.slice(1)}`];
};

const verdictSeq = (log: readonly LoggedEvent[]): number | null =>
  log.findLast(({ event }) => event.type === "setupJudged")?.seq ?? null;

/**
 * The strand of proving for a setup that was handed over. A fault counts as found when a reading in the log separates
 * it from the others, what was wrong is right at hand-in, and both came before anything moved at speed. A sound setup
 * earns by what was read of it. What is said of the whole earns a part of it only where it is true; a sound value that
 * was spoiled costs.
 */
export function handoverFindings(
  trace: LaneTrace,
  values: readonly RegisterRuling[],
  outOf: number,
): HandoverFinding[] {
  const { final, log } = trace;
  const faults = final.truth.faults ?? [];
  const fastAt = firstFastMove(trace) ?? Infinity;
  const left = standing(faults, values);
  const each = (outOf * (1 - VERDICT_SHARE)) / Math.max(1, faults.length || values.length);
  const found = faults.map((fault): HandoverFinding => {
    const touched = values.filter(({ target }) => effectOn(fault, target) !== 0);
    const isRight =
      !left.includes(fault) && touched.every((value) => Math.abs(leftMm(value, left)) <= value.toleranceMm);
    const changed = changedAt(trace, fault);
    const missed = (why: "noReading" | "notPutRight" | "tooLate", seq: number | null): HandoverFinding => ({
      code: "faultMissed",
      fault,
      why,
      marks: 0,
      outOf: each,
      seq,
    });
    const read = SEPARATES[fault.kind](fault)(trace, changed ?? Infinity);
    if (read === null) return missed("noReading", null);
    if (!isRight || changed === null) return missed("notPutRight", read);
    return changed > fastAt
      ? missed("tooLate", fastAt)
      : { code: "faultFound", fault, marks: each, outOf: each, seq: read };
  });
  const proven =
    faults.length > 0
      ? []
      : values.map(({ target }): HandoverFinding => {
          const seq = readingOf(target)(trace, fastAt);
          return {
            code: seq === null ? "soundUnread" : "soundRead",
            target,
            marks: seq === null ? 0 : each,
            outOf: each,
            seq,
          };
        });
  const spoiled = values.flatMap((value): HandoverFinding[] => {
    const isSound = faults.every((fault) => effectOn(fault, value.target) === 0);
    const change = trace.changes.findLast(({ event }) => registersOf(value.target).includes(event.register));
    const isSpoiled = isSound && change !== undefined && Math.abs(value.closureMm) > value.toleranceMm;
    return isSpoiled
      ? [{ code: "soundSpoiled", target: value.target, marks: -outOf * SPOILED_SHARE, outOf: 0, seq: change.seq }]
      : [];
  });
  const said = final.desk.verdict;
  const isTrue = said === (faults.length > 0 ? "faulty" : "sound");
  const isFalselyFaulty = said === "faulty" && faults.length === 0;
  return [
    ...found,
    ...proven,
    ...spoiled,
    {
      code: "verdict",
      said,
      isTrue,
      marks: isTrue ? outOf * VERDICT_SHARE : isFalselyFaulty ? -outOf * SPOILED_SHARE : 0,
      outOf: outOf * VERDICT_SHARE,
      seq: verdictSeq(log),
    },
  ];
}
