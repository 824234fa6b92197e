/**
 * Names that exercises are made of; free of schemas, so that a browser can have them without the library behind those.
 */

/** The machines that exercises are worked on, in the order in which a class meets them. */
export const machines = ["mill", "turret", "readout", "gang"] as const;
export type Machine = (typeof machines)[number];
/** Machines that turn the part: a turret, a hand-wound post under a readout, a gang slide over a bar. */
export type LatheKind = Exclude<Machine, "mill">;

/** The schools of tool length that the mill bench knows; `domain` of each in `registers/schools`. */
export const millLengthSchools = [
  "gauge-line",
  "part-touch",
  "plane-lift",
  "master",
  "offset-per-tool",
  "block-in-wear",
] as const;
export type MillLengthSchool = (typeof millLengthSchools)[number];

/** Schools of Z on a lathe that the bench knows; `domain` of each in `registers/schools/lathe`. */
export const latheSchools = [
  "part-face",
  "setter-arm",
  "master-shift",
  "readout-library",
  "gang-bar",
  "preset",
] as const;
export type LatheSchool = (typeof latheSchools)[number];
/**
 * How a school of a lathe splits Z: all in a tool's own row; the tool's reach in the row and the face in work Z; the
 * difference from a master in the row and the master in work Z.
 */
export const latheSplits = {
  "part-face": "whole",
  "setter-arm": "reach",
  "master-shift": "difference",
  "readout-library": "whole",
  "gang-bar": "whole",
  preset: "whole",
} as const satisfies Record<LatheSchool, "whole" | "reach" | "difference">;
export type LatheSplit = (typeof latheSplits)[LatheSchool];

export const turretToolKinds = [
  "turning",
  "profiling",
  "grooving",
  "parting",
  "threading",
  "boring",
  "drill",
  "endMill",
  "neutral",
] as const;
export type TurretToolKind = (typeof turretToolKinds)[number];

/** What has to be done to the machine, vise and blank before anything is measured. */
export const setupTasks = [
  "releaseStop",
  "lowRapid",
  "wipeTaper",
  "seatOnParallels",
  "pushToStop",
  "tapDown",
  "dressBurr",
  "sweepJaw",
] as const;
export type SetupTask = (typeof setupTasks)[number];
/** Those of them that get the machine ready; the others seat the blank. */
export const machineTasks: readonly SetupTask[] = ["releaseStop", "lowRapid"];

/** Calibrations that may be wrong, unknown to the student. */
export const doubtful = ["probeLength", "probeRadius", "setter", "presetter"] as const;
export type Doubtful = (typeof doubtful)[number];

/** What can be wrong with a setup that was handed over; `exercises/handover` seeds them. */
export const faultKinds = [
  "neighborRow",
  "staleWear",
  "schoolMixed",
  "radiusSign",
  "setterMoved",
  "wrongOffset",
  "offStop",
  "feelerOnce",
  "bladeEdge",
  "oldWorkZ",
  "facedAgain",
] as const;
export type FaultKind = (typeof faultKinds)[number];
