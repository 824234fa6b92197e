import { standardUncertainty } from "../desk/uncertainty";
import type { RegisterId } from "../registers";
import type { GapKind, InstrumentName } from "../instruments";

export interface MethodBias {
  biasMm: number;
  uMm: number;
}
/** The finest click, mm: a contact is found late by half of it on average. */
const FINEST_CLICK_MM = 0.001;
export const click = { kind: "resolution" as const, value: FINEST_CLICK_MM };

/** Ways of finding a face, a middle or a bore. */
export type XyMethod = Extract<InstrumentName, "edgeFinder" | "taster" | "probe" | "indicator">;

/**
 * Mean and deviation of one contact on a face, mm. Edge finder: b = s(κ̄ + δ/2), own kick σ 2 µm and approach σ 0.7 µm;
 * taster: approach σ 2 µm and a dial read to 2 µm; probe: approach σ 1 µm and stylus runout σ 1 µm; a swept indicator
 * reads to 1 µm. In the middle of two contacts the finder's kick and the stylus cancel.
 */
export function xyBias(method: XyMethod, approach: 1 | -1 | null): MethodBias {
  switch (method) {
    case "edgeFinder":
      return approach === null
        ? { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.0007, sensitivity: 0.7 }, click]) }
        : {
            biasMm: approach * (0.005 + FINEST_CLICK_MM / 2),
            uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, { kind: "normal", value: 0.0007 }, click]),
          };
    case "taster":
      return {
        biasMm: 0,
        uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, { kind: "resolution", value: 0.002 }, click]),
      };
    case "probe":
      return {
        biasMm: 0,
        uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, { kind: "normal", value: 0.001 }, click]),
      };
    case "indicator":
      return {
        biasMm: 0,
        uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, { kind: "resolution", value: 0.001 }, click]),
      };
  }
}

/** What measures a tool by itself, the surest first. */
export const toolMeasures = ["plungerSetter", "beamSetter", "presetter", "lampGauge"] as const;
/** What is put between a tip and a surface, the surest first. */
export const surfaceTouches = ["lampGauge", "pin", "block", "paper"] as const;
/** What work Z is touched with where the tools have lengths of their own. */
export const workTouches = ["probe", "lampGauge", "paper"] as const;
/** Every way of touching in Z that an exercise can lay out. */
export const lengthMethods = [...new Set([...surfaceTouches, "feeler" as const, ...toolMeasures, ...workTouches])];
export type LengthMethod = GapKind | (typeof toolMeasures)[number] | (typeof workTouches)[number] | "metal";

/**
 * Mean and deviation of one touch in Z, mm. Paper and feelers are felt at 0.85 to 1.00 of their thickness; a gap opened
 * until a block goes is late upward; a lamp or metal is late downward by half a click; cycles measure to a micrometre.
 */
export function lengthBias(
  method: LengthMethod,
  { gaps }: { gaps: readonly { kind: GapKind; nominalMm: number }[] },
): MethodBias {
  const half = FINEST_CLICK_MM / 2;
  switch (method) {
    case "paper":
    case "feeler": {
      const nominalMm = Math.max(0, ...gaps.filter(({ kind }) => kind === method).map((gap) => gap.nominalMm));
      return {
        biasMm: -(0.075 * nominalMm + half),
        uMm: standardUncertainty([
          { kind: "normal", value: 0.003 },
          { kind: "uniform", value: 0.075 * nominalMm },
          click,
        ]),
      };
    }
    case "block":
    case "pin":
      return {
        biasMm: half,
        uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, { kind: "normal", value: 0.0005 }, click]),
      };
    case "lampGauge":
      return { biasMm: -half, uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, click]) };
    case "metal":
      return { biasMm: -half, uMm: standardUncertainty([click]) };
    case "plungerSetter":
    case "beamSetter":
    case "probe":
      return {
        biasMm: 0,
        uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, { kind: "normal", value: 0.001 }, click]),
      };
    case "presetter":
      return { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, click]) };
  }
}

/** Mean and deviation of two touches that stand in one sum. */
export const together = (a: MethodBias, b: MethodBias): MethodBias => ({
  biasMm: a.biasMm + b.biasMm,
  uMm: Math.hypot(a.uMm, b.uMm),
});

/** A stack of blocks finds a slot this well, mm. */
export const STACK_U_MM = 0.0012;
/** A stack of blocks and a setting gauge compared with one another: what the gauge reads a crest to, mm. */
export const SETTING_GAUGE_U_MM = 0.0035;

/** The click with which a turning surface is felt for, mm. */
const SCRATCH_CLICK_MM = 0.01;

/** Ways in which a tool of a lathe meets what it is set by. */
export type TurretMethod =
  | "cut"
  | "scratch"
  | "paper"
  | "feeler"
  | "straightEdge"
  | "block"
  | "pin"
  | "metal"
  | "arm"
  | "indicator"
  | "eye"
  | "slid"
  | "cone";

/**
 * Mean and deviation of one contact of a turret tool, mm; X as a diameter. A cut springs the tool away by 1.5 µm on the
 * radius and is measured to 2 µm; paper and feelers are felt at 0.85 to 1.00 of their thickness, on a diameter twice; a
 * gap opened until a pin goes is late.
 */
export function turretBias(
  by: TurretMethod | null,
  thicknessMm: number,
  axis: "x" | "z",
  outside: 1 | -1 = 1,
): MethodBias {
  const twice = axis === "x" ? 2 : 1;
  switch (by) {
    case "cut":
      return axis === "x"
        ? {
            biasMm: -outside * 0.003,
            uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, { kind: "normal", value: 0.0012 }, click]),
          }
        : { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, click]) };
    case "paper":
    case "feeler":
      return {
        biasMm: -(axis === "x" ? outside : 1) * twice * 0.075 * thicknessMm - FINEST_CLICK_MM / 2,
        uMm: standardUncertainty([
          { kind: "normal", value: 0.003, sensitivity: twice },
          { kind: "uniform", value: 0.075 * thicknessMm, sensitivity: twice },
          { kind: "normal", value: axis === "x" ? 0.003 : 0.001 },
          click,
        ]),
      };
    case "block":
    case "pin":
      return {
        biasMm: FINEST_CLICK_MM / 2,
        uMm: standardUncertainty([{ kind: "normal", value: 0.0012 }, { kind: "normal", value: 0.001 }, click]),
      };
    // heard at the click that brought the edge in: late by up to that click, and by the least that scrapes
    case "scratch":
      return {
        biasMm: -(axis === "x" ? outside : 1) * (SCRATCH_CLICK_MM / 2),
        uMm: standardUncertainty([{ kind: "uniform", value: SCRATCH_CLICK_MM / 2 }, click]),
      };
    case "straightEdge":
    case "metal":
      return {
        biasMm: 0,
        uMm: standardUncertainty([{ kind: "normal", value: 0.001 }, { kind: "uniform", value: 0.002 }, click]),
      };
    case "arm":
      return {
        biasMm: 0,
        uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, { kind: "normal", value: 0.002 }, click]),
      };
    case "indicator":
      return {
        biasMm: 0,
        uMm: standardUncertainty([
          { kind: "normal", value: 0.001, sensitivity: 1.41 },
          { kind: "resolution", value: 0.001 },
          click,
        ]),
      };
    // a point sighted over an edge: the eye's own error and what it is content with
    case "eye":
      return {
        biasMm: 0,
        uMm: standardUncertainty([
          { kind: "normal", value: 0.07 },
          { kind: "uniform", value: 0.1 },
        ]),
      };
    // slid against the bar: what it rests on, and the display it was sent to
    case "slid":
      return {
        biasMm: 0,
        uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, { kind: "normal", value: 0.002 }, click]),
      };
    // a cone carries what is left in the X of both tools: at 45° half of it
    case "cone":
      return {
        biasMm: 0.007,
        uMm: standardUncertainty([{ kind: "normal", value: 0.006 }, { kind: "normal", value: 0.0015 }, click]),
      };
    case null:
      return { biasMm: 0, uMm: 0.003 };
  }
}

export interface FairnessWarning {
  axis: "x" | "y" | "z" | "d";
  method: string;
  toleranceMm: number;
  leastFairMm: number;
}
/** Weighs one method that an exercise allows against the tolerance of its axis. */
export type Weigh = (axis: FairnessWarning["axis"], method: string, bias: MethodBias) => void;

/**
 * What a register should hold, and what the best way that the drawer allows leaves in it: mean and standard deviation,
 * mm.
 */
export interface ExpectedLine extends MethodBias {
  readonly register: RegisterId | "turn" | "axisHeight" | "gaugeError";
  readonly wantedMm: number;
  readonly method: string;
}

export const NO_BIAS: MethodBias = { biasMm: 0, uMm: 0 };
