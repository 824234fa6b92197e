import { z } from "zod";

export const commands = [z.strictObject({ type: z.literal("switchOff") })] as const;
export const events = [z.strictObject({ type: z.literal("switchedOff") })] as const;
export const incidents = {} as const;
