import { type LatheSheet, type TurretTool } from "../../exercises/setup";
import { noseAngleOf } from "../../desk/insert";
import { steepestFallDeg } from "../../registers/nose";
import { causeOf, type CauseSignature } from "../../diagnosis/cause";
import { axisHeightProvenance, gaugeErrorProvenance } from "../../diagnosis/machines";
import { type TurningTrace } from "../../diagnosis/trace";
import { SETTING_GAUGE_U_MM, STACK_U_MM } from "../../exercises/bias";
import { type Target } from "../../exercises/target";
import { type Marking } from "../../exercises/schema";
import { type RegisterRuling, valueMarks, withSignaturesOf, keptOf } from "../values";

/** What is said is said to this, mm. */
const SAID_TO_MM = 0.0005;
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

/** How high the axis stands, or by how much the setting gauge is off, as it was said. */
function ruleHeight(
  trace: TurningTrace,
  target: Target & { kind: "axisHeight" | "gaugeError" },
  { tolerancesMm, zeroAtMultiple }: Marking,
  outOf: number,
): RegisterRuling {
  const { final } = trace;
  const truth = final.truth.lathe.axis ?? { heightMm: 0, tailLowMm: 0, gaugeOffMm: 0 };
  const half = (final.setup.lathe.axis?.pinMm ?? 0) / 2;
  const isAxis = target.kind === "axisHeight";
  const said = final.lathe.stated[target.kind];
  // an axis that is itself said wrong carries into what is said of the gauge
  const axisOffMm = (final.lathe.stated.axisHeight ?? truth.heightMm) - truth.heightMm;
  const wanted = isAxis ? truth.heightMm : truth.gaugeOffMm - axisOffMm;
  const held = said ?? 0;
  const closureMm = held - wanted;
  const provenance = isAxis ? axisHeightProvenance(trace, closureMm) : gaugeErrorProvenance(trace, closureMm);
  const toleranceMm = tolerancesMm.z;
  const uMm = isAxis ? STACK_U_MM : SETTING_GAUGE_U_MM;
  const isWithin = said !== undefined && Math.abs(closureMm) <= toleranceMm;
  const predicted: CauseSignature[] = isAxis
    ? [
        { id: "halfPinForgotten", predictedMm: -half },
        { id: "wholePinAdded", predictedMm: half },
        { id: "tailstockTaken", predictedMm: -truth.tailLowMm },
      ]
    : [{ id: "halfPinForgotten", predictedMm: half }];
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
    signatures: withSignaturesOf(provenance, predicted),
    method: null,
    zeroAtMm: toleranceMm * zeroAtMultiple,
    contact: null,
    marks: said === undefined ? 0 : valueMarks(closureMm, toleranceMm, zeroAtMultiple, outOf),
    cause: isWithin ? { kind: "none" } : causeOf(provenance, { biasMm: 0, uMm }, SAID_TO_MM),
    provenance: keptOf(provenance),
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
    provenance: null,
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
