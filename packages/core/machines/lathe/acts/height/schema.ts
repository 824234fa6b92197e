import { z } from "zod";
import { counts, mm, typed } from "../../../../lane/pieces";

const from = z.enum(["below", "above"]);

export const commands = [
  z.strictObject({ type: z.literal("shimTool"), text: typed }),
  z.strictObject({ type: z.literal("raiseToGauge"), from }),
] as const;
export const events = [
  z.strictObject({ type: z.literal("toolShimmed"), tool: counts, byMm: mm }),
  z.strictObject({ type: z.literal("toolRaised"), tool: counts, byMm: mm, from }),
] as const;
export const incidents = {} as const;
