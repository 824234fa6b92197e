import { z } from "zod";
import { counts, mm, place, tool } from "../../../../lane/pieces";
import { sightings } from "./names";

export const commands = [
  z.strictObject({ type: z.literal("recall"), row: tool.nullable() }),
  z.strictObject({ type: z.literal("sightEdge") }),
] as const;
export const events = [
  z.strictObject({
    type: z.literal("edgeSighted"),
    tool: counts,
    looks: z.enum(sightings),
    at: place,
    errorMm: mm,
  }),
] as const;
export const incidents = {} as const;
