import { toolName } from "../instruments";
import type { RegisterId, WorkOffsetName } from "../registers";
import { tableZMm } from "./scene";
import type { MillLengthSchool } from "./schema";
import type { Setup, Truth } from "./variant";

/** What one register, or one sum of registers, has to come to. */
export type TargetId =
  | `C${number}`
  | `X${number}`
  | `Z${number}`
  | `R${number}`
  | `Q${number}`
  | `F${number}`
  | "axisHeight"
  | "gaugeError"
  | "x"
  | "y"
  | "rotation"
  | `z${number}`
  | `H${number}`
  | "workZ"
  | `d${number}`;

/** The work offset that a tool works in: one for all, but in `offset-per-tool` tool n has its own. */
export function workOffsetOf({ isSchoolPrescribed, lengthSchools, tools }: Setup, tool: number): WorkOffsetName {
  if (!isSchoolPrescribed || lengthSchools[0] !== "offset-per-tool") return "G54";
  const place = Math.max(
    0,
    tools.findIndex(({ number }) => number === tool),
  );
  return (["G54", "G55", "G56", "G57", "G58", "G59"] as const)[place] ?? "G54";
}

/** True length of a tool as the exercise wants it: standing still, or grown at its working speed, mm. */
export function wantedLengthMm(setup: Setup, truth: Truth, tool: number): number {
  const still = truth.lengthsMm[toolName(tool)] ?? 0;
  const rpm = setup.isAtSpeed ? (setup.tools.find(({ number }) => number === tool)?.workingRpm ?? 0) : 0;
  return still - (truth.growthMmPer1000 * rpm) / 1000;
}

export interface ExpectedRegister {
  readonly register: RegisterId;
  readonly wantedMm: number;
}

/**
 * What length registers and work Z hold when everything is right, by school: `domain` of the schools, common offset and
 * wear 0 but in block-in-wear. The plane of `plane-lift` is the table; the master is the lowest tool; lengths in mm.
 */
export function expectedLengths(
  setup: Setup,
  truth: Truth,
  school: MillLengthSchool,
  datumZMm = truth.datumMm.z,
): ExpectedRegister[] {
  const tools = [...setup.targets.lengths].sort((a, b) => a - b);
  const lengthOf = (tool: number) => wantedLengthMm(setup, truth, tool);
  const rows = (value: (tool: number) => number): ExpectedRegister[] =>
    tools.map((tool) => ({ register: `H${tool}`, wantedMm: value(tool) }));
  const plane = tableZMm(setup, truth.datumMm.z);
  const block = setup.gaps.find(({ kind }) => kind === "block")?.nominalMm ?? 0;
  switch (school) {
    case "gauge-line":
      return [...rows(lengthOf), { register: "G54.z", wantedMm: datumZMm }];
    case "part-touch":
      return [...rows((tool) => datumZMm + lengthOf(tool)), { register: "G54.z", wantedMm: 0 }];
    case "plane-lift":
      return [...rows((tool) => plane + lengthOf(tool)), { register: "G54.z", wantedMm: datumZMm - plane }];
    case "master": {
      const master = lengthOf(tools[0] ?? 1);
      return [...rows((tool) => lengthOf(tool) - master), { register: "G54.z", wantedMm: datumZMm + master }];
    }
    case "offset-per-tool":
      return tools.flatMap((tool) => [
        { register: `H${tool}` as const, wantedMm: 0 },
        { register: `${workOffsetOf(setup, tool)}.z` as const, wantedMm: datumZMm + lengthOf(tool) },
      ]);
    case "block-in-wear":
      return [
        ...rows((tool) => datumZMm + setup.facingAllowanceMm + lengthOf(tool) + block),
        ...tools.map((tool) => ({ register: `HW${tool}` as const, wantedMm: -block - setup.facingAllowanceMm })),
        { register: "G54.z", wantedMm: 0 },
      ];
  }
}

/**
 * What a diameter register (geometry plus wear) has to come to, mm: the school's share of the true cutter, halved in
 * radius mode.
 */
export function expectedDiameter(setup: Setup, truth: Truth, tool: number): number {
  const trueMm = truth.diametersMm[tool] ?? 0;
  const nominalMm = setup.tools.find(({ number }) => number === tool)?.diameterMm ?? 0;
  const share = setup.diameterSchool === "wear-comp" ? trueMm - nominalMm : trueMm;
  return setup.settings.diameterMode === "radius" ? share / 2 : share;
}

/** Every value that the lane is marked on, in the order of the work. */
export function targetsOf({ targets, isSchoolPrescribed, lengthSchools, lathe }: Setup): TargetId[] {
  if (lathe) {
    return [
      ...(lathe.axis ? (["axisHeight", "gaugeError"] as const) : []),
      ...lathe.tools.flatMap(({ number }): TargetId[] => [
        ...(lathe.targets.x.includes(number) ? [`X${number}` as const] : []),
        ...(lathe.targets.z.includes(number) ? [`Z${number}` as const] : []),
        ...(lathe.targets.nose.includes(number) ? [`R${number}` as const, `Q${number}` as const] : []),
        ...(lathe.targets.height.includes(number) ? [`C${number}` as const] : []),
        ...((lathe.targets.fit ?? []).includes(number) ? [`F${number}` as const] : []),
      ]),
    ];
  }
  const perRegister = isSchoolPrescribed && lengthSchools[0] !== "offset-per-tool";
  return [
    ...(targets.xy ? (["x", "y"] as const) : []),
    ...(targets.rotation ? (["rotation"] as const) : []),
    ...targets.lengths.map((tool) => (perRegister ? (`H${tool}` as const) : (`z${tool}` as const))),
    ...(perRegister && targets.lengths.length > 0 ? (["workZ"] as const) : []),
    ...targets.diameters.map((tool) => `d${tool}` as const),
  ];
}
