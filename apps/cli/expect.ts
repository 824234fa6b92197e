import { parseArgs } from "node:util";
import {
  drawLane,
  exerciseSchema,
  expectationOf,
  fairness,
  hiddenMistakes,
  latheSchools,
  markingSchema,
  millLengthSchools,
  schoolsOf,
  targetOf,
  type ExpectedLine,
  type Setup,
} from "@probe-lane/core/exercises";
import { correctedParts } from "@probe-lane/core/bench";
import { formatMm, scales, showLength } from "@probe-lane/core/units";
import { instrumentWords, registerWords, schoolWords, targetWords } from "@probe-lane/core/words";
import { instrumentNames } from "@probe-lane/core/instruments";
import { z } from "zod";
import type { Console } from "./console";

const fileSchema = z.object({ exercise: exerciseSchema, marking: markingSchema });

/** An exercise's file, and how a program is read that stands beside it in a file of its own. */
export interface ExerciseText {
  readonly text: string;
  beside(file: string): string;
}

const programmedSchema = z.looseObject({
  exercise: z.looseObject({
    program: z.looseObject({ store: z.array(z.looseObject({ file: z.string().optional() })) }).optional(),
  }),
});

/** The exercise of a file, with the texts of its programs. Throws where it is none. */
function readExercise({ text, beside }: ExerciseText): z.infer<typeof fileSchema> {
  const found = programmedSchema.parse(JSON.parse(text));
  const { program } = found.exercise;
  const store = program?.store.map(({ file, ...one }) => (file === undefined ? one : { ...one, text: beside(file) }));
  const exercise = program ? { ...found.exercise, program: { ...program, store } } : found.exercise;
  return fileSchema.parse({ ...found, exercise });
}

const methodName = (method: string): string => {
  const instrument = instrumentNames.find((name) => name === method);
  return instrument ? instrumentWords(instrument) : method;
};

function lineText({ register, wantedMm, biasMm, uMm, method }: ExpectedLine, setup: Setup): string {
  const scale = scales[setup.unit];
  if (register === "turn") return `${"turn".padEnd(18)} ${formatMm(wantedMm, 4)}°`;
  if (register === "axisHeight" || register === "gaugeError")
    return `${targetWords(targetOf(setup, register)).padEnd(28)} ${showLength(wantedMm, scale, scale.unit === "mm" ? 4 : 5)}   U ${(2000 * uMm).toFixed(1)} µm   ${methodName(method)}`;
  if (register.startsWith("Q"))
    return `${registerWords(register).padEnd(18)} ${String(wantedMm).padStart(11)}   ${method}`;
  const um = (mm: number) => (mm * 1000).toFixed(1);
  return `${registerWords(register).padEnd(18)} ${showLength(wantedMm, scale).padStart(11)}   bias ${um(biasMm).padStart(6)} µm   U ${um(2 * uMm).padStart(5)} µm   ${methodName(method)}`;
}

/** A first part that is put right must make a good second one on so large a share of the lanes, of so many tried. */
const CORRECTED_SHARE = 0.99;
const CORRECTED_LANES = 100;

/** What an author should mend before a class works the exercise; one sentence each. */
function warningsOf({ exercise, marking }: z.infer<typeof fileSchema>): string[] {
  const mm = (lengthMm: number) => `${formatMm(lengthMm, 3)} mm`;
  const corrected = correctedParts(
    exercise,
    Array.from({ length: CORRECTED_LANES }, (_, at) => `corrected ${at}`),
  );
  const isSpoiled = corrected !== null && corrected.good < corrected.lanes * CORRECTED_SHARE;
  return [
    ...(isSpoiled
      ? [
          `a right setup whose first part is put right makes a good second part on ${corrected.good} of ${corrected.lanes} lanes only, most often for ${corrected.worst ?? "no feature"}: let the tools give way less, or widen its tolerance`,
        ]
      : []),
    ...fairness(exercise, marking).map(
      ({ axis, method, toleranceMm, leastFairMm }) =>
        `the tolerance of ${mm(toleranceMm)} in ${axis} is narrower than ${methodName(method)} can hold: give at least ${mm(leastFairMm)}`,
    ),
    ...hiddenMistakes(exercise, marking).map(({ id, axis, leavesMm, toleranceMm }) =>
      id === "feelerOnce"
        ? `a feeler of ${mm(leavesMm)} counted once instead of twice hides inside the tolerance of ${mm(toleranceMm)} in ${axis}: use a thicker paper, or a narrower tolerance`
        : `a paper of ${mm(leavesMm)} left out hides inside the tolerance of ${mm(toleranceMm)} in ${axis}: use a thicker paper, or a narrower tolerance`,
    ),
  ];
}

/**
 * What every register of a bench lane should hold for a seed and a school. 0 printed, 2 when a word or the file is not
 * understood.
 */
export function expectBench(text: ExerciseText, words: readonly string[], { print, complain }: Console): number {
  let options: { seed?: string | undefined; school?: string | undefined };
  try {
    options = parseArgs({ args: [...words], options: { seed: { type: "string" }, school: { type: "string" } } }).values;
  } catch {
    complain("expect: use --seed N, and --school S where the exercise allows more than one");
    return 2;
  }
  const school =
    options.school === undefined
      ? null
      : ([...millLengthSchools, ...latheSchools].find((name) => name === options.school) ?? undefined);
  if (options.seed === undefined || school === undefined) {
    complain(
      options.seed === undefined
        ? "expect: name the lane with --seed N"
        : `expect: ${options.school ?? ""} is not a school; use one of ${[...millLengthSchools, ...latheSchools].join(", ")}`,
    );
    return 2;
  }
  let file: z.infer<typeof fileSchema>;
  try {
    file = readExercise(text);
  } catch {
    complain('expect: the file is not an exercise: it needs {"exercise": …, "marking": …} as demo/exercises has them');
    return 2;
  }
  const { exercise } = file;
  const drawn = drawLane(exercise, options.seed);
  const { setup } = drawn;
  const schools = schoolsOf(setup);
  const lines = expectationOf(drawn, school);
  if (!lines) {
    complain(
      `expect: this exercise does not allow ${school ?? ""}; it allows ${schools.join(", ") || "no school of length"}`,
    );
    return 2;
  }
  const [only] = schools;
  print(
    `${setup.title}, seed ${options.seed}, ${setup.unit}${only ? `; ${schoolWords[school ?? only ?? "unclear"]}` : ""}`,
  );
  for (const line of lines) print(lineText(line, setup));
  for (const warning of warningsOf(file)) complain(`warning: ${warning}`);
  return 0;
}
