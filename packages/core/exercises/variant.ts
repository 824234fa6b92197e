import { edgeSignatures, lengthSignatures } from "../diagnosis/benchSignatures";
import { drawSheetMm } from "../instruments";
import { drawBetween, drawOne } from "../random";
import { methodBias } from "./fairness";
import type { Exercise } from "./schema";

/** What the sheet on the bench tells the student: nothing here is hidden. Lengths in mm. */
export interface Setup {
  readonly exerciseId: string;
  readonly exerciseVersion: number;
  readonly title: string;
  readonly story: string;
  readonly partName: string;
  readonly partSizeMm: readonly [number, number, number];
  readonly vise: Exercise["vise"];
  readonly edges: { readonly x: SetupEdge; readonly y: SetupEdge };
  readonly facingAllowanceMm: number;
  readonly tipDiameterMm: number;
  readonly paperMm: number;
  readonly tool1DiameterMm: number;
  readonly leftoverWorkZMm: number;
  readonly rememberedRpm: number;
  readonly lengthCapture: Exercise["lengthCapture"];
  readonly allowedSchools: Exercise["allowedSchools"];
}
interface SetupEdge { readonly approach: 1 | -1; readonly edgeWorkMm: number }

/** What is physically so in one lane; only the server knows it. Machine frame, mm. */
export interface Truth {
  readonly seed: string;
  /** Machine position that the gauge point would have standing on the part's datum. */
  readonly datumMm: { readonly x: number; readonly y: number; readonly z: number };
  readonly stockSizeMm: readonly [number, number, number];
  readonly lengthsMm: { readonly edgeFinder: number; readonly pointedTool: number; readonly tool1: number };
  readonly burrMm: { readonly x: number; readonly y: number };
  readonly edgeBreakMm: number;
  readonly sheetMm: number;
  /** Shifts the grid to which an eye rounds places; fixed for the lane. */
  readonly eyeOffsetMm: { readonly x: number; readonly y: number; readonly z: number };
}

const STEP_MM = 0.5;
const TURNS = 200;
/** Signatures closer than this many standard uncertainties could be taken for one another. */
const SEPARATION_IN_U = 6;

const toStep = (mm: number, step: number): number => Math.round(mm / step) * step;
/** A tenth of a micrometre: finer than any instrument here tells, coarse enough to read in a log. */
const tidy = (mm: number): number => Math.round(mm * 1e4) / 1e4;

function drawSetup(exercise: Exercise, seed: string, turn: number): Setup {
  const edgeWork = (axis: "x" | "y") =>
    toStep(drawBetween(...exercise.edges[axis].edgeWorkMm, seed, "edge work", axis, turn), STEP_MM);
  return {
    exerciseId: exercise.id,
    exerciseVersion: exercise.version,
    title: exercise.title,
    story: exercise.story,
    partName: exercise.part.name,
    partSizeMm: exercise.part.sizeMm,
    vise: exercise.vise,
    edges: {
      x: { approach: exercise.edges.x.approach, edgeWorkMm: edgeWork("x") },
      y: { approach: exercise.edges.y.approach, edgeWorkMm: edgeWork("y") },
    },
    facingAllowanceMm: tidy(toStep(drawBetween(...exercise.facingAllowanceMm, seed, "facing", turn), 0.1)),
    tipDiameterMm: drawOne(exercise.tipDiameterMm, seed, "tip", turn),
    paperMm: drawOne(exercise.paperMm, seed, "paper kind", turn),
    tool1DiameterMm: exercise.tool1DiameterMm,
    leftoverWorkZMm: tidy(toStep(drawBetween(...exercise.leftoverWorkZMm, seed, "leftover", turn), 0.01)),
    rememberedRpm: exercise.rememberedRpm,
    lengthCapture: exercise.lengthCapture,
    allowedSchools: exercise.allowedSchools,
  };
}

/** Two mistakes of one variant must not look alike: every pair of signatures lies at least 6u apart. */
function signaturesAreApart(setup: Setup): boolean {
  return (["x", "y", "z"] as const).every((axis) => {
    const signatures = axis === "z" ? lengthSignatures(setup) : edgeSignatures(setup, axis);
    const least = SEPARATION_IN_U * methodBias(setup, axis).uMm;
    const values = [0, ...signatures.map(({ predictedMm }) => predictedMm)];
    return values.every((a, i) => values.slice(i + 1).every((b) => Math.abs(a - b) >= least));
  });
}

/** The lane's sheet and its hidden truth, drawn from a seed. The result is stored in the first event and never drawn again. */
export function drawLane(exercise: Exercise, seed: string): { setup: Setup; truth: Truth } {
  for (let turn = 0; turn < TURNS; turn++) {
    const setup = drawSetup(exercise, seed, turn);
    if (!signaturesAreApart(setup)) continue;
    const between = (low: number, high: number, ...keys: string[]) => tidy(drawBetween(low, high, seed, ...keys));
    const eye = (axis: string) => between(0, 0.5, "eye", axis);
    const [sizeX, sizeY, sizeZ] = exercise.part.sizeMm;
    return {
      setup,
      truth: {
        seed,
        datumMm: {
          x: between(...exercise.datumMm.x, "datum", "x"),
          y: between(...exercise.datumMm.y, "datum", "y"),
          z: between(...exercise.datumMm.z, "datum", "z"),
        },
        stockSizeMm: [sizeX + between(-0.2, 0.2, "size", "x"), sizeY + between(-0.2, 0.2, "size", "y"), sizeZ],
        lengthsMm: {
          edgeFinder: between(88, 94, "length", "edge finder"),
          pointedTool: between(96, 104, "length", "pointed tool"),
          tool1: between(74, 86, "length", "tool 1"),
        },
        burrMm: { x: between(0.05, 0.12, "burr", "x"), y: between(0.05, 0.12, "burr", "y") },
        edgeBreakMm: between(0.3, 0.6, "edge break"),
        sheetMm: tidy(drawSheetMm(setup.paperMm, seed)),
        eyeOffsetMm: { x: eye("x"), y: eye("y"), z: eye("z") },
      },
    };
  }
  throw new Error(`drawLane: ${exercise.id} v${exercise.version}: no variant in ${TURNS} keeps its signatures ${SEPARATION_IN_U}u apart; widen its ranges`);
}
