import { parseArgs } from "node:util";
import {
  drawLane,
  exerciseSchema,
  expectationOf,
  latheSchools,
  markingSchema,
  millLengthSchools,
  schoolsOf,
  targetOf,
  type ExpectedLine,
  type Setup,
} from "@probe-lane/core/exercises";
import { formatMm, scales, showLength } from "@probe-lane/core/units";
import { instrumentWords, registerWords, schoolWords, targetWords } from "@probe-lane/core/words";
import { instrumentNames } from "@probe-lane/core/instruments";
import { z } from "zod";
import type { Console } from "./console";

const fileSchema = z.object({ exercise: exerciseSchema, marking: markingSchema });

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

/**
 * What every register of a bench lane should hold for a seed and a school. 0 printed, 2 when a word or the file is not
 * understood.
 */
export function expectBench(text: string, words: readonly string[], { print, complain }: Console): number {
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
  let exercise: z.infer<typeof fileSchema>["exercise"];
  try {
    ({ exercise } = fileSchema.parse(JSON.parse(text)));
  } catch {
    complain('expect: the file is not an exercise: it needs {"exercise": …, "marking": …} as demo/exercises has them');
    return 2;
  }
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
  return 0;
}
