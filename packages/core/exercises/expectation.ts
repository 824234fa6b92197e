import { standardUncertainty } from "../desk/uncertainty";
import type { InstrumentName } from "../instruments";
import type { RegisterId } from "../registers";
import { expectedDiameter, expectedLengths } from "./expected";
import {
  lengthBias,
  SETTING_GAUGE_U_MM,
  STACK_U_MM,
  turretBias,
  xyBias,
  type LengthMethod,
  type MethodBias,
  type XyMethod,
} from "./fairness";
import { drawNewTool, farEdgeMm, type LatheSchool, type LatheSheet } from "./lathe";
import type { MillLengthSchool } from "./schema";
import type { Setup, Truth } from "./variant";

/**
 * What a register should hold, and what the best way that the drawer allows leaves in it: mean and standard deviation,
 * mm.
 */
export interface ExpectedLine extends MethodBias {
  readonly register: RegisterId | "turn" | "axisHeight" | "gaugeError";
  readonly wantedMm: number;
  readonly method: string;
}

const NONE: MethodBias = { biasMm: 0, uMm: 0 };
const first = <T extends InstrumentName>(setup: Setup, names: readonly T[]): T | null =>
  names.find((name) => setup.instruments.includes(name)) ?? null;

/** The way in which a tool meets what its school measures on. */
function toolMethod(setup: Setup, school: MillLengthSchool): LengthMethod {
  if (school === "gauge-line")
    return first(setup, ["plungerSetter", "beamSetter", "presetter", "lampGauge"] as const) ?? "metal";
  if (school === "block-in-wear") return "block";
  return first(setup, ["lampGauge", "pin", "block", "paper"] as const) ?? "paper";
}

function lengthLines(setup: Setup, truth: Truth, school: MillLengthSchool): ExpectedLine[] {
  const method = toolMethod(setup, school);
  const tool = lengthBias(method, setup);
  const workMethod: LengthMethod =
    school === "gauge-line" ? (first(setup, ["probe", "lampGauge", "paper"] as const) ?? "paper") : method;
  const work = lengthBias(workMethod, setup);
  const [lowest = 1] = [...setup.targets.lengths].sort((a, b) => a - b);
  return expectedLengths(setup, truth, school).map(({ register, wantedMm }): ExpectedLine => {
    const isWork = register.endsWith(".z");
    const isFixed = wantedMm === 0 || register.startsWith("HW");
    if (isFixed) return { register, wantedMm, method: "typed", ...NONE };
    if (isWork) {
      // on a plane the touch of the tool cancels what the touch of the part leaves, but for chance
      const bias = school === "plane-lift" ? { biasMm: 0, uMm: Math.SQRT2 * work.uMm } : work;
      return { register, wantedMm, method: workMethod, ...bias };
    }
    const isDifference = school === "master" && register !== `H${lowest}`;
    return { register, wantedMm, method, ...(isDifference ? { biasMm: 0, uMm: Math.SQRT2 * tool.uMm } : tool) };
  });
}

/**
 * A library's rows are the reference's place less each tool's; on a gang slide X is where the tip lies on the axis,
 * height what lifts it there.
 */
function handLines(
  lathe: LatheSheet,
  truth: Truth,
  school: "readout-library" | "gang-bar",
  paperMm: number,
): ExpectedLine[] {
  const { tools = {} } = truth.lathe ?? {};
  const of = (number: number) => {
    const old = tools[number] ?? { kxMm: 0, qMm: 0, heightMm: 0 };
    const place = lathe.gang?.changed.indexOf(number) ?? -1;
    if (place < 0) return old;
    // changed in the order of the sheet, at the overhang of the sheet
    const fresh = drawNewTool(truth.seed, number, place);
    return { ...old, kxMm: old.kxMm + fresh.xMm, heightMm: old.heightMm + fresh.heightMm };
  };
  const axis = truth.lathe?.axis;
  if (axis)
    return [
      { register: "axisHeight", wantedMm: axis.heightMm, method: "gaugeBlocks", biasMm: 0, uMm: STACK_U_MM },
      { register: "gaugeError", wantedMm: axis.gaugeOffMm, method: "settingGauge", biasMm: 0, uMm: SETTING_GAUGE_U_MM },
    ];
  const [reference] = lathe.targets.x;
  // a row is the reference's reading less the tool's
  const less = (theirs: MethodBias, mine: MethodBias): MethodBias => ({
    biasMm: theirs.biasMm - mine.biasMm,
    uMm: Math.hypot(theirs.uMm, mine.uMm),
  });
  return lathe.tools.flatMap(({ number, kind }): ExpectedLine[] => {
    if (school === "gang-bar") {
      return [
        ...(lathe.targets.x.includes(number)
          ? [
              {
                register: `X${number}` as const,
                wantedMm: of(number).kxMm - (lathe.gang?.workXMm ?? 0),
                method: "paper",
                ...turretBias("paper", paperMm, "x"),
              },
            ]
          : []),
        ...(lathe.targets.height.includes(number)
          ? [
              {
                register: `Y${number}` as const,
                wantedMm: -of(number).heightMm || 0,
                method: "pip",
                biasMm: 0,
                uMm: 0.006,
              },
            ]
          : []),
      ];
    }
    if (number === reference || reference === undefined) return [];
    const z = kind === "threading" ? ("eye" as const) : ("paper" as const);
    return [
      ...(lathe.targets.x.includes(number)
        ? [
            {
              register: `LX${number}` as const,
              wantedMm: of(reference).kxMm - of(number).kxMm,
              method: "paper",
              ...less(turretBias("cut", 0, "x"), turretBias("paper", paperMm, "x")),
            },
          ]
        : []),
      ...(lathe.targets.z.includes(number)
        ? [
            {
              register: `LZ${number}` as const,
              wantedMm: of(reference).qMm - of(number).qMm,
              method: z,
              ...less(turretBias("cut", 0, "z"), turretBias(z, paperMm, "z")),
            },
          ]
        : []),
    ];
  });
}

/**
 * X is where the tip lies on the axis; Z by its school, with the face at its sawn end: facing moves every Z and work Z
 * alike by what it takes off.
 */
function latheLines(
  setup: Setup,
  lathe: LatheSheet,
  truth: Truth,
  school: MillLengthSchool | LatheSchool | null,
): ExpectedLine[] | null {
  const own = school === null ? lathe.schools[0] : lathe.schools.find((one) => one === school);
  const { tools = {}, skinMm = 0 } = truth.lathe ?? {};
  if (own === undefined) return null;
  const by = (kind: string) => {
    if (own === "setter-arm") return "arm" as const;
    return kind === "turning" || kind === "profiling" || kind === "boring" ? ("cut" as const) : ("paper" as const);
  };
  if (own === "readout-library" || own === "gang-bar")
    return handLines(lathe, truth, own, setup.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0);
  const [master] = lathe.targets.z;
  const reach = (number: number) => tools[number]?.qMm ?? 0;
  const zOf = (number: number): number => {
    if (own === "part-face")
      return skinMm + reach(number) - farEdgeMm(lathe.tools.find((one) => one.number === number));
    return own === "master-shift" || own === "preset" ? reach(number) - reach(master ?? number) : reach(number);
  };
  const workMm =
    own === "part-face" ? 0 : own === "master-shift" || own === "preset" ? skinMm + reach(master ?? 0) : skinMm;
  // a declared position stands in the common offset, of X as well: what the rows hold is the difference from its tool
  const isDeclared = own === "preset";
  const ofMaster = isDeclared ? (tools[master ?? 0]?.kxMm ?? 0) : 0;
  const paperMm = setup.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0;
  const lines = lathe.tools.flatMap(({ number, kind, noseRadiusMm, tipCode }): ExpectedLine[] => [
    ...(lathe.targets.x.includes(number)
      ? [
          {
            register: `X${number}` as const,
            wantedMm: (tools[number]?.kxMm ?? 0) - ofMaster,
            method: by(kind),
            ...turretBias(by(kind), paperMm, "x", kind === "boring" ? -1 : 1),
          },
        ]
      : []),
    ...(lathe.targets.z.includes(number)
      ? [
          {
            register: `Z${number}` as const,
            wantedMm: zOf(number),
            method: own === "setter-arm" ? "arm" : "pin",
            ...turretBias(own === "setter-arm" ? "arm" : "pin", 0, "z"),
          },
        ]
      : []),
    ...(lathe.targets.nose.includes(number)
      ? [
          { register: `R${number}` as const, wantedMm: noseRadiusMm, method: "typed", ...NONE },
          { register: `Q${number}` as const, wantedMm: tipCode, method: "typed", ...NONE },
        ]
      : []),
  ]);
  if (isDeclared)
    return [
      ...lines,
      { register: "common.x", wantedMm: ofMaster, method: "cut", ...turretBias("cut", 0, "x") },
      { register: "common.z", wantedMm: workMm, method: "cut", ...turretBias("cut", 0, "z") },
    ];
  return [
    ...lines,
    { register: "G54.x", wantedMm: 0, method: "typed", ...NONE },
    ...(lathe.targets.z.length > 0
      ? [{ register: "G54.z" as const, wantedMm: workMm, method: own === "part-face" ? "typed" : "cut", ...NONE }]
      : []),
  ];
}

/**
 * What every register of a lane should hold when all is done right in a school, with the bias and the uncertainty of
 * the method; null when the exercise does not allow that school. For authors and the command line: it knows the truth.
 */
export function expectationOf(
  setup: Setup,
  truth: Truth,
  school: MillLengthSchool | LatheSchool | null,
): ExpectedLine[] | null {
  if (setup.lathe) return latheLines(setup, setup.lathe, truth, school);
  const { targets, datum, lengthSchools, settings } = setup;
  const known = lengthSchools.find((one) => one === school);
  if (school !== null && known === undefined) return null;
  const way: XyMethod = first(setup, ["edgeFinder", "taster", "probe", "indicator"] as const) ?? "edgeFinder";
  const places: ExpectedLine[] = targets.xy
    ? (["x", "y"] as const).map((axis) => ({
        register: `G54.${axis}` as const,
        wantedMm: truth.datumMm[axis],
        method: way,
        ...xyBias(way, datum.kind === "corner" && !setup.isSkewed ? datum.edges[axis].approach : null),
      }))
    : [];
  const turn: ExpectedLine[] = targets.rotation
    ? [{ register: "turn", wantedMm: truth.skewDeg, method: "probe", ...NONE }]
    : [];
  const lengths =
    targets.lengths.length > 0 ? lengthLines(setup, truth, known ?? lengthSchools[0] ?? "part-touch") : [];
  const measured = {
    biasMm: 0,
    uMm:
      standardUncertainty([
        { kind: "normal", value: 0.002 },
        { kind: "resolution", value: 0.001 },
      ]) / (settings.diameterMode === "radius" ? 2 : 1),
  };
  const diameters = targets.diameters.map((tool): ExpectedLine => ({
    register: setup.diameterSchool === "wear-comp" ? `DW${tool}` : `D${tool}`,
    wantedMm: expectedDiameter(setup, truth, tool),
    method: "micrometer",
    ...measured,
  }));
  return [...places, ...turn, ...lengths, ...diameters];
}
