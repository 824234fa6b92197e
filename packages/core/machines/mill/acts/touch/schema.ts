import { z } from "zod";
import { axis, counts, direction, mm, place, surface } from "../../../../lane/pieces";

/** What gives way when it is touched, and tells. */
const touching = z.enum(["taster", "probe", "lampGauge", "plungerSetter"]);

export const commands = [] as const;
export const events = [
  z.strictObject({
    type: z.literal("touchBegan"),
    by: touching,
    axis,
    approach: direction,
    at: place,
    number: counts,
    errorMm: mm,
    clickMm: mm,
  }),
  z.strictObject({ type: z.literal("touchEnded"), by: touching }),
  z.strictObject({ type: z.literal("touchedHard"), on: surface }),
  z.strictObject({ type: z.literal("leftHard") }),
] as const;
export const incidents = {} as const;
