import { z } from "zod";
import { counts, mm, typed } from "../../../../lane/pieces";

const under = z.enum(["spindle", "tailstock"]);
const from = z.enum(["below", "above"]);
const what = z.enum(["axisHeight", "gaugeError"]);

export const commands = [
  z.strictObject({ type: z.literal("tryStack"), text: typed, under }),
  z.strictObject({ type: z.literal("zeroGauge") }),
  z.strictObject({ type: z.literal("readGauge"), from }),
  z.strictObject({ type: z.literal("stateHeight"), what, text: typed }),
] as const;
export const events = [
  z.strictObject({ type: z.literal("stackTried"), blocks: z.array(mm), under, goes: z.boolean(), number: counts }),
  z.strictObject({ type: z.literal("gaugeZeroed") }),
  z.strictObject({ type: z.literal("gaugeRead"), from, isZeroed: z.boolean(), number: counts }),
  z.strictObject({ type: z.literal("heightStated"), what, mm }),
] as const;
export const incidents = {} as const;
