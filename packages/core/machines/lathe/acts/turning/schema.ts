import { z } from "zod";
import { counts, mm, place, turnedAxis } from "../../../../lane/pieces";

export const commands = [
  z.strictObject({
    type: z.literal("measureTurned"),
    what: z.enum(["turned", "bored", "pip"]),
    by: z.enum(["micrometer", "caliper", "boreGauge"]),
  }),
] as const;
export const events = [
  z.strictObject({
    type: z.literal("turned"),
    kind: z.enum(["outer", "bore"]),
    fromMm: mm,
    toMm: mm,
    radiusMm: mm,
    number: counts,
    axis: turnedAxis,
    at: place,
    clickMm: mm,
    /** A facing cut that went past the middle, and what it left there. */
    pip: z.strictObject({ diameterMm: mm, looks: z.enum(["none", "standing", "rubbed"]) }).optional(),
  }),
] as const;
/** Share of the safety strand that each incident costs. */
export const incidents = { insertChipped: 0.4, jawStruck: 1, handAtChuck: 1 } as const;
