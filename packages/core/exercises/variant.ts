import { edgeSignatures, lengthSignatures } from "../diagnosis/benchSignatures";
import {
  DIRT_MM,
  drawChip,
  drawPretravel,
  drawStylusRunout,
  drawTaperDirt,
  drawTasterRunout,
  drawThicknessMm,
  toolName,
  type GapKind,
  type InstrumentName,
  type Thing,
  type ToolKind,
} from "../instruments";
import { drawBetween, drawOne, drawUnit } from "../random";
import type { RegisterId } from "../registers";
import { scales, toCounts, toMm, type LengthUnit } from "../units";
import { lengthBias, xyBias } from "./fairness";
import { SETTER_HEIGHT_MM, SETTER_PLACE_MM, tableZMm } from "./scene";
import { drawLathe, latheSheetOf, type LatheSheet, type LatheTruth } from "./lathe";
import type { TargetId } from "./expected";
import type { Doubtful, Exercise, FaultKind, MillLengthSchool, SetupTask } from "./schema";

export interface SetupEdge {
  readonly approach: 1 | -1;
  readonly edgeWorkMm: number;
}
type SetupDatum =
  | { readonly kind: "corner"; readonly edges: { readonly x: SetupEdge; readonly y: SetupEdge } }
  | { readonly kind: "middle" }
  | { readonly kind: "feature" }
  | { readonly kind: "spindle" };
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

/** What the sheet on the bench tells the student: nothing here is hidden. Lengths in mm. */
export interface Setup {
  readonly exerciseId: string;
  readonly exerciseVersion: number;
  readonly title: string;
  readonly story: string;
  readonly advice: string;
  readonly unit: LengthUnit;
  readonly partName: string;
  readonly partSizeMm: readonly [number, number, number];
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
  /** Paper, feelers, blocks, pins: what is written on them. */
  readonly gaps: readonly { readonly id: string; readonly kind: GapKind; readonly nominalMm: number }[];
  readonly tools: readonly SetupTool[];
  readonly instruments: readonly InstrumentName[];
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
  readonly lampGaugeMm: number;
  readonly rememberedRpm: number;
  /** What the registers held when the lane began. */
  readonly leftovers: readonly { readonly register: string; readonly mm: number }[];
  readonly partBefore: { readonly byMm: readonly [number, number, number] } | null;
  /** Someone else's setup: who hands it over, what is said of it, and the ledger that comes with it. */
  readonly handover?:
    { readonly from: string; readonly account: string; readonly ledger: readonly HandedLine[] } | undefined;
  /** Only on a lathe. */
  readonly lathe?: LatheSheet | undefined;
  readonly settings: Exercise["settings"];
  readonly lengthSchools: readonly MillLengthSchool[];
  readonly isSchoolPrescribed: boolean;
  readonly diameterSchool: "control-comp" | "wear-comp" | null;
  readonly targets: Exercise["targets"];
  readonly isAtSpeed: boolean;
  readonly tasks: readonly SetupTask[];
  /** Which tool the list beside the changer says is in each pocket. */
  readonly pockets: Readonly<Record<number, number>>;
}

/** What is physically so in one lane; only the server knows it. Machine frame, mm. */
export interface Truth {
  readonly seed: string;
  /** Machine position that the gauge point would have standing on the datum of the seated part. */
  readonly datumMm: { readonly x: number; readonly y: number; readonly z: number };
  readonly stockSizeMm: readonly [number, number, number];
  readonly lengthsMm: Readonly<Partial<Record<Thing, number>>>;
  readonly diametersMm: Readonly<Record<number, number>>;
  readonly burrMm: { readonly x: number; readonly y: number };
  readonly edgeBreakMm: number;
  readonly gapsMm: Readonly<Record<string, number>>;
  readonly dirtMm: number;
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
  /** Only on a lathe. */
  readonly lathe?: LatheTruth;
  /** What is wrong with a setup that was handed over; empty when it is sound. */
  readonly faults?: readonly Fault[];
  /** Shifts the grid to which an eye rounds places; fixed for the lane. */
  readonly eyeOffsetMm: { readonly x: number; readonly y: number; readonly z: number };
}

const STEP_MM = 0.5;
const TURNS = 200;
/** Signatures closer than this many standard uncertainties could be taken for one another. */
const SEPARATION_IN_U = 6;
const BALL_DIAMETER_MM = 6;

const toStep = (mm: number, step: number): number => Math.round(mm / step) * step;
/** A tenth of a micrometre: finer than any instrument here tells, coarse enough to read in a log. */
const tidy = (mm: number): number => Math.round(mm * 1e4) / 1e4 || 0;
const toMicron = (mm: number): number => Math.round(mm * 1000) / 1000 || 0;

function drawSetup(exercise: Exercise, seed: string, turn: number): Setup {
  const { datum } = exercise;
  const edge = (
    axis: "x" | "y",
    { approach, edgeWorkMm }: { approach: 1 | -1; edgeWorkMm: readonly [number, number] },
  ): SetupEdge => ({
    approach,
    edgeWorkMm: toStep(drawBetween(...edgeWorkMm, seed, "edge work", axis, turn), STEP_MM),
  });
  const paperMm = drawOne(exercise.paperMm, seed, "paper kind", turn);
  return {
    exerciseId: exercise.id,
    exerciseVersion: exercise.version,
    title: exercise.title,
    story: exercise.story,
    advice: exercise.advice,
    unit: exercise.unit,
    partName: exercise.part.name,
    partSizeMm: exercise.part.sizeMm,
    fixture: exercise.fixture,
    datum:
      datum.kind === "corner"
        ? { kind: "corner", edges: { x: edge("x", datum.edges.x), y: edge("y", datum.edges.y) } }
        : datum,
    feature: exercise.feature ?? null,
    isSkewed: exercise.skewDeg[0] !== 0 || exercise.skewDeg[1] !== 0,
    facingAllowanceMm: tidy(toStep(drawBetween(...exercise.facingAllowanceMm, seed, "facing", turn), 0.1)),
    tipDiameterMm: drawOne(exercise.tipDiameterMm, seed, "tip", turn),
    gaps: [{ id: "paper", kind: "paper", nominalMm: paperMm }, ...exercise.gaps],
    tools: exercise.tools.map(({ number, kind, diameterMm, workingRpm }) => ({ number, kind, diameterMm, workingRpm })),
    instruments: exercise.instruments,
    probe: null,
    setter: null,
    lampGaugeMm: exercise.lampGaugeMm,
    rememberedRpm: exercise.rememberedRpm,
    leftovers: exercise.leftovers.map(({ register, mm }, place) => ({
      register,
      mm: tidy(toStep(drawBetween(...mm, seed, "leftover", ...(place === 0 ? [] : [place]), turn), 0.01)),
    })),
    partBefore: exercise.partBefore ?? null,
    settings: exercise.settings,
    lengthSchools: exercise.lengthSchools,
    isSchoolPrescribed: exercise.isSchoolPrescribed,
    diameterSchool: exercise.diameterSchool ?? null,
    targets: exercise.targets,
    isAtSpeed: exercise.isAtSpeed,
    tasks: exercise.tasks,
    pockets: Object.fromEntries(exercise.tools.map(({ number }) => [number, number])),
    ...(exercise.lathe ? { lathe: latheSheetOf(exercise.lathe) } : {}),
  };
}

/** Two mistakes of one variant must not look alike: every pair of signatures lies at least 6u apart. */
function signaturesAreApart(setup: Setup): boolean {
  const areApart = (predicted: readonly number[], uMm: number) => {
    const values = [0, ...predicted].sort((a, b) => a - b);
    return values.every((value, i) => i === 0 || value - (values[i - 1] ?? 0) >= SEPARATION_IN_U * uMm);
  };
  const { datum } = setup;
  const areEdges =
    datum.kind !== "corner" ||
    setup.isSkewed ||
    (["x", "y"] as const).every((axis) =>
      areApart(
        edgeSignatures(setup, axis).map(({ predictedMm }) => predictedMm),
        xyBias("edgeFinder", datum.edges[axis].approach).uMm,
      ),
    );
  return (
    areEdges &&
    areApart(
      lengthSignatures(setup).map(({ predictedMm }) => predictedMm),
      lengthBias("paper", setup).uMm,
    )
  );
}

/**
 * The registers that the setup before left, when its tools are kept: lengths on the fixed plane, work offset of the
 * part before.
 */
function keptRegisters(setup: Setup, truth: Truth): Setup["leftovers"] {
  const rounded = (mm: number) => toMm(toCounts(mm, scales[setup.unit]), scales[setup.unit]);
  const { lathe } = truth;
  const set = (setup.lathe?.alreadySet ?? []).flatMap((number) => {
    const { kxMm = 0, qMm = 0 } = lathe?.tools[number] ?? {};
    return [
      { register: `X${number}`, mm: rounded(kxMm - (setup.lathe?.gang?.workXMm ?? 0)) },
      ...(setup.lathe?.targets.z.length
        ? [{ register: `Z${number}`, mm: rounded((lathe?.handed?.faceMm ?? 0) + qMm) }]
        : []),
    ];
  });
  const shared = setup.lathe?.gang ? [{ register: "G54.x", mm: setup.lathe.gang.workXMm }] : [];
  if (!setup.partBefore) return [...setup.leftovers, ...shared, ...set];
  const [, dy, dz] = setup.partBefore.byMm;
  const plane = tableZMm(setup, truth.datumMm.z);
  const isOnMovingJaw =
    setup.datum.kind === "corner" && (setup.datum.edges.y.approach === 1) !== (setup.fixture.fixedJaw === "front");
  const yShift = setup.datum.kind === "middle" ? dy / 2 : isOnMovingJaw ? dy : 0;
  return [
    ...setup.tools.map(({ number }) => ({
      register: `H${number}`,
      mm: plane + (truth.lengthsMm[toolName(number)] ?? 0),
    })),
    { register: "G54.x", mm: truth.datumMm.x },
    { register: "G54.y", mm: truth.datumMm.y + (setup.fixture.fixedJaw === "front" ? yShift : -yShift) },
    { register: "G54.z", mm: truth.datumMm.z - plane + dz },
  ].map(({ register, mm }) => ({ register, mm: rounded(mm) }));
}

function drawTruth(exercise: Exercise, setup: Setup, seed: string): Truth {
  const between = (low: number, high: number, ...keys: (string | number)[]) =>
    tidy(drawBetween(low, high, seed, ...keys));
  const eye = (axis: string) => between(0, 0.5, "eye", axis);
  const [sizeX, sizeY, sizeZ] = exercise.part.sizeMm;
  const skew = between(...exercise.skewDeg, "skew");
  const chips = (thing: Thing) => [thing, drawChip(seed, thing)] as const;
  const datumMm = {
    x: between(...exercise.datumMm.x, "datum", "x"),
    y: between(...exercise.datumMm.y, "datum", "y"),
    z: between(...exercise.datumMm.z, "datum", "z"),
  };
  const isDoubted = exercise.doubt !== undefined && drawUnit(seed, "doubt") < exercise.doubt.share;
  const sign = drawUnit(seed, "doubt sign") < 0.5 ? -1 : 1;
  const [first, second] = exercise.tools;
  return {
    seed,
    datumMm,
    stockSizeMm: [sizeX + between(-0.2, 0.2, "size", "x"), sizeY + between(-0.2, 0.2, "size", "y"), sizeZ],
    lengthsMm: {
      edgeFinder: between(88, 94, "length", "edge finder"),
      pointedTool: between(96, 104, "length", "pointed tool"),
      taster: between(110, 116, "length", "taster"),
      probe: between(120, 130, "length", "probe"),
      indicator: between(100, 110, "length", "indicator"),
      ...Object.fromEntries(
        exercise.tools.map(({ number, lengthMm }) => [
          toolName(number),
          between(...lengthMm, "length", `tool ${number}`),
        ]),
      ),
    },
    diametersMm: Object.fromEntries(
      exercise.tools.map(({ number, diameterMm, kind }) => [
        number,
        tidy(
          diameterMm +
            (kind === "endMill" || kind === "faceMill"
              ? between(-0.09, -0.025, "diameter", number)
              : between(-0.02, 0.02, "diameter", number)),
        ),
      ]),
    ),
    burrMm: { x: between(0.05, 0.12, "burr", "x"), y: between(0.05, 0.12, "burr", "y") },
    edgeBreakMm: between(0.3, 0.6, "edge break"),
    gapsMm: Object.fromEntries(
      setup.gaps.map(({ id, kind, nominalMm }) => [id, tidy(drawThicknessMm(kind, nominalMm, seed, id))]),
    ),
    dirtMm: between(DIRT_MM.low, DIRT_MM.high, "dirt"),
    skewDeg: Math.abs(skew) < 0.15 && setup.isSkewed ? 0.35 : skew,
    feature: exercise.feature
      ? { diameterMm: tidy(exercise.feature.diameterMm + between(-0.15, 0.15, "feature")) }
      : null,
    offStopMm: setup.tasks.includes("pushToStop") ? between(0.6, 2.4, "off the stop") : 0,
    liftMm: setup.tasks.includes("tapDown") ? between(0.06, 0.14, "lift") : 0,
    jawSkewDeg: setup.tasks.includes("sweepJaw") ? between(-0.06, 0.06, "jaw") : 0,
    taperDirtMm: setup.tasks.includes("wipeTaper") ? drawTaperDirt(seed) : 0,
    taster: drawTasterRunout(seed),
    probe: {
      pretravelMm: tidy(drawPretravel(seed)),
      runoutMm: { x: tidy(drawStylusRunout(seed, "x")), y: tidy(drawStylusRunout(seed, "y")) },
    },
    setter:
      exercise.instruments.includes("plungerSetter") || exercise.instruments.includes("beamSetter")
        ? {
            topMm: between(-362, -352, "setter"),
            centerErrorMm: {
              x: between(-0.08, 0.08, "setter center", "x"),
              y: between(-0.08, 0.08, "setter center", "y"),
            },
          }
        : null,
    presetterErrorMm: 0,
    growthMmPer1000: exercise.isAtSpeed ? between(0.014, 0.022, "growth") : 0,
    chipsMm: exercise.instruments.includes("beamSetter")
      ? Object.fromEntries(exercise.tools.filter((_, i) => i % 2 === 0).map(({ number }) => chips(toolName(number))))
      : {},
    doubt:
      isDoubted && exercise.doubt
        ? { of: exercise.doubt.of, byMm: toMicron(sign * between(...exercise.doubt.byMm, "doubt by")) }
        : null,
    ...(exercise.swapsPockets && first && second
      ? { pockets: { [first.number]: second.number, [second.number]: first.number } }
      : {}),
    ...(exercise.lathe ? { lathe: drawLathe(exercise.lathe, seed) } : {}),
    eyeOffsetMm: { x: eye("x"), y: eye("y"), z: eye("z") },
  };
}

/** Cards of probe and setter as they lie beside the machine; a doubted one states too much. */
function withCards(setup: Setup, truth: Truth): Setup {
  const stated = (of: Doubtful, mm: number) => toMicron(mm + (truth.doubt?.of === of ? truth.doubt.byMm : 0));
  return {
    ...setup,
    leftovers: keptRegisters(setup, truth),
    probe: setup.instruments.includes("probe")
      ? {
          ballDiameterMm: BALL_DIAMETER_MM,
          effectiveRadiusMm: stated("probeRadius", BALL_DIAMETER_MM / 2 - truth.probe.pretravelMm),
          lengthMm: stated("probeLength", truth.lengthsMm.probe ?? 0),
        }
      : null,
    setter: truth.setter
      ? {
          xMm: SETTER_PLACE_MM.x,
          yMm: SETTER_PLACE_MM.y,
          heightMm: SETTER_HEIGHT_MM,
          widthMm: 20,
          noseTriggerMm: stated("setter", truth.setter.topMm),
        }
      : null,
  };
}

/** A student's own variant of an exercise, without the faults of a setup that is handed over. */
export function drawVariant(exercise: Exercise, seed: string): { setup: Setup; truth: Truth } {
  for (let turn = 0; turn < TURNS; turn++) {
    const setup = drawSetup(exercise, seed, turn);
    if (!signaturesAreApart(setup)) continue;
    const drawn = drawTruth(exercise, setup, seed);
    const truth = drawn.doubt?.of === "presetter" ? { ...drawn, presetterErrorMm: drawn.doubt.byMm } : drawn;
    return { setup: withCards(setup, truth), truth };
  }
  throw new Error(
    `drawLane: ${exercise.id} v${exercise.version}: no variant in ${TURNS} keeps its signatures ${SEPARATION_IN_U}u apart; widen its ranges`,
  );
}

/** The edge that a corner datum hangs on; null for a middle or a feature. */
export const edgeOf = ({ datum }: Pick<Setup, "datum">, axis: "x" | "y"): SetupEdge | null =>
  datum.kind === "corner" ? datum.edges[axis] : null;
/** What is written on the paper, mm. */
export const paperOf = ({ gaps }: Pick<Setup, "gaps">): number =>
  gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0;
/** A value that a register held when the lane began, mm. */
export const leftoverOf = ({ leftovers }: Pick<Setup, "leftovers">, register: string): number =>
  leftovers.find((one) => one.register === register)?.mm ?? 0;
