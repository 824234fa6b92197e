import {
  causeOf, edgeEvidence, edgeSignatures, lengthEvidence, lengthSignatures, traceLane,
  type Cause, type Evidence, type LaneTrace, type LoggedEvent, type Signature,
} from "../diagnosis";
import { zSumCounts } from "../diagnosis/lengthEvidence";
import { methodBias, type Marking } from "../exercises";
import type { Axis } from "../registers";
import { countsFromMm, mmFromCounts, type Counts } from "../units";
import { methodFindings, safetyFindings, type Finding } from "./findings";

/** Stored with every ruling, so that a later change of the marking code never passes for the old one. */
export const rulingVersion = "1";

type StrandName = "values" | "method" | "safety";
export interface StrandMarks { readonly name: StrandName; readonly marks: number; readonly outOf: number }

/** One value of the lane: X, Y, or Z with tool 1. */
export interface RegisterRuling {
  readonly axis: Axis;
  /** What the registers add up to, and what they should; counts of machine position. */
  readonly heldCounts: Counts;
  readonly wantedCounts: Counts;
  readonly closureMm: number;
  readonly toleranceMm: number;
  readonly zeroAtMm: number;
  readonly biasMm: number;
  readonly uMm: number;
  readonly marks: number;
  readonly outOf: number;
  readonly signatures: readonly Signature[];
  readonly contact: Evidence["contact"];
  readonly cause: Cause;
}

export interface Ruling {
  readonly version: string;
  readonly exerciseId: string;
  readonly exerciseVersion: number;
  readonly markingRevision: number;
  readonly total: number;
  readonly outOf: number;
  readonly strands: readonly StrandMarks[];
  readonly school: "part-touch" | "plane-lift" | "unclear";
  readonly values: readonly RegisterRuling[];
  readonly findings: readonly Finding[];
  readonly sheet: LaneTrace["final"]["setup"];
}

/** Full inside the tolerance, linear to zero at the stated multiple of it. */
function valueMarks(closureMm: number, toleranceMm: number, zeroAtMultiple: number, outOf: number): number {
  const off = Math.abs(closureMm) / toleranceMm;
  return off <= 1 ? outOf : Math.max(0, (outOf * (zeroAtMultiple - off)) / (zeroAtMultiple - 1));
}

/** The school, read from where tool 1 was touched when its length was taken. */
function schoolOf({ changes, touches }: LaneTrace): Ruling["school"] {
  const taken = changes.findLast(({ event }) => event.register === "H1");
  const touch = taken && touches.findLast(({ seq, holds }) => holds === "tool1" && seq < taken.seq);
  if (!touch) return "unclear";
  return touch.on === "stock" ? "part-touch" : "plane-lift";
}

function ruleAxis(trace: LaneTrace, axis: Axis, marking: Marking, outOf: number): RegisterRuling {
  const { setup, truth, registers, shorterMm } = trace.final;
  const isZ = axis === "z";
  const heldCounts = isZ ? zSumCounts(trace) : registers.common[axis] + registers.work.G54[axis];
  const wantedMm = truth.datumMm[axis] + (isZ ? truth.lengthsMm.tool1 - shorterMm.tool1 : 0);
  const closureMm = mmFromCounts(heldCounts) - wantedMm;
  const { biasMm, uMm } = methodBias(setup, axis);
  const signatures = isZ ? lengthSignatures(setup) : edgeSignatures(setup, axis);
  const evidence = isZ ? lengthEvidence(trace, closureMm) : edgeEvidence(trace, axis, closureMm);
  const toleranceMm = marking.tolerancesMm[axis];
  const isWithin = Math.abs(closureMm) <= toleranceMm;
  return {
    axis, heldCounts, wantedCounts: countsFromMm(wantedMm), closureMm, toleranceMm, biasMm, uMm, outOf, signatures,
    zeroAtMm: toleranceMm * marking.zeroAtMultiple,
    marks: valueMarks(closureMm, toleranceMm, marking.zeroAtMultiple, outOf),
    contact: evidence.contact,
    cause: isWithin ? { kind: "none" } : causeOf(closureMm, evidence, { biasMm, uMm }, signatures, 0.001),
  };
}

const AXES: readonly Axis[] = ["x", "y", "z"];

/** The marked result of a lane's whole log, by one marking revision. Pure: the same log gives the same ruling. */
export function rule(log: readonly LoggedEvent[], marking: Marking): Ruling {
  const trace = traceLane(log);
  const { setup } = trace.final;
  const { weights } = marking;
  const values = AXES.map((axis) => ruleAxis(trace, axis, marking, weights.values / AXES.length));
  const method = methodFindings(trace, weights.method);
  const safety = safetyFindings(trace, weights.safety);
  const earned = (findings: readonly Finding[]) => findings.reduce((sum, finding) => sum + ("marks" in finding ? finding.marks : 0), 0);
  const isOutright = safety.some((finding) => finding.code === "incident" && finding.failsOutright);
  const cost = safety.reduce((sum, finding) => sum + (finding.code === "incident" ? finding.cost : 0), 0);
  const strands: StrandMarks[] = [
    { name: "values", marks: values.reduce((sum, { marks }) => sum + marks, 0), outOf: weights.values },
    { name: "method", marks: earned(method), outOf: weights.method },
    { name: "safety", marks: isOutright ? 0 : Math.max(0, weights.safety - cost), outOf: weights.safety },
  ];
  return {
    version: rulingVersion, exerciseId: setup.exerciseId, exerciseVersion: setup.exerciseVersion, markingRevision: marking.revision,
    total: strands.reduce((sum, { marks }) => sum + marks, 0),
    outOf: strands.reduce((sum, { outOf }) => sum + outOf, 0),
    strands, school: schoolOf(trace), values, findings: [...method, ...safety], sheet: setup,
  };
}
