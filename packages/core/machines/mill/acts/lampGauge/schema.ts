import { z } from "zod";
import { mm, surface } from "../../../../lane/pieces";

export const commands = [
  z.strictObject({ type: z.literal("standLamp") }),
  z.strictObject({ type: z.literal("takeLamp") }),
] as const;
export const events = [
  z.strictObject({ type: z.literal("lampStood"), on: surface, x: mm, y: mm, footMm: mm }),
  z.strictObject({ type: z.literal("lampTaken") }),
] as const;
export const incidents = { gaugeDamaged: 0.2 } as const;
