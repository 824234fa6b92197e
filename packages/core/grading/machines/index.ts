import type { LaneTrace } from "../../diagnosis";
import type { Machine } from "../../exercises";
import type { MarkingKit } from "../kit";
import { deeperOnLathe, deeperOnMill } from "./deeper";
import { latheHandover } from "./latheHandover";
import { latheSteps } from "./latheSteps";
import { latheSchoolOf, ruleLatheValue } from "./latheValues";
import { latheWorking } from "./latheWorking";
import { millHandover } from "./millHandover";
import { millSteps } from "./millSteps";
import { followThroughMill, millSchool, ruleMillValue } from "./millValues";
import { millWorking } from "./millWorking";

const mill: MarkingKit<Extract<LaneTrace, { kind: "mill" }>> = {
  ruleValue: ruleMillValue,
  school: millSchool,
  sharing: [({ kind }) => kind === "toolSum" || kind === "toolRow"],
  deeper: (_trace, values) => deeperOnMill(values),
  followThrough: followThroughMill,
  steps: millSteps,
  working: millWorking,
  handover: millHandover,
};

const lathe: MarkingKit<Exclude<LaneTrace, { kind: "mill" }>> = {
  ruleValue: ruleLatheValue,
  school: (trace) => ({ school: latheSchoolOf(trace), isNamed: false }),
  sharing: [
    ({ kind, axis }) => kind === "toolOffset" && axis === "z",
    ({ kind, axis }) => kind === "toolOffset" && axis === "x",
  ],
  deeper: deeperOnLathe,
  followThrough: (_trace, values) => [...values],
  steps: latheSteps,
  working: latheWorking,
  handover: latheHandover,
};

/** How lanes of a machine are marked. A trace goes only to the kit of its own kind; one cast says so here for all. */
export const markingKitFor = (kind: Machine): MarkingKit<LaneTrace> =>
  (kind === "mill" ? mill : lathe) as unknown as MarkingKit<LaneTrace>;
