import { z } from "zod";
import { mm } from "../../../../lane/pieces";
import { calibrated, masters } from "./names";

export const commands = [
  z.strictObject({ type: z.literal("calibrate"), what: z.enum(calibrated), by: z.enum(masters) }),
] as const;
export const events = [
  z.strictObject({ type: z.literal("calibrated"), what: z.enum(calibrated), by: z.enum(masters), mm }),
] as const;
export const incidents = {} as const;
