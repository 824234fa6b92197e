import { z } from "zod";

const range = z.tuple([z.number(), z.number()]).refine(([low, high]) => low <= high, "the low end must not exceed the high end");
const approach = z.union([z.literal(1), z.literal(-1)]);
const choices = z.tuple([z.number().positive()], z.number().positive());

/** Which way an edge is met, and the work coordinate of that edge (drawn from a range in steps of 0.5 mm). */
const edge = z.strictObject({ approach, edgeWorkMm: range });

/** One exercise version: scene, schools and what varies by student. Versions in use never change. */
export const exerciseSchema = z.strictObject({
  id: z.string().min(1),
  version: z.number().int().positive(),
  title: z.string().min(1),
  story: z.string().min(1),
  part: z.strictObject({ name: z.string().min(1), sizeMm: z.tuple([z.number(), z.number(), z.number()]) }),
  vise: z.strictObject({ fixedJaw: z.enum(["front", "back"]), proudMm: z.number().positive() }),
  edges: z.strictObject({ x: edge, y: edge }),
  /** The touched skin stands this far above the datum plane. */
  facingAllowanceMm: range,
  datumMm: z.strictObject({ x: range, y: range, z: range }),
  tipDiameterMm: choices,
  paperMm: choices,
  tool1DiameterMm: z.number().positive(),
  /** Work Z that the job before left in G54. */
  leftoverWorkZMm: range,
  rememberedRpm: z.number().int().positive(),
  lengthCapture: z.enum(["machine", "counter", "display"]),
  allowedSchools: z.tuple([z.enum(["part-touch", "plane-lift"])], z.enum(["part-touch", "plane-lift"])),
});
export type Exercise = z.infer<typeof exerciseSchema>;

/** Tolerances and weights: append-only revisions beside the exercise version; a ruling cites both. */
export const markingSchema = z.strictObject({
  revision: z.number().int().positive(),
  tolerancesMm: z.strictObject({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() }),
  /** A value this many tolerances off earns nothing. */
  zeroAtMultiple: z.number().gt(1),
  weights: z.strictObject({ values: z.number().min(0), method: z.number().min(0), safety: z.number().min(0) }),
});
export type Marking = z.infer<typeof markingSchema>;
