import { z } from "zod";
import { handMeasures } from "../../../../instruments";
import { id, tool } from "../../../../lane/pieces";
import { measurable } from "./names";

export const commands = [
  z.strictObject({
    type: z.literal("measure"),
    what: z.enum(measurable),
    by: z.enum(handMeasures),
    id: id.optional(),
    tool: tool.optional(),
  }),
] as const;
export const events = [] as const;
export const incidents = {} as const;
