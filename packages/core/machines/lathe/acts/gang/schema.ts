import { z } from "zod";
import { counts, mm, place, tool, typed } from "../../../../lane/pieces";

const how = z.enum(["inTurn", "oneRightDown"]);

export const commands = [
  z.strictObject({ type: z.literal("changeTool"), tool, overhang: typed }),
  z.strictObject({ type: z.literal("loosenTool") }),
  z.strictObject({ type: z.literal("slideTool") }),
  z.strictObject({ type: z.literal("tightenTool"), how }),
  z.strictObject({ type: z.literal("turnFeed"), isLow: z.boolean() }),
] as const;
export const events = [
  z.strictObject({ type: z.literal("toolChanged"), tool: counts, overhangMm: mm, xMm: mm, heightMm: mm }),
  z.strictObject({ type: z.literal("toolLoosened"), tool: counts, xMm: mm }),
  z.strictObject({ type: z.literal("toolSlid"), tool: counts, xMm: mm, at: place }),
  z.strictObject({ type: z.literal("toolTightened"), tool: counts, how, xMm: mm }),
  z.strictObject({ type: z.literal("feedTurned"), isLow: z.boolean() }),
] as const;
export const incidents = { neighborStruck: 0.4 } as const;
