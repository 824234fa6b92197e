import { tableZMm } from "../../exercises/scene";
import type { MillLengthSchool } from "../../exercises/schools";
import { toolName } from "../../instruments/things";
import { datumNowMm } from "../../machines/mill/solids";
import { sumOf } from "../standing";
import type { MillTrace } from "../trace";
import { lengthWantedMm } from "./millTouch";

/** A school by which a tool's length is split over registers, and the tool that is its master. */
export interface SplitSchool {
  readonly school: MillLengthSchool;
  readonly master: number;
}

/**
 * The tool whose row is zero in the school of a master: the lowest, or where the school is free the one left at zero.
 */
export function masterOf({ final }: MillTrace): number {
  const { targets, isSchoolPrescribed } = final.setup;
  const tools = [...targets.lengths].sort((a, b) => a - b);
  const atZero = isSchoolPrescribed ? undefined : tools.find((tool) => sumOf(final, [`H${tool}`, `HW${tool}`]) === 0);
  return atZero ?? tools[0] ?? 1;
}

/** What a row has to hold in a school, mm. */
export function rowWantedMm(trace: MillTrace, tool: number, { school, master }: SplitSchool): number {
  const { final } = trace;
  const length = lengthWantedMm(trace, toolName(tool));
  switch (school) {
    case "gauge-line":
      return length;
    case "part-touch":
    case "block-in-wear":
      return datumNowMm(final).z + length;
    case "plane-lift":
      return tableZMm(final.setup, final.truth) + length;
    case "master":
      return tool === master ? 0 : length - lengthWantedMm(trace, toolName(master));
    case "offset-per-tool":
      return 0;
  }
}

/** What work Z has to hold in a school, mm; of a tool where each has its own. */
export function workWantedMm(trace: MillTrace, tool: number, { school, master }: SplitSchool): number {
  const { final } = trace;
  const datum = datumNowMm(final).z;
  switch (school) {
    case "gauge-line":
      return datum;
    case "part-touch":
    case "block-in-wear":
      return 0;
    case "plane-lift":
      return datum - tableZMm(final.setup, final.truth);
    case "master":
      return datum + lengthWantedMm(trace, toolName(master));
    case "offset-per-tool":
      return datum + lengthWantedMm(trace, toolName(tool));
  }
}
