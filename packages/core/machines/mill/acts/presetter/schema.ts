import { z } from "zod";
import { tool } from "../../../../lane/pieces";

export const commands = [z.strictObject({ type: z.literal("askPresetter"), tool })] as const;
export const events = [] as const;
export const incidents = {} as const;
