import type { FloorExercise, FloorRegister } from "@probe-lane/core/floor";
import { formatMm, parseLengthMm } from "@probe-lane/core/units";
import { refusalWords } from "@probe-lane/core/words";

const INCH_MM = 25.4;

/** The exercise as it shows one register: a tip code is a number out of ten, whatever the unit. */
export const exerciseFor = (exercise: FloorExercise, { method }: Pick<FloorRegister, "method">): FloorExercise =>
  method === "lathe-tip" ? { ...exercise, unit: "mm" } : exercise;

/** Lengths as this exercise shows and reads them. */
export const lengthsOf = ({ unit }: Pick<FloorExercise, "unit">) => ({
  show: (mm: number): string => (unit === "mm" ? formatMm(mm) : formatMm(mm / INCH_MM, 4)),
  read: (text: string): { mm: number } | { problem: string } => {
    const answer = parseLengthMm(text, unit);
    return answer.ok ? { mm: answer.value } : { problem: refusalWords({ code: "text", problem: answer.error }, unit) };
  },
});

/** The drawing that a part is made to, where the sheet names one; else nothing. */
export const drawingOf = ({ drawingNumber }: Pick<FloorExercise, "drawingNumber">): string =>
  drawingNumber ? `drawing ${drawingNumber}` : "";

/** A machine by its name and the number on it. */
export const machineOf = ({ machine, machineNumber = "" }: Pick<FloorExercise, "machine" | "machineNumber">): string =>
  `${machine} ${machineNumber}`.trim();
