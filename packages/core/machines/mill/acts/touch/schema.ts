import { z } from "zod";
import { axis, counts, direction, mm, place, surface } from "../../../../lane/pieces";

/** What gives way when it is touched, and tells; and the part of the lane that keeps its touch. */
export const TOUCH_KEPT_IN = {
  taster: "taster",
  probe: "probe",
  lampGauge: "lamp",
  plungerSetter: "setter",
} as const;
export type Touching = keyof typeof TOUCH_KEPT_IN;
const touching = z.enum(Object.keys(TOUCH_KEPT_IN) as [Touching, ...Touching[]]);

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
