import { toolName } from "../../instruments";
import type { RegisterId } from "../../registers";
import { tableZMm } from "../scene";
import type { MillLengthSchool } from "../schools";
import type { MillSetup as Setup, MillTruth as Truth } from "../setup";
import { workOffsetOf } from "./millTargets";

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
  const plane = tableZMm(setup, truth);
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
