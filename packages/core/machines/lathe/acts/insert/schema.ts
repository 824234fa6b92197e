import { z } from "zod";
import { counts, mm } from "../../../../lane/pieces";

export const commands = [z.strictObject({ type: z.literal("changeInsert") })] as const;
export const events = [
  z.strictObject({ type: z.literal("insertChanged"), tool: counts, number: counts, xMm: mm, zMm: mm }),
] as const;
export const incidents = {} as const;
