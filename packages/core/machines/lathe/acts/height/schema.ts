import { z } from "zod";
import { counts, mm, typed } from "../../../../lane/pieces";

export const commands = [z.strictObject({ type: z.literal("shimTool"), text: typed })] as const;
export const events = [z.strictObject({ type: z.literal("toolShimmed"), tool: counts, byMm: mm })] as const;
export const incidents = {} as const;
