import { standardUncertainty } from "../desk/uncertainty";
import type { GapKind, InstrumentName } from "../instruments";
import { countsFromMm } from "../units";
import type { Exercise, Marking } from "./schema";

export interface MethodBias {
  biasMm: number;
  uMm: number;
}
export interface FairnessWarning {
  axis: "x" | "y" | "z" | "d";
  method: string;
  toleranceMm: number;
  leastFairMm: number;
}

/** The finest click, mm: a contact is found late by half of it on average. */
const FINEST_CLICK_MM = 0.001;
const click = { kind: "resolution" as const, value: FINEST_CLICK_MM };

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

export type LengthMethod = GapKind | "lampGauge" | "plungerSetter" | "beamSetter" | "presetter" | "probe" | "metal";

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

const LENGTH_METHODS = [
  "paper",
  "feeler",
  "block",
  "pin",
  "lampGauge",
  "plungerSetter",
  "beamSetter",
  "presetter",
  "probe",
] as const;

/** The gaps an exercise may draw, at their thickest. */
const worstGaps = (exercise: Exercise) => [
  { kind: "paper" as const, nominalMm: Math.max(...exercise.paperMm) },
  ...exercise.gaps,
];

/** Ways of touching in Z that an exercise lays out. */
export const lengthMethodsOf = ({
  instruments,
  gaps,
}: {
  instruments: readonly InstrumentName[];
  gaps: readonly { kind: GapKind }[];
}): LengthMethod[] =>
  LENGTH_METHODS.filter(
    (method) =>
      instruments.includes(method) &&
      (method === "paper" ||
        method === "lampGauge" ||
        !["feeler", "block", "pin"].includes(method) ||
        gaps.some(({ kind }) => kind === method)),
  );

/** A stack of blocks finds a slot this well, mm. */
export const STACK_U_MM = 0.0012;
/** A stack of blocks and a setting gauge compared with one another: what the gauge reads a crest to, mm. */
export const SETTING_GAUGE_U_MM = 0.0035;

/**
 * Where a tolerance is narrower than a method it allows can hold, |b| + 3u, at its thickest paper; empty when it is
 * fair.
 */
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
    for (const axis of ["x", "y"] as const)
      for (const way of ways)
        check(axis, way, xyBias(way, datum.kind === "corner" ? datum.edges[axis].approach : null));
  }
  if (targets.lengths.length > 0)
    for (const method of lengthMethodsOf(exercise))
      check("z", method, lengthBias(method, { gaps: worstGaps(exercise) }));
  if (exercise.lathe) {
    const { targets: wanted, tools } = exercise.lathe;
    const paperMm = Math.max(...exercise.paperMm);
    const isTouched = (number: number) =>
      !["turning", "profiling", "boring"].includes(tools.find((tool) => tool.number === number)?.kind ?? "") ||
      number !== wanted.x[0];
    if (wanted.x.length > 0) check("x", "cut", turretBias("cut", 0, "x"));
    if (
      instruments.includes("paper") &&
      !exercise.lathe.schools.every((school) => school === "setter-arm") &&
      wanted.x.some(
        (number, place) =>
          place > 0 &&
          isTouched(number) &&
          !["boring", "drill"].includes(tools.find((tool) => tool.number === number)?.kind ?? ""),
      )
    )
      check("x", "paper", turretBias("paper", paperMm, "x"));
    if (tools.some(({ kind, number }) => kind === "drill" && wanted.x.includes(number)))
      check("x", "indicator", turretBias("indicator", 0, "x"));
    if (wanted.z.length > 0)
      for (const pin of exercise.gaps.filter(({ kind }) => kind === "pin"))
        check("z", "pin", turretBias("pin", pin.nominalMm, "z"));
    if (exercise.lathe.axis) check("z", "settingGauge", { biasMm: 0, uMm: SETTING_GAUGE_U_MM });
    if (exercise.lathe.arm)
      for (const axis of ["x", "z"] as const) check(axis, "setterArm", turretBias("arm", 0, axis));
  }
  if (targets.diameters.length > 0)
    check("d", "micrometer", { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, click]) });
  return warnings;
}

/** Ways in which a tool of a lathe meets what it is set by. */
export type TurretMethod =
  | "cut"
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
