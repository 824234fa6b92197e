import { type LatheSheet, type TurretTool } from "../../exercises/setup";
import { noseAngleOf } from "../../desk/insert";
import { steepestFallDeg } from "../../registers/nose";
import { causeOf, type CauseSignature, type Evidence, type ProvenTerm } from "../../diagnosis/cause";
import { type TurningTrace } from "../../diagnosis/trace";
import { SETTING_GAUGE_U_MM, STACK_U_MM } from "../../exercises/bias";
import { type Target } from "../../exercises/target";
import { type Marking } from "../../exercises/schema";
import { type RegisterRuling, valueMarks } from "../values";

/** A clearance of fewer degrees than this is none in practice. */
const SPARE_DEG = 2;

/**
 * Whether a tool does for the part: its trailing edge clears the steepest fall with degrees to spare, its blade reaches
 * the groove's bottom.
 */
export function fitsPart(
  { leadDeg, insert, deepestMm }: Pick<TurretTool, "leadDeg" | "insert" | "deepestMm">,
  profile: NonNullable<LatheSheet["profile"]>,
): boolean {
  const nose = noseAngleOf(insert);
  const clears =
    leadDeg === undefined || nose === null || steepestFallDeg(leadDeg, nose) - SPARE_DEG >= profile.steepestFallDeg;
  return clears && (deepestMm === undefined || deepestMm >= profile.grooveMm);
}

interface Stated {
  readonly held: number;
  readonly wanted: number;
  readonly toleranceMm: number;
  readonly uMm: number;
  readonly evidence: Evidence;
  readonly signatures: readonly CauseSignature[];
  readonly isStated: boolean;
}

/** What was said of the axis or of the gauge against what is so, and what the log proves of the difference. */
function statedHeight({ final, log }: TurningTrace, target: "axisHeight" | "gaugeError", toleranceMm: number): Stated {
  const truth = final.truth.lathe.axis ?? { heightMm: 0, tailLowMm: 0, gaugeOffMm: 0 };
  const pinMm = final.setup.lathe.axis?.pinMm ?? 0;
  const said = final.lathe.stated[target];
  const axisSaid = final.lathe.stated.axisHeight;
  const wanted = target === "axisHeight" ? truth.heightMm : truth.gaugeOffMm;
  const held = said ?? 0;
  const seq =
    log.findLast(({ event }) => event.type === "heightStated" && event.what === target)?.seq ?? log.at(-1)?.seq ?? 0;
  const none = { contact: null, terms: [], leftMm: held - wanted };
  if (said === undefined)
    return {
      held,
      wanted,
      toleranceMm,
      uMm: STACK_U_MM,
      evidence: { contact: null, terms: [{ id: "neverSet", mm: held - wanted, seq }], leftMm: 0 },
      signatures: [],
      isStated: false,
    };
  if (target === "axisHeight") {
    const isTail = log.findLast(({ event }) => event.type === "stackTried" && event.goes)?.event;
    const terms: ProvenTerm[] =
      isTail?.type === "stackTried" && isTail.under === "tailstock"
        ? [{ id: "tailstockTaken", mm: -truth.tailLowMm, seq }]
        : [];
    const left = held - wanted - terms.reduce((sum, { mm }) => sum + mm, 0);
    return {
      held,
      wanted,
      toleranceMm,
      uMm: STACK_U_MM,
      evidence: { contact: null, terms, leftMm: left },
      isStated: true,
      signatures: [
        { id: "halfPinForgotten", predictedMm: -pinMm / 2 },
        { id: "wholePinAdded", predictedMm: pinMm / 2 },
        { id: "tailstockTaken", predictedMm: -truth.tailLowMm },
      ],
    };
  }
  // an axis that is itself said wrong carries into what is said of the gauge
  const axisOffMm = (axisSaid ?? wanted) - truth.heightMm;
  const read = log.findLast(({ event }) => event.type === "gaugeRead");
  const isWrong =
    read?.event.type === "gaugeRead"
      ? !read.event.isZeroed
        ? ("gaugeNotZeroed" as const)
        : read.event.from === "above"
          ? ("gaugeFromAbove" as const)
          : null
      : null;
  const terms: ProvenTerm[] = isWrong && read ? [{ id: isWrong, mm: held - wanted + axisOffMm, seq: read.seq }] : [];
  return {
    held,
    wanted: wanted - axisOffMm,
    toleranceMm,
    uMm: SETTING_GAUGE_U_MM,
    evidence: terms.length > 0 ? { contact: null, terms, leftMm: 0 } : { ...none, leftMm: none.leftMm + axisOffMm },
    isStated: true,
    signatures: [{ id: "halfPinForgotten", predictedMm: pinMm / 2 }],
  };
}

/** How high the axis stands, or by how much the setting gauge is off, as it was said. */
function ruleHeight(
  trace: TurningTrace,
  target: Target & { kind: "axisHeight" | "gaugeError" },
  { tolerancesMm, zeroAtMultiple }: Marking,
  outOf: number,
): RegisterRuling {
  const said = statedHeight(trace, target.kind, tolerancesMm.z);
  const { held, wanted, toleranceMm, uMm, evidence, signatures, isStated } = said;
  const closureMm = held - wanted;
  const isWithin = isStated && Math.abs(closureMm) <= toleranceMm;
  const countMm = 0.0005;
  return {
    target,
    held,
    wanted,
    closureMm,
    toleranceMm,
    sharedMm: 0,
    isFollowThrough: false,
    biasMm: 0,
    uMm,
    outOf,
    signatures,
    method: null,
    zeroAtMm: toleranceMm * zeroAtMultiple,
    contact: null,
    marks: isStated ? valueMarks(closureMm, toleranceMm, zeroAtMultiple, outOf) : 0,
    cause: isWithin ? { kind: "none" } : causeOf(closureMm, evidence, { biasMm: 0, uMm }, signatures, countMm),
  };
}

/** Whether a tool fits the part, as it was said: right or not. */
function ruleFit({ final: { setup, lathe } }: TurningTrace, target: Target, outOf: number): RegisterRuling {
  const tool = setup.lathe.tools.find(({ number }) => number === target.tool);
  const { profile } = setup.lathe;
  if (!tool || !profile) throw new Error(`ruleFit: ${target.id} is not asked for`);
  const said = lathe.fits[tool.number];
  const held = said === undefined ? -1 : Number(said);
  const wanted = Number(fitsPart(tool, profile));
  const isRight = held === wanted;
  return {
    target,
    held,
    wanted,
    closureMm: held - wanted,
    toleranceMm: 0.5,
    sharedMm: 0,
    isFollowThrough: false,
    biasMm: 0,
    uMm: 0.1,
    outOf,
    signatures: [],
    method: null,
    zeroAtMm: 1,
    contact: null,
    marks: isRight ? outOf : 0,
    cause: isRight ? { kind: "none" } : { kind: "unexplained" },
  };
}

/** A value that is said and not set. */
export function ruleStated(
  trace: TurningTrace,
  target: Target & { kind: "fit" | "axisHeight" | "gaugeError" },
  marking: Marking,
  outOf: number,
): RegisterRuling {
  const { kind } = target;
  return kind === "fit" ? ruleFit(trace, target, outOf) : ruleHeight(trace, { ...target, kind }, marking, outOf);
}
