import { z } from "zod";
import { counts, mm, place, turnedAxis } from "../../../../lane/pieces";

export const commands = [z.strictObject({ type: z.literal("swingArm"), isDown: z.boolean() })] as const;
export const events = [
  z.strictObject({ type: z.literal("armSwung"), isDown: z.boolean() }),
  z.strictObject({ type: z.literal("armTripped"), axis: turnedAxis, at: place, number: counts, errorMm: mm }),
  z.strictObject({ type: z.literal("armLeft") }),
] as const;
export const incidents = { armStruck: 0.4 } as const;
