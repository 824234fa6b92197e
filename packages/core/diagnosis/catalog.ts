/**
 * The mistakes that instructors meet, both machines, as data: where each applies, which figures it needs, and the
 * closure it predicts. One list serves the bench, the floor and the desk; words stand in the words room under the same
 * ids.
 */

/** What is set, and how: the conditions under which a mistake can happen. */
export const methods = [
  "mill-edge",
  "mill-center",
  "mill-length",
  "mill-diameter",
  "lathe-x",
  "lathe-z",
  "lathe-readout",
  "lathe-nose",
  "lathe-tip",
] as const;
export type Method = (typeof methods)[number];

/** Everything a prediction may need, one length unit throughout. All may be unknown. */
export interface Figures {
  /** +1 moving plus onto the low side, −1 moving minus onto the high side. */
  approach?: 1 | -1 | undefined;
  tipRadius?: number | undefined;
  /** Work coordinate of the touched edge. */
  edgeWork?: number | undefined;
  partSize?: number | undefined;
  burr?: number | undefined;
  /** Travel of one turn of a dial. */
  dialTurn?: number | undefined;
  paper?: number | undefined;
  block?: number | undefined;
  facing?: number | undefined;
  partHeight?: number | undefined;
  /** Height of the datum over the reference plane. */
  lift?: number | undefined;
  leftoverWork?: number | undefined;
  leftoverCommon?: number | undefined;
  oldWear?: number | undefined;
  /** How much longer than this tool each neighbor is. */
  neighbors?: readonly number[] | undefined;
  /** Geometry plus wear of the tool in use. */
  lengthInUse?: number | undefined;
  growth?: number | undefined;
  /** Measured cutter diameter, and the nominal one. */
  cutterDiameter?: number | undefined;
  nominalDiameter?: number | undefined;
  /** Diameter that was touched or measured on a lathe. */
  touchDiameter?: number | undefined;
  /** +1 outside, −1 in a bore. */
  outside?: 1 | -1 | undefined;
  bladeWidth?: number | undefined;
  noseRadius?: number | undefined;
  /** Tip code 0–9 of the tool. */
  tipCode?: number | undefined;
  shift?: number | undefined;
  masterOld?: number | undefined;
  /** What the readout showed at the corner. */
  reading?: number | undefined;
  /** What the register of the other axis should hold. */
  otherAxis?: number | undefined;
  /** Length of the tool from the gauge line. */
  toolLength?: number | undefined;
  /** By how much the length of the probe or height tool was entered too long. */
  probeError?: number | undefined;
  /** What the setter’s sensor adds to every value. */
  sensorConstant?: number | undefined;
  /** How far edge or holder stands out before the nose where it met the plate. */
  plateReach?: number | undefined;
  /** What the register should hold. */
  wanted?: number | undefined;
}
export type FigureName = keyof Figures;

export interface Mistake {
  readonly methods: readonly Method[];
  readonly needs: readonly FigureName[];
  readonly prior: number;
  /** Closures that this mistake leaves; more than one where it can happen in more than one way. */
  readonly predict: (f: Required<{ [K in FigureName]: NonNullable<Figures[K]> }>) => readonly number[];
}

/** Imaginary tip less nose center in units of the nose radius, by tip code: [x (radius), z]. */
const TIP: readonly (readonly [number, number])[] = [
  [0, 0],
  [1, 1],
  [1, -1],
  [-1, -1],
  [-1, 1],
  [0, 1],
  [1, 0],
  [0, -1],
  [-1, 0],
  [0, 0],
];

const EDGE: readonly Method[] = ["mill-edge"];
const LENGTH: readonly Method[] = ["mill-length"];
/** Everything that is a length; a tip code is a choice out of ten. */
const ANY: readonly Method[] = methods.filter((method) => method !== "lathe-tip");
const SIGNED: readonly Method[] = ["mill-edge", "mill-center", "mill-length", "lathe-x", "lathe-z", "lathe-readout"];

/** The value with each pair of unlike neighboring digits changed round, less the value. */
function swaps(wanted: number): number[] {
  const digits = [...Math.abs(wanted).toFixed(3)];
  return digits.flatMap((digit, i) => {
    const j = digits[i + 1] === "." ? i + 2 : i + 1;
    const next = digits[j];
    if (digit === "." || next === undefined || next === digit) return [];
    const changed = [...digits];
    changed[i] = next;
    changed[j] = digit;
    return [Math.sign(wanted) * (Number(changed.join("")) - Number(digits.join("")))];
  });
}

/** The value with one digit of its whole millimetres or inches another one, less the value. */
function otherDigits(wanted: number): number[] {
  const whole = Math.trunc(Math.abs(wanted)).toString();
  return [...whole].flatMap((digit, i) =>
    [...Array(10).keys()]
      .filter((other) => other !== Number(digit))
      .map((other) => Math.sign(wanted) * (other - Number(digit)) * 10 ** (whole.length - 1 - i)),
  );
}

const entry = (
  methodsOf: readonly Method[],
  needs: readonly FigureName[],
  prior: number,
  predict: Mistake["predict"],
): Mistake => ({ methods: methodsOf, needs, prior, predict });

export const catalog = {
  // mill, X and Y
  radiusForgotten: entry(EDGE, ["approach", "tipRadius"], 0.12, (f) => [-f.approach * f.tipRadius]),
  radiusSignTurned: entry(EDGE, ["approach", "tipRadius"], 0.08, (f) => [-2 * f.approach * f.tipRadius]),
  diameterForRadius: entry(EDGE, ["approach", "tipRadius"], 0.05, (f) => [f.approach * f.tipRadius]),
  edgeWorkForgotten: entry(EDGE, ["edgeWork"], 0.06, (f) => [f.edgeWork]),
  edgeWorkSignTurned: entry(EDGE, ["edgeWork"], 0.04, (f) => [2 * f.edgeWork]),
  otherEdge: entry(EDGE, ["approach", "partSize"], 0.02, (f) => [f.approach * f.partSize]),
  burr: entry(EDGE, ["approach", "burr"], 0.04, (f) => [-f.approach * f.burr]),
  dialTurnShort: entry(EDGE, ["approach", "dialTurn"], 0.03, (f) => [-f.approach * f.dialTurn]),
  axesSwapped: entry(["mill-edge", "mill-center"], ["wanted", "otherAxis"], 0.02, (f) => [f.otherAxis - f.wanted]),
  radiusOnOneSide: entry(["mill-center"], ["tipRadius"], 0.1, (f) => [f.tipRadius / 2, -f.tipRadius / 2]),
  // mill, Z and length
  paperForgotten: entry(LENGTH, ["paper"], 0.14, (f) => [f.paper]),
  paperWrongWay: entry(LENGTH, ["paper"], 0.07, (f) => [2 * f.paper]),
  blockForgotten: entry(LENGTH, ["block"], 0.06, (f) => [f.block]),
  blockWrongWay: entry(LENGTH, ["block"], 0.03, (f) => [2 * f.block]),
  facingForgotten: entry(LENGTH, ["facing"], 0.09, (f) => [f.facing]),
  facingWrongWay: entry(LENGTH, ["facing"], 0.04, (f) => [2 * f.facing]),
  partHeightMiscounted: entry(LENGTH, ["partHeight"], 0.03, (f) => [f.partHeight, -f.partHeight]),
  liftMissing: entry(LENGTH, ["lift"], 0.05, (f) => [-f.lift]),
  leftoverWorkZ: entry(["mill-length", "lathe-z"], ["leftoverWork"], 0.06, (f) => [f.leftoverWork]),
  leftoverCommonZ: entry(["mill-length", "lathe-z"], ["leftoverCommon"], 0.04, (f) => [f.leftoverCommon]),
  oldWear: entry(["mill-length", "lathe-x", "lathe-z"], ["oldWear"], 0.05, (f) => [f.oldWear]),
  neighborRow: entry(["mill-length", "lathe-x", "lathe-z"], ["neighbors"], 0.04, (f) => f.neighbors),
  lengthNotCalled: entry(LENGTH, ["lengthInUse"], 0.03, (f) => [-f.lengthInUse]),
  schoolsMixed: entry(LENGTH, ["toolLength"], 0.03, (f) => [f.toolLength, -f.toolLength]),
  probeLengthWrong: entry(LENGTH, ["probeError"], 0.03, (f) => [-f.probeError]),
  spindleGrowth: entry(LENGTH, ["growth"], 0.02, (f) => [f.growth]),
  // cutter diameter
  radiusInDiameter: entry(["mill-diameter"], ["cutterDiameter"], 0.1, (f) => [-f.cutterDiameter / 2]),
  diameterInRadius: entry(["mill-diameter"], ["cutterDiameter"], 0.08, (f) => [f.cutterDiameter / 2]),
  nominalForMeasured: entry(["mill-diameter"], ["cutterDiameter", "nominalDiameter"], 0.12, (f) => [
    f.nominalDiameter - f.cutterDiameter,
  ]),
  diameterEmpty: entry(["mill-diameter"], ["cutterDiameter"], 0.06, (f) => [-f.cutterDiameter]),
  wearSignTurned: entry(["mill-diameter"], ["oldWear"], 0.05, (f) => [-2 * f.oldWear]),
  wearTwice: entry(["mill-diameter"], ["oldWear"], 0.04, (f) => [f.oldWear]),
  wholeInWear: entry(["mill-diameter"], ["oldWear", "nominalDiameter"], 0.08, (f) => [f.nominalDiameter]),
  // lathe
  feelerOnce: entry(["lathe-x"], ["paper", "outside"], 0.12, (f) => [f.outside * f.paper]),
  feelerForgotten: entry(["lathe-x"], ["paper", "outside"], 0.1, (f) => [f.outside * 2 * f.paper]),
  diameterAsRadius: entry(["lathe-x"], ["touchDiameter"], 0.07, (f) => [f.touchDiameter / 2]),
  workXNotZero: entry(["lathe-x"], ["leftoverWork"], 0.04, (f) => [f.leftoverWork]),
  noseCenterX: entry(["lathe-x"], ["noseRadius", "tipCode"], 0.04, (f) => [
    2 * f.noseRadius * (TIP[f.tipCode]?.[0] ?? 0),
  ]),
  gapForgotten: entry(["lathe-z"], ["block"], 0.1, (f) => [f.block]),
  gapWrongWay: entry(["lathe-z"], ["block"], 0.05, (f) => [2 * f.block]),
  faceForgotten: entry(["lathe-z"], ["facing"], 0.06, (f) => [f.facing]),
  otherBladeEdge: entry(["lathe-z"], ["bladeWidth"], 0.06, (f) => [f.bladeWidth, -f.bladeWidth]),
  toolNotActive: entry(["lathe-z"], ["lengthInUse"], 0.05, (f) => [f.lengthInUse]),
  shiftMissing: entry(["lathe-z"], ["shift"], 0.04, (f) => [-f.shift]),
  masterNotCleared: entry(["lathe-x", "lathe-z"], ["masterOld"], 0.03, (f) => [-f.masterOld]),
  noseCenterZ: entry(["lathe-z"], ["noseRadius", "tipCode"], 0.04, (f) => [f.noseRadius * (TIP[f.tipCode]?.[1] ?? 0)]),
  sensorConstant: entry(["lathe-x", "lathe-z"], ["sensorConstant"], 0.03, (f) => [f.sensorConstant, -f.sensorConstant]),
  plateMetEarly: entry(["lathe-z"], ["plateReach"], 0.03, (f) => [f.plateReach]),
  librarySign: entry(["lathe-readout"], ["reading"], 0.15, (f) => [2 * f.reading]),
  feelerOnSome: entry(["lathe-readout"], ["paper"], 0.08, (f) => [f.paper, -f.paper]),
  // any register
  wholeSignTurned: entry(SIGNED, ["wanted"], 0.03, (f) => [-2 * f.wanted]),
  inchForMm: entry(ANY, ["wanted"], 0.02, (f) => [f.wanted * 24.4, f.wanted * (1 / 25.4 - 1)]),
  decimalShifted: entry(ANY, ["wanted"], 0.03, (f) => [9 * f.wanted, -0.9 * f.wanted]),
  digitsSwapped: entry(ANY, ["wanted"], 0.03, (f) => swaps(f.wanted)),
  digitMistyped: entry(ANY, ["wanted"], 0.02, (f) => otherDigits(f.wanted)),
} as const satisfies Record<string, Mistake>;

export type MistakeId = keyof typeof catalog;
export const mistakeIds = Object.keys(catalog) as MistakeId[];

/** One way in which one mistake would show. */
export interface Signature {
  readonly id: MistakeId;
  readonly predictedMm: number;
}

const isKnown = (figures: Figures, name: FigureName): boolean => {
  const value = figures[name];
  return value !== undefined && (Array.isArray(value) ? value.length > 0 : true);
};

/**
 * What every mistake that applies, and whose figures are known, would leave; those that leave nothing are not mistakes
 * here.
 */
export function signaturesFor(method: Method, figures: Figures): Signature[] {
  return mistakeIds.flatMap((id) => {
    const { methods: of, needs, predict }: Mistake = catalog[id];
    if (!of.includes(method) || !needs.every((name) => isKnown(figures, name))) return [];
    return predict(figures as Parameters<typeof predict>[0])
      .filter((value) => Math.abs(value) > 1e-9)
      .map((predictedMm) => ({ id, predictedMm }));
  });
}

/**
 * The unknown figure that would let the likeliest of the mistakes not yet weighed be weighed; null when none is
 * missing.
 */
export function mostUsefulFigure(method: Method, figures: Figures): FigureName | null {
  const worth = new Map<FigureName, number>();
  for (const id of mistakeIds) {
    const { methods: of, needs, prior }: Mistake = catalog[id];
    const missing = needs.filter((name) => !isKnown(figures, name));
    if (of.includes(method))
      for (const name of missing) worth.set(name, (worth.get(name) ?? 0) + prior / missing.length);
  }
  return [...worth].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}
