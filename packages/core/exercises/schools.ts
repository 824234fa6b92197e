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

/** How a school of a lathe sets Z. */
interface LatheSchoolFacts {
  /**
   * All of Z in a tool's own row; its reach in the row and the face in work Z; its difference from a master in the
   * row and the master in work Z.
   */
  readonly split: "whole" | "reach" | "difference";
  /** What the rows are counted from. */
  readonly rowsFrom: "face" | "gaugePoint" | "master";
  /** It is offered at the real machine too. */
  readonly isOnFloor?: true;
}
/** Schools of Z on a lathe that the bench knows; `domain` of each in `registers/schools/lathe`. */
export const latheSchoolFacts = {
  "part-face": { split: "whole", rowsFrom: "face", isOnFloor: true },
  "setter-arm": { split: "reach", rowsFrom: "gaugePoint", isOnFloor: true },
  "master-shift": { split: "difference", rowsFrom: "master", isOnFloor: true },
  "readout-library": { split: "whole", rowsFrom: "master" },
  "gang-bar": { split: "whole", rowsFrom: "gaugePoint", isOnFloor: true },
  preset: { split: "whole", rowsFrom: "master" },
} as const satisfies Record<string, LatheSchoolFacts>;
export type LatheSchool = keyof typeof latheSchoolFacts;
export const latheSchools = Object.keys(latheSchoolFacts) as [LatheSchool, ...LatheSchool[]];
export type LatheSplit = (typeof latheSchoolFacts)[LatheSchool]["split"];
/** Those that are offered at the real machine. */
export type LatheFloorSchool = {
  [S in LatheSchool]: (typeof latheSchoolFacts)[S] extends { isOnFloor: true } ? S : never;
}[LatheSchool];
export const latheFloorSchools = latheSchools.filter(
  (school): school is LatheFloorSchool => "isOnFloor" in latheSchoolFacts[school],
);
/** A school whose rows hold differences from a master, which work Z holds. */
export const isByMaster = (school: LatheSchool): boolean => latheSchoolFacts[school].split === "difference";

/** The one that a real lathe with a readout is set by: the floor calls it by its machine. */
export const readoutSchool = "readout-library" satisfies LatheSchool;

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

/** What may have changed since a setup was kept, so that some of its registers are touched again. */
export const keptChangeKinds = ["viseMoved", "stopMoved", "otherParallels", "newCutter", "setDeeper"] as const;
export type KeptChangeKind = (typeof keptChangeKinds)[number];
/** What the card of a kept setup names, in its order. */
export const keptThings = ["machine", "vise", "stop", "parallels", "tool", "stock", "coolant", "setBy"] as const;
export type KeptThing = (typeof keptThings)[number];

/** What can be wrong with a program that comes to the machine, or with what it calls. */
export const programFaultKinds = [
  "otherRow",
  "otherUnits",
  "otherOffset",
  "tooDeep",
  "wrongLine",
  "otherTools",
  "liftLeft",
  "nearSwing",
  "otherWay",
] as const;
export type ProgramFaultKind = (typeof programFaultKinds)[number];

/** Ways in which a feature of a part is looked along: the axis, and toward which end. */
export const featureSides = ["x-", "x+", "y-", "y+", "z-", "z+"] as const;
export type FeatureSide = (typeof featureSides)[number];
/**
 * What is read of a feature: how wide the room is, where its wall or floor stands, how deep that is, its middle; of a
 * land, what stands between the walls of two rooms.
 */
export const featureReads = ["width", "wall", "depth", "middle", "land"] as const;
export type FeatureReads = (typeof featureReads)[number];
/** What a feature is to a hand that measures it. */
export const featureShapes = ["slot", "hole", "outside", "step"] as const;
export type FeatureShape = (typeof featureShapes)[number];

/** How a program is proved before it cuts; each can be asked for. */
export const provingSchools = ["lookedUp", "deepestBeside", "airRun", "gapCompared"] as const;
export type ProvingSchool = (typeof provingSchools)[number];
