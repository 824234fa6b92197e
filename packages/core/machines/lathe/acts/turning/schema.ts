import { z } from "zod";
import { cutLooks } from "./names";
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
    /** How it sounded and looked; not said in lanes of before that was told. */
    looks: z.enum(cutLooks).optional(),
    /** A facing cut that went past the middle, and what it left there. */
    pip: z.strictObject({ diameterMm: mm, looks: z.enum(["none", "standing", "rubbed"]) }).optional(),
  }),
  /** The edge came to a surface and only scratched it, or went over it heel first: nothing was taken off. */
  z.strictObject({
    type: z.literal("scratched"),
    on: z.enum(["face", "diameter", "bore", "cone"]),
    axis: turnedAxis,
    at: place,
    clickMm: mm,
    looks: z.enum(cutLooks),
  }),
  /** A slope cut by a feed in both axes, in treads: everything from `fromMm` to `toMm` beyond a radius is gone, mm. */
  z.strictObject({
    type: z.literal("turnedAslant"),
    kind: z.enum(["outer", "bore"]),
    treads: z.array(z.strictObject({ fromMm: mm, toMm: mm, radiusMm: mm })).max(200),
    number: counts,
    at: place,
    looks: z.enum(cutLooks),
  }),
  /** A nose driven into the cone cuts it, mm along its normal. */
  z.strictObject({ type: z.literal("coneDug"), depthMm: mm, at: place, looks: z.enum(cutLooks) }),
] as const;
/** Share of the safety strand that each incident costs. */
export const incidents = { insertChipped: 0.4, jawStruck: 1, handAtChuck: 1 } as const;
