import { firstPart, type FeatureCut, type IncidentCode } from "../bench";
import { traceLane, type LaneTrace, type LoggedEvent } from "../diagnosis";
import { targetOf, targetsOf, upgradeSetup, type Marking, type Setup, type Target, type TargetId } from "../exercises";
import { handoverFindings, withFaults } from "./handover";
import type { MarkingKit, SchoolRead } from "./kit";
import { markingKitFor } from "./machines";
import { safetyFindings, stepFindings, type Finding } from "./findings";
import { asFirstCut, partsOf, type PartRuled } from "./parts";
import { isValueRight, valueMarks, type RegisterRuling } from "./values";
import { capped, isUnsigned, notPassed, type NotPassed } from "./mustHaves";
import { inTenths, tenth } from "./tenths";
import { strikeFindings } from "./proving";
import { workingFindings } from "./working";

/** Stored with every ruling, so that a later change of the marking code never passes for the old one. */
export const rulingVersion = "7";

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
  /** The incident that fails the lane, whatever its points. */
  readonly failedBy?: IncidentCode;
  /** What stands over points and is missing: the lane is not passed, and the total is capped. */
  readonly notPassed?: NotPassed;
  readonly values: readonly RegisterRuling[];
  readonly findings: readonly Finding[];
  /** The part that the program as it was handed in cuts with these registers; left out where none is cut. */
  readonly firstPart?: readonly FeatureCut[];
  /** Parts that were cut and measured, the first of them first; the values are as they stood when that one was cut. */
  readonly parts?: readonly PartRuled[];
  readonly sheet: Setup;
}

/** Closures this near to one another are one cause, in deviations of the method. */
const ALIKE_IN_U = 8;

/**
 * What all tools of a lane are off by together is one mistake, and costs once: the first of them carries it, the others
 * are marked on what is their own. Only where every one of at least two is off alike.
 */
function shareOnce(
  values: readonly RegisterRuling[],
  isSharing: (target: Target) => boolean,
  zeroAtMultiple: number,
): RegisterRuling[] {
  const lengths = values.filter(({ target }) => isSharing(target));
  const off = lengths.filter((value) => !isValueRight(value));
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

/** The marked result of a lane's whole log, by one marking revision. Pure: the same log gives the same ruling. */
export function rule(log: readonly LoggedEvent[], marking: Marking): Ruling {
  const trace = traceLane(log);
  return ruleTrace(trace, markingKitFor(trace.kind), marking);
}

/**
 * The values of a lane, with what one mistake does to several charged once, and what follows from an earlier one kept.
 */
function ruleValues(trace: LaneTrace, kit: MarkingKit<LaneTrace>, marking: Marking): RegisterRuling[] {
  const { setup } = trace.final;
  const targets = targetsOf(setup);
  const each = marking.weights.values / targets.length;
  const alone = targets.map((target) => kit.ruleValue(trace, target, marking, each));
  if (setup.handover || setup.kept)
    return withFaults(trace, alone, ({ toleranceMm, outOf }, closureMm) =>
      valueMarks(closureMm, toleranceMm, marking.zeroAtMultiple, outOf),
    );
  const shared = kit.sharing.reduce((values, isSharing) => shareOnce(values, isSharing, marking.zeroAtMultiple), alone);
  return kit.followThrough(trace, shared, marking);
}

const earned = (findings: readonly Finding[]): number =>
  tenth(findings.reduce((sum, finding) => sum + ("marks" in finding ? finding.marks : 0), 0));

/** The safety strand: one incident that fails outright leaves nothing of it. */
function safetyMarks(safety: readonly Finding[], outOf: number): number {
  if (safety.some((finding) => finding.code === "incident" && finding.failsOutright)) return 0;
  return Math.max(0, tenth(safety.reduce((left, finding) => left - ("cost" in finding ? finding.cost : 0), outOf)));
}

/** The part that is cut, where the program is held, comes to its end, and the sheet has features. */
function firstPartOf({ final }: LaneTrace): { firstPart?: readonly FeatureCut[] } {
  if (final.program.parts.figures.length > 0) return {};
  const text = final.program.held?.lines.join("\n");
  const cut = text === undefined || final.program.held?.number !== final.setup.program ? null : firstPart(final, text);
  return cut ? { firstPart: cut } : {};
}

function ruleTrace(trace: LaneTrace, kit: MarkingKit<LaneTrace>, marking: Marking): Ruling {
  const { setup } = trace.final;
  const { weights } = marking;
  // a part that was measured tells of the registers: they are marked as they stood when it was cut
  const set = asFirstCut(trace);
  const values = inTenths(ruleValues(set, kit, marking));
  const method = inTenths(stepFindings(trace, set, kit.steps, "method", marking));
  const proving: Finding[] = setup.handover
    ? inTenths(handoverFindings(trace, kit.handover, values, weights.proving))
    : inTenths(stepFindings(trace, set, kit.steps, "proving", marking));
  const working = weights.working > 0 ? inTenths(workingFindings(set, kit.working, weights.working, values)) : [];
  const strikes = strikeFindings(trace, values, weights.safety);
  const safety = safetyFindings(trace, marking);
  const failing = safety.find((finding) => finding.code === "incident" && finding.failsLane === true) as
    Extract<Finding, { code: "incident" }> | undefined;
  const strands: StrandMarks[] = [
    { name: "values", marks: tenth(values.reduce((sum, { marks }) => sum + marks, 0)), outOf: weights.values },
    ...(weights.working > 0 ? [{ name: "working" as const, marks: earned(working), outOf: weights.working }] : []),
    ...(weights.method > 0 ? [{ name: "method" as const, marks: earned(method), outOf: weights.method }] : []),
    { name: "safety", marks: safetyMarks([...safety, ...strikes], weights.safety), outOf: weights.safety },
    ...(weights.proving > 0
      ? [{ name: "proving" as const, marks: Math.max(0, earned(proving)), outOf: weights.proving }]
      : []),
  ];
  const { school, isNamed } = kit.school(set);
  const findings = [...working, ...method, ...proving, ...strikes, ...safety];
  const missing = notPassed(
    { findings, values, deeper: kit.deeper(set, values), isUnsigned: isUnsigned(set.final) },
    marking,
  );
  const outOf = strands.reduce((sum, strand) => sum + strand.outOf, 0);
  return {
    version: rulingVersion,
    exerciseId: setup.exerciseId,
    exerciseVersion: setup.exerciseVersion,
    markingRevision: marking.revision,
    total: tenth(
      capped(
        strands.reduce((sum, { marks }) => sum + marks, 0),
        outOf,
        missing,
      ),
    ),
    outOf,
    strands,
    school,
    ...(isNamed ? { isSchoolNamed: true } : {}),
    ...(failing ? { failedBy: failing.incident } : {}),
    ...(missing ? { notPassed: missing } : {}),
    values,
    ...firstPartOf(trace),
    ...partsOf(trace),
    findings,
    sheet: setup,
  };
}

interface StoredRegisterRuling {
  axis: "x" | "y" | "z";
  heldCounts: number;
  wantedCounts: number;
}

/** Version 1 → 2: X, Y and Z of one tool, in counts of a micrometre. */
function valuesOfVersion2(stored: Ruling): Ruling {
  return {
    ...stored,
    values: stored.values.map((value) => {
      const { axis, heldCounts, wantedCounts, ...rest } = value as unknown as StoredRegisterRuling & RegisterRuling;
      return {
        ...rest,
        target: (axis === "z" ? "z1" : axis) as unknown as Target,
        held: heldCounts / 1000,
        wanted: wantedCounts / 1000,
        method: null,
      };
    }),
  };
}

/** Version 2 → 3: what is shared and what follows is said of each value. */
const valuesOfVersion3 = (stored: Ruling): Ruling => ({
  ...stored,
  values: stored.values.map((value) => ({ ...value, sharedMm: 0, isFollowThrough: false })),
});

/** Version 4 → 5: a value says what it is and no longer only its name; the sheet says of which machine it is. */
function targetsOfVersion5(stored: Ruling): Ruling {
  const sheet = upgradeSetup(stored.sheet) as Setup;
  const named = <T extends { target: Target }>(row: T): T => ({
    ...row,
    target: targetOf(sheet, row.target as unknown as TargetId),
  });
  return {
    ...stored,
    sheet,
    values: stored.values.map(named),
    findings: stored.findings.map((finding) => ("target" in finding ? named(finding) : finding)),
  };
}

/** Version 5 → 6: a closure is kept taken apart; what was inferred says what the log shows beside it. */
const valuesOfVersion6 = (stored: Ruling): Ruling => ({
  ...stored,
  values: stored.values.map((value) => ({
    ...value,
    provenance: null,
    cause: value.cause.kind === "inferred" ? { ...value.cause, terms: [] } : value.cause,
  })),
});

/** Rulings of earlier versions as this version shows them: their marks stay what they were. */
export function upgradeRuling(stored: Ruling): Ruling {
  const version = Number(stored.version);
  const of2 = version < 2 ? valuesOfVersion2(stored) : stored;
  const of3 = version < 3 ? valuesOfVersion3(of2) : of2;
  const of5 = version < 5 ? targetsOfVersion5(of3) : of3;
  return version < 6 ? valuesOfVersion6(of5) : of5;
}

/** What of a ruling its marks are. */
export type Marked = Pick<Ruling, "total" | "outOf" | "strands" | "notPassed">;

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
export function withOverrides<R extends Marked>(ruling: R, overrides: readonly Override[]): R {
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
  return {
    ...ruling,
    strands,
    total: capped(
      strands.reduce((sum, { marks }) => sum + marks, 0),
      ruling.outOf,
      ruling.notPassed,
    ),
  };
}
