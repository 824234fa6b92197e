import { z } from "zod";
import { counts, tool } from "../../../../lane/pieces";

export const commands = [z.strictObject({ type: z.literal("index"), station: tool, withOffset: z.boolean() })] as const;
export const events = [
  z.strictObject({ type: z.literal("turretIndexed"), station: counts, row: counts.nullable() }),
] as const;
export const incidents = {} as const;
