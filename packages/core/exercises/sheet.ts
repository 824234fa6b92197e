import { drawBetween, drawOne } from "../random";
import { DIRT_MM, drawThicknessMm } from "../instruments";
import type { Exercise } from "./schema";
import type { Setup } from "./setup";

type SheetBase = Pick<Setup, "gaps">;

const STEP_MM = 0.5;
/** Signatures closer than this many standard uncertainties could be taken for one another. */
export const SEPARATION_IN_U = 6;

export const toStep = (mm: number, step = STEP_MM): number => Math.round(mm / step) * step;
/** A tenth of a micrometre: finer than any instrument here tells, coarse enough to read in a log. */
export const tidy = (mm: number): number => Math.round(mm * 1e4) / 1e4 || 0;
export const toMicron = (mm: number): number => Math.round(mm * 1000) / 1000 || 0;

/** What every sheet takes over from its exercise, and what of it varies by student, whatever the machine. */
export function drawSheetBase(exercise: Exercise, seed: string, turn: number) {
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
    ...(exercise.touching.clickBack === "never" && exercise.touching.paper === "counted"
      ? {}
      : { touching: exercise.touching }),
    gaps: [{ id: "paper", kind: "paper" as const, nominalMm: paperMm }, ...exercise.gaps],
    instruments: exercise.instruments,
    rememberedRpm: exercise.rememberedRpm,
    leftovers: exercise.leftovers.map(({ register, mm }, place) => ({
      register,
      mm: tidy(toStep(drawBetween(...mm, seed, "leftover", ...(place === 0 ? [] : [place]), turn), 0.01)),
    })),
    settings: exercise.settings,
    tasks: exercise.tasks,
  };
}

/** What is physically so in every lane, whatever the machine. */
export function drawTruthBase(gaps: SheetBase["gaps"], seed: string) {
  const between = (low: number, high: number, ...keys: string[]) => tidy(drawBetween(low, high, seed, ...keys));
  const eye = (axis: string) => between(0, 0.5, "eye", axis);
  return {
    seed,
    gapsMm: Object.fromEntries(
      gaps.map(({ id, kind, nominalMm }) => [id, tidy(drawThicknessMm(kind, nominalMm, seed, id))]),
    ),
    dirtMm: between(DIRT_MM.low, DIRT_MM.high, "dirt"),
    eyeOffsetMm: { x: eye("x"), y: eye("y"), z: eye("z") },
  };
}

/** Two mistakes of one variant must not look alike: every two predicted closures, and none, lie this far apart. */
export function areApart(predicted: readonly number[], uMm: number): boolean {
  const values = [0, ...predicted].sort((a, b) => a - b);
  return values.every((value, i) => i === 0 || value - (values[i - 1] ?? 0) >= SEPARATION_IN_U * uMm);
}
