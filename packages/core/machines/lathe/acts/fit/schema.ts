import { z } from "zod";
import { counts, tool } from "../../../../lane/pieces";

export const commands = [z.strictObject({ type: z.literal("stateFit"), tool, fits: z.boolean() })] as const;
export const events = [z.strictObject({ type: z.literal("fitStated"), tool: counts, fits: z.boolean() })] as const;
export const incidents = {} as const;
