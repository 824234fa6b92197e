import { z } from "zod";
import { counts, mm, thing, tool } from "../../../../lane/pieces";

export const commands = [
  z.strictObject({ type: z.literal("load"), thing }),
  z.strictObject({ type: z.literal("unload") }),
  z.strictObject({ type: z.literal("swapPockets"), a: tool, b: tool }),
  z.strictObject({ type: z.literal("turnSpindle") }),
] as const;
export const events = [
  z.strictObject({
    type: z.literal("loaded"),
    thing,
    seatMm: mm.optional(),
    isByChanger: z.boolean().optional(),
  }),
  z.strictObject({
    type: z.literal("instrumentReplaced"),
    thing,
    /** A probe that follows a smashed one is another one, with a card of its own, mm. */
    successor: z
      .strictObject({ longerMm: mm, deeperMm: mm, card: z.strictObject({ probeRadius: mm, probeLength: mm }) })
      .optional(),
  }),
  z.strictObject({ type: z.literal("unloaded") }),
  z.strictObject({ type: z.literal("pocketsSwapped"), a: counts, b: counts }),
  z.strictObject({ type: z.literal("spindleTurned"), quarter: counts }),
] as const;
export const incidents = { toolChipped: 0.4, noseStruck: 1, startedWithInstrument: 0.6, changerStruck: 0.6 } as const;
