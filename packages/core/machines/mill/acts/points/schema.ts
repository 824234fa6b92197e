import { z } from "zod";
import { workOffsetNames } from "../../../../registers";
import { direction, flatAxis, mm } from "../../../../lane/pieces";

export const commands = [
  z.strictObject({ type: z.literal("keepPoint") }),
  z.strictObject({
    type: z.literal("setFromPoints"),
    what: z.enum(["edge", "middle"]),
    axis: flatAxis,
    into: z.enum(workOffsetNames),
  }),
] as const;
export const events = [
  z.strictObject({ type: z.literal("pointKept"), axis: flatAxis, approach: direction, atMm: mm, radiusMm: mm }),
] as const;
export const incidents = {} as const;
