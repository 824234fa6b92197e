import { datumNowMm, skewNowDeg } from "../bench/solids";
import {
  causeOf,
  edgeEvidence,
  lengthEvidence,
  physicalTerms,
  targetSignatures,
  traceLane,
  zSumCounts,
  type Cause,
  type CauseSignature,
  type Evidence,
  type Figures,
  type LaneTrace,
  type LoggedEvent,
} from "../diagnosis";
import {
  edgeOf,
  expectedDiameter,
  expectedLengths,
  lengthBias,
  targetsOf,
  together,
  upgradeSetup,
  wantedLengthMm,
  xyBias,
  type LatheSchool,
  type LengthMethod,
  type Marking,
  type MethodBias,
  type MillLengthSchool,
  type TargetId,
  type XyMethod,
} from "../exercises";
import { toolName } from "../instruments";
import { readRegister, type RegisterId } from "../registers";
import { toMm } from "../units";
import { handoverFindings, withFaults } from "./handover";
import { latheSchoolOf, ruleTurret } from "./lathe";
import { safetyFindings, stepFindings, type Finding } from "./findings";
import { workingFindings } from "./working";

/** Stored with every ruling, so that a later change of the marking code never passes for the old one. */
export const rulingVersion = "4";

export const strandNames = ["values", "working", "method", "safety", "proving"] as const;
export type StrandName = (typeof strandNames)[number];
export interface StrandMarks {
  readonly name: StrandName;
  /** What counts. */
  readonly marks: number;
  readonly outOf: number;
  /** Where an instructor gave other marks than the log earned: those of the log, who, why, when. */
  readonly given?: { readonly earned: number; readonly by: string; readonly reason: string; readonly at: string };
}

/**
 * One value of the lane: a work offset, what the registers of a tool add up to, one register of a prescribed school, a
 * turn.
 */
export interface RegisterRuling {
  readonly target: TargetId;
  /** What the registers add up to, and what they should: mm, or degrees for a turn. */
  readonly held: number;
  readonly wanted: number;
  readonly closureMm: number;
  readonly toleranceMm: number;
  readonly zeroAtMm: number;
  readonly biasMm: number;
  readonly uMm: number;
  readonly marks: number;
  readonly outOf: number;
  /**
   * How much of the closure it shares with the other tools and was charged to the first of them, mm; 0 where it stands
   * alone.
   */
  readonly sharedMm: number;
  /** Right given an earlier wrong value, so that its marks are kept. */
  readonly isFollowThrough: boolean;
  readonly signatures: readonly CauseSignature[];
  readonly contact: Evidence["contact"];
  /** What the contact was made with, and what still lay between it and the face, mm; null where the log has none. */
  readonly method: { readonly by: string; readonly offMm: number } | null;
  readonly cause: Cause;
}

export type SchoolRead = MillLengthSchool | LatheSchool | "unclear";

export interface Ruling {
  readonly version: string;
  readonly exerciseId: string;
  readonly exerciseVersion: number;
  readonly markingRevision: number;
  readonly total: number;
  readonly outOf: number;
  readonly strands: readonly StrandMarks[];
  readonly school: SchoolRead;
  /** The log did not tell the school; it is the one that was named at hand-in. */
  readonly isSchoolNamed?: boolean;
  readonly values: readonly RegisterRuling[];
  readonly findings: readonly Finding[];
  readonly sheet: LaneTrace["final"]["setup"];
}

/** Full inside the tolerance, linear to zero at the stated multiple of it. */
function valueMarks(closureMm: number, toleranceMm: number, zeroAtMultiple: number, outOf: number): number {
  const off = Math.abs(closureMm) / toleranceMm;
  return off <= 1 ? outOf : Math.max(0, (outOf * (zeroAtMultiple - off)) / (zeroAtMultiple - 1));
}

/** The school of lengths as the log tells it; where it does not, the one that was named at hand-in. */
function schoolOf(trace: LaneTrace): SchoolRead {
  const read = schoolFromLog(trace);
  return read === "unclear" ? (trace.final.desk.namedSchool ?? read) : read;
}

/** The school read from where the first tool was touched when its length was taken; a prescribed one is what it is. */
function schoolFromLog({ changes, touches, readings, final }: LaneTrace): SchoolRead {
  const { lengthSchools, isSchoolPrescribed, targets } = final.setup;
  const [only] = lengthSchools;
  if (isSchoolPrescribed && only) return only;
  const [tool] = targets.lengths;
  if (tool === undefined) return "unclear";
  const taken = changes.findLast(({ event }) => event.register === `H${tool}`);
  const isMasterLike =
    lengthSchools.includes("master") &&
    readRegister(final.registers, `H${tool}`) === 0 &&
    changes.some(({ event }) => event.register === "G54.z");
  if (isMasterLike && targets.lengths.slice(1).some((other) => readRegister(final.registers, `H${other}`) !== 0))
    return "master";
  if (!taken)
    return lengthSchools.includes("offset-per-tool") && changes.some(({ event }) => event.register.endsWith(".z"))
      ? "offset-per-tool"
      : "unclear";
  if (readRegister(final.registers, `H${tool}`) > 0 && readings.some(({ event }) => event.tool === tool))
    return "gauge-line";
  const touch = touches.findLast(({ seq, holds }) => holds === toolName(tool) && seq < taken.seq);
  if (!touch) return "unclear";
  if (readRegister(final.registers, `HW${tool}`) !== 0 && lengthSchools.includes("block-in-wear"))
    return "block-in-wear";
  if (touch.on === "setter") return readRegister(final.registers, `H${tool}`) > 0 ? "gauge-line" : "plane-lift";
  return touch.on === "stock" ? "part-touch" : "plane-lift";
}

interface Measured {
  readonly held: number;
  readonly wanted: number;
  readonly closureMm: number;
  readonly bias: MethodBias;
  readonly evidence: Evidence;
  readonly method: RegisterRuling["method"];
  readonly figures: Figures;
  readonly extra: CauseSignature[];
  readonly tolerance: "x" | "y" | "z" | "d" | "rotation";
}

const OPEN = (closureMm: number): Evidence => ({ contact: null, terms: [], leftMm: closureMm });
const NO_BIAS: MethodBias = { biasMm: 0, uMm: 0.003 };

function measurePlace(trace: LaneTrace, axis: "x" | "y"): Measured {
  const { registers, scale, setup } = trace.final;
  const held = toMm(registers.common[axis] + registers.work.G54[axis], scale);
  const wanted = datumNowMm(trace.final)[axis];
  const closureMm = held - wanted;
  const evidence = edgeEvidence(trace, axis, closureMm);
  const contact = trace.contacts.findLast((one) => one.axis === axis && Math.ceil(one.seq) === evidence.contact?.seq);
  const read = trace.places.findLast((one) => one.axis === axis && one.seq === evidence.contact?.seq);
  const by: XyMethod =
    read?.by ??
    contact?.by ??
    (["edgeFinder", "taster", "probe", "indicator"] as const).find((name) => setup.instruments.includes(name)) ??
    "edgeFinder";
  const edge = edgeOf(setup, axis);
  return {
    held,
    wanted,
    closureMm,
    evidence,
    bias: xyBias(by, edge && !read ? (contact?.approach ?? edge.approach) : null),
    tolerance: axis,
    figures: {},
    extra: [],
    method: contact && !read ? { by, offMm: contact.approach * contact.radiusMm } : read ? { by, offMm: 0 } : null,
  };
}

/** The bias of the way in which a tool was last touched or measured. */
function lengthMethod(trace: LaneTrace, tool: number): MethodBias {
  const { setup } = trace.final;
  const touch = trace.touches.findLast(({ holds, feel }) => holds === toolName(tool) && feel !== "torn");
  const read = trace.readings.findLast(({ event }) => event.tool === tool && event.values.length !== undefined);
  const by: LengthMethod | null =
    touch && (!read || touch.seq > read.seq)
      ? touch.by
      : ((read?.event.instrument as LengthMethod | undefined) ?? null);
  return by ? lengthBias(by, setup) : NO_BIAS;
}

/** The bias of the touch that work Z hangs on, where a tool's own touch does not stand in the sum. */
function workBias(trace: LaneTrace): MethodBias {
  const { setup } = trace.final;
  const touch = trace.touches.findLast(({ on, feel }) => (on === "stock" || on === "boss") && feel !== "torn");
  return touch ? lengthBias(touch.by, setup) : NO_BIAS;
}

function figuresOf(trace: LaneTrace, tool: number): Figures {
  const { truth, setup } = trace.final;
  const own = truth.lengthsMm[toolName(tool)] ?? 0;
  return {
    neighbors: setup.tools
      .filter(({ number }) => number !== tool)
      .map(({ number }) => (truth.lengthsMm[toolName(number)] ?? 0) - own),
    toolLength: own,
  };
}

function measureSum(trace: LaneTrace, tool: number): Measured {
  const { final } = trace;
  const wanted =
    datumNowMm(final).z + wantedLengthMm(final.setup, final.truth, tool) - (final.harm.shorterMm[toolName(tool)] ?? 0);
  const held = toMm(zSumCounts(trace, tool), final.scale);
  const closureMm = held - wanted;
  const school = schoolOf(trace);
  const own = lengthMethod(trace, tool);
  const isShared = school === "gauge-line" || school === "plane-lift" || school === "master";
  const evidence =
    school === "part-touch" || school === "plane-lift" || school === "unclear" || school === "offset-per-tool"
      ? lengthEvidence(trace, closureMm, tool)
      : OPEN(closureMm);
  const isPaperOnly =
    final.setup.tools.length === 1 &&
    final.setup.lengthSchools.every((one) => one === "part-touch" || one === "plane-lift");
  return {
    held,
    wanted,
    closureMm,
    evidence,
    tolerance: "z",
    bias: isShared && !isPaperOnly ? together(own, workBias(trace)) : own,
    method: null,
    figures: figuresOf(trace, tool),
    extra: physicalTerms(trace, tool).map(({ id, mm }) => ({ id, predictedMm: mm })),
  };
}

/** One register of a prescribed school. */
function measureRegister(trace: LaneTrace, target: `H${number}` | "workZ"): Measured {
  const { final } = trace;
  const { setup, truth, registers, scale } = final;
  const [school = "part-touch"] = setup.lengthSchools;
  const expected = expectedLengths(setup, truth, school, datumNowMm(final).z);
  const row = (register: RegisterId) => expected.find((one) => one.register === register)?.wantedMm ?? 0;
  const tool = Number(/\d+$/.exec(target)?.[0] ?? setup.targets.lengths[0] ?? 1);
  const isWork = target === "workZ";
  const held = isWork
    ? toMm(registers.common.z + registers.work.G54.z, scale)
    : toMm((registers.lengthGeometry[tool] ?? 0) + (registers.lengthWear[tool] ?? 0), scale);
  const wanted = isWork
    ? row("G54.z")
    : row(`H${tool}`) + row(`HW${tool}`) - (final.harm.shorterMm[toolName(tool)] ?? 0);
  const closureMm = held - wanted;
  const own = lengthMethod(trace, tool);
  const [first = tool] = [...setup.targets.lengths].sort((a, b) => a - b);
  const bias = isWork
    ? school === "plane-lift"
      ? together(workBias(trace), lengthMethod(trace, first))
      : school === "part-touch" || school === "block-in-wear"
        ? { biasMm: 0, uMm: 0.001 }
        : workBias(trace)
    : school === "master"
      ? { biasMm: 0, uMm: Math.SQRT2 * own.uMm }
      : own;
  const evidence =
    !isWork && (school === "part-touch" || school === "block-in-wear")
      ? lengthEvidence(trace, closureMm, tool)
      : notSet(trace, isWork ? "G54.z" : `H${tool}`, closureMm, wanted);
  return {
    held,
    wanted,
    closureMm,
    evidence,
    tolerance: "z",
    bias,
    method: null,
    figures: isWork ? {} : { ...figuresOf(trace, tool), wanted },
    extra: isWork
      ? physicalTerms(trace, first)
          .filter(({ id }) => id === "probeLengthWrong" || id === "notSeated")
          .map(({ id, mm }) => ({ id, predictedMm: mm }))
      : physicalTerms(trace, tool)
          .filter(({ id }) => id !== "probeLengthWrong")
          .map(({ id, mm }) => ({ id, predictedMm: mm })),
  };
}

/** A register that nobody set is that, and nothing else; unless what it held was right. */
function notSet(trace: LaneTrace, register: RegisterId, closureMm: number, wanted: number): Evidence {
  const isSet = trace.changes.some(({ event }) => event.register === register);
  return isSet || wanted === 0
    ? OPEN(closureMm)
    : { contact: null, terms: [{ id: "neverSet", mm: closureMm, seq: trace.log.at(-1)?.seq ?? 0 }], leftMm: 0 };
}

function measureDiameter(trace: LaneTrace, tool: number): Measured {
  const { final } = trace;
  const { setup, truth, registers, scale } = final;
  const held = toMm((registers.diameterGeometry[tool] ?? 0) + (registers.diameterWear[tool] ?? 0), scale);
  const wanted = expectedDiameter(setup, truth, tool);
  const closureMm = held - wanted;
  return {
    held,
    wanted,
    closureMm,
    evidence: notSet(trace, setup.diameterSchool === "wear-comp" ? `DW${tool}` : `D${tool}`, closureMm, wanted),
    tolerance: "d",
    bias: { biasMm: 0, uMm: 0.002 },
    method: null,
    extra: [],
    figures: { cutterDiameter: truth.diametersMm[tool], wanted },
  };
}

/** What the far end of the part misses by when the turn called is not the turn that the part has. */
function measureTurn(trace: LaneTrace): Measured {
  const { final } = trace;
  const held = final.modal.rotationDeg;
  const wanted = skewNowDeg(final);
  const reachMm = Math.max(...final.setup.partSizeMm.slice(0, 2));
  const closureMm = reachMm * Math.sin(((held - wanted) * Math.PI) / 180);
  return {
    held,
    wanted,
    closureMm,
    evidence: OPEN(closureMm),
    tolerance: "rotation",
    bias: { biasMm: 0, uMm: 0.004 },
    method: null,
    figures: {},
    extra: rotationSignatures(held, wanted, reachMm),
  };
}

function rotationSignatures(held: number, wanted: number, reachMm: number): CauseSignature[] {
  const miss = (deg: number) => reachMm * Math.sin((deg * Math.PI) / 180);
  if (Math.abs(wanted) < 0.02) return [];
  return [
    { id: "turnForgotten", predictedMm: miss(-wanted) },
    ...(held === 0 ? [] : [{ id: "turnSignTurned" as const, predictedMm: miss(-2 * wanted) }]),
  ];
}

function measureTarget(trace: LaneTrace, target: TargetId): Measured {
  if (target === "x" || target === "y") return measurePlace(trace, target);
  if (target === "rotation") return measureTurn(trace);
  if (target === "workZ") return measureRegister(trace, target);
  const tool = Number(target.slice(1));
  if (target.startsWith("H")) return measureRegister(trace, `H${tool}`);
  return target.startsWith("z") ? measureSum(trace, tool) : measureDiameter(trace, tool);
}

function ruleTarget(trace: LaneTrace, target: TargetId, marking: Marking, outOf: number): RegisterRuling {
  const { held, wanted, closureMm, bias, evidence, method, figures, extra, tolerance } = measureTarget(trace, target);
  const { setup, scale } = trace.final;
  const known = targetSignatures(setup, target, figures);
  const signatures: CauseSignature[] = [...extra, ...known.filter(({ id }) => !extra.some((one) => one.id === id))];
  const toleranceMm = marking.tolerancesMm[tolerance];
  const isWithin = Math.abs(closureMm) <= toleranceMm;
  return {
    target,
    held,
    wanted,
    closureMm,
    toleranceMm,
    sharedMm: 0,
    isFollowThrough: false,
    biasMm: bias.biasMm,
    uMm: bias.uMm,
    outOf,
    signatures,
    method,
    zeroAtMm: toleranceMm * marking.zeroAtMultiple,
    marks: valueMarks(closureMm, toleranceMm, marking.zeroAtMultiple, outOf),
    contact: evidence.contact,
    cause: isWithin ? { kind: "none" } : causeOf(closureMm, evidence, bias, signatures, scale.countMm),
  };
}

/** Closures this near to one another are one cause, in deviations of the method. */
const ALIKE_IN_U = 8;

/**
 * What all tools of a lane are off by together is one mistake, and costs once: the first of them carries it, the others
 * are marked on what is their own. Only where every one of at least two is off alike.
 */
function shareOnce(values: readonly RegisterRuling[], { zeroAtMultiple }: Marking): RegisterRuling[] {
  return shareOnceOf(shareOnceOf(values, /^[zHZ]\d/, zeroAtMultiple), /^X\d/, zeroAtMultiple);
}

function shareOnceOf(values: readonly RegisterRuling[], of: RegExp, zeroAtMultiple: number): RegisterRuling[] {
  const lengths = values.filter(({ target }) => of.test(target));
  const off = lengths.filter(({ closureMm, toleranceMm }) => Math.abs(closureMm) > toleranceMm);
  const sorted = off.map(({ closureMm }) => closureMm).sort((a, b) => a - b);
  const sharedMm = sorted[Math.floor(sorted.length / 2)] ?? 0;
  const isShared =
    lengths.length > 1 &&
    off.length === lengths.length &&
    off.every(({ closureMm, uMm }) => Math.abs(closureMm - sharedMm) <= ALIKE_IN_U * uMm + 0.004);
  if (!isShared) return [...values];
  const [first] = lengths;
  return values.map((value) => {
    if (!lengths.includes(value)) return value;
    if (value === first) return { ...value, sharedMm };
    return {
      ...value,
      sharedMm,
      marks: valueMarks(value.closureMm - sharedMm, value.toleranceMm, zeroAtMultiple, value.outOf),
    };
  });
}

/**
 * Work Z that is right given a wrong length of the tool it was touched with keeps its marks: the tool lands where it
 * should.
 */
function followThrough(
  trace: LaneTrace,
  values: readonly RegisterRuling[],
  { tolerancesMm }: Marking,
): RegisterRuling[] {
  const { setup, truth, scale } = trace.final;
  const [school] = setup.lengthSchools;
  if (school !== "plane-lift" && school !== "master") return [...values];
  const tools = [...setup.targets.lengths].sort((a, b) => a - b);
  return values.map((value) => {
    if (value.target !== "workZ" || Math.abs(value.closureMm) <= value.toleranceMm) return value;
    const landsRight = tools.some((tool) => {
      const wanted =
        datumNowMm(trace.final).z +
        wantedLengthMm(setup, truth, tool) -
        (trace.final.harm.shorterMm[toolName(tool)] ?? 0);
      const isOff = values.some(
        ({ target, closureMm, toleranceMm }) => target === `H${tool}` && Math.abs(closureMm) > toleranceMm,
      );
      return isOff && Math.abs(toMm(zSumCounts(trace, tool), scale) - wanted) <= tolerancesMm.z;
    });
    return landsRight ? { ...value, isFollowThrough: true, marks: value.outOf } : value;
  });
}

/** The marked result of a lane's whole log, by one marking revision. Pure: the same log gives the same ruling. */
export function rule(log: readonly LoggedEvent[], marking: Marking): Ruling {
  const trace = traceLane(log);
  const { setup } = trace.final;
  const { weights } = marking;
  const targets = targetsOf(setup);
  const each = weights.values / targets.length;
  const marksFor = (closureMm: number, toleranceMm: number) =>
    valueMarks(closureMm, toleranceMm, marking.zeroAtMultiple, each);
  const alone = targets.map((target) =>
    setup.lathe ? ruleTurret(trace, target, marking, each, marksFor) : ruleTarget(trace, target, marking, each),
  );
  const isHandover = setup.handover !== undefined;
  const values = isHandover
    ? withFaults(trace, alone, ({ toleranceMm, outOf }, closureMm) =>
        valueMarks(closureMm, toleranceMm, marking.zeroAtMultiple, outOf),
      )
    : followThrough(trace, shareOnce(alone, marking), marking);
  const method = stepFindings(trace, "method", weights);
  const proving: Finding[] = isHandover
    ? handoverFindings(trace, values, weights.proving)
    : stepFindings(trace, "proving", weights);
  const working = weights.working > 0 ? workingFindings(trace, targets, weights.working) : [];
  const safety = safetyFindings(trace, weights.safety);
  const earned = (findings: readonly Finding[]) =>
    findings.reduce((sum, finding) => sum + ("marks" in finding ? finding.marks : 0), 0);
  const isOutright = safety.some((finding) => finding.code === "incident" && finding.failsOutright);
  const cost = safety.reduce((sum, finding) => sum + (finding.code === "incident" ? finding.cost : 0), 0);
  const strands: StrandMarks[] = [
    { name: "values", marks: values.reduce((sum, { marks }) => sum + marks, 0), outOf: weights.values },
    ...(weights.working > 0 ? [{ name: "working" as const, marks: earned(working), outOf: weights.working }] : []),
    ...(weights.method > 0 ? [{ name: "method" as const, marks: earned(method), outOf: weights.method }] : []),
    { name: "safety", marks: isOutright ? 0 : Math.max(0, weights.safety - cost), outOf: weights.safety },
    ...(weights.proving > 0
      ? [{ name: "proving" as const, marks: Math.max(0, earned(proving)), outOf: weights.proving }]
      : []),
  ];
  return {
    version: rulingVersion,
    exerciseId: setup.exerciseId,
    exerciseVersion: setup.exerciseVersion,
    markingRevision: marking.revision,
    total: strands.reduce((sum, { marks }) => sum + marks, 0),
    outOf: strands.reduce((sum, { outOf }) => sum + outOf, 0),
    strands,
    school: setup.lathe ? latheSchoolOf(trace) : schoolOf(trace),
    ...(!setup.lathe && schoolFromLog(trace) === "unclear" && trace.final.desk.namedSchool
      ? { isSchoolNamed: true }
      : {}),
    values,
    findings: [...working, ...method, ...proving, ...safety],
    sheet: setup,
  };
}

interface StoredRegisterRuling {
  axis: "x" | "y" | "z";
  heldCounts: number;
  wantedCounts: number;
}

/** Rulings of earlier versions as this version shows them: their marks stay what they were. */
export function upgradeRuling(stored: Ruling): Ruling {
  if (stored.version === "2")
    return { ...stored, values: stored.values.map((value) => ({ ...value, sharedMm: 0, isFollowThrough: false })) };
  if (stored.version !== "1") return stored;
  return {
    ...stored,
    sheet: upgradeSetup(stored.sheet) as Ruling["sheet"],
    values: stored.values.map((value) => {
      const { axis, heldCounts, wantedCounts, ...rest } = value as unknown as StoredRegisterRuling & RegisterRuling;
      return {
        ...rest,
        target: axis === "z" ? "z1" : axis,
        held: heldCounts / 1000,
        wanted: wantedCounts / 1000,
        method: null,
        sharedMm: 0,
        isFollowThrough: false,
      };
    }),
  };
}

/** Marks that an instructor gave for a strand; `marks` null takes back what was given before. */
export interface Override {
  readonly strand: StrandName;
  readonly marks: number | null;
  readonly reason: string;
  readonly by: string;
  readonly at: string;
}

/**
 * A ruling with an instructor's marks beside its own, oldest first; the newest of a strand counts, and never more than
 * the strand is out of.
 */
export function withOverrides(ruling: Ruling, overrides: readonly Override[]): Ruling {
  if (overrides.length === 0) return ruling;
  const strands = ruling.strands.map((strand): StrandMarks => {
    const newest = overrides.findLast((one) => one.strand === strand.name);
    if (!newest || newest.marks === null) return strand;
    const { by, reason, at } = newest;
    return {
      ...strand,
      marks: Math.min(strand.outOf, Math.max(0, newest.marks)),
      given: { earned: strand.marks, by, reason, at },
    };
  });
  return { ...ruling, strands, total: strands.reduce((sum, { marks }) => sum + marks, 0) };
}
