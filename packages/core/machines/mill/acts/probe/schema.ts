import { z } from "zod";
import { probeQuestions } from "../../../../instruments";
import { workOffsetNames } from "../../../../registers";
import { direction, flatAxis, typed } from "../../../../lane/pieces";

export const commands = [
  z.strictObject({
    type: z.literal("askProbe"),
    question: z.enum(probeQuestions),
    axis: flatAxis.optional(),
    direction: direction.optional(),
    directionY: direction.optional(),
    size: typed.optional(),
    depth: typed.optional(),
    /** The work offset that the answer is written into, where the machine is set so. */
    into: z.enum(workOffsetNames).optional(),
  }),
] as const;
export const events = [] as const;
export const incidents = { probeBroken: 0.4 } as const;
