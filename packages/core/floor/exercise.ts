import { z } from "zod";
import { methods, type Figures } from "../diagnosis/catalog";
import { latheFloorSchools, millLengthSchools } from "../exercises/schools";
import { countsFromMm } from "../units";

/** How tools and work Z are set, by machine; it decides which registers the lane asks for. */
export const floorSchools = {
  mill: millLengthSchools,
  lathe: [...latheFloorSchools, "readout"],
} as const;
export const floorSchool = z.enum([...floorSchools.mill, ...floorSchools.lathe]);
export type FloorSchool = z.infer<typeof floorSchool>;

/** Where work X and Y of a mill are zero: a corner found by its two edges, or a middle between what is touched. */
export const floorCorners = ["front left", "front right", "back left", "back right"] as const;
/** The swept ones are one reading: where the indicator stands still. The others are touched from both sides. */
export const floorMiddles = ["middle", "bore", "boss", "swept bore", "swept boss"] as const;
export const MIDDLES: Record<(typeof floorMiddles)[number], { words: string; isSwept: boolean }> = {
  middle: { words: "middle of the part, both faces touched", isSwept: false },
  bore: { words: "middle of the bore, both walls touched", isSwept: false },
  boss: { words: "middle of the boss, both sides touched", isSwept: false },
  "swept bore": { words: "middle of the bore, swept by indicator", isSwept: true },
  "swept boss": { words: "middle of the boss, swept by indicator", isSwept: true },
};
type FloorDatum = (typeof floorCorners)[number] | (typeof floorMiddles)[number];
/** Whether zero is a corner, so that each of its edges may stand at another place than zero. */
export const isFloorCorner = (datum: FloorDatum): datum is (typeof floorCorners)[number] =>
  (floorCorners as readonly string[]).includes(datum);
/** A datum as a sheet names it. */
export const floorDatumWords = (datum: FloorDatum): string =>
  isFloorCorner(datum) ? `${datum} corner` : MIDDLES[datum].words;

const figuresSchema = z.custom<Figures>(
  (value) => typeof value === "object" && value !== null && !Array.isArray(value),
);

const registerSchema = z.strictObject({
  id: z.string().regex(/^[A-Za-z0-9.]{1,12}$/),
  label: z.string().min(1).max(60),
  method: z.enum(methods),
  toleranceMm: z.number().positive(),
  uMm: z.number().positive(),
  figures: figuresSchema,
  /** How often it is read where the exercise does not say it for all: a middle is touched from both sides. */
  readings: z.number().int().min(1).max(10).optional(),
  /** How much a cutter differs from its nominal size; or a length together with its wear, as the machine adds them. */
  holds: z.enum(["difference", "withWear"]).optional(),
});
export type FloorRegister = z.infer<typeof registerSchema>;

export const machineNumber = z.string().trim().max(12);
export const drawingNumber = z.string().trim().max(24);
/** Eight tools of a lathe, with nose and code, and work Z. */
const MOST_REGISTERS = 40;

/**
 * One exercise for the shop: what is to be set, how well, with what. Lengths in mm; `unit` is how they are typed and
 * shown.
 */
export const floorExerciseSchema = z.strictObject({
  title: z.string().trim().min(3).max(80),
  machine: z.enum(["mill", "lathe"]),
  /** As it stands on the machine. */
  machineNumber: machineNumber.optional(),
  /** Of the drawing that the part is made to. */
  drawingNumber: drawingNumber.optional(),
  unit: z.enum(["mm", "inch"]),
  datum: z.string().max(60),
  school: floorSchool,
  readingsNeeded: z.number().int().min(1).max(5),
  registers: z.array(registerSchema).min(1).max(MOST_REGISTERS),
});
export type FloorExercise = z.infer<typeof floorExerciseSchema>;

/** A nose radius is read off the insert and a tip code off the picture: there is no reading and no sum to write. */
export const isReadOff = ({ method }: Pick<FloorRegister, "method">): boolean =>
  method === "lathe-nose" || method === "lathe-tip";

/** How many readings a register wants; what is read off an insert or a picture wants none. */
export function readingsWanted(
  { readingsNeeded }: Pick<FloorExercise, "readingsNeeded">,
  register: Pick<FloorRegister, "method" | "readings">,
): number {
  return isReadOff(register) ? 0 : (register.readings ?? readingsNeeded);
}

/**
 * Registers whose tolerance is narrower than three standard uncertainties of a careful touch, mm; empty when it is
 * fair.
 */
export function floorFairness({
  registers,
}: Pick<FloorExercise, "registers">): { label: string; toleranceMm: number; leastFairMm: number }[] {
  return registers.flatMap(({ label, method, toleranceMm, uMm, figures }) => {
    // paper is felt before it is one paper thick: a mean of 0.075 t low
    const biasMm = method === "mill-length" ? 0.075 * (figures.paper ?? 0) : method === "mill-edge" ? 0.005 : 0;
    const leastFairMm = countsFromMm(biasMm + 3 * uMm) / 1000;
    return toleranceMm < leastFairMm ? [{ label, toleranceMm, leastFairMm }] : [];
  });
}
