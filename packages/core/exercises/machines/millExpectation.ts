import { NO_BIAS } from "../bias";
import { standardUncertainty } from "../../desk/uncertainty";
import type { InstrumentName } from "../../instruments";
import {
  lengthBias,
  surfaceTouches,
  toolMeasures,
  workTouches,
  xyBias,
  type LengthMethod,
  type XyMethod,
} from "../bias";
import type { ExpectedLine } from "../bias";
import type { LatheSchool, MillLengthSchool } from "../schools";
import type { MillDraw, MillSetup as Setup, MillTruth as Truth } from "../setup";
import { expectedDiameter, expectedLengths } from "./millExpected";

const first = <T extends InstrumentName>(setup: Setup, names: readonly T[]): T | null =>
  names.find((name) => setup.instruments.includes(name)) ?? null;

/** The way in which a tool meets what its school measures on. */
function toolMethod(setup: Setup, school: MillLengthSchool): LengthMethod {
  if (school === "gauge-line") return first(setup, toolMeasures) ?? "metal";
  if (school === "block-in-wear") return "block";
  return first(setup, surfaceTouches) ?? "paper";
}

function lengthLines(setup: Setup, truth: Truth, school: MillLengthSchool): ExpectedLine[] {
  const method = toolMethod(setup, school);
  const tool = lengthBias(method, setup);
  const workMethod: LengthMethod = school === "gauge-line" ? (first(setup, workTouches) ?? "paper") : method;
  const work = lengthBias(workMethod, setup);
  const [lowest = 1] = [...setup.targets.lengths].sort((a, b) => a - b);
  return expectedLengths(setup, truth, school).map(({ register, wantedMm }): ExpectedLine => {
    const isWork = register.endsWith(".z");
    const isFixed = wantedMm === 0 || register.startsWith("HW");
    if (isFixed) return { register, wantedMm, method: "typed", ...NO_BIAS };
    if (isWork) {
      // on a plane the touch of the tool cancels what the touch of the part leaves, but for chance
      const bias = school === "plane-lift" ? { biasMm: 0, uMm: Math.SQRT2 * work.uMm } : work;
      return { register, wantedMm, method: workMethod, ...bias };
    }
    const isDifference = school === "master" && register !== `H${lowest}`;
    return { register, wantedMm, method, ...(isDifference ? { biasMm: 0, uMm: Math.SQRT2 * tool.uMm } : tool) };
  });
}

/** Places, turn, lengths by school, diameters. */
export function millExpectation(
  { setup, truth }: MillDraw,
  school: MillLengthSchool | LatheSchool | null,
): ExpectedLine[] | null {
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
    ? [{ register: "turn", wantedMm: truth.skewDeg, method: "probe", ...NO_BIAS }]
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
