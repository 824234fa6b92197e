import { standardUncertainty } from "../desk/uncertainty";
import type { GapKind, InstrumentName } from "../instruments";
import { countsFromMm } from "../units";
import type { Exercise, Marking } from "./schema";

export interface MethodBias { biasMm: number; uMm: number }
export interface FairnessWarning { axis: "x" | "y" | "z" | "d"; method: string; toleranceMm: number; leastFairMm: number }

/** The finest click, mm: a contact is found late by half of it on average. */
const FINEST_CLICK_MM = 0.001;
const click = { kind: "resolution" as const, value: FINEST_CLICK_MM };

/** Ways of finding a face, a middle or a bore. */
export type XyMethod = Extract<InstrumentName, "edgeFinder" | "taster" | "probe" | "indicator">;

/**
 * Mean and deviation of one contact on a face, mm. Edge finder: b = s(κ̄ + δ/2), own kick σ 2 µm and approach σ 0.7 µm; taster:
 * approach σ 2 µm and a dial read to 2 µm; probe: approach σ 1 µm and stylus runout σ 1 µm; a swept indicator reads to 1 µm.
 * In the middle of two contacts the finder's kick and the stylus cancel.
 */
export function xyBias(method: XyMethod, approach: 1 | -1 | null): MethodBias {
  switch (method) {
    case "edgeFinder":
      return approach === null
        ? { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.0007, sensitivity: 0.7 }, click]) }
        : { biasMm: approach * (0.005 + FINEST_CLICK_MM / 2), uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, { kind: "normal", value: 0.0007 }, click]) };
    case "taster": return { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, { kind: "resolution", value: 0.002 }, click]) };
    case "probe": return { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, { kind: "normal", value: 0.001 }, click]) };
    case "indicator": return { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, { kind: "resolution", value: 0.001 }, click]) };
  }
}

export type LengthMethod = GapKind | "lampGauge" | "plungerSetter" | "beamSetter" | "presetter" | "probe" | "metal";

/**
 * Mean and deviation of one touch in Z, mm. Paper and feelers are felt at 0.85 to 1.00 of their thickness; a gap opened until a
 * block goes is late upward; a lamp or metal is late downward by half a click; cycles measure to a micrometre.
 */
export function lengthBias(method: LengthMethod, { gaps }: { gaps: readonly { kind: GapKind; nominalMm: number }[] }): MethodBias {
  const half = FINEST_CLICK_MM / 2;
  switch (method) {
    case "paper": case "feeler": {
      const nominalMm = Math.max(0, ...gaps.filter(({ kind }) => kind === method).map((gap) => gap.nominalMm));
      return {
        biasMm: -(0.075 * nominalMm + half),
        uMm: standardUncertainty([{ kind: "normal", value: 0.003 }, { kind: "uniform", value: 0.075 * nominalMm }, click]),
      };
    }
    case "block": case "pin": return { biasMm: half, uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, { kind: "normal", value: 0.0005 }, click]) };
    case "lampGauge": return { biasMm: -half, uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, click]) };
    case "metal": return { biasMm: -half, uMm: standardUncertainty([click]) };
    case "plungerSetter": case "beamSetter": case "probe": return { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, { kind: "normal", value: 0.001 }, click]) };
    case "presetter": return { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, click]) };
  }
}

/** Mean and deviation of two touches that stand in one sum. */
export const together = (a: MethodBias, b: MethodBias): MethodBias => ({ biasMm: a.biasMm + b.biasMm, uMm: Math.hypot(a.uMm, b.uMm) });

const LENGTH_METHODS = ["paper", "feeler", "block", "pin", "lampGauge", "plungerSetter", "beamSetter", "presetter", "probe"] as const;

/** The gaps an exercise may draw, at their thickest. */
const worstGaps = (exercise: Exercise) => [{ kind: "paper" as const, nominalMm: Math.max(...exercise.paperMm) }, ...exercise.gaps];

/** Ways of touching in Z that an exercise lays out. */
export const lengthMethodsOf = ({ instruments, gaps }: { instruments: readonly InstrumentName[]; gaps: readonly { kind: GapKind }[] }): LengthMethod[] =>
  LENGTH_METHODS.filter((method) => instruments.includes(method) && (method === "paper" || method === "lampGauge" || !["feeler", "block", "pin"].includes(method) || gaps.some(({ kind }) => kind === method)));

/** Where a tolerance is narrower than a method it allows can hold, |b| + 3u, at its thickest paper; empty when it is fair. */
export function fairness(exercise: Exercise, marking: Marking): FairnessWarning[] {
  const { datum, instruments, targets } = exercise;
  const least = ({ biasMm, uMm }: MethodBias) => countsFromMm(Math.abs(biasMm) + 3 * uMm) / 1000;
  const warnings: FairnessWarning[] = [];
  const check = (axis: FairnessWarning["axis"], method: string, bias: MethodBias) => {
    const toleranceMm = marking.tolerancesMm[axis];
    if (toleranceMm < least(bias)) warnings.push({ axis, method, toleranceMm, leastFairMm: least(bias) });
  };
  if (targets.xy) {
    const ways = (["edgeFinder", "taster", "probe", "indicator"] as const).filter((name) => instruments.includes(name));
    for (const axis of ["x", "y"] as const) for (const way of ways) check(axis, way, xyBias(way, datum.kind === "corner" ? datum.edges[axis].approach : null));
  }
  if (targets.lengths.length > 0) for (const method of lengthMethodsOf(exercise)) check("z", method, lengthBias(method, { gaps: worstGaps(exercise) }));
  if (targets.diameters.length > 0) check("d", "micrometer", { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, click]) });
  return warnings;
}
