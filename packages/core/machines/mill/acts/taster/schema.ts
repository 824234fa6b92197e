import { z } from "zod";

export const commands = [z.strictObject({ type: z.literal("trueTaster") })] as const;
export const events = [z.strictObject({ type: z.literal("tasterTrued") })] as const;
export const incidents = { tasterBroken: 0.4 } as const;
