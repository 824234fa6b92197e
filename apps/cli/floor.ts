import { entrySchema, floorExerciseSchema, foldFloor, ruleFloor, type FloorState } from "@probe-lane/core/floor";
import { wantedFrom } from "@probe-lane/core/diagnosis";
import { floorValueWords } from "@probe-lane/core/words";
import { formatMm } from "@probe-lane/core/units";
import { z } from "zod";
import type { Console } from "./console";

const recordSchema = z.object({
  exercise: floorExerciseSchema,
  entries: z.array(z.object({ id: z.uuid(), atMs: z.number(), by: z.string().optional(), entry: entrySchema })),
});

/** A floor lane out of a file; null, with one line said, when it is none. */
function readFloor(text: string, complain: (line: string) => void, command: string): FloorState | null {
  try {
    const { exercise, entries } = recordSchema.parse(JSON.parse(text));
    return foldFloor(
      exercise,
      entries.map((one) => ({ ...one, by: one.by ?? "" })),
    );
  } catch {
    complain(
      `${command}: the file is not a floor lane: it needs {"exercise": …, "entries": […]} as the server's /api/floor/lanes/ID gives it`,
    );
    return null;
  }
}

/**
 * What each register should hold by the student's own last reading and the exercise's figures, with the uncertainty of
 * the method.
 */
export function expectFloor(text: string, { print, complain }: Console): number {
  const state = readFloor(text, complain, "expect");
  if (!state) return 2;
  for (const { id, label, method, figures, uMm } of state.exercise.registers) {
    const reading = state.readings.findLast(({ register }) => register === id);
    const wanted = reading ? wantedFrom(method, reading.mm, figures) : null;
    const missing = reading ? "a figure is missing" : "no reading";
    print(`${label.padEnd(16)} ${wanted === null ? missing : `${formatMm(wanted)} ± ${formatMm(2 * uMm)}`}`);
  }
  return 0;
}

/** The ruling of a floor lane, in words. */
export function gradeFloor(text: string, { print, complain }: Console): number {
  const state = readFloor(text, complain, "grade");
  if (!state) return 2;
  const ruling = ruleFloor(state);
  print(
    `total ${ruling.total.toFixed(1)} of ${ruling.outOf}   ${ruling.strands.map(({ name, marks, outOf }) => `${name} ${marks.toFixed(1)}/${outOf}`).join("   ")}`,
  );
  for (const value of ruling.values) {
    const { headline, body } = floorValueWords(value, formatMm);
    print(`${headline} ${body}`);
  }
  return 0;
}
