import { z } from "zod";
import { counts } from "../../../../lane/pieces";

export const commands = [z.strictObject({ type: z.literal("turnChuck") })] as const;
export const events = [z.strictObject({ type: z.literal("chuckTurned"), quarter: counts })] as const;
export const incidents = {} as const;
