import { z } from "zod";
import { counts, id, mm, surface } from "../../../../lane/pieces";

export const commands = [
  z.strictObject({ type: z.literal("tryBlock"), id }),
  z.strictObject({ type: z.literal("pullBlock") }),
] as const;
export const events = [
  z.strictObject({
    type: z.literal("blockTried"),
    id: z.string(),
    on: surface,
    goes: z.boolean(),
    machineZ: counts,
    number: counts,
    dirtMm: mm,
    clickMm: mm,
    isOpened: z.boolean(),
  }),
  z.strictObject({ type: z.literal("blockPulled") }),
] as const;
export const incidents = { blockCrushed: 0.4 } as const;
