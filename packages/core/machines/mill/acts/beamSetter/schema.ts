import { z } from "zod";
import { thing } from "../../../../lane/pieces";

export const commands = [
  z.strictObject({
    type: z.literal("askBeam"),
    what: z.enum(["length", "diameter"]),
    rpm: z.number().int().min(0).max(99_999),
    isAtEdge: z.boolean(),
  }),
  z.strictObject({ type: z.literal("blowTip") }),
] as const;
export const events = [z.strictObject({ type: z.literal("tipBlown"), thing })] as const;
export const incidents = {} as const;
