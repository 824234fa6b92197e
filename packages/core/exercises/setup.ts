import type { GapKind, InstrumentName, Thing, ToolKind } from "../instruments";
import type { RegisterId, TipCode } from "../registers";
import type { GaugeSet } from "../desk/gaugeStack";
import type { LengthUnit } from "../units";
import type { Exercise } from "./schema";
import type {
  Doubtful,
  FaultKind,
  KeptChangeKind,
  KeptThing,
  LatheKind,
  LatheSchool,
  MillLengthSchool,
  ProgramFaultKind,
  ProvingSchool,
  SetupTask,
  TurretToolKind,
} from "./schools";
import type { TargetId } from "./target";

export interface SetupEdge {
  readonly approach: 1 | -1;
  readonly edgeWorkMm: number;
}
type SetupDatum =
  | { readonly kind: "corner"; readonly edges: { readonly x: SetupEdge; readonly y: SetupEdge } }
  | { readonly kind: "middle" }
  | { readonly kind: "feature" };
export interface SetupTool {
  readonly number: number;
  readonly kind: ToolKind;
  readonly diameterMm: number;
  readonly workingRpm: number;
}

/** A line of the ledger that comes with a setup that is handed over, mm. */
export interface HandedLine {
  readonly register: RegisterId;
  readonly kind: "reading" | "term" | "sum";
  readonly term?: "tipRadius" | "edgeWork" | "paper" | "facing" | "diameter" | "block" | "bladeWidth" | undefined;
  readonly mm: number;
}

/** One thing that whoever handed the setup over did wrong, or that happened since. Hidden until the ruling. */
export interface Fault {
  readonly kind: FaultKind;
  /** What has to be changed to put it right; empty where it is no register. */
  readonly registers: readonly RegisterId[];
  readonly tool?: number | undefined;
  readonly axis?: "x" | "y" | undefined;
  /** By how much it puts each value off, mm. */
  readonly effects: readonly { readonly target: TargetId; readonly mm: number }[];
}

/** What has changed since a setup was kept: how far each register that hangs on it, and each value, is off. Hidden. */
export interface KeptChange {
  readonly kind: KeptChangeKind;
  readonly tool: number | null;
  readonly offs: readonly { readonly register: RegisterId; readonly mm: number }[];
  readonly effects: Fault["effects"];
}

/** One line of the card of a kept setup beside what stands there today; `change` says what is not as it was. */
interface KeptRow {
  readonly thing: KeptThing;
  readonly tool?: number | undefined;
  readonly change: KeptChangeKind | "unlike" | null;
}

/** A setup that was proven and kept: by whom, how long ago, its program and registers, and what its card says. */
export interface KeptSetup {
  readonly initials: string;
  readonly daysAgo: number;
  /** Parts that were cut since with the same edges; left out where none were. */
  readonly partsSince?: number | undefined;
  readonly program: number;
  readonly registers: readonly { readonly register: RegisterId; readonly mm: number }[];
  readonly rows: readonly KeptRow[];
}

/** What every sheet tells the student, whatever the machine: nothing here is hidden. Lengths in mm. */
interface SheetBase {
  readonly exerciseId: string;
  readonly exerciseVersion: number;
  readonly title: string;
  readonly story: string;
  readonly advice: string;
  readonly unit: LengthUnit;
  readonly partName: string;
  readonly partSizeMm: readonly [number, number, number];
  /** Paper, feelers, blocks, pins: what is written on them. */
  readonly gaps: readonly { readonly id: string; readonly kind: GapKind; readonly nominalMm: number }[];
  readonly instruments: readonly InstrumentName[];
  readonly rememberedRpm: number;
  /** What the registers held when the lane began. */
  readonly leftovers: readonly { readonly register: string; readonly mm: number }[];
  /** Someone else's setup: who hands it over, what is said of it, and the ledger that comes with it. */
  readonly handover?:
    { readonly from: string; readonly account: string; readonly ledger: readonly HandedLine[] } | undefined;
  /** The setup of this part as it was kept; left out where there is none. */
  readonly kept?: KeptSetup | undefined;
  readonly settings: Exercise["settings"];
  /** How this shop touches; left out where a contact is taken as it is and the paper is counted. */
  readonly touching?: Exercise["touching"] | undefined;
  readonly tasks: readonly SetupTask[];
  /** Programs in the shop's store, and the one that belongs to this part; left out where nothing is run. */
  readonly programs?: readonly StoredProgram[] | undefined;
  readonly program?: number | undefined;
  /** An instructor signs before the first cut. */
  readonly signsOff?: boolean | undefined;
  /** What each tool is to do by the drawing, how deep, and how fast it turns. */
  readonly operations?: NonNullable<Exercise["program"]>["operations"] | undefined;
  /** Features of the part as the drawing has them; left out where nothing is cut. */
  readonly features?: NonNullable<Exercise["program"]>["features"] | undefined;
  /** How many parts may be cut and measured; left out where none is measured. */
  readonly blanks?: number | undefined;
  /** Of a program that gauges: the pocket in which the probe stands, and the number of the way that is meant. */
  readonly gauging?: NonNullable<Exercise["program"]>["gauging"] | undefined;
  /** Schools of proving that are asked for before the program is run whole. */
  readonly proving?: readonly ProvingSchool[] | undefined;
}

/** What is wrong in a program, in which of its lines, and what should stand there. Hidden until the ruling. */
export interface ProgramFault {
  readonly kind: ProgramFaultKind;
  readonly lines: readonly number[];
  readonly tool: number | null;
  readonly right: readonly string[];
}

/** What cutting does that no setting could know, mm. */
export interface Cutting {
  /** By tool: how far it gives way for each mm of stock on one side, at most so far. */
  readonly springPerMm: Readonly<Record<number, number>>;
  readonly springCapMm: number;
  /** By tool: what one part wears off its edge. */
  readonly wearMm: Readonly<Record<number, number>>;
  /** What the machine has grown toward the part by the time it cuts: in Z on a mill, in diameter on a lathe. */
  readonly warmMm: number;
}

/** A program as the shop keeps it. */
export interface StoredProgram {
  readonly number: number;
  readonly title: string;
  readonly text: string;
}

/** The sheet of a mill. */
export interface MillSetup extends SheetBase {
  readonly kind: "mill";
  readonly fixture: Exercise["fixture"];
  readonly datum: SetupDatum;
  readonly feature: {
    readonly kind: "bore" | "boss" | "pocket";
    readonly diameterMm: number;
    readonly acrossYMm?: number | undefined;
    readonly heightMm: number;
    readonly atMm: readonly [number, number];
  } | null;
  readonly isSkewed: boolean;
  readonly facingAllowanceMm: number;
  readonly tipDiameterMm: number;
  readonly tools: readonly SetupTool[];
  /** The probe as its card states it: ball, effective radius, length from the gauge line. */
  readonly probe: {
    readonly ballDiameterMm: number;
    readonly effectiveRadiusMm: number;
    readonly lengthMm: number;
  } | null;
  /**
   * The plunger setter as its card states it: where it stands, and at which machine Z the bare nose would trigger it.
   */
  readonly setter: {
    readonly xMm: number;
    readonly yMm: number;
    readonly heightMm: number;
    readonly widthMm: number;
    readonly noseTriggerMm: number;
  } | null;
  /** Ring, known block and known lengths are at hand, by which probe and setter are calibrated. */
  readonly hasMasters?: boolean | undefined;
  readonly lampGaugeMm: number;
  readonly partBefore: { readonly byMm: readonly [number, number, number] } | null;
  readonly lengthSchools: readonly MillLengthSchool[];
  readonly isSchoolPrescribed: boolean;
  readonly diameterSchool: "control-comp" | "wear-comp" | null;
  readonly targets: Exercise["targets"];
  readonly isAtSpeed: boolean;
  /** Which tool the list beside the changer says is in each pocket. */
  readonly pockets: Readonly<Record<number, number>>;
}

export interface TurretTool {
  readonly number: number;
  readonly kind: TurretToolKind;
  readonly insert: string;
  readonly noseRadiusMm: number;
  readonly tipCode: TipCode;
  readonly bladeMm?: number | undefined;
  readonly isUnderSquare?: boolean | undefined;
  /** How far the point of a threading tool trails the side that its Z is set by, mm. */
  readonly sideMm?: number | undefined;
  readonly qualified?: "near" | "far" | undefined;
  readonly deepestMm?: number | undefined;
  readonly leadDeg?: number | undefined;
}

/** What the sheet says of a lathe: nothing here is hidden. mm, diameters for X. */
export interface LatheSheet {
  readonly gang?:
    | {
        readonly workXMm: number;
        readonly clearanceMm: number;
        readonly overhangMm: number;
        readonly changed: readonly number[];
      }
    | undefined;
  readonly start?: { readonly xMm: number; readonly zMm: number } | undefined;
  readonly alreadySet?: readonly number[] | undefined;
  readonly freshInsert?: readonly number[] | undefined;
  readonly bladeFrom?: "behind" | undefined;
  readonly hasHeightGauge?: boolean | undefined;
  readonly cone?:
    | { readonly diameterMm: number; readonly atMm: number; readonly angleDeg: number; readonly lengthMm: number }
    | undefined;
  readonly stock: { readonly diameterMm: number; readonly stickOutMm: number; readonly boreMm: number | null };
  readonly tools: readonly TurretTool[];
  readonly schools: readonly LatheSchool[];
  readonly isSchoolPrescribed: boolean;
  readonly targets: {
    readonly x: readonly number[];
    readonly z: readonly number[];
    readonly nose: readonly number[];
    readonly height: readonly number[];
    readonly fit?: readonly number[] | undefined;
  };
  readonly profile?: { readonly steepestFallDeg: number; readonly grooveMm: number } | undefined;
  /** The ground pin and the set of blocks, and the height by rule. */
  readonly axis?: { readonly pinMm: number; readonly set: GaugeSet; readonly aboutMm: number } | undefined;
  /**
   * The arm's card: X that a tool's tip has when it trips the arm, as a diameter, and machine Z of its plane for a tool
   * of no reach.
   */
  readonly arm: { readonly xMm: number; readonly zMm: number } | null;
}

/** The sheet of a lathe. */
export interface TurningSetup extends SheetBase {
  readonly kind: LatheKind;
  readonly lathe: LatheSheet;
}

/** What the sheet on the bench tells the student: nothing here is hidden. Lengths in mm. */
export type Setup = MillSetup | TurningSetup;

/** What is physically so in one lane, whatever the machine; only the server knows it. mm. */
interface TruthBase {
  readonly seed: string;
  readonly gapsMm: Readonly<Record<string, number>>;
  readonly dirtMm: number;
  /** What is wrong in the program of the part; null where it is as it should be, left out where there is none. */
  readonly programFault?: ProgramFault | null | undefined;
  /** What cutting does that no setting could know; left out where nothing of it is simulated. */
  readonly cutting?: Cutting | undefined;
  /** What is wrong with a setup that was handed over; empty when it is sound. */
  readonly faults?: readonly Fault[];
  /** What has changed since a setup was kept; empty where nothing has. */
  readonly keptChanges?: readonly KeptChange[];
  /** Shifts the grid to which an eye rounds places; fixed for the lane. */
  readonly eyeOffsetMm: { readonly x: number; readonly y: number; readonly z: number };
}

/** What is physically so on a mill. Machine frame, mm. */
export interface MillTruth extends TruthBase {
  /** Machine position that the gauge point would have standing on the datum of the seated part. */
  readonly datumMm: { readonly x: number; readonly y: number; readonly z: number };
  /** Top of the table; lanes of before it was drawn have it at its nominal height. */
  readonly tableMm?: number;
  readonly stockSizeMm: readonly [number, number, number];
  readonly lengthsMm: Readonly<Partial<Record<Thing, number>>>;
  readonly diametersMm: Readonly<Record<number, number>>;
  readonly burrMm: { readonly x: number; readonly y: number };
  readonly edgeBreakMm: number;
  readonly skewDeg: number;
  readonly feature: { readonly diameterMm: number } | null;
  readonly offStopMm: number;
  readonly liftMm: number;
  readonly jawSkewDeg: number;
  readonly taperDirtMm: number;
  readonly taster: { readonly runoutMm: number; readonly leansTo: number };
  readonly probe: { readonly pretravelMm: number; readonly runoutMm: { readonly x: number; readonly y: number } };
  readonly setter: {
    readonly topMm: number;
    readonly centerErrorMm: { readonly x: number; readonly y: number };
  } | null;
  readonly presetterErrorMm: number;
  readonly growthMmPer1000: number;
  readonly chipsMm: Readonly<Partial<Record<Thing, number>>>;
  /** The calibration that is wrong in this lane, and by how much its card states too much. */
  readonly doubt: { readonly of: Doubtful; readonly byMm: number } | null;
  /** What really is in each pocket, where that differs from the list. */
  readonly pockets?: Readonly<Record<number, number>>;
}

/** What is physically so of part, tools and arm on a lathe. Machine frame, mm; X a diameter. */
export interface LatheTruth {
  /** Machine Z of the sawn face's highest place for a tool of no reach in Z, and of the chuck's jaws. */
  readonly skinMm: number;
  readonly jawMm: number;
  /**
   * Machine X at which each tip lies on the axis, its reach in Z, how far it stands above the axis, and how far edge or
   * holder stand out before its nose.
   */
  readonly tools: Readonly<
    Record<
      number,
      { readonly kxMm: number; readonly qMm: number; readonly heightMm: number; readonly reachMm?: number }
    >
  >;
  readonly stock: {
    readonly diameterMm: number;
    readonly runoutMm: number;
    readonly ovalMm: number;
    readonly boreMm: number | null;
  };
  readonly arm: { readonly xMm: number; readonly zMm: number } | null;
  /**
   * Height of the axis over the slide, how low the tailstock center is by its wear, and by how much the setting gauge
   * reads too high.
   */
  readonly axis?: { readonly heightMm: number; readonly tailLowMm: number; readonly gaugeOffMm: number };
  /** The part as it was handed over, faced and with a band turned: where its face is, the band's radius and length. */
  readonly handed?: { readonly faceMm: number; readonly bandRadiusMm: number; readonly bandMm: number };
}

export interface TurningTruth extends TruthBase {
  readonly lathe: LatheTruth;
}

export type Truth = MillTruth | TurningTruth;

/** A sheet with the truth behind it. */
export interface MillDraw {
  readonly kind: "mill";
  readonly setup: MillSetup;
  readonly truth: MillTruth;
}
export interface TurningDraw {
  readonly kind: LatheKind;
  readonly setup: TurningSetup;
  readonly truth: TurningTruth;
}
export type Draw = MillDraw | TurningDraw;

/** A sheet and its truth taken together, so that what asks for one machine gets both of it. */
export const drawOf = ({ setup, truth }: { setup: Setup; truth: Truth }): Draw =>
  ({ kind: setup.kind, setup, truth }) as Draw;

/** The edge that a corner datum hangs on; null for a middle or a feature. */
export const edgeOf = ({ datum }: Pick<MillSetup, "datum">, axis: "x" | "y"): SetupEdge | null =>
  datum.kind === "corner" ? datum.edges[axis] : null;
/** The schools that a sheet allows, of lengths on a mill, of Z on a lathe. */
export const schoolsOf = (setup: Setup): readonly (MillLengthSchool | LatheSchool)[] =>
  setup.kind === "mill" ? setup.lengthSchools : setup.lathe.schools;
/** What is written on the paper, mm. */
export const paperOf = ({ gaps }: Pick<Setup, "gaps">): number =>
  gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0;
/** A value that a register held when the lane began, mm. */
export const leftoverOf = ({ leftovers }: Pick<Setup, "leftovers">, register: string): number =>
  leftovers.find((one) => one.register === register)?.mm ?? 0;
