import { z } from "zod";
import { counts, mm, place } from "../../../../lane/pieces";
import { conePasses } from "./names";

export const commands = [z.strictObject({ type: z.literal("runCone"), isHeld: z.boolean() })] as const;
export const events = [
  z.strictObject({
    type: z.literal("coneRan"),
    tool: counts,
    isHeld: z.boolean(),
    looks: z.enum(conePasses),
    offMm: mm,
    number: counts,
    at: place,
    faceMm: mm,
    cone: z.strictObject({ diameterMm: mm, atMm: mm, angleDeg: mm, lengthMm: mm }),
  }),
] as const;
export const incidents = {} as const;
