import { z } from "zod";
import { feelNames } from "../../../../instruments";
import { counts, id, mm, surface } from "../../../../lane/pieces";

export const commands = [
  z.strictObject({ type: z.literal("placePaper"), id: id.optional() }),
  z.strictObject({ type: z.literal("feelPaper") }),
  z.strictObject({ type: z.literal("pullPaper") }),
] as const;
export const events = [
  z.strictObject({
    type: z.literal("paperPlaced"),
    on: surface,
    feel: z.enum(feelNames),
    id: z.string().optional(),
  }),
  z.strictObject({
    type: z.literal("paperFelt"),
    on: surface,
    feel: z.enum(feelNames),
    machineZ: counts,
    clickMm: mm,
  }),
  z.strictObject({ type: z.literal("paperPulled") }),
] as const;
export const incidents = { paperUnderTurningTool: 1, paperTorn: 0.1 } as const;
